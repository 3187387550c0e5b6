"""Prices: by hand on a part of two faces, what they are made of, what a simpler finish saves."""

from dataclasses import replace

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.job import Job, OwnOperation
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.planning.whole.spread import allowance, spread_of_plan
from kelbrast.core.price.quote import Rates, drives, price_of, simpler_prices, with_a_sample, with_looser_limits
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.surface.part import Part
from making import face
from making import job as job_of

RATES = Rates(48.0, 0.15)


def plate(want: str = "mirror", **more: object) -> Job:
    """A name plate: its field, and a back that is only made ready for paint."""
    field = Face("field", 0.006, Found("scratches", 2e-5, 4e-5), finish(want), thickness=3e-3)
    back = Face("back", 0.006, Found("scratches", 2e-5, 4e-5), finish("paint-ready"), thickness=3e-3)
    return Job("Plate", material("brass"), (field, back), **more)


def test_the_price_of_two_faces_by_hand() -> None:
    plan = plan_job(plate())
    price = price_of(plan, RATES, pieces=5)
    steps = [step for face in plan.faces for step in face.steps]
    put_on = sum(one.tool.carrier.stock.setup for one in plan.set_ups)
    each = sum(step.time.all for step in steps) - sum(one.saved for one in plan.set_ups) - put_on
    around = [operation for operation in plan.operations if not operation.counted]
    washes = 30 * sum(one.washes > 0 for one in plan.set_ups)  # half of each, a minute, is for the whole lot
    once = put_on + washes + sum(one.lot for one in around)
    seconds = once + 5 * (each - washes + sum(one.active for one in around))
    # A check that fails: two fifths of the cutting, a wash and a look of a minute each, and the tool on again.
    again = 5 * sum(step.fails * (0.4 * step.time.cut + 120 + step.tool.carrier.stock.setup) for step in steps)
    abrasives = 5 * sum(step.use.cost for step in steps)
    assert price.times.hands_on == pytest.approx(seconds)
    # To the hundredth for one, and five times that for five: as the customer works it out.
    assert price.each == pytest.approx(1.15 * (48 / 3600 * (seconds + again) + abrasives) / 5, abs=0.005)
    assert (price.each, price.price) == (round(price.each, 2), 5 * price.each)
    high = 1.15 * (48 / 3600 * allowance(plan, 5).hands_on + abrasives) / 5
    assert price.price_high == pytest.approx(5 * round(high, 2))


def test_more_pieces_are_cheaper_each_and_never_dearer_in_all() -> None:
    plan = plan_job(plate())
    prices = [price_of(plan, RATES, pieces=one) for one in (1, 5, 20, 100)]
    assert [price.each for price in prices] == sorted((price.each for price in prices), reverse=True)
    assert [price.price for price in prices] == sorted(price.price for price in prices)


def test_what_it_is_made_of_adds_up() -> None:
    price = price_of(plan_job(plate()), RATES, pieces=1)
    shares = drives(price, RATES)
    assert set(shares) == {"cutting", "handling", "set_up", "before_after", "abrasives", "going-back", "margin"}
    minute = 48 / 60 / price.price
    for line in ("cutting", "handling", "set_up", "before_after"):
        assert shares[line] == pytest.approx(getattr(price.times, line) / 60 * minute), line
    assert shares["going-back"] == pytest.approx(price.going_back / price.price)
    assert sum(shares.values()) == pytest.approx(1.0)
    assert list(shares.values()) == sorted(shares.values(), reverse=True)
    assert shares["margin"] == pytest.approx(0.15 / 1.15, abs=0.005 / price.price)


def test_a_humbler_finish_is_planned_and_costs_less() -> None:
    job = plate()
    plan = plan_job(job)
    found = simpler_prices(job, plan, RATES, pieces=1)
    now = price_of(plan, RATES, pieces=1).each
    assert found
    assert all(one.each <= 0.95 * now for one in found)
    assert [one.each for one in found] == sorted((one.each for one in found), reverse=True)
    for one in found:
        assert one.each == pytest.approx(price_of(plan_job(plate(one.finish.id)), RATES, pieces=1).each)
    assert simpler_prices(plate("paint-ready"), plan_job(plate("paint-ready")), RATES, pieces=1) == ()


def test_a_sample_takes_the_guess_of_the_depth_out() -> None:
    plan = plan_job(plate())
    price = price_of(plan, RATES, pieces=20)
    likely = price.times.hands_on
    assert likely < with_a_sample(price, plan) < price.high
    certain = 1 - dict(spread_of_plan(plan).causes)["depth"]  # causes are shares of a variance, so a width goes with the root
    assert with_a_sample(price, plan) - likely == pytest.approx((price.high - likely) * certain**0.5)


def test_own_operations_and_coats_are_paid() -> None:
    trial = OwnOperation("Run water over it", "after", 300.0, 600.0, check="It runs off in one sheet")
    lacquered = {"part": Part(protect="lacquer")}
    plain, more = plan_job(plate(**lacquered)), plan_job(plate(own_operations=(trial,), coats=3, **lacquered))
    assert more.account.each.before_after > plain.account.each.before_after + 299
    own = next(operation for operation in more.operations if operation.id == "own-1")
    assert (own.when, own.passive, own.check) == ("after", 600.0, "It runs off in one sheet")
    assert more.operations[-1].id == "compare"
    coat = {operation.id: operation for operation in plain.operations}
    coats = {operation.id: operation for operation in more.operations}
    assert coats["lacquer"].passive == pytest.approx(3 * coat["lacquer"].passive)
    assert coats["lacquer"].active > 2 * coat["lacquer"].active
    assert coats["lacquer"].lot == pytest.approx(3 * coat["lacquer"].lot)


def test_what_a_person_adds_for_the_lot_is_counted_once_for_each() -> None:
    fixture = OwnOperation("Build the fixture", "before", 0.0, once=1200.0)
    plain, more = (plan_job(plate(pieces=6, lot=3, own_operations=own)).account for own in ((), (fixture,)))
    assert more.lots == 2
    assert more.all.before_after == pytest.approx(plain.all.before_after + 2 * 1200)
    assert more.each == plain.each


def test_rates_that_are_none_are_refused() -> None:
    for bad in ({"hour": 0.0}, {"margin": -0.1}):
        with pytest.raises(OutsideValidity):
            replace(RATES, **bad)
    with pytest.raises(OutsideValidity):
        price_of(plan_job(plate()), RATES, pieces=0)


def test_a_looser_limit_is_planned_and_only_told_where_it_costs_less() -> None:
    free = job_of("brass", face("mirror", depth=20, worst=26))
    assert with_looser_limits(free, plan_job(free), RATES, pieces=1) is None  # nothing is limited
    tight = job_of("brass", face("mirror", depth=20, worst=26, limit_um=32))
    wide = plan_job(replace(tight, faces=(replace(tight.faces[0], limit=64e-6),)))
    looser = with_looser_limits(tight, plan_job(tight), RATES, pieces=4)
    assert looser == pytest.approx(price_of(wide, RATES, pieces=4).each)
    assert looser < price_of(plan_job(tight), RATES, pieces=4).each
    # With so much to spare already, twice of it saves nothing.
    ample = job_of("brass", face("mirror", depth=20, worst=26, limit_um=400))
    assert with_looser_limits(ample, plan_job(ample), RATES, pieces=4) is None
    # A coat is no thicker because somebody would like it to be, and what is kept off stays so.
    for more in ({"limit_kind": "coat"}, {"keep_off": True}):
        other = replace(tight, faces=(replace(tight.faces[0], **more),))
        assert with_looser_limits(other, plan_job(other), RATES, pieces=4) is None
