"""Every route of a face that no other beats, within the job's habits, and those that the schools and aims would take."""

from dataclasses import dataclass, replace

from kelbrast.core.job import AIMS, HABITS, HANDOVERS, Job
from kelbrast.core.planning.face.face_plan import Chosen, chosen_route, request_for, wishing
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.pareto import ParetoFront, non_dominated
from kelbrast.core.planning.kernel.step_table import Route
from kelbrast.core.surface.face import Wish


def pareto_front(figures: StepFigures, job: Job) -> ParetoFront:
    """The Pareto front of a face within the job's habits; without them when no route keeps them."""
    kept = RouteRequest(limit=request_for(figures.face, job).limit, habit=job.habit, handover=job.handover)
    if best_route(figures, kept) is None:
        kept = RouteRequest(limit=kept.limit)
    return non_dominated(step_table(figures, kept), kept.limit)


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
