"""The search is exact: brute force on small racks, and the promises that must always hold."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from enumerated import every_route
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import AIMS, HABITS, HANDOVERS, Job
from kelbrast.core.planning.face.face_plan import plan_face, work_out
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import StepFigures, step_figures
from kelbrast.core.planning.kernel.step_table import CRITERIA
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.tool_on_face import tools_on_face
from making import UM, face, job

racks = st.lists(st.sampled_from(sorted(tools())), min_size=1, max_size=7, unique=True).map(tuple)
stuffs = st.sampled_from(sorted(materials()))
wants = st.sampled_from(["mirror", "bright", "satin", "brushed-fine", "paint-ready", "N5", "wipes-clean"])
depths = st.floats(0.3, 300)
limits = st.one_of(st.none(), st.floats(1, 600))


def brute_force(graph: StepFigures, search: RouteRequest) -> float | None:
    """The least of the aim, with the repeats to expect of every step and the risk of the end, over every route."""
    table = step_table(graph, search)
    return min((weighed(graph, search, table.origins[list(route)].tolist()) for route in every_route(table)), default=None)


def weighed(graph: StepFigures, search: RouteRequest, steps: Sequence[int]) -> float:
    aim, repeats = CRITERIA.index(search.objective), graph.repeats(search.habit, search.handover)
    last = graph.graph.after[steps[-1]] if steps else 0
    return sum(float(graph.values[aim, step] * (1 + repeats[step])) for step in steps) + float(graph.stop[aim, last])


@settings(max_examples=many(50))
@given(
    racks,
    stuffs,
    wants,
    depths,
    limits,
    st.sampled_from(sorted(AIMS)),
    st.sampled_from(sorted(HABITS)),
    st.sampled_from(sorted(HANDOVERS)),
)
def test_equals_brute_force(rack, stuff, want, depth, limit, aim, habit, handover) -> None:
    one = face(want, depth=depth)
    graph = step_figures(one, job(stuff, one, rack=rack), tools_on_face)
    search = RouteRequest(objective=aim, limit=np.inf if limit is None else limit * UM, habit=habit, handover=handover)
    route, brute = best_route(graph, search), brute_force(graph, search)
    found = None if route is None else weighed(graph, search, route.steps)
    assert (found is None) == (brute is None)
    # Metal and changes are weighed with a millionth of the time, which decides between routes that tie.
    np.testing.assert_allclose(found or 0.0, brute or 0.0, rtol=1e-9 if aim in ("time", "cost") else 1e-4)


def worth(face: Face, planned: Job) -> float:
    """What a route is chosen by: its work, the repeats to expect and the risk of its end."""
    return work_out(face, planned).seconds_with_repeats


@settings(max_examples=many(25))
@given(racks, racks, stuffs, wants, depths, limits)
def test_more_tools_are_never_worse(rack, more, stuff, want, depth, limit) -> None:
    one = face(want, depth=depth, limit_um=limit)
    planned = job(stuff, one, habit="long-steps", rack=rack)
    larger = replace(planned, rack=tuple(dict.fromkeys(rack + more)))
    assert worth(one, larger) <= worth(one, planned) * (1 + 1e-9)


@settings(max_examples=many(25))
@given(stuffs, wants, depths, st.floats(1, 600), st.floats(0.1, 1))
def test_a_tighter_limit_is_never_better(stuff, want, depth, limit, share) -> None:
    loose, tight = (face(want, depth=depth, limit_um=limit * s) for s in (1, share))
    habit = {"habit": "long-steps"}
    assert worth(tight, job(stuff, tight, **habit)) >= worth(loose, job(stuff, loose, **habit)) * (1 - 1e-9)


@settings(max_examples=many(20))
@given(stuffs, wants, depths, st.floats(1, 4), limits)
def test_a_deeper_worst_case_is_never_cheaper(stuff, want, depth, factor, limit) -> None:
    shallow = face(want, depth=depth, limit_um=limit)
    deep = face(want, depth=depth, worst=depth * factor, limit_um=limit)
    habit = {"habit": "long-steps"}
    assert worth(deep, job(stuff, deep, **habit)) >= worth(shallow, job(stuff, shallow, **habit)) * (1 - 1e-9)


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
