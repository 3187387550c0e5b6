"""Which cut-off a surface is measured with (ISO 4288), and the noise limit that goes with it (ISO 3274)."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.metrology.parameters import SECTIONS, heights
from kelbrast.core.metrology.periodic import period_of
from kelbrast.core.metrology.profile import Profile, central, roughness_profile
from kelbrast.core.reference.loader import Source, sources, table
from kelbrast.core.units import to_si
from kelbrast.core.validity import require_above_zero, require_heights


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
        ReadError: the table can not be read.

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
