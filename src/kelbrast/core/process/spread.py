"""Mean and variance of working time: sums of lognormal parts, by their moments."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from statistics import NormalDist

import numpy as np

from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero, require_within


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of work (SI): its likely seconds each time that it is done, and by what they vary.

    Attributes:
        seconds: likely seconds each time.
        shared: by factor, the standard deviation of the logarithm: stretches with one factor are quick or slow together.
        own: the same of what varies this stretch alone.
        times, times_variance: how often it is done, mean and variance.
        check: stretches that the same light checks send back are done equally often; empty for work that is planned.
    """

    seconds: float
    shared: Mapping[str, float] = field(default_factory=dict)
    own: float = 0.0
    times: float = 1.0
    times_variance: float = 0.0
    check: str = ""


@dataclass(frozen=True, slots=True)
class Moments:
    """Mean (s) and variance (s2) of a sum of stretches."""

    mean: float
    variance: float


def moments(stretches: Sequence[Stretch]) -> Moments:
    """Mean and variance of the seconds of all stretches together.

    A stretch takes its likely seconds as often as it is done, times a lognormal factor for everything that it varies by.

    Equation: `E[T_j] = n_j t_j e^(s_j^2 / 2)`, `E[T_j T_k] = E[T_j] E[T_k] e^(c_jk) (1 + v_jk / (n_j n_k))`,
        `s_j^2 = own_j^2 + sum shared_j^2`, c_jk what two stretches share of it, v_jk how their numbers vary together (s)
    Valid: seconds, deviations, times and their variance not below 0.

    Args:
        stretches: likely seconds, s, and deviations of logarithms.

    Raises:
        OutsideValidity: outside that.

    Source: fenton, practice-fit.

    >>> moments([Stretch(60.0), Stretch(40.0)]) == Moments(100.0, 0.0)
    True
    >>> spread = moments([Stretch(60.0, {"hand": 0.3}), Stretch(40.0, {"hand": 0.3})])
    >>> round(spread.mean, 1), round(spread.variance ** 0.5)
    (104.6, 32)
    """
    done = [stretch for stretch in stretches if stretch.times > 0]
    if not done:
        return Moments(0.0, 0.0)
    seconds, own, times, variance = np.array([(one.seconds, one.own, one.times, one.times_variance) for one in done]).T
    # Hundreds of faces are thousands of stretches, which share few patterns of factors: pairs are summed by pattern.
    patterns = {pattern: at for at, pattern in enumerate(dict.fromkeys(frozenset(one.shared.items()) for one in done))}
    pattern_of = np.array([patterns[frozenset(one.shared.items())] for one in done])
    factors = {factor: number for number, factor in enumerate(dict.fromkeys(name for one in done for name in one.shared))}
    shared = np.zeros((len(patterns), len(factors)))
    for pattern, row in patterns.items():
        for name, amount in pattern:
            shared[row, factors[name]] = amount
    require_not_below_zero(seconds=seconds, deviation=own, shared=shared, times=times, variance=variance)
    common: Reals = np.exp(shared @ shared.T)
    of_itself = np.diag(common)[pattern_of]  # e to what a stretch shares with itself, without its own
    means: Reals = times * seconds * np.sqrt(of_itself * np.exp(own**2))
    sent_back = means * np.sqrt(variance) / times
    checks = {check: at for at, check in enumerate(dict.fromkeys(one.check or str(at) for at, one in enumerate(done)))}
    check_of = np.array([checks[one.check or str(at)] for at, one in enumerate(done)])
    by_pattern, by_check = np.zeros(len(patterns)), np.zeros((len(checks), len(patterns)))
    np.add.at(by_pattern, pattern_of, means)
    np.add.at(by_check, (check_of, pattern_of), sent_back)
    pairs = by_pattern @ common @ by_pattern + ((by_check @ common) * by_check).sum()
    alone = ((means**2 + sent_back**2) * of_itself * np.expm1(own**2)).sum()
    mean = float(means.sum())
    return Moments(mean, max(0.0, float(pairs + alone) - mean**2))


def stays_below(found: Moments, *, share: float) -> float:
    """The seconds below which this share of the sums stays: those of the lognormal with the same mean and variance.

    Equation: `q = e^(m + s z)`, `s^2 = ln(1 + V / M^2)`, `m = ln M - s^2 / 2`, z the quantile of the normal distribution (s)
    Valid: the mean above 0, the variance not below 0, the share between 0 and 1 (0.001 to 0.999).

    Args:
        found: mean, s, and variance.
        share: of all sums, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: fenton.

    >>> round(stays_below(Moments(100.0, 0.0), share=0.9)), round(stays_below(Moments(100.0, 900.0), share=0.9))
    (100, 140)
    """
    require_above_zero(mean=found.mean)
    require_not_below_zero(variance=found.variance)
    require_within(0.001, 0.999, share=share)
    spread = math.log1p(found.variance / found.mean**2)
    return math.exp(math.log(found.mean) - spread / 2 + math.sqrt(spread) * NormalDist().inv_cdf(share))
