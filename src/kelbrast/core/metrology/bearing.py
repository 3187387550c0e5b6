"""The bearing curve and its parameters Rk, Rpk, Rvk, Mr1, Mr2 (ISO 21920-2, formerly ISO 13565-2)."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity

WINDOW: Final = 0.4  # share of the curve over which it is flattest


@dataclass(frozen=True, slots=True)
class Bearing:
    """Core height, reduced peak height and valley depth (m), and the shares of material (0 to 1) at both ends of the core."""

    rk: float
    rpk: float
    rvk: float
    mr1: float
    mr2: float


def curve(z: Reals, points: int = 200) -> tuple[Reals, Reals]:
    """The bearing curve: (share of material from 0 to 1, height in m), for drawing."""
    share = np.linspace(0.0, 1.0, points)
    return share, np.quantile(z, 1 - share)


def bearing(z: Reals) -> Bearing:
    """The parameters of the bearing curve.

    The core is where a window of 40 % of the material lies flattest; a least-squares line through that window is drawn out to 0
    and 100 %. Peaks above and valleys below become triangles of the same area.

    Raises:
        OutsideValidity: fewer than 100 heights, or heights that do not differ.
    """
    if len(z) < 100:
        raise OutsideValidity("a bearing curve needs at least 100 heights")
    falling = np.sort(z)[::-1]
    count = len(falling)
    share = (np.arange(count) + 0.5) / count
    width = round(WINDOW * count)
    drop = falling[: count - width] - falling[width:]
    # Of windows that are equally flat, the middle one: rounding must not choose.
    flattest = np.flatnonzero(drop <= drop.min() * (1 + 1e-12))
    start = int(flattest[len(flattest) // 2])
    window = slice(start, start + width + 1)
    slope, level = np.polyfit(share[window], falling[window], 1)
    if slope >= 0:
        raise OutsideValidity("the heights do not differ, so there is no bearing curve")
    top, bottom = level, level + slope
    mr1, mr2 = float((falling > top).mean()), float((falling >= bottom).mean())
    peaks = float(np.clip(falling - top, 0, None).mean())
    valleys = float(np.clip(bottom - falling, 0, None).mean())
    return Bearing(
        rk=float(top - bottom),
        rpk=2 * peaks / mr1 if mr1 > 0 else 0.0,
        rvk=2 * valleys / (1 - mr2) if mr2 < 1 else 0.0,
        mr1=mr1,
        mr2=mr2,
    )
