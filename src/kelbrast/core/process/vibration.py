"""Hand-arm vibration of tools that are held: points of a day against the action and the limit value."""

from typing import Literal

from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_not_below_zero

Exposure = Literal["below", "action", "limit"]


def vibration_points(*, vibration: float, seconds: float) -> float:
    """Points of hand-arm vibration: a hundred are the action value of 2.5 m/s2 over eight hours, four hundred the limit of 5.

    Equation: `p = 100 (a / 2.5)^2 t / 8 h` (points)
    Valid: vibration and time not below 0.

    Args:
        vibration: a, frequency-weighted, of the tool in the hand, m/s2.
        seconds: t, with the hand on it, s.

    Raises:
        OutsideValidity: outside that.

    Source: hand-arm.

    >>> round(vibration_points(vibration=2.5, seconds=8 * 3600)), round(vibration_points(vibration=10, seconds=3600))
    (100, 200)
    """
    require_not_below_zero(vibration=vibration, seconds=seconds)
    action, over = constant("day.action_value").si, constant("day.exposure_over").si
    return 100 * (vibration / action) ** 2 * seconds / over


def exposure_of(points: float) -> Exposure:
    """Return where points of a day stand: below the action value, above it, or above the limit value.

    Equation: `p <= 100, p <= 400, p > 400` (points)
    Valid: not below 0.

    Args:
        points: p, of one person in a day, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: hand-arm.

    >>> [exposure_of(points) for points in (80, 150, 500)]
    ['below', 'action', 'limit']
    """
    require_not_below_zero(points=points)
    if points > 400:
        return "limit"
    return "action" if points > 100 else "below"
