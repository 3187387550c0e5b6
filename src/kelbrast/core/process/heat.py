"""How hot the work gets under a wheel, and how long one spot may be touched."""

import math
from functools import lru_cache

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant

_LONGEST = 3600.0


def friction_flux(*, friction: float, force: float, speed: float, patch: float) -> float:
    """Heat flux into the rubbed patch, W/m2: half of the friction power mu F v over the patch.

    >>> round(friction_flux(friction=0.4, force=5.0, speed=12.0, patch=18e-4))
    6667
    """
    if min(friction, force, speed, patch) <= 0:
        raise OutsideValidity("friction, force, speed and patch must be above 0")
    return constant("heat.into_work").value * friction * force * speed / patch


def slab_rise(*, flux: float, seconds: float, thickness: float, conductivity: float, diffusivity: float) -> float:
    """Surface temperature rise in K of a slab with an insulated back under constant flux.

    `dT = (q s / k) (Fo + 1/3 - (2/pi^2) sum (1/n^2) exp(-n^2 pi^2 Fo))`, Fo = alpha t / s^2. For small Fo the same
    solution by images of the thick body, `2 q sqrt(alpha t) / k * (1/sqrt(pi) + 2 sum ierfc(n s / sqrt(alpha t)))`,
    which converges where the first needs hundreds of terms.

    Args:
        flux: W/m2.  seconds: s.  thickness: m.  conductivity: W/mK.  diffusivity: m2/s.

    Raises:
        OutsideValidity: a value is not above zero (flux and time may be zero).

    Source: Carslaw & Jaeger.

    >>> round(slab_rise(flux=1e5, seconds=1.0, thickness=1.0, conductivity=16.2, diffusivity=16.2 / (8000 * 500)), 4)
    14.0174
    """
    if min(thickness, conductivity, diffusivity) <= 0 or min(flux, seconds) < 0:
        raise OutsideValidity("thickness, conductivity and diffusivity must be above 0, flux and time not below 0")
    fourier = diffusivity * seconds / thickness**2
    if fourier < 0.3:
        depth = math.sqrt(diffusivity * seconds)
        images = sum(_ierfc(n * thickness / depth) for n in range(1, 6)) if depth > 0 else 0.0
        return 2 * flux * depth / conductivity * (1 / math.sqrt(math.pi) + 2 * images)
    tail = sum(math.exp(-((n * math.pi) ** 2) * fourier) / n**2 for n in range(1, 6))
    return flux * thickness / conductivity * (fourier + 1 / 3 - 2 / math.pi**2 * tail)


def lump_rise(*, power: float, seconds: float, mass: float, specific_heat: float, loss: float = 0.0) -> float:
    """Rise in K of a small part that warms as a whole: `P/hA (1 - exp(-t hA / mc))`, or P t / (m c) without loss.

    Args:
        power: W into the part.  mass: kg.  specific_heat: J/kgK.  loss: h A, W/K.

    >>> round(lump_rise(power=20, seconds=60, mass=0.05, specific_heat=500), 3)
    48.0
    """
    if min(mass, specific_heat) <= 0 or min(power, seconds, loss) < 0:
        raise OutsideValidity("mass and specific heat must be above 0, power, time and loss not below 0")
    capacity = mass * specific_heat
    if loss == 0:
        return power * seconds / capacity
    return power / loss * -math.expm1(-seconds * loss / capacity)


@lru_cache(maxsize=4096)
def longest_stay(*, flux: float, thickness: float, material: Material, limit: float | None = None) -> float:
    """Seconds on one spot until the surface reaches a limit, from room temperature; at most an hour.

    Args:
        limit: K; the material's own when not given, a lower one where something stuck in the part sets it.

    >>> from kelbrast.core.catalogue.materials import material
    >>> 15 < longest_stay(flux=6667, thickness=0.02, material=material("acrylic")) < 25
    True
    """
    allowed = (material.limit if limit is None else limit) - constant("heat.room").si

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
