"""Cut-off and noise limit of a measured surface (ISO 4288, ISO 3274), and whether its profile is periodic."""

from dataclasses import dataclass
from functools import cache

import numpy as np

from kelbrast.core.metrology.parameters import SECTIONS, heights
from kelbrast.core.metrology.profile import Profile, central, roughness_profile
from kelbrast.core.reference.loader import Source, constant, sources, table
from kelbrast.core.units import to_si
from kelbrast.core.validity import Reals, require_above_zero, require_heights


@dataclass(frozen=True, slots=True)
class CutOff:
    """A row of the table (m): for Ra, or for the spacing of periodic marks, up to these."""

    ra_high: float
    rsm_high: float
    cut_off: float
    noise: float
    source: Source


@cache
def cut_offs() -> tuple[CutOff, ...]:
    """The table of cut-offs, the finest first.

    Equation: one row per band of Ra and of RSm: lambda-c and lambda-s (m)
    Valid: always.

    Raises:
        ReadError: the table cannot be read.

    Source: iso-4288.

    >>> [round(row.cut_off * 1e3, 2) for row in cut_offs()]
    [0.08, 0.25, 0.8, 2.5, 8.0]
    """
    return tuple(
        CutOff(
            ra_high=to_si(float(row["ra_high_um"]), "um"),
            rsm_high=to_si(float(row["rsm_high_mm"]), "mm"),
            cut_off=to_si(float(row["cut_off_mm"]), "mm"),
            noise=to_si(float(row["noise_um"]), "um"),
            source=sources()[row["source"]],
        )
        for row in table("cutoffs")
    )


def for_spacing(rsm: float) -> CutOff:
    """The row for periodic marks; the coarsest for anything wider.

    Equation: the first row with RSm <= its upper end (m)
    Valid: above 0.

    Args:
        rsm: RSm, their spacing, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-4288.

    >>> for_spacing(0.2e-3).cut_off
    0.0008
    """
    require_above_zero(rsm=rsm)
    return next((row for row in cut_offs() if rsm <= row.rsm_high), cut_offs()[-1])


def chosen(profile: Profile) -> tuple[CutOff, bool]:
    """The row that the standard asks for, and whether the spacing of periodic marks chose it.

    Periodic marks (turned, milled, brushed) are measured by their spacing. Others by their Ra: the row whose own Ra lies within
    its band, from the finest up, so that a surface measured with the row's cut-off confirms the choice, as the standard asks.
    No row is longer than fits five times into the profile, where any does.

    Equation: `RSm <= RSm_high` for marks that repeat, else `Ra(lambda_c) <= Ra_high` (m)
    Valid: heights that are numbers.

    Args:
        profile: without its form, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-4288.

    >>> import numpy as np
    >>> x = np.arange(20_000) * 1e-6
    >>> row, by_spacing = chosen(Profile(1e-6 * np.sin(2 * np.pi * x / 0.2e-3), 1e-6))
    >>> row.cut_off, by_spacing
    (0.0008, True)
    """
    require_heights(profile.z, least=8, what="a profile")
    fitting = [row for row in cut_offs() if SECTIONS * row.cut_off <= profile.length]
    if not fitting:
        return cut_offs()[0], False
    if (spacing := _spacing(profile, fitting[-1])) is not None:
        return min(for_spacing(spacing), fitting[-1], key=lambda row: row.cut_off), True
    for row in fitting:
        rough = central(roughness_profile(profile, cut_off=row.cut_off), SECTIONS * row.cut_off)
        if heights(rough.z, rough.spacing).ra <= row.ra_high:
            return row, False
    return fitting[-1], False


def _spacing(profile: Profile, longest: CutOff) -> float | None:
    """How far apart periodic marks are, m; what is wider than the longest cut-off is waviness and no mark."""
    rough = central(roughness_profile(profile, cut_off=longest.cut_off), SECTIONS * longest.cut_off)
    return period_of(rough.z, rough.spacing)


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
