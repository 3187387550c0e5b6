"""The quickest route with no more than so many changes, for every number of them: exact, by dynamic programming."""

import numpy as np

from kelbrast.core.arrays import SAME, Reals
from kelbrast.core.planning.kernel.step_table import CHANGES, TIME, Route, StepTable


def quickest_by_changes(table: StepTable, most: int) -> tuple[Route, ...]:
    """Routes that no other beats in time and changes at once, quickest first, with at most so many changes; no metal limit.

    Equation: `t_k(i) = min over j of t(i, j) + t_(k - c(i, j))(j)`, k changes to go from node i.
    """
    before, after = np.nonzero(table.steps & ~table.ends[:, None])
    left = np.arange(most + 1)[:, None]
    ahead = np.where(table.ends, 0.0, np.full((most + 1, len(table.ends)), np.inf))
    spare = left - table.values[CHANGES, before, after].astype(np.intp)
    seconds = np.where(spare >= 0, table.values[TIME, before, after], np.inf)
    place = np.maximum(spare, 0) * len(table.ends) + after  # in the flattened array
    begins = np.flatnonzero(np.diff(before, prepend=-1))
    here = before[begins]
    for _ in range(len(table.ends) if len(before) else 0):  # no route has more steps
        better = np.minimum.reduceat(seconds + ahead.take(place), begins, axis=1)
        if np.array_equal(better, ahead[:, here]):
            break
        ahead[:, here] = better
    found = []
    for changes in range(most, -1, -1):
        fewer = ahead[changes - 1, 0] if changes else np.inf
        if np.isfinite(ahead[changes, 0]) and ahead[changes, 0] < fewer * (1 - SAME):
            found.append(_route(table, ahead, changes))
    return tuple(found)


def _route(table: StepTable, ahead: Reals, changes: int) -> Route:
    nodes: list[int] = []
    totals = np.zeros(len(table.values))
    node, spare = 0, changes
    while not table.ends[node]:
        onward = np.flatnonzero(table.steps[node])
        less = spare - table.values[CHANGES, node, onward].astype(np.intp)
        seconds = np.where(less >= 0, table.values[TIME, node, onward] + ahead[np.maximum(less, 0), onward], np.inf)
        after = int(onward[seconds.argmin()])
        step = table.values[:, node, after]
        spare -= int(step[CHANGES])
        totals += step
        nodes.append(node := after)
    return Route(tuple(nodes), totals)
