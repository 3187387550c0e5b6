"""One step of a route, with everything that the bench needs to know, and what it leaves of the marks before it."""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face.nicks import dishes_of
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.search import TIME, Route
from kelbrast.core.process.clearance import area_factor, marks_left
from kelbrast.core.process.removal import share_done
from kelbrast.core.process.rework import expected_repeats
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.advice import AtStep, step_advice
from kelbrast.core.rules.cautions import light_check, step_cautions
from kelbrast.core.rules.lay import LayOfStep, lay_of_step
from kelbrast.core.rules.softness import takes_in_all
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import REL_TOL

_CURVE_POINTS = 40


@dataclass(frozen=True, slots=True)
class Rests:
    """How often the part is put down to cool (`count`), for how long each time and after how much work (s).

    Attributes:
        by_hand: the hand that holds it in finger guards is the limit, not the material.
    """

    count: int
    seconds: float
    after: float
    by_hand: bool


@dataclass(frozen=True, slots=True)
class StepMarks:
    """What a step does to the marks (SI).

    Attributes:
        before: depth of the marks that it meets, at worst; likely_before: as it will probably be.
        layer: what it takes off; likely_layer: probably.
        after: depth of its own marks.
        left: old marks that can be expected to be there still when it is done; share: of all that there were, 0 to 1.
        stays: how deep old marks still are that the tool could not reach, 0 when it reaches all.
    """

    before: float
    likely_before: float
    layer: float
    likely_layer: float
    after: float
    left: float
    share: float
    stays: float

    @property
    def clearance(self) -> float:
        """The layer in depths of the marks."""
        return self.layer / self.before


@dataclass(frozen=True, slots=True)
class StepTime:
    """Where the time of a step goes (s).

    Attributes:
        all: everything.  cut: on the work.  wash: off the grit of the step before.  rests: None when it never gets too hot.
    """

    all: float
    cut: float
    wash: float
    rests: Rests | None


@dataclass(frozen=True, slots=True)
class StepUse:
    """What a step uses up.

    Attributes:
        at_hand: abrasives to have there.  worn: how many of them, or of bars and tubs, are worn out by it.  cost: money.
        life: e-folding time of its cutting rate here, s; change_after: when it is changed, s; infinite for never.
    """

    at_hand: float
    worn: float
    cost: float
    life: float
    change_after: float


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a route.

    Attributes:
        own: the item of the shop's rack that it is done with; None when planned from the catalogue.
        advice: what is good to know.
        curve: (seconds since the step began, deepest marks left) for drawing.
    """

    on_face: ToolOnFace
    marks: StepMarks
    time: StepTime
    use: StepUse
    lay: LayOfStep
    check: str
    cautions: tuple[str, ...]
    advice: tuple[str, ...]
    curve: tuple[tuple[float, float], ...]
    own: OwnTool | None = None

    @property
    def tool(self) -> Tool:
        return self.on_face.tool


def steps_of(figures: StepFigures, route: Route) -> tuple[Step, ...]:
    """The steps of a route."""
    steps: list[Step] = []
    repeats = expected_repeats(np.array([figures.beyond("double-up")[step] for step in route.steps]))
    for number, (before, at) in enumerate(route.steps):
        stood, leaps = steps[-1].marks.stays if steps else 0.0, bool(repeats[number] > 1)
        steps.append(_step(figures, before, at, stood=stood, last=at == route.nodes[-1], leaps=leaps))
    return tuple(steps)


def _step(figures: StepFigures, before: int, at: int, *, stood: float, last: bool, leaps: bool) -> Step:
    """`stood`: depth of old marks that the steps before could not reach."""
    surfaces, face = figures.surfaces, figures.face
    on_face, own = surfaces.leaving(at), figures.own.get(surfaces.leaving(at).tool.id)
    layer = float(figures.layer[before, at])
    marks = StepMarks(
        before=float(surfaces.depth_worst[before]),
        likely_before=float(surfaces.depth_likely[before]),
        layer=layer,
        likely_layer=float(figures.likely_layer[before, at]),
        after=float(surfaces.depth_worst[at]),
        left=marks_left_by(surfaces, before, at, layer),
        share=marks_share_by(surfaces, before, at, layer),
        stays=stays_after(surfaces, before, at, layer, stood),
    )
    rests = _rests(figures, before, at)
    time = StepTime(
        all=float(figures.values[TIME, before, at]),
        cut=float(figures.cut[before, at]),
        wash=constant("work.wash").si if before else 0.0,
        rests=rests,
    )
    return Step(
        on_face=on_face,
        marks=marks,
        time=time,
        use=(use := _use(figures, before, at)),
        lay=lay_of_step(on_face, face, last=last),
        check=light_check(on_face, face, first=before == 0, last=last),
        cautions=step_cautions(on_face, face, surfaces.material, warning=own.warning if own else None),
        advice=step_advice(
            AtStep(
                one=on_face,
                face=face,
                material=surfaces.material,
                first=before == 0,
                last=last,
                own=own,
                blends=before == 0 and dishes_of(face, face.found.likely or 0.0) is not None,
                hot_in_hand=on_face.working.until_bare < time.cut,
                leaps=leaps,
            )
        ),
        curve=_curve(use, on_face, marks, time, fresh=float(figures.fresh[before, at]), stood=stood),
        own=own,
    )


def _use(figures: StepFigures, before: int, at: int) -> StepUse:
    worn, price = float(figures.worn[before, at]), figures.surfaces.leaving(at).tool.carrier.stock.price
    life, change = float(figures.life[before, at]), float(figures.change_after[before, at])
    return StepUse(float(figures.used[before, at]), worn, worn * price, life, change)


def _rests(figures: StepFigures, before: int, at: int) -> Rests | None:
    count = int(figures.rests[before, at])
    if count == 0:
        return None
    working = figures.surfaces.leaving(at).working
    return Rests(count, figures.warm.rest, working.until_hot, working.by_hand)


def _curve(
    use: StepUse, on_face: ToolOnFace, marks: StepMarks, time: StepTime, *, fresh: float, stood: float
) -> tuple[tuple[float, float], ...]:
    """Deepest marks left over the step, from the depth that it is planned for: old ones sink as the layer goes, down to the
    step's own; changes spread evenly."""
    stock = on_face.tool.carrier.stock
    depth, own = max(marks.before, stood), max(marks.after, marks.stays)
    start = stock.setup + time.wash
    working = time.all - start - constant("work.check").si
    share = np.arange(1, _CURVE_POINTS + 1) / _CURVE_POINTS
    done = share_done(seconds=time.cut * share, fresh=fresh, life=use.life, change_after=use.change_after)
    sinking = zip((start + working * share).tolist(), np.maximum(depth - marks.layer * done, own).tolist(), strict=True)
    first = max(depth, own)
    return ((0.0, first), (start, first), *sinking, (time.all, own))


def marks_left_by(surfaces: Surfaces, before: int, at: int, layer: float) -> float:
    """Old marks that can be expected to be there still after a step took this layer (m) off.

    A tool that cannot reach so deep, or may not take so much, only takes marks down to that; one that follows the shape
    leaves all ripple.
    """
    face, tool = surfaces.face, surfaces.leaving(at).tool
    depth = float(surfaces.depth_worst[before])
    if before == 0 and face.edge is not None:
        return 0.0  # there are no marks on it: what is taken off is the edge itself
    if before == 0 and face.must_be_levelled:
        return 0.0 if tool.carrier.cutting.levels else float(face.found.count)
    reaches = tool.reaches_depth
    taken = layer if reaches is None or reaches >= surfaces.deepest[before] else min(layer, reaches)
    taken = min(taken, takes_in_all(surfaces.leaving(at), surfaces))
    if before:
        return marks_left(area=face.area, grain=surfaces.leaving(before).tool.grain, depth=depth, layer=taken)
    if face.found.after is not None:
        return marks_left(area=face.area, grain=face.found.after.grain, depth=depth, layer=taken)
    if taken >= depth:
        return 0.0
    if face.found.kind == "nick":
        return float(face.found.count)
    # The depth found is the deepest of the face already; the usual depth of its marks follows from their number.
    grain = grain_of_marks(depth=depth, hardness=surfaces.material.hardness)
    return marks_left(area=face.area, grain=grain, depth=depth / area_factor(area=face.area, grain=grain), layer=taken)


def marks_share_by(surfaces: Surfaces, before: int, at: int, layer: float) -> float:
    """The share (0 to 1) of the old marks that can be expected to be there still after a step took this layer (m) off."""
    left = marks_left_by(surfaces, before, at, layer)
    return left / marks_left_by(surfaces, before, at, 0.0) if left else 0.0


def stays_after(surfaces: Surfaces, before: int, at: int, layer: float, stood: float) -> float:
    """Depth of the old marks left by a tool that cannot reach their floor, or that follows the shape, m; 0 for none.

    Args:
        stood: depth of old marks that the steps before could not reach, m.
    """
    tool = surfaces.leaving(at).tool
    depth, reaches = float(surfaces.depth_worst[before]), tool.reaches_depth
    if before == 0 and surfaces.face.edge is not None:
        return 0.0
    most = takes_in_all(surfaces.leaving(at), surfaces)
    if layer > most * (1 + REL_TOL):
        return max(0.0, max(depth, stood) - most)
    if before == 0 and surfaces.face.must_be_levelled and not tool.carrier.cutting.levels:
        return depth
    if reaches is None or reaches >= max(float(surfaces.deepest[before]), stood):
        return max(0.0, stood - layer)
    return max(0.0, max(depth, stood) - min(layer, reaches))
