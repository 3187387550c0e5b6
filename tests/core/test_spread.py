"""Minutes as a spread: the moments against a simulation, and what narrows or widens it."""

from dataclasses import replace

import numpy as np
import pytest

from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.planning.whole.spread import high_of_face, high_of_steps, spread_of_plan
from kelbrast.core.process.spread import Stretch, moments, stays_below
from kelbrast.core.reference.loader import constant
from making import face, job

DRAWS = 20_000


def drawn(stretches: list[Stretch], seed: int) -> np.ndarray:
    """The seconds of so many jobs, each with its own hand, its kinds, its depths and its light checks."""
    chance = np.random.default_rng(seed)
    shared = {name: chance.standard_normal(DRAWS) for name in sorted({name for one in stretches for name in one.shared})}
    checks = {name: chance.random(DRAWS) for name in sorted({one.check for one in stretches})}
    total = np.zeros(DRAWS)
    for one in stretches:
        logs = sum(amount * shared[name] for name, amount in one.shared.items()) + one.own * chance.standard_normal(DRAWS)
        times = (checks[one.check] < one.times) if one.check else one.times
        total += one.seconds * np.exp(logs) * times
    return total


def failing(seconds: float, shared: dict[str, float], *, chance: float, check: str) -> Stretch:
    """Work that is done again with some chance."""
    return Stretch(seconds, shared, times=chance, times_variance=chance * (1 - chance), check=check)


@pytest.mark.parametrize("seed", range(4))
def test_the_moments_are_those_of_a_simulation(seed: int) -> None:
    hand, pace = {"hand": 0.2}, {"pace": 0.2}
    stretches = [
        Stretch(300.0, {**hand, "paper": 0.22}, 0.35),
        Stretch(200.0, {**hand, "paper": 0.22}),
        Stretch(500.0, {**hand, "felt": 0.1}),
        Stretch(240.0, pace),
        failing(120.0, {**hand, "paper": 0.22}, chance=0.3, check="first"),
        failing(180.0, pace, chance=0.3, check="first"),
        failing(90.0, pace, chance=0.15, check="second"),
    ]
    found, seen = moments(stretches), drawn(stretches, seed)
    assert found.mean == pytest.approx(seen.mean(), rel=0.01)
    assert found.variance == pytest.approx(seen.var(), rel=0.06)
    assert stays_below(found, share=0.9) == pytest.approx(np.quantile(seen, 0.9), rel=0.015)
    assert np.mean(seen < stays_below(found, share=0.9)) == pytest.approx(0.9, abs=0.01)


def test_only_checks_that_fail() -> None:
    # Twice 100 s, each with one chance in four of half of it again: mean 225, variance 2 x 50^2 x 3/16.
    sure = [Stretch(100.0), Stretch(100.0)]
    apart = moments([*sure, *(failing(50.0, {}, chance=0.25, check=check) for check in "ab")])
    assert (apart.mean, apart.variance) == pytest.approx((225.0, 937.5))
    # One check that sends both back varies as one piece of work of 100 s does: 100^2 x 3/16.
    same = moments([*sure, *(failing(50.0, {}, chance=0.25, check="a") for _ in "ab")])
    assert (same.mean, same.variance) == pytest.approx((225.0, 1875.0))


def test_stretches_of_one_kind_vary_together() -> None:
    same = moments([Stretch(100.0, {"a": 0.3}), Stretch(100.0, {"a": 0.3})])
    apart = moments([Stretch(100.0, {"a": 0.3}), Stretch(100.0, {"b": 0.3})])
    assert same.mean == apart.mean
    assert same.variance == pytest.approx(2 * apart.variance)


def test_nine_of_ten_are_above_the_likely_minutes_and_a_whole_spreads_less_than_its_parts() -> None:
    one = face("mirror", depth=40)
    two = plan_job(replace(job("brass", one), faces=(one, replace(face("satin", depth=20), name="two"))))
    whole = spread_of_plan(two)
    faces = [high_of_face(plan, two.job) for plan in two.faces]
    assert two.seconds_each < whole.high < sum(faces)
    steps = [high_of_steps(plan, two.job) for plan in two.faces]
    assert all(
        high > step.time.all
        for plan, highs in zip(two.faces, steps, strict=True)
        for step, high in zip(plan.steps, highs, strict=True)
    )
    assert faces[0] < sum(steps[0])
    assert sum(share for _, share in whole.causes) == pytest.approx(1.0)
    assert [share for _, share in whole.causes] == sorted((share for _, share in whole.causes), reverse=True)


def test_a_deep_guess_is_where_it_comes_from_and_a_known_grade_is_none() -> None:
    unsure = plan_job(job("brass", face("paint-ready", depth=30, worst=120, area=0.5)))
    sure = plan_job(job("brass", face("paint-ready", depth=30, worst=32, area=0.5)))
    graded = plan_job(job("brass", face("mirror", after="P240")))
    assert spread_of_plan(unsure).causes[0][0] == "depth"
    assert dict(spread_of_plan(sure).causes)["depth"] < dict(spread_of_plan(unsure).causes)["depth"]
    assert "depth" not in dict(spread_of_plan(graded).causes)


def test_what_the_log_taught_narrows_it() -> None:
    plain = plan_job(job("brass", face("mirror", after="P240")))
    carriers = {step.tool.carrier.id for step in plain.faces[0].steps}
    family = plain.job.material.family
    known = ShopFactors(errors=tuple((carrier, family, "removal", 0.05) for carrier in carriers))
    vague = ShopFactors(errors=tuple((carrier, family, "removal", 3.0) for carrier in carriers))
    taught = replace(plain, job=replace(plain.job, factors=known))
    assert spread_of_plan(taught).high < spread_of_plan(plain).high
    assert spread_of_plan(replace(plain, job=replace(plain.job, factors=vague))).high == spread_of_plan(plain).high
    assert constant("spread.rate").value > 0.05


def test_nothing_to_do_has_no_spread() -> None:
    kept = plan_job(job("brass", replace(face("mirror", depth=40), keep_off=True)))
    assert spread_of_plan(kept).high == 0.0
    assert spread_of_plan(kept).causes == ()
