"""Hardness as workshops measure it, turned into the pressure that the laws ask for."""

from functools import cache
from itertools import pairwise
from typing import Final

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import table
from kelbrast.core.reference.schemas import HARDNESSES
from kelbrast.core.validity import require_above_zero

SCALES: Final = ("HV", *HARDNESSES)
_PASCALS_PER_VICKERS: Final = 9.80665e6  # the number is a force in kilograms over an area in mm2
_HARDEST: Final = 10_000.0  # HV, about that of diamond


def indentation_pressure(value: float, scale: str) -> float:
    """The pressure under a Vickers pyramid (Pa) of a hardness on one of `SCALES`.

    The tables of metals hold for steel; other metals differ by up to a tenth.

    Equation: `H = 9.80665 MPa HV`; HV from the tables of `hardness.csv`, straight between its rows (Pa)
    Valid: within the rows of its scale; HV up to 10,000.

    Args:
        value: on the scale, dimensionless.  scale: one of `SCALES`.

    Raises:
        OutsideValidity: outside that, or the scale is not known.

    Source: iso-18265, astm-e140, plastics-indented.

    >>> round(indentation_pressure(60, "HRC") / 1e9, 2)
    6.84
    >>> round(indentation_pressure(180, "HB") / indentation_pressure(189.5, "HV"), 2)
    1.0
    """
    if scale not in SCALES:
        raise OutsideValidity(f"hardness is read on one of the scales {', '.join(SCALES)}")
    require_above_zero(hardness=value)
    return _PASCALS_PER_VICKERS * _vickers(value, scale)


def _vickers(value: float, scale: str) -> float:
    rows = ((0.0, 0.0), (_HARDEST, _HARDEST)) if scale == "HV" else _rows(scale)
    if not rows[0][0] <= value <= rows[-1][0]:
        raise OutsideValidity(f"{scale} is converted from {rows[0][0]:g} to {rows[-1][0]:g}; {value:g} is outside")
    if scale == "HV":
        return value
    (low, soft), (high, hard) = next((one, other) for one, other in pairwise(rows) if value <= other[0])
    return soft + (hard - soft) * (value - low) / (high - low)


@cache
def _rows(scale: str) -> tuple[tuple[float, float], ...]:
    return tuple(sorted((float(row["value"]), float(row["vickers"])) for row in table("hardness") if row["scale"] == scale))
