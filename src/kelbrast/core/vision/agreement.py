"""How often person and eye were right in this shop, by the outcomes that are known."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kelbrast.core.validity import require_not_below_zero, require_within

_TWO_SIDED_95: Final = 1.96


@dataclass(frozen=True, slots=True)
class CheckTurnedOut:
    """A light check that was judged by both: whether each said that old marks are left, and whether there were."""

    person: bool
    eye: bool
    left: bool


@dataclass(frozen=True, slots=True)
class Rightness:
    """How often somebody was right: in how many of how many, and between which shares that says the truth lies (95 %)."""

    right: int
    of: int
    low: float
    high: float


def rightness(right: int, of: int) -> Rightness:
    """A share with its interval.

    Equation: Wilson's interval, `(p + z^2/2n +- z sqrt(p(1-p)/n + z^2/4n^2)) / (1 + z^2/n)` (dimensionless)
    Valid: not more right than there were, none below 0; of none it says nothing: 0 to 1.

    Args:
        right: how many, dimensionless.
        of: of how many, n, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: wilson.

    >>> found = rightness(9, 10)
    >>> round(found.low, 2), round(found.high, 2)
    (0.6, 0.98)
    """
    require_not_below_zero(right=right, of=of)
    require_within(0, of, right=right)
    if of == 0:
        return Rightness(0, 0, 0.0, 1.0)
    share, z2 = right / of, _TWO_SIDED_95**2
    middle = share + z2 / (2 * of)
    reach = _TWO_SIDED_95 * math.sqrt(share * (1 - share) / of + z2 / (4 * of**2))
    return Rightness(right, of, (middle - reach) / (1 + z2 / of), (middle + reach) / (1 + z2 / of))


def agreement(checks: Sequence[CheckTurnedOut]) -> dict[str, Rightness]:
    """How often the person and the eye were right, where they said the same and where they did not.

    Equation: shares with Wilson's interval (dimensionless)
    Valid: every number of checks.

    Args:
        checks: light checks of which it is known how they turned out.

    Raises:
        OutsideValidity: never.

    Source: wilson.

    >>> told = agreement([CheckTurnedOut(person=False, eye=True, left=True), CheckTurnedOut(False, False, False)])
    >>> told["person"].right, told["eye"].right, told["together"].of
    (1, 2, 1)
    """
    apart = [check for check in checks if check.person != check.eye]
    together = [check for check in checks if check.person == check.eye]
    return {
        "person": rightness(sum(check.person == check.left for check in checks), len(checks)),
        "eye": rightness(sum(check.eye == check.left for check in checks), len(checks)),
        "together": rightness(sum(check_turned.eye == check_turned.left for check_turned in together), len(together)),
        "person-apart": rightness(sum(check_turned.person == check_turned.left for check_turned in apart), len(apart)),
        "eye-apart": rightness(sum(check_turned.eye == check_turned.left for check_turned in apart), len(apart)),
    }
