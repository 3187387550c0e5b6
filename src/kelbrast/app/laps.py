"""Laps for a work: those of the rack, and the one to make."""

from kelbrast.app.rack import Rack
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import BadInput, NotFound, OutsideValidity
from kelbrast.core.precision.lap import LapToMake, lap_to_make, laps_at_hand
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.units import to_si
from kelbrast.documents.size.laps import LapAtHandFile, to_laps_file


def laps_of_rack(
    rack: Rack, *, kind: RoundKind, tightest_mm: float, target_mm: float, length_mm: float, grade: str
) -> list[LapAtHandFile]:
    """Every lap of the rack on this work.

    Raises:
        BadInput: the grade is none.
    """
    found = laps_at_hand(
        [one.item for one in rack.items()],
        kind=kind,
        tightest=to_si(tightest_mm, "mm"),
        target=to_si(target_mm, "mm"),
        length=to_si(length_mm, "mm"),
        grade=parse_grade(grade, field="grade"),
    )
    return to_laps_file(found)


def lap_wanted(*, kind: RoundKind, tightest_mm: float, length_mm: float, made_of: str) -> LapToMake:
    """The lap to make for a work.

    Raises:
        BadInput: no such material, or a diameter that no lap goes into.
    """
    try:
        known = material(made_of)
        return lap_to_make(kind=kind, tightest=to_si(tightest_mm, "mm"), length=to_si(length_mm, "mm"), material=known)
    except NotFound as problem:
        raise BadInput.one("material", str(problem)) from None
    except OutsideValidity as problem:
        raise BadInput.one("tightest_mm", str(problem)) from None
