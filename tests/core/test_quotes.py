"""Prices: by hand on a part of two faces, what they are made of, what a simpler finish saves."""

from dataclasses import replace

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.job import Job, OwnOperation
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.planning.whole.spread import spread_of_plan
from kelbrast.core.price.quote import Rates, drives, learnt_bias, price_of, simpler_prices, with_a_sample, with_looser_limits
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
    job = plate()
    plan = plan_job(job)
    price = price_of(plan, RATES, pieces=5)
    setting_up = sum(one.tool.carrier.stock.setup for one in plan.set_ups)
    steps = [step for face in plan.faces for step in face.steps]
    shared = sum(one.saved for one in plan.set_ups)
    each = sum(step.time.all for step in steps) - shared - setting_up
    around = sum(operation.active for operation in plan.operations if not operation.counted)
    seconds = setting_up + 5 * (each + around)
    again = 5 * sum(0.15 * 0.4 * step.time.cut for step in steps)  # one check in seven fails, two fifths are done again
    abrasives = 5 * sum(step.use.cost for step in steps)
    assert price.seconds == pytest.approx(seconds)
    assert price.price == pytest.approx(1.15 * (48 / 3600 * (seconds + again) + abrasives))
    assert price.each == pytest.approx(price.price / 5)
    more = 5 * (spread_of_plan(plan).high - plan.seconds_each)
    assert price.high == pytest.approx(price.price + 1.15 * 48 / 3600 * more)


def test_more_pieces_are_cheaper_each_and_never_dearer_in_all() -> None:
    plan = plan_job(plate())
    prices = [price_of(plan, RATES, pieces=one) for one in (1, 5, 20, 100)]
    assert [price.each for price in prices] == sorted((price.each for price in prices), reverse=True)
    assert [price.price for price in prices] == sorted(price.price for price in prices)


def test_what_it_is_made_of_adds_up() -> None:
    price = price_of(plan_job(plate()), RATES, pieces=1)
    shares = drives(price, RATES)
    assert set(shares) == {"work", "setting-up", "around", "abrasives", "going-back", "margin"}
    minute = 48 / 60 / price.price
    assert shares["setting-up"] == pytest.approx(price.setting_up / 60 * minute)
    assert shares["around"] == pytest.approx(price.around / 60 * minute)
    assert shares["work"] == pytest.approx((price.seconds - price.setting_up - price.around) / 60 * minute)
    assert shares["going-back"] == pytest.approx(price.going_back / price.price)
    assert sum(shares.values()) == pytest.approx(1.0)
    assert list(shares.values()) == sorted(shares.values(), reverse=True)
    assert shares["margin"] == pytest.approx(0.15 / 1.15)


def test_a_humbler_finish_is_planned_and_costs_less() -> None:
    job = plate()
    plan = plan_job(job)
    found = simpler_prices(job, plan, RATES, pieces=1)
    now = price_of(plan, RATES, pieces=1).each
    assert found
    assert all(one.each < now for one in found)
    assert [one.each for one in found] == sorted((one.each for one in found), reverse=True)
    for one in found:
        assert one.each == pytest.approx(price_of(plan_job(plate(one.finish.id)), RATES, pieces=1).each)
    assert simpler_prices(plate("paint-ready"), plan_job(plate("paint-ready")), RATES, pieces=1) == ()


def test_a_sample_takes_the_guess_of_the_depth_out() -> None:
    plan = plan_job(plate())
    price = price_of(plan, RATES, pieces=20)
    assert price.seconds < with_a_sample(price, plan) < price.seconds_high
    certain = 1 - dict(spread_of_plan(plan).causes)["depth"]  # causes are shares of a variance, so a width goes with the root
    assert with_a_sample(price, plan) - price.seconds == pytest.approx((price.seconds_high - price.seconds) * certain**0.5)


def test_the_bias_of_the_last_quotes_is_in_the_next() -> None:
    plan = plan_job(plate())
    plain, biased = price_of(plan, RATES, pieces=1), price_of(plan, replace(RATES, bias=1.2), pieces=1)
    for minutes in ("seconds", "seconds_high", "setting_up", "around", "labour", "going_back"):
        assert getattr(biased, minutes) == pytest.approx(1.2 * getattr(plain, minutes)), minutes
    assert biased.abrasives == plain.abrasives  # they wear by the work, not by the clock of who does it
    assert biased.high - biased.price == pytest.approx(1.2 * (plain.high - plain.price))
    assert drives(biased, RATES)["abrasives"] < drives(plain, RATES)["abrasives"]
    assert learnt_bias([1.1, 1.3, 0.9, 1.2]) == pytest.approx(1.15)


def test_the_middle_run_says_the_bias_once_there_are_three() -> None:
    assert learnt_bias([0.8, 1.4]) is None
    assert learnt_bias([0.8, 9.0, 1.4]) == 1.4
    assert learnt_bias([5.0, 1.0, 1.2, 0.9, 1.1]) == 1.1
    with pytest.raises(OutsideValidity, match="ratio 2"):
        learnt_bias([1.0, 0.0, 1.2])


def test_own_operations_and_coats_are_paid() -> None:
    trial = OwnOperation("Run water over it", "after", 300.0, 600.0, check="It runs off in one sheet")
    lacquered = {"part": Part(protect="lacquer")}
    plain, more = plan_job(plate(**lacquered)), plan_job(plate(own_operations=(trial,), coats=3, **lacquered))
    assert more.around > plain.around + 299
    own = next(operation for operation in more.operations if operation.id == "own-1")
    assert (own.when, own.passive, own.check) == ("after", 600.0, "It runs off in one sheet")
    assert more.operations[-1].id == "compare"
    coat = {operation.id: operation for operation in plain.operations}
    coats = {operation.id: operation for operation in more.operations}
    assert coats["lacquer"].passive == pytest.approx(3 * coat["lacquer"].passive)
    assert coats["lacquer"].active > 2 * coat["lacquer"].active


def test_rates_that_are_none_are_refused() -> None:
    for bad in ({"hour": 0.0}, {"margin": -0.1}, {"bias": 0.0}):
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


def test_setting_up_and_what_is_around_grow_with_the_bias_and_with_the_pieces() -> None:
    plan = plan_job(job_of("copper", face("mirror", depth=20), pieces=1))
    one, slow = (price_of(plan, replace(RATES, bias=bias), pieces=6) for bias in (1.0, 1.5))
    assert slow.setting_up == pytest.approx(1.5 * one.setting_up)
    assert one.around == pytest.approx(6 * plan.around)
    assert slow.around == pytest.approx(1.5 * one.around)
