"""The Pareto front of routes in minutes, metal, cost and changes: exact, by label setting from the ends.

A label is a way on from a node with its totals. It is dropped when another at the same node is no worse in everything, or when
even the best imaginable way to it (the least of every criterion by itself) makes no route that is any use.
"""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.planning.kernel.search import least_behind, search
from kelbrast.core.planning.kernel.step_table import CRITERIA, METAL, ROUNDING_SLACK, Route, StepTable
from kelbrast.core.validity import Flags, Places, Reals


@dataclass(frozen=True, slots=True)
class ParetoFront:
    """The best trade-offs, quickest first; labels kept and dropped on the way."""

    routes: tuple[Route, ...]
    kept: int
    pruned: int


def non_dominated(table: StepTable) -> ParetoFront:
    """Every route within the limits that no other beats in all of `CRITERIA`; of routes with the same totals, one."""
    stopping, behind = table.stopping.T, least_behind(table)
    bests = [route.totals for each in CRITERIA if (route := search(table, each)) is not None]
    if not bests:
        return ParetoFront((), 0, 0)
    known = np.array(bests)
    kept = pruned = 0
    at = [_Bundle(np.empty((0, len(CRITERIA))), [])] * len(table.ends)
    for node in range(len(table.ends) - 1, -1, -1):
        if not np.isfinite(behind[node]).all():
            continue
        totals, ways = _leaving(at, table, node)
        if table.ends[node]:
            totals, ways = np.concatenate([totals, stopping[None, node]]), [*ways, ()]
        if not ways:
            continue
        hopeful = np.flatnonzero(~_beaten(totals + behind[node], known))
        best = hopeful[_undominated(totals[hopeful])]
        pruned += len(totals) - len(best)
        kept += len(best)
        at[node] = _Bundle(totals[best], [ways[k] for k in best])
    done = at[0]
    routes = [
        Route(tuple(int(table.after[step]) for step in done.ways[k]), done.ways[k], done.totals[k])
        for k in np.lexsort(done.totals.T[::-1])
    ]
    return ParetoFront(tuple(routes), kept, pruned)


@dataclass(frozen=True, slots=True)
class _Bundle:
    totals: Reals
    ways: list[tuple[int, ...]]


def _leaving(at: list[_Bundle], table: StepTable, node: int) -> tuple[Reals, list[tuple[int, ...]]]:
    totals, ways = [np.empty((0, len(CRITERIA)))], []
    low, high = np.searchsorted(table.before, [node, node + 1])
    onward = table.onward[(table.onward >= low) & (table.onward < high)]
    for step in onward.tolist():
        labels = at[table.after[step]]
        may = np.flatnonzero(labels.totals[:, METAL] <= table.within[step])
        totals.append(labels.totals[may] + table.values[:, step])
        ways += [(step, *labels.ways[k]) for k in may]
    return np.concatenate(totals), ways


def _beaten(totals: Reals, known: Reals) -> Flags:
    """Which rows some known row is better than in something, and no worse than in everything."""
    no_worse: Flags = np.all(known[None, :, :] <= totals[:, None, :] * ROUNDING_SLACK, axis=2)
    better: Flags = np.any(known[None, :, :] * ROUNDING_SLACK < totals[:, None, :], axis=2)
    beaten: Flags = np.any(no_worse & better, axis=1)
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
