"""Whether measured values keep a limit (ISO 21920-3, formerly ISO 4288): the 16 % rule, or the maximum rule."""

from collections.abc import Sequence
from typing import Literal

from kelbrast.core.errors import OutsideValidity

Rule = Literal["16%", "max"]
_SHARE = 0.16


def accepted(values: Sequence[float], *, limit: float, rule: Rule = "16%", upper: bool = True) -> bool:
    """Whether a surface is accepted.

    By the 16 % rule no more than 16 % of all values may lie beyond the limit; by the maximum rule none may.

    Args:
        values: one for each section or place that was measured.  limit: upper or lower, in the same unit.

    Raises:
        OutsideValidity: there are no values.

    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4), accepted([0.3, 0.42], limit=0.4)
    (True, False)
    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4, rule="max")
    False
    """
    if not values:
        raise OutsideValidity("nothing was measured, so nothing can be accepted")
    beyond = sum(value > limit if upper else value < limit for value in values)
    return beyond == 0 if rule == "max" else beyond <= _SHARE * len(values)
