"""Pairs of photos with what is true of them, in a folder: `pairs.csv`, and two photos for each of its rows."""

from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.catalogue.grades import Grade, parse_grade
from kelbrast.core.errors import MOST_FAULTS, BadInput, Fault
from kelbrast.documents.common.csv_text import csv_rows, csv_text
from kelbrast.documents.common.fields import read_number
from kelbrast.documents.run.eye import USUAL_CROSSING

TABLE: Final = "pairs.csv"
COLUMNS: Final = ("pair", "old_marks", "across_mm", "before", "crossing_deg", "lay_deg", "left", "what")
_ANSWERS: Final = {"yes": True, "no": False}
LAMPS: Final[tuple[Literal["across", "along"], ...]] = ("across", "along")


@dataclass(frozen=True, slots=True)
class EyePair:
    """A row: what is true, and what the person says of the photos. `left`, `lay_deg`: where they are known.

    Attributes:
        old_marks: whether old marks are left.  across_mm: width of a photo.  before: grade that was worked before.
        crossing_deg: at which it crosses the new marks.  left: share of the face on which old marks are.
        what: how the photos were taken, to tell sets apart.
    """

    pair: str
    old_marks: bool
    across_mm: float
    before: Grade
    crossing_deg: float
    lay_deg: float | None
    left: float | None
    what: str

    def photo(self, lamp: Literal["across", "along"]) -> str:
        """The name of a photo, without its ending."""
        return f"{self.pair}-{lamp}"


def read_pairs(text: str) -> list[EyePair]:
    """The rows of a table of pairs.

    Raises:
        ReadError: not such a table.  BadInput: every fault, by row and column.
    """
    found: dict[str, EyePair] = {}
    faults: list[Fault] = []
    for number, row in csv_rows(text, COLUMNS, needs="pair"):
        try:
            if isinstance(row, Fault):
                raise BadInput([row])
            pair = _pair(row, number)
            if pair.pair in found:
                raise BadInput.one(f"row {number}, pair", f"{pair.pair} is there twice")
            found[pair.pair] = pair
        except BadInput as bad:
            faults += bad.faults
        if len(faults) > MOST_FAULTS:
            break
    if faults:
        raise BadInput(faults)
    if not found:
        raise BadInput.one(TABLE, "has no pairs")
    return list(found.values())


def _pair(row: dict[str, str], number: int) -> EyePair:
    faults: list[Fault] = []

    def wrong(column: str, said: str) -> None:
        faults.append(Fault(f"row {number}, {column}", said))

    def figure(column: str, low: float, high: float) -> float:
        try:
            value = read_number(row.get(column, ""))
        except ValueError as problem:
            wrong(column, str(problem))
            return low
        if not low < value <= high:
            wrong(column, f"must be above {low:g}, and {high:g} at most")
        return value

    name, answer = row["pair"], row.get("old_marks", "").lower()
    if not name or name != name.strip(". ") or any(sign in name for sign in '/\\:*?"<>|'):
        wrong("pair", "must be a name that a file can have")
    if answer not in _ANSWERS:
        wrong("old_marks", "must be yes or no")
    before = Grade("", 0.0)
    try:
        before = parse_grade(row.get("before", ""), field=f"row {number}, before")
    except BadInput as bad:
        faults += bad.faults
    row = {**row, "crossing_deg": row.get("crossing_deg") or str(USUAL_CROSSING)}
    pair = EyePair(
        pair=name,
        old_marks=_ANSWERS.get(answer, False),
        across_mm=figure("across_mm", 0, 1e4),
        before=before,
        crossing_deg=figure("crossing_deg", 0, 90),
        lay_deg=figure("lay_deg", -360, 360) if row.get("lay_deg") else None,
        left=figure("left", -1e-12, 1) if row.get("left") else None,
        what=row.get("what", ""),
    )
    if faults:
        raise BadInput(faults)
    return pair


@dataclass(frozen=True, slots=True)
class SaidOfPair:
    """What the eye said of a pair, in figures that tell nothing of the shop."""

    pair: EyePair
    said: str
    score: float | None
    softness: float | None
    pixel_um: float
    fields: int | None
    doubts: str
    why: str


def anonymous_csv(said: list[SaidOfPair]) -> str:
    """The answers without names, photos, places or days: to be given to others."""
    columns = ("old_marks", "said", "why", "score", "softness", "doubts", "pixel_um", "fields", "before", "crossing_deg")
    rows = (
        (
            one.pair.old_marks, one.said, one.why, one.score, one.softness, one.doubts, one.pixel_um, one.fields,
            one.pair.before.name, one.pair.crossing_deg,
        )
        for one in said
    )  # fmt: skip
    return csv_text(columns, rows)
