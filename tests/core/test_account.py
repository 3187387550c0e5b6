"""The account: what belongs to which line, what a lot shares, what to allow against simulated jobs, and lots in time."""

from dataclasses import replace

import numpy as np
import pytest

from benching import Bench, stage
from kelbrast.core.bench.account import Kept, kept_to, left, paces, planned, spent
from kelbrast.core.bench.events import Moment
from kelbrast.core.bench.run import Layout
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.day.from_plan import blocks_of
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ANY_FAMILY, ShopFactors
from kelbrast.core.planning.whole.account import LINES, Times
from kelbrast.core.planning.whole.lots import lot_sizes, seconds_in_the_last_set_up
from kelbrast.core.planning.whole.plan import Plan, do_without, plan_job, shortages
from kelbrast.core.planning.whole.spread import allowance
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.part import Part
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import to_job
from kelbrast.documents.plan.write import to_rack_check
from making import face, job

DRAWS = 20_000


def demo_plans() -> list[Plan]:
    plans = [plan_job(to_job(file)) for file in demo_jobs()]
    return [plan for plan in plans if plan.possible]


def bowls(pieces: int, **more: object) -> Job:
    """Copper bowls, lacquered before they tarnish."""
    return job("copper", face("mirror", depth=20, area=0.045), pieces=pieces, part=Part(protect="lacquer"), **more)


def test_every_second_of_a_plan_is_on_one_line() -> None:
    for plan in demo_plans():
        account = plan.account
        steps = [step for one in plan.faces for step in one.steps]
        on_steps = sum(one.seconds for one in plan.faces) - plan.saved  # by the faces and what sharing saves
        assert account.each.cutting == pytest.approx(sum(step.time.cut for step in steps))
        assert account.once.set_up == pytest.approx(sum(one.tool.carrier.stock.setup for one in plan.set_ups))
        around = account.by_itself.before_after
        assert account.by_itself.hands_on - around == pytest.approx(on_steps)
        assert account.each.handling > 0
        assert account.all.hands_on + account.all.waiting == pytest.approx(account.all.start_to_finish)
        assert account.all.hands_on == pytest.approx(sum(getattr(account.all, line) for line in LINES if line != "waiting"))


def test_the_blocks_of_the_schedule_take_as_long_as_the_account_says() -> None:
    """In whole minutes, of which none is shorter than one: what one block has too much the next ones have less."""
    for plan in demo_plans():
        made = blocks_of(plan, job="1", title=plan.job.title, first=0)
        minutes = sum(task.minutes + task.change for task in made.tasks if task.kind == "work")
        assert minutes == pytest.approx(plan.account.all.hands_on / 60, abs=1.0)


def test_what_a_lot_shares_is_counted_once_for_each_lot() -> None:
    plan = plan_job(bowls(10))
    assert plan.lots == (5, 5)
    account, one = plan.account, plan.account_of(1)
    assert account.all == account.each * 10 + account.once * 2
    assert one.all == one.by_itself
    assert account.all.set_up == pytest.approx(2 * one.all.set_up)
    assert account.all.waiting == pytest.approx(2 * one.all.waiting)
    assert account.all.hands_on < 10 * one.all.hands_on


@pytest.mark.parametrize("at", range(4))
def test_nine_of_ten_simulated_jobs_stay_below_what_is_allowed(at: int) -> None:
    """Every job drawn from scratch: a hand, a pace, a rate for each abrasive, a depth for each face, a check for each piece."""
    plan = demo_plans()[at]
    pieces, chance = plan.job.pieces, np.random.default_rng(at)
    hand, pace = (np.exp(chance.standard_normal(DRAWS) * constant(f"spread.{name}").value) for name in ("hand", "pace"))
    rates = {
        carrier: np.exp(chance.standard_normal(DRAWS) * constant("spread.rate").value)
        for carrier in sorted({share.step.tool.carrier.id for share in plan.shares})
    }
    total = np.zeros(DRAWS)
    for share in plan.shares:
        step, found = share.step, next(one.face for one in plan.faces if one.face.key == share.face)
        work = hand * rates[step.tool.carrier.id]
        deep = 0.0 if share.number > 1 or found.found.after is not None else _spread_of(found)
        failed = chance.binomial(pieces, step.fails, DRAWS)
        look, wash = constant("work.check").si, constant("work.wash").si
        times = share.of(pieces, len(plan.lots))
        sure = min(times.handling, pieces * (look + step.time.wash))
        total += (times.cutting * np.exp(deep * chance.standard_normal(DRAWS)) + times.handling - sure) * work
        total += (sure + times.set_up) * pace
        total += failed * (constant("spread.again").value * step.time.cut * work)
        total += failed * (look + wash + step.tool.carrier.stock.setup) * pace
    for one in plan.operations:
        if not one.counted:
            own = np.exp(chance.standard_normal(DRAWS) * constant("spread.pace").value)
            total += (pieces * one.active + len(plan.lots) * one.lot) * own
    assert np.mean(total < allowance(plan, pieces).hands_on) == pytest.approx(0.9, abs=0.015)


def _spread_of(found: object) -> float:
    state = found.found  # type: ignore[attr-defined]
    return max(constant("spread.depth").value, float(np.log(max(state.worst or 0, state.likely) / state.likely)) / 1.6449)


def test_what_to_allow_grows_with_the_jump_of_a_step() -> None:
    plan = plan_job(bowls(1))
    far = replace(plan.faces[0], steps=tuple(replace(step, fails=0.6) for step in plan.faces[0].steps))
    near = replace(plan.faces[0], steps=tuple(replace(step, fails=0.0) for step in plan.faces[0].steps))
    often, never = (allowance(replace(plan, faces=(one,)), 1) for one in (far, near))
    assert often.hands_on > never.hands_on > plan.account.all.hands_on
    assert often.lines.set_up > never.lines.set_up  # the tool that was taken off goes on again
    assert often.lines.before_after == never.lines.before_after
    assert often.start_to_finish - often.hands_on == pytest.approx(plan.account.all.waiting)


def test_the_pace_of_the_shop_is_in_the_account_and_narrows_what_to_allow() -> None:
    told = tuple(
        (line, ANY_FAMILY, "pace", factor) for line, factor in (("handling", 1.5), ("set_up", 2.0), ("before_after", 0.5))
    )
    plain, own = plan_job(bowls(4)), plan_job(bowls(4, factors=ShopFactors(told)))
    assert own.account.each.handling == pytest.approx(1.5 * plain.account.each.handling)
    assert own.account.once.set_up == pytest.approx(2.0 * plain.account.once.set_up)
    assert own.account.each.before_after == pytest.approx(0.5 * plain.account.each.before_after)
    assert own.account.each.cutting == plain.account.each.cutting
    assert own.account.once.waiting == plain.account.once.waiting
    sure = ShopFactors(told, tuple((line, family, quantity, 0.02) for line, family, quantity, _ in told))
    assert allowance(plan_job(bowls(4, factors=sure)), 4).hands_on < allowance(own, 4).hands_on


def test_the_first_bowl_of_a_lot_is_lacquered_in_time_and_one_more_would_not_be() -> None:
    plan = plan_job(bowls(40))
    lacquer = next(operation for operation in plan.operations if operation.within is not None)
    after = [operation for operation in plan.operations if operation.when == "after"]
    chain = after[: after.index(lacquer) + 1]

    def waits(lot: int) -> float:
        """Of the first piece: all others through the last wheel, everything before the lacquer, and the lacquer on all."""
        others = (lot - 1) * seconds_in_the_last_set_up(plan.set_ups, plan.shares)
        soaks = sum(one.passive for one in chain[:-1])
        return others + sum(lot * one.active + one.lot for one in chain) + soaks

    allowed = constant("lots.reserve").value * lacquer.within
    assert waits(max(plan.lots)) <= allowed < waits(max(plan.lots) + 1)
    assert sum(plan.lots) == 40
    assert max(plan.lots) - min(plan.lots) <= 1


def test_what_dries_needs_room_and_the_person_has_the_last_word() -> None:
    plates = job("brass", face("satin", depth=20, area=0.2), pieces=12, part=Part(protect="lacquer"))
    assert plan_job(plates).lots == (4, 4, 4)  # a square metre on the rack
    by_hand = plan_job(replace(plates, lot=6))
    assert by_hand.lots == (6, 6)
    assert "no room to soak and dry together: 5 at most" in by_hand.cautions[0]
    assert not any("at most" in caution for caution in plan_job(replace(plates, lot=3)).cautions)
    late = plan_job(bowls(20, lot=20))
    assert "of 20 not all can be protected in time" in late.cautions[0]
    bare = replace(plates, material=material("stainless-304"), part=Part(protect="none"))
    assert not any(operation.passive for operation in plan_job(bare).operations)
    assert plan_job(bare).lots == (12,)


def test_lots_are_as_few_and_as_equal_as_may_be() -> None:
    for pieces in range(1, 60):
        for most in range(1, 20):
            sizes = lot_sizes(pieces, most)
            assert (sum(sizes), max(sizes) <= most, max(sizes) - min(sizes) <= 1) == (pieces, True, True)
            assert (len(sizes) - 1) * most < pieces


def test_times_add_up() -> None:
    one, other = Times(1.0, 2.0, 3.0, 4.0, 5.0), Times(cutting=10.0, waiting=1.0)
    assert one + other == Times(11.0, 2.0, 3.0, 4.0, 6.0)
    assert (one * 2).start_to_finish == pytest.approx(30.0)
    assert one.hands_on == 10.0


def test_a_plan_without_what_is_missing_is_offered_only_if_it_is_sane() -> None:
    plan = plan_job(job("brass", face("paint-ready", depth=60, area=0.2)))
    by_hand = {name: 500.0 for name in tools() if name.startswith("paper")}
    other = do_without(plan, by_hand)
    assert other.plan is not None
    assert other.plan.account.all.hands_on > 10 * plan.account.all.hands_on
    assert not other.sane
    told = to_rack_check(shortages(plan, by_hand), other, ())
    assert (told.without_minutes, told.without_possible, told.without_tools) == (None, False, [])
    near = do_without(plan, {name: 500.0 for name in tools() if name != plan.faces[0].steps[0].tool.id})
    assert near.plan is not None
    assert near.sane
    told = to_rack_check(shortages(plan, {}), near, ())
    assert told.without_minutes == pytest.approx(near.plan.account.all.hands_on / 60)


def test_a_run_keeps_to_what_was_allowed_by_its_clock_and_where_all_was_said_by_its_hands() -> None:
    layout = Layout(1, (stage(step=1, handling=30.0), stage(step=2, handling=30.0)), {"wax": Times(before_after=60.0)})
    bench = Bench(layout)
    bench.do(100)
    bench.do(100)
    assert kept_to(bench.run, cutting=250.0, hands_on=400.0) is None  # not finished yet
    quick = Bench(layout)
    for run in (bench, quick):
        if run is quick:
            run.do(100)
            run.do(100)
            run.tap("operated", after=60.0, operation="wax")
        run.tap("finished", well=True)
    assert kept_to(bench.run, cutting=250.0, hands_on=400.0) == Kept(cutting=True, hands_on=None)
    assert kept_to(quick.run, cutting=150.0, hands_on=400.0) == Kept(cutting=False, hands_on=True)
    assert kept_to(quick.run, cutting=250.0, hands_on=210.0) == Kept(cutting=True, hands_on=False)


def test_gaps_between_taps_are_handling_set_up_or_an_operation_and_a_long_one_is_a_break() -> None:
    layout = Layout(
        2, (stage(step=1, tool="a", setup=60.0, handling=30.0), stage(step=2, tool="b", setup=60.0, handling=30.0)),
        {"wax": Times(before_after=100.0)},
    )  # fmt: skip
    bench = Bench(layout)
    bench.do(100)  # piece 1, tool a: what came before the first tap is not known
    bench.tap("started", after=45.0)  # piece 2, the same tool
    bench.tap("gone", after=100.0)
    bench.tap("started", after=180.0)  # piece 1, another tool: twice what was planned for putting it on and handling
    bench.tap("note", after=10.0, words="warm today")
    bench.tap("gone", after=90.0)
    bench.tap("started", after=3 * 3600.0)  # over night
    bench.tap("gone", after=100.0)
    bench.tap("operated", after=50.0, operation="wax")
    took = spent(bench.run)
    assert (took.cutting, took.before_after) == pytest.approx((400.0, 50.0))
    assert (took.handling, took.set_up) == pytest.approx((45.0 + 60.0, 120.0))
    told = {one.carrier: one.ratio for one in paces(bench.run, 7)}
    assert told == pytest.approx({"handling": 105 / 60, "set_up": 2.0, "before_after": 0.5})


def test_what_is_left_of_a_run_goes_down_to_nothing() -> None:
    bench = Bench(Layout(2, (stage(step=1, handling=30.0, once=Times(set_up=60.0)),), {"wax": Times(before_after=100.0)}))
    whole = planned(bench.run)
    assert whole == Times(cutting=2 * stage().seconds, handling=60.0, set_up=60.0, before_after=100.0)
    assert left(bench.run, Moment(0.0, 0.0, "test")) == whole
    bench.tap("started")
    half = left(bench.run, Moment(1.0 + stage().seconds / 2, 1.0 + stage().seconds / 2, "test"))
    assert half.cutting == pytest.approx(1.5 * stage().seconds)
    bench.tap("gone", after=stage().seconds)
    bench.do(stage().seconds)
    bench.tap("operated", operation="wax")
    assert left(bench.run, Moment(bench.now, bench.now, "test")) == Times()
    assert planned(bench.run) == whole
