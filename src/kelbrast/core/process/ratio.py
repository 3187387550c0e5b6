"""How far to jump between two grades: the shop rule of doubling, from the exponents of the models."""

import math

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant


def time_of_descent(*, ratio: float, scratch_exponent: float) -> float:
    """Relative cutting time from a coarse to a fine grain in equal jumps of this ratio, `r^n / ln r`.

    A step from grain r g to g takes a depth that goes as (r g)^n, at a rate that goes as g^p with p close to n, so
    every step takes a time that goes as r^n; and a descent needs 1 / ln r times as many of them.

    Raises:
        OutsideValidity: the ratio is not above 1.
    """
    if ratio <= 1:
        raise OutsideValidity("a jump to a finer grain has a ratio above 1")
    return float(ratio**scratch_exponent / math.log(ratio))


def best_ratio() -> float:
    """The ratio of grain sizes with the shortest descent, e^(1/n): about doubling.

    >>> round(best_ratio(), 2)
    2.29
    """
    return math.exp(1 / constant("scratch.exponent").value)
