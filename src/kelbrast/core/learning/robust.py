"""A robust estimate with its uncertainty: Huber's M-estimator, drawn to a prior as far as there is little data."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from kelbrast.core.errors import OutsideValidity

_ROUNDS = 50
_MAD_TO_SD = 1.4826  # of a Gaussian


@dataclass(frozen=True, slots=True)
class Estimate:
    """A mean and its standard error, in the unit of the values."""

    mean: float
    error: float


def shrunken_mean(
    values: Sequence[float], *, prior: float, spread: float, noise: float, worth: float, huber: float
) -> Estimate:
    """The location of the values, robust against gross outliers and drawn to 0.

    Huber's M-estimator (P. J. Huber, Ann. Math. Statist. 35 (1964) 73) of the values, combined with a Gaussian prior around
    0 by their precisions (the conjugate Gaussian update: A. Gelman and others, Bayesian Data Analysis, chapter 2). The
    scale is the median absolute deviation, pooled with the expected noise as if that came from `worth` values of its own,
    so that two values that happen to agree do not look certain.

    Args:
        values: at least one, in any order.
        prior: standard deviation of the prior, above 0.
        spread: least scale of the values, above 0.  noise: their expected scale.
        worth: how many values the expected noise counts for.
        huber: where the influence of a value stops growing, in scales.

    Raises:
        OutsideValidity: no values, or a scale that is not above 0.

    >>> estimate = shrunken_mean([-0.2] * 14, prior=0.5, spread=0.05, noise=0.2, worth=4, huber=1.345)
    >>> round(estimate.mean, 2), round(estimate.error, 3)
    (-0.2, 0.025)
    >>> one = shrunken_mean([-0.2], prior=0.5, spread=0.05, noise=0.2, worth=4, huber=1.345)
    >>> one.error > estimate.error and abs(one.mean) < abs(estimate.mean)
    True
    """
    if not values or min(prior, spread, noise, worth, huber) <= 0:
        raise OutsideValidity("there must be values, and every scale must be above 0")
    count = len(values)
    # Sorted, so that not even the rounding depends on the order.
    ordered = sorted(values)
    middle = median(ordered)
    deviation = _MAD_TO_SD * median(abs(value - middle) for value in ordered)
    scale = max(spread, math.sqrt((worth * noise**2 + count * deviation**2) / (worth + count)))
    centre = middle
    for _ in range(_ROUNDS):
        weights = [min(1.0, huber * scale / max(abs(value - centre), 1e-300)) for value in ordered]
        moved = sum(weight * value for weight, value in zip(weights, ordered, strict=True)) / sum(weights)
        if abs(moved - centre) < 1e-12:
            break
        centre = moved
    own, before = count / scale**2, 1 / prior**2
    return Estimate(own * centre / (own + before), 1 / math.sqrt(own + before))
