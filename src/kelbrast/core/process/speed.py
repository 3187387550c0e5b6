"""Surface speed, and the setting of a machine that gives the right one."""

import math
from dataclasses import dataclass

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si
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
    """v = pi D n, with D in m and n in rev/s.

    >>> round(surface_speed(diameter=0.2032, spindle=1800 / 60), 4)
    19.1511
    """
    if diameter <= 0 or spindle < 0:
        raise OutsideValidity("diameter must be above 0 and spindle speed not below 0")
    return math.pi * diameter * spindle


def spindle_speed(*, diameter: float, surface: float) -> float:
    """n = v / (pi D), rev/s; the other way round from `surface_speed`."""
    if diameter <= 0 or surface < 0:
        raise OutsideValidity("diameter must be above 0 and surface speed not below 0")
    return surface / (math.pi * diameter)


def to_set(spindle: float) -> float:
    """The speed in rev/s that a person sets on a scale, three figures of rev/min: never above what it was.

    >>> round(to_set(16552.7 / 60) * 60, 6)
    16500.0
    """
    return to_si(rounded_down(from_si(spindle, "rev/min")), "rev/min")


def choose_setting(
    machine: Machine, *, diameter: float | None, band: tuple[float, float] | None, marked_limit: float | None
) -> Setting | None:
    """The setting nearest to the middle of the band, never above the wheel's mark or the band's top.

    Below the band is allowed down to half of its lower end; then the fastest is taken.

    Returns:
        None when no setting is both safe and fast enough.
    """
    if machine.stroke is not None:
        return Setting(machine.stroke, None, None)
    if machine.orbit is not None:
        assert machine.high is not None, f"machines.toml: {machine.id} is an orbital without a range"
        return Setting(surface_speed(diameter=machine.orbit, spindle=machine.high), machine.high, None)
    if diameter is None or band is None:
        return None
    top = min(band[1], marked_limit if marked_limit is not None else math.inf)
    settings = [(surface_speed(diameter=diameter, spindle=n), n) for n in _settings(machine, diameter, (band[0] + top) / 2)]
    safe = [(v, n) for v, n in settings if v <= top * (1 + 1e-9)]
    inside = [(v, n) for v, n in safe if v >= band[0]]
    if inside:
        v, n = min(inside, key=lambda pair: abs(pair[0] - (band[0] + top) / 2))
        return Setting(v, n, band)
    if safe and max(safe)[0] >= constant("work.slow_share").value * band[0]:
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
