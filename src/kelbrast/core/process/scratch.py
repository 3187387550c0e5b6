"""What an abrasive leaves behind."""

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si


def roughness_left(*, grain: float, hold: float, hardness: float) -> float:
    """Ra left by a grain: `Ra = a (g / um)^n c_hold (H_ref / H)^0.3`.

    Args:
        grain: median grain size, m (0.1 um to 2 mm; fitted over 3 to 200 um).
        hold: how the grain is carried; 1 for a hard backing, less for what gives.
        hardness: of the work, Pa.

    Returns:
        Ra in m.

    Raises:
        OutsideValidity: a value is not above zero.

    Source: fitted to two published tables, see `tests/outside/test_scratch.py`.

    >>> round(roughness_left(grain=82e-6, hold=1.0, hardness=1.9e9) * 1e6, 3)
    0.724
    """
    if min(grain, hold, hardness) <= 0:
        raise OutsideValidity("grain, hold and hardness must be above 0")
    ra_um = constant("scratch.coefficient").value * from_si(grain, "um") ** constant("scratch.exponent").value
    softness = constant("scratch.reference_hardness").si / hardness
    return to_si(ra_um * hold * softness ** constant("scratch.hardness_exponent").value, "um")


def grain_of_marks(*, depth: float, hardness: float, hold: float = 1.0) -> float:
    """The grain in m whose marks are this deep: the scratch law the other way round.

    >>> depth = depth_of_marks(roughness_left(grain=82e-6, hold=1.0, hardness=1.2e9))
    >>> round(grain_of_marks(depth=depth, hardness=1.2e9) * 1e6, 3)
    82.0
    """
    if min(depth, hardness, hold) <= 0:
        raise OutsideValidity("depth, hold and hardness must be above 0")
    softness = constant("scratch.reference_hardness").si / hardness
    per_grain = hold * softness ** constant("scratch.hardness_exponent").value * constant("scratch.coefficient").value
    ra_um = from_si(depth, "um") / constant("scratch.depth_per_ra").value
    return to_si(float((ra_um / per_grain) ** (1 / constant("scratch.exponent").value)), "um")


def depth_of_marks(ra: float) -> float:
    """Depth of the marks of an abraded surface, Rz = 6 Ra (m)."""
    return constant("scratch.depth_per_ra").value * ra
