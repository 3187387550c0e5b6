"""One step of a route, with everything that the bench needs to know, and what it leaves of the marks before it."""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.job import HabitKey, Handover
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.face.step_marks import StepMarks, marks_of
from kelbrast.core.planning.kernel.step_table import TIME, Route
from kelbrast.core.process.removal import share_done
from kelbrast.core.process.rework import expected_repeats
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.advice import AtStep, step_advice
from kelbrast.core.rules.cautions import light_check, step_cautions
from kelbrast.core.rules.lay import LayOfStep, lay_of_step
from kelbrast.core.surface.found import Spots
from kelbrast.core.tooling.tool_on_face import ToolOnFace

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
class StepTime:
    """Where the time of a step goes (s).

    Attributes:
        all: everything.  cut: on the work.  set_up: putting the tool on.  wash: off the grit of the step before.
        rests: None when it never gets too hot.
    """

    all: float
    cut: float
    set_up: float
    wash: float
    rests: Rests | None

    @property
    def handling(self) -> float:
        """Washing, changing the abrasive, cooling, the light check."""
        return self.all - self.cut - self.set_up


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
class ZoneOfStep:
    """What a step works that does not work all of a face: the spots, and the area around all of them, m2.

    Attributes:
        begun: those of the spots that the step is the first to work.
        margins: how far around each of them is worked, m, in the order of `spots`.
        band: along the whole lay.
    """

    spots: tuple[Spots, ...]
    begun: tuple[Spots, ...]
    area: float
    margins: tuple[float, ...]
    band: bool = False


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a route.

    Attributes:
        zone: what it works; None for all of the face.  goes_on: with the tool of the step before, which is set up already.
        slabs: what it probably cuts, as (where, thickness in m, area in m2).
        fails: the chance that its light check sends it back.
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
    zone: ZoneOfStep | None = None
    goes_on: bool = False
    fails: float = 0.0
    slabs: tuple[tuple[str, float, float], ...] = ()

    @property
    def volume(self) -> float:
        """That it probably cuts, m3."""
        return sum(thickness * area for _, thickness, area in self.slabs)

    @property
    def tool(self) -> Tool:
        return self.on_face.tool


def steps_of(figures: StepFigures, route: Route, habit: HabitKey, handover: Handover) -> tuple[Step, ...]:
    """The steps of a route; the habit and the school say how likely each is to be done again."""
    steps: list[Step] = []
    repeats = expected_repeats(figures.beyond("double-up", route.steps))
    fails = [figures.chance_of_repeat(step, habit, handover) for step in route.steps]
    for number, at in enumerate(route.steps):
        stood, leaps = steps[-1].marks.stays if steps else 0.0, bool(repeats[number] > 1)
        last = number == len(route.steps) - 1
        steps.append(_step(figures, at, stood=stood, last=last, leaps=leaps, fails=fails[number]))
    return tuple(steps)


def _step(figures: StepFigures, at: int, *, stood: float, last: bool, leaps: bool, fails: float) -> Step:
    """`stood`: depth of old marks that the steps before could not reach."""
    surfaces, face = figures.surfaces, figures.face
    on_face = figures.tool_at(int(figures.graph.after[at]))
    own, zone = figures.own.get(on_face.tool.id), zone_of(figures, at)
    first = not figures.washed(at) and not figures.met.on[at]
    marks = marks_of(figures, at, stood=stood)
    time = StepTime(
        all=float(figures.values[TIME, at]),
        cut=float(figures.cut[at]),
        set_up=0.0 if figures.met.on[at] else on_face.tool.carrier.stock.setup,
        wash=constant("work.wash").si if figures.washed(at) else 0.0,
        rests=_rests(figures, at),
    )
    return Step(
        on_face=on_face,
        marks=marks,
        time=time,
        use=(use := _use(figures, at)),
        lay=lay_of_step(on_face, face, last=last),
        check=light_check(on_face, face, levels=_levelled(figures, at), last=last, at_rim=zone is not None),
        cautions=step_cautions(on_face, face, surfaces.material, warning=own.warning if own else None),
        advice=step_advice(
            AtStep(
                one=on_face,
                face=face,
                material=surfaces.material,
                first=first,
                last=last,
                own=own,
                blends=zone is not None,
                hot_in_hand=on_face.working.until_bare < time.cut,
                leaps=leaps,
            )
        ),
        curve=_curve(use, on_face, marks, time, fresh=float(figures.fresh[at]), stood=stood, goes_on=bool(figures.met.on[at])),
        own=own,
        zone=zone,
        goes_on=bool(figures.met.on[at]),
        fails=fails,
        slabs=_slabs(figures, at),
    )


def zone_of(figures: StepFigures, step: int) -> ZoneOfStep | None:
    """What a step works; None for all of the face."""
    node = int(figures.graph.after[step])
    band = bool(figures.banded[node])
    if figures.graph.whole[node] and not band:
        return None
    assert figures.zones is not None, "only where places are worked by themselves"
    spots, begun = figures.face.spots, figures.met.begins[1:, step]
    worked = [at for at in range(len(spots)) if int(figures.graph.kinds[node]) >> at & 1]
    row = int(figures.graph.row[node])
    margins = figures.zones.margins[:, row, figures.zones.own_width[row] if band else figures.graph.width[node]]
    return ZoneOfStep(
        tuple(spots[at] for at in worked),
        tuple(spots[at] for at in worked if begun[at]),
        float(figures.area[node]),
        tuple(float(margins[at]) for at in worked),
        band,
    )


def _levelled(figures: StepFigures, step: int) -> str | None:
    """The kind of damage that a step takes down to the face; None where it meets none."""
    found = [figures.met.found[at].face for at, row in figures.met.by(step) if row == 0]
    return next((face.found.kind for face in found if face.must_be_levelled), None)


def _use(figures: StepFigures, step: int) -> StepUse:
    price = figures.tool_at(int(figures.graph.after[step])).tool.carrier.stock.price
    worn, life, change = float(figures.worn[step]), float(figures.life[step]), float(figures.change_after[step])
    return StepUse(float(figures.used[step]), worn, worn * price, life, change)


def _slabs(figures: StepFigures, step: int) -> tuple[tuple[str, float, float], ...]:
    where = ("worked before", "new around that", "all over", *(f"dug out: {spots.name}" for spots in figures.face.spots))
    each = [(float(thickness[step]), float(area[step])) for thickness, area in figures.slabs]
    return tuple((name, thick, area) for name, (thick, area) in zip(where, each, strict=True) if thick > 0 and area > 0)


def _rests(figures: StepFigures, step: int) -> Rests | None:
    count = int(figures.rests[step])
    if count == 0:
        return None
    working = figures.tool_at(int(figures.graph.after[step])).working
    return Rests(count, figures.warm.rest, working.until_hot, working.by_hand)


def _curve(
    use: StepUse, on_face: ToolOnFace, marks: StepMarks, time: StepTime, *, fresh: float, stood: float, goes_on: bool
) -> tuple[tuple[float, float], ...]:
    """Deepest marks left over the step, from the depth that it is planned for: old ones sink as the layer goes, down to the
    step's own; changes spread evenly."""
    stock = on_face.tool.carrier.stock
    depth, own = max(marks.before, stood), max(marks.after, marks.stays)
    start = (0.0 if goes_on else stock.setup) + time.wash
    working = time.all - start - constant("work.check").si
    share = np.arange(1, _CURVE_POINTS + 1) / _CURVE_POINTS
    done = share_done(seconds=time.cut * share, fresh=fresh, life=use.life, change_after=use.change_after)
    sinking = zip((start + working * share).tolist(), np.maximum(depth - marks.layer * done, own).tolist(), strict=True)
    first = max(depth, own)
    return ((0.0, first), (start, first), *sinking, (time.all, own))
