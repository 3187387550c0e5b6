"""All routes of a face of which none is beaten in minutes, metal, cost and changes at once: exact, by label setting.

A label is a partial route with its totals. It is dropped when another at the same node is no worse in everything, or when
even the best imaginable way on (the least of every criterion by itself) is no better than a route that is known already.
"""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.arrays import Flags, Reals
from kelbrast.core.planning.face_plan import search_for, widest_jump
from kelbrast.core.planning.graph import CRITERIA, METAL, Graph
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.search import Route, Search, best_route, least_ahead, open_ways

_SLACK = 1 + 1e-9


@dataclass(frozen=True, slots=True)
class Front:
    """The routes that nothing beats, quickest first; labels kept and dropped on the way."""

    routes: tuple[Route, ...]
    kept: int
    pruned: int


def front(graph: Graph, job: Job) -> Front:
    """The front of a face within the job's habits; without them when no route keeps them."""
    kept = Search(limit=search_for(graph.face, job).limit, ratio=widest_jump(job.habit), handover=job.handover)
    if best_route(graph, kept) is None:
        kept = Search(limit=kept.limit)
    return non_dominated(graph, kept)


def non_dominated(graph: Graph, search: Search) -> Front:
    """Every route that no other beats in all of `CRITERIA`; of routes with the same totals, one."""
    steps, ends = open_ways(graph, search)
    ahead = least_ahead(graph.values, steps, ends)
    limit = search.limit * _SLACK
    # A node that no route leads on from has an infinite way ahead and never gets a label.
    at: list[_Labels | None] = [None] * len(ends)
    at[0] = _Labels(np.zeros((1, len(CRITERIA))), [()])
    done = _Labels(np.empty((0, len(CRITERIA))), [])
    if ends[0]:
        done = _Labels(np.zeros((1, len(CRITERIA))), [()])
    kept = pruned = 0
    for node in range(1, len(ends)):
        if not np.isfinite(ahead[node]).all():
            continue
        totals, nodes = _arriving(at, steps, graph.values, node)
        if not nodes:
            continue
        hopeful = np.flatnonzero((totals[:, METAL] + ahead[node, METAL] <= limit) & ~_beaten(totals + ahead[node], done.totals))
        best = hopeful[_undominated(totals[hopeful])]
        pruned += len(totals) - len(best)
        kept += len(best)
        at[node] = labels = _Labels(totals[best], [nodes[k] for k in best])
        if ends[node]:
            done = _merged(done, labels)
    order = np.lexsort(done.totals.T[::-1])
    return Front(tuple(Route(done.nodes[k], done.totals[k]) for k in order), kept, pruned)


@dataclass(frozen=True, slots=True)
class _Labels:
    totals: Reals
    nodes: list[tuple[int, ...]]


def _arriving(at: list[_Labels | None], steps: Flags, values: Reals, node: int) -> tuple[Reals, list[tuple[int, ...]]]:
    totals, nodes = [], []
    for before in np.flatnonzero(steps[:node, node]).tolist():
        labels = at[before]
        if labels is not None and labels.nodes:
            totals.append(labels.totals + values[:, before, node])
            nodes += [(*way, node) for way in labels.nodes]
    return (np.concatenate(totals) if totals else np.empty((0, len(CRITERIA)))), nodes


def _merged(done: _Labels, more: _Labels) -> _Labels:
    totals = np.concatenate([done.totals, more.totals])
    nodes = done.nodes + more.nodes
    best = _undominated(totals)
    return _Labels(totals[best], [nodes[k] for k in best])


def _beaten(totals: Reals, known: Reals) -> Flags:
    """Which rows some known row is no worse than in everything."""
    no_worse: Flags = np.all(known[None, :, :] <= totals[:, None, :] * _SLACK, axis=2)
    beaten: Flags = np.any(no_worse, axis=1)
    return beaten


def _undominated(totals: Reals) -> np.ndarray[tuple[int], np.dtype[np.intp]]:
    """Indices of the rows that no other row is no worse than in everything; of equal rows, one."""
    order = np.lexsort(totals.T[::-1])
    kept = np.empty_like(totals)
    found: list[int] = []
    for index in order.tolist():
        row = totals[index]
        if not bool(np.any(np.all(kept[: len(found)] <= row * _SLACK, axis=1))):
            kept[len(found)] = row
            found.append(index)
    return np.array(found, dtype=np.intp)
