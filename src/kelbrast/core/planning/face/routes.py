"""The steps that wishes and habits allow on a face, and the best route through them."""

from collections.abc import Collection, Iterable, Iterator
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from kelbrast.core.job import HabitKey, Handover
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.search import (
    CHANGES,
    COST,
    CRITERIA,
    METAL,
    TIME,
    Route,
    StepTable,
    no_longer_than,
    quickest_by_changes,
    search,
)
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.face import Wish
from kelbrast.core.validity import REL_TOL, Flags, Reals

_PRICES: Final = 6  # from a minute on, doubled: at half an hour a change hardly anything is changed any more
_TIE: Final = 1e-6  # of the objective: what is as good is decided by time


@dataclass(frozen=True, slots=True)
class RouteRequest:
    """What is asked of a face.

    Attributes:
        objective: one of `CRITERIA`.  limit: of the metal, m, infinite for none.
        habit: a key of `job.HABITS`.  handover: the school of where the wheel starts.  Both are prices, not bounds.
        lifted: refusals that are not to count.
    """

    objective: str = "time"
    limit: float = np.inf
    habit: HabitKey = "long-steps"
    lifted: frozenset[Refusal] = frozenset()
    handover: Handover = "free"
    wish: Wish = field(default_factory=Wish)

    @property
    def binding_limit(self) -> float:
        return np.inf if "metal" in self.lifted else self.limit


def step_table(figures: StepFigures, request: RouteRequest) -> StepTable:
    """The steps that the wish leaves, with the expected repeats in their time and cost. Metal counts once: it has a limit."""
    steps, ends = _allowed_steps(figures, request), _allowed_ends(figures, request)
    steps, ends = narrow(steps, ends, figures.surfaces.ids, request.wish)
    stop = _stop(figures)
    stop[METAL] = 0.0  # metal counts once, for its limit
    return StepTable(_priced(figures, request, figures.values), steps, ends, stop)


def best_route(figures: StepFigures, request: RouteRequest) -> Route | None:
    """The best route for what is asked with the expected repeats of its steps, or None when there is none."""
    found = _search(figures, step_table(figures, request), request)
    return None if found is None else with_totals(figures, found)


def sensible_route(figures: StepFigures, request: RouteRequest) -> Route | None:
    """The best route for the objective among those that are not much longer than the quickest (`plan.fence`).

    Beyond the fence the objective is weighed against time, with the least weight that brings the route inside.
    """
    table = step_table(figures, request)
    best = _search(figures, table, request)
    if best is None or request.objective == "time":
        return None if best is None else with_totals(figures, best)
    quickest = search(table, "time", request.binding_limit)
    assert quickest is not None, "the same steps have a route"
    fence = constant("plan.fence").value * quickest.totals[TIME]
    if best.totals[TIME] > fence * (1 + REL_TOL):
        best = _inside(figures, table, request, fence, outside=best, inside=quickest)
    return with_totals(figures, best)


def _inside(
    figures: StepFigures, table: StepTable, request: RouteRequest, fence: float, *, outside: Route, inside: Route
) -> Route:
    """Of the routes that are best for some weight of time against the objective, the last one inside the fence.

    Two of them tie at one weight. Either something beats both at that weight and takes the place of the one on its side of
    the fence, or there is nothing between them.
    """
    goal, stops = _goal(figures, request), _stop(figures)
    stop = stops[CRITERIA.index(request.objective)]

    def reached(route: Route) -> float:
        return sum(float(goal[step]) for step in route.steps) + float(stop[route.nodes[-1] if route.nodes else 0])

    while (slower := outside.totals[TIME] - inside.totals[TIME]) > 0:
        weight = (reached(inside) - reached(outside)) / slower
        found = _weighed(table, request, goal + weight * table.values[TIME], stop + weight * stops[TIME])
        assert found is not None, "the same steps have a route"
        if reached(found) + weight * found.totals[TIME] >= (reached(outside) + weight * outside.totals[TIME]) * (1 - REL_TOL):
            break
        outside, inside = (outside, found) if found.totals[TIME] <= fence * (1 + REL_TOL) else (found, inside)
    return inside


def other_routes(figures: StepFigures, request: RouteRequest, best: Route) -> list[Route]:
    """The quickest routes with fewer and fewer changes, within the limit and, for another aim than time, within the fence."""
    table = no_longer_than(step_table(figures, request), _worth_sharing(figures, request, best))
    most = round(float(best.totals[CHANGES])) if request.objective == "time" else len(best.nodes)
    quickest = quickest_by_changes(table, most)  # with more changes than the quickest nothing is quicker
    if any(route.totals[METAL] > request.binding_limit * (1 + REL_TOL) for route in quickest):
        quickest = tuple(_by_price_of_a_change(table, request))
    return [with_totals(figures, one) for one in _within_fence(quickest, request)]


def _by_price_of_a_change(table: StepTable, request: RouteRequest) -> Iterator[Route]:
    """The best routes within the metal limit for one price of a change after the other, each twice the last."""
    price, known = constant("work.wash").si, set()
    for _ in range(_PRICES):
        weights = table.values[TIME] + price * table.values[CHANGES]
        route = _weighed(table, request, weights, table.stopping[TIME])
        if route is None:
            return
        if route.nodes not in known:
            known.add(route.nodes)
            yield route
        price *= 2


def _worth_sharing(figures: StepFigures, request: RouteRequest, best: Route) -> float:
    """Seconds beyond which no other route can pay: more than every set-up and wash that sharing could save."""
    if request.objective != "time":
        return np.inf
    dearest = max(one.tool.carrier.stock.setup for one in figures.tools) + constant("work.wash").si
    return seconds_with_repeats(figures, request, best) + dearest * 2 * len(best.nodes)


def sharing_routes(figures: StepFigures, request: RouteRequest, tools: Collection[str]) -> list[Route]:
    """The best route where these tools are set up for another face already, so that only their work counts."""
    values = figures.values.copy()
    for at, one in enumerate(figures.tools, start=1):
        if one.tool.id in tools:
            values[TIME, :, at] -= one.tool.carrier.stock.setup
            values[TIME, 1:, at] -= constant("work.wash").si
            values[CHANGES, :, at] = 0.0
    table = replace(step_table(figures, request), values=_priced(figures, request, values))
    found = _search(figures, table, request)
    return [] if found is None else [with_totals(figures, one) for one in _within_fence([found], request)]


def seconds_with_repeats(figures: StepFigures, request: RouteRequest, route: Route) -> float:
    """Seconds of a route with the expected repeats of its steps and the risk of its end: what it is chosen by."""
    expected = figures.repeats(request.habit, request.handover)
    worked = sum(float(figures.values[TIME][step] * (1 + expected[step])) for step in route.steps)
    return worked + (float(_stop(figures)[TIME, route.nodes[-1]]) if route.nodes else 0.0)


def _priced(figures: StepFigures, request: RouteRequest, values: Reals) -> Reals:
    expected = figures.repeats(request.habit, request.handover)
    if not expected.any():
        return values
    priced = values.copy()
    priced[[TIME, COST]] *= 1 + expected
    return priced


def _stop(figures: StepFigures) -> Reals:
    """(criteria, n) what an end risks: its last grade again, several times, by the odds that it misses the wanted band."""
    odds = figures.outside / np.maximum(1 - figures.outside, REL_TOL)
    seconds = figures.values[TIME, 0]
    stop = np.zeros((len(CRITERIA), figures.surfaces.count))
    stop[TIME] = figures.redo
    stop[METAL, 1:] = figures.surfaces.depth_worst[1:]
    stop[COST] = np.divide(figures.values[COST, 0] * figures.redo, seconds, out=np.zeros_like(seconds), where=seconds > 0)
    stop *= constant("end.price").value * odds
    return stop


def _goal(figures: StepFigures, request: RouteRequest) -> Reals:
    """(n, n) what each step adds to the objective, with its expected repeats."""
    expected = figures.repeats(request.habit, request.handover)
    goal: Reals = figures.values[CRITERIA.index(request.objective)] * (1 + expected)
    return goal


def _search(figures: StepFigures, table: StepTable, request: RouteRequest) -> Route | None:
    if request.objective in ("time", "cost") or not figures.repeats(request.habit, request.handover).any():
        return search(table, request.objective, request.binding_limit)
    # Metal and changes count once in the table, for the limit and for what is shared; as an aim they are weighed with repeats.
    goal, stops = _goal(figures, request), _stop(figures)
    largest = [float(one[table.steps].max(initial=0.0)) or 1.0 for one in (goal, table.values[TIME])]
    tie = _TIE * largest[0] / largest[1]
    stop = stops[CRITERIA.index(request.objective)] + tie * stops[TIME]
    return _weighed(table, request, goal + tie * table.values[TIME], stop)


def _weighed(table: StepTable, request: RouteRequest, weights: Reals, stop: Reals) -> Route | None:
    """The route with the least sum of these weights of its steps and its end; its totals are those of the table."""
    mixed, stopping = table.values.copy(), np.zeros_like(table.stopping)
    mixed[TIME], stopping[TIME] = weights, stop
    found = search(replace(table, values=mixed, stop=stopping), "time", request.binding_limit)
    if found is None:
        return None
    totals = np.array([sum(float(row[step]) for step in found.steps) for row in table.values])
    return replace(found, totals=totals + table.stopping[:, found.nodes[-1] if found.nodes else 0])


def _within_fence(routes: Iterable[Route], request: RouteRequest) -> list[Route]:
    routes = list(routes)
    if request.objective == "time" or not routes:
        return routes
    fence = constant("plan.fence").value * min(float(route.totals[TIME]) for route in routes)
    return [route for route in routes if route.totals[TIME] <= fence * (1 + REL_TOL)]


def with_totals(figures: StepFigures, route: Route) -> Route:
    """The route with the totals of its work, without repeats."""
    totals = np.array([sum(float(figures.values[row][step]) for step in route.steps) for row in range(len(CRITERIA))])
    return replace(route, totals=totals)


def _allowed_steps(figures: StepFigures, request: RouteRequest) -> Flags:
    allowed = figures.passable.copy()
    for refusal, forbids in figures.forbids.items():
        if refusal not in request.lifted:
            allowed &= ~forbids
    return allowed


def _allowed_ends(figures: StepFigures, request: RouteRequest) -> Flags:
    held = [may_end for refusal, may_end in figures.may_end.items() if refusal is None or refusal not in request.lifted]
    ends: Flags = np.logical_and.reduce(held)
    return ends


def narrow(steps: Flags, ends: Flags, tools: tuple[str, ...], wish: Wish) -> tuple[Flags, Flags]:
    """The steps and ends of a graph that keep a wish. Tool k of `tools` is node k + 1.

    Steps only lead to later nodes, so a route passes a node when no step leads over it and it ends no earlier.
    A tool that is not there at all leaves no route.
    """
    if wish.empty:
        return steps, ends
    steps, ends = steps.copy(), ends.copy()
    node = {tool: at for at, tool in enumerate(tools, start=1)}
    if wish.route:
        return _exactly([node.get(tool) for tool in wish.route], steps, ends)
    for tool in wish.leave_out:
        if tool in node:
            steps[:, node[tool]] = False
    for tool in (*wish.lock, *((wish.start,) if wish.start else ())):
        if tool not in node:
            return np.zeros_like(steps), np.zeros_like(ends)
        at = node[tool]
        steps[:at, at + 1 :] = False
        ends[:at] = False
    if wish.start:
        steps[1 : node[wish.start], :] = False
        steps[0, : node[wish.start]] = False
    return steps, ends


def _exactly(nodes: list[int | None], steps: Flags, ends: Flags) -> tuple[Flags, Flags]:
    known = [node for node in nodes if node is not None]
    only, last = np.zeros_like(steps), np.zeros_like(ends)
    if len(known) == len(nodes):
        for before, at in zip((0, *known), known, strict=False):
            only[before, at] = True
        last[known[-1]] = True
    return steps & only, ends & last
