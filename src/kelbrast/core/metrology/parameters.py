"""Height and spacing parameters of a roughness profile (ISO 21920-2, with the sections of ISO 4287), the material ratio curve
(formerly ISO 13565-2), and acceptance."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import REL_TOL, Reals, require_above_zero, require_heights, require_not_below_zero, require_within

SECTIONS: Final = 5
_HEIGHT_NOISE: Final = 0.1  # of Rz: a peak or valley smaller than this is none (ISO 4287)
_SPACING_NOISE: Final = 0.01  # of the section


@dataclass(frozen=True, slots=True)
class Heights:
    """Parameters of a profile over its evaluation length; lengths in m.

    Attributes:
        rz, rp, rv: of the sections on average: peak to valley, peak, valley.  rt: peak to valley of all.
        rsk, rku: skewness and kurtosis (3 for Gaussian heights).
        rsm: mean width of the profile elements; None when there is no full one.
    """

    ra: float
    rq: float
    rz: float
    rt: float
    rp: float
    rv: float
    rsk: float
    rku: float
    rsm: float | None


def heights(z: Reals, spacing: float, sections: int = SECTIONS) -> Heights:
    """Height and spacing parameters of a roughness profile; the mean is taken off.

    Equation: `Ra = mean |z|, Rq = sqrt(mean z^2), Rsk = mean z^3 / Rq^3, Rku = mean z^4 / Rq^4` (m, 1)
    Valid: at least 8 points a section that differ, all numbers; spacing above 0.

    Args:
        z: heights, m.
        spacing: m.
        sections: of one cut-off each, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> x = np.arange(5000) / 1000
    >>> sine = heights(np.sin(2 * np.pi * x), 1e-3)
    >>> round(sine.ra, 4), round(sine.rq, 4), round(sine.rz, 3), round(sine.rku, 3), round(sine.rsm or 0, 3)
    (0.6366, 0.7071, 2.0, 1.5, 1.0)
    """
    require_above_zero(spacing=spacing, sections=sections)
    require_heights(z, least=8 * sections, what="a profile")
    z = z - z.mean()
    rq = float(np.sqrt((z**2).mean()))
    if rq == 0:
        raise OutsideValidity("the profile has no height at all")
    parts = np.array_split(z, sections)
    rp, rv = float(np.mean([part.max() for part in parts])), float(np.mean([-part.min() for part in parts]))
    return Heights(
        ra=float(np.abs(z).mean()),
        rq=rq,
        rz=rp + rv,
        rt=float(z.max() - z.min()),
        rp=rp,
        rv=rv,
        rsk=float((z**3).mean() / rq**3),
        rku=float((z**4).mean() / rq**4),
        rsm=mean_width(z, spacing, height=_HEIGHT_NOISE * (rp + rv), least=_SPACING_NOISE * len(z) * spacing / sections),
    )


def mean_width(z: Reals, spacing: float, *, height: float, least: float) -> float | None:
    """The mean width of the profile elements, from one crossing upwards to the next; None without two such crossings.

    An element is a peak and the valley after it, each beyond a height from the mean line and no narrower than the least.

    Equation: `RSm = (x_last - x_first) / n` (m)
    Valid: spacing above 0, height and least not below 0, heights that are numbers.

    Args:
        z: heights from the mean line, m.
        spacing: of the points, m.
        height: that a peak or valley must pass, m.
        least: width of an element, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> x = np.arange(5000) * 1e-6
    >>> round((mean_width(np.sin(2 * np.pi * x / 0.25e-3), 1e-6, height=0.1, least=0.0) or 0) * 1e3, 3)
    0.25
    """
    require_above_zero(spacing=spacing)
    require_not_below_zero(height=height, least=least)
    require_heights(z, least=1, what="a profile")
    crossings: list[float] = []
    for place in np.flatnonzero(np.diff(np.signbit(z))):
        upwards = z[place] < z[place + 1]
        run = z[(round(crossings[-1] / spacing) if crossings else 0) : place + 1]
        full = run.size > 0 and run.max() > height and run.min() < -height  # a peak and a valley since the last one
        at = spacing * (place + z[place] / (z[place] - z[place + 1]))
        if upwards and (not crossings or (full and at - crossings[-1] >= least)):
            crossings.append(at)
    if len(crossings) < 2:
        return None
    return float((crossings[-1] - crossings[0]) / (len(crossings) - 1))


AcceptanceRule = Literal["16%", "max"]
_SHARE = 0.16


def accepted(values: Sequence[float], *, limit: float, rule: AcceptanceRule = "16%", upper: bool = True) -> bool:
    """Whether a surface is accepted: by the 16 % rule, or by the maximum rule.

    Equation: `n <= 0.16 N` values beyond the limit of N, or n = 0 (dimensionless)
    Valid: at least one value, all of them numbers.

    Args:
        values: one for each section or place that was measured, m.
        limit: upper or lower, m (or any unit, as long as it is one).
        rule: "16%" or "max".
        upper: whether values above the limit are beyond it, or those below.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4), accepted([0.3, 0.42], limit=0.4)
    (True, False)
    >>> accepted([0.3, 0.35, 0.42, 0.3, 0.31, 0.3, 0.33], limit=0.4, rule="max")
    False
    """
    if not values or not all(map(math.isfinite, (*values, limit))):
        raise OutsideValidity("nothing was measured that is a number, so nothing can be accepted")
    beyond = sum(value > limit if upper else value < limit for value in values)
    return beyond == 0 if rule == "max" else beyond <= _SHARE * len(values)


WINDOW: Final = 0.4  # share of the curve over which it is flattest


@dataclass(frozen=True, slots=True)
class MaterialRatio:
    """Core height, reduced peak height and valley depth (m), and the shares of material (0 to 1) at both ends of the core."""

    rk: float
    rpk: float
    rvk: float
    mr1: float
    mr2: float


def curve(z: Reals, points: int = 200) -> tuple[Reals, Reals]:
    """The material ratio curve, for drawing: share of material from 0 to 1, and the height down to which there is so much.

    Equation: `z(p) = quantile(z, 1 - p)` (m)
    Valid: at least 2 points and 2 heights, all numbers.

    Args:
        z: heights, m.
        points: of the curve, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> share, height = curve(np.array([0.0, 1.0, 2.0]), points=3)
    >>> share.tolist(), height.tolist()
    ([0.0, 0.5, 1.0], [2.0, 1.0, 0.0])
    """
    require_heights(z, least=2, what="a curve")
    require_within(2, math.inf, points=points)
    share = np.linspace(0.0, 1.0, points)
    return share, np.quantile(z, 1 - share)


def material_ratio(z: Reals) -> MaterialRatio:
    """The parameters of the material ratio curve.

    The core is where a window of 40 % of the material lies flattest; a least-squares line through that window is drawn out to 0
    and 100 %. Peaks above and valleys below become triangles of the same area.

    Equation: `Rk = top - bottom, Rpk = 2 A1 / Mr1, Rvk = 2 A2 / (1 - Mr2)` (m)
    Valid: at least 100 heights that differ, all numbers.

    Args:
        z: heights, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> round(material_ratio(np.linspace(0, 1e-6, 1000)).rk * 1e6, 2)  # all core
    1.0
    """
    require_heights(z, least=100, what="a material ratio curve")
    falling = np.sort(z)[::-1]
    count = len(falling)
    share = (np.arange(count) + 0.5) / count
    width = round(WINDOW * count)
    drop = falling[: count - width] - falling[width:]
    # Of windows that are equally flat, the middle one: rounding must not choose.
    flattest = np.flatnonzero(drop <= drop.min() * (1 + REL_TOL))
    start = int(flattest[len(flattest) // 2])
    window = slice(start, start + width + 1)
    slope, level = np.polyfit(share[window], falling[window], 1)
    if slope >= 0:
        raise OutsideValidity("the heights do not differ, so there is no material ratio curve")
    top, bottom = level, level + slope
    mr1, mr2 = float((falling > top).mean()), float((falling >= bottom).mean())
    peaks = float(np.clip(falling - top, 0, None).mean())
    valleys = float(np.clip(bottom - falling, 0, None).mean())
    return MaterialRatio(
        rk=float(top - bottom),
        rpk=2 * peaks / mr1 if mr1 > 0 else 0.0,
        rvk=2 * valleys / (1 - mr2) if mr2 < 1 else 0.0,
        mr1=mr1,
        mr2=mr2,
    )
