"""Plans that a practitioner would nod at: the right kind of start and finish, forbidden things absent."""

import itertools

import pytest

from kelbrast.core.catalogue.finishes import band, finishes
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import families, materials
from kelbrast.core.planning.whole.plan import order_of_work, plan_job
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import usable
from kelbrast.core.rules.habits import steepness
from kelbrast.core.rules.rule import REFUSALS
from kelbrast.core.tooling.tool_context import ToolContext
from making import UM, face, job, plan, spots

# Platings, glass and hard metal are worked by few carriers: the jobs of practice speak of them.
METALS = [
    key
    for key, one in materials().items()
    if one.family not in ("plastic", "coating") and families()[one.family].worked_by is None
]


@pytest.mark.parametrize("stuff", METALS)
@pytest.mark.parametrize("want", ["mirror", "bright", "satin", "brushed-fine", "paint-ready", "wipes-clean"])
def test_the_starter_rack_reaches_the_usual_finishes_on_every_metal(stuff: str, want: str) -> None:
    made = plan(stuff, face(want, depth=30, worst=45))
    assert made.possible, made.binding
    low, high = finishes()[want].ra_low or 0.0, finishes()[want].ra_high
    assert high is not None
    assert low <= made.steps[-1].on_face.ra * 1.000001
    assert made.steps[-1].on_face.ra <= high * 1.000001


@pytest.mark.parametrize("stuff", ["stainless-304", "brass", "aluminium-wrought", "mild-steel"])
def test_a_brushed_face_keeps_its_lay_and_never_ends_on_a_buff(stuff: str) -> None:
    made = plan(stuff, face("brushed-fine", depth=20))
    assert made.steps[-1].lay == "along"
    assert made.steps[-1].tool.carrier.cutting.wear_law != "compound"
    assert "one-way" in made.steps[-1].tool.carrier.cutting.lays


def test_a_satin_without_lay_has_none() -> None:
    made = plan("stainless-316", face("satin", depth=20))
    assert made.steps[-1].lay == "none"
    assert "none" in made.steps[-1].tool.carrier.cutting.lays


@pytest.mark.parametrize("stuff", ["clear-coat-2k", "acrylic", "brass"])
def test_ripple_is_levelled_by_something_firm(stuff: str) -> None:
    made = plan(stuff, face("bright", depth=8, kind="waviness"))
    assert made.steps[0].tool.carrier.cutting.levels


def test_ripple_with_only_soft_tools_is_not_possible() -> None:
    made = plan("acrylic", face("bright", depth=1, kind="waviness"), rack=("foam-p1500", "wool-rubbing", "cloth-polishing"))
    assert made.binding is not None
    assert made.binding.rule == "too-soft"
    assert "ripple" in str(made.binding.reason)


def test_a_grip_is_never_finer_than_its_grade() -> None:
    for grade in ("P80", "P180", "P320"):
        made = plan("tool-steel-hardened", face("grip", depth=60, no_finer_than=parse_grade(grade)))
        assert made.possible
        assert made.steps[-1].tool.grain >= parse_grade(grade).grain


def test_a_face_that_is_too_fine_is_given_tooth() -> None:
    made = plan("mild-steel", face("paint-ready", after="P600"))
    assert len(made.steps) == 1
    assert made.steps[0].marks.layer == pytest.approx(made.steps[0].marks.after)  # worked until the new marks cover it
    assert made.steps[0].marks.clearance > 2.6


def test_a_face_that_is_as_wanted_needs_nothing() -> None:
    made = plan("stainless-304", face("wipes-clean", after="P600"))
    assert made.possible
    assert made.steps == ()
    assert made.seconds == 0


def test_damage_is_never_a_finish() -> None:
    assert plan("brass", face("N12", depth=5)).steps


def test_plastics_are_never_worked_hot() -> None:
    for stuff in ("acrylic", "polycarbonate", "abs", "clear-coat-2k"):
        made = plan(stuff, face("bright", depth=30, thickness=0.003))
        assert all(step.on_face.working.stay >= 4 for step in made.steps)
        assert all(stuff not in ("abs",) or step.tool.carrier.id != "fibre" for step in made.steps)


def test_steel_bars_stay_off_silver() -> None:
    for step in plan("silver", face("mirror", depth=20)).steps:
        assert step.tool.keeps_clean("silver")


def test_contamination_binds_when_only_the_wrong_bar_is_there() -> None:
    made = plan("silver", face("mirror", after="P2500"), rack=("foam-p5000", "loose-green"))
    assert made.binding is not None
    assert made.binding.rule == "contamination"


def test_a_narrow_bore_binds_by_reach_with_the_radius_that_is_missing() -> None:
    made = plan("bronze", face("bright", depth=20, reach="inside", inside_radius=0.002))
    assert made.binding is not None
    assert made.binding.rule == "reach"
    assert "2 mm" in str(made.binding.reason)
    assert "4 mm" in str(made.binding.reason)  # the smallest that the rack has


def test_raised_metal_is_knocked_down_by_something_firm_and_takes_its_share() -> None:
    small, large = (
        plan("mild-steel", face("paint-ready", depth=10, spots=(spots("raised", 800, length_mm=50, width_mm=wide),)))
        for wide in (10, 100)
    )
    assert small.steps[0].tool.carrier.cutting.levels
    assert small.seconds < large.seconds


def test_inside_a_bore_ripple_is_levelled_by_a_point_or_said_to_be_out_of_reach() -> None:
    made = plan("bronze", face("N7", depth=12, kind="waviness", reach="inside", inside_radius=0.012))
    assert made.steps[0].tool.carrier.cutting.levels
    narrow = plan("bronze", face("satin", depth=12, kind="waviness", reach="inside", inside_radius=0.005))
    assert narrow.binding is None or "does not go in" in str(narrow.binding.reason)


def test_metal_binds_with_both_numbers() -> None:
    made = plan("bronze", face("bright", depth=40, worst=60, limit_um=30))
    assert made.binding is not None
    assert made.binding.rule == "metal"
    assert "66 µm" in str(made.binding.reason)  # 1.1 x 60
    assert "30 µm" in str(made.binding.reason)


def test_roughness_binds_at_both_ends() -> None:
    coarse = plan("brass", face("mirror", depth=20), rack=("paper-p180", "paper-p320"))
    fine = plan("brass", face("paint-ready", depth=20), rack=("paper-p800", "paper-p1200"))
    assert coarse.binding is not None
    assert fine.binding is not None
    assert {coarse.binding.rule, fine.binding.rule} == {"not-fine-enough"}
    assert "finest" in str(coarse.binding.reason)
    assert "coarse enough" in str(fine.binding.reason)


def test_lay_binds() -> None:
    made = plan("brass", face("satin", depth=20), rack=("belt-p240", "paper-p320"))
    assert made.binding is not None
    assert made.binding.rule == "lay"


def test_soft_wheels_alone_bind_as_too_soft() -> None:
    made = plan("brass", face("mirror", depth=20), rack=("loose-white", "sewn-tripoli"))
    assert made.binding is not None
    assert made.binding.rule == "too-soft"


def test_heat_binds() -> None:
    made = plan("abs", face("paint-ready", depth=20), rack=("belt-p240",))
    assert made.binding is not None
    assert made.binding.rule == "heat"
    assert "75 °C" in str(made.binding.reason)


def test_speed_binds_when_no_machine_turns_it_right() -> None:
    made = plan("stainless-304", face("paint-ready", depth=20), rack=("fibre-p80", "angle-grinder", "belt-p60", "bench-buffer"))
    assert made.possible  # the grinder suits the disc; the belt has no machine and is left out
    assert made.steps[0].tool.id == "fibre-p80"
    slow = plan("stainless-304", face("bright", after="P1200"), rack=("felt-white", "felt-grey", "rotary-tool"))
    assert slow.binding is not None


def test_two_rules_are_both_named() -> None:
    made = plan("brass", face("mirror", depth=50, limit_um=10), rack=("paper-p320",))
    assert made.binding is not None
    assert made.binding.rule in REFUSALS
    assert "as well" in str(made.binding.reason)


def test_a_large_part_is_not_carried_to_a_wheel() -> None:
    table = face("brushed-fine", depth=20, area=0.9)
    made = plan("stainless-304", table)
    assert made.possible
    assert not any(step.on_face.machine.stands for step in made.steps)
    told = plan("stainless-304", table, rack=("flap-p180", "flap-p240"))
    assert told.binding is not None
    assert "too big" in str(told.binding.reason)
    assert plan("stainless-304", table, rack=("flap-p180", "flap-p240"), carried=True).possible


def test_curved_faces_get_no_flat_tools() -> None:
    made = plan("stainless-316", face("satin", depth=20, curved=True))
    assert not any(step.tool.carrier.access.flat_only for step in made.steps)


def test_order_of_work_and_keep_off() -> None:
    one = face("brushed-fine")
    inside = face("satin", reach="tight")
    seat = face("N6", keep_off=True)
    whole = job("brass", one)
    named = tuple(
        type(one)(**{name: getattr(f, name) for name in f.__dataclass_fields__} | {"name": label})
        for f, label in ((one, "front"), (inside, "recess"), (seat, "seat"), (face("mirror"), "rim"))
    )
    planned = plan_job(type(whole)("test", whole.material, named))
    assert planned.order == ("recess", "rim", "front")
    assert [f.name for f in order_of_work(named)] == list(planned.order)
    seat_plan = planned.faces[2]
    assert seat_plan.possible
    assert seat_plan.steps == ()
    assert any("Mask" in caution for caution in planned.cautions)


def test_habits_hold_or_say_so() -> None:
    one = face("bright", after="P80")
    for habit, widest in (("every-grade", steepness("every-grade").jump), ("double-up", steepness("double-up").jump)):
        made = plan("brass", one, habit=habit)
        tools = itertools.takewhile(lambda tool: tool.carrier.cutting.backed, (step.tool for step in made.steps))
        grains = [parse_grade("P80").grain, *(tool.grain for tool in tools)]
        assert len(grains) > 2
        assert made.habit_note is None
        # No wall: a step may go further, as long as its light check is more likely to pass than not.
        assert all(
            a / b <= widest * (1 / constant("rework.odds").value) ** (1 / constant("rework.steepness").value)
            for a, b in itertools.pairwise(grains)
        )
    sparse = plan("brass", one, habit="every-grade", rack=("paper-p180", "paper-p600", "paper-p2500", "cloth-polishing"))
    assert sparse.possible
    assert sparse.habit_note is not None
    assert plan("brass", one, habit="long-steps").seconds <= plan("brass", one, habit="double-up").seconds


def test_likely_depth_decides_minutes_and_worst_the_metal() -> None:
    sure, guess = plan("brass", face("bright", depth=20)), plan("brass", face("bright", depth=20, worst=40))
    assert guess.metal > sure.metal
    assert sure.seconds <= guess.seconds < 2 * sure.seconds  # the first grade is coarser, and marks are no deeper on average


def test_each_aim_is_best_in_its_own_where_no_habit_counts() -> None:
    one = face("mirror", depth=20)
    plans = {aim: plan("brass", one, aim=aim, habit="long-steps") for aim in ("time", "metal", "cost", "changes")}
    assert plans["metal"].metal == min(p.metal for p in plans.values())
    assert plans["cost"].cost == min(p.cost for p in plans.values())
    assert plans["changes"].changes == min(p.changes for p in plans.values())
    assert plans["time"].seconds == min(p.seconds for p in plans.values())


def test_own_band() -> None:
    wanted = band(0.3 * UM, 0.5 * UM, "one-way")
    from dataclasses import replace

    made = plan("mild-steel", replace(face(), want=wanted))
    assert 0.3 * UM <= made.steps[-1].on_face.ra <= 0.5 * UM


def test_the_curve_goes_from_the_old_marks_to_the_new() -> None:
    for step in plan("brass", face("mirror", depth=14, worst=20)).steps:
        depths = [depth for _, depth in step.curve]
        assert depths[0] == pytest.approx(step.marks.before)  # what the step says that it meets
        assert depths[-1] == pytest.approx(step.marks.after)
        assert all(a >= b for a, b in itertools.pairwise(depths))
        assert step.curve[-1][0] == pytest.approx(step.time.all)


@pytest.mark.parametrize(("limit", "coarsest"), [(40, "P1000"), (160, "P600"), (500, "P180")])
def test_a_coat_bears_a_coarser_grain_the_more_of_it_may_come_off(limit: int, coarsest: str) -> None:
    """A sixth of it, common practice, and never less than the material's own."""
    one = face("bright", depth=10, area=0.5, limit_um=limit, limit_kind="coat")
    tools = usable(ToolContext.of(one, job("epoxy-coat", one, carried=False)))
    assert max((each.tool for each in tools if each.tool.charge is None), key=lambda each: each.grain).grade == coarsest


def test_a_blind_bore_is_reached_from_one_end_alone() -> None:
    """A flap wheel on a shank of 60 mm: 100 mm are reached from both ends, and not from one."""
    bore = {"want": "satin", "depth": 20, "reach": "inside", "inside_radius": 0.02}
    rack = {"rack": ("rotary-tool", "flap-small-p120", "flap-small-p240", "rubber-medium", "bristle-p220")}
    through, blind = (plan("brass", face(**bore, bore_depth=deep), **rack) for deep in (0.045, 0.1))
    assert through.possible
    assert blind.binding is not None
    assert blind.binding.rule == "reach"
