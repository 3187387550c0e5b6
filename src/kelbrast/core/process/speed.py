"""Surface speed, and the machine setting that gives it within the limits."""

import math
from dataclasses import dataclass

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si
from kelbrast.core.validity import REL_TOL, require_above_zero, require_not_below_zero
from kelbrast.core.wording import rounded_down


@dataclass(frozen=True, slots=True)
class Setting:
    """How a machine is set for a wheel.

    Attributes:
        surface: surface speed, m/s.
        spindle: rev/s (orbits/s for an orbital); None by hand.
        band: recommended surface speeds, m/s; None where the machine alone decides.
        below_band: it turns more slowly than recommended: safe, but takes longer.
    """

    surface: float
    spindle: float | None
    band: tuple[float, float] | None
    below_band: bool = False


def surface_speed(*, diameter: float, spindle: float) -> float:
    """Surface speed of a wheel.

    Equation: `v = pi D n` (m/s)
    Valid: diameter above 0, spindle speed not below 0.

    Args:
        diameter: D, m.
        spindle: n, rev/s.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(surface_speed(diameter=0.2032, spindle=1800 / 60), 4)
    19.1511
    """
    require_above_zero(diameter=diameter)
    require_not_below_zero(spindle=spindle)
    return math.pi * diameter * spindle


def spindle_speed(*, diameter: float, surface: float) -> float:
    """The spindle speed that gives a wheel this surface speed, or that its marked speed allows.

    Equation: `n = v / (pi D)` (rev/s)
    Valid: diameter above 0, surface speed not below 0.

    Args:
        diameter: D, m.
        surface: v, m/s.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(spindle_speed(diameter=0.125, surface=80) * 60, -1)  # EN 12413: 12,220 at 125 mm
    12220.0
    """
    require_above_zero(diameter=diameter)
    require_not_below_zero(surface=surface)
    return surface / (math.pi * diameter)


def to_set(spindle: float) -> float:
    """The speed that a person sets on a scale: three figures of rev/min, and never above what it was.

    Equation: `n' = floor(n / u) u`, u one in the third figure of n in rev/min (rev/s)
    Valid: not below 0.

    Args:
        spindle: n, rev/s.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> round(to_set(16552.7 / 60) * 60, 6)
    16500.0
    """
    require_not_below_zero(spindle=spindle)
    return to_si(rounded_down(from_si(spindle, "rev/min")), "rev/min")


def marked_now(*, marked: float, new: float, now: float) -> float:
    """The marked limit as a surface speed of a wheel as it is: worn down, it may turn no faster than when it was new.

    Equation: `v' = v min(1, D' / D)` (m/s)
    Valid: every value above 0.

    Args:
        marked: v, m/s.
        new: D when it was marked, m.
        now: D', m.

    Raises:
        OutsideValidity: outside that.

    Source: en-12413.

    >>> round(marked_now(marked=48, new=0.25, now=0.2), 9)
    38.4
    """
    require_above_zero(marked=marked, new=new, now=now)
    return marked * min(1.0, now / new)


def choose_setting(
    machine: Machine, *, diameter: float | None, band: tuple[float, float] | None, marked_limit: float | None
) -> Setting | None:
    """How a machine is set for a wheel: nearest to the middle of the band, never above the wheel's mark or the band's top.

    Below the band is allowed down to a share of its lower end; then the fastest is taken. None when no setting is both safe
    and fast enough.

    Equation: `min |v - (v_low + v_top) / 2|` over its settings with v <= v_top = min(v_high, v_marked) (m/s)
    Valid: diameter, band and mark above 0, where they are given.

    Args:
        machine: with its settings or its range, rev/s.
        diameter: of the wheel, m; None where it has none.
        band: v_low and v_high, m/s; None where the machine alone decides.
        marked_limit: v_marked, m/s; None where nothing is marked.

    Raises:
        OutsideValidity: outside that.

    Source: buffing-handbooks, en-12413.

    >>> from kelbrast.core.catalogue.machines import machine
    >>> choose_setting(machine("hand"), diameter=None, band=None, marked_limit=None)
    Setting(surface=0.6, spindle=None, band=None, below_band=False)
    """
    given = {"diameter": diameter, "marked_limit": marked_limit, "band": min(band) if band is not None else None}
    require_above_zero(**{name: value for name, value in given.items() if value is not None})
    if machine.stroke is not None:
        return Setting(machine.stroke, None, None)
    if machine.orbit is not None:
        assert machine.high is not None, f"machines.toml: {machine.id} is an orbital without a range"
        return Setting(surface_speed(diameter=machine.orbit, spindle=machine.high), machine.high, None)
    if diameter is None or band is None:
        return None
    top = min(band[1], marked_limit if marked_limit is not None else math.inf)
    settings = [(surface_speed(diameter=diameter, spindle=n), n) for n in _settings(machine, diameter, (band[0] + top) / 2)]
    safe = [(v, n) for v, n in settings if v <= top * (1 + REL_TOL)]
    inside = [(v, n) for v, n in safe if v >= band[0]]
    if inside:
        v, n = min(inside, key=lambda pair: abs(pair[0] - (band[0] + top) / 2))
        return Setting(v, n, band)
    if safe and max(safe)[0] >= constant("speed.slowest_share").value * band[0]:
        v, n = max(safe)
        return Setting(v, n, band, below_band=True)
    return None


def _settings(machine: Machine, diameter: float, aim: float) -> list[float]:
    """The machine's fixed speeds, or for a range the one nearest to the speed aimed at (and the ends)."""
    if machine.settings:
        return list(machine.settings)
    assert machine.low is not None, f"machines.toml: {machine.id} has no speeds"
    assert machine.high is not None, f"machines.toml: {machine.id} has no highest speed"
    wanted = to_set(spindle_speed(diameter=diameter, surface=aim))
    return [min(max(wanted, machine.low), machine.high)]
