"""Conversion between shop units and SI. Inside the core everything is SI."""

import math
from typing import Final

from kelbrast.core.errors import BadInput

# How many SI units one of the named unit is, by what is measured. Degrees "C" and "F" are points, not steps: see `to_si`.
_SCALES: Final[dict[str, dict[str, float]]] = {
    "ratio": {"1": 1.0},
    "angle": {"deg": math.pi / 180},
    "length": {"m": 1.0, "cm": 1e-2, "mm": 1e-3, "um": 1e-6, "in": 0.0254, "thou": 25.4e-6, "uin": 25.4e-9},
    "area": {"m2": 1.0, "cm2": 1e-4, "mm2": 1e-6, "in2": 6.4516e-4},
    "time": {"s": 1.0, "min": 60.0, "h": 3600.0},
    "rate": {"1/min": 1.0 / 60.0, "1/h": 1.0 / 3600.0},
    "turning": {"rev/min": 1.0 / 60.0},
    "speed": {"m/s": 1.0, "ft/min": 0.3048 / 60.0},
    "acceleration": {"m/s2": 1.0},
    "mass": {"g": 1e-3, "kg": 1.0, "oz": 0.028349523125},
    "force": {"N": 1.0, "lbf": 4.4482216152605},
    "pressure": {"Pa": 1.0, "kPa": 1e3, "GPa": 1e9},
    "temperature": {"C": 1.0, "F": 1 / 1.8},
    "temperature step": {"K": 1.0},
    "conductivity": {"W/mK": 1.0},
    "heat transfer": {"W/m2K": 1.0},
    "heat flux": {"W/m2": 1.0},
    "density": {"kg/m3": 1.0},
    "expansion": {"1/K": 1.0, "um/mK": 1e-6},
    "specific heat": {"J/kgK": 1.0},
    "money": {"money": 1.0},
}
SCALE: Final = {unit: scale for what, units in _SCALES.items() if what != "temperature" for unit, scale in units.items()}
_ZERO_CELSIUS: Final = 273.15


def to_si(value: float, unit: str) -> float:
    """The value in SI units.

    Args:
        value: a number in `unit`.
        unit: a key of `SCALE`, or "C" or "F" for a temperature in degrees Celsius or Fahrenheit (gives kelvin).

    Raises:
        BadInput: the unit is not known here.

    >>> round(to_si(3770, "ft/min"), 4)
    19.1516
    >>> to_si(25, "C"), round(to_si(77, "F"), 9)
    (298.15, 298.15)
    """
    if unit == "F":
        value, unit = (value - 32) / 1.8, "C"
    if unit == "C":
        return value + _ZERO_CELSIUS
    return value * _scale(unit)


def from_si(value: float, unit: str) -> float:
    """The SI value in the named unit; the other way round from `to_si`.

    >>> round(from_si(2.5e-5, "um"), 9)
    25.0
    """
    if unit == "F":
        return from_si(value, "C") * 1.8 + 32
    if unit == "C":
        return value - _ZERO_CELSIUS
    return value / _scale(unit)


def units_of(dimension: str) -> tuple[str, ...]:
    """The units in which this is measured.

    >>> units_of("force")
    ('N', 'lbf')
    """
    return tuple(_SCALES[dimension])


def _scale(unit: str) -> float:
    try:
        return SCALE[unit]
    except KeyError:
        raise BadInput.one("unit", f'"{unit}" is not a unit used here; one of {", ".join(SCALE)}, C or F') from None
