"""The same job by every aim and every habit, side by side: what each would take, and what it costs against the best; and every
route of a face that no other beats."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from kelbrast.core.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, Aim, BenchSpeed, HabitKey, Handover, Job
from kelbrast.core.planning.face.face_plan import Chosen, Worked, chosen_route, figures_of, request_for, wishing
from kelbrast.core.planning.face.nicks import Ways, ways_of
from kelbrast.core.planning.face.routes import step_table, with_totals
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.pareto import ParetoFront, non_dominated
from kelbrast.core.planning.kernel.search import COST, CRITERIA, METAL, TIME, Route
from kelbrast.core.planning.whole.set_ups import in_turn, saved_by_sharing, wheel_changes
from kelbrast.core.planning.whole.together import together
from kelbrast.core.rules.order import turn_of
from kelbrast.core.surface.face import Wish


@dataclass(frozen=True, slots=True)
class JobChoice:
    """One way to do the whole job (SI), for one piece, with set-ups that faces share counted once.

    Attributes:
        metal: the most that comes off any face.
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
    metal: float
    cost: float
    changes: int
    steps: int


@dataclass(frozen=True, slots=True)
class Choices:
    """By aim within the job's habits, and by each habit for the job's aim with the other habits as they are."""

    by_aim: tuple[JobChoice, ...]
    by_habit: tuple[JobChoice, ...]
    by_handover: tuple[JobChoice, ...]
    by_bench_speed: tuple[JobChoice, ...]


# The ways of taking the damage of a face out, with the steps of each.
Workable = tuple[Ways, list[StepFigures]]


def choices(job: Job) -> Choices:
    """Plan the job every way. The steps of a face are worked out once for all of them."""
    faces = {speed: _faces(replace(job, bench_speed=speed)) for speed in BENCH_SPEEDS}

    known: dict[Job, JobChoice] = {}

    def choice(**change: Any) -> JobChoice:
        changed = replace(job, **change)
        if changed not in known:
            known[changed] = _total(changed, faces[changed.bench_speed])
        return known[changed]

    return Choices(
        by_aim=tuple(choice(aim=aim) for aim in AIMS),
        by_habit=tuple(choice(habit=habit) for habit in HABITS),
        by_handover=tuple(choice(handover=handover) for handover in HANDOVERS),
        by_bench_speed=tuple(choice(bench_speed=speed) for speed in BENCH_SPEEDS),
    )


def _faces(job: Job) -> list[Workable]:
    ways = [ways_of(face) for face in job.faces if not face.left_alone]
    return [(each, [figures for way in each.faces if (figures := figures_of(way, job)) is not None]) for each in ways]


def _total(job: Job, faces: Sequence[Workable]) -> JobChoice:
    best = together([_best_way(job, *workable) for workable in faces], job).faces
    routes = [(one.figures, one.chosen.route) for one in best if one.figures is not None and one.chosen.route is not None]
    set_ups = in_turn(
        (turn_of(figures.face), float(figures.surfaces.depth_worst[node]), figures.surfaces.leaving(node).tool, before > 0)
        for figures, route in routes
        for before, node in route.steps
    )
    saved = sum(saved_by_sharing(tool, uses=len(washed), washes=sum(washed)) for tool, washed in set_ups)
    totals = np.array([route.totals for _, route in routes]).reshape(len(routes), len(CRITERIA))
    return JobChoice(
        aim=job.aim,
        habit=job.habit,
        handover=job.handover,
        bench_speed=job.bench_speed,
        possible=len(routes) == len(best),
        kept=all(one.chosen.habit_note is None for one in best),
        seconds=float(totals[:, TIME].sum()) - saved,
        metal=float(totals[:, METAL].max()) if routes else 0.0,
        cost=float(totals[:, COST].sum()),
        changes=wheel_changes([tool for tool, _ in set_ups]),
        steps=sum(len(route.nodes) for _, route in routes),
    )


def _best_way(job: Job, ways: Ways, figures: list[StepFigures]) -> Worked:
    found = [Worked(each.face, each, chosen_route(each, job)) for each in figures]
    return found[ways.chosen([one.seconds_with_repeats for one in found])]


def pareto_front(figures: StepFigures, job: Job) -> ParetoFront:
    """The Pareto front of a face, weighed with what the job's habits say that a step risks; totals are of the work alone."""
    asked = replace(request_for(figures.face, job), wish=Wish(), lifted=frozenset())
    front = non_dominated(step_table(figures, asked), asked.limit)
    routes = (with_totals(figures, one) for one in front.routes)
    return replace(front, routes=tuple(sorted(routes, key=lambda one: float(one.totals[TIME]))))


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
    return tuple(sorted(named, key=lambda one: float(one.route.totals[0])))
