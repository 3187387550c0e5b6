"""Going back from a failed light check."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.face.face_plan import plan_face, work_out
from kelbrast.core.planning.questions.goback import go_back, with_mark
from making import UM, face, job, plan


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
    halfway = with_mark(one, 30 * UM, leaves=5 * UM, hardness=hardness)
    assert (halfway.found.likely, halfway.found.as_wanted) == (5 * UM, False)
    ended = with_mark(one, 30 * UM, leaves=0.1 * UM, hardness=hardness)
    assert ended.found.as_wanted
    assert ended.spots == halfway.spots
    found = back(one, depth=30)
    assert found.patch is not None
    marked = with_mark(one, 30 * UM, leaves=found.patch.face.found.worst or 0.0, hardness=hardness)
    planned = plan_face(marked, job("brass", one))
    assert planned.seconds == found.patch.seconds, "going back and a spot from the start agree"


@settings(max_examples=many(20))
@given(st.floats(0.2, 40), st.floats(1, 4), st.sampled_from(["brass", "stainless-304", "acrylic"]))
def test_a_deeper_mark_is_never_cheaper(depth: float, factor: float, stuff: str) -> None:
    one = face("bright", depth=40)
    shallow, deep = (back(one, depth=d, stuff=stuff, habit="long-steps").whole for d in (depth, depth * factor))
    worths = [work_out(made.face, job(stuff, made.face, habit="long-steps")).seconds_with_repeats for made in (shallow, deep)]
    assert worths[1] >= worths[0] * (1 - 1e-9)
