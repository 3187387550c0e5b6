"""The search against outside shortest-path values and an independent program."""

import networkx
import numpy as np
import pytest

from enumerated import square_table
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import step_figures
from kelbrast.core.planning.kernel.search import search
from kelbrast.core.planning.kernel.step_table import CRITERIA, TIME, StepTable
from kelbrast.core.tooling.tool_on_face import tools_on_face
from making import face, job


def bare_table(size: int, weights: dict[tuple[int, int], float]) -> StepTable:
    """Steps of plain weights."""
    values = np.zeros((len(CRITERIA), size, size))
    steps = np.zeros((size, size), dtype=bool)
    for step, weight in weights.items():
        values[TIME][step] = weight
        steps[step] = True
    return square_table(values, steps, np.arange(size) == size - 1)


def test_shortest_path_of_the_60_node_graph() -> None:
    # networkx, scipy, CP-SAT and a plain loop agree on 166
    rng = np.random.default_rng(7)
    weights = {(i, j): float(rng.integers(1, 100)) for i in range(60) for j in range(i + 1, min(i + 8, 60))}
    route = search(bare_table(60, weights), "time")
    assert route is not None
    assert route.totals[TIME] == 166


@pytest.mark.parametrize("stuff", ["naval-brass", "stainless-304", "acrylic"])
def test_the_starter_rack_against_networkx(stuff: str) -> None:
    one = face("bright", depth=30)
    planned = job(stuff, one)
    graph = step_figures(one, planned, tools_on_face)
    table = step_table(graph, RouteRequest())
    outside = networkx.DiGraph()
    taken = np.flatnonzero(table.steps)
    outside.add_weighted_edges_from(zip(table.before[taken], table.after[taken], table.values[TIME, taken], strict=True))
    outside.add_weighted_edges_from((int(end), "done", 0.0) for end in np.flatnonzero(table.ends))
    route = best_route(graph, RouteRequest())
    assert route is not None
    assert route.totals[TIME] == pytest.approx(networkx.dijkstra_path_length(outside, 0, "done"))
