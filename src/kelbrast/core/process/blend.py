"""Blending a lone deep nick: a shallow dish around it instead of lowering the whole face."""

import numpy as np

from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero


def dish_radius(*, depth: float, slope: float) -> float:
    """Radius of a dish that rises evenly from its middle.

    Equation: `r = d / s` (m)
    Valid: both above 0.

    Args:
        depth: d in its middle, m.
        slope: s, rise over run, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(dish_radius(depth=0.3e-3, slope=0.01) * 1e3, 6)  # 1:100 around 0.3 mm
    30.0
    """
    require_above_zero(depth=depth, slope=slope)
    return depth / slope


def dish_volume(*, area: float | Reals, depth: float | Reals) -> Reals:
    """Volume of such a dish: half of the cylinder around it, as of every paraboloid.

    Equation: `V = A d / 2` (m3)
    Valid: neither below 0.

    Args:
        area: A, m2.
        depth: d in its middle, m (broadcast against the area).

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(float(dish_volume(area=np.pi * 0.03**2, depth=0.3e-3)) * 1e9)  # mm3
    424
    """
    require_not_below_zero(area=area, depth=depth)
    volume: Reals = np.asarray(area) * np.asarray(depth) / 2
    return volume
