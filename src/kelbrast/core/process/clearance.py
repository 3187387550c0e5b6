"""How much must come off before moving on: the clearance m, in depths of the marks."""

import math
from functools import lru_cache

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant


def count_of_marks(*, area: float, grain: float) -> float:
    """N, the number of independent marks of 0.03 mm by 30 grains on a face; at least 1.

    >>> round(count_of_marks(area=0.01, grain=100e-6))
    111111
    """
    if min(area, grain) <= 0:
        raise OutsideValidity("area and grain must be above 0")
    mark = constant("clearance.mark_width").si * grain * constant("clearance.mark_length_per_grain").value
    return max(1.0, area / mark)


@lru_cache(maxsize=4096)
def area_factor(*, area: float, grain: float) -> float:
    """m_area: the deepest mark of a big face is deeper than the deepest of a small one.

    `m_area = max(1, (sqrt(2 ln N) + 3) / 6.5)` with N independent marks of 0.03 mm by 30 grains on the face.

    Args:
        area: of the face, m2.
        grain: of the abrasive that left the marks, m.

    Raises:
        OutsideValidity: a value is not above zero.

    Source: extreme value of a Gaussian height.

    >>> round(area_factor(area=5e-4, grain=82e-6), 2), round(area_factor(area=1.0, grain=82e-6), 2)  # coin, door
    (1.11, 1.34)
    """
    largest = math.sqrt(2 * math.log(count_of_marks(area=area, grain=grain))) + constant("clearance.largest_offset").value
    return max(1.0, largest / constant("clearance.largest_scale").value)


def marks_left(*, area: float, grain: float, depth: float, layer: float) -> float:
    """How many of a face's marks can be expected to be deeper than the layer that was taken off.

    The heights of the marks are Gaussian with `depth` as their Rz, so a mark of depth x stands `6.5 x / depth - 3`
    standard deviations down, and of N marks `N Q(6.5 layer / depth - 3)` are deeper than the layer.

    Args:
        area: of the face, m2.  grain: of the abrasive that left the marks, m.  depth: of its marks, m.  layer: m.

    Source: the same extreme-value model as `area_factor`.

    >>> face = dict(area=0.02, grain=82e-6, depth=4e-6)
    >>> marks_left(**face, layer=4e-6) > 5, marks_left(**face, layer=8e-6) < 1e-3
    (True, True)
    """
    if depth <= 0 or layer < 0:
        raise OutsideValidity("depth must be above 0 and the layer not below 0")
    scale, offset = constant("clearance.largest_scale").value, constant("clearance.largest_offset").value
    deeper = scale * layer / depth - offset
    return count_of_marks(area=area, grain=grain) * math.erfc(deeper / math.sqrt(2)) / 2


@lru_cache(maxsize=4096)
def clearance(*, area: float, grain: float, deformed: float) -> float:
    """m = m_area (1 + d): "until the old marks are gone, then the same again" is m = 2.

    Args:
        deformed: d, the smeared layer that must go too, in depths of the marks (0 under paint, 1 for a mirror).

    >>> round(clearance(area=0.02, grain=82e-6, deformed=1.0), 2)
    2.46
    """
    if deformed < 0:
        raise OutsideValidity("the deformed layer can not be below 0")
    return area_factor(area=area, grain=grain) * (1 + deformed)
