"""What can still be reached when the damage is deeper than the stock allowance, and what then remains visible."""

import math
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.finishes import Finish, ladder
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import (
    FacePlan,
    chosen_route,
    figures_of,
    plan_face,
    request_for,
    with_what_is_all_over,
)
from kelbrast.core.planning.face.routes import best_route
from kelbrast.core.planning.face.zones import steepest_rim
from kelbrast.core.planning.kernel.step_table import TIME, Route
from kelbrast.core.process.blend import dish_radius
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, Wish

_HALVINGS = 12
# Offered in this order when the wanted finish is out of reach: the finest that shows least of the old marks first.


@dataclass(frozen=True, slots=True)
class Fallback:
    """What the limit leaves possible (SI).

    Attributes:
        cleared: of what covers the face, marks up to this depth still come out on the way to the wanted finish; 0 when not
            even that is possible.
        stays: how deep the deepest mark then still is.
        plan: the way to the wanted finish that leaves it; None when there is none.
        dear: it takes so much longer than the finish would without a limit that it is hardly worth it (plan.retreat_most).
        simpler: finishes that can be had with every mark taken out, each with its seconds.
        dish: radius of a dish around a single mark that uses the whole limit, and `dish_stays`: what is left in its middle.
    """

    cleared: float
    stays: float
    plan: FacePlan | None
    dear: bool
    simpler: tuple[tuple[Finish, float], ...]
    dish: float
    dish_stays: float


def fallback(planned: FacePlan, job: Job) -> Fallback | None:
    """What can be reached on a face whose plan the metal limit binds; None when the limit is not what binds.

    Spots deeper than what covers the face stay as they are. A face that is worked to a size has no other way: no dish, and
    what share of it can be clean is the gauge's to say.
    """
    face = with_what_is_all_over(planned.face)
    if planned.binding is None or planned.binding.rule != "metal" or face.sized is not None:
        return None
    if face.limit is None or face.found.worst is None:
        return None
    without_spots = replace(face, spots=())
    worst = max(found.worst or 0.0 for found in face.found_anywhere)
    cleared, best = _deepest_that_fits(without_spots, job, face.found.worst)
    return Fallback(
        cleared=cleared,
        stays=worst - (best.metal if best else 0.0),
        plan=best,
        dear=best is not None and best.seconds > constant("plan.retreat_most").value * _without_limit(without_spots, job),
        simpler=_simpler(face, job),
        dish=dish_radius(depth=face.limit, slope=steepest_rim(face)),
        dish_stays=max(0.0, worst - face.limit),
    )


def _without_limit(face: Face, job: Job) -> float:
    """Seconds of the wanted finish if any amount could come off; infinite where it could not be had even then."""
    free = plan_face(replace(face, limit=None, wish=Wish()), job)
    return free.seconds if free.possible else math.inf


def _deepest_that_fits(face: Face, job: Job, worst: float) -> tuple[float, FacePlan | None]:
    """The deepest marks (m) that can be cleared within the limit, and the plan for them: more depth never takes less metal."""
    low, high, best = 0.0, worst, None
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        shallow = replace(face.found, likely=min(face.found.likely or middle, middle), worst=middle)
        one = replace(face, found=shallow, wish=Wish())
        low, high, best = (middle, high, one) if _goes(one, job) else (low, middle, best)
    return low, plan_face(best, replace(job, aim="metal")) if best is not None else None


def _simpler(face: Face, job: Job) -> tuple[tuple[Finish, float], ...]:
    steps = ladder()
    wanted = steps[steps.index(face.want) + 1 :] if face.want in steps else steps[1:]
    routes = [(finish, _route(replace(face, want=finish, no_finer_than=None, wish=Wish()), job)) for finish in wanted]
    return tuple((finish, float(route.totals[TIME])) for finish, route in routes if route is not None)


def _goes(face: Face, job: Job) -> bool:
    """Whether there is any route: habits are given up where they must be, so the most sparing one decides."""
    figures = figures_of(face, job)
    return figures is not None and best_route(figures, replace(request_for(face, job), objective="metal")) is not None


def _route(face: Face, job: Job) -> Route | None:
    figures = figures_of(face, job)
    return None if figures is None else chosen_route(figures, job).route
