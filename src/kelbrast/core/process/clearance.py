"""The stock to remove before the next grade, in depths of the marks."""

import math
from functools import lru_cache

from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero, require_not_below_zero


def count_of_marks(*, area: float, grain: float) -> float:
    """The number of independent marks on a face.

    Equation: `N = max(1, A / (w l g))`, w l g = 0.03 mm by 30 grains (dimensionless)
    Valid: both above 0.

    Args:
        area: A of the face, m2.
        grain: g of the abrasive that left the marks, m.

    Raises:
        OutsideValidity: outside that.

    Source: gaussian-extremes.

    >>> round(count_of_marks(area=0.01, grain=100e-6))
    111111
    """
    require_above_zero(area=area, grain=grain)
    mark = constant("clearance.mark_width").si * grain * constant("clearance.mark_length_per_grain").value
    return max(1.0, area / mark)


@lru_cache(maxsize=4096)
def area_factor(*, area: float, grain: float) -> float:
    """How much deeper the deepest mark of a face is than its usual depth: more on a big face than on a small one.

    Equation: `m_A = max(1, (sqrt(2 ln N) + 3) / 6.5)` (dimensionless)
    Valid: both above 0.

    Args:
        area: A of the face, m2.
        grain: g of the abrasive that left the marks, m.

    Raises:
        OutsideValidity: outside that.

    Source: gaussian-extremes.

    >>> round(area_factor(area=5e-4, grain=82e-6), 2), round(area_factor(area=1.0, grain=82e-6), 2)  # coin, door
    (1.11, 1.34)
    """
    largest = math.sqrt(2 * math.log(count_of_marks(area=area, grain=grain))) + constant("clearance.largest_offset").value
    return max(1.0, largest / constant("clearance.largest_scale").value)


def marks_left(*, area: float, grain: float, depth: float, layer: float) -> float:
    """How many of a face's marks can be expected to be deeper than the layer that was taken off.

    Equation: `n = N Q(6.5 a / d - 3)`, Q the tail of a Gaussian (dimensionless)
    Valid: area, grain and depth above 0, layer not below 0.

    Args:
        area: of the face, m2.
        grain: of the abrasive that left the marks, m.
        depth: d of its marks as their Rz, m.
        layer: a that was taken off, m.

    Raises:
        OutsideValidity: outside that.

    Source: gaussian-extremes.

    >>> face = dict(area=0.02, grain=82e-6, depth=4e-6)
    >>> marks_left(**face, layer=4e-6) > 5, marks_left(**face, layer=8e-6) < 1e-3
    (True, True)
    """
    require_above_zero(depth=depth)
    require_not_below_zero(layer=layer)
    scale, offset = constant("clearance.largest_scale").value, constant("clearance.largest_offset").value
    deeper = scale * layer / depth - offset
    return count_of_marks(area=area, grain=grain) * math.erfc(deeper / math.sqrt(2)) / 2


@lru_cache(maxsize=4096)
def clearance(*, area: float, grain: float, deformed: float) -> float:
    """The removal multiple: "until the old marks are gone, then the same again" is 2.

    Equation: `m = m_A (1 + s)` (dimensionless)
    Valid: area and grain above 0, deformed not below 0.

    Args:
        area: of the face, m2.
        grain: of the abrasive that left the marks, m.
        deformed: s, the smeared layer that must go too, in depths of the marks, dimensionless (0 under paint, 1 for a mirror).

    Raises:
        OutsideValidity: outside that.

    Source: samuels, gaussian-extremes.

    >>> round(clearance(area=0.02, grain=82e-6, deformed=1.0), 2)
    2.46
    """
    require_not_below_zero(deformed=deformed)
    return area_factor(area=area, grain=grain) * (1 + deformed)
