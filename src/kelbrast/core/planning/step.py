"""One step of a route, with everything that the bench needs to know."""

from dataclasses import dataclass

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.advice import LayOfStep, lay_of_step, light_check, step_cautions
from kelbrast.core.planning.fit import Fit
from kelbrast.core.planning.graph import TIME, Graph
from kelbrast.core.process.clearance import area_factor, marks_left
from kelbrast.core.process.dulling import share_done
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant

_CURVE_POINTS = 40


@dataclass(frozen=True, slots=True)
class Rests:
    """How often the part is put down to cool (`count`), for how long each time and after how much work (s).

    Attributes:
        by_hand: the hand holding it is the limit, not the material.
    """

    count: int
    seconds: float
    after: float
    by_hand: bool


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a route (SI).

    Attributes:
        depth_before: depth of the marks that it meets, at worst; `likely_before`: as it will probably be.
        layer: what it takes off, `clearance * depth_before`.
        depth_after: depth of its own marks.
        seconds: everything; `cut_seconds`: on the work; `wash_seconds`: cleaning off the grit of the step before.
        used: abrasives to have at hand; worn: how many of them, or of bars and tubs, are worn out by it.
        rests: None when the part never gets too hot.
        marks_left: old marks that can be expected to be there still when the step is done.
        marks_share: how large a share of the old marks that is, 0 to 1.
        stays: how deep old marks still are that the tool could not reach, 0 when it reaches all.
        own: the item of the shop's rack that it is done with; None when planned from the catalogue.
        curve: (seconds since the step began, deepest marks left) for drawing.
    """

    fit: Fit
    depth_before: float
    likely_before: float
    layer: float
    depth_after: float
    clearance: float
    seconds: float
    cut_seconds: float
    wash_seconds: float
    used: float
    worn: float
    rests: Rests | None
    marks_left: float
    marks_share: float
    stays: float
    lay: LayOfStep
    check: str
    cautions: tuple[str, ...]
    curve: tuple[tuple[float, float], ...]
    own: OwnTool | None = None

    @property
    def tool(self) -> Tool:
        return self.fit.tool


def steps_of(graph: Graph, nodes: tuple[int, ...], material: Material) -> tuple[Step, ...]:
    """The steps of a route through these tool nodes."""
    pairs = list(zip((0, *nodes), nodes, strict=False))
    steps: list[Step] = []
    for place, (before, at) in enumerate(pairs):
        stood = steps[-1].stays if steps else 0.0
        steps.append(_step(graph, before, at, material, stood=stood, last=place == len(pairs) - 1))
    return tuple(steps)


def _step(graph: Graph, before: int, at: int, material: Material, *, stood: float, last: bool) -> Step:
    """`stood`: depth of old marks that the steps before could not reach."""
    fit, face = graph.fits[at - 1], graph.face
    layer, depth = float(graph.layer[before, at]), float(graph.depth_worst[before])
    own = graph.own.get(fit.tool.id)
    seconds = float(graph.values[TIME, before, at])
    stays = _out_of_reach(graph, before, at, stood)
    return Step(
        fit=fit,
        depth_before=depth,
        likely_before=float(graph.depth_likely[before]),
        layer=layer,
        depth_after=float(graph.depth_worst[at]),
        clearance=layer / depth,
        seconds=seconds,
        cut_seconds=float(graph.cut[before, at]),
        wash_seconds=constant("work.wash").si if before else 0.0,
        used=float(graph.used[before, at]),
        worn=float(graph.worn[before, at]),
        rests=_rests(graph, before, at),
        marks_left=marks_left_by(graph, before, at, layer),
        marks_share=marks_share_by(graph, before, at, layer),
        stays=stays,
        lay=lay_of_step(fit, face, last=last),
        check=light_check(fit, face, first=before == 0, last=last),
        cautions=step_cautions(fit, material, warning=own.warning if own else None),
        own=own,
        curve=_curve(graph, before, at, seconds, stood, stays),
    )


def marks_left_by(graph: Graph, before: int, at: int, layer: float) -> float:
    """Old marks that can be expected to be there still after a step took this layer (m) off.

    A tool that can not reach so deep only takes marks down to its reach; one that follows the shape leaves all ripple.
    """
    face, fit = graph.face, graph.fits[at - 1]
    depth = float(graph.depth_worst[before])
    if before == 0 and face.must_be_levelled:
        return 0.0 if fit.tool.carrier.levels else float(face.found.count)
    reaches = fit.tool.reaches_depth
    taken = layer if reaches is None or reaches >= graph.deepest[before] else min(layer, reaches)
    if before:
        return marks_left(area=face.area, grain=graph.fits[before - 1].tool.grain, depth=depth, layer=taken)
    if face.found.after is not None:
        return marks_left(area=face.area, grain=face.found.after.grain, depth=depth, layer=taken)
    if face.found.kind == "nick":
        return 0.0 if taken >= depth else float(face.found.count)
    # The depth found is the deepest of the face already; the usual depth of its marks follows from their number.
    grain = grain_of_marks(depth=depth, hardness=graph.hardness)
    usual = depth / area_factor(area=face.area, grain=grain)
    return 0.0 if taken >= depth else marks_left(area=face.area, grain=grain, depth=usual, layer=taken)


def marks_share_by(graph: Graph, before: int, at: int, layer: float) -> float:
    """The share (0 to 1) of the old marks that can be expected to be there still after a step took this layer (m) off."""
    left = marks_left_by(graph, before, at, layer)
    return left / marks_left_by(graph, before, at, 0.0) if left else 0.0


def _out_of_reach(graph: Graph, before: int, at: int, stood: float) -> float:
    """Depth of the old marks left by a tool that can not reach their floor, or that follows the shape; 0 for none."""
    fit, layer = graph.fits[at - 1], float(graph.likely_layer[before, at])
    depth, reaches = float(graph.depth_likely[before]), fit.tool.reaches_depth
    if before == 0 and graph.face.must_be_levelled and not fit.tool.carrier.levels:
        return depth
    if reaches is None or reaches >= max(float(graph.deepest[before]), stood):
        return max(0.0, stood - layer)
    return max(0.0, max(depth, stood) - min(layer, reaches))


def _rests(graph: Graph, before: int, at: int) -> Rests | None:
    count = int(graph.rests[before, at])
    if count == 0:
        return None
    fit = graph.fits[at - 1]
    return Rests(count, graph.warm.rest, fit.until_hot, fit.by_hand)


def _curve(graph: Graph, before: int, at: int, seconds: float, stood: float, stays: float) -> tuple[tuple[float, float], ...]:
    """Deepest marks left over the step: old ones sink as the layer goes, down to the step's own; changes spread evenly."""
    fit = graph.fits[at - 1]
    carrier = fit.tool.carrier
    depth, own = max(float(graph.depth_likely[before]), stood), max(float(graph.depth_worst[at]), stays)
    layer = float(graph.likely_layer[before, at])
    cut, fresh = float(graph.cut[before, at]), float(graph.fresh[before, at])
    start = carrier.setup + (constant("work.wash").si if before else 0.0)
    working = seconds - start - constant("work.check").si
    points = [(0.0, max(depth, own)), (start, max(depth, own))]
    for k in range(1, _CURVE_POINTS + 1):
        share = k / _CURVE_POINTS
        done = share_done(seconds=cut * share, fresh=fresh, life=carrier.life, change_cost=fit.change_cost)
        points.append((start + working * share, max(depth - layer * done, own)))
    return (*points, (seconds, own))
