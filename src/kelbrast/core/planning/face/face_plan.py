"""Plans one face: the best route within the habits and the wish, or the constraint that binds."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.job import HABITS, HANDOVERS, Aim, Job
from kelbrast.core.learning.factors import Yours
from kelbrast.core.planning.face.binding import Binding, binding
from kelbrast.core.planning.face.routes import RouteRequest, best_route, expected_rework, seconds_with_repeats, sensible_route
from kelbrast.core.planning.face.step import Step, steps_of
from kelbrast.core.planning.face.step_figures import StepFigures, step_figures
from kelbrast.core.planning.face.zones import steepest_rim
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, TIME, Route
from kelbrast.core.precision.advice import SizingAdvice, usual_lap
from kelbrast.core.precision.face import SizingStep, size_of_face, sizing_tools
from kelbrast.core.precision.state import WorkRound
from kelbrast.core.process.blend import dish_radius
from kelbrast.core.process.rework import chance_of_repeat
from kelbrast.core.process.scratch import depth_of_marks, marks_said
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import usable
from kelbrast.core.rules.roughness import wanted_band
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.surface.found import Spots
from kelbrast.core.tooling.tool_on_face import tools_on_face
from kelbrast.core.validity import REL_TOL, Reals
from kelbrast.core.wording import Measure, Sentence, sentence


@dataclass(frozen=True, slots=True)
class SpotsLeft:
    """Spots that stay, because taking them out costs more than may come off the face.

    Attributes:
        least: what the most sparing way takes off there, m.  may: what may come off there, m.
        dish: radius of a dish that uses all that may come off, m.
    """

    spots: Spots
    least: float
    may: float
    dish: float

    @property
    def dish_stays(self) -> float:
        """How deep they still are in the middle of that dish, m."""
        return max(0.0, (self.spots.found.worst or 0.0) - self.may)


@dataclass(frozen=True, slots=True)
class FacePlan:
    """The route of a face. `steps` is empty when nothing is to be done, when the face is kept off, or when `binding` is set.

    Attributes:
        wanted: depth of the marks at the fine and the coarse end of the wanted band, m (0 and infinite for no end).
        rework: seconds of repeats to expect of steps that go far, 0 for few; not in `seconds`.
        without_habit: seconds of the best route if habit and school did not count; None where that saves nothing to speak of.
        end_note: said when fewer than nine of ten such faces end as wanted.  limit_note: when the limit is nearly used up.
        habit_note: said when the rack could not keep the habit; wish_note: when no route keeps the wish.
        metal: where most of it counts against the limit, m; above: of that, what stood above the face and does not count.
        metal_elsewhere: what comes off where no spots are, m; None where all of the face is worked alike.
        rest: depth of what covers the face, where spots are worked by themselves, m; all_alike: seconds of the best route that
            works all of the face alike. None elsewhere, and where no such route is.
        left: spots that stay.
    """

    face: Face
    aim: Aim
    binding: Binding | None
    steps: tuple[Step, ...]
    seconds: float
    metal: float
    cost: float
    changes: int
    wanted: tuple[float, float]
    rework: float = 0.0
    without_habit: float | None = None
    end_note: Sentence | None = None
    limit_note: Sentence | None = None
    habit_note: Sentence | None = None
    wish_note: Sentence | None = None
    above: float = 0.0
    metal_elsewhere: float | None = None
    rest: float | None = None
    all_alike: float | None = None
    left: tuple[SpotsLeft, ...] = ()

    @property
    def marks_left(self) -> float:
        """Old marks that can be expected to be there at the end."""
        return sum(step.marks.left for step in self.steps)

    @property
    def marks_said(self) -> Sentence:
        """The same in words."""
        return marks_said(self.marks_left, max((step.marks.share for step in self.steps), default=0.0))

    @property
    def possible(self) -> bool:
        return self.binding is None


def with_what_is_all_over(face: Face) -> Face:
    """The face with spots that are as large as it taken for what covers it: where everything is worked there are no places."""
    all_over = [spots for spots in face.spots if spots.area >= face.area * (1 - REL_TOL)]
    if not all_over:
        return face
    deepest = max(all_over, key=lambda spots: spots.found.worst or 0.0)
    return replace(face, found=deepest.found, spots=tuple(spots for spots in face.spots if spots not in all_over))


def figures_of(face: Face, job: Job, *, for_any_wish: bool = False) -> StepFigures | None:
    """All steps that the job's rack may take on a face; None for a face that is left alone.

    Args:
        for_any_wish: also those that only a route step by step may take, which the face's own wish brings by itself.
    """
    if face.left_alone:
        return None
    everything = for_any_wish or bool(face.wish.route) or not face.spots
    return step_figures(with_what_is_all_over(face), job, usable, for_any_wish=everything)


def wishing(figures: StepFigures, wish: Wish) -> StepFigures:
    """The same steps with another wish, which changes none of their figures."""
    surfaces = figures.surfaces
    return replace(figures, surfaces=replace(surfaces, face=replace(surfaces.face, wish=wish)))


def _obstacle(face: Face, job: Job) -> Binding:
    """What stands in the way, asked of the whole rack with the tools that may not be used here."""
    figures = step_figures(with_what_is_all_over(face), job, tools_on_face)
    return binding(figures, RouteRequest(objective=job.aim, limit=face.may_come_off))


@dataclass(frozen=True, slots=True)
class Chosen:
    """A route, and what was given up for it.

    Attributes:
        request: what it was chosen by.
        alike: the best route that works all of the face alike, where the one that was chosen does not.
    """

    route: Route | None
    request: RouteRequest | None = None
    alike: Route | None = None
    habit_note: Sentence | None = None
    wish_note: Sentence | None = None


@dataclass(frozen=True, slots=True)
class Worked:
    """A face with its steps worked out and its best route by itself.

    Attributes:
        figures: of the face without the spots that stay; None for a face that is kept off.
        left: the spots that stay.
    """

    face: Face
    figures: StepFigures | None
    chosen: Chosen
    left: tuple[SpotsLeft, ...] = ()

    @property
    def seconds_with_repeats(self) -> float:
        """What it is chosen by: 0 where nothing is to be done, infinite where nothing can be."""
        if self.figures is None:
            return 0.0
        route, request = self.chosen.route, self.chosen.request
        return np.inf if route is None or request is None else seconds_with_repeats(self.figures, request, route)

    def plan(self, job: Job) -> FacePlan:
        """As it is planned."""
        route, figures = self.chosen.route, self.figures
        low, high = wanted_band(self.face, job.material.hardness)
        wanted = (depth_of_marks(low), depth_of_marks(high))
        if figures is None or route is None:
            obstacle = None if figures is None else _obstacle(self.face, job)
            return FacePlan(self.face, job.aim, obstacle, (), 0.0, 0.0, 0.0, 0, wanted)
        metal, most = figures.metal_of(route), figures.loses_most(route)
        return FacePlan(
            face=self.face,
            aim=job.aim,
            binding=None,
            steps=steps_of(figures, route, job.habit, job.handover),
            seconds=float(route.totals[TIME]),
            metal=float(metal[most]),
            cost=float(route.totals[COST]),
            changes=round(route.totals[CHANGES]),
            wanted=wanted,
            rework=_rework(figures, self.chosen),
            without_habit=_without_habit(figures, self.chosen),
            end_note=_end_note(figures, route),
            limit_note=_limit_note(figures, route),
            habit_note=self.chosen.habit_note,
            wish_note=self.chosen.wish_note,
            above=max(0.0, figures.above_of(most)),
            metal_elsewhere=_elsewhere(figures, route, metal) if (zoned := figures.uses_zones(route)) else None,
            rest=float(figures.surfaces.depth_worst[0]) if zoned else None,
            all_alike=float(self.chosen.alike.totals[TIME]) if zoned and self.chosen.alike is not None else None,
            left=self.left,
        )


def plan_face(face: Face, job: Job) -> FacePlan:
    """The best route of one face by itself for the job's aim, habits and rack."""
    return work_out(face, job).plan(job)


def work_out(face: Face, job: Job) -> Worked:
    """The steps of a face and its best route by itself. Spots that are too deep for what may come off are left as they are."""
    figures = figures_of(face, job)
    if figures is None:
        return Worked(face, None, Chosen(None))
    chosen = chosen_route(figures, job)
    if chosen.route is None and (left := _too_deep(face, job)):
        kept = tuple(spots for spots in face.spots if spots not in [each.spots for each in left])
        rest = figures_of(replace(face, spots=kept), job)
        assert rest is not None, "a face that is worked has figures"
        without = chosen_route(rest, job)
        if without.route is not None:
            return Worked(face, rest, without, left)
    return Worked(face, figures, chosen)


def _too_deep(face: Face, job: Job) -> tuple[SpotsLeft, ...]:
    """The spots that cannot be taken out within the limit, however sparingly, though they could without it."""
    limit = face.limit
    if limit is None:
        return ()
    left, sparing = [], replace(request_for(face, job), objective="metal", wish=Wish())
    face = with_what_is_all_over(face)
    for spots in face.spots:
        figures = figures_of(replace(face, spots=(spots,)), job)
        assert figures is not None, "a face that is worked has figures"
        if best_route(figures, sparing) is not None:
            continue
        free = best_route(figures, replace(sparing, limit=np.inf))
        if free is not None:
            least, may = float(figures.metal_of(free)[1]) - spots.found.above, max(0.0, limit - spots.gone)
            left.append(SpotsLeft(spots, least, may, dish_radius(depth=may, slope=steepest_rim(face))))
    return tuple(left)


def request_for(face: Face, job: Job) -> RouteRequest:
    """What is looked for on a face: the aim, the metal limit, the habits and the wish.

    A route that the person sets out step by step may ask too much of a soft wheel: it is planned, with the marks it leaves.
    """
    lifted: frozenset[Refusal] = frozenset({"too-soft"}) if face.wish.route else frozenset()
    return RouteRequest(job.aim, face.may_come_off, job.habit, lifted, job.handover, face.wish)


def wished_route(figures: StepFigures, job: Job) -> Route | None:
    """The best route that keeps the wish of the face; None when no route does."""
    request = request_for(figures.face, job)
    return best_route(figures, request) if request.wish.route else sensible_route(figures, request)


def chosen_route(figures: StepFigures, job: Job) -> Chosen:
    """The best route that keeps the wish, or the best without it; and what was given up."""
    request = request_for(figures.face, job)
    route = wished_route(figures, job)
    if route is not None and figures.uses_zones(route):
        return _of_places(figures, request, route)
    if route is not None or request.wish.empty:
        return Chosen(route, request, habit_note=_beyond_habit(figures, request, route))
    free = replace(request, wish=Wish(), lifted=frozenset())
    route = sensible_route(figures, free)
    return Chosen(route, free, habit_note=_beyond_habit(figures, free, route), wish_note=sentence("habit.wish"))


def _elsewhere(figures: StepFigures, route: Route, metal: Reals) -> float:
    """What comes off where no spots are, m: nothing, where even the last step works bands only."""
    return 0.0 if figures.banded[list(route.nodes)].any() else float(metal[0])


def _of_places(figures: StepFigures, request: RouteRequest, zoned: Route) -> Chosen:
    """All of the face is worked alike where that hardly takes longer: nobody marks out places for a minute's sake."""
    alike = replace(request, all_alike=True, wish=Wish(), lifted=frozenset())
    route = sensible_route(figures, alike)
    most = constant("blend.all_of_it").value * seconds_with_repeats(figures, request, zoned)
    if route is not None and request.wish.empty and seconds_with_repeats(figures, request, route) <= most:
        return Chosen(route, alike, habit_note=_beyond_habit(figures, alike, route))
    return Chosen(zoned, request, route, _beyond_habit(figures, request, zoned))


def _beyond_habit(figures: StepFigures, request: RouteRequest, route: Route | None) -> Sentence | None:
    """Said where a step goes so far that it is more likely repeated than not: nothing on the rack is better all the same."""
    if route is None or not route.steps or request.wish.route:
        return None
    expected = figures.repeats(request.habit, request.handover)
    furthest = max(route.steps, key=lambda step: float(expected[step]))
    if chance_of_repeat(float(expected[furthest])) <= 0.5:
        return None
    habit, school = HABITS[request.habit].lower(), HANDOVERS[request.handover].lower()
    over = float(figures.beyond(request.habit, [furthest])[0])
    if over <= 1 + REL_TOL:
        return sentence("habit.school", school=school)
    return sentence("habit.far", habit=habit, times=f"{over:.2g}")


def _rework(figures: StepFigures, chosen: Chosen) -> float:
    """Expected seconds of repeats, where they are worth saying."""
    assert chosen.request is not None, "a route was asked for"
    assert chosen.route is not None, "and found"
    seconds = expected_rework(figures, chosen.route, chosen.request.habit, chosen.request.handover)
    return seconds if seconds >= _worth_saying() else 0.0


def _without_habit(figures: StepFigures, chosen: Chosen) -> float | None:
    assert chosen.request is not None, "a route was asked for"
    assert chosen.route is not None, "and found"
    free = replace(chosen.request, habit="long-steps", handover="free")
    if free == chosen.request or chosen.request.wish.route:
        return None
    route = sensible_route(figures, free)
    seconds = float(chosen.route.totals[TIME])
    return None if route is None or route.totals[TIME] > seconds - _worth_saying() else float(route.totals[TIME])


def _worth_saying() -> float:
    """Seconds: what is less than a look under the lamp is not worth a word."""
    return constant("work.check").si


def _end_note(figures: StepFigures, route: Route) -> Sentence | None:
    """Said of an end so close to its limit that the scatter of marks takes more than one face in ten over it."""
    if not route.nodes:
        return None
    inside = 1 - float(figures.outside[route.nodes[-1]])
    if inside >= constant("end.surely").value:
        return None
    low, high = wanted_band(figures.face, figures.surfaces.material.hardness)
    ra = figures.tool_at(route.nodes[-1]).ra
    mend = "end.finer" if np.isfinite(high) and high - ra < ra - low else "end.coarser"
    return sentence("end.chance", count=f"{5 * round(20 * inside)}", mend=sentence(mend))


def _limit_note(figures: StepFigures, route: Route) -> Sentence | None:
    """Said when hardly anything of the limit is left: a depth that was judged a little too small goes through it."""
    may, off = figures.face.may_come_off, figures.counted_metal_of(route) + figures.face.above
    if not np.isfinite(may) or off < constant("plan.limit_near").value * may:
        return None
    return sentence("metal.near", off=Measure(off, "depth", 3), may=Measure(may, "depth", 3))


def size_plan(plan: FacePlan, material: Material) -> SizingAdvice | None:
    """What the gauge says of a face before any work; None without a size or readings. Without steps: for a coarse lap."""
    sized = plan.face.sized
    if sized is None or not sized.readings:
        return None
    steps = [SizingStep(step.tool.id, step.marks.layer, step.time.cut) for step in plan.steps]
    learnt = any(step.on_face.yours != Yours() for step in plan.steps)
    spread = constant("precision.prior_known" if learnt else "precision.prior").value
    tool = sizing_tools(steps, spread=spread)[0] if steps else usual_lap(material)
    return size_of_face(sized, steps, [WorkRound(0.0, tool, sized.readings)], material)
