"""Learning from the log: known factors come back from noisy runs, outliers do not swing them, one run teaches nothing."""

import math
import random
from itertools import pairwise
from statistics import mean

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.learning.factors import Learnt, Observation, ShopFactors, factors_of, learn
from kelbrast.core.learning.robust import shrunken_mean
from making import face, plan

WAYS = {"prior": 0.5, "spread": 0.05, "noise": 0.25, "worth": 4, "huber": 1.345}


def runs(truth: float, count: int, chance: random.Random, *, outliers: float = 0.0) -> list[Observation]:
    """Simulated runs with 20 % noise; some of them grossly wrong, five times off either way."""
    found = []
    for run in range(count):
        ratio = truth * chance.lognormvariate(0.0, 0.2)
        if chance.random() < outliers:
            ratio *= chance.choice((5.0, 0.2, 5.0))
        found.append(Observation(run, "paper", "steel", "removal", ratio))
    return found


def one(observations: list[Observation]) -> Learnt:
    (learnt,) = learn(observations)
    return learnt


@pytest.mark.parametrize("truth", [0.6, 0.82, 1.0, 1.4])
@pytest.mark.parametrize("outliers", [0.0, 0.1])
def test_known_factors_come_back_from_noisy_logs(truth, outliers) -> None:
    chance = random.Random(7)
    found = [one(runs(truth, 40, chance, outliers=outliers)) for _ in range(60)]
    assert mean(math.log(each.factor / truth) for each in found) == pytest.approx(0.0, abs=0.04 if outliers == 0 else 0.08)
    inside = sum(abs(math.log(each.factor / truth)) < 2 * each.error / each.factor for each in found)
    assert inside >= 0.85 * len(found)


def test_a_gross_outlier_moves_the_factor_far_less_than_a_mean_would_be_moved() -> None:
    chance = random.Random(3)
    clean = runs(0.8, 14, chance)
    odd = [*clean, Observation(99, "paper", "steel", "removal", 12.0)]
    moved = abs(math.log(one(odd).factor / one(clean).factor))
    mean_moved = abs(mean(math.log(each.ratio) for each in odd) - mean(math.log(each.ratio) for each in clean))
    assert moved < 0.25 * mean_moved


def test_more_data_never_widens_the_interval_on_average() -> None:
    chance = random.Random(11)
    widths = [
        mean(one(runs(0.9, count, chance, outliers=0.05)).error for _ in range(80)) for count in (3, 5, 8, 13, 21, 34, 55)
    ]
    assert all(later < earlier for earlier, later in pairwise(widths))


@settings(max_examples=many(20))
@given(st.lists(st.floats(0.05, 20), min_size=1, max_size=25), st.randoms(use_true_random=False))
def test_the_order_does_not_matter(ratios, chance) -> None:
    told = [Observation(run, "belt", "silver", "life", ratio) for run, ratio in enumerate(ratios)]
    mixed = told.copy()
    chance.shuffle(mixed)
    assert learn(told) == learn(mixed)


def test_never_from_one_run_alone_however_large_its_batch() -> None:
    batch = [Observation(1, "paper", "steel", "removal", 0.5)] * 40
    learnt = one(batch)
    assert (learnt.runs, learnt.enough, learnt.used) == (1, False, False)
    assert factors_of([learnt]) == ShopFactors()
    two = one([*batch, Observation(2, "paper", "steel", "removal", 0.5)])
    assert not two.used


def test_a_batch_counts_as_one_witness() -> None:
    chance = random.Random(5)
    single = runs(1.0, 5, chance)
    batch = [*single, *[Observation(0, "paper", "steel", "removal", single[0].ratio)] * 30]
    assert one(batch) == one(single)


def test_little_data_is_drawn_to_the_published_figure() -> None:
    few = one([Observation(run, "paper", "steel", "removal", 0.5) for run in range(3)])
    many = one([Observation(run, "paper", "steel", "removal", 0.5) for run in range(60)])
    assert 0.5 < many.factor < few.factor < 1
    assert many.error < few.error


def test_switches() -> None:
    told = [Observation(run, "paper", "steel", quantity, 0.8) for run in range(4) for quantity in ("removal", "life")]
    assert {each.quantity for each in learn(told, off=[("paper", "steel", "life")]) if each.used} == {"removal"}
    assert not any(each.used for each in learn(told, everything_off=True))


@given(st.lists(st.floats(-3, 3), min_size=1, max_size=20))
def test_the_estimate_lies_between_the_values_and_the_prior(values) -> None:
    estimate = shrunken_mean(values, **WAYS)
    assert min(0.0, *values) - 1e-9 <= estimate.mean <= max(0.0, *values) + 1e-9
    assert 0 < estimate.error <= WAYS["prior"]


def test_on_clean_values_it_is_the_conjugate_gaussian_update() -> None:
    # hand calculation: precision-weighted mean of the data and the prior, all values within the Huber bend
    values = [0.1, 0.12, 0.08, 0.1]
    estimate = shrunken_mean(values, **WAYS)
    deviation = 1.4826 * 0.01
    scale = math.sqrt((4 * 0.25**2 + 4 * deviation**2) / 8)
    own, prior = 4 / scale**2, 4.0
    assert estimate.mean == pytest.approx(own * 0.1 / (own + prior))
    assert estimate.error == pytest.approx(1 / math.sqrt(own + prior))


def test_no_values_no_estimate() -> None:
    with pytest.raises(OutsideValidity):
        shrunken_mean([], **WAYS)


class TestPlansUseIt:
    """Every later plan is made with the factors, and says so."""

    def test_half_as_quick_takes_twice_as_long_on_what_does_not_dull(self) -> None:
        slow = ShopFactors((("felt", "copper-alloy", "removal", 0.5),))
        before = plan("naval-brass", face("bright", depth=2), rack=("felt-white",))
        after = plan("naval-brass", face("bright", depth=2), rack=("felt-white",), factors=slow)
        assert after.steps[0].time.cut == pytest.approx(2 * before.steps[0].time.cut)

    def test_a_scratch_factor_deepens_what_is_left(self) -> None:
        rough = ShopFactors((("paper", "steel", "scratch", 1.1),))
        before = plan("mild-steel", face("paint-ready"), rack=("paper-p120",))
        after = plan("mild-steel", face("paint-ready"), rack=("paper-p120",), factors=rough)
        assert after.steps[0].marks.after == pytest.approx(1.1 * before.steps[0].marks.after)

    def test_a_shorter_life_needs_more_discs_and_a_life_put_in_by_hand_stands(self) -> None:
        short = ShopFactors((("foam", "copper-alloy", "life", 0.5),))
        before = plan("copper", face("satin", area=0.2), rack=("foam-p600",))
        after = plan("copper", face("satin", area=0.2), rack=("foam-p600",), factors=short)
        assert after.steps[0].use.at_hand > before.steps[0].use.at_hand

    def test_factors_of_another_family_change_nothing(self) -> None:
        other = ShopFactors((("felt", "steel", "removal", 0.5),))
        assert (
            plan("naval-brass", face("bright", depth=2), rack=("felt-white",), factors=other).seconds
            == plan("naval-brass", face("bright", depth=2), rack=("felt-white",)).seconds
        )
