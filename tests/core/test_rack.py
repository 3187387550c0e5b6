"""The rack: what an item is bound to, what a rack offers, mounting on spindles, marked limits, and planning from it."""

from dataclasses import replace
from itertools import product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.errors import NotFound
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.buying import what_to_buy
from kelbrast.core.planning.whole.mounting import mountings, prepare
from kelbrast.core.planning.whole.plan import do_without, plan_job, shortages, without
from kelbrast.core.process.speed import spindle_speed
from kelbrast.core.rack.item import Item, ItemEvent, bound_by, kind_of, misfits, stockable
from kelbrast.core.rack.offer import Own, offer
from making import face, job, plan

WHEEL = Item(1, "loose")
BAR = Item(2, "white")
BUFFER = Item(3, "bench-buffer")
ON_STEEL = ItemEvent("used", charge="white", family="steel")


def equipped(items: list[Item], stuff: str, one, **more) -> Job:
    made = job(stuff, one, **more)
    found = offer(items, made.material.family)
    return replace(made, own=Own(found.tools, found.machines))


def papers(*grades: int, count: float = 50) -> list[Item]:
    return [Item(100 + grade, f"paper-p{grade}", count=count) for grade in grades]


def test_everything_stockable_has_a_kind_and_nothing_else_has() -> None:
    assert {kind_of(what) for what in stockable()} == {"machine", "abrasive", "wheel", "lap", "compound"}
    with pytest.raises(NotFound):
        kind_of("loose-white")  # a wheel and a bar are two things


def test_a_wheel_takes_one_bar_and_one_family_for_life() -> None:
    assert offer([WHEEL, BAR], "silver").refused == ()
    used = replace(WHEEL, history=(ON_STEEL,))
    assert [tool.tool for tool in offer([used, BAR], "steel").tools] == ["loose-white"]
    made = offer([used, BAR, Item(4, "rouge")], "silver")
    assert "loose-white" not in [tool.tool for tool in made.tools]
    assert "loose-rouge" not in [tool.tool for tool in made.tools]
    assert "has worked steel and iron: what it holds would score or stain silver." in made.refused[0].reason


def test_a_wheel_used_on_steel_can_not_slip_into_a_silver_or_acrylic_plan() -> None:
    used = [
        replace(item, history=(ItemEvent("used", family="steel"),))
        for item in (Item(1, "nonwoven-wheel-fine"), Item(2, "flap-p240"))
    ]
    for stuff in ("silver", "acrylic"):
        made = plan_job(
            equipped(
                [*used, BUFFER, *papers(320, 600, 1000, 1500, 2000, 2500), Item(9, "cloth"), Item(10, "polishing")],
                stuff,
                face("bright", depth=15),
            )
        )
        assert not {step.tool.id for plan_ in made.faces for step in plan_.steps} & {"nonwoven-wheel-fine", "flap-p240"}


def test_insisting_warns_on_the_step() -> None:
    used = replace(WHEEL, history=(ON_STEEL,))
    items = [used, BAR, BUFFER, *papers(1000, 2000, 2500)]
    made = job("aluminium-wrought", face("bright", after="P2500"))
    found = offer(items, "aluminium", insist=True)
    planned = plan_job(replace(made, own=Own(found.tools, found.machines)))
    step = next(step for step in planned.faces[0].steps if step.tool.id == "loose-white")
    assert "steel" in step.cautions[0]
    assert any(tool.warning for tool in found.tools if tool.tool == "loose-white")


def test_a_lap_carries_one_grade() -> None:
    lap = Item(5, "lap", history=(ItemEvent("used", charge="9um", family="steel"),))
    assert [tool.tool for tool in offer([lap], "steel").tools] == ["lap-9um"]


def test_mixed_wheels_are_refused_until_downgraded() -> None:
    mixed = replace(WHEEL, history=(ON_STEEL, ItemEvent("used", charge="rouge", family="steel")))
    assert offer([mixed, BAR], "steel").tools == ()
    again = replace(mixed, history=(*mixed.history, ItemEvent("downgraded", charge="white", family="steel")))
    assert [tool.tool for tool in offer([again, BAR], "steel").tools] == ["loose-white"]


events = st.builds(
    ItemEvent,
    st.sampled_from(["used", "downgraded"]),
    st.sampled_from(["white", "rouge"]),
    st.sampled_from(["steel", "silver"]),
)


@given(st.lists(events, max_size=8))
def test_only_a_downgrade_ever_frees_an_item(history: list[ItemEvent]) -> None:
    before = bound_by(())
    for at in range(1, len(history) + 1):
        after = bound_by(history[:at])
        freed = history[at - 1].kind != "used" or before.charge is None
        assert freed or (after.charge == before.charge and after.mixed >= before.mixed)
        before = after


def test_stock_and_retired_things_are_not_offered() -> None:
    gone = Item(6, "paper-p240", count=3, history=(ItemEvent("stock", amount=-3),))
    assert offer([gone], "steel").tools == ()
    assert offer([replace(WHEEL, history=(ItemEvent("retired"),)), BAR], "steel").tools == ()
    assert Item(6, "paper-p240", count=1, history=(ItemEvent("stock", amount=-5),)).have == 0


def test_the_own_figures_are_planned_with() -> None:
    small = replace(WHEEL, diameter=0.25, marked=30.0, history=(ItemEvent("measured", size=0.2),))
    three_speeds = Item(3, "bench-buffer-3")
    made = plan_job(equipped([small, BAR, three_speeds], "brass", face("bright", after="P2500")))
    step = made.faces[0].steps[0]
    assert step.on_face.drive.diameter == pytest.approx(0.2)
    assert step.on_face.drive.marked == pytest.approx(30.0 * 0.2 / 0.25)  # no faster than when it was new
    assert step.on_face.setting.surface <= step.on_face.drive.marked
    assert step.own is not None
    assert step.own.item == WHEEL.id


def test_a_machine_turns_at_its_own_speeds() -> None:
    slow = replace(BUFFER, speeds=(1400 / 60,))
    made = plan_job(equipped([WHEEL, BAR, slow], "brass", face("bright", after="P2500")))
    for step in made.faces[0].steps:
        assert step.on_face.setting.spindle in (1400 / 60, None)


def test_an_empty_rack_plans_nothing_and_says_so() -> None:
    made = plan_job(equipped([], "brass", face("bright", depth=10)))
    assert not made.possible


@pytest.mark.parametrize(("marked", "diameter", "rpm"), [(80, 0.115, 13290), (80, 0.125, 12220), (80, 0.230, 6640)])
def test_marked_limits(marked: float, diameter: float, rpm: float) -> None:
    # EN 12413 (from memory): 80 m/s is 13,290 rev/min at 115 mm, 12,220 at 125, 6,640 at 230
    assert spindle_speed(diameter=diameter, surface=marked) * 60 == pytest.approx(rpm, rel=1e-3)


def test_a_wheel_that_no_machine_here_may_turn_is_said_when_it_is_added() -> None:
    fast = machine("bench-buffer")
    assert misfits(Item(1, "loose"), [fast]) == []
    assert "Do not mount it" in str(misfits(Item(1, "loose", marked=12.0), [fast])[0])
    assert "No machine here takes it" in str(misfits(Item(1, "loose"), [machine("drill")])[0])
    assert misfits(Item(1, "paper-p240"), []) == []


@settings(max_examples=many(20))
@given(st.lists(st.sampled_from("abcd"), max_size=7), st.integers(1, 3))
def test_the_fewest_changes_by_brute_force(wheels: list[str], spindles: int) -> None:
    made = mountings(wheels, spindles=spindles)
    changes = sum(one.mount for one in made)
    best = len(wheels)
    for choice in product(range(spindles), repeat=len(wheels)):
        on: dict[int, str] = {}
        cost = 0
        for wheel, spindle in zip(wheels, choice, strict=True):
            cost += on.get(spindle) != wheel
            on[spindle] = wheel
        best = min(best, cost)
    assert changes == best


def test_what_is_short_and_the_best_without_it() -> None:
    one = face("bright", after="P400")
    planned = plan("brass", one)
    whole = plan_job(job("brass", one))
    none_there = shortages(whole, {})
    assert [short.tool.id for short in none_there] == [got.tool.id for got in whole.gather]
    assert shortages(whole, {got.tool.id: 99 for got in whole.gather}) == ()
    best = without(job("brass", one), frozenset(short.tool.id for short in none_there))
    assert best.faces[0].seconds >= planned.seconds
    assert not {step.tool.id for step in best.faces[0].steps} & {short.tool.id for short in none_there}


def test_without_what_is_short_goes_on_until_nothing_is() -> None:
    whole = plan_job(job("brass", face("bright", after="P400")))
    have = {one.tool.id: 99.0 for one in whole.gather[:-1]}
    once = without(whole.job, frozenset({whole.gather[-1].tool.id}))
    assert shortages(once, have), "the way around needs something that is not there either"
    have |= dict.fromkeys(list(tools())[::3], 99.0)
    done = do_without(whole, have)
    assert done.plan is not None
    assert done.plan.possible
    assert shortages(done.plan, have) == ()
    assert not {one.tool.id for one in done.plan.gather} & done.tools
    assert do_without(whole, {}).plan is None


def test_what_to_buy_saves_what_planning_again_says() -> None:
    items = papers(180, 320, 600, 1000, 2000)
    one = face("bright", depth=20, area=0.02)
    whole = equipped([*items, Item(7, "cloth"), Item(8, "polishing")], "brass", one, pieces=3)
    before = plan_job(whole)
    last = list(what_to_buy([whole], most=3))[-1]
    assert last.done == last.total
    best = last.found[0]
    assert whole.own is not None
    after = plan_job(replace(whole, own=replace(whole.own, extras=best.tools)))
    assert before.possible
    assert after.possible
    assert best.gain("minutes") == pytest.approx(3 * (before.faces[0].seconds - after.faces[0].seconds))
    assert best.opened == 0


def test_set_ups_of_several_jobs_keep_families_apart() -> None:
    made = prepare([plan_job(job("brass", face("bright", after="P400"))), plan_job(job("mild-steel", face("bright", after="P400"))),
                    plan_job(job("brass", face("bright", after="P240")))])  # fmt: skip
    assert made.gather
    for each in made.machines:
        assert each.changes >= 0
        assert {one.spindle for one in each.mounted} <= set(range(1, each.machine.spindles + 1))
        assert each.notes or each.machine.id == "hand"


def test_a_machine_may_share_its_id_with_what_it_turns() -> None:
    assert kind_of("orbital") == "machine"
    assert misfits(Item(1, "orbital"), [machine("hand")]) == []
