"""Tolerance classes as drawings write them, with the tables of the standard; and materials of laps."""

import re
from dataclasses import dataclass
from functools import cache
from typing import Final

from kelbrast.core.errors import BadInput
from kelbrast.core.reference.loader import record, table

LETTERS: Final = ("f", "g", "h", "js", "k", "m", "n", "p")
GRADES: Final = (5, 6, 7, 8)
_CLASS: Final = re.compile(r"(JS|js|[A-Za-z])(\d{1,2})")


@dataclass(frozen=True, slots=True)
class ToleranceClass:
    """A letter and a grade: `H7` of a hole, `g6` of a shaft."""

    letter: str
    grade: int

    @property
    def is_hole(self) -> bool:
        return self.letter.isupper()


def tolerance_class(written: str, *, field: str = "class") -> ToleranceClass:
    """A class as it is written.

    Raises:
        BadInput: it is none, or not among those that are known here.

    >>> tolerance_class("g6")
    ToleranceClass(letter='g', grade=6)
    """
    found = _CLASS.fullmatch(written.strip())
    known = ", ".join((*LETTERS, *(letter.upper() for letter in LETTERS)))
    if found is None or found[1].lower() not in LETTERS or found[1] not in (found[1].lower(), found[1].upper()):
        raise BadInput.one(field, f'"{written}" is not a tolerance class: a letter of {known}, then the grade, as in H7 or g6')
    if int(found[2]) not in GRADES:
        raise BadInput.one(field, f"the grade must be from {GRADES[0]} to {GRADES[-1]}, as in H7")
    return ToleranceClass(found[1], int(found[2]))


@dataclass(frozen=True, slots=True)
class ToleranceRange:
    """A range of nominal sizes, mm, with the standard's tolerances by grade and deviations by letter, um."""

    over: float
    to: float
    grades: dict[int, float]
    letters: dict[str, float]


@cache
def tolerance_ranges() -> tuple[ToleranceRange, ...]:
    """All of them, from the smallest."""
    rows = table("tolerances")
    letters = ("f", "g", "k", "m", "n", "p")
    return tuple(
        ToleranceRange(
            float(row["over_mm"]),
            float(row["to_mm"]),
            {grade: float(row[f"it{grade}_um"]) for grade in (4, *GRADES)},
            {letter: float(row[f"{letter}_um"]) for letter in letters},
        )
        for row in rows
    )


@dataclass(frozen=True, slots=True)
class LapMaterial:
    """What a lap can be made of; hardness in Pa."""

    id: str
    label: str
    hardness: float
    note: str


@cache
def lap_materials() -> tuple[LapMaterial, ...]:
    """All of them, the softest first."""
    rows = record("laps").items()
    return tuple(LapMaterial(key, row["label"], row["hardness"].si, row["note"]) for key, row in rows)


def lap_for(hardness: float) -> LapMaterial:
    """The hardest that is still softer than the work: it holds its form longest, and the grain sits in it, not in the work."""
    softer = [material for material in lap_materials() if material.hardness < hardness]
    return max(softer, key=lambda lap_material: lap_material.hardness) if softer else lap_materials()[0]
