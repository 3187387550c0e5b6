"""Chooses the routes of all faces together, so that shared set-ups, wheel changes and washes are paid once.

Each face brings its own best route, its quickest routes with fewer and fewer changes, and the best ones where the tools of the
other faces are set up already; the best choice of one for each is found exactly. Metal and cost are not shared between faces:
for those aims each face's own best is the best of the job.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import Worked
from kelbrast.core.planning.face.routes import other_routes, price_of_a_change, seconds_with_repeats, sharing_routes
from kelbrast.core.planning.kernel.step_table import TIME, Route
from kelbrast.core.planning.kernel.together import ChosenTogether, Cost, Option, choose_together
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.order import coarsest_to_come, place_in_order, turn_of
from kelbrast.core.validity import REL_TOL, Reals

_SHARED_AIMS: Final = ("time", "changes")
_ROUNDS: Final = 2  # of asking each face for routes that use what the others have set up


@dataclass(frozen=True, slots=True)
class Gained:
    """What choosing together gained against each face's own best (SI), for one piece.

    Attributes:
        seconds, changes: fewer than with each face's own best; that which is not the aim may be below 0.
        exact: no choice of these routes is better; otherwise no choice gains more than `at_most` of the aim.
    """

    seconds: float
    changes: int
    exact: bool
    at_most: float


@dataclass(frozen=True, slots=True)
class FacesTogether:
    """Every face with the route that it gets in the job."""

    faces: tuple[Worked, ...]
    gained: Gained | None = None


def together(faces: Sequence[Worked], job: Job) -> FacesTogether:
    """Choose the routes of the faces together for the job's aim; each keeps its own limit, wish and habits."""
    free = [at for at, worked in enumerate(faces) if worked.chosen.route is not None and worked.chosen.route.nodes]
    if len(free) < 2 or job.aim not in _SHARED_AIMS:
        return FacesTogether(tuple(faces))
    routes = {at: _routes_by_itself(faces[at]) for at in free}
    asked: set[tuple[int, frozenset[str]]] = set()  # a face that was asked with the same tools has nothing new to say
    alone = _choice([faces[at] for at in free], [routes[at][:1] for at in free], job)
    best = _choice([faces[at] for at in free], [routes[at] for at in free], job)
    for _ in range(_ROUNDS):
        picked = {at: routes[at][pick] for at, pick in zip(free, best.picks, strict=True)}
        used = {at: _tools(faces[at], route) for at, route in picked.items()}
        wanted = {(at, _tools_of_others(faces, used, at)) for at in free} - asked
        asked |= wanted
        added = [_add(routes[at], _sharing(faces[at], tools)) for at, tools in sorted(wanted, key=lambda one: one[0])]
        if not any(added):
            break
        best = _choice([faces[at] for at in free], [routes[at] for at in free], job)
    if best.total[0] >= alone.total[0] * (1 - REL_TOL):
        return FacesTogether(tuple(faces))
    chosen = list(faces)
    for at, pick in zip(free, best.picks, strict=True):
        chosen[at] = replace(faces[at], chosen=replace(faces[at].chosen, route=routes[at][pick]))
    seconds, changes = _work(faces, job) - _work(chosen, job)
    return FacesTogether(tuple(chosen), Gained(float(seconds), round(changes), best.exact, alone.total[0] - best.bound))


def _work(faces: Sequence[Worked], job: Job) -> Reals:
    """Seconds and changes of the work alone, with what is shared paid once."""
    worked = [face for face in faces if face.chosen.route is not None and face.chosen.route.nodes]
    return np.array(
        _choice(worked, [[face.chosen.route] for face in worked if face.chosen.route is not None], job, work_alone=True).total
    )


def _routes_by_itself(worked: Worked) -> list[Route]:
    """Its own best first."""
    assert worked.figures is not None, "a route has figures"
    assert worked.chosen.route is not None, "only faces with a route are chosen together"
    routes = [worked.chosen.route]
    if worked.chosen.request is not None and not worked.chosen.request.wish.route:
        _add(routes, other_routes(worked.figures, worked.chosen.request, worked.chosen.route))
    return routes


def _sharing(worked: Worked, tools: frozenset[str]) -> list[Route]:
    request = worked.chosen.request
    if worked.figures is None or request is None or request.wish.route or not tools:
        return []
    return sharing_routes(worked.figures, request, tools)


def _tools_of_others(faces: Sequence[Worked], used: dict[int, tuple[str, ...]], at: int) -> frozenset[str]:
    """What is set up for the other faces of its round."""
    turn = turn_of(faces[at].face)
    return frozenset().union(*(used[other] for other in used if other != at and turn_of(faces[other].face) == turn))


def _tools(worked: Worked, route: Route) -> tuple[str, ...]:
    assert worked.figures is not None, "a route has figures"
    return worked.figures.ids_of(route)


def _add(routes: list[Route], more: Sequence[Route]) -> bool:
    """Whether there was a new one among them."""
    known = {route.nodes for route in routes}
    new = [route for route in more if route.nodes not in known]
    routes += new
    return bool(new)


def _choice(
    faces: Sequence[Worked], routes: Sequence[Sequence[Route]], job: Job, *, work_alone: bool = False
) -> ChosenTogether:
    """The best choice: its costs are seconds, with the price of changes where few are wanted, and changes."""
    charges = _Charges(0.0 if work_alone else price_of_a_change(job.aim), work_alone)
    for worked, some in zip(faces, routes, strict=True):
        for route in some:
            charges.note(worked, route)
    groups = [[charges.option(worked, route) for route in some] for worked, some in zip(faces, routes, strict=True)]
    return choose_together(groups, charges.prices)


class _Charges:
    """What is paid once however many faces use it: a set-up, and a wash before it; numbered in the order of work."""

    def __init__(self, change: float, work_alone: bool) -> None:
        self._change, self._work_alone = change, work_alone
        self._place: dict[tuple[int, str], tuple[int, float, str]] = {}
        self._price: dict[tuple[int, str], tuple[float, int]] = {}
        self._numbers: dict[tuple[int, str], int] | None = None

    def note(self, worked: Worked, route: Route) -> None:
        assert worked.figures is not None, "a route has figures"
        turn = turn_of(worked.face)
        used = [worked.figures.tool_at(node) for node in route.nodes]
        for tool, coarsest in zip((each.tool for each in used), coarsest_to_come([each.depth for each in used]), strict=True):
            key = turn, tool.id
            place = place_in_order(turn, coarsest, tool.id)
            self._place[key] = min(place, self._place.get(key, place))
            self._price[key] = tool.carrier.stock.setup, int(tool.carrier.mount != "hand")

    @property
    def _ordered(self) -> dict[tuple[int, str], int]:
        if self._numbers is None:
            self._numbers = {key: at for at, key in enumerate(sorted(self._place, key=lambda key: self._place[key]))}
        return self._numbers

    @property
    def prices(self) -> list[Cost]:
        wash = constant("work.wash").si
        set_ups = [self._cost(*self._price[key]) for key in self._ordered]
        return [*set_ups, *(self._cost(wash, 0) for _ in set_ups)]

    def option(self, worked: Worked, route: Route) -> Option:
        assert worked.figures is not None, "a route has figures"
        assert worked.chosen.request is not None, "a route was asked for"
        turn, wash, charges, shared = turn_of(worked.face), constant("work.wash").si, 0, 0.0
        seconds = float(route.totals[TIME])
        if not self._work_alone:
            seconds = seconds_with_repeats(worked.figures, worked.chosen.request, route)
        for step in route.steps:
            if worked.figures.met.on[step]:
                continue
            key = turn, worked.figures.tool_at(int(worked.figures.graph.after[step])).tool.id
            if charges >> self._ordered[key] & 1:
                continue  # a tool that comes a second time on one face is set up a second time
            charges |= 1 << self._ordered[key]
            shared += self._price[key][0]
            if worked.figures.washed(step):
                charges |= 1 << (self._ordered[key] + len(self._ordered))
                shared += wash
        return Option(self._cost(seconds - shared, 0), charges)

    def _cost(self, seconds: float, changes: int) -> Cost:
        return seconds + self._change * changes, float(changes)
