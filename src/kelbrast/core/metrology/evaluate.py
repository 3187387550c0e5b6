"""The whole evaluation of a measured profile: form off, filtered, five cut-offs from its middle, parameters."""

from dataclasses import dataclass

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.cutoff import CutOff, chosen, cut_offs
from kelbrast.core.metrology.parameters import SECTIONS, Heights, MaterialRatio, heights, material_ratio
from kelbrast.core.metrology.profile import Profile, central, roughness_profile, without_form
from kelbrast.core.validity import REL_TOL, require_above_zero, require_heights


@dataclass(frozen=True, slots=True)
class Evaluation:
    """What a profile measures (m), and how that was found.

    Attributes:
        section_ra: Ra of each section, for acceptance.
        rough: the roughness profile that was evaluated.  sections: of one cut-off each, fewer than 5 on a short profile.
        cut_off, noise: lambda-c and lambda-s; noise None when nothing was filtered off.  chosen: by the standard, not by hand;
            by_spacing: from the spacing of marks that repeat, and not from Ra.
        degree: of the form that was taken off.
    """

    heights: Heights
    section_ra: tuple[float, ...]
    material_ratio: MaterialRatio
    rough: Profile
    sections: int
    cut_off: float
    noise: float | None
    chosen: bool
    by_spacing: bool
    degree: int


def evaluate(
    profile: Profile,
    *,
    degree: int = 1,
    cut_off: float | None = None,
    noise: float | None = None,
    length: float | None = None,
) -> Evaluation:
    """Evaluate a profile: form off, filtered, and its parameters over five cut-offs from its middle.

    Equation: `z - form -> low pass lambda_s -> high pass lambda_c -> parameters` (m)
    Valid: longer than one cut-off, with height; degree 0 to 12.

    Args:
        profile: as measured, m.
        degree: of the polynomial that is taken off as form, dimensionless.
        cut_off: lambda-c, m; chosen by ISO 4288 when not given.
        noise: lambda-s, m; that which goes with the cut-off when not given, and none where the points lie too far apart for it.
        length: only the central part of this length is used, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920, iso-4288.

    >>> x = np.arange(20_000) * 1e-6
    >>> found = evaluate(Profile(1e-6 * np.sin(2 * np.pi * x / 0.05e-3), 1e-6))
    >>> round(found.heights.ra * 1e6, 2), found.sections  # 2 / pi, less what the filter takes
    (0.63, 5)
    """
    require_heights(profile.z, least=8, what="a profile")
    require_above_zero(
        **{name: one for name, one in (("cut_off", cut_off), ("noise", noise), ("length", length)) if one is not None}
    )
    used = central(profile, length) if length is not None else profile
    flat = without_form(used, degree)
    row, by_spacing = _row(flat, cut_off)
    wanted = cut_off if cut_off is not None else row.cut_off
    limit = noise if noise is not None else _noise(flat, row, wanted)
    # Beside the evaluation length lies at least half a cut-off on each side where there is room for it.
    sections = min(SECTIONS, int(flat.length / wanted + REL_TOL))
    if sections < 1:
        raise OutsideValidity("the profile is shorter than one cut-off")
    rough = roughness_profile(flat, cut_off=wanted, noise=limit)
    part = central(rough, sections * wanted)
    return Evaluation(
        heights=heights(part.z, part.spacing, sections),
        section_ra=tuple(float(np.abs(one - one.mean()).mean()) for one in np.array_split(part.z, sections)),
        material_ratio=material_ratio(part.z),
        rough=part,
        sections=sections,
        cut_off=wanted,
        noise=limit,
        chosen=cut_off is None,
        by_spacing=by_spacing,
        degree=degree,
    )


def _row(flat: Profile, cut_off: float | None) -> tuple[CutOff, bool]:
    if cut_off is None:
        return chosen(flat)
    return min(cut_offs(), key=lambda row: abs(row.cut_off - cut_off)), False


def _noise(flat: Profile, row: CutOff, cut_off: float) -> float | None:
    return row.noise if 2 * flat.spacing <= row.noise * (1 + REL_TOL) and row.noise < cut_off else None
