"""The Pareto front of routes in minutes, metal, cost and changes: exact, by label setting.

A label is a partial route with its totals. It is dropped when another at the same node is no worse in everything, or when
even the best imaginable way on (the least of every criterion by itself) is no better than a route that is known already.
"""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.planning.kernel.search import CRITERIA, METAL, ROUNDING_SLACK, Route, StepTable, least_ahead
from kelbrast.core.validity import Flags, Places, Reals


@dataclass(frozen=True, slots=True)
class ParetoFront:
    """The best trade-offs, quickest first; labels kept and dropped on the way."""

    routes: tuple[Route, ...]
    kept: int
    pruned: int


def non_dominated(table: StepTable, limit: float = np.inf) -> ParetoFront:
    """Every route within the limit (m) that no other beats in all of `CRITERIA`; of routes with the same totals, one."""
    values, steps, ends, stopping = table.values, table.onward, table.ends, table.stopping.T
    ahead = least_ahead(table)
    limit *= ROUNDING_SLACK
    # A node that no route leads on from has an infinite way ahead and never gets a label.
    at: list[_Bundle | None] = [None] * len(ends)
    at[0] = _Bundle(np.zeros((1, len(CRITERIA))), [()])
    done = _Bundle(np.empty((0, len(CRITERIA))), [])
    if ends[0]:
        done = _Bundle(stopping[:1].copy(), [()])
    kept = pruned = 0
    for node in range(1, len(ends)):
        if not np.isfinite(ahead[node]).all():
            continue
        totals, nodes = _arriving(at, steps, values, node)
        if not nodes:
            continue
        hopeful = np.flatnonzero((totals[:, METAL] + ahead[node, METAL] <= limit) & ~_beaten(totals + ahead[node], done.totals))
        best = hopeful[_undominated(totals[hopeful])]
        pruned += len(totals) - len(best)
        kept += len(best)
        at[node] = labels = _Bundle(totals[best], [nodes[k] for k in best])
        if ends[node]:
            done = _merged(done, _Bundle(labels.totals + stopping[node], labels.nodes))
    order = np.lexsort(done.totals.T[::-1])
    return ParetoFront(tuple(Route(done.nodes[k], done.totals[k]) for k in order), kept, pruned)


@dataclass(frozen=True, slots=True)
class _Bundle:
    totals: Reals
    nodes: list[tuple[int, ...]]


def _arriving(at: list[_Bundle | None], steps: Flags, values: Reals, node: int) -> tuple[Reals, list[tuple[int, ...]]]:
    totals, nodes = [], []
    for before in np.flatnonzero(steps[:node, node]).tolist():
        labels = at[before]
        if labels is not None and labels.nodes:
            totals.append(labels.totals + values[:, before, node])
            nodes += [(*way, node) for way in labels.nodes]
    return (np.concatenate(totals) if totals else np.empty((0, len(CRITERIA)))), nodes


def _merged(done: _Bundle, more: _Bundle) -> _Bundle:
    totals = np.concatenate([done.totals, more.totals])
    nodes = done.nodes + more.nodes
    best = _undominated(totals)
    return _Bundle(totals[best], [nodes[k] for k in best])


def _beaten(totals: Reals, known: Reals) -> Flags:
    """Which rows some known row is no worse than in everything."""
    no_worse: Flags = np.all(known[None, :, :] <= totals[:, None, :] * ROUNDING_SLACK, axis=2)
    beaten: Flags = np.any(no_worse, axis=1)
    return beaten


def _undominated(totals: Reals) -> Places:
    """Indices of the rows that no other row is no worse than in everything; of equal rows, one."""
    order = np.lexsort(totals.T[::-1])
    kept = np.empty_like(totals)
    found: list[int] = []
    for index in order.tolist():
        row = totals[index]
        if not bool(np.any(np.all(kept[: len(found)] <= row * ROUNDING_SLACK, axis=1))):
            kept[len(found)] = row
            found.append(index)
    return np.array(found, dtype=np.intp)
