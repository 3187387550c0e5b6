"""Which cut-off a surface is measured with (ISO 4288), and the noise limit that goes with it (ISO 3274)."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.metrology.parameters import SECTIONS, heights
from kelbrast.core.metrology.profile import Profile, central, roughness_profile
from kelbrast.core.reference.loader import Source, sources, table
from kelbrast.core.units import to_si


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
    """The table, the finest first."""
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


def for_roughness(ra: float) -> CutOff:
    """The row for a surface without a period, by its Ra in m; the coarsest for anything coarser.

    >>> for_roughness(0.5e-6).cut_off, for_roughness(0.05e-6).cut_off
    (0.0008, 0.00025)
    """
    return next((row for row in cut_offs() if ra <= row.ra_high), cut_offs()[-1])


def for_spacing(rsm: float) -> CutOff:
    """The row for periodic marks, by their spacing RSm in m.

    >>> for_spacing(0.2e-3).cut_off
    0.0008
    """
    return next((row for row in cut_offs() if rsm <= row.rsm_high), cut_offs()[-1])


def chosen(profile: Profile) -> CutOff:
    """The row whose own Ra lies within its band, from the finest up; the longest that fits five times into the profile
    when none does. So a surface measured with the row's cut-off confirms the choice, as the standard asks.
    """
    fitting = [row for row in cut_offs() if SECTIONS * row.cut_off <= profile.length]
    for row in fitting:
        rough = central(roughness_profile(profile, cut_off=row.cut_off), SECTIONS * row.cut_off)
        if heights(rough.z, rough.spacing).ra <= row.ra_high:
            return row
    return fitting[-1] if fitting else cut_offs()[0]
