"""The front: exact against brute force, and holding the best of every aim."""

from itertools import combinations, pairwise

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kelbrast.core.catalogue.materials import material, materials
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.planning.face_plan import graph_of
from kelbrast.core.planning.fit import Place, fits
from kelbrast.core.planning.front import front, non_dominated
from kelbrast.core.planning.graph import CRITERIA, METAL, Graph, build_graph
from kelbrast.core.planning.job import AIMS
from kelbrast.core.planning.search import Search, allowed_ends, allowed_steps, best_route
from making import UM, face, job

racks = st.lists(st.sampled_from(sorted(tools())), min_size=1, max_size=7, unique=True).map(tuple)


def every_route(graph: Graph, search: Search) -> list[np.ndarray]:
    allowed, ends = allowed_steps(graph, search), allowed_ends(graph, search)
    found = []
    for count in range(len(graph.ra)):
        for chosen in combinations(range(1, len(graph.ra)), count):
            path = (0, *chosen)
            if ends[path[-1]] and all(allowed[a, b] for a, b in pairwise(path)):
                totals = sum((graph.values[:, a, b] for a, b in pairwise(path)), np.zeros(len(CRITERIA)))
                if totals[METAL] <= search.limit * (1 + 1e-9):
                    found.append(totals)
    return found


@settings(max_examples=120, deadline=None)
@given(racks, st.sampled_from(sorted(materials())), st.sampled_from(["bright", "satin", "N5", "wipes-clean"]),
       st.floats(0.3, 200), st.one_of(st.none(), st.floats(5, 600)))  # fmt: skip
def test_equals_brute_force(rack, stuff, want, depth, limit) -> None:
    one = face(want, depth=depth)
    graph = build_graph(one, job(stuff, one), fits(material(stuff), Place.of(one, job(stuff, one)), rack))
    search = Search(limit=np.inf if limit is None else limit * UM)
    made, all_routes = non_dominated(graph, search), every_route(graph, search)
    for route in made.routes:  # nothing beats a route of the front
        assert not any(
            (other < route.totals * (1 - 1e-8)).any() and (other <= route.totals * (1 + 1e-8)).all() for other in all_routes
        )
    for other in all_routes:  # and every route is beaten or matched by one of the front
        assert any((route.totals <= other * (1 + 1e-8) + 1e-15).all() for route in made.routes)


def test_the_best_of_every_aim_is_on_the_front() -> None:
    one = face("mirror", depth=14, worst=20, limit_um=120)
    planned = job("naval-brass", one, habit="long-steps")
    graph = graph_of(one, planned)
    assert graph is not None
    made = front(graph, planned)
    assert len(made.routes) > 5
    assert made.pruned > made.kept
    for at, aim in enumerate(AIMS):
        best = best_route(graph, Search(aim=aim, limit=one.may_come_off))
        assert best is not None
        assert np.isclose(min(route.totals[at] for route in made.routes), best.totals[at])
    times = [route.totals[0] for route in made.routes]
    assert times == sorted(times)
