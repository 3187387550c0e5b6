"""What the person sets for a route is kept, or said to be out of reach; what if tells what it costs."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.face.face_plan import work_out
from kelbrast.core.planning.questions.whatif import what_if
from kelbrast.core.surface.face import Face, Wish
from making import face, job, plan


def used(made) -> list[str]:
    return [step.tool.id for step in made.steps]


def test_start_lock_and_leave_out_are_kept_and_cost_something() -> None:
    free = plan("brass", face("mirror", depth=20))
    start = plan("brass", face("mirror", depth=20, wish=Wish(start="paper-p240")))
    assert used(start)[0] == "paper-p240"
    lock = plan("brass", face("mirror", depth=20, wish=Wish(lock=("felt-white",))))
    assert "felt-white" in used(lock)
    without = plan("brass", face("mirror", depth=20, wish=Wish(leave_out=(used(free)[0],))))
    assert used(free)[0] not in used(without)
    assert all(made.seconds >= free.seconds and made.wish_note is None for made in (start, lock, without))


def test_a_route_set_out_in_full_is_taken_as_it_stands_with_the_marks_it_leaves() -> None:
    route = ("paper-p320", "loose-rouge")  # far too much for a loose wheel
    made = plan("brass", face("bright", depth=20, wish=Wish(route=route)))
    assert used(made) == list(route)
    assert made.marks_left > 100
    proper = plan("brass", face("bright", depth=20))
    assert proper.marks_left < 0.5


def test_what_can_not_be_kept_is_said() -> None:
    made = plan(
        "brass",
        face("mirror", depth=20, wish=Wish(start="fibre-p36", lock=("lap-1um",))),
        rack=("paper-p320", "paper-p800", "paper-p2000", "cloth-polishing"),
    )
    assert made.wish_note is not None
    assert made.possible


@settings(max_examples=many(20))
@given(st.sampled_from(sorted(tools())), st.sampled_from(["bright", "satin", "paint-ready"]))
def test_a_wish_is_never_quicker_than_no_wish(tool, want) -> None:
    def worth(face: Face) -> float:
        return work_out(face, job("mild-steel", face, habit="long-steps")).seconds_with_repeats

    free = worth(face(want, depth=25))
    for wish in (Wish(start=tool), Wish(lock=(tool,)), Wish(leave_out=(tool,))):
        made = plan("mild-steel", face(want, depth=25, wish=wish), habit="long-steps")
        assert worth(face(want, depth=25, wish=wish)) >= free * (1 - 1e-9)
        assert made.wish_note is not None or (tool in used(made)) == (wish.leave_out == ())


def test_what_if_says_what_the_changed_plan_says() -> None:
    one = face("mirror", depth=14, worst=20, area=0.018)
    whole = job("naval-brass", one)
    before = plan("naval-brass", one)
    for step in range(1, len(before.steps) + 1):
        found = what_if(one, whole, step=step)
        assert found
        for option in (*found[:3], *found[-3:]):
            made = plan("naval-brass", face("mirror", depth=14, worst=20, area=0.018, wish=option.wish))
            assert made.wish_note is None
            assert made.seconds == pytest.approx(option.seconds)
            assert option.more_seconds == pytest.approx(made.seconds - before.seconds)
            assert made.marks_left == pytest.approx(option.marks_left, abs=1e-9)


def test_leaving_a_step_out_leaves_marks_when_the_next_is_hurried() -> None:
    one = face("bright", after="P80", area=0.02)
    whole = job(
        "brass", one, rack=("paper-p180", "paper-p400", "paper-p800", "paper-p1500", "cloth-polishing"), habit="double-up"
    )
    left_out = [option for option in what_if(one, whole, step=2) if option.change == "leave-out"]
    assert left_out
    assert left_out[0].hurried is not None
    assert left_out[0].hurried > left_out[0].marks_left


def test_no_such_step() -> None:
    with pytest.raises(BadInput, match="step"):
        what_if(face("bright"), job("brass", face("bright")), step=9)


def test_the_stair_shows_the_marks_that_a_soft_wheel_does_not_reach() -> None:
    made = plan("brass", face("bright", depth=20, wish=Wish(route=("paper-p320", "loose-rouge"))))
    last = made.steps[-1]
    assert last.marks.stays > last.marks.after
    assert last.curve[-1][1] == pytest.approx(last.marks.stays)  # the curve ends where the old marks still are
    assert all(step.marks.stays == 0 for step in plan("brass", face("bright", depth=20)).steps)
