"""The best route through a graph of steps under a metal limit: exact, in three stages.

All steps lead from a node to a later one, so the cheapest way from every node to an end is found in a few rounds over all
steps at once. That way, without the limit, is already the answer when it stays within the limit. When it does not, the most
sparing way tells whether there is an answer at all and what it costs at most; and label setting with dominance finds
the best in between: a label is a partial route with its totals, and one is dropped when another at the same node is no
worse both in the aim (ties broken by time, then by metal) and in metal, or when the two bounds show that it can not
become the best.
"""

from dataclasses import dataclass, field

import numpy as np

from kelbrast.core.arrays import Flags, Reals
from kelbrast.core.planning.graph import CRITERIA, METAL, TIME, Graph
from kelbrast.core.planning.rules import Rule
from kelbrast.core.planning.wishes import narrow
from kelbrast.core.surface.face import Wish

Places = np.ndarray[tuple[int], np.dtype[np.intp]]
_SLACK = 1 + 1e-9


@dataclass(frozen=True, slots=True)
class Route:
    """Tool nodes in order, the totals by `CRITERIA` (s, m, money, count), and how many labels were kept for it."""

    nodes: tuple[int, ...]
    totals: Reals
    kept: int = 0


@dataclass(frozen=True, slots=True)
class Search:
    """What to look for: the aim, the metal limit (m, infinite for none), the habits, rules that are lifted, and a wish."""

    aim: str = "time"
    limit: float = np.inf
    ratio: float = np.inf
    lifted: frozenset[Rule] = frozenset()
    handover: str = "free"
    wish: Wish = field(default_factory=Wish)


def open_ways(graph: Graph, search: Search) -> tuple[Flags, Flags]:
    """The steps that may be taken and the nodes where a route may end, within the habits and the wish."""
    return narrow(allowed_steps(graph, search), allowed_ends(graph, search), graph.tools, search.wish)


def allowed_steps(graph: Graph, search: Search) -> Flags:
    """(n, n): which steps may be taken under the rules that are not lifted."""
    allowed = graph.passable & (graph.ratio <= search.ratio * _SLACK) & ~graph.handover[search.handover]
    for rule, forbids in graph.rules.items():
        if rule not in search.lifted:
            allowed &= ~forbids
    return allowed


def allowed_ends(graph: Graph, search: Search) -> Flags:
    """(n,): where a route may end under the rules that are not lifted."""
    ends = np.ones(len(graph.ra), dtype=bool)
    for rule, may_end in graph.ends.items():
        if rule not in search.lifted:
            ends &= may_end
    ends[0] &= bool(np.isfinite(graph.ra[0]))  # damage is never a finish
    return ends


def best_route(graph: Graph, search: Search) -> Route | None:
    """The best route for the aim, or None when there is none."""
    steps, ends = open_ways(graph, search)
    limit = np.inf if "metal" in search.lifted else search.limit * _SLACK
    ahead = _cheapest_ahead(graph.values, steps, ends, _criteria(search.aim))
    if not ahead.leads_to_an_end(0) or ahead.totals[0, METAL] <= limit:
        return ahead.route()
    sparing = _cheapest_ahead(graph.values, steps, ends, _criteria("metal"))
    if sparing.totals[0, METAL] > limit:
        return None
    return _within_limit(graph.values, steps, ends, search.aim, limit, ahead, sparing)


def least_ahead(values: Reals, steps: Flags, ends: Flags) -> Reals:
    """(n, criteria): the least of every criterion by itself from each node to an end, infinite where no end is reached."""
    before, after = np.nonzero(steps)
    return np.stack([_least(each[before, after], before, after, ends) for each in values], axis=1)


def reachable(graph: Graph, search: Search) -> Flags:
    """(n,): which nodes can be reached within the limit."""
    metal = np.where(allowed_steps(graph, search), graph.values[METAL], np.inf)
    limit = np.inf if "metal" in search.lifted else search.limit * _SLACK
    spent = np.full(len(graph.ra), np.inf)
    spent[0] = 0.0
    for node in range(1, len(spent)):
        spent[node] = (spent[:node] + metal[:node, node]).min()
    within: Flags = np.isfinite(spent) & (spent <= limit)
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


def _cheapest_ahead(values: Reals, steps: Flags, ends: Flags, order: list[int]) -> _Ahead:
    """By the first criterion of the order; of the steps that tie in it to the last bit, by the next, and so on."""
    before, after = np.nonzero(steps & ~ends[:, None])  # a route stops at the first node where it may
    # Two routes of the same time to the last bit are the same route; in everything else they often tie.
    for criterion in order[:1] if order[0] == TIME else order:
        ways = values[criterion, before, after]
        cost = _least(ways, before, after, ends)
        best = (ways + cost[after] <= cost[before]) & np.isfinite(cost[before])
        before, after = before[best], after[best]
    first = _first_of_each(before)
    here, there = before[first], after[first]
    totals = np.where(ends[:, None], np.zeros((len(ends), len(CRITERIA))), np.inf)
    step = values[:, here, there].T
    for _ in range(len(ends)):  # no route has more steps
        ahead = step + totals[there]
        if np.array_equal(ahead, totals[here]):
            break
        totals[here] = ahead
    following = np.full(len(ends), -1, dtype=np.intp)
    following[here] = there
    return _Ahead(totals, following)


def _first_of_each(before: Places) -> Places:
    """Where each node first stands in an ascending list of them."""
    new: Flags = np.ones(len(before), dtype=bool)
    new[1:] = before[1:] != before[:-1]
    return np.flatnonzero(new)


def _least(ways: Reals, before: Places, after: Places, ends: Flags) -> Reals:
    """(n,): the least sum of `ways` from every node to an end, infinite for none: relaxed until nothing gets better.

    Steps only lead to later nodes, so that is after as many rounds as the longest of the best routes has steps, and never
    after more than there are nodes.

    Args:
        ways: (steps,) what each step costs, with the nodes `before` (ascending) and `after` it.
    """
    cost = np.where(ends, 0.0, np.inf)
    if len(ways) == 0:
        return cost
    begins = _first_of_each(before)
    here = before[begins]
    for _ in range(len(ends)):
        better = np.minimum(cost[here], np.minimum.reduceat(ways + cost[after], begins))
        if np.array_equal(better, cost[here]):
            break
        cost[here] = better
    return cost


def _within_limit(values: Reals, steps: Flags, ends: Flags, aim: str, limit: float, ahead: _Ahead, sparing: _Ahead) -> Route:
    order = _criteria(aim)
    at_most = sparing.totals[0, order[0]] * _SLACK
    labels = _Labels()
    for node in range(1, len(ends)):
        if not ahead.leads_to_an_end(node):
            continue
        before = np.flatnonzero(steps[labels.node, node])
        totals = labels.totals[before] + values[:, labels.node[before], node].T
        promising = np.flatnonzero(
            (totals[:, METAL] + sparing.totals[node, METAL] <= limit)
            & (totals[:, order[0]] + ahead.totals[node, order[0]] <= at_most)
        )
        if promising.size:
            kept = promising[_undominated(totals[promising], order)]
            labels.add(node, before[kept], totals[kept])
    at_end = np.flatnonzero(ends[labels.node])
    winner = int(at_end[_ranked(labels.totals[at_end], order)[0]])
    return Route(labels.way_to(winner), labels.totals[winner].copy(), len(labels.node))


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
    """Indices of the labels that no other beats both in the aim's order and in metal."""
    ranked = _ranked(totals, order)
    metal = totals[ranked, METAL]
    least_before = np.concatenate([[np.inf], np.minimum.accumulate(metal)[:-1]])
    kept: Places = ranked[metal < least_before]
    return kept


def _ranked(totals: Reals, order: list[int]) -> Places:
    """Indices from best to worst."""
    return np.lexsort([totals[:, k] for k in reversed(order)])


def _criteria(aim: str) -> list[int]:
    """The aim first, ties by time, then by metal."""
    first = CRITERIA.index(aim)
    return [first, *(k for k in (TIME, METAL) if k != first)]
