"""How hot the work gets under a wheel, and how long one spot may be touched."""

import math
from functools import lru_cache

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero, require_not_below_zero

_LONGEST = 3600.0


def friction_flux(*, friction: float, force: float, speed: float, patch: float) -> float:
    """Heat flux into the rubbed patch: a share of the friction power.

    Equation: `q = w mu F v / A` (W/m2), w = heat.into_work
    Valid: every value above 0.

    Args:
        friction: mu, dimensionless.
        force: F, N.
        speed: v, m/s.
        patch: A that is rubbed at once, m2.

    Raises:
        OutsideValidity: outside that.

    Source: heat-fit.

    >>> round(friction_flux(friction=0.4, force=5.0, speed=12.0, patch=18e-4))
    6667
    """
    require_above_zero(friction=friction, force=force, speed=speed, patch=patch)
    return constant("heat.into_work").value * friction * force * speed / patch


def slab_rise(*, flux: float, seconds: float, thickness: float, conductivity: float, diffusivity: float) -> float:
    """Surface temperature rise of a slab with an insulated back under constant flux.

    For small Fo the same solution by images of the thick body, which converges where this needs hundreds of terms:
    `2 q sqrt(alpha t) / k (1/sqrt(pi) + 2 sum ierfc(n s / sqrt(alpha t)))`.

    Equation: `dT = (q s / k) (Fo + 1/3 - (2/pi^2) sum exp(-n^2 pi^2 Fo) / n^2)`, Fo = alpha t / s^2 (K)
    Valid: thickness, conductivity and diffusivity above 0, flux and time not below 0.

    Args:
        flux: q, W/m2.
        seconds: t, s.
        thickness: s, m.
        conductivity: k, W/mK.
        diffusivity: alpha, m2/s.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> round(slab_rise(flux=1e5, seconds=1.0, thickness=1.0, conductivity=16.2, diffusivity=16.2 / (8000 * 500)), 4)
    14.0174
    """
    require_above_zero(thickness=thickness, conductivity=conductivity, diffusivity=diffusivity)
    require_not_below_zero(flux=flux, seconds=seconds)
    fourier = diffusivity * seconds / thickness**2
    if fourier < 0.3:
        depth = math.sqrt(diffusivity * seconds)
        images = sum(_ierfc(n * thickness / depth) for n in range(1, 6)) if depth > 0 else 0.0
        return 2 * flux * depth / conductivity * (1 / math.sqrt(math.pi) + 2 * images)
    tail = sum(math.exp(-((n * math.pi) ** 2) * fourier) / n**2 for n in range(1, 6))
    return flux * thickness / conductivity * (fourier + 1 / 3 - 2 / math.pi**2 * tail)


@lru_cache(maxsize=4096)
def longest_stay(*, flux: float, thickness: float, material: Material, limit: float | None = None) -> float:
    """Time on one spot until the surface reaches a limit, from room temperature; at most an hour.

    Equation: `dT(t) = T - T0`, dT as in `slab_rise` (s)
    Valid: flux and thickness above 0, the limit above the room.

    Args:
        flux: q, W/m2.
        thickness: of the slab, m.
        material: for its conductivity, diffusivity and limit.
        limit: T, K; the material's own when not given, a lower one where something stuck in the part sets it.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> from kelbrast.core.catalogue.materials import material
    >>> 15 < longest_stay(flux=6667, thickness=0.02, material=material("acrylic")) < 25
    True
    """
    require_above_zero(flux=flux, thickness=thickness)
    allowed = (material.limit if limit is None else limit) - constant("heat.room").si

    require_above_zero(limit=allowed)

    def rise(seconds: float) -> float:
        return slab_rise(
            flux=flux,
            seconds=seconds,
            thickness=thickness,
            conductivity=material.conductivity,
            diffusivity=material.diffusivity,
        )

    low, high = 1e-6, _LONGEST
    if rise(high) <= allowed:
        return high
    for _ in range(50):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if rise(middle) < allowed else (low, middle)
    return low


def _ierfc(x: float) -> float:
    """Integral of the complementary error function."""
    return math.exp(-x * x) / math.sqrt(math.pi) - x * math.erfc(x)
