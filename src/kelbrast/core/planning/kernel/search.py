"""The best route through a graph of steps under metal limits: exact, in three stages.

All steps lead from a node to a later one, so the cheapest way from every node to an end is found in a few rounds over all
steps at once. That way, without the limits, is already the answer when it keeps them. When it does not, the most sparing way
tells whether there is an answer at all and what it costs at most; and label setting with dominance finds the best in between.

A limit belongs to a place on the face, and the metal that comes off there is that of the step that takes the place up and of
all steps after it: always the tail of a route. So labels run backwards, from the ends: one is a way on from a node with its
totals, the limit of a place is asked once, at the step that takes it up, and one resource is enough however many places there
are. A label is dropped when another at the same node is no worse both in the objective (ties broken by time, then by metal)
and in metal, or when bounds show that it cannot become the best: the way to it in the objective, in metal, and in both
weighed against each other (Lagrange).
"""

from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

import numpy as np

from kelbrast.core.planning.kernel.step_table import (
    CHANGES,
    CRITERIA,
    METAL,
    ROUNDING_SLACK,
    TIME,
    Route,
    StepTable,
    first_of_each,
)
from kelbrast.core.validity import REL_TOL, Flags, Places, Reals

_BOUND_ROUNDS: Final = 20  # of looking for the best weight; it is found in a few


def quickest_by_changes(table: StepTable, most: int) -> tuple[Route, ...]:
    """Routes that no other beats in time and changes at once, quickest first, with at most so many changes; no metal limit.

    Equation: `t_k(i) = min over j of t(i, j) + t_(k - c(i, j))(j)`, k changes to go from node i.
    """
    onward = table.onward
    before, after = table.before[onward], table.after[onward]
    left = np.arange(most + 1)[:, None]
    ahead = np.tile(table.stopping[TIME], (most + 1, 1))
    spare = left - table.values[CHANGES, onward].astype(np.intp)
    seconds = np.where(spare >= 0, table.values[TIME, onward], np.inf)
    place = np.maximum(spare, 0) * len(table.ends) + after  # in the flattened array
    begins = first_of_each(before)
    here = before[begins]
    for _ in range(len(table.ends) if len(before) else 0):  # no route has more steps
        better = np.minimum(ahead[:, here], np.minimum.reduceat(seconds + ahead.take(place), begins, axis=1))
        if np.array_equal(better, ahead[:, here]):
            break
        ahead[:, here] = better
    routes = []
    for changes in range(most, -1, -1):
        fewer = ahead[changes - 1, 0] if changes else np.inf
        if np.isfinite(ahead[changes, 0]) and ahead[changes, 0] < fewer * (1 - REL_TOL):
            routes.append(_route(table, ahead, changes))
    return tuple(routes)


def _route(table: StepTable, ahead: Reals, changes: int) -> Route:
    steps: list[int] = []
    totals = np.zeros(len(table.values))
    node, spare = 0, changes
    while table.stopping[TIME, node] > ahead[spare, node]:
        onward = table.onward[table.before[table.onward] == node]
        less = spare - table.values[CHANGES, onward].astype(np.intp)
        ways = table.values[TIME, onward] + ahead[np.maximum(less, 0), table.after[onward]]
        step = int(onward[np.where(less >= 0, ways, np.inf).argmin()])
        spare -= int(table.values[CHANGES, step])
        totals += table.values[:, step]
        steps.append(step)
        node = int(table.after[step])
    return _made(table, steps, totals + table.stopping[:, node])


def _made(table: StepTable, steps: list[int], totals: Reals, kept: int = 0) -> Route:
    return Route(tuple(int(table.after[step]) for step in steps), tuple(steps), totals, kept)


def search(table: StepTable, objective: str) -> Route | None:
    """The best route for an objective (one of `CRITERIA`) that keeps all limits; None for none."""
    ahead = _cheapest_ahead(table, table.onward, _criteria(objective))
    best = ahead.route(table)
    if best is None or keeps_limits(table, best):
        return best
    least = _least_metal(table)
    can = table.onward[least[table.after[table.onward]] <= table.within[table.onward]]
    sparing = _cheapest_ahead(table, can, _criteria("metal")).route(table)
    return None if sparing is None else _within_limits(table, objective, can, best, sparing)


def keeps_limits(table: StepTable, route: Route) -> bool:
    """Whether a route keeps the limit of every place that it takes up."""
    ahead = 0.0
    for step in reversed(route.steps):
        if ahead > table.within[step]:
            return False
        ahead += float(table.values[METAL, step])
    return True


def _least_metal(table: StepTable) -> Reals:
    """(n,) the least metal from each node to an end that keeps all limits on the way; infinite where no way does."""
    onward = table.onward
    before, after = table.before[onward], table.after[onward]
    metal, within = table.values[METAL, onward], table.within[onward]
    least: Reals = table.stopping[METAL].copy()
    begins = first_of_each(before)
    for _ in range(len(least) if len(onward) else 0):
        ways = np.where(least[after] <= within, metal + least[after], np.inf)
        here = before[begins]
        better = np.minimum(least[here], np.minimum.reduceat(ways, begins))
        if np.array_equal(better, least[here]):
            break
        least[here] = better
    return least


def least_ahead(table: StepTable) -> Reals:
    """(n, criteria): the least of every criterion by itself from each node to an end, infinite where no end is reached."""
    onward = table.onward
    before, after = table.before[onward], table.after[onward]
    rows = zip(table.values, table.stopping, strict=True)
    return np.stack([_least(each[onward], before, after, stopping) for each, stopping in rows], axis=1)


def least_behind(table: StepTable) -> Reals:
    """(n, criteria): the least of every criterion by itself from the beginning to each node, infinite where no way leads."""
    return np.stack([_behind(table, table.onward, each[table.onward]) for each in table.values], axis=1)


def no_longer_than(table: StepTable, seconds: float) -> StepTable:
    """The table without the steps through which no route takes so little time."""
    taken = np.flatnonzero(table.steps)
    before, after, times = table.before[taken], table.after[taken], table.values[TIME, taken]
    ahead, behind = _least(times, before, after, table.stopping[TIME]), _behind(table, taken, times)
    steps = np.zeros_like(table.steps)
    steps[taken[behind[before] + times + ahead[after] <= seconds * ROUNDING_SLACK]] = True
    return replace(table, steps=steps)


def reachable(table: StepTable) -> Flags:
    """(n,): which nodes can be reached within the limits."""
    within: Flags = _room_left(table, np.flatnonzero(table.steps)) >= 0
    return within


def _room_left(table: StepTable, taken: Places) -> Reals:
    """(n,) the most metal that may still come off after each node by the limits of the places taken up so far, at best;
    below 0 where no route gets there."""
    order = taken[np.argsort(table.after[taken], kind="stable")]
    before, after, metal, within = table.before[order], table.after[order], table.values[METAL, order], table.within[order]
    left = np.full(len(table.ends), -np.inf)
    left[0] = np.inf
    begins = first_of_each(after)
    here = after[begins]
    for _ in range(len(left) if len(order) else 0):
        better = np.maximum(left[here], np.maximum.reduceat(np.minimum(within, left[before] - metal), begins))
        if np.array_equal(better, left[here]):
            break
        left[here] = better
    return left


@dataclass(frozen=True, slots=True)
class _Ahead:
    """The cheapest way on from every node: its totals, and the step it goes on with (-1 at an end or where none leads on)."""

    totals: Reals
    step: Places

    def route(self, table: StepTable) -> Route | None:
        if not np.isfinite(self.totals[0, TIME]):
            return None
        steps = []
        at = int(self.step[0])
        while at >= 0:
            steps.append(at)
            at = int(self.step[table.after[at]])
        return _made(table, steps, self.totals[0].copy())


def _cheapest_ahead(table: StepTable, steps: Places, order: list[int]) -> _Ahead:
    """By the first criterion of the order; of the steps that tie in it to the last bit, by the next, and so on."""
    values, stops = table.values, table.ends
    # Two routes of the same time to the last bit are the same route; in everything else they often tie.
    for criterion in order[:1] if order[0] == TIME else order:
        before, after, ways = table.before[steps], table.after[steps], values[criterion, steps]
        stopping = np.where(stops, table.stopping[criterion], np.inf)
        cost = _least(ways, before, after, stopping)
        stops = stops & (stopping <= cost)
        steps = steps[(ways + cost[after] <= cost[before]) & np.isfinite(cost[before])]
    steps = steps[~stops[table.before[steps]]]  # where stopping is as good as going on, a route stops
    first = steps[first_of_each(table.before[steps])]
    here, there = table.before[first], table.after[first]
    totals = np.where(stops[:, None], table.stopping.T, np.inf)
    step = values[:, first].T
    for _ in range(len(stops)):  # no route has more steps
        ahead = step + totals[there]
        if np.array_equal(ahead, totals[here]):
            break
        totals[here] = ahead
    following = np.full(len(stops), -1, dtype=np.intp)
    following[here] = first
    return _Ahead(totals, following)


def _least(ways: Reals, here: Places, there: Places, start: Reals) -> Reals:
    """(n,): the least sum of `ways` from every node, and of what it starts from, infinite for none: relaxed until nothing gets
    better.

    Steps only lead to later nodes, so that is after as many rounds as the longest of the best routes has steps, and never
    after more than there are nodes.

    Args:
        ways: (steps,) what each step costs, from the nodes `here` (ascending) to those `there`.
        start: (n,) what no step at all costs.
    """
    cost = start.copy()
    if len(ways) == 0:
        return cost
    begins = first_of_each(here)
    nodes = here[begins]
    for _ in range(len(cost)):
        better = np.minimum(cost[nodes], np.minimum.reduceat(ways + cost[there], begins))
        if np.array_equal(better, cost[nodes]):
            break
        cost[nodes] = better
    return cost


def _behind(table: StepTable, steps: Places, ways: Reals) -> Reals:
    """(n,): the least sum of `ways` (one for each of the steps) from the beginning to every node."""
    order = np.argsort(table.after[steps], kind="stable")
    start = np.full(len(table.ends), np.inf)
    start[0] = 0.0
    return _least(ways[order], table.after[steps][order], table.before[steps][order], start)


@dataclass(frozen=True, slots=True)
class _Bound:
    """A bound by Lagrange: some route within the limits reaches `at_most`, and no way to a node is below `behind`, where the
    metal that comes off after the first step counts with `weight` against the room that it left; `priced`: every step so."""

    at_most: float
    weight: float
    behind: Reals
    priced: Reals


def _bound(table: StepTable, steps: Places, order: list[int], best: Route, sparing: Route) -> _Bound:
    """The best weight of metal against the objective: of two routes, one within the limit and one beyond, where they tie."""
    first, metal = order[0], table.values[METAL].copy()
    metal_at_most = len(table.ends) * float(metal[steps].max(initial=0.0))
    begins = table.before == 0
    metal[begins] = -np.minimum(table.within[begins], metal_at_most)

    def over(route: Route) -> float:
        """By how much its metal passes the room that its first step left, m."""
        return float(sum(metal[step] for step in route.steps))

    beyond, within = best, sparing
    weight, priced = 0.0, table.values[first]
    for _ in range(_BOUND_ROUNDS):
        if (spared := over(beyond) - over(within)) <= 0 or within.totals[first] <= beyond.totals[first]:
            break
        weight = float((within.totals[first] - beyond.totals[first]) / spared)
        mixed = table.values.copy()
        mixed[first] += weight * metal
        priced = mixed[first]
        found = _cheapest_ahead(replace(table, values=mixed), steps, order).route(table)
        assert found is not None, "there is a route"
        route = replace(found, totals=found.totals - weight * over(found) * (np.arange(len(CRITERIA)) == first))
        if found.totals[first] >= (within.totals[first] + weight * over(within)) * (1 - REL_TOL):
            break
        beyond, within = (beyond, route) if keeps_limits(table, route) else (route, within)
    return _Bound(float(within.totals[first]), weight, _behind(table, steps, priced[steps]), priced)


def _within_limits(table: StepTable, objective: str, steps: Places, best: Route, sparing: Route) -> Route:
    """By labels from the ends to the beginning; `steps`: those after which the limits can still be kept."""
    order = _criteria(objective)
    first, within = order[0], table.within
    bound = _bound(table, steps, order, best, sparing)
    at_most = bound.at_most * ROUNDING_SLACK
    behind = _behind(table, steps, table.values[first, steps])
    for ways, so_far in ((table.values[first], behind), (bound.priced, bound.behind)):
        before, after = table.before[steps], table.after[steps]
        ahead = _least(ways[steps], before, after, table.stopping[first])
        steps = steps[so_far[before] + ways[steps] + ahead[after] <= at_most]
    left = _room_left(table, steps)
    left = left + np.abs(np.where(np.isfinite(left), left, 0.0)) * REL_TOL
    begins = first_of_each(table.before[steps])
    edges = [*begins.tolist(), len(steps)]
    outward = {int(table.before[steps[a]]): steps[a:b] for a, b in pairwise(edges)}
    labels = _Labels(len(table.ends))
    passed = {0, *table.before[steps].tolist(), *table.after[steps].tolist()}
    for node in sorted(passed, reverse=True):
        onward, after, totals = labels.ways_on(table, outward.get(node, steps[:0]))
        keep = totals[:, METAL] - table.values[METAL, onward] <= within[onward]
        onward, after, totals = onward[keep], after[keep], totals[keep]
        if table.ends[node]:
            stop = table.stopping[None, :, node]
            onward, after, totals = np.append(onward, -1), np.append(after, -1), np.concatenate([totals, stop])
        if node:
            promising = np.flatnonzero(
                (totals[:, METAL] <= left[node])
                & (totals[:, first] + behind[node] <= at_most)
                & (totals[:, first] + bound.weight * totals[:, METAL] + bound.behind[node] <= at_most)
            )
        else:
            promising = np.arange(len(totals))
        if promising.size:
            kept = promising[_undominated(totals[promising], order)]
            labels.add(node, onward[kept], after[kept], totals[kept])
    at = labels.of(0)
    best_label = int(at.start + _ranked(labels.totals[at], order)[0])
    return _made(table, labels.way_from(best_label), labels.totals[best_label].copy(), labels.count)


class _Labels:
    """Ways on from nodes, in order of creation: the step that each begins with, the label it goes on as, and its totals."""

    def __init__(self, nodes: int) -> None:
        self.count = 0
        self._step: Places = np.full(256, -1, dtype=np.intp)
        self._next: Places = np.full(256, -1, dtype=np.intp)
        self._totals: Reals = np.zeros((256, len(CRITERIA)))
        self._of = [slice(0, 0)] * nodes

    @property
    def totals(self) -> Reals:
        return self._totals[: self.count]

    def of(self, node: int) -> slice:
        """Where those of a node stand."""
        return self._of[node]

    def ways_on(self, table: StepTable, steps: Places) -> tuple[Places, Places, Reals]:
        """Every way that begins with one of these steps: the step, the label after it, and the totals of both."""
        there = [self._of[node] for node in table.after[steps].tolist()]
        counts = [at.stop - at.start for at in there]
        onward = np.repeat(steps, counts)
        after = np.concatenate([np.arange(at.start, at.stop) for at in there]) if there else np.empty(0, dtype=np.intp)
        return onward, after, table.values[:, onward].T + self._totals[after]

    def add(self, node: int, step: Places, after: Places, totals: Reals) -> None:
        end = self.count + len(step)
        while end > len(self._step):
            self._step, self._next = (np.concatenate([a, a]) for a in (self._step, self._next))
            self._totals = np.concatenate([self._totals, self._totals])
        here = slice(self.count, end)
        self._step[here], self._next[here], self._totals[here] = step, after, totals
        self._of[node], self.count = here, end

    def way_from(self, label: int) -> list[int]:
        steps = []
        while self._step[label] >= 0:
            steps.append(int(self._step[label]))
            label = int(self._next[label])
        return steps


def _undominated(totals: Reals, order: list[int]) -> Places:
    """Indices of the labels that no other beats both in the objective's order and in metal."""
    ranked = _ranked(totals, order)
    metal = totals[ranked, METAL]
    least_before = np.concatenate([[np.inf], np.minimum.accumulate(metal)[:-1]])
    kept: Places = ranked[metal < least_before]
    return kept


def _ranked(totals: Reals, order: list[int]) -> Places:
    """Indices from best to worst."""
    return np.lexsort([totals[:, k] for k in reversed(order)])


def _criteria(objective: str) -> list[int]:
    """The objective first, ties by time, then by metal."""
    first = CRITERIA.index(objective)
    return [first, *(k for k in (TIME, METAL) if k != first)]
