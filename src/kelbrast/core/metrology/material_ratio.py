"""The material ratio curve and its parameters Rk, Rpk, Rvk, Mr1, Mr2 (ISO 21920-2, formerly ISO 13565-2)."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.arrays import SAME, Reals
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import require_heights, require_within

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
    flattest = np.flatnonzero(drop <= drop.min() * (1 + SAME))
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
