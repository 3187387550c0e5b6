"""Grit grades of every system, and their median grain size, which alone can be compared.

The number itself means nothing across systems: "1000" is 18.3 um as FEPA P, 11.5 as JIS, 9.2 as CAMI and 4.5 as FEPA F.
"""

import math
import re
from dataclasses import dataclass
from functools import cache
from itertools import pairwise
from typing import Final

from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.reference.loader import constant, table
from kelbrast.core.reference.schemas import SYSTEMS
from kelbrast.core.units import from_si, to_si

_WRITTEN: Final = re.compile(r"^\s*(P|F|CAMI|JIS)\s*(\d+)\s*$", re.IGNORECASE)
_MICROMETRES: Final = re.compile(r"^\s*(\d+(?:\.\d+)?)\s*(?:um|µm|μm)\s*$", re.IGNORECASE)
_FINEST_UM, _COARSEST_UM = 0.01, 5000.0


@dataclass(frozen=True, slots=True)
class Grade:
    """A grade as it is printed on the back: `P600`, `F400`, `CAMI600`, `JIS1000`, or plain `3um`.

    Attributes:
        name: as written by this program.
        grain: median grain size in metres.
    """

    name: str
    grain: float


@cache
def scale(system: str) -> tuple[tuple[int, float], ...]:
    """A system's grades as (number, median grain in metres), coarse to fine."""
    if system not in SYSTEMS:
        raise BadInput.one("system", f'"{system}" is not one of {", ".join(SYSTEMS)}')
    rows = [(int(row["grade"]), to_si(float(row["median_um"]), "um")) for row in table("grains") if row["system"] == system]
    return tuple(sorted(rows))


def parse_grade(text: str, *, field: str = "grade") -> Grade:
    """Read a grade as written on the abrasive.

    A number between two of the table's is interpolated in log grain size over log number.

    Raises:
        BadInput: not a grade, or outside the system's table.

    >>> round(parse_grade("P600").grain * 1e6, 3)
    25.8
    >>> parse_grade("3um").name
    '3um'
    """
    if plain := _MICROMETRES.match(text):
        size = float(plain[1])
        if not _FINEST_UM <= size <= _COARSEST_UM:
            raise BadInput.one(field, f"a grain of {size:g} um is outside {_FINEST_UM:g} to {_COARSEST_UM:g} um")
        return Grade(f"{size:g}um", to_si(size, "um"))
    written = _WRITTEN.match(text)
    if not written:
        raise BadInput.one(field, f'"{text}" is not a grade; write P600, F400, CAMI600, JIS1000 or 3um')
    system, number = written[1].upper(), int(written[2])
    try:
        return Grade(f"{system}{number}", _grain_of(system, number))
    except OutsideValidity as outside:
        raise BadInput.one(field, str(outside)) from None


def nearest(system: str, grain: float) -> Grade:
    """The system's grade whose grain is nearest in log size.

    >>> nearest("F", 25.8e-6).name
    'F360'
    """
    if grain <= 0:
        raise BadInput.one("grain", "must be above 0")
    number, size = min(scale(system), key=lambda row: abs(math.log(row[1] / grain)))
    return Grade(f"{system}{number}", size)


def coarser_or_like(system: str, grain: float) -> Grade:
    """The finest grade of a system whose grain is not below this one; the coarsest where all are.

    >>> coarser_or_like("P", 40e-6).name
    'P360'
    """
    fitting = [(number, size) for number, size in scale(system) if size >= grain]
    number, size = fitting[-1] if fitting else scale(system)[0]
    return Grade(f"{system}{number}", size)


def nearest_everywhere(grain: float) -> dict[str, str]:
    """The nearest grade of each system that has one near enough to stand for it (`grades.alike`), by its name.

    >>> nearest_everywhere(190e-6)
    {'P': 'P80', 'F': 'F80', 'CAMI': 'CAMI80'}
    """
    most = math.log(constant("grades.alike").value)
    grades = {system: nearest(system, grain) for system in SYSTEMS}
    return {system: grade.name for system, grade in grades.items() if abs(math.log(grade.grain / grain)) <= most}


def micrometres(grain: float) -> float:
    """Grain in um, rounded to the table's precision."""
    return float(f"{from_si(grain, 'um'):.4g}")


def _grain_of(system: str, number: int) -> float:
    rows = scale(system)
    for known, grain in rows:
        if known == number:
            return grain
    for (low, coarse), (high, fine) in pairwise(rows):
        if low < number < high:
            share = math.log(number / low) / math.log(high / low)
            return math.exp(math.log(coarse) + share * math.log(fine / coarse))
    raise OutsideValidity(f"{system}{number} is outside this table: {system}{rows[0][0]} to {system}{rows[-1][0]}")
