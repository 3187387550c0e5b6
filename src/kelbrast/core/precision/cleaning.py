"""What share of an oval can be cleaned: a lap takes the narrow side of a bore first, the wide one of a shaft."""

import math

from kelbrast.core.validity import require_not_below_zero, require_numbers


def cleaned_share(*, grown: float, oval: float) -> float:
    """The share of the circumference that a round lap has touched.

    Equation: `s = 1 - arccos(c) / pi`, c = 2 g / oval held to -1 .. 1 (dimensionless)
    Valid: oval not below 0.

    Args:
        grown: g, the lap's diameter less the mean of the section as it was, m; of a shaft the mean less the lap's.
        oval: largest less smallest diameter, m; without one all is touched at once.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> round(cleaned_share(grown=25e-6, oval=75e-6), 3), cleaned_share(grown=0.0, oval=75e-6)
    (0.732, 0.5)
    """
    require_numbers(grown=grown)
    require_not_below_zero(oval=oval)
    if oval == 0:
        return 1.0 if grown >= 0 else 0.0
    return 1 - math.acos(min(1.0, max(-1.0, 2 * grown / oval))) / math.pi


def oval_left(*, grown: float, oval: float) -> float:
    """What is left of the oval: the wide side has not been touched until the lap gets there.

    Equation: `o' = max(0, min(oval, oval / 2 - g))` (m)
    Valid: oval not below 0.

    Args:
        grown: g, as in `cleaned_share`, m.
        oval: as it was, m.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> round(1e6 * oval_left(grown=25e-6, oval=75e-6), 1)
    12.5
    """
    require_numbers(grown=grown)
    require_not_below_zero(oval=oval)
    return max(0.0, min(oval, oval / 2 - grown))


def clipped(c: float) -> tuple[float, float]:
    """Mean and second harmonic of a section that a lap has cut round down to c of its half oval.

    Equation: `mean = c s + sqrt(1 - c^2) / pi`, `amplitude = (1 - s) - c sqrt(1 - c^2) / pi`, with
        s = 1 - arccos(c) / pi (half ovals)
    Valid: c between -1 and 1.

    Args:
        c: where the lap stands between the narrow side (-1) and the wide one (1), dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> [round(one, 3) for one in clipped(0.5)]
    [0.609, 0.196]
    """
    require_not_below_zero(left=1 - abs(c))
    share, root = 1 - math.acos(c) / math.pi, math.sqrt(1 - c * c)
    return c * share + root / math.pi, (1 - share) - c * root / math.pi
