"""Schools of the trade, worn wheels, and machines as they are drawn."""

import math

import pytest

from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.tools import uses
from kelbrast.core.planning.questions.choices import choices
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.reference.loader import constant
from making import UM, face, job, plan


def test_fine_paper_then_a_short_polish() -> None:
    made = plan("brass", face("mirror", depth=30), handover="fine-paper")
    assert made.habit_note is None
    paper = plan("brass", face("mirror", after="P1200")).steps[0].marks.before
    laws = [step.tool.carrier.cutting.wear_law for step in made.steps]
    first = laws.index("compound")
    assert made.steps[first - 1].marks.after <= paper * (1 + 1e-9)


def test_early_wheel_with_a_cutting_bar() -> None:
    made = plan("brass", face("mirror", depth=30), handover="early-wheel")
    backed = [step.tool.grain for step in made.steps if step.tool.carrier.cutting.backed]
    assert all(grain >= constant("handover.early_wheel").si * (1 - 1e-9) for grain in backed)


def test_a_school_that_the_rack_can_not_keep_is_said() -> None:
    made = plan("brass", face("bright", depth=30), handover="fine-paper", rack=("paper-p320", "sisal-tripoli", "felt-white"))
    assert made.possible
    assert "paper" in str(made.habit_note)


def test_the_low_speed_bench_runs_half_and_takes_longer() -> None:
    rack = ("bench-buffer-variable", "sisal-tripoli", "felt-white")
    usual, low = (plan("brass", face("bright", after="P800"), rack=rack, bench_speed=speed) for speed in ("usual", "low"))
    assert low.steps[0].on_face.setting.surface == pytest.approx(usual.steps[0].on_face.setting.surface / 2, rel=0.02)
    assert low.seconds > usual.seconds


def test_every_school_is_costed_as_its_plan_says() -> None:
    one = face("mirror", depth=30)
    made = choices(job("brass", one))
    for way in (*made.by_habit, *made.by_handover, *made.by_bench_speed):
        own = plan_job(job("brass", one, habit=way.habit, handover=way.handover, bench_speed=way.bench_speed, aim=way.aim))
        assert way.seconds == pytest.approx(own.seconds_each)


def test_a_worn_wheel_slows_down_and_never_turns_faster_than_a_new_one() -> None:
    """A wheel worn from 250 to 200 mm loses a fifth of its surface speed: v = pi D n, hand calculation."""
    rack = ("bench-buffer", "loose-white")
    new = plan("brass", face("bright", after="P2500"), rack=rack).steps[0].on_face
    worn = plan("brass", face("bright", after="P2500"), rack=rack, diameters=(("loose-white", 0.16),)).steps[0].on_face
    assert worn.setting.surface == pytest.approx(0.8 * new.setting.surface)
    assert new.drive.marked is not None
    assert worn.drive.marked == pytest.approx(0.8 * new.drive.marked)


def test_machines_can_be_drawn() -> None:
    drawn = {key: one.drawing for key, one in machines().items() if one.drawing is not None}
    assert len(drawn) >= 12
    for drawing in drawn.values():
        low, high = drawing.touch
        assert 0 <= low < high <= 2 * math.pi + 1e-9
        assert drawing.view in ("side", "face")
        assert drawing.turns in ("clockwise", "anticlockwise")
    buffer = drawn["bench-buffer"]
    # The worker stands on the left and the wheel turns anticlockwise, so its left side runs down: the touch lies below left.
    assert buffer.worker == pytest.approx(math.pi)
    assert math.pi < buffer.touch[0] < buffer.touch[1] < 1.5 * math.pi


def test_uses_lead_to_finishes_with_a_reason() -> None:
    assert uses()["grips"].no_finer_than == "P320"
    assert uses()["painted"].finish == "paint-ready"
    assert all(str(use.reason).endswith(".") for use in uses().values())


def test_a_flat_face_that_reflects_is_not_hollowed_by_small_tools() -> None:
    flat = plan("acrylic", face("bright", depth=25, area=0.02))
    assert not any(step.tool.carrier.access.scallops for step in flat.steps)
    only_small = plan("acrylic", face("bright", depth=25, area=0.02), rack=("drum-p240", "flap-small-p240"))
    assert only_small.binding is not None
    assert only_small.binding.rule in ("reach", "not-fine-enough")


def test_a_file_skates_on_hardened_steel() -> None:
    made = plan("tool-steel-hardened", face("paint-ready", depth=400 * UM / UM), rack=("file-smooth",))
    assert made.binding is not None
    assert made.binding.rule == "too-soft"
    assert "skates" in str(made.binding.reason)
