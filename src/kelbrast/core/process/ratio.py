"""How far to jump between two grades: the shop rule of doubling, from the exponents of the models."""

import math

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant


def time_of_descent(*, ratio: float, scratch_exponent: float, size_exponent: float) -> float:
    """Relative cutting time from a coarse to a fine grain in equal jumps of this ratio.

    A step from grain r g to g takes the depth (r g)^n at the rate g^p, and ln(whole descent) / ln r steps are
    needed: with n close to p, time is `r^n / ln r`.
    """
    if ratio <= 1:
        raise OutsideValidity("a jump to a finer grain has a ratio above 1")
    drift = ratio ** (scratch_exponent - size_exponent)
    return float(ratio**scratch_exponent / math.log(ratio) / math.sqrt(drift))


def best_ratio() -> float:
    """The ratio of grain sizes with the shortest descent, e^(1/n): about doubling.

    >>> round(best_ratio(), 2)
    2.29
    """
    return math.exp(1 / constant("scratch.exponent").value)
