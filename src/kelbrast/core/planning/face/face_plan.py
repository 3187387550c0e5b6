"""Plans one face: the best route within the habits and the wish, or the constraint that binds."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.job import HABITS, HANDOVERS, Aim, Job
from kelbrast.core.learning.factors import Yours
from kelbrast.core.planning.face.binding import Binding, binding
from kelbrast.core.planning.face.nicks import ways_of
from kelbrast.core.planning.face.routes import RouteRequest, best_route, sensible_route
from kelbrast.core.planning.face.step import Step, steps_of
from kelbrast.core.planning.face.step_figures import StepFigures, step_figures
from kelbrast.core.planning.kernel.search import CHANGES, COST, METAL, TIME, Route
from kelbrast.core.precision.advice import SizingAdvice, usual_lap
from kelbrast.core.precision.face import SizingStep, size_of_face, sizing_tools
from kelbrast.core.precision.state import WorkRound
from kelbrast.core.process.scratch import depth_of_marks, marks_said
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import usable
from kelbrast.core.rules.roughness import wanted_band
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face
from kelbrast.core.wording import Sentence


@dataclass(frozen=True, slots=True)
class NickChoice:
    """How nicks are taken out: a dish around each, or the whole face lowered. `other_seconds`: what the other way takes.

    Attributes:
        radius: of a dish, m.
        other_seconds: None when the other way has no route.
    """

    blended: bool
    count: int
    radius: float
    other_seconds: float | None


@dataclass(frozen=True, slots=True)
class FacePlan:
    """The route of a face. `steps` is empty when nothing is to be done, when the face is kept off, or when `binding` is set.

    Attributes:
        wanted: depth of the marks at the fine and the coarse end of the wanted band, m (0 and infinite for no end).
        habit_note: said when the rack could not keep the habit; wish_note: when no route keeps the wish.
        nicks: for a nicked face, whether it is blended, and what the other way costs.
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
    habit_note: str | None = None
    wish_note: str | None = None
    nicks: NickChoice | None = None

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


def figures_of(face: Face, job: Job) -> StepFigures | None:
    """All steps that the job's rack may take on a face; None for a face that is left alone."""
    return None if face.left_alone else step_figures(face, job, usable(ToolContext.of(face, job)))


def wishing(figures: StepFigures, wish: Wish) -> StepFigures:
    """The same steps with another wish, which changes none of their figures."""
    surfaces = figures.surfaces
    return replace(figures, surfaces=replace(surfaces, face=replace(surfaces.face, wish=wish)))


def _obstacle(face: Face, job: Job) -> Binding:
    """What stands in the way, asked of the whole rack with the tools that may not be used here."""
    figures = step_figures(face, job, tools_on_face(ToolContext.of(face, job)))
    return binding(figures, RouteRequest(objective=job.aim, limit=face.may_come_off))


@dataclass(frozen=True, slots=True)
class Chosen:
    """A route, and what was given up for it.

    Attributes:
        request: what the route keeps; None when habits had to be broken, each excess at its price.
    """

    route: Route | None
    request: RouteRequest | None = None
    habit_note: str | None = None
    wish_note: str | None = None


@dataclass(frozen=True, slots=True)
class Worked:
    """A face with its steps worked out and its best route by itself; `figures`: None for a face that is kept off."""

    face: Face
    figures: StepFigures | None
    chosen: Chosen
    nicks: NickChoice | None = None

    def plan(self, job: Job) -> FacePlan:
        """As it is planned."""
        route, figures = self.chosen.route, self.figures
        low, high = wanted_band(self.face, job.material.hardness)
        wanted = (depth_of_marks(low), depth_of_marks(high))
        if figures is None or route is None:
            obstacle = None if figures is None else _obstacle(self.face, job)
            return FacePlan(self.face, job.aim, obstacle, (), 0.0, 0.0, 0.0, 0, wanted, nicks=self.nicks)
        return FacePlan(
            face=self.face,
            aim=job.aim,
            binding=None,
            steps=steps_of(figures, route),
            seconds=float(route.totals[TIME]),
            metal=float(route.totals[METAL]),
            cost=float(route.totals[COST]),
            changes=round(route.totals[CHANGES]),
            wanted=wanted,
            habit_note=self.chosen.habit_note,
            wish_note=self.chosen.wish_note,
            nicks=self.nicks,
        )


def plan_face(face: Face, job: Job) -> FacePlan:
    """The best route of one face by itself for the job's aim, habits and rack."""
    return work_out(face, job).plan(job)


def work_out(face: Face, job: Job) -> Worked:
    """The steps of a face and its best route by itself.

    Nicks are blended or the face lowered, whichever is quicker, unless the person chose.
    """
    ways = ways_of(face)
    worked = [_work_out(way, job) for way in ways.faces]
    seconds = [float(one.chosen.route.totals[TIME]) if one.chosen.route else _without_route(one) for one in worked]
    at = ways.chosen(seconds)
    if ways.dishes is None:
        return worked[at]
    other = seconds[1 - at]
    nicks = NickChoice(at == 0, ways.dishes.count, ways.dishes.radius, other if np.isfinite(other) else None)
    return replace(worked[at], face=face, nicks=nicks)


def _work_out(face: Face, job: Job) -> Worked:
    figures = figures_of(face, job)
    return Worked(face, figures, Chosen(None) if figures is None else chosen_route(figures, job))


def _without_route(one: Worked) -> float:
    return 0.0 if one.figures is None else np.inf


def request_for(face: Face, job: Job) -> RouteRequest:
    """What is looked for on a face before any habit: the aim, the metal limit and the wish.

    A route that the person sets out step by step may ask too much of a soft wheel: it is planned, with the marks it leaves.
    """
    lifted: frozenset[Refusal] = frozenset({"too-soft"}) if face.wish.route else frozenset()
    return RouteRequest(objective=job.aim, limit=face.may_come_off, wish=face.wish, lifted=lifted)


def chosen_route(figures: StepFigures, job: Job) -> Chosen:
    """The best route that keeps the wish and the habits, each given up only as far as it must be; and what was given up."""
    request = request_for(figures.face, job)
    set_out = bool(request.wish.route)
    chosen = Chosen(best_route(figures, request), request) if set_out else _keeping_habits(figures, request, job)
    if chosen.route is not None or request.wish.empty:
        return chosen
    free = _keeping_habits(figures, replace(request, wish=Wish(), lifted=frozenset()), job)
    return replace(free, wish_note="No route here keeps what you set for it; this is the best without that.")


def _keeping_habits(figures: StepFigures, request: RouteRequest, job: Job) -> Chosen:
    """The best route within the habits; where the rack cannot keep them, each excess at its price, and what was given up."""
    kept = replace(request, habit=job.habit, handover=job.handover)
    if (route := sensible_route(figures, kept)) is not None:
        return Chosen(route, kept)
    if best_route(figures, request) is None:
        return Chosen(None)
    notes = []
    if best_route(figures, replace(kept, priced=True)) is None:
        notes.append(f"This rack cannot keep “{HANDOVERS[job.handover].lower()}” on this face.")
        kept = replace(kept, handover="free")
        if (route := sensible_route(figures, kept)) is not None:
            return Chosen(route, kept, notes[0])
    route = best_route(figures, replace(kept, priced=True))
    assert route is not None, "without habits there is a route"
    over = figures.beyond(job.habit)
    furthest = max(float(over[step]) for step in route.steps)
    habit = HABITS[job.habit].lower()
    notes.append(f"This rack cannot keep “{habit}”: one step here goes {furthest:.2g} times as far as that allows.")
    return Chosen(route, habit_note=" ".join(notes))


def size_plan(plan: FacePlan, material: Material) -> SizingAdvice | None:
    """What the gauge says of a face before any work; None without a size or readings. Without steps: for a coarse lap."""
    sized = plan.face.sized
    if sized is None or not sized.readings:
        return None
    steps = [SizingStep(one.tool.id, one.marks.layer, one.time.cut) for one in plan.steps]
    learnt = any(one.on_face.yours != Yours() for one in plan.steps)
    spread = constant("precision.prior_known" if learnt else "precision.prior").value
    tool = sizing_tools(steps, spread=spread)[0] if steps else usual_lap(material)
    return size_of_face(sized, steps, [WorkRound(0.0, tool, sized.readings)], material)
