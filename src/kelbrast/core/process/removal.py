"""How fast abrasives remove material, how much of their contact they keep, how they dull and when they are changed; and what
breaking an edge takes off."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import REL_TOL, Reals, require_above_zero, require_not_below_zero, require_within


def removal_rate(*, wear: float, contact: float, force: float, speed: float, hardness: float) -> float:
    """Volume that an abrasive takes off in a second.

    Equation: `Q = eta K F v / H` (m3/s)
    Valid: every value above 0, eta at most 1.

    Args:
        wear: K, Archard coefficient of the abrasive, dimensionless.
        contact: eta, share of the time in real contact, dimensionless.
        force: F, normal force, N.
        speed: v, surface speed, m/s.
        hardness: H of the work, Pa.

    Raises:
        OutsideValidity: outside that.

    Source: archard, rabinowicz.

    >>> round(removal_rate(wear=0.045, contact=0.8, force=25, speed=0.6, hardness=1.9e9) * 1e9, 3)  # mm3/s
    0.284
    """
    require_above_zero(wear=wear, force=force, speed=speed, hardness=hardness, contact=contact)
    require_within(0, 1, contact=contact)
    return contact * wear * force * speed / hardness


@dataclass(frozen=True, slots=True)
class DulledCutting:
    """Time on the work (s), and how many abrasives were started."""

    seconds: Reals
    used: Reals


_DEAREST: Final = 1e12  # of the life; beyond it the equation has no answer in these numbers


def change_after(*, life: Reals | float, change_cost: Reals | float) -> Reals:
    """When to change a dying abrasive so that the work done per time and cost is greatest.

    Cutting for T gives `L (1 - exp(-T / L))` of fresh cutting and costs `T + c`.

    Equation: `exp(x) = 1 + x + c / L`, T = x L (s)
    Valid: both above 0, a change no dearer than 1e12 lives.

    Args:
        life: L, e-folding time of the cutting rate, s.
        change_cost: c, what a change costs: the time itself and the price of the abrasive as bench time, s (broadcast).

    Raises:
        OutsideValidity: outside that.

    Source: removal-fit.

    >>> round(float(change_after(life=240.0, change_cost=120.0)))  # half a life of change cost: about seven eighths of a life
    206
    """
    require_above_zero(life=life, change_cost=change_cost)
    share = np.asarray(change_cost) / np.asarray(life)
    if np.any(share > _DEAREST):
        raise OutsideValidity("changing the abrasive costs too much against its life")
    x = np.exp(np.interp(np.log(share), *_changes()))
    for _ in range(2):  # from so near, Newton's method doubles the figures each time
        x = x - (np.expm1(x) - x - share) / np.expm1(x)
    return np.asarray(x * life)


@cache
def _changes() -> tuple[Reals, Reals]:
    """ln(c / L) and ln(x) of the equation above, rising together."""
    x = np.geomspace(1e-7, 40.0, 4000)
    # expm1(x) - x loses its figures where x is small: there the series has them.
    cost = np.where(x < 1e-3, x**2 / 2 + x**3 / 6, np.expm1(x) - x)
    return np.log(cost), np.log(x)


def pullout_life_factor(*, grain: Reals | float, depth: Reals | float) -> Reals:
    """Share of its life that a fine abrasive has on marks that are deep for its grain: the grains are pullout_life_factor out.

    Equation: `p = min(1, k g / d)^e` (dimensionless), k = removal.torn_share, e = removal.torn_exponent
    Valid: both above 0.

    Args:
        grain: g, m.
        depth: d of the marks that it meets, m (broadcast).

    Raises:
        OutsideValidity: outside that.

    Source: practice-fit.

    >>> float(pullout_life_factor(grain=82e-6, depth=10e-6)), round(float(pullout_life_factor(grain=82e-6, depth=100e-6)), 2)
    (1.0, 0.4)
    """
    require_above_zero(grain=grain, depth=depth)
    share = constant("removal.torn_share").value * np.asarray(grain) / np.asarray(depth)
    return np.asarray(np.minimum(1.0, share) ** constant("removal.torn_exponent").value)


def cutting(*, fresh: Reals | float, life: Reals | float, change_after: Reals | float) -> DulledCutting:
    """Time to do what a never-dulling abrasive would do in a fresh time: so many whole pieces, and a part of the last.

    Equation: `t = n T - L ln(1 - R / L)`, R = fresh - n L (1 - exp(-T / L)) (s)
    Valid: fresh not below 0, life and change above 0 (infinite for what does not die).

    Args:
        fresh: time with a new abrasive, s.
        life: L, s.
        change_after: T, s (all broadcast against each other).

    Raises:
        OutsideValidity: outside that.

    Source: removal-fit.

    >>> cutting(fresh=100.0, life=np.inf, change_after=np.inf)
    DulledCutting(seconds=array(100.), used=array(1.))
    >>> float(cutting(fresh=100.0, life=240.0, change_after=206.0).seconds) > 100
    True
    """
    fresh, life = np.asarray(fresh, dtype=np.float64), np.asarray(life, dtype=np.float64)
    if not (np.all(fresh >= 0) and np.all(life > 0) and np.all(np.asarray(change_after) > 0)):
        raise OutsideValidity("cutting time must not be below 0, and life and change above it")
    dies = np.isfinite(life)
    span = np.where(dies, life, 1.0)
    stay = np.where(dies, change_after, 1.0)
    each = span * -np.expm1(-stay / span)
    full = np.where(dies, np.maximum(0, np.ceil(fresh / each - REL_TOL) - 1), 0.0)
    rest = np.where(dies, np.minimum(fresh - full * each, each), 0.0)
    return DulledCutting(np.where(dies, full * stay - span * np.log1p(-rest / span), fresh), np.asarray(full + 1))


def share_done(*, seconds: Reals | float, fresh: Reals | float, life: Reals | float, change_after: Reals | float) -> Reals:
    """Share of a step's layer that is gone after so many seconds of cutting.

    Equation: `p = min(1, f(t) / fresh)`, f as in `fresh_in` (dimensionless)
    Valid: seconds and fresh not below 0; a step without any fresh time is done.

    Args:
        seconds: t, on the work, s.
        fresh: time that the whole step would take with a new abrasive, s.
        life: L, s; infinite for what does not die.
        change_after: T, s (all broadcast against each other).

    Raises:
        OutsideValidity: outside that.

    Source: removal-fit.

    >>> float(share_done(seconds=30.0, fresh=60.0, life=np.inf, change_after=np.inf))
    0.5
    """
    require_not_below_zero(fresh=fresh)
    done = fresh_in(seconds=seconds, life=life, change_after=change_after)
    fresh = np.asarray(fresh, dtype=np.float64)
    share: Reals = np.minimum(1.0, np.divide(done, fresh, out=np.ones_like(done + fresh), where=fresh > 0))
    return share


def fresh_in(*, seconds: Reals | float, life: Reals | float, change_after: Reals | float) -> Reals:
    """The fresh cutting that a time on the work is worth, with a new abrasive after every change: `cutting` turned round.

    Equation: `f = n L (1 - exp(-T / L)) + L (1 - exp(-(t - n T) / L))` (s)
    Valid: seconds not below 0, life and change above 0 (infinite for what does not die).

    Args:
        seconds: t, on the work, s.
        life: L, s.
        change_after: T, s (all broadcast against each other).

    Raises:
        OutsideValidity: outside that.

    Source: removal-fit.

    >>> float(fresh_in(seconds=90.0, life=np.inf, change_after=np.inf))
    90.0
    >>> bool(fresh_in(seconds=240.0, life=240.0, change_after=240.0) < 240.0)
    True
    """
    require_not_below_zero(seconds=seconds)
    seconds, life, change_after = (np.asarray(one, dtype=np.float64) for one in (seconds, life, change_after))
    if not (np.all(life > 0) and np.all(change_after > 0)):
        raise OutsideValidity("life and change must be above 0, and numbers")
    dies = np.isfinite(life)
    span, stay = np.where(dies, life, 1.0), np.where(dies, change_after, 1.0)
    full, rest = np.divmod(np.where(dies, seconds, 0.0), stay)
    return np.where(dies, span * (full * -np.expm1(-stay / span) - np.expm1(-rest / span)), seconds)


def break_volume(*, leg: float, length: float) -> float:
    """The volume of a break at 45 degrees along a right-angled edge.

    Equation: `V = b^2 L / 2` (m3)
    Valid: leg not below 0, length above 0.

    Args:
        leg: b, of the break along either face, m.
        length: L, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(break_volume(leg=0.3e-3, length=0.4) * 1e9, 3)  # mm3
    18.0
    """
    require_not_below_zero(leg=leg)
    require_above_zero(length=length)
    return leg**2 * length / 2


def radius_volume(*, radius: float, length: float) -> float:
    """The volume between a right-angled edge and the radius that it is given.

    Equation: `V = (1 - pi / 4) r^2 L` (m3)
    Valid: radius not below 0, length above 0.

    Args:
        radius: r, m.
        length: L, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(radius_volume(radius=1e-3, length=0.1) * 1e9, 2)  # mm3
    21.46
    """
    require_not_below_zero(radius=radius)
    require_above_zero(length=length)
    return (1 - math.pi / 4) * radius**2 * length


def contact_kept(times: float) -> float:
    """The share of its contact with the work that a tool keeps.

    A pad that is larger than the face touches with less of itself, a small tool on a face that is too large for it goes over it
    again to even it, and a part that is hard to hold to a wheel leaves it more
    often. Below the size that suits it nothing is lost; far beyond it the time does not fall with the area any more.

    Equation: `(1 + x^n)^(-1/n)` (dimensionless)
    Valid: not below 0.

    Args:
        times: x, how many times the tool is larger or smaller than suits the face, or the part more unwieldy than suits the
            machine, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> [round(contact_kept(one), 2) for one in (0.0, 0.5, 1.0, 3.0)]
    [1.0, 1.0, 0.89, 0.33]
    """
    require_not_below_zero(times=times)
    power = constant("work.contact_fades").value
    kept: float = (1 + times**power) ** (-1 / power)
    return kept
