"""Advice: each where it applies, and not where it does not."""

from dataclasses import replace
from typing import Any

import pytest

from kelbrast.core.catalogue.machines import machine
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.rack.item import Item
from kelbrast.core.rack.offer import Own, offer
from kelbrast.core.reference.loader import record
from kelbrast.core.rules.advice import AT_STEPS, OF_PARTS, AtStep, part_advice
from kelbrast.core.rules.cautions import vibration_cautions
from kelbrast.core.surface.face import Gauged
from kelbrast.core.surface.part import Part
from making import face, job, plan

WORDS: dict[str, str] = record("advice")["advice"]


def said(made: FacePlan, words: str) -> list[int]:
    """At which steps, from 1."""
    return [number for number, step in enumerate(made.steps, start=1) if WORDS[words] in step.advice]


def test_every_word_has_its_rule() -> None:
    assert sorted(one.words for one in (*AT_STEPS, *OF_PARTS)) == sorted(WORDS)


HAND = {"rack": ("hand", *(f"paper-p{grade}" for grade in (180, 320, 600, 1000, 1500, 2500)), "cloth-polishing")}


def test_a_block_under_the_paper_on_flats_and_a_cushion_on_what_is_curved() -> None:
    flat, dome = (plan("brass", face("mirror", after="P320", curved=curved), **HAND) for curved in (False, True))
    papers = [number for number, step in enumerate(flat.steps, start=1) if step.tool.carrier.id == "paper"]
    assert papers
    assert (said(flat, "block"), said(flat, "cushion")) == (papers, [])
    assert said(dome, "block") == []
    assert said(dome, "cushion") == [number for number, step in enumerate(dome.steps, 1) if step.tool.carrier.id == "paper"]


@pytest.mark.parametrize(("stuff", "times"), [("brass", 1), ("acrylic", 0)])
def test_the_black_on_the_cloth_is_told_of_metals_at_the_last_step(stuff: str, times: int) -> None:
    made = plan(stuff, face("mirror", after="P320"), **HAND)
    assert len(said(made, "black")) == times
    assert said(made, "black") in ([], [len(made.steps)])


def test_a_wheel_drags_pits() -> None:
    pitted, scratched = (plan("brass", face("bright", depth=20, kind=kind)) for kind in ("pits", "scratches"))
    wheels = [n for n, step in enumerate(pitted.steps, 1) if step.tool.carrier.running.band in ("cut", "colour")]
    assert wheels
    assert said(pitted, "pits") == [n for n in wheels if pitted.steps[n - 1].tool.carrier.cutting.wear_law == "compound"]
    assert said(scratched, "pits") == []


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({}, True),
        ({"thickness": 0.005}, False),
        ({"area": 0.02}, False),
        ({"gauged": Gauged()}, False),
        ({"curved": True}, False),
    ],
)
def test_small_sheet_is_cut_out_after(change: dict[str, Any], told: bool) -> None:
    plate = replace(face("bright", area=0.006), thickness=0.002, gauged=Gauged(shape="plate"))
    made = plan_job(job("brass", replace(plate, **change)))
    assert (WORDS["sheet"] in made.advice) == told


@pytest.mark.parametrize(("stuff", "told"), [("clear-coat-2k", True), ("acrylic", True), ("brass", False)])
def test_nothing_hard_against_a_coat(stuff: str, told: bool) -> None:
    assert (WORDS["nothing-hard"] in plan_job(job(stuff, face("mirror", depth=3))).advice) == told


def test_strokes_overlap_where_a_tool_is_guided_over_a_face() -> None:
    large, small = (plan("stainless-304", face("brushed-fine", depth=20, area=area), carried=False) for area in (0.5, 0.002))
    assert said(large, "strokes") == list(range(1, len(large.steps) + 1))
    assert said(small, "strokes") == []


def test_a_worn_in_wheel_is_for_the_last_pass() -> None:
    made = plan("copper", face("satin", depth=40, reach="tight"))
    at = said(made, "worn-in")
    assert all(made.steps[n - 1].tool.carrier.kind in ("flap wheel", "non-woven") and n == len(made.steps) for n in at)
    worn_in = next(one for one in AT_STEPS if one.words == "worn-in")
    flap = next(step for step in made.steps if step.tool.carrier.kind == "flap wheel").on_face
    step = AtStep(
        flap,
        made.face,
        job("copper", made.face).material,
        first=True,
        last=False,
        own=None,
        blends=True,
        hot_in_hand=False,
        leaps=False,
    )
    assert worn_in.applies(step)
    assert not worn_in.applies(replace(step, blends=False))
    assert worn_in.applies(replace(step, blends=False, first=False, last=True))
    assert not worn_in.applies(replace(step, blends=False, last=True))


def test_a_long_step_says_what_it_bets_on() -> None:
    deep = face("mirror", depth=60, area=0.02)
    doubling, long = (plan("brass", deep, habit=habit) for habit in ("double-up", "long-steps"))
    assert len(long.steps) < len(doubling.steps)
    assert said(long, "long-step")
    assert said(doubling, "long-step") == []


def test_a_new_wheel_is_tried_on_scrap() -> None:
    items = [Item(1, "bench-buffer"), Item(2, "felt"), Item(3, "white"), Item(4, "tripoli"), Item(5, "sewn")]
    found = offer(items, "copper-alloy")
    asked = job("brass", face("bright", after="P800"), own=Own(found.tools, found.machines))
    made = plan_job(asked).faces[0]
    assert made.steps
    assert said(made, "scrap") == [n for n, step in enumerate(made.steps, 1) if step.own is not None and step.own.commits]
    assert said(made, "scrap")
    assert said(plan("brass", face("bright", after="P800")), "scrap") == []


def test_what_gets_hot_in_the_hand_is_held_otherwise() -> None:
    small = face("mirror", depth=20, area=0.003)
    by_hand, clamped = (plan("brass", small, part=Part(mass=0.03, held=held)) for held in ("hand", "clamp"))
    hot = [n for n, step in enumerate(by_hand.steps, 1) if step.time.rests is not None and step.time.rests.by_hand]
    assert hot
    assert said(by_hand, "hot") == hot
    assert said(clamped, "hot") == []


def test_an_unwieldy_part_says_what_the_plan_counts_on() -> None:
    handy, large, huge = (job("brass", face("satin", depth=20, area=area)) for area in (0.02, 0.15, 0.9))
    words = {
        key: [key in told for told in map(part_advice, (handy, large, huge))] for key in (WORDS["unwieldy"], WORDS["stays"])
    }
    assert list(words.values()) == [[False, True, False], [False, False, True]]
    assert all(part_advice(replace(one, carried=True)) == part_advice(handy) for one in (large, huge))
    assert WORDS["stays"] not in part_advice(replace(huge, carried=False))
    heavy = job("brass", face("satin", depth=20), part=Part(mass=12.0))
    assert WORDS["unwieldy"] in part_advice(heavy)


SPINDLE = {"turned": 0.03, "curved": True}


@pytest.mark.parametrize(
    ("words", "stuff", "place", "more"),
    [
        ("graphite", "cast-iron", {"want": "mirror"}, {}),
        ("skin", "zinc-casting", {"want": "bright", "depth": 120}, {}),
        ("plate", "copper", {"want": "bright", "depth": 0.5, "limit_um": 5, "limit_kind": "plated"}, {}),
        ("tarnish", "silver", {"want": "mirror"}, {}),
        ("sweepings", "silver", {"want": "satin"}, {}),
        ("crazes", "acrylic", {"want": "bright"}, {}),
        ("bowl", "brass", {"want": "bright", "area": 0.0015}, {"pieces": 60}),
        ("in-the-lathe", "brass", {"want": "bright", **SPINDLE}, {"pieces": 12}),
    ],
)
@pytest.mark.parametrize("changed", ["nothing", "material", "finish", "depth and limit", "pieces and shape"])
def test_a_tip_of_a_part_stands_where_it_applies_alone(words: str, stuff: str, place, more, changed: str) -> None:
    takes_it_away = {
        "graphite": {"material", "finish"},
        "skin": {"material", "depth and limit"},
        "plate": {"depth and limit"},
        "tarnish": {"material", "finish"},
        "sweepings": {"material"},
        "crazes": {"material"},
        "bowl": {"finish", "pieces and shape"},
        "in-the-lathe": {"pieces and shape"},
    }
    other = {
        "nothing": {},
        "material": {},
        "finish": {"want": "brushed-fine"},
        "depth and limit": {"depth": 20, "limit_um": None, "limit_kind": "metal"},
        "pieces and shape": {"area": 0.01, "turned": None},
    }[changed]
    one = face(**{**place, **other})
    pieces = 1 if changed == "pieces and shape" else more.get("pieces", 1)
    planned = job("mild-steel" if changed == "material" else stuff, one, pieces=pieces)
    assert (WORDS[words] in part_advice(planned)) == (changed not in takes_it_away[words])


def test_grease_on_dry_abrasives_that_run_and_on_soft_metal_alone() -> None:
    soft, hard = (plan(stuff, face("mirror", depth=30)) for stuff in ("aluminium-wrought", "mild-steel"))
    running = [n for n, step in enumerate(soft.steps, 1) if step.tool.is_torn and step.tool.carrier.mount != "hand"]
    assert running
    assert said(soft, "loads") == [n for n in running if not soft.steps[n - 1].on_face.working.wet]
    assert said(hard, "loads") == []


@pytest.mark.parametrize(
    ("stuff", "want", "told"),
    [("tool-steel-hardened", "mirror", True), ("mild-steel", "mirror", False), ("tool-steel-hardened", "satin", False)],
)
def test_hard_steel_is_not_polished_too_long(stuff: str, want: str, told: bool) -> None:
    made = plan(stuff, face(want, after="P320"))
    assert said(made, "over-polished") == ([len(made.steps)] if told else [])


def test_a_hard_part_is_not_cut_out_of_a_finished_sheet() -> None:
    sheet = face("bright", depth=5, area=0.003, thickness=0.002, gauged=Gauged("plate"))
    told = {stuff: WORDS["sheet"] in part_advice(job(stuff, sheet)) for stuff in ("brass", "tool-steel-hardened")}
    assert told == {"brass": True, "tool-steel-hardened": False}


def test_what_shakes_a_hand_is_told_from_half_an_hour_on_with_its_points() -> None:
    """An orbital sander of 4 m/s2 for an hour: 100 (4 / 2.5)^2 / 8 = 32 points, by hand."""
    held = [(machine("orbital"), 3600.0), (machine("hand"), 9000.0), (machine("bench-buffer"), 9000.0)]
    (told,) = vibration_cautions(held)
    assert "60 min" in told
    assert "32 points" in told
    assert vibration_cautions([(machine("orbital"), 1700.0)]) == ()
    large = plan_job(job("stainless-304", face("brushed-fine", depth=20, area=1.0), carried=False))
    assert [caution for caution in large.cautions if "points of vibration" in caution]
