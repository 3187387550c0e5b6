"""The front: exact against brute force, and holding the best of every aim."""

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from enumerated import every_route
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import AIMS
from kelbrast.core.planning.face.face_plan import figures_of
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import step_figures
from kelbrast.core.planning.kernel.pareto import non_dominated
from kelbrast.core.planning.questions.choices import pareto_front
from kelbrast.core.tooling.tool_on_face import tools_on_face
from making import UM, face, job

racks = st.lists(st.sampled_from(sorted(tools())), min_size=1, max_size=7, unique=True).map(tuple)


@settings(max_examples=many(40))
@given(racks, st.sampled_from(sorted(materials())), st.sampled_from(["bright", "satin", "N5", "wipes-clean"]),
       st.floats(0.3, 200), st.one_of(st.none(), st.floats(5, 600)))  # fmt: skip
def test_equals_brute_force(rack, stuff, want, depth, limit) -> None:
    one = face(want, depth=depth)
    graph = step_figures(one, job(stuff, one, rack=rack), tools_on_face)
    search = RouteRequest(limit=np.inf if limit is None else limit * UM)
    table = step_table(graph, search)
    made = non_dominated(table)
    all_routes = [
        table.values[:, list(route)].sum(axis=1) + table.stopping[:, table.after[route[-1]] if route else 0]
        for route in every_route(table)
    ]
    for route in made.routes:  # nothing beats a route of the front
        assert not any(
            (other < route.totals * (1 - 1e-8)).any() and (other <= route.totals * (1 + 1e-8)).all() for other in all_routes
        )
    for other in all_routes:  # and every route is beaten or matched by one of the front
        assert any((route.totals <= other * (1 + 1e-8) + 1e-15).all() for route in made.routes)


def test_the_best_of_every_aim_is_on_the_front() -> None:
    one = face("mirror", depth=14, worst=20, limit_um=120)
    planned = job("naval-brass", one, habit="long-steps")
    graph = figures_of(one, planned)
    assert graph is not None
    made = pareto_front(graph, planned)
    assert len(made.routes) > 5
    assert made.pruned > made.kept
    for at, aim in enumerate(AIMS):
        best = best_route(graph, RouteRequest(objective=aim, limit=one.may_come_off))
        assert best is not None
        # The front is that of work and risk together; its routes are shown with the work alone.
        assert min(route.totals[at] for route in made.routes) <= best.totals[at] * (1 + 1e-9)
    times = [route.totals[0] for route in made.routes]
    assert times == sorted(times)
