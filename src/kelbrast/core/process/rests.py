"""When a part that warms as a whole must be put down to cool, and for how long."""

import math
from dataclasses import dataclass

from kelbrast.core.validity import require_above_zero, require_within


@dataclass(frozen=True, slots=True)
class Lump:
    """A part as one warm lump: heat capacity m c (J/K) and the surface that gives heat off (m2)."""

    capacity: float
    surface: float


def work_until_hot(*, lump: Lump, power: float, loss: float, allowed: float) -> float:
    """Work until the part has risen so far from room temperature; infinite when it never does.

    Equation: `t = -tau ln(1 - dT h A / P)`, tau = m c / (h A) (s)
    Valid: every value above 0.

    Args:
        lump: its heat capacity m c, J/K, and surface A, m2.
        power: P into the part, W.
        loss: h, W/m2K.
        allowed: dT, K.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(work_until_hot(lump=half_a_kilo_of_brass, power=67, loss=15, allowed=28))
    88
    >>> work_until_hot(lump=half_a_kilo_of_brass, power=10, loss=15, allowed=28)
    inf
    """
    require_above_zero(power=power, loss=loss, allowed=allowed, capacity=lump.capacity, surface=lump.surface)
    share = allowed * loss * lump.surface / power  # of the rise at which as much is lost as comes in
    return math.inf if share >= 1 else -lump.capacity / (loss * lump.surface) * math.log1p(-share)


def rest(*, lump: Lump, loss: float, left: float) -> float:
    """Rest until only a share of the rise is left.

    Equation: `t = tau ln(1 / p)`, tau = m c / (h A) (s)
    Valid: loss above 0, the share between 0 and 1.

    Args:
        lump: its heat capacity m c, J/K, and surface A, m2.
        loss: h, W/m2K.
        left: p, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(rest(lump=half_a_kilo_of_brass, loss=15, left=0.25)), round(rest(lump=half_a_kilo_of_brass, loss=500, left=0.25))
    (585, 18)
    """
    require_above_zero(loss=loss, left=left, capacity=lump.capacity, surface=lump.surface)
    require_within(0, 1, left=left)
    return lump.capacity / (loss * lump.surface) * math.log(1 / left)
