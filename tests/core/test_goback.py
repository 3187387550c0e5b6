"""Going back from a failed light check."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.face.face_plan import plan_face, work_out
from kelbrast.core.planning.questions.goback import Done, as_it_is, go_back
from making import UM, face, job, plan, spots


def back(one, depth: float, after: int = 1, stuff: str = "brass", **more):
    return go_back(job(stuff, one, **more), one, after=after, depth=depth * UM)


def test_the_way_on_starts_at_the_mark_and_reaches_the_finish() -> None:
    going = back(face("mirror", depth=20), depth=4, after=2)
    _, best = going.cheapest
    assert best.steps[0].marks.before == pytest.approx(4 * UM)
    assert best.steps[-1].on_face.ra <= (finish("mirror").ra_high or 0)


def test_a_place_is_quicker_than_a_large_face_and_a_brushed_one_is_gone_over_at_the_end() -> None:
    large = back(face("bright", depth=20, area=0.5), depth=4)
    assert large.patch is not None
    assert large.patch.seconds < large.whole.seconds
    assert large.cheapest[0] == "patch"
    brushed = back(face("brushed-fine", depth=20, area=0.5), depth=20).patch
    assert brushed is not None
    assert brushed.steps[0].zone is not None
    assert brushed.steps[-1].zone is None


def test_the_metal_taken_so_far_counts() -> None:
    one = face("mirror", depth=20, limit_um=32)
    planned = plan("brass", one)
    going = back(one, depth=8, after=len(planned.steps))
    assert not going.whole.possible
    assert going.whole.binding is not None
    assert going.whole.binding.rule == "metal"


def test_the_step_that_was_left_too_early_is_named() -> None:
    one = face("mirror", depth=20)
    steps = plan("brass", one).steps
    assert back(one, depth=steps[0].marks.after / UM, after=2).missed == 2
    assert back(one, depth=15, after=2).missed == 1
    assert back(one, depth=steps[1].marks.after / UM, after=2).missed is None


def test_a_mark_deeper_than_described_blames_no_step() -> None:
    one = face("mirror", depth=20)
    within, deeper = back(one, depth=20, after=2), back(one, depth=21, after=2)
    assert (within.missed, within.deeper) == (1, False)
    assert (deeper.missed, deeper.deeper) == (None, True)
    assert not back(one, depth=0.5, after=2).deeper


def test_accepting_says_whether_it_shows() -> None:
    assert back(face("mirror", depth=20), depth=1).shows
    assert not back(face("paint-ready", depth=60), depth=1).shows


@pytest.mark.parametrize(("after", "depth"), [(0, 1), (99, 1), (1, 0), (1, -2)])
def test_no_such_step_or_depth(after: int, depth: float) -> None:
    with pytest.raises(BadInput):
        back(face("mirror", depth=20), depth=depth, after=after)


def test_a_mark_is_a_spot_on_a_face_as_the_last_step_left_it() -> None:
    one = face("bright", depth=40, area=0.2)
    hardness = job("brass", one).material.hardness
    halfway = as_it_is(one, [Done(44 * UM, 5 * UM)], hardness=hardness, taken=44 * UM)
    assert (halfway.found.likely, halfway.found.as_wanted) == (5 * UM, False)
    assert as_it_is(one, [Done(44 * UM, 0.1 * UM)], hardness=hardness, taken=44 * UM).found.as_wanted
    found = back(one, depth=30)
    assert found.patch is not None
    left = plan_face(one, job("brass", one)).steps[0].marks.after
    mark = spots("scratches", 30, length_mm=30, width_mm=1)
    planned = plan_face(face("bright", depth=left / UM, area=0.2, spots=(mark,)), job("brass", one))
    assert planned.seconds == pytest.approx(found.patch.seconds), "going back and a spot from the start agree"


def test_before_the_pass_over_everything_the_rest_is_as_it_was_found() -> None:
    gouges = spots("scratches", 60, length_mm=80, width_mm=2, name="gouges")
    pits = spots("pits", 30, length_mm=20, width_mm=20, name="pits")
    one = face("brushed-fine", depth=3, area=0.9, limit_um=200, spots=(gouges, pits))
    now = as_it_is(one, [Done(66 * UM, 7 * UM, (("gouges", 0.02),))], hardness=2e9, taken=66 * UM)
    assert now.found == one.found
    assert now.limit == one.limit
    worked, waits = now.spots
    assert waits == pits
    assert (worked.length, worked.width) == pytest.approx((0.12, 0.042))
    assert (worked.found.worst, worked.gone) == pytest.approx((7 * UM, 66 * UM))


@settings(max_examples=many(20))
@given(st.floats(0.2, 40), st.floats(1, 4), st.sampled_from(["brass", "stainless-304", "acrylic"]))
def test_a_deeper_mark_is_never_cheaper(depth: float, factor: float, stuff: str) -> None:
    one = face("bright", depth=40)
    shallow, deep = (back(one, depth=d, stuff=stuff, habit="long-steps").whole for d in (depth, depth * factor))
    worths = [work_out(made.face, job(stuff, made.face, habit="long-steps")).seconds_with_repeats for made in (shallow, deep)]
    assert worths[1] >= worths[0] * (1 - 1e-9)
