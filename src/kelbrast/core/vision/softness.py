"""How soft a photo is, from the lay that it shows."""

import math
from collections.abc import Sequence
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Flags, Reals
from kelbrast.core.vision.spectra import mean_power, turned, waves_of

_FINE, _COARSE = (0.27, 0.33), (0.08, 0.12)  # cycles a pixel
_NOTHING: Final = 1e-9  # of the coarse power


def softness(fields: Sequence[Reals], lay: float) -> float:
    """How much of the fine waves of a lay a photo lost. Noise has no direction: what lies far from the lay is taken off.

    Equation: `Q = ln(p(0.1) / p(0.3))`, p(f) the mean power of waves of f cycles a pixel whose lines lie near the lay less the
    median power of those far from it (dimensionless)
    Valid: one field at least, of 128 pixels each way or more. Where no coarse waves of the lay show, there is nothing to judge
    by: 0.

    Args:
        fields: their contrast, dimensionless.
        lay: direction of the new marks, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> columns = np.mgrid[0:256, 0:256][1]
    >>> sharp = [np.sin(2 * np.pi * f * columns) for f in (0.1, 0.3)]  # they stand upright
    >>> soft = sharp[0] + 0.1 * sharp[1]
    >>> softness([soft], math.pi / 2) - softness([sharp[0] + sharp[1]], math.pi / 2) > 4  # ln 100
    True
    """
    if not len(fields):
        raise OutsideValidity("softness needs one field at least")
    waves = waves_of(_COARSE[0])
    power = np.mean([mean_power(field) for field in fields], axis=0)[waves.used]
    off = np.abs(turned(waves.along, lay))
    near, far = off < eye("soft.near"), off > eye("soft.far")

    def along(ring: Flags) -> float:
        return float(power[ring & near].mean() - np.median(power[ring & far]))

    fine, coarse = (along((waves.size > low) & (waves.size < high)) for low, high in (_FINE, _COARSE))
    if coarse <= 0:
        return 0.0
    return math.log(coarse / max(fine, _NOTHING * coarse))
