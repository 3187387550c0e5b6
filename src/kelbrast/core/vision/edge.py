"""The reflection of a straight edge: how much of it is still sharp says how smooth the surface is."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy import optimize, special

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant, eye
from kelbrast.core.validity import require_above_zero, require_within

_LEAST: Final = 32  # points


@dataclass(frozen=True, slots=True)
class ReflectedEdge:
    """A reflected edge: the share of it that is sharp, how wide that is (px), and Rq (m); None where it says only a bound."""

    sharp: float
    width: float
    rq: float | None


def rq_of_share(share: float, *, wavelength: float, angle: float = 0.0) -> float:
    """Rq of a surface that still reflects this share of light as a mirror: the law of `reflected_share` the other way round.

    Equation: `Rq = lambda / (4 pi cos(theta)) sqrt(-ln s)` (m)
    Valid: the share above 0 and at most 1, the wavelength above 0, the angle from 0 to below a right one.

    Args:
        share: s, dimensionless.
        wavelength: lambda, m.
        angle: theta, of the light from the normal, rad.

    Raises:
        OutsideValidity: outside that.

    Source: bennett-porteus.

    >>> round(rq_of_share(0.961332, wavelength=632.8e-9) * 1e9, 2)
    10.0
    """
    require_above_zero(share=share, wavelength=wavelength)
    require_within(0, 1, share=share)
    require_within(0, math.nextafter(math.pi / 2, 0), angle=angle)
    return wavelength / (4 * math.pi * math.cos(angle)) * math.sqrt(-math.log(share))


def reflected_edge(profile: Reals, *, angle: float) -> ReflectedEdge:
    """Judge a reflected edge from the light along a line across it.

    Equation: `g = a + b ((1 - s) Phi(x / w1) + s Phi(x / w0))`, w0 the sharp, w1 the broad part; `Rq` from s (dimensionless)
    Valid: at least 32 numbers across an edge; the angle from 0 to below a right one.

    Args:
        profile: g, linear light along the line, dimensionless.
        angle: of view from the normal, rad.

    Raises:
        OutsideValidity: outside that, or there is no edge in it.

    Source: bennett-porteus, eye-simulated.

    >>> x = np.linspace(-60, 60, 121)
    >>> seen = 0.2 + 0.5 * (0.7 * special.ndtr(x / 1.2) + 0.3 * special.ndtr(x / 18))
    >>> found = reflected_edge(seen, angle=math.radians(60))
    >>> round(found.sharp, 2), round(found.rq * 1e9)
    (0.7, 52)
    """
    require_within(0, math.nextafter(math.pi / 2, 0), angle=angle)
    if profile.ndim != 1 or len(profile) < _LEAST or not np.isfinite(profile).all():
        raise OutsideValidity(f"an edge needs {_LEAST} numbers along a line at least")
    if profile[: len(profile) // 4].mean() > profile[-len(profile) // 4 :].mean():
        profile = profile[::-1]
    low, high = (float(part.mean()) for part in (profile[: len(profile) // 8], profile[-len(profile) // 8 :]))
    noise = float(np.median(np.abs(np.diff(profile)))) + 1e-9
    if high - low < 6 * noise or high - low < 0.02 * max(high, 1e-9):
        raise OutsideValidity("there is no edge along this line")
    x = np.arange(len(profile), dtype=float)
    middle = float(np.argmax(np.convolve(np.diff(profile), np.ones(5), "same")))

    def model(at: Reals, base: float, step: float, centre: float, sharp: float, narrow: float, wider: float) -> Reals:
        off = at - centre
        return np.asarray(
            base + step * (sharp * special.ndtr(off / narrow) + (1 - sharp) * special.ndtr(off / (narrow * wider)))
        )

    start = (low, high - low, middle, 0.5, 1.5, 8.0)
    bounds = ((-np.inf, 0, 0, 0, 0.3, 3.0), (np.inf, np.inf, len(profile), 1, len(profile), 100.0))
    try:
        (_, _, _, sharp, narrow, _), _ = optimize.curve_fit(model, x, profile, start, bounds=bounds, maxfev=4000)
    except RuntimeError:
        raise OutsideValidity("no sharp and broad part can be told apart along this line") from None
    wavelength = constant("gloss.wavelength").si
    rq = rq_of_share(float(sharp), wavelength=wavelength, angle=angle) if eye("edge.sharp") <= sharp < 1 else None
    return ReflectedEdge(float(sharp), float(narrow), rq)
