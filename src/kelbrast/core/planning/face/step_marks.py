"""What a step does to the marks that it meets: which it takes out, by what layer, and what stays."""

from dataclasses import dataclass

from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.process.clearance import area_factor, marks_left
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.rules.softness import takes_in_all
from kelbrast.core.surface.found import Found, Spots
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import REL_TOL


@dataclass(frozen=True, slots=True)
class MetMarks:
    """Something that a step meets and takes off.

    Attributes:
        layer: that it asks for, m.  depth: of it, at worst, m.
        grain: of the tool that left it, m; None for what has a depth of its own.  area: where that left it, m2.
        found: what was found; None for what a tool of the route left.  in_places: it is spots.
    """

    layer: float
    depth: float
    grain: float | None
    area: float
    found: Found | None
    in_places: bool = False


@dataclass(frozen=True, slots=True)
class StepMarks:
    """What a step does to the marks (SI).

    Attributes:
        before: depth of the marks that it meets, at worst; likely_before: as it will probably be.
        layer: what it takes off; likely_layer: probably.
        after: depth of its own marks.
        left: old marks that can be expected to be there still when it is done; share: of all that there were, 0 to 1.
        stays: how deep old marks still are that the tool could not reach, 0 when it reaches all.
        met: what it meets, what asks for most first; empty where it only covers what it goes on over.
    """

    before: float
    likely_before: float
    layer: float
    likely_layer: float
    after: float
    left: float
    share: float
    stays: float
    met: tuple[MetMarks, ...]

    @property
    def clearance(self) -> float:
        """The layer in depths of the marks."""
        return self.layer / self.before


def marks_of(figures: StepFigures, step: int, *, stood: float) -> StepMarks:
    """`stood`: depth of old marks that the steps before could not reach, m."""
    on_face, layer = figures.tool_at(int(figures.graph.after[step])), float(figures.layer[step])
    depth, likely = met_depths(figures, step)
    stays = (stays_after(figures.met.found[at], row, on_face, layer, stood) for at, row in figures.met.by(step))
    return StepMarks(
        before=depth,
        likely_before=likely,
        layer=layer,
        likely_layer=float(figures.likely_layer[step]),
        after=on_face.depth,
        left=marks_left_by(figures, step, layer),
        share=marks_share_by(figures, step, layer),
        stays=max(stays, default=stood),
        met=_met_marks(figures, step),
    )


def met_depths(figures: StepFigures, step: int) -> tuple[float, float]:
    """Depth of the deepest marks that a step meets, at worst and probably, m; its own where it only covers."""
    pairs = [(figures.met.found[at], row) for at, row in figures.met.by(step)]
    if not pairs:
        own = figures.tool_at(int(figures.graph.after[step])).depth
        return own, own
    return (
        max(float(surfaces.depth_worst[row]) for surfaces, row in pairs),
        max(float(surfaces.depth_likely[row]) for surfaces, row in pairs),
    )


def _met_marks(figures: StepFigures, step: int) -> tuple[MetMarks, ...]:
    each = [_met_as(figures, step, found, row) for found, row in figures.met.by(step)]
    return tuple(sorted(each, key=lambda met: -met.layer))


def _met_as(figures: StepFigures, step: int, number: int, row: int) -> MetMarks:
    surfaces, after = figures.met.found[number], int(figures.met.after[step])
    layer, depth, found = float(figures.layers[number][row, after]), float(surfaces.depth_worst[row]), surfaces.face.found
    if row:
        return MetMarks(layer, depth, surfaces.leaving(row).tool.grain, float(figures.area[figures.graph.before[step]]), None)
    area = float(figures.area[figures.graph.after[step]])
    return MetMarks(layer, depth, found.after.grain if found.after else None, area, found, in_places=number > 0)


def marks_left_by(figures: StepFigures, step: int, layer: float) -> float:
    """Old marks that can be expected to be there still after a step took this layer (m) off where it works.

    A tool that cannot reach so deep, or may not take so much, only takes marks down to that; one that follows the shape
    leaves all ripple.
    """
    node, before = int(figures.graph.after[step]), int(figures.graph.before[step])
    tool, left = figures.tool_at(node), 0.0
    for number, row in figures.met.by(step):
        surfaces, area = figures.met.found[number], float(figures.area[before] if row else figures.area[node])
        if number:
            left += _spots_left(surfaces, figures.face.spots[number - 1], tool, layer)
        else:
            left += _marks_left(surfaces, row, tool, layer, area)
    return left


def _reached(surfaces: Surfaces, row: int, on_face: ToolOnFace, layer: float) -> float:
    """Down to which depth (m) marks are taken out where a tool takes this layer off."""
    reaches = on_face.tool.reaches_depth
    taken = layer if reaches is None or reaches >= surfaces.deepest[row] else min(layer, reaches)
    return min(taken, takes_in_all(on_face, surfaces))


def _spots_left(surfaces: Surfaces, spots: Spots, on_face: ToolOnFace, layer: float) -> float:
    if surfaces.face.must_be_levelled:
        return 0.0 if on_face.tool.carrier.cutting.levels else float(spots.count)
    return 0.0 if _reached(surfaces, 0, on_face, layer) >= float(surfaces.depth_worst[0]) else float(spots.count)


def _marks_left(surfaces: Surfaces, row: int, on_face: ToolOnFace, layer: float, area: float) -> float:
    face, depth = surfaces.face, float(surfaces.depth_worst[row])
    if row == 0 and face.edge is not None:
        return 0.0  # there are no marks on it: what is taken off is the edge itself
    if row == 0 and face.must_be_levelled:
        return 0.0 if on_face.tool.carrier.cutting.levels else 1.0
    taken = _reached(surfaces, row, on_face, layer)
    if row:
        return marks_left(area=area, grain=surfaces.leaving(row).tool.grain, depth=depth, layer=taken)
    if face.found.after is not None:
        return marks_left(area=area, grain=face.found.after.grain, depth=depth, layer=taken)
    if taken >= depth:
        return 0.0
    # The depth found is the deepest of the face already; the usual depth of its marks follows from their number.
    grain = grain_of_marks(depth=depth, hardness=surfaces.material.hardness)
    return marks_left(area=area, grain=grain, depth=depth / area_factor(area=area, grain=grain), layer=taken)


def marks_share_by(figures: StepFigures, step: int, layer: float) -> float:
    """The share (0 to 1) of the old marks that can be expected to be there still after a step took this layer (m) off."""
    left = marks_left_by(figures, step, layer)
    return left / marks_left_by(figures, step, 0.0) if left else 0.0


def stays_after(surfaces: Surfaces, row: int, on_face: ToolOnFace, layer: float, stood: float) -> float:
    """Depth of the old marks left by a tool that cannot reach their floor, or that follows the shape, m; 0 for none.

    Args:
        stood: depth of old marks that the steps before could not reach, m.
    """
    depth, reaches = float(surfaces.depth_worst[row]), on_face.tool.reaches_depth
    if row == 0 and surfaces.face.edge is not None:
        return 0.0
    most = takes_in_all(on_face, surfaces)
    if layer > most * (1 + REL_TOL):
        return max(0.0, max(depth, stood) - most)
    if row == 0 and surfaces.face.must_be_levelled and not on_face.tool.carrier.cutting.levels:
        return depth
    if reaches is None or reaches >= max(float(surfaces.deepest[row]), stood):
        return max(0.0, stood - layer)
    return max(0.0, max(depth, stood) - min(layer, reaches))
