"""The best route through a graph of steps under a metal limit: exact label setting with dominance.

Nodes are visited from the deepest marks to the finest, so all steps go forwards. A label is a partial route with its
four totals; at a node, one label is dropped when another is no worse both in the aim (ties
broken by time, then by metal) and in metal. What is left at the ends contains the best route, because the order of
totals survives adding the same step to both.
"""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.planning.graph import CRITERIA, METAL, TIME, Flags, Graph, Reals
from kelbrast.core.planning.rules import Rule

Places = np.ndarray[tuple[int], np.dtype[np.intp]]


@dataclass(frozen=True, slots=True)
class Route:
    """Tool nodes in order, and the totals by `CRITERIA` (s, m, money, count)."""

    nodes: tuple[int, ...]
    totals: Reals
    kept: int


@dataclass(frozen=True, slots=True)
class Search:
    """What to look for: the aim, the metal limit (m, infinite for none), the widest jump, and rules that are lifted."""

    aim: str = "time"
    limit: float = np.inf
    ratio: float = np.inf
    lifted: frozenset[Rule] = frozenset()


def allowed_steps(graph: Graph, search: Search) -> Flags:
    """(n, n): which steps may be taken under the rules that are not lifted."""
    allowed = graph.passable & (graph.ratio <= search.ratio * (1 + 1e-9))
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
    ends = allowed_ends(graph, search)
    labels = _labels(graph, search)
    at_end = np.flatnonzero(ends[labels.node])
    if at_end.size == 0:
        return None
    order = _criteria(search.aim)
    winner = at_end[_best(labels.totals[at_end], order)[0]]
    nodes: list[int] = []
    at = int(winner)
    while labels.node[at] != 0:
        nodes.append(int(labels.node[at]))
        at = int(labels.before[at])
    return Route(tuple(reversed(nodes)), labels.totals[winner].copy(), len(labels.node))


def reachable(graph: Graph, search: Search) -> Flags:
    """(n,): which nodes can be reached within the limit."""
    found = np.zeros(len(graph.ra), dtype=bool)
    found[_labels(graph, search).node] = True
    return found


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
    def before(self) -> Places:
        return self._before[: self._count]

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


def _labels(graph: Graph, search: Search) -> _Labels:
    allowed = np.ascontiguousarray(allowed_steps(graph, search).T)
    limit = np.inf if "metal" in search.lifted else search.limit * (1 + 1e-9)
    order = _criteria(search.aim)
    labels = _Labels()
    for node in range(1, len(graph.ra)):
        before = np.flatnonzero(allowed[node][labels.node])
        if before.size == 0:
            continue
        totals = labels.totals[before] + graph.values[labels.node[before], node]
        if np.isfinite(limit):
            within = np.flatnonzero(totals[:, METAL] <= limit)
            kept = within[_undominated(totals[within], order)]
        else:
            kept = _best(totals, order)
        labels.add(node, before[kept], totals[kept])
    return labels


def _best(totals: Reals, order: list[int]) -> Places:
    """The index of the best label: without a metal limit no other can ever win."""
    return np.lexsort([totals[:, k] for k in reversed(order)])[:1]


def _undominated(totals: Reals, order: list[int]) -> Places:
    """Indices of the labels that no other beats both in the aim's order and in metal."""
    ranked = np.lexsort([totals[:, k] for k in reversed(order)])
    metal = totals[ranked, METAL]
    least_before = np.concatenate([[np.inf], np.minimum.accumulate(metal)[:-1]])
    kept: Places = ranked[metal < least_before]
    return kept


def _criteria(aim: str) -> list[int]:
    """The aim first, ties by time, then by metal."""
    first = CRITERIA.index(aim)
    return [first, *(k for k in (TIME, METAL) if k != first)]
