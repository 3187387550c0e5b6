"""Finishes: by purpose or by a band of roughness."""

from dataclasses import dataclass
from typing import Any, Final, Literal

from kelbrast.core.reference.loader import Constant, constant, find, record
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.wording import Measure, Sentence, places_of, sentence

LayWanted = Literal["any", "one-way", "none"]
LAYS_WANTED: Final[dict[LayWanted, str]] = {"any": "Any", "one-way": "One direction", "none": "No direction"}


@dataclass(frozen=True, slots=True)
class Finish:
    """A wanted surface.

    Attributes:
        ra_low, ra_high: the band of Ra in metres; None for no end on that side.
        no_finer_than: for a gripping face, the grade (as text) whose paper must not be outdone; bounds Ra by the material.
        lay: "one-way", "none" or "any".
        simpler: id of the next less demanding finish; None where there is none.
        deformed: d of the clearance: the smeared layer that must go too, in depths of the marks.
    """

    id: str
    label: str
    purpose: Sentence
    ra_low: float | None
    ra_high: float | None
    lay: str
    deformed: float
    no_finer_than: str | None = None
    simpler: str | None = None
    figures: tuple[tuple[str, Constant], ...] = ()

    @property
    def by_number(self) -> bool:
        """A roughness grade number of a drawing, N1 to N12."""
        return self.id.startswith("N") and self.id[1:].isdigit()


@remembered()
def finishes() -> dict[str, Finish]:
    """Every named finish by its id."""
    return {key: _finish(key, row) for key, row in record("finishes").items()}


def finish(key: str) -> Finish:
    """The finish with this id.

    >>> finish("brushed-fine").lay
    'one-way'
    """
    return find("finish", finishes(), key)


@remembered()
def ladder() -> tuple[Finish, ...]:
    """The named finishes that follow each other, from the most demanding to the simplest.

    >>> [one.id for one in ladder()][:2]
    ['mirror', 'bright']
    """
    below = {finish.simpler for finish in finishes().values()}
    found = [next(finish for finish in finishes().values() if finish.simpler and finish.id not in below)]
    while found[-1].simpler:
        found.append(finish(found[-1].simpler))
    return tuple(found)


def band(low: float | None, high: float | None, lay: str) -> Finish:
    """A finish from a plain band of Ra (metres), as on a drawing. Its coarse end decides what it must show.

    >>> band(None, 0.05e-6, "any").deformed
    1.0
    """
    top = high if high is not None else float("inf")
    mirror, satin = (constant(f"looks.{end}").si for end in ("mirror_below", "satin_below"))
    shows = "mirror" if top <= mirror else "satin" if top <= satin else "hidden"
    return Finish("", "Own roughness band", band_said(low, high), low, high, lay, constant(f"deformed.{shows}").value)


def band_said(low: float | None, high: float | None) -> Sentence:
    """A band of Ra (m) in words.

    >>> str(band_said(None, 0.4e-6)), str(band_said(0.1e-6, 0.4e-6))
    ('Ra at most 0.4 µm', 'Ra 0.1 µm to 0.4 µm')
    """
    ends = {name: Measure(end, "roughness", 3) for name, end in (("low", low), ("high", high)) if end is not None}
    return sentence(f"roughness.{'band' if len(ends) == 2 else 'at_least' if low is not None else 'at_most'}", **ends)


def _ends(words: str, low: Constant | None, high: Constant | None) -> tuple[tuple[str, Measure], ...]:
    """What stands in the places of a purpose: the ends of the finish's own band."""
    ends = {"ra_low": low, "ra_high": high}
    return tuple((name, Measure(end.si, "roughness", 3)) for name in places_of(words) if (end := ends[name]) is not None)


def _finish(key: str, row: dict[str, Any]) -> Finish:
    figures = {name: value for name, value in row.items() if isinstance(value, Constant)}
    low, high = figures.get("ra_low"), figures.get("ra_high")
    return Finish(
        id=key,
        label=row["label"],
        purpose=Sentence(f"finishes.{key}.purpose", row["purpose"], _ends(row["purpose"], low, high)),
        ra_low=low.si if low else None,
        ra_high=high.si if high else None,
        lay=row["lay"],
        deformed=constant(f"deformed.{row['shows']}").value,
        no_finer_than=row.get("no_finer_than"),
        simpler=row.get("simpler"),
        figures=tuple(figures.items()),
    )
