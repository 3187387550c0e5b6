"""Mean and variance of working time: sums of lognormal parts, by their moments."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np

from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero, require_within


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of work (SI): its likely seconds, and by what they vary.

    Attributes:
        seconds: likely seconds on the work.
        kind: stretches of one kind are quick or slow together.
        rate: standard deviation of the logarithm of how quickly the kind cuts; depth: of how deep the marks are.
    """

    seconds: float
    kind: str
    rate: float = 0.0
    depth: float = 0.0


@dataclass(frozen=True, slots=True)
class Scatter:
    """What all stretches share: the hand, as a standard deviation of the logarithm, and light checks that fail.

    Attributes:
        fails: the share of light checks that fail.  again: the share of a stretch that is then worked again.
    """

    hand: float
    fails: float
    again: float


@dataclass(frozen=True, slots=True)
class Moments:
    """Mean (s) and variance (s2) of a sum of stretches."""

    mean: float
    variance: float


def moments(stretches: Sequence[Stretch], scatter: Scatter) -> Moments:
    """Mean and variance of the seconds of all stretches together.

    A stretch takes its likely seconds times a lognormal factor: of the hand, which is the same for all, of its kind, and of the
    depth of its own marks; and where its light check fails a share of it is worked again.

    Equation: `E[T] = sum t_k e^(s_k^2 / 2) (1 + p a)`, `E[T_j T_k] = t_j t_k e^((s_j^2 + s_k^2) / 2 + c_jk) (1 + p a)^2`,
        `s^2 = hand^2 + rate^2 + depth^2`, c_jk what two stretches share of it (s)
    Valid: seconds and deviations not below 0; shares from 0 to 1.

    Args:
        stretches: likely seconds, s, and deviations of logarithms.
        scatter: what they share: a deviation of logarithms, and shares.

    Raises:
        OutsideValidity: outside that.

    Source: fenton, practice-fit.

    >>> sure, spread = Scatter(0.0, 0.0, 0.0), Scatter(0.3, 0.0, 0.0)
    >>> work = [Stretch(60.0, "felt"), Stretch(40.0, "sewn")]
    >>> moments(work, sure) == Moments(100.0, 0.0)
    True
    >>> round(moments(work, spread).mean, 1), round(moments(work, spread).variance ** 0.5)
    (104.6, 32)
    """
    require_not_below_zero(hand=scatter.hand)
    require_within(0, 1, fails=scatter.fails, again=scatter.again)
    if not stretches:
        return Moments(0.0, 0.0)
    seconds, rate, depth = np.array([(stretch.seconds, stretch.rate, stretch.depth) for stretch in stretches]).T
    require_not_below_zero(seconds=seconds, rate=rate, depth=depth)
    numbers = {kind: number for number, kind in enumerate(dict.fromkeys(stretch.kind for stretch in stretches))}
    kinds = np.array([numbers[stretch.kind] for stretch in stretches])
    own = scatter.hand**2 + rate**2 + depth**2
    alike = kinds[:, None] == kinds[None, :]
    shared = scatter.hand**2 + alike * rate[:, None] * rate[None, :] + np.diag(depth**2)
    means: Reals = seconds * np.exp(own / 2)
    once = 1 + scatter.fails * scatter.again
    # A check that fails adds to its own stretch alone: E[(1 + aB)^2] instead of E[1 + aB]^2 on the diagonal.
    checks = once**2 + np.eye(len(seconds)) * scatter.fails * (1 - scatter.fails) * scatter.again**2
    mean = float(means.sum() * once)
    second = float((means[:, None] * means[None, :] * np.exp(shared) * checks).sum())
    return Moments(mean, max(0.0, second - mean**2))


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
