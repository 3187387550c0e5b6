"""From dirty to protected: the right operations in the right order, shared set-ups counted once."""

from dataclasses import replace

import pytest

from kelbrast.core.planning.whole.operations import protection_of
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.part import Part
from making import face, job


def planned(stuff: str, *faces, **more) -> Plan:
    named = tuple(replace(one, name=f"face {n}") for n, one in enumerate(faces))
    return plan_job(replace(job(stuff, faces[0], **more), faces=named))


def ids(made: Plan) -> list[str]:
    return [operation.id for operation in made.operations]


def test_a_plain_part_is_cleaned_washed_between_protected_and_compared() -> None:
    made = planned("copper", face("mirror", depth=20))
    assert ids(made) == ["inspect", "wash", "residue-ultrasonic", "degrease", "lacquer", "compare"]
    wash = made.operations[1]
    assert wash.counted
    assert wash.active == pytest.approx(60 * (len(made.faces[0].steps) - 1))
    around = [operation for operation in made.operations if operation.id != "wash"]
    assert made.account.each.before_after == pytest.approx(sum(operation.active for operation in around))
    assert made.account.once.before_after == pytest.approx(sum(operation.lot for operation in around))


@pytest.mark.parametrize(
    ("inserts", "residue"),
    [
        ((), "residue-ultrasonic"),
        (("stone",), "residue-lukewarm"),
        (("adhesive",), "residue-lukewarm"),
        (("bearing",), "residue-dry"),
    ],
)
def test_what_is_stuck_in_the_part_decides_how_it_is_cleaned(inserts, residue) -> None:
    assert residue in ids(planned("brass", face("bright", after="P600"), part=Part(inserts=inserts)))


def test_plastics_and_large_parts_do_not_go_into_the_bath() -> None:
    assert "residue-wash" in ids(planned("acrylic", face("bright", after="P1200")))
    assert "residue-wash" in ids(planned("stainless-304", face("brushed-fine", after="P80", area=0.5)))


def test_no_alcohol_on_acrylic() -> None:
    made = planned("acrylic", face("bright", after="P1200"), part=Part(protect="lacquer"))
    assert "degrease-plastic" in ids(made)


@pytest.mark.parametrize(
    ("covering", "operation"), [("unknown", "identify"), ("lacquered", "strip-lacquer"), ("anodised", "strip-anodising")]
)
def test_coats_come_off_first(covering: str, operation: str) -> None:
    made = planned("aluminium-wrought", face("bright", after="P600"), part=Part(covering=covering))
    assert ids(made)[1] == operation
    assert made.blocked is None


def called(word: str, **more):
    one = face("satin", depth=30, **more)
    return replace(one, found=replace(one.found, called=word))


@pytest.mark.parametrize(
    ("stuff", "word", "inserts", "first", "passivated"),
    [
        ("mild-steel", "rust", (), ["derust"], False),
        ("mild-steel", "rust", ("bearing",), ["scour"], False),
        ("mild-steel", "scale", (), ["pickle"], False),
        ("stainless-304", "heat-tint", (), ["pickle"], True),
        ("stainless-304", "weld-bead", (), [], True),
        ("stainless-304", "heat-tint", ("bearing",), ["scour"], False),
        ("stainless-304", "scratches", (), [], False),
        ("nickel-alloy", "heat-tint", (), ["pickle"], False),
        ("copper", "heat-tint", (), ["scour"], False),
        ("acrylic", "rust", (), [], False),
        ("stainless-304", "", (), [], False),
    ],
)
def test_rust_scale_and_tint_come_off_first_and_stainless_is_passivated(stuff, word, inserts, first, passivated) -> None:
    made = planned(stuff, called(word), part=Part(inserts=inserts))
    before = [operation.id for operation in made.operations if operation.when == "before"]
    assert before == ["inspect", *first]
    assert ("passivate" in ids(made)) == passivated


def test_two_rusty_faces_are_derusted_once_and_one_that_is_kept_off_is_not() -> None:
    assert ids(planned("mild-steel", called("rust"), called("rust"))).count("derust") == 1
    assert "derust" not in ids(planned("mild-steel", called("rust", keep_off=True), face("satin", depth=20)))


def test_what_can_not_be_stripped_here_is_said() -> None:
    paint = planned("mild-steel", face("bright", after="P600"), part=Part(covering="painted"))
    assert paint.blocked is not None
    assert not paint.possible
    wrong = planned("brass", face("bright", after="P600"), part=Part(covering="anodised"))
    assert "aluminium" in str(wrong.blocked)
    stuck = planned("aluminium-wrought", face("bright", after="P600"), part=Part(covering="anodised", inserts=("inlay",)))
    assert "take it out" in str(stuck.blocked)


def test_a_face_that_waits_for_paint_is_degreased_and_not_waxed() -> None:
    made = planned("mild-steel", face("paint-ready", after="P400"))
    assert "degrease" in ids(made)
    assert protection_of(made.job)[0] == "none"


def test_finished_faces_are_masked_before_the_brushing() -> None:
    assert "mask-finished" in ids(planned("brass", face("brushed-fine", after="P120"), face("bright", after="P600")))


def test_set_ups_shared_between_faces_count_once() -> None:
    one = face("bright", after="P240")
    alone, twice = planned("brass", one), planned("brass", one, one)
    assert [len(each.faces) for each in twice.set_ups] == [2] * len(alone.set_ups)
    washed = len(twice.set_ups) - 1  # not before the first
    saved = sum(each.tool.carrier.stock.setup for each in twice.set_ups) + washed * constant("work.wash").si
    assert twice.saved == pytest.approx(saved)
    assert twice.seconds_each == pytest.approx(
        2 * alone.seconds_each - saved, rel=1e-4
    )  # a part twice as large is a little less handy


def test_a_batch_sets_up_once_for_all_pieces() -> None:
    one, ten = (planned("brass", face("bright", after="P240"), pieces=pieces) for pieces in (1, 10))
    assert one.account.all == one.account.by_itself
    assert ten.account.all.set_up == pytest.approx(one.account.all.set_up)
    assert ten.account.all.cutting == pytest.approx(10 * one.account.all.cutting)
    assert all(a.count <= b.count for a, b in zip(one.gather, ten.gather, strict=True))


def test_the_set_ups_keep_every_face_in_its_order_and_go_down_the_grades() -> None:
    made = planned("brass", face("mirror", depth=40), face("bright", after="P320"), face("brushed-fine", depth=20))
    place = {}
    for at, each in enumerate(made.set_ups):
        for name, number in each.faces:
            place[name, number] = at
    for plan in made.faces:
        at = [place[plan.face.name, number] for number in range(1, len(plan.steps) + 1)]
        assert at == sorted(at)
