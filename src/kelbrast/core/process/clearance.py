"""How much must come off before moving on: the clearance m, in depths of the marks."""

import math

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant


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
    if min(area, grain) <= 0:
        raise OutsideValidity("area and grain must be above 0")
    mark = constant("clearance.mark_width").si * grain * constant("clearance.mark_length_per_grain").value
    count = max(1.0, area / mark)
    largest = math.sqrt(2 * math.log(count)) + constant("clearance.largest_offset").value
    return max(1.0, largest / constant("clearance.largest_scale").value)


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
