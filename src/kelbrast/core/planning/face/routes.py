"""The steps that wishes and habits allow on a face, and the best route through them."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from kelbrast.core.job import HabitKey, Handover
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.search import keeps_limits, no_longer_than, quickest_by_changes, reachable, search
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, CRITERIA, METAL, TIME, Route, StepTable, only_taken, through
from kelbrast.core.process.rework import chance_of_repeat
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.face import Wish
from kelbrast.core.validity import Flags, Places, Reals, Texts

_PRICES: Final = 6  # from a minute on, doubled: at half an hour a change hardly anything is changed any more
_TIE: Final = 1e-6  # of the objective: what is as good is decided by time


@dataclass(frozen=True, slots=True)
class RouteRequest:
    """What is asked of a face.

    Attributes:
        objective: one of `CRITERIA`.  limit: of the metal, m, infinite for none.
        habit: a key of `job.HABITS`.  handover: the school of where the wheel starts.  Both are prices, not bounds.
        lifted: refusals that are not to count.
        all_alike: no place of the face is worked by itself.
    """

    objective: str = "time"
    limit: float = np.inf
    habit: HabitKey = "long-steps"
    lifted: frozenset[Refusal] = frozenset()
    handover: Handover = "free"
    wish: Wish = field(default_factory=Wish)
    all_alike: bool = False

    @property
    def binding_limit(self) -> float:
        return np.inf if "metal" in self.lifted else self.limit


def step_table(figures: StepFigures, request: RouteRequest) -> StepTable:
    """The steps that the wish leaves, with the expected repeats in their time and cost. Metal and changes count once: metal for
    its limit, changes for what is shared."""
    wish = request.wish
    if wish.route:
        return _exactly(_priced(figures, request, _between(figures, wish.route)), figures, wish.route)
    before_wishes = replace(request, objective="time", wish=Wish())
    if before_wishes not in figures.tables:
        figures.tables[before_wishes] = _priced(figures, request, True)
    return narrowed(figures.tables[before_wishes], figures, wish)


def _priced(figures: StepFigures, request: RouteRequest, among: Flags | bool) -> StepTable:
    """The steps among these that no rule forbids, with the expected repeats."""
    steps, ends = _allowed_steps(figures, request) & among, _allowed_ends(figures, request)
    stop = figures.stop.copy()
    stop[METAL] = 0.0
    limit = request.binding_limit
    room = None if np.isinf(limit) else limit - figures.lost
    table = StepTable(figures.graph.before, figures.graph.after, figures.values, steps, ends, room, stop)
    if not steps.all():
        table = only_taken(table)
    expected = figures.repeats(request.habit, request.handover)[table.origins]
    if expected.any():
        values = table.values.copy()
        values[TIME] *= 1 + expected
        values[COST] *= 1 + expected
        table = replace(table, values=values)
    return table


def surfaces_in_reach(figures: StepFigures, request: RouteRequest) -> Flags:
    """(n,) which nodes of the graph can be reached within the limits."""
    within = reachable(step_table(figures, request))
    return np.asarray(within.reshape(-1, len(figures.graph.row)).any(axis=0))


def best_route(figures: StepFigures, request: RouteRequest) -> Route | None:
    """The best route for what is asked with the expected repeats of its steps, or None when there is none."""
    route = _search(figures, request, table := step_table(figures, request))
    return None if route is None else with_totals(figures, table, route)


def sensible_route(figures: StepFigures, request: RouteRequest) -> Route | None:
    """The best route for the aim, in which time counts too: what the aim is about has a price in time (`_price`)."""
    route = _for_the_aim(figures, request, table := step_table(figures, request))
    return None if route is None else with_totals(figures, table, route)


def other_routes(figures: StepFigures, request: RouteRequest, best: Route) -> list[Route]:
    """The quickest routes with fewer and fewer changes, within the limit."""
    table = step_table(figures, request)
    if request.objective == "time":  # what is longer even if all its set-ups were made for other faces cannot pay
        shared = _sharing(figures, table, figures.surfaces.ids)
        table = replace(table, steps=no_longer_than(shared, seconds_with_repeats(figures, request, best)).steps)
    most = round(float(best.totals[CHANGES])) if request.objective == "time" else len(best.nodes)
    quickest = quickest_by_changes(table, most)  # with more changes than the quickest nothing is quicker
    if not all(keeps_limits(table, route) for route in quickest):
        quickest = tuple(_by_price_of_a_change(table))
    return [with_totals(figures, table, route) for route in quickest]


def sharing_routes(figures: StepFigures, request: RouteRequest, tools: Collection[str]) -> list[Route]:
    """The best route where these tools are set up for another face already, so that only their work counts."""
    route = _for_the_aim(figures, request, table := _sharing(figures, step_table(figures, request), tools))
    return [] if route is None else [with_totals(figures, table, route)]


def seconds_with_repeats(figures: StepFigures, request: RouteRequest, route: Route) -> float:
    """Seconds of a route with the expected repeats of its steps and the risk of its end: what it is chosen by."""
    expected = figures.repeats(request.habit, request.handover)
    worked = sum(float(figures.values[TIME, step] * (1 + expected[step])) for step in route.steps)
    return worked + (float(figures.stop[TIME, route.nodes[-1]]) if route.nodes else 0.0)


def expected_rework(figures: StepFigures, route: Route, habit: HabitKey, handover: Handover) -> float:
    """Expected seconds of repeats. A step that fails its check again and again is noticed: each counts once at most."""
    expected = figures.repeats(habit, handover)
    return sum(float(figures.values[TIME, step]) * chance_of_repeat(float(expected[step])) for step in route.steps)


def price_of_a_change(objective: str) -> float:
    """Seconds that a change counts beside the time that it takes."""
    return constant("plan.change_worth").si if objective == "changes" else 0.0


def _price(table: StepTable, request: RouteRequest) -> float | None:
    """Seconds that one unit of what the aim is about counts for: money at the bench's rate, a change at `plan.change_worth`.

    A percent of the metal that the quickest route takes counts for some percents of its time (`plan.metal_worth`). None when
    there is no route.
    """
    if request.objective == "cost":
        return 1 / constant("work.bench_rate").si
    if request.objective == "changes":
        return price_of_a_change("changes")
    quickest = search(table, "time")
    if quickest is None:
        return None
    metal = float(quickest.totals[METAL])
    return constant("plan.metal_worth").value * float(quickest.totals[TIME]) / metal if metal > 0 else 0.0


def _for_the_aim(figures: StepFigures, request: RouteRequest, table: StepTable) -> Route | None:
    """The route with the least time and priced metal, cost or changes, all with the expected repeats."""
    if request.objective == "time":
        return search(table, "time")
    price, goal = _price(table, request), _goal(figures, request, table)
    return None if price is None else _weighed(table, goal.beside_time(price, table))


def _by_price_of_a_change(table: StepTable) -> Iterator[Route]:
    """The best routes within the metal limit for one price of a change after the other, each twice the last."""
    price, known = constant("work.wash").si, set()
    for _ in range(_PRICES):
        route = _weighed(table, _Goal(table.values[TIME] + price * table.values[CHANGES], table.stopping[TIME]))
        if route is None:
            return
        if route.nodes not in known:
            known.add(route.nodes)
            yield route
        price *= 2


def _sharing(figures: StepFigures, table: StepTable, tools: Collection[str]) -> StepTable:
    """The table where these tools are set up for another face already: without their set-ups, washes and changes."""
    values, steps = table.values.copy(), table.origins
    there = np.array([on_face is not None and on_face.tool.id in tools for on_face in figures.tools_at])
    ready = there[figures.graph.after[steps]] & ~figures.met.on[steps]
    setup = np.array([on_face.tool.carrier.stock.setup if on_face else 0.0 for on_face in figures.tools_at])
    values[TIME, ready] -= setup[figures.graph.after[steps[ready]]]
    values[TIME, ready & (figures.graph.before[steps] > 0)] -= constant("work.wash").si
    values[CHANGES, ready] = 0.0
    return replace(table, values=values)


@dataclass(frozen=True, slots=True)
class _Goal:
    """What each step, (steps,), and each end, (n,), adds to what a route shall have least of."""

    steps: Reals
    ends: Reals

    def with_time(self, weight: float, table: StepTable) -> "_Goal":
        return _Goal(self.steps + weight * table.values[TIME], self.ends + weight * table.stopping[TIME])

    def beside_time(self, price: float, table: StepTable) -> "_Goal":
        return _Goal(price * self.steps + table.values[TIME], price * self.ends + table.stopping[TIME])


def _goal(figures: StepFigures, request: RouteRequest, table: StepTable) -> _Goal:
    """The objective with the expected repeats of every step and the risk of every end."""
    row, steps = CRITERIA.index(request.objective), table.values[CRITERIA.index(request.objective)]
    if row in (METAL, CHANGES):
        steps = steps * (1 + figures.repeats(request.habit, request.handover)[table.origins])
    return _Goal(steps, np.tile(figures.stop[row], len(table.ends) // len(figures.graph.row)))


def _search(figures: StepFigures, request: RouteRequest, table: StepTable) -> Route | None:
    if request.objective in ("time", "cost"):
        return search(table, request.objective)
    goal = _goal(figures, request, table)
    largest = [float(one[table.steps].max(initial=0.0)) or 1.0 for one in (goal.steps, table.values[TIME])]
    return _weighed(table, goal.with_time(_TIE * largest[0] / largest[1], table))


def _weighed(table: StepTable, goal: _Goal) -> Route | None:
    """The route with the least of this; its totals are those of the table."""
    values, stop = table.values.copy(), np.zeros_like(table.stopping)
    values[TIME], stop[TIME] = goal.steps, goal.ends
    route = search(replace(table, values=values, stop=stop), "time")
    if route is None:
        return None
    totals = np.array([sum(float(row[step]) for step in route.steps) for row in table.values])
    return replace(route, totals=totals + table.stopping[:, route.nodes[-1] if route.nodes else 0])


def with_totals(figures: StepFigures, table: StepTable, route: Route) -> Route:
    """The route by the nodes and steps of the figures, with the totals of its work, without repeats."""
    steps = tuple(step for step in table.origins[list(route.steps)].tolist() if not figures.graph.idle[step])
    totals = np.array([sum(float(figures.values[row, step]) for step in steps) for row in range(len(CRITERIA))])
    return replace(route, nodes=tuple(figures.graph.after[list(steps)].tolist()), steps=steps, totals=totals)


def _allowed_steps(figures: StepFigures, request: RouteRequest) -> Flags:
    allowed: Flags = figures.graph.whole[figures.graph.after] | (not request.all_alike)
    for refusal, forbids in figures.forbids.items():
        if refusal not in request.lifted:
            allowed &= ~forbids
    return allowed


def _between(figures: StepFigures, tools: Collection[str]) -> Flags:
    """(steps,) which steps lead from the face as found or one of these tools to another of them."""
    theirs = np.isin(_ids_at(figures), ["", *tools])
    between: Flags = theirs[figures.graph.before] & theirs[figures.graph.after]
    return between


def _allowed_ends(figures: StepFigures, request: RouteRequest) -> Flags:
    held = [may_end for refusal, may_end in figures.may_end.items() if refusal is None or refusal not in request.lifted]
    ends: Flags = np.logical_and.reduce(held)
    return ends


def narrowed(table: StepTable, figures: StepFigures, wish: Wish) -> StepTable:
    """The steps and ends of a graph that keep a wish. A tool that is not there at all leaves no route."""
    if wish.empty:
        return table
    ids = _ids_at(figures)
    steps = table.steps
    if wish.leave_out:
        steps = steps & ~np.isin(ids, wish.leave_out)[table.after]
    if wish.start:
        steps = steps & ((table.before > 0) | (ids == wish.start)[table.after])
    table = replace(table, steps=steps)
    for tool in wish.lock:
        table = through(table, np.tile(ids == tool, len(table.ends) // len(ids)))
    return table


def _ids_at(figures: StepFigures) -> Texts:
    """(n,) the tool of each node, empty for the face as found."""
    return np.array(["" if on_face is None else on_face.tool.id for on_face in figures.tools_at])


def _exactly(table: StepTable, figures: StepFigures, route: tuple[str, ...]) -> StepTable:
    """The table of the routes with exactly these tools in this order: the graph once for every place in it, so that a step
    leads to the next, or stays where its tool goes on over more of the face."""
    ids = _ids_at(figures)
    count, after = len(ids), ids[table.after]
    steps: list[Places] = []
    before: list[Places] = []
    there: list[Places] = []
    on, idle = (flags[table.origins] for flags in (figures.met.on, figures.graph.idle))
    for place in range(len(route) + 1):
        going_on = table.steps & (on | idle) & (after == route[place - 1]) if place else np.zeros_like(on)
        leading = table.steps & ~(on | idle) & (after == route[place]) if place < len(route) else np.zeros_like(on)
        taken = np.flatnonzero(going_on | leading)
        steps.append(taken)
        before.append(table.before[taken] + place * count)
        there.append(table.after[taken] + (place + leading[taken]) * count)
    origin = np.concatenate(steps)
    return StepTable(
        before=np.concatenate(before),
        after=np.concatenate(there),
        values=table.values[:, origin],
        steps=np.ones(len(origin), dtype=bool),
        ends=np.concatenate([np.zeros(len(route) * count, dtype=bool), table.ends]),
        room=None if table.room is None else table.room[origin],
        stop=None if table.stop is None else np.tile(table.stop, len(route) + 1),
        origin=table.origins[origin],
    )
