"""The best route through a graph of steps under a metal limit: exact, in three stages.

All steps lead from a node to a later one, so the cheapest way from every node to an end is found in a few rounds over all
steps at once. That way, without the limit, is already the answer when it stays within the limit. When it does not, the most
sparing way tells whether there is an answer at all and what it costs at most; and label setting with dominance finds
the best in between: a label is a partial route with its totals, and one is dropped when another at the same node is no
worse both in the objective (ties broken by time, then by metal) and in metal, or when bounds show that it cannot become the
best: the way on in the objective, in metal, and in both weighed against each other (Lagrange).
"""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final

import numpy as np

from kelbrast.core.validity import REL_TOL, Flags, Places, Reals

CRITERIA: Final = ("time", "metal", "cost", "changes")
TIME, METAL, COST, CHANGES = range(4)
ROUNDING_SLACK: Final = 1 + REL_TOL
_BOUND_ROUNDS: Final = 20  # of looking for the best weight; it is found in a few


@dataclass(frozen=True)
class StepTable:
    """Steps that all lead from a node to a later one; a route begins at node 0.

    Attributes:
        values: (criteria, n, n) what each step adds: time (s), metal (m), cost, changes; indexed [criterion, from, to].
        steps: (n, n) which of them may be taken.  ends: (n,) where a route may end.
        stop: (criteria, n) what ending there adds, nothing in metal and changes; None for nothing anywhere.
    """

    values: Reals
    steps: Flags
    ends: Flags
    stop: Reals | None = None

    @cached_property
    def stopping(self) -> Reals:
        """(criteria, n) what ending at each node adds, infinite where no route may end."""
        return np.where(self.ends, 0.0 if self.stop is None else self.stop, np.full((len(self.values), len(self.ends)), np.inf))

    @cached_property
    def onward(self) -> Flags:
        """(n, n) the steps that a best route may take: none leads on from an end where stopping adds no more than any step."""
        least = np.where(self.steps, self.values, np.inf).min(axis=2)
        final: Flags = (self.stopping <= least).all(axis=0) & self.ends
        onward: Flags = self.steps & ~final[:, None]
        return onward


@dataclass(frozen=True, slots=True)
class Route:
    """Nodes in order, the totals by `CRITERIA` (s, m, money, count), and how many labels were kept for it."""

    nodes: tuple[int, ...]
    totals: Reals
    kept: int = 0

    @property
    def steps(self) -> tuple[tuple[int, int], ...]:
        """(from, to) of every step."""
        return tuple(zip((0, *self.nodes), self.nodes, strict=False))


def quickest_by_changes(table: StepTable, most: int) -> tuple[Route, ...]:
    """Routes that no other beats in time and changes at once, quickest first, with at most so many changes; no metal limit.

    Equation: `t_k(i) = min over j of t(i, j) + t_(k - c(i, j))(j)`, k changes to go from node i.
    """
    before, after = np.nonzero(table.onward)
    left = np.arange(most + 1)[:, None]
    ahead = np.tile(table.stopping[TIME], (most + 1, 1))
    spare = left - table.values[CHANGES, before, after].astype(np.intp)
    seconds = np.where(spare >= 0, table.values[TIME, before, after], np.inf)
    place = np.maximum(spare, 0) * len(table.ends) + after  # in the flattened array
    begins = np.flatnonzero(np.diff(before, prepend=-1))
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
    nodes: list[int] = []
    totals = np.zeros(len(table.values))
    node, spare = 0, changes
    while table.stopping[TIME, node] > ahead[spare, node]:
        onward = np.flatnonzero(table.onward[node])
        less = spare - table.values[CHANGES, node, onward].astype(np.intp)
        seconds = np.where(less >= 0, table.values[TIME, node, onward] + ahead[np.maximum(less, 0), onward], np.inf)
        after = int(onward[seconds.argmin()])
        step = table.values[:, node, after]
        spare -= int(step[CHANGES])
        totals += step
        nodes.append(node := after)
    return Route(tuple(nodes), totals + table.stopping[:, node])


def search(table: StepTable, objective: str, limit: float = np.inf) -> Route | None:
    """The best route for an objective (one of `CRITERIA`) that takes no more metal than the limit (m); None for none."""
    limit *= ROUNDING_SLACK
    ahead = _cheapest_ahead(table, _criteria(objective))
    if not ahead.leads_to_an_end(0) or ahead.totals[0, METAL] <= limit:
        return ahead.route()
    sparing = _cheapest_ahead(table, _criteria("metal"))
    if sparing.totals[0, METAL] > limit:
        return None
    return _within_limit(table, objective, limit, ahead, sparing)


def least_ahead(table: StepTable) -> Reals:
    """(n, criteria): the least of every criterion by itself from each node to an end, infinite where no end is reached."""
    before, after = np.nonzero(table.onward)
    rows = zip(table.values, table.stopping, strict=True)
    return np.stack([_least(each[before, after], before, after, stopping) for each, stopping in rows], axis=1)


def no_longer_than(table: StepTable, seconds: float) -> StepTable:
    """The table without the steps through which no route takes so little time."""
    before, after = np.nonzero(table.steps)
    ahead = _least(table.values[TIME, before, after], before, after, table.stopping[TIME])
    times = np.where(table.steps, table.values[TIME], np.inf)
    behind = np.full(len(table.ends), np.inf)
    behind[0] = 0.0
    for node in range(1, len(behind)):
        behind[node] = (behind[:node] + times[:node, node]).min()
    through = behind[:, None] + times + ahead[None, :]
    return replace(table, steps=table.steps & (through <= seconds * ROUNDING_SLACK))


def reachable(table: StepTable, limit: float = np.inf) -> Flags:
    """(n,): which nodes can be reached within the limit."""
    metal = np.where(table.steps, table.values[METAL], np.inf)
    spent = np.full(len(table.ends), np.inf)
    spent[0] = 0.0
    for node in range(1, len(spent)):
        spent[node] = (spent[:node] + metal[:node, node]).min()
    within: Flags = np.isfinite(spent) & (spent <= limit * ROUNDING_SLACK)
    return within


@dataclass(frozen=True, slots=True)
class _Ahead:
    """The cheapest way on from every node: its totals, and the node it goes to next (-1 at an end or where none leads on)."""

    totals: Reals
    next: Places

    def leads_to_an_end(self, node: int) -> bool:
        return bool(np.isfinite(self.totals[node, TIME]))

    def route(self) -> Route | None:
        if not self.leads_to_an_end(0):
            return None
        nodes = []
        at = int(self.next[0])
        while at >= 0:
            nodes.append(at)
            at = int(self.next[at])
        return Route(tuple(nodes), self.totals[0].copy())


def _cheapest_ahead(table: StepTable, order: list[int]) -> _Ahead:
    """By the first criterion of the order; of the steps that tie in it to the last bit, by the next, and so on."""
    values, stops = table.values, table.ends
    before, after = np.nonzero(table.onward)
    # Two routes of the same time to the last bit are the same route; in everything else they often tie.
    for criterion in order[:1] if order[0] == TIME else order:
        ways = values[criterion, before, after]
        stopping = np.where(stops, table.stopping[criterion], np.inf)
        cost = _least(ways, before, after, stopping)
        stops = stops & (stopping <= cost)
        best = (ways + cost[after] <= cost[before]) & np.isfinite(cost[before])
        before, after = before[best], after[best]
    on = ~stops[before]  # where stopping is as good as going on, a route stops
    before, after = before[on], after[on]
    first = _first_of_each(before)
    here, there = before[first], after[first]
    totals = np.where(stops[:, None], table.stopping.T, np.inf)
    step = values[:, here, there].T
    for _ in range(len(stops)):  # no route has more steps
        ahead = step + totals[there]
        if np.array_equal(ahead, totals[here]):
            break
        totals[here] = ahead
    following = np.full(len(stops), -1, dtype=np.intp)
    following[here] = there
    return _Ahead(totals, following)


def _first_of_each(before: Places) -> Places:
    """Where each node first stands in an ascending list of them."""
    new: Flags = np.ones(len(before), dtype=bool)
    new[1:] = before[1:] != before[:-1]
    return np.flatnonzero(new)


def _least(ways: Reals, before: Places, after: Places, stopping: Reals) -> Reals:
    """(n,): the least sum of `ways` from every node to an end and of stopping there, infinite for none: relaxed until nothing
    gets better.

    Steps only lead to later nodes, so that is after as many rounds as the longest of the best routes has steps, and never
    after more than there are nodes.

    Args:
        ways: (steps,) what each step costs, with the nodes `before` (ascending) and `after` it.
    """
    cost = stopping.copy()
    if len(ways) == 0:
        return cost
    begins = _first_of_each(before)
    here = before[begins]
    for _ in range(len(cost)):
        better = np.minimum(cost[here], np.minimum.reduceat(ways + cost[after], begins))
        if np.array_equal(better, cost[here]):
            break
        cost[here] = better
    return cost


@dataclass(frozen=True, slots=True)
class _Bound:
    """A bound by Lagrange: some route within the limit reaches `at_most`, and no way on from a node is below `ahead`, where
    metal counts with `weight` against the limit."""

    at_most: float
    weight: float
    ahead: Reals


def _bound(table: StepTable, order: list[int], limit: float, ahead: _Ahead, sparing: _Ahead) -> _Bound:
    """The best weight of metal against the objective: of two routes, one within the limit and one beyond, where they tie."""
    first = order[0]
    beyond, within = ahead.totals[0], sparing.totals[0]
    weight, ways = 0.0, ahead.totals[:, first]
    for _ in range(_BOUND_ROUNDS):
        if (spared := beyond[METAL] - within[METAL]) <= 0 or within[first] <= beyond[first]:
            break
        weight = float((within[first] - beyond[first]) / spared)
        mixed = table.values.copy()
        mixed[first] += weight * table.values[METAL]
        found = _cheapest_ahead(replace(table, values=mixed), order)
        ways = found.totals[:, first]
        route = found.totals[0].copy()
        route[first] -= weight * route[METAL]
        if ways[0] >= (within[first] + weight * within[METAL]) * (1 - REL_TOL):
            break
        beyond, within = (beyond, route) if route[METAL] <= limit else (route, within)
    return _Bound(float(within[first]), weight, ways)


def _within_limit(table: StepTable, objective: str, limit: float, ahead: _Ahead, sparing: _Ahead) -> Route:
    values, ends = table.values, table.ends
    order = _criteria(objective)
    bound = _bound(table, order, limit, ahead, sparing)
    at_most = bound.at_most * ROUNDING_SLACK
    labels = _Labels()
    for node in range(1, len(ends)):
        if not ahead.leads_to_an_end(node):
            continue
        before = np.flatnonzero(table.onward[labels.node, node])
        totals = labels.totals[before] + values[:, labels.node[before], node].T
        promising = np.flatnonzero(
            (totals[:, METAL] + sparing.totals[node, METAL] <= limit)
            & (totals[:, order[0]] + ahead.totals[node, order[0]] <= at_most)
            & (totals[:, order[0]] + bound.weight * (totals[:, METAL] - limit) + bound.ahead[node] <= at_most)
        )
        if promising.size:
            kept = promising[_undominated(totals[promising], order)]
            labels.add(node, before[kept], totals[kept])
    at_end = np.flatnonzero(ends[labels.node])
    totals = labels.totals[at_end] + table.stopping[:, labels.node[at_end]].T
    best = int(_ranked(totals, order)[0])
    return Route(labels.way_to(int(at_end[best])), totals[best].copy(), len(labels.node))


class _Labels:
    """Labels in order of creation: where each stands, which it came from, its totals. Grows by doubling."""

    def __init__(self) -> None:
        self._count = 1
        self._node: Places = np.zeros(256, dtype=np.intp)
        self._before: Places = np.full(256, -1, dtype=np.intp)
        self._totals: Reals = np.zeros((256, len(CRITERIA)))

    @property
    def node(self) -> Places:
        return self._node[: self._count]

    @property
    def totals(self) -> Reals:
        return self._totals[: self._count]

    def add(self, node: int, before: Places, totals: Reals) -> None:
        end = self._count + len(before)
        while end > len(self._node):
            self._node, self._before = (np.concatenate([a, a]) for a in (self._node, self._before))
            self._totals = np.concatenate([self._totals, self._totals])
        self._node[self._count : end] = node
        self._before[self._count : end] = before
        self._totals[self._count : end] = totals
        self._count = end

    def way_to(self, label: int) -> tuple[int, ...]:
        nodes = []
        while self._node[label] != 0:
            nodes.append(int(self._node[label]))
            label = int(self._before[label])
        return tuple(reversed(nodes))


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
