"""Whether measured values keep a limit (ISO 21920-3, formerly ISO 4288): the 16 % rule, or the maximum rule."""

import math
from collections.abc import Sequence
from typing import Literal

from kelbrast.core.errors import OutsideValidity

AcceptanceRule = Literal["16%", "max"]
_SHARE = 0.16


def accepted(values: Sequence[float], *, limit: float, rule: AcceptanceRule = "16%", upper: bool = True) -> bool:
    """Whether a surface is accepted: by the 16 % rule, or by the maximum rule.

    Equation: `n <= 0.16 N` values beyond the limit of N, or n = 0 (dimensionless)
    Valid: at least one value, all of them numbers.

    Args:
        values: one for each section or place that was measured, m.
        limit: upper or lower, m (or any unit, as long as it is one).
        rule: "16%" or "max".
        upper: whether values above the limit are beyond it, or those below.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4), accepted([0.3, 0.42], limit=0.4)
    (True, False)
    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4, rule="max")
    False
    """
    if not values or not all(map(math.isfinite, (*values, limit))):
        raise OutsideValidity("nothing was measured that is a number, so nothing can be accepted")
    beyond = sum(value > limit if upper else value < limit for value in values)
    return beyond == 0 if rule == "max" else beyond <= _SHARE * len(values)
