"""The search is exact: brute force on small racks, and the promises that must always hold."""

from dataclasses import replace
from itertools import combinations, pairwise

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import AIMS, HABITS
from kelbrast.core.planning.face.face_plan import plan_face
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import StepFigures, step_figures
from kelbrast.core.planning.kernel.search import CRITERIA, METAL, TIME
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face
from making import UM, face, job

racks = st.lists(st.sampled_from(sorted(tools())), min_size=1, max_size=7, unique=True).map(tuple)
stuffs = st.sampled_from(sorted(materials()))
wants = st.sampled_from(["mirror", "bright", "satin", "brushed-fine", "paint-ready", "N5", "wipes-clean"])
depths = st.floats(0.3, 300)
limits = st.one_of(st.none(), st.floats(1, 600))


def brute_force(graph: StepFigures, search: RouteRequest) -> tuple[float, ...] | None:
    """The best (aim, time, metal) over every descending sequence of tools."""
    table = step_table(graph, search)
    order = [CRITERIA.index(search.objective), TIME, METAL]
    best = None
    nodes = range(1, graph.surfaces.count)
    for count in range(graph.surfaces.count):
        for chosen in combinations(nodes, count):
            path = (0, *chosen)
            if not table.ends[path[-1]] or not all(table.steps[a, b] for a, b in pairwise(path)):
                continue
            totals = sum((graph.values[:, a, b] for a, b in pairwise(path)), np.zeros(len(CRITERIA)))
            if totals[METAL] > search.limit * (1 + 1e-9):
                continue
            key = tuple(float(totals[k]) for k in order)
            best = key if best is None or key < best else best
    return best


@settings(max_examples=many(50))
@given(racks, stuffs, wants, depths, limits, st.sampled_from(sorted(AIMS)), st.sampled_from(sorted(HABITS)))
def test_equals_brute_force(rack, stuff, want, depth, limit, aim, habit) -> None:
    one = face(want, depth=depth)
    graph = step_figures(one, job(stuff, one), tools_on_face(ToolContext.of(one, job(stuff, one, rack=rack))))
    search = RouteRequest(objective=aim, limit=np.inf if limit is None else limit * UM, habit=habit)
    route, brute = best_route(graph, search), brute_force(graph, search)
    found = None if route is None else [route.totals[CRITERIA.index(aim)], route.totals[TIME], route.totals[METAL]]
    assert (found is None) == (brute is None)
    np.testing.assert_allclose(found or [], brute or [], rtol=1e-9)


def worth(plan) -> float:
    return plan.seconds if plan.possible else np.inf


@settings(max_examples=many(25))
@given(racks, racks, stuffs, wants, depths, limits)
def test_more_tools_are_never_worse(rack, more, stuff, want, depth, limit) -> None:
    one = face(want, depth=depth, limit_um=limit)
    planned = job(stuff, one, habit="long-steps", rack=rack)
    larger = replace(planned, rack=tuple(dict.fromkeys(rack + more)))
    assert worth(plan_face(one, larger)) <= worth(plan_face(one, planned)) * (1 + 1e-9)


@settings(max_examples=many(25))
@given(stuffs, wants, depths, st.floats(1, 600), st.floats(0.1, 1))
def test_a_tighter_limit_is_never_better(stuff, want, depth, limit, share) -> None:
    loose, tight = (face(want, depth=depth, limit_um=limit * s) for s in (1, share))
    habit = {"habit": "long-steps"}
    assert worth(plan_face(tight, job(stuff, tight, **habit))) >= worth(plan_face(loose, job(stuff, loose, **habit))) * (
        1 - 1e-9
    )


@settings(max_examples=many(20))
@given(stuffs, wants, depths, st.floats(1, 4), limits)
def test_a_deeper_worst_case_is_never_cheaper(stuff, want, depth, factor, limit) -> None:
    shallow = face(want, depth=depth, limit_um=limit)
    deep = face(want, depth=depth, worst=depth * factor, limit_um=limit)
    habit = {"habit": "long-steps"}
    assert worth(plan_face(deep, job(stuff, deep, **habit))) >= worth(plan_face(shallow, job(stuff, shallow, **habit))) * (
        1 - 1e-9
    )


@settings(max_examples=many(25))
@given(racks, stuffs, wants, depths, limits, st.sampled_from(["every-grade", "double-up", "long-steps"]))
def test_every_step_meets_what_the_one_before_left(rack, stuff, want, depth, limit, habit) -> None:
    one = face(want, depth=depth, limit_um=limit)
    plan = plan_face(one, job(stuff, one, habit=habit, rack=rack))
    at = depth * UM
    for step in plan.steps:
        assert np.isclose(step.marks.before, at)
        assert np.isclose(step.marks.layer, step.marks.clearance * step.marks.before)
        reaches = step.tool.reaches_depth
        assert reaches is None or step.marks.before <= reaches * (1 + 1e-9)
        mark = step.tool.carrier.running.marked_limit
        assert mark is None or step.on_face.setting.surface <= mark * (1 + 1e-9)
        at = step.marks.after
    assert np.isclose(plan.metal, sum(step.marks.layer for step in plan.steps))
    assert limit is None or plan.metal <= limit * UM * (1 + 1e-6)
