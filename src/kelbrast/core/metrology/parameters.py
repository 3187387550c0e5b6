"""Height and spacing parameters of a roughness profile (ISO 21920-2, with the sections of ISO 4287)."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity

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
    """The parameters of a roughness profile.

    Args:
        z: heights, m; the mean is taken off.  spacing: m.

    Raises:
        OutsideValidity: fewer than 8 points a section, or a profile without any height.

    >>> x = np.arange(5000) / 1000
    >>> sine = heights(np.sin(2 * np.pi * x), 1e-3)
    >>> round(sine.ra, 4), round(sine.rq, 4), round(sine.rz, 3), round(sine.rku, 3), round(sine.rsm or 0, 3)
    (0.6366, 0.7071, 2.0, 1.5, 1.0)
    """
    if len(z) < 8 * sections:
        raise OutsideValidity(f"a profile in {sections} sections needs at least {8 * sections} points")
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
    """RSm: the mean width of the profile elements, m. An element is a peak and the valley after it, each beyond `height` from
    the mean line and no narrower than `least`; from one crossing upwards to the next.

    Returns:
        None when there are not two such crossings.
    """
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
