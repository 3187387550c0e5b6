"""The same job by every aim and every habit, side by side: what each would take, and what it costs against the best; and every
route of a face that no other beats."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, Aim, BenchSpeed, HabitKey, Handover, Job
from kelbrast.core.planning.face.face_plan import Chosen, Worked, chosen_route, request_for, wishing, work_out
from kelbrast.core.planning.face.routes import expected_rework, step_table, with_totals
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.pareto import ParetoFront, non_dominated
from kelbrast.core.planning.kernel.step_table import COST, CRITERIA, TIME, Route
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.planning.whole.set_ups import in_turn, saved_by_sharing, wheel_changes
from kelbrast.core.planning.whole.together import together
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.order import coarsest_to_come, turn_of
from kelbrast.core.surface.face import Wish


@dataclass(frozen=True, slots=True)
class JobChoice:
    """One way to do the whole job (SI), for one piece, with set-ups that faces share counted once.

    Attributes:
        rework: seconds of repeats to expect, by the habit and the school of the job itself, so that ways can be compared.
        metal: the most that comes off any face, without what stands above it.
        kept: whether every face could keep the habits.
        possible: whether every face has a route; the totals count only those that have.
    """

    aim: Aim
    habit: HabitKey
    handover: Handover
    bench_speed: BenchSpeed
    possible: bool
    kept: bool
    seconds: float
    rework: float
    metal: float
    cost: float
    changes: int
    steps: int

    @property
    def criteria(self) -> tuple[float, float, float, float]:
        """What a way has little of when it is good, in the order of `AIMS`: time with repeats, metal, cost, changes.

        The cost is that of the abrasives and of the time at the bench's rate.
        """
        seconds = self.seconds + self.rework
        return seconds, self.metal, self.cost + seconds * constant("work.bench_rate").si, float(self.changes)


@dataclass(frozen=True, slots=True)
class Way:
    """A way that no other beats in everything, or the job's own.

    Attributes:
        best_at: the aims at which it is the best, at times none.
        hands_on: seconds of a person for the whole job, as the account has it when this way is taken.
    """

    choice: JobChoice
    best_at: tuple[Aim, ...]
    hands_on: float


@dataclass(frozen=True, slots=True)
class Choices:
    """By aim within the job's habits, and by each habit for the job's aim with the other habits as they are.

    Attributes:
        own: the job as it is set.
        ways: of all of these the ones that differ and that no other beats, quickest first, and the job's own in any case.
    """

    by_aim: tuple[JobChoice, ...]
    by_habit: tuple[JobChoice, ...]
    by_handover: tuple[JobChoice, ...]
    by_bench_speed: tuple[JobChoice, ...]
    own: JobChoice
    ways: tuple[Way, ...]


def choices(job: Job) -> Choices:
    """Plan the job every way. The steps of a face are worked out once for all of them."""
    faces = {speed: _faces(replace(job, bench_speed=speed)) for speed in BENCH_SPEEDS}

    known: dict[Job, JobChoice] = {}

    def choice(**change: Any) -> JobChoice:
        changed = replace(job, **change)
        if changed not in known:
            known[changed] = _total(changed, faces[changed.bench_speed], job)
        return known[changed]

    by_aim = tuple(choice(aim=aim) for aim in AIMS)
    by_habit = tuple(choice(habit=habit) for habit in HABITS)
    by_handover = tuple(choice(handover=handover) for handover in HANDOVERS)
    by_bench_speed = tuple(choice(bench_speed=speed) for speed in BENCH_SPEEDS)
    asked = {choice: changed for changed, choice in reversed(known.items())}  # of two that are alike the first
    ways = tuple(
        Way(way, best, plan_job(asked[way]).account.all.hands_on)
        for way, best in _ways((*by_aim, *by_habit, *by_handover), choice())
    )
    return Choices(by_aim, by_habit, by_handover, by_bench_speed, choice(), ways)


def _ways(found: Sequence[JobChoice], own: JobChoice) -> tuple[tuple[JobChoice, tuple[Aim, ...]], ...]:
    """The ways among these that no other beats and that differ to speak of, and the job's own in any case; each with the aims
    at which it is the best."""
    possible = [choice for choice in dict.fromkeys((own, *found)) if choice.possible]
    kept = [choice for choice in possible if choice is own or not any(_beats(other, choice) for other in possible)]
    apart: list[JobChoice] = []
    for choice in kept:
        if not any(_alike(choice, other) for other in apart):
            apart.append(choice)
    apart.sort(key=lambda choice: choice.criteria)
    best = {aim: min(apart, key=lambda choice: choice.criteria[at]) for at, aim in enumerate(AIMS) if _differ(apart, at)}
    return tuple((choice, tuple(aim for aim, first in best.items() if first is choice)) for choice in apart)


def _differ(found: Sequence[JobChoice], at: int) -> bool:
    """Whether ways differ to speak of in one of their criteria."""
    values = [choice.criteria[at] for choice in found]
    return max(values, default=0.0) * (1 - constant("plan.differs").value) > min(values, default=0.0)


def _beats(choice: JobChoice, other: JobChoice) -> bool:
    """Whether it is as good in everything, and better in something, to speak of."""
    pairs = list(zip(choice.criteria, other.criteria, strict=True))
    differs = constant("plan.differs").value
    return all(a <= b * (1 + differs) for a, b in pairs) and any(a < b * (1 - differs) for a, b in pairs)


def _alike(choice: JobChoice, other: JobChoice) -> bool:
    """Whether nobody would notice which of two was taken: the same changes, and all else nearly the same."""
    differs = constant("plan.differs").value
    return choice.changes == other.changes and all(
        abs(a - b) <= differs * max(a, b) for a, b in zip(choice.criteria, other.criteria, strict=True)
    )


def _faces(job: Job) -> list[StepFigures]:
    """Without the spots that stay, whatever the way."""
    return [figures for face in job.faces if (figures := work_out(face, job).figures) is not None]


def _total(job: Job, faces: Sequence[StepFigures], asked: Job) -> JobChoice:
    """The totals of a job's best way; `asked`: the job by whose habit and school repeats are told."""
    best = together([Worked(steps.face, steps, chosen_route(steps, job)) for steps in faces], job).faces
    routes = [
        (worked.figures, worked.chosen.route)
        for worked in best
        if worked.figures is not None and worked.chosen.route is not None
    ]
    set_ups = in_turn(step for figures, route in routes for step in _in_order(figures, route))
    saved = sum(
        saved_by_sharing(tool, uses=sum(made for made, _ in uses), washes=sum(washed for _, washed in uses))
        for tool, uses in set_ups
    )
    totals = np.array([route.totals for _, route in routes]).reshape(len(routes), len(CRITERIA))
    return JobChoice(
        aim=job.aim,
        habit=job.habit,
        handover=job.handover,
        bench_speed=job.bench_speed,
        possible=len(routes) == len(best),
        kept=all(worked.chosen.habit_note is None for worked in best),
        seconds=float(totals[:, TIME].sum()) - saved,
        rework=sum(expected_rework(figures, route, asked.habit, asked.handover) for figures, route in routes),
        metal=max((figures.counted_metal_of(route) for figures, route in routes), default=0.0),
        cost=float(totals[:, COST].sum()),
        changes=wheel_changes([tool for tool, _ in set_ups]),
        steps=sum(len(route.nodes) for _, route in routes),
    )


def _in_order(figures: StepFigures, route: Route) -> list[tuple[int, float, Tool, str, tuple[bool, bool]]]:
    """The steps of a route for `in_turn`; told of each is whether its tool is set up for it, and the part washed before it."""
    used, turn, face = [figures.tool_at(node) for node in route.nodes], turn_of(figures.face), figures.face.key
    paid = [(not figures.met.on[step], figures.washed(step)) for step in route.steps]
    coarsest = coarsest_to_come([on_face.depth for on_face in used])
    return [(turn, most, on_face.tool, face, pays) for on_face, most, pays in zip(used, coarsest, paid, strict=True)]


def pareto_front(figures: StepFigures, job: Job) -> ParetoFront:
    """The Pareto front of a face, weighed with what the job's habits say that a step risks; totals are of the work alone."""
    asked = replace(request_for(figures.face, job), wish=Wish(), lifted=frozenset())
    front = non_dominated(table := step_table(figures, asked))
    routes = (with_totals(figures, table, route) for route in front.routes)
    return replace(front, routes=tuple(sorted(routes, key=lambda route: float(route.totals[TIME]))))


@dataclass(frozen=True, slots=True)
class NamedRoute:
    """A route with the labels of every aim, habit and school that would take it on this face."""

    names: tuple[str, ...]
    route: Route


def named_routes(figures: StepFigures, job: Job) -> tuple[NamedRoute, ...]:
    """What each aim within the job's habits, and each other habit and school for its aim, would choose, quickest first.

    A habit or school that this rack cannot keep is not named: its route would not be its own.
    """
    free = wishing(figures, Wish())
    asked = [(label, replace(job, aim=aim)) for aim, label in AIMS.items()]
    asked += [(label, replace(job, habit=habit)) for habit, label in HABITS.items() if habit != job.habit]
    asked += [(label, replace(job, handover=school)) for school, label in HANDOVERS.items() if school != job.handover]
    found: dict[tuple[int, ...], tuple[list[str], Route]] = {}
    for label, one in asked:
        chosen: Chosen = chosen_route(free, one)
        if chosen.route is not None and chosen.habit_note is None:
            found.setdefault(chosen.route.nodes, ([], chosen.route))[0].append(label)
    named = (NamedRoute(tuple(names), route) for names, route in found.values())
    return tuple(sorted(named, key=lambda named_route: float(named_route.route.totals[0])))
