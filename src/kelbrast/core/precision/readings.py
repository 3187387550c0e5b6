"""Diameters as read, corrected for temperature."""

import math
from collections.abc import Sequence
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Reading
from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero, require_numbers, require_within

WARMEST: Final = 500.0  # K of difference; beyond that a thermal expansion is no longer one number


def _heights() -> tuple[float, float, float]:
    """In the middle and near both ends, of the length."""
    end = constant("precision.end_place").value
    return 0.0, -end, end


def everywhere(*, length: float) -> tuple[tuple[float, float], ...]:
    """The places of the first measuring: in the middle and near both ends, in four directions each.

    Equation: z = 0, -0.35 L, 0.35 L; phi = 0, pi / 4, pi / 2, 3 pi / 4 (m, rad)
    Valid: length above 0.

    Args:
        length: L, m.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy.

    >>> len(everywhere(length=40e-3)), everywhere(length=40e-3)[0]
    (12, (0.0, 0.0))
    """
    require_above_zero(length=length)
    return tuple((z * length, at * math.pi / 4) for z in _heights() for at in range(4))


def narrowest(*, length: float, direction: float, count: int) -> tuple[tuple[float, float], ...]:
    """The places of the readings after a round: where the tool comes to first, in the middle and near both ends.

    Equation: z = 0, -0.35 L, 0.35 L in turn (m, rad)
    Valid: length above 0, count not below 0.

    Args:
        length: L, m.
        direction: phi of the narrow side of a bore or the wide side of a shaft, rad.
        count: of readings, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy.

    >>> [round(z * 1e3) for z, _ in narrowest(length=40e-3, direction=0.0, count=4)]
    [0, -14, 14, 0]
    """
    require_above_zero(length=length)
    require_not_below_zero(count=float(count))
    require_numbers(direction=direction)
    return tuple((_heights()[at % 3] * length, direction % math.pi) for at in range(count))


def at_gauge_temperature(*, diameter: float, expansion: float, warmer: float) -> float:
    """The diameter that a warm part has once it is as cool as the gauge.

    Equation: `D = D' / (1 + a dT)` (m)
    Valid: diameter above 0, expansion not below 0, at most 500 K apart.

    Args:
        diameter: D', as read on the warm part, m.
        expansion: a, linear thermal expansion of the part, 1/K.
        warmer: dT, how much warmer the part is than the gauge, K.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(1e6 * (25e-3 - at_gauge_temperature(diameter=25e-3, expansion=11.5e-6, warmer=10)), 1)  # um too large
    2.9
    """
    require_above_zero(diameter=diameter)
    require_not_below_zero(expansion=expansion)
    require_within(-WARMEST, WARMEST, warmer=warmer)
    return diameter / (1 + expansion * warmer)


def warmth_unsure(*, diameter: float, expansion: float, warmer: float) -> float:
    """How far a size may be off after it was brought to the temperature of the gauge: neither of both is known exactly.

    Equation: `u = a D (0.05 dT + 1 K)`, 0 for less than 1 K (m)
    Valid: diameter above 0, expansion not below 0, at most 500 K apart.

    Args:
        diameter: D, m.
        expansion: a, linear thermal expansion of the part, 1/K.
        warmer: dT, how much warmer or colder the part is than the gauge, K.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> round(1e6 * warmth_unsure(diameter=25e-3, expansion=18e-6, warmer=30), 1)  # um
    1.1
    """
    require_above_zero(diameter=diameter)
    require_not_below_zero(expansion=expansion)
    require_within(-WARMEST, WARMEST, warmer=warmer)
    apart, unsure = abs(warmer), constant("precision.expansion_unsure").value
    return 0.0 if apart < 1 else expansion * diameter * (unsure * apart + constant("precision.warmth_unsure").si)


def outlier(readings: Sequence[Reading], *, repeatability: float, growth: float) -> int | None:
    """The reading that cannot be right beside the others, and is asked again: the place of the worst.

    Equation: `|D - median| > 6 s + 3 g` (place)
    Valid: repeatability above 0, growth not below 0.

    Args:
        readings: of one part.
        repeatability: s, standard deviation of one reading, m.
        growth: g, what form and work may well make of it, m.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> right = [Reading(20e-3), Reading(20.002e-3), Reading(20.001e-3)]
    >>> outlier([*right, Reading(20.501e-3)], repeatability=2e-6, growth=20e-6)
    3
    """
    require_above_zero(repeatability=repeatability)
    require_not_below_zero(growth=growth)
    if not readings:
        return None
    off = np.abs(_diameters(readings) - np.median(_diameters(readings)))
    worst = int(off.argmax())
    return worst if off[worst] > 6 * repeatability + 3 * growth else None


def _diameters(readings: Sequence[Reading]) -> Reals:
    found = np.array([reading.diameter for reading in readings])
    if not np.isfinite(found).all():
        raise OutsideValidity("a diameter must be a number")
    return found
