"""What an abrasive leaves behind."""

import math

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si
from kelbrast.core.validity import require_above_zero, require_not_below_zero


def roughness_left(*, grain: float, hold: float, hardness: float, floor: float = 0.0) -> float:
    """Ra left by a grain.

    Equation: `Ra = (H0 / H)^e sqrt((a (g / 1 um)^n c)^2 + f^2)` (m)
    Valid: grain, hold and hardness above 0, the floor not below; fitted over grains of 3 to 200 um.

    Args:
        grain: g, median grain size, m.
        hold: c, how the grain is carried, dimensionless: 1 for a hard backing, less for what gives.
        hardness: H of the work, Pa.
        floor: f, Ra of the lines of the cloth itself at the reference hardness, m.

    Raises:
        OutsideValidity: outside that.

    Source: scratch-fit, practice-fit.

    >>> round(roughness_left(grain=82e-6, hold=1.0, hardness=1.9e9) * 1e6, 3)
    0.724
    """
    require_above_zero(grain=grain, hold=hold, hardness=hardness)
    require_not_below_zero(floor=floor)
    ra_um = constant("scratch.coefficient").value * from_si(grain, "um") ** constant("scratch.exponent").value
    softness = constant("scratch.reference_hardness").si / hardness
    return math.hypot(to_si(ra_um * hold, "um"), floor) * float(softness ** constant("scratch.hardness_exponent").value)


def grain_of_marks(*, depth: float, hardness: float, hold: float = 1.0) -> float:
    """The grain whose marks are this deep: the scratch law the other way round.

    Equation: `g = (d / (r a c (H0 / H)^e))^(1/n) um` (m)
    Valid: every value above 0.

    Args:
        depth: d, of the marks, m.
        hardness: H of the work, Pa.
        hold: c, how the grain is carried, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: scratch-fit.

    >>> depth = depth_of_marks(roughness_left(grain=82e-6, hold=1.0, hardness=1.2e9))
    >>> round(grain_of_marks(depth=depth, hardness=1.2e9) * 1e6, 3)
    82.0
    """
    require_above_zero(depth=depth, hardness=hardness, hold=hold)
    softness = constant("scratch.reference_hardness").si / hardness
    per_grain = hold * softness ** constant("scratch.hardness_exponent").value * constant("scratch.coefficient").value
    ra_um = from_si(depth, "um") / constant("scratch.depth_per_ra").value
    return to_si(float((ra_um / per_grain) ** (1 / constant("scratch.exponent").value)), "um")


def depth_of_marks(ra: float) -> float:
    """Depth of the marks of an abraded surface.

    Equation: `d = r Ra` (m), r = 6: Rz of an abraded surface
    Valid: Ra not below 0; infinite for no roughness that is too much.

    Args:
        ra: Ra, m.

    Raises:
        OutsideValidity: outside that.

    Source: bench-practice.

    >>> round(depth_of_marks(0.5e-6) * 1e6, 6)
    3.0
    """
    if not ra >= 0:
        raise OutsideValidity("Ra must not be below 0, and a number")
    return constant("scratch.depth_per_ra").value * ra
