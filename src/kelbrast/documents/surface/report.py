"""What a measured surface comes to, in the units of the files."""

import math
from typing import Literal

from pydantic import BaseModel, Field

from kelbrast.core.metrology.areal import HeightMap, areal, finer_than
from kelbrast.core.metrology.areal import without_form as without_form_of_map
from kelbrast.core.metrology.evaluate import Evaluation, evaluate
from kelbrast.core.metrology.optics import reflected_share
from kelbrast.core.metrology.parameters import curve, material_ratio
from kelbrast.core.metrology.profile import Profile
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import to_si
from kelbrast.documents.common.fields import shop, shop_or_none
from kelbrast.documents.surface.measured.points import Surface

_DRAWN = 600  # points of a profile that are drawn


class MeasureFile(BaseModel):
    """A measured profile: parameters over the evaluation length, and how they were found.

    `Mr1`, `Mr2` in per cent. `reflected`: the share of green light (0.55 um) in per cent that is reflected as by a mirror,
    straight on, and `gloss` the same at 60 degrees, as far as the roughness decides them. `cut_off_chosen`: by the standard,
    not by hand; `cut_off_by_spacing`: from the spacing of marks that repeat. `sections`: fewer than 5 on a short profile.
    """

    kind: Literal["profile"] = "profile"
    Ra_um: float
    Rq_um: float
    Rz_um: float
    Rt_um: float
    Rp_um: float
    Rv_um: float
    Rsk: float
    Rku: float
    Ra_sections_um: list[float]
    RSm_um: float | None
    Rk_um: float
    Rpk_um: float
    Rvk_um: float
    Mr1: float
    Mr2: float
    reflected: float
    gloss: float
    lambda_c_mm: float
    lambda_s_um: float | None
    cut_off_chosen: bool
    cut_off_by_spacing: bool
    form_degree: int
    sections: int
    evaluation_mm: float
    points: int
    profile: list[tuple[float, float]] = Field(description="what was evaluated, for drawing: place in mm, height in um")
    bearing: list[tuple[float, float]] = Field(description="the material ratio curve: material in per cent, height in um")


class MeasureMapFile(BaseModel):
    """A measured map. `Sdr` in per cent."""

    kind: Literal["map"] = "map"
    Sa_um: float
    Sq_um: float
    Sz_um: float
    Ssk: float
    Sku: float
    Sdr: float
    Sk_um: float
    Spk_um: float
    Svk_um: float
    form_degree: int
    rows: int
    columns: int
    spacing_um: tuple[float, float]


def measure(
    surface: Surface,
    *,
    form: int = 1,
    lambda_s_um: float | None = None,
    lambda_c_mm: float | None = None,
    length_mm: float | None = None,
) -> MeasureFile | MeasureMapFile:
    """Evaluate a measured surface.

    Raises:
        OutsideValidity: it is too short, or cannot be evaluated so.
    """
    if isinstance(surface, HeightMap):
        return _map(surface, min(form, 2), to_si(lambda_c_mm, "mm") if lambda_c_mm is not None else None)
    evaluation = evaluate(
        surface,
        degree=form,
        cut_off=to_si(lambda_c_mm, "mm") if lambda_c_mm is not None else None,
        noise=to_si(lambda_s_um, "um") if lambda_s_um is not None else None,
        length=to_si(length_mm, "mm") if length_mm is not None else None,
    )
    return _profile(evaluation)


def _profile(found: Evaluation) -> MeasureFile:
    of, rough, core = found.heights, found.rough, found.material_ratio
    return MeasureFile(
        Ra_um=shop(of.ra, "um"),
        Rq_um=shop(of.rq, "um"),
        Rz_um=shop(of.rz, "um"),
        Rt_um=shop(of.rt, "um"),
        Rp_um=shop(of.rp, "um"),
        Rv_um=shop(of.rv, "um"),
        Rsk=shop(of.rsk, "1"),
        Rku=shop(of.rku, "1"),
        Ra_sections_um=[shop(ra, "um") for ra in found.section_ra],
        RSm_um=shop_or_none(of.rsm, "um"),
        Rk_um=shop(core.rk, "um"),
        Rpk_um=shop(core.rpk, "um"),
        Rvk_um=shop(core.rvk, "um"),
        Mr1=shop(100 * core.mr1, "1"),
        Mr2=shop(100 * core.mr2, "1"),
        reflected=_reflected(of.rq, 0.0),
        gloss=_reflected(of.rq, math.pi / 3),
        lambda_c_mm=shop(found.cut_off, "mm"),
        lambda_s_um=shop_or_none(found.noise, "um"),
        cut_off_chosen=found.chosen,
        cut_off_by_spacing=found.by_spacing,
        form_degree=found.degree,
        sections=found.sections,
        evaluation_mm=shop(rough.length, "mm"),
        points=len(rough.z),
        profile=_drawn(rough),
        bearing=[(shop(100 * share, "1"), shop(z, "um")) for share, z in zip(*curve(rough.z), strict=True)],
    )


def _reflected(rq: float, angle: float) -> float:
    wavelength = constant("gloss.wavelength").si
    return shop(round(100 * reflected_share(rq=rq, wavelength=wavelength, angle=angle), 4), "1")


def _map(surface: HeightMap, degree: int, cut_off: float | None) -> MeasureMapFile:
    flat = without_form_of_map(surface.z, degree)
    if cut_off is not None:
        flat = finer_than(flat, surface.spacing, cut_off)
    of, core = areal(flat, surface.spacing), material_ratio(flat.ravel())
    return MeasureMapFile(
        Sa_um=shop(of.sa, "um"),
        Sq_um=shop(of.sq, "um"),
        Sz_um=shop(of.sz, "um"),
        Ssk=shop(of.ssk, "1"),
        Sku=shop(of.sku, "1"),
        Sdr=shop(100 * of.sdr, "1"),
        Sk_um=shop(core.rk, "um"),
        Spk_um=shop(core.rpk, "um"),
        Svk_um=shop(core.rvk, "um"),
        form_degree=degree,
        rows=surface.z.shape[0],
        columns=surface.z.shape[1],
        spacing_um=(shop(surface.spacing[0], "um"), shop(surface.spacing[1], "um")),
    )


def _drawn(rough: Profile) -> list[tuple[float, float]]:
    """No more points than can be drawn, the highest and the lowest of each stretch, so that no peak is lost."""
    stretch = max(1, len(rough.z) // (_DRAWN // 2))
    found: list[tuple[float, float]] = []
    for start in range(0, len(rough.z), stretch):
        part = rough.z[start : start + stretch]
        for at in sorted({int(part.argmin()), int(part.argmax())}):
            found.append((shop((start + at) * rough.spacing, "mm"), shop(float(part[at]), "um")))
    return found
