"""Whether marks repeat, as turned, milled and brushed ones do, and how far apart they are."""

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero, require_heights


def period_of(z: Reals, spacing: float) -> float | None:
    """The distance after which a profile repeats itself; None where it does not.

    The autocorrelation of a profile that repeats comes back near its start after one period; of ground or polished marks it
    stays small once it has fallen. It must come back to `metrology.periodic` of R(0) within a quarter of the profile, so that
    four repeats were seen.

    Equation: `R(k) = sum z(x) z(x + k) / (n - k)` (m2)
    Valid: at least 16 heights, all numbers; spacing above 0.

    Args:
        z: heights, m; the mean is taken off.
        spacing: m.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> x = np.arange(4000) * 1e-6
    >>> round((period_of(np.sin(2 * np.pi * x / 0.2e-3), 1e-6) or 0) * 1e3, 3)
    0.2
    >>> period_of(np.random.default_rng(1).standard_normal(4000), 1e-6) is None
    True
    """
    require_above_zero(spacing=spacing)
    require_heights(z, least=16, what="a period")
    z = z - z.mean()
    count, lags = len(z), len(z) // 4
    power = np.abs(np.fft.rfft(z, 2 * count)) ** 2
    likeness = np.fft.irfft(power)[:lags] / (count - np.arange(lags))
    fallen = np.flatnonzero(likeness <= 0)
    if fallen.size == 0:
        return None
    again = int(fallen[0] + likeness[fallen[0] :].argmax())
    comes_back = likeness[again] >= constant("metrology.periodic").value * likeness[0]
    return spacing * _first_peak(likeness, int(fallen[0]), again) if comes_back else None


def _first_peak(likeness: Reals, begin: int, highest: int) -> int:
    """The first of the peaks that are nearly as high as the highest: multiples of a period are as like as the period itself."""
    inner = likeness[begin : highest + 1]
    peaks = np.flatnonzero((inner[1:-1] >= inner[:-2]) & (inner[1:-1] >= inner[2:])) + 1
    high = [int(place) for place in peaks if inner[place] >= constant("metrology.as_like").value * likeness[highest]]
    return begin + high[0] if high else highest
