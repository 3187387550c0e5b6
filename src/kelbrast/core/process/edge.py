"""What breaking or rounding a right-angled edge takes off."""

import math

from kelbrast.core.validity import require_above_zero, require_not_below_zero


def break_volume(*, leg: float, length: float) -> float:
    """The volume of a break at 45 degrees along a right-angled edge.

    Equation: `V = b^2 L / 2` (m3)
    Valid: leg not below 0, length above 0.

    Args:
        leg: b, of the break along either face, m.
        length: L, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(break_volume(leg=0.3e-3, length=0.4) * 1e9, 3)  # mm3
    18.0
    """
    require_not_below_zero(leg=leg)
    require_above_zero(length=length)
    return leg**2 * length / 2


def radius_volume(*, radius: float, length: float) -> float:
    """The volume between a right-angled edge and the radius that it is given.

    Equation: `V = (1 - pi / 4) r^2 L` (m3)
    Valid: radius not below 0, length above 0.

    Args:
        radius: r, m.
        length: L, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(radius_volume(radius=1e-3, length=0.1) * 1e9, 2)  # mm3
    21.46
    """
    require_not_below_zero(radius=radius)
    require_above_zero(length=length)
    return (1 - math.pi / 4) * radius**2 * length
