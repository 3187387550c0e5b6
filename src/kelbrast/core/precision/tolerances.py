"""Limits of sizes as drawings write them: `25 H7`, `25 g6`, deviations, and fits of a shaft in a hole (ISO 286)."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.tolerance_classes import ToleranceClass, ToleranceRange, tolerance_ranges
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.units import to_si

_FINEST_ROUNDED: Final = 7  # above it k is 0 and P has no step of its own


@dataclass(frozen=True, slots=True)
class Deviations:
    """Lower and upper deviation from the nominal size, m."""

    low: float
    high: float


def deviations(*, nominal: float, written: ToleranceClass) -> Deviations:
    """The deviations of a class at a nominal size, from the tables of the standard.

    Equation: shafts `es = -f, -g, 0` or `ei = k, m, n, p`; holes `EI = -es`, `ES = -ei + (IT_n - IT_(n-1))`; js, JS
        `+-IT / 2` (m)
    Valid: nominal sizes from 1 to 250 mm, grades 5 to 8.

    Args:
        nominal: D, m.
        written: the class.

    Raises:
        OutsideValidity: outside that.

    Source: iso-286.

    >>> from kelbrast.core.catalogue.tolerance_classes import tolerance_class
    >>> found = deviations(nominal=25e-3, written=tolerance_class("g6"))
    >>> round(found.low * 1e6), round(found.high * 1e6)
    (-20, -7)
    """
    row = _row(nominal)
    width = row.grades[written.grade]
    letter = written.letter.lower()
    if letter == "js":
        low, high = -width / 2, width / 2
    elif letter in ("f", "g", "h"):
        high = -row.letters.get(letter, 0.0)
        low = high - width
    else:
        low = 0.0 if letter == "k" and written.grade > _FINEST_ROUNDED else row.letters[letter]
        high = low + width
    if written.is_hole and letter in ("f", "g", "h", "js"):
        low, high = -high, -low
    elif written.is_hole:
        high = -row.letters[letter] + _step(row, letter, written.grade)
        low = high - width
    return Deviations(to_si(low, "um"), to_si(high, "um"))


def _row(nominal: float) -> ToleranceRange:
    size = nominal / 1e-3
    if not 1 - 1e-9 <= size <= tolerance_ranges()[-1].to + 1e-9:
        raise OutsideValidity(f"the nominal size must be from 1 to {tolerance_ranges()[-1].to:g} mm")
    return next(row for row in tolerance_ranges() if size <= row.to + 1e-9)


def _step(row: ToleranceRange, letter: str, grade: int) -> float:
    """By how much a hole of this class is wider than the mirrored shaft: the step to the grade before."""
    if row.over == 0 or (letter == "p" and grade > _FINEST_ROUNDED):
        return 0.0
    return row.grades[grade] - row.grades[grade - 1]


def clearance(*, hole: Deviations, shaft: Deviations) -> tuple[float, float]:
    """Least and largest clearance of a shaft in a hole of the same nominal size; below 0 it is tight.

    Equation: `EI - es`, `ES - ei` (m)
    Valid: any deviations.

    Args:
        hole: its deviations.
        shaft: its deviations.

    Raises:
        OutsideValidity: never.

    Source: iso-286.

    >>> from kelbrast.core.catalogue.tolerance_classes import tolerance_class
    >>> hole, shaft = (deviations(nominal=25e-3, written=tolerance_class(one)) for one in ("H7", "g6"))
    >>> [round(one * 1e6) for one in clearance(hole=hole, shaft=shaft)]
    [7, 41]
    """
    return hole.low - shaft.high, hole.high - shaft.low
