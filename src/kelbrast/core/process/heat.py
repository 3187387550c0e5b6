"""How hot the work gets under a wheel, and how long one spot may be touched; and when a part that warms as a whole is put down
to cool."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within

_LONGEST: Final = 3600.0
_SHORTEST: Final = 1e-6
_FELT_WITHIN: Final = 6.0  # diffusion lengths: what is farther adds less than 1e-16 of the rise


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

    # Until the back warms too, a slab warms as a thick body does, which says the time at once.
    thick = math.pi / material.diffusivity * (allowed * material.conductivity / (2 * flux)) ** 2
    if thickness >= _FELT_WITHIN * math.sqrt(material.diffusivity * thick):
        return min(max(thick, _SHORTEST), _LONGEST)
    low, high = _SHORTEST, _LONGEST
    if rise(high) <= allowed:
        return high
    for _ in range(50):
        middle = math.sqrt(low * high)
        low, high = (middle, high) if rise(middle) < allowed else (low, middle)
    return low


def _ierfc(x: float) -> float:
    """Integral of the complementary error function."""
    return math.exp(-x * x) / math.sqrt(math.pi) - x * math.erfc(x)


@dataclass(frozen=True, slots=True)
class Lump:
    """A part as one warm lump: heat capacity m c (J/K) and the surface that gives heat off (m2)."""

    capacity: float
    surface: float


def work_until_hot(*, lump: Lump, power: float, loss: float, allowed: float) -> float:
    """Work until the part has risen so far from room temperature; infinite when it never does.

    Equation: `t = -tau ln(1 - dT h A / P)`, tau = m c / (h A) (s)
    Valid: every value above 0.

    Args:
        lump: its heat capacity m c, J/K, and surface A, m2.
        power: P into the part, W.
        loss: h, W/m2K.
        allowed: dT, K.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(work_until_hot(lump=half_a_kilo_of_brass, power=67, loss=15, allowed=28))
    88
    >>> work_until_hot(lump=half_a_kilo_of_brass, power=10, loss=15, allowed=28)
    inf
    """
    require_above_zero(power=power, loss=loss, allowed=allowed, capacity=lump.capacity, surface=lump.surface)
    share = allowed * loss * lump.surface / power  # of the rise at which as much is lost as comes in
    return math.inf if share >= 1 else -lump.capacity / (loss * lump.surface) * math.log1p(-share)


def rest(*, lump: Lump, loss: float, left: float) -> float:
    """Rest until only a share of the rise is left.

    Equation: `t = tau ln(1 / p)`, tau = m c / (h A) (s)
    Valid: loss above 0, the share between 0 and 1.

    Args:
        lump: its heat capacity m c, J/K, and surface A, m2.
        loss: h, W/m2K.
        left: p, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: carslaw-jaeger.

    >>> half_a_kilo_of_brass = Lump(capacity=190, surface=0.03)
    >>> round(rest(lump=half_a_kilo_of_brass, loss=15, left=0.25)), round(rest(lump=half_a_kilo_of_brass, loss=500, left=0.25))
    (585, 18)
    """
    require_above_zero(loss=loss, left=left, capacity=lump.capacity, surface=lump.surface)
    require_within(0, 1, left=left)
    return lump.capacity / (loss * lump.surface) * math.log(1 / left)
