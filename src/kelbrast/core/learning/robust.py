"""A robust estimate with its uncertainty: Huber's M-estimator, shrunk towards a prior where data are few."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import require_above_zero

_ROUNDS = 50
_SETTLED = 1e-12  # in the unit of the values
_TINY = 1e-300  # in place of no distance at all
_MAD_TO_SD = 1.4826  # of a Gaussian


@dataclass(frozen=True, slots=True)
class Estimate:
    """A mean and its standard error, in the unit of the values."""

    mean: float
    error: float


def shrunken_mean(
    values: Sequence[float], *, prior: float, spread: float, noise: float, worth: float, huber: float, towards: float = 0.0
) -> Estimate:
    """The location of the values, robust against gross outliers and drawn towards what was believed before.

    Huber's M-estimator of the values, combined with a Gaussian prior by their precisions. The scale is the median
    absolute deviation, pooled with the expected noise as if that came from so many values of its own, so that two values that
    happen to agree do not look certain.

    Equation: `mean = (n c / s^2 + m / p^2) / (n / s^2 + 1 / p^2)`, sum psi((x - c) / s) = 0 (unit of the values)
    Valid: at least one value, all of them numbers; every scale above 0.

    Args:
        values: in any order, dimensionless.
        prior: p, standard deviation of the prior, dimensionless.
        spread: least scale of the values, dimensionless.
        noise: their expected scale, dimensionless.
        worth: how many values the expected noise counts for, dimensionless.
        towards: m, mean of the prior, dimensionless.
        huber: where the influence of a value stops growing, in scales, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: huber, gelman.

    >>> estimate = shrunken_mean([-0.2] * 14, prior=0.5, spread=0.05, noise=0.2, worth=4, huber=1.345)
    >>> round(estimate.mean, 2), round(estimate.error, 3)
    (-0.2, 0.025)
    >>> one = shrunken_mean([-0.2], prior=0.5, spread=0.05, noise=0.2, worth=4, huber=1.345)
    >>> one.error > estimate.error and abs(one.mean) < abs(estimate.mean)
    True
    """
    require_above_zero(prior=prior, spread=spread, noise=noise, worth=worth, huber=huber)
    if not values or not all(map(math.isfinite, values)):
        raise OutsideValidity("there must be values, and all of them numbers")
    count = len(values)
    # Sorted, so that not even the rounding depends on the order.
    ordered = sorted(values)
    middle = median(ordered)
    deviation = _MAD_TO_SD * median(abs(value - middle) for value in ordered)
    scale = max(spread, math.sqrt((worth * noise**2 + count * deviation**2) / (worth + count)))
    centre = middle
    for _ in range(_ROUNDS):
        weights = [min(1.0, huber * scale / max(abs(value - centre), _TINY)) for value in ordered]
        moved = sum(weight * value for weight, value in zip(weights, ordered, strict=True)) / sum(weights)
        if abs(moved - centre) < _SETTLED:
            break
        centre = moved
    own, before = count / scale**2, 1 / prior**2
    return Estimate((own * centre + before * towards) / (own + before), 1 / math.sqrt(own + before))
