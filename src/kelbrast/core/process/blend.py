"""Blending a lone deep nick: a shallow dish around it instead of lowering the whole face."""

import math

from kelbrast.core.errors import OutsideValidity


def dish_radius(*, depth: float, slope: float) -> float:
    """Radius in m of a dish that is `depth` deep in its middle and rises with this slope.

    >>> round(dish_radius(depth=0.3e-3, slope=0.01) * 1e3, 6)  # 1:100 around 0.3 mm
    30.0
    """
    if min(depth, slope) <= 0:
        raise OutsideValidity("depth and slope must be above 0")
    return depth / slope


def dish_volume(*, depth: float, slope: float) -> float:
    """Volume in m3 of such a dish, `pi r^2 depth / 2`: half of the cylinder around it.

    >>> round(dish_volume(depth=0.3e-3, slope=0.01) * 1e9)  # mm3
    424
    """
    return math.pi * dish_radius(depth=depth, slope=slope) ** 2 * depth / 2
