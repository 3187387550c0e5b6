"""The situations of the trade, each as a test of sense: right kind of start and finish, forbidden things absent."""

import itertools

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.reference.loader import constant
from kelbrast.documents.job.read import check_job_file, to_job
from making import UM
from situations import SITUATIONS


def planned(name: str) -> Plan:
    return plan_job(to_job(check_job_file({"kelbrast": "job/2", "title": name, **SITUATIONS[name]})))


@pytest.mark.parametrize("name", SITUATIONS)
def test_every_situation_has_a_plan_that_keeps_the_rules(name: str) -> None:
    made = planned(name)
    assert made.possible, [face.binding for face in made.faces]
    assert all(face.steps == () for face in made.faces if face.face.keep_off)
    worked = [face for face in made.faces if not face.face.keep_off]
    assert all(face.steps[0].tool.carrier.cutting.levels for face in worked if face.face.must_be_levelled)
    for last in (face.steps[-1] for face in worked if face.face.want.lay == "one-way"):
        assert last.tool.carrier.cutting.wear_law != "compound"
        assert last.lay == "along"
    for face in worked:
        for step in face.steps:
            assert step.tool.keeps_clean(made.job.material.family)
            assert step.on_face.drive.marked is None or step.on_face.setting.surface <= step.on_face.drive.marked * (1 + 1e-9)
            assert step.on_face.working.stay >= constant("heat.shortest_stay").si
            assert step.tool.reaches_depth is None or step.marks.before <= step.tool.reaches_depth * (1 + 1e-9)
        for a, b in itertools.pairwise(face.steps):
            assert a.marks.after == b.marks.before or (a.zone and (not b.zone or b.zone.begun))
        no_finer = face.face.no_finer_than.grain if face.face.no_finer_than is not None else 0.0
        assert all(step.tool.grain >= no_finer for step in face.steps)
        assert face.metal - face.above <= (face.face.may_come_off - face.face.above) * (1 + 1e-6)
        assert face.marks_left < 0.5
    assert made.operations[0].id == "inspect"
    assert made.operations[-1].id == "compare"


def test_a_sanded_strip_goes_straight_to_the_wheel() -> None:
    (face,) = planned("hand-sanded strip on a plain buffer").faces
    assert face.steps[0].tool.carrier.cutting.wear_law == "compound"
    assert all(step.on_face.machine.id == "bench-buffer" for step in face.steps)


def test_deep_dents_in_hard_steel_start_coarse_and_end_no_finer_than_asked() -> None:
    (face,) = planned("mooring block with deep dents that must grip").faces
    assert face.steps[0].tool.grain >= 100 * UM
    assert face.seconds > 3600


def test_orange_peel_is_levelled_wet_by_paper_as_fine_as_the_trade_takes_and_the_coat_stays() -> None:
    for name in ("lacquered lamp dome with orange peel", "large lacquered panel"):
        (face,) = planned(name).faces
        first = face.steps[0]
        assert first.tool.carrier.id == "paper"
        assert first.on_face.working.wet
        assert 12 * UM <= first.tool.grain <= 19 * UM  # P1000 to P1500: common practice
        assert face.steps[-1].tool.carrier.cutting.wear_law == "compound"


def test_inside_before_outside_with_bobs_that_go_in() -> None:
    made = planned("small collar, inside and outside, on the rotary tool")
    assert made.order == ("inside", "outside")
    assert all(step.tool.carrier.access.inside_radius for step in made.faces[0].steps)
    shared = [one for one in made.set_ups if len(one.faces) > 1]
    assert made.saved == sum(one.saved for one in shared)


def test_glass_beads_forbid_the_bath_and_hot_water() -> None:
    made = planned("wire guard with tool bites beside glass beads")
    assert "residue-ultrasonic" not in [operation.id for operation in made.operations]
    assert any("stone" in caution for caution in made.cautions)
    lacquer = next(operation for operation in made.operations if operation.id == "lacquer")
    assert lacquer.within == 2 * 3600  # bare copper dulls within about two hours: common practice


def test_a_thin_wall_and_a_sealing_band_are_kept() -> None:
    made = planned("cast window bore with a band to leave and a thin wall")
    assert made.faces[0].face.limit_kind == "wall"
    assert made.faces[0].face.limit == pytest.approx(150 * UM)
    assert "mask" in [operation.id for operation in made.operations]


@pytest.mark.parametrize("name", ["two gutter sheets soldered flush", "blended weld on a gallery rail, to be painted"])
def test_raised_metal_is_knocked_down_to_just_above_the_face_and_then_refined(name: str) -> None:
    (face,) = planned(name).faces
    first, second = face.steps[0], face.steps[1]
    height = face.face.spots[0].found.worst
    assert height is not None
    assert first.marks.layer == pytest.approx(height - first.marks.after)  # no more than its own marks still stands
    assert second.marks.layer >= first.marks.after
    assert face.face.limit is not None
    assert face.metal - height < face.face.limit


def test_one_scratch_on_a_small_hard_dome_is_most_of_it_and_all_of_it_is_worked() -> None:
    (face,) = planned("hardened dome with one scratch").faces
    assert face.steps
    assert not any(step.zone for step in face.steps)
    assert all(not step.tool.carrier.access.flat_only for step in face.steps)


def test_a_sheet_that_stays_where_it_is_gets_hand_held_machines() -> None:
    (face,) = planned("half-metre sheet to a plate mirror").faces
    assert not any(step.on_face.machine.stands for step in face.steps)
    assert face.steps[-1].on_face.ra <= (finish("mirror").ra_high or 0)


def test_by_hand_means_by_hand() -> None:
    (face,) = planned("gouged hardened scraper to a mirror by hand").faces
    assert {step.on_face.machine.id for step in face.steps} == {"hand"}
    assert not any(step.tool.carrier.kind == "file" for step in face.steps)  # a file skates on hardened steel


def test_a_size_is_held_by_a_lap_or_cloth_in_the_lathe() -> None:
    for name in (
        "ground spindle within two microns",
        "oval bush bore with windows",
        "turned shaft to size with file and cloth",
    ):
        (face,) = planned(name).faces
        assert all(step.tool.carrier.cutting.keeps_size for step in face.steps), name
    (spindle,) = planned("ground spindle within two microns").faces
    assert spindle.face.limit == pytest.approx(2 * UM)  # 4 µm over the diameter are two on a side


def test_an_anodised_cover_is_stripped_first_and_brushed_last() -> None:
    made = planned("anodised cover, half brushed, half bright")
    ids = [operation.id for operation in made.operations]
    assert ids.index("strip-anodising") < ids.index("mask-finished") < ids.index("wax")
    assert made.order == ("rim", "field")
    strip = next(operation for operation in made.operations if operation.id == "strip-anodising")
    assert strip.passive == 15 * 60  # about a quarter of an hour: common practice
    assert any("alkali" in caution for caution in strip.cautions)
