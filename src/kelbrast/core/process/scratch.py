"""What an abrasive leaves behind, and how many old marks are left, in words: nobody can count them."""

import math
from typing import Final

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within
from kelbrast.core.wording import Sentence, sentence


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


# Up to this share of them, by the keys of `sentences.toml`. Words have no source: these are ours.
_SHARES: Final = (
    (0.004, "few"),
    (0.03, "hundredth"),
    (0.2, "tenth"),
    (0.4, "third"),
    (0.6, "half"),
    (0.9, "most"),
    (1.0, "all"),
)
_NONE: Final = 0.5  # marks; fewer can be expected not to be there
_HANDFUL: Final = 10.0  # marks that one can count on the part


def marks_said(expected: float, share: float) -> Sentence:
    """So many old marks can be expected to be left, in words.

    Equation: none below half a mark, a handful below ten, else by the share (words)
    Valid: their number not below 0, the share between 0 and 1.

    Args:
        expected: their number, dimensionless.
        share: of all there were, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> str(marks_said(0.2, 1e-6)), str(marks_said(4, 1e-5)), str(marks_said(17_000, 0.09)), str(marks_said(3, 1.0))
    ('no old marks', 'a handful of old marks', 'one in ten of the old marks', 'all of the old marks')
    """
    require_not_below_zero(expected=expected)
    require_within(0, 1, share=share)
    if expected < _NONE:
        return sentence("marks.none")
    if share > 0.99:
        return sentence("marks.every")
    if expected < _HANDFUL:
        return sentence("marks.handful")
    return sentence(f"marks.{next(key for most, key in _SHARES if share <= most)}")
