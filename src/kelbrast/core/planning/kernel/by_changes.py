"""The quickest route with no more than so many changes, for every number of them: exact, by dynamic programming."""

import numpy as np

from kelbrast.core.arrays import SAME
from kelbrast.core.planning.kernel.step_table import CHANGES, TIME, Route, StepTable


def quickest_by_changes(table: StepTable, most: int) -> tuple[Route, ...]:
    """Routes that no other beats in time and changes at once, quickest first, with at most so many changes; no metal limit.

    Equation: `t_k(i) = min over j of t(i, j) + t_(k - c(i, j))(j)`, k changes to go from node i.
    """
    count = len(table.ends)
    left = np.arange(most + 1)[:, None]
    ahead = np.full((most + 1, count), np.inf)
    following = np.full((most + 1, count), -1, dtype=np.intp)
    ahead[:, table.ends] = 0.0
    for node in range(count - 1, -1, -1):
        after = np.flatnonzero(table.steps[node])
        if table.ends[node] or not after.size:
            continue
        spare = left - table.values[CHANGES, node, after].astype(np.intp)[None, :]
        ways = table.values[TIME, node, after] + np.where(spare >= 0, ahead[spare, after[None, :]], np.inf)
        best = np.argmin(ways, axis=1)
        ahead[:, node] = ways[left[:, 0], best]
        following[:, node] = after[best]
    found = []
    for changes in range(most, -1, -1):
        fewer = ahead[changes - 1, 0] if changes else np.inf
        if np.isfinite(ahead[changes, 0]) and ahead[changes, 0] < fewer * (1 - SAME):
            found.append(_route(table, following, changes))
    return tuple(found)


def _route(table: StepTable, following: np.ndarray, changes: int) -> Route:
    nodes: list[int] = []
    totals = np.zeros(len(table.values))
    node, spare = 0, changes
    while not table.ends[node]:
        after = int(following[spare, node])
        step = table.values[:, node, after]
        spare -= int(step[CHANGES])
        totals += step
        nodes.append(node := after)
    return Route(tuple(nodes), totals)
