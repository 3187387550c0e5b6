"""The search against outside shortest-path values and an independent program."""

import networkx
import numpy as np
import pytest

from kelbrast.core.planning.fit import Place, fits
from kelbrast.core.planning.graph import CRITERIA, TIME, Graph, build_graph
from kelbrast.core.planning.search import Search, allowed_ends, allowed_steps, best_route
from making import face, job


def bare_graph(size: int, weights: dict[tuple[int, int], float]) -> Graph:
    """A graph of plain weights: only what the search reads is filled in."""
    values = np.zeros((len(CRITERIA), size, size))
    passable = np.zeros((size, size), dtype=bool)
    for (a, b), weight in weights.items():
        values[TIME, a, b] = weight
        passable[a, b] = True
    last = np.arange(size) == size - 1
    empty = np.zeros((size, size))
    return Graph(
        face=None, fits=(), ra=np.arange(size, dtype=float), depth_worst=empty[0], depth_likely=empty[0], deepest=empty[0], clearance=empty[0],
        layer=empty, likely_layer=empty, hardness=1e9, values=values, cut=empty, fresh=empty, used=empty, worn=empty, warm=None,
        rests=empty, passable=passable, rules={}, ends={"lay": last}, ratio=empty, handover={"free": np.zeros((size, size), dtype=bool)}, own={},
    )  # fmt: skip


def test_shortest_path_of_the_60_node_graph() -> None:
    # networkx, scipy, CP-SAT and a plain loop agree on 166
    rng = np.random.default_rng(7)
    weights = {(i, j): float(rng.integers(1, 100)) for i in range(60) for j in range(i + 1, min(i + 8, 60))}
    route = best_route(bare_graph(60, weights), Search())
    assert route is not None
    assert route.totals[TIME] == 166


@pytest.mark.parametrize("stuff", ["naval-brass", "stainless-304", "acrylic"])
def test_the_starter_rack_against_networkx(stuff: str) -> None:
    one = face("bright", depth=30)
    planned = job(stuff, one)
    graph = build_graph(one, planned, fits(planned.material, Place.of(one, planned), None))
    allowed, ends = allowed_steps(graph, Search()), allowed_ends(graph, Search())
    outside = networkx.DiGraph()
    outside.add_weighted_edges_from((a, b, graph.values[TIME, a, b]) for a, b in np.argwhere(allowed))
    outside.add_weighted_edges_from((int(end), "done", 0.0) for end in np.flatnonzero(ends))
    route = best_route(graph, Search())
    assert route is not None
    assert route.totals[TIME] == pytest.approx(networkx.dijkstra_path_length(outside, 0, "done"))
