"""What a shop owns that no catalogue lists, each thing like a known one but for what differs.

An entry becomes a row like those of the reference, checked by the same schemas, with this shop as the source of what differs.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, Final, Literal

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.hardness import indentation_pressure
from kelbrast.core.catalogue.tools import carriers, wear_coefficient
from kelbrast.core.errors import BadInput, Fault, OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import OwnRows, using
from kelbrast.core.reference.raw import reference_written
from kelbrast.core.reference.schemas import misfits
from kelbrast.core.units import from_si

OwnKind = Literal["tool", "compound", "material", "machine", "finish"]
SOURCE: Final = "this-shop"
_FILES: Final[dict[OwnKind, str]] = {
    "tool": "carriers",
    "compound": "compounds",
    "material": "materials",
    "machine": "machines",
    "finish": "finishes",
}
# Lists of the reference that name things one by one: what is like a thing in them stands in them too.
_NAMED_IN: Final[dict[OwnKind, tuple[tuple[str, str], ...]]] = {
    "tool": (("families", "worked_by"),),
    "compound": (("carriers", "compounds"), ("families", "bars")),
    "material": (("carriers", "not_on"),),
    "machine": (),
    "finish": (),
}


@dataclass(frozen=True, slots=True)
class OwnEntry:
    """Something of the shop's own. What is None, 1 or empty is as of what it is like.

    Attributes:
        id: of its row: of a tool the carrier, whose grades are its tools.
        like: id of the reference's row of its kind: of a tool a carrier.
        by: who put it in.  on: when.
        grades: of a tool, as on the back of it.  cuts, lasts, marks: how many times as quick, as long, as deep.
        cuts_like: the grade that a tool of one grade cuts like, where it leaves the marks of its own.
        retired: a tool or compound that no new plan is made with.
        grain: of a compound, as a grade.
        hardness: of a material, with its scale.
        density (kg/m3), expansion (um/mK), limit (degrees C); coarsest: the coarsest grade that it bears.
        speeds (rev/min): of a machine with fixed ones; speed_range: of one without.
        marked_limit (m/s), diameter (mm), price: of a tool.
        ra: band of a finish, um.  measured_ra: of a piece that it shall look like, um.  lay: of a finish.
    """

    id: str
    kind: OwnKind
    name: str
    like: str
    by: str = ""
    on: date | None = None
    grades: tuple[str, ...] = ()
    cuts: float = 1.0
    cuts_like: str = ""
    retired: bool = False
    lasts: float = 1.0
    marks: float = 1.0
    marked_limit: float | None = None
    diameter: float | None = None
    price: float | None = None
    grain: str = ""
    hardness: tuple[float, str] | None = None
    density: float | None = None
    expansion: float | None = None
    limit: float | None = None
    coarsest: str = ""
    speeds: tuple[float, ...] = ()
    speed_range: tuple[float, float] | None = None
    ra: tuple[float | None, float | None] | None = None
    measured_ra: float | None = None
    lay: str = ""

    @property
    def said(self) -> str:
        """Who says so, and when.

        >>> OwnEntry("own-a", "compound", "Paste", "tripoli", "Mara", date(2026, 3, 12)).said
        '12 March 2026, Mara'
        """
        when = "" if self.on is None else f"{self.on.day} {self.on:%B %Y}"
        return ", ".join(part for part in (when, self.by) if part)


def known(kind: OwnKind) -> Sequence[str]:
    """Ids that something of this kind can be like.

    >>> "belt" in known("tool"), "belt" in known("compound")
    (True, False)
    """
    return list(reference_written(_FILES[kind]))


def own_rows(entries: Iterable[OwnEntry]) -> OwnRows:
    """The rows of these entries, and the lists of the reference that they stand in besides.

    Raises:
        BadInput: an entry that cannot be used, each fault with its place: `entries[0].hardness`.

    >>> from kelbrast.core.catalogue.tools import tool
    >>> belt = OwnEntry("own-belt", "tool", "Ceramic belt", "belt", grades=("P80",), cuts=2.0)
    >>> with using(own_rows([belt])):
    ...     quick = tool("own-belt-p80")
    >>> quick.label, round(quick.wear / tool("belt-p80").wear, 3)
    ('P80 ceramic belt', 2.0)
    """
    entries = list(entries)
    faults = [fault for at, entry in enumerate(entries) for fault in _faults(entry, f"entries[{at}].")]
    if faults:
        raise BadInput(faults)
    rows: dict[str, dict[str, Any]] = {}
    joins: dict[str, dict[str, dict[str, tuple[str, ...]]]] = {}
    for entry in entries:
        rows.setdefault(_FILES[entry.kind], {})[entry.id] = _row(entry)
    for entry in entries:
        if entry.kind == "compound" and entry.retired:
            continue
        for name, which in _NAMED_IN[entry.kind]:
            for key, row in reference_written(name).items():
                if entry.like in row.get(which, ()):
                    lists = joins.setdefault(name, {}).setdefault(key, {})
                    lists[which] = (*lists.get(which, ()), entry.id)
            for row in rows.get(name, {}).values():
                if entry.like in row.get(which, ()):
                    row[which] = [*row[which], entry.id]
    made = OwnRows(rows, joins)
    _refuse_misfits(made, entries)
    return made


def _refuse_misfits(made: OwnRows, entries: Sequence[OwnEntry]) -> None:
    """What the schemas of the reference say to the rows; they look into each other's files."""
    at = {entry.id: number for number, entry in enumerate(entries)}
    with using(made):
        faults = [
            Fault(f"entries[{at[key]}].{fault.field.partition(f'{key}.')[2]}", fault.message)
            for name, rows in made.rows.items()
            for key, row in rows.items()
            for fault in misfits(name, {key: row})
        ]
    if faults:
        raise BadInput(faults)


def _row(entry: OwnEntry) -> dict[str, Any]:
    """The row as it would be written in the reference."""
    base = dict(reference_written(_FILES[entry.kind])[entry.like])
    make = {"tool": _tool, "compound": _compound, "material": _material, "machine": _machine, "finish": _finish}
    changed = make[entry.kind](entry, base)  # what it replaces is taken out of the base
    return {**base, "label": entry.name, **changed}


def _figure(entry: OwnEntry, value: float, unit: str) -> list[Any]:
    return [value, unit, SOURCE, entry.said] if entry.said else [value, unit, SOURCE]


def _given(entry: OwnEntry, **figures: tuple[float | None, str]) -> dict[str, Any]:
    return {name: _figure(entry, value, unit) for name, (value, unit) in figures.items() if value is not None}


def _tool(entry: OwnEntry, base: dict[str, Any]) -> dict[str, Any]:
    if entry.grades:
        base.pop("sizes", None)
        base["grades"] = list(entry.grades)
    row = {"like": entry.like, **_given(entry, marked_limit=(entry.marked_limit, "m/s"), diameter=(entry.diameter, "mm"))}
    rate = entry.cuts * _rate_like(entry)
    row |= _given(entry, price=(entry.price, "money"), cut_rate=(rate if rate != 1 else None, "1"))
    if entry.retired:
        row["retired"] = True
    for name in ("life", "lasts"):
        if entry.lasts != 1 and name in base:
            value, unit = base[name][:2]
            row[name] = _figure(entry, value * entry.lasts, unit)
    if entry.marks != 1:
        row["hold"] = _figure(entry, base["hold"][0] * entry.marks, "1")
    return row


def _rate_like(entry: OwnEntry) -> float:
    """How many times as quick as its own grade the grade is that it cuts like."""
    if not entry.cuts_like:
        return 1.0
    carrier = carriers()[entry.like]
    fast, own = (wear_coefficient(carrier, parse_grade(grade).grain) for grade in (entry.cuts_like, entry.grades[0]))
    return fast / own


def _compound(entry: OwnEntry, base: dict[str, Any]) -> dict[str, Any]:
    row: dict[str, Any] = {}
    if entry.grain:
        row["grain"] = _figure(entry, from_si(parse_grade(entry.grain).grain, "um"), "um")
    if entry.cuts != 1:
        row["wear"] = _figure(entry, base["wear"][0] * entry.cuts, "1")
    return row


def _material(entry: OwnEntry, _base: dict[str, Any]) -> dict[str, Any]:
    hard = from_si(indentation_pressure(*entry.hardness), "GPa") if entry.hardness else None
    coarsest = from_si(parse_grade(entry.coarsest).grain, "um") if entry.coarsest else None
    row = _given(entry, density=(entry.density, "kg/m3"), expansion=(entry.expansion, "um/mK"), limit=(entry.limit, "C"))
    return {**row, **_given(entry, hardness=(hard, "GPa"), coarsest=(coarsest, "um"))}


def _machine(entry: OwnEntry, base: dict[str, Any]) -> dict[str, Any]:
    if entry.speeds or entry.speed_range:
        for name in ("speeds", "speed_low", "speed_high"):
            base.pop(name, None)
    like = {"like": entry.like}
    if entry.speeds:
        return {**like, "speeds": [_figure(entry, speed, "rev/min") for speed in sorted(entry.speeds)]}
    low, high = entry.speed_range or (None, None)
    return {**like, **_given(entry, speed_low=(low, "rev/min"), speed_high=(high, "rev/min"))}


def _finish(entry: OwnEntry, base: dict[str, Any]) -> dict[str, Any]:
    row: dict[str, Any] = {"lay": entry.lay} if entry.lay else {}
    if entry.ra or entry.measured_ra:
        for name in ("ra_low", "ra_high"):
            base.pop(name, None)
        low, high = entry.ra or _around(entry.measured_ra or 0.0)
        row |= _given(entry, ra_low=(low, "um"), ra_high=(high, "um")) | {"purpose": f"{entry.name}, as this shop has it."}
    return row


def _around(ra: float) -> tuple[float, float]:
    """The band in which a face looks like a piece of this Ra."""
    share = constant("looks.like_piece").value
    return ra / share, ra * share


def _faults(entry: OwnEntry, at: str) -> Iterator[Fault]:
    """What the schemas of the reference cannot see."""
    if entry.like not in known(entry.kind):
        yield Fault(f"{at}like", f'there is no {entry.kind} "{entry.like}" that it could be like')
        return
    if any(entry.name.strip().lower() == str(row["label"]).lower() for row in reference_written(_FILES[entry.kind]).values()):
        yield Fault(f"{at}name", "is the name of a known one; give it another")
    yield from _faults_of_tools(entry, reference_written("carriers").get(entry.like, {}), at)
    for field, grade in (("grain", entry.grain), ("coarsest", entry.coarsest)):
        yield from _unreadable(grade, f"{at}{field}")
    if entry.hardness:
        try:
            indentation_pressure(*entry.hardness)
        except OutsideValidity as outside:
            yield Fault(f"{at}hardness", str(outside))
    if entry.speed_range and entry.speed_range[0] >= entry.speed_range[1]:
        yield Fault(f"{at}speed_range", "the lowest speed must be below the highest")
    if entry.speed_range and entry.speeds:
        yield Fault(f"{at}speeds", "give fixed speeds, or a range, not both")
    low, high = entry.ra or (None, None)
    if entry.ra and entry.measured_ra:
        yield Fault(f"{at}measured_ra", "give the band, or what a piece measured, not both")
    if entry.ra and low is None and high is None:
        yield Fault(f"{at}ra", "needs at least one end")
    if low is not None and high is not None and low >= high:
        yield Fault(f"{at}ra", "its fine end must be below its coarse one")


def _faults_of_tools(entry: OwnEntry, carrier: dict[str, Any], at: str) -> Iterator[Fault]:
    if entry.kind != "tool":
        return
    if entry.grades and "compounds" in carrier:
        yield Fault(f"{at}grades", "belong to what carries its own grain; this is charged with bars")
    for number, grade in enumerate(entry.grades):
        yield from _unreadable(grade, f"{at}grades[{number}]")
    if entry.diameter is not None and "diameter" not in carrier:
        yield Fault(f"{at}diameter", "belongs to wheels and discs")
    yield from _unreadable(entry.cuts_like, f"{at}cuts_like")
    if entry.cuts_like and len(entry.grades) != 1:
        yield Fault(f"{at}cuts_like", "belongs to a tool of one grade; give the others entries of their own")
    if entry.lasts != 1 and "life" not in carrier and "lasts" not in carrier:
        yield Fault(f"{at}lasts", "what it is like does not wear out in the tables")


def _unreadable(grade: str, field: str) -> Iterator[Fault]:
    try:
        if grade:
            parse_grade(grade)
    except BadInput as bad:
        yield Fault(field, bad.faults[0].message)
