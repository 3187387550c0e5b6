"""When a part that warms as a whole must be put down to cool, and for how long."""

import math
from dataclasses import dataclass

from kelbrast.core.errors import OutsideValidity


@dataclass(frozen=True, slots=True)
class Lump:
    """A part as one warm lump: heat capacity m c (J/K) and the surface that gives heat off (m2)."""

    capacity: float
    surface: float


def work_until_hot(*, lump: Lump, power: float, loss: float, allowed: float) -> float:
    """Seconds of work until the part has risen by `allowed` from room temperature; infinite when it never does.

    The lump of `process.heat.lump_rise`, solved for the time: `t = -tau ln(1 - allowed h A / P)`, tau = m c / (h A).

    Args:
        power: W into the part.  loss: h, W/m2K.  allowed: K.

    Raises:
        OutsideValidity: a value is not above zero.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(work_until_hot(lump=half_a_kilo_of_brass, power=67, loss=15, allowed=28))
    88
    >>> work_until_hot(lump=half_a_kilo_of_brass, power=10, loss=15, allowed=28)
    inf
    """
    if min(power, loss, allowed) <= 0:
        raise OutsideValidity("power, loss and allowed rise must be above 0")
    share = allowed * loss * lump.surface / power  # of the rise at which as much is lost as comes in
    return math.inf if share >= 1 else -lump.capacity / (loss * lump.surface) * math.log1p(-share)


def rest(*, lump: Lump, loss: float, left: float) -> float:
    """Seconds until only the share `left` of the rise is left: `tau ln(1 / left)`.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(rest(lump=half_a_kilo_of_brass, loss=15, left=0.25)), round(rest(lump=half_a_kilo_of_brass, loss=500, left=0.25))
    (585, 18)
    """
    if loss <= 0 or not 0 < left < 1:
        raise OutsideValidity("loss must be above 0 and what is left between 0 and 1")
    return lump.capacity / (loss * lump.surface) * math.log(1 / left)
