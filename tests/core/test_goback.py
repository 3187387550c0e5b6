"""Going back from a failed light check."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.face.face_plan import work_out
from kelbrast.core.planning.questions.goback import go_back, patch_area
from making import UM, face, job, plan


def back(one, depth: float, after: int = 1, stuff: str = "brass", **more):
    return go_back(job(stuff, one, **more), one, after=after, depth=depth * UM)


def test_the_way_on_starts_at_the_mark_and_reaches_the_finish() -> None:
    going = back(face("mirror", depth=20), depth=4, after=2)
    _, best = going.cheapest
    assert best.steps[0].marks.before == pytest.approx(4 * UM)
    assert best.steps[-1].on_face.ra <= (finish("mirror").ra_high or 0)


def test_a_patch_is_quicker_than_a_large_face_and_never_offered_on_a_brushed_one() -> None:
    large = back(face("bright", depth=20, area=0.5), depth=4)
    assert large.patch is not None
    assert large.patch.seconds < large.whole.seconds
    assert large.cheapest[0] == "patch"
    assert back(face("brushed-fine", depth=20, area=0.05), depth=4).patch is None


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


def test_a_patch_grows_with_the_depth() -> None:
    assert patch_area(500 * UM) == pytest.approx(np.pi * 0.05**2)  # 1:100
    assert patch_area(1 * UM) == pytest.approx(25e-4)


@settings(max_examples=many(20))
@given(st.floats(0.2, 40), st.floats(1, 4), st.sampled_from(["brass", "stainless-304", "acrylic"]))
def test_a_deeper_mark_is_never_cheaper(depth: float, factor: float, stuff: str) -> None:
    one = face("bright", depth=40)
    shallow, deep = (back(one, depth=d, stuff=stuff, habit="long-steps").whole for d in (depth, depth * factor))
    worths = [work_out(made.face, job(stuff, made.face, habit="long-steps")).seconds_with_repeats for made in (shallow, deep)]
    assert worths[1] >= worths[0] * (1 - 1e-9)
