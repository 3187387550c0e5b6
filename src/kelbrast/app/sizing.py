"""Parts that are worked to size: kept, changed, and answered; and laps for such work."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.app.rack import Rack
from kelbrast.app.readable import UNREADABLE, Unreadable, readable
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material, materials
from kelbrast.core.errors import BadInput, NotFound, OutsideValidity
from kelbrast.core.precision.advice import advise
from kelbrast.core.precision.lap import LapToMake, lap_to_make, laps_at_hand
from kelbrast.core.precision.learnt import learnt_rate, rate_ratio
from kelbrast.core.precision.pair import Mate, pair_up
from kelbrast.core.precision.readings import everywhere
from kelbrast.core.precision.state import follow
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import in_use, remembered
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.size.answer import LapAtHandFile, PlaceFile, SizeAnswer, to_laps_file, to_places, to_size_answer
from kelbrast.documents.size.format import (
    SizeFile,
    check_size_file,
    gauge_of,
    grades_of,
    material_of,
    part_of,
    rounds_of,
    warmer_of,
    worked_by,
)
from kelbrast.documents.size.pair import PairAnswer, PairFile, to_pair_answer
from kelbrast.storage import sizings as store
from kelbrast.storage.database import as_committed
from kelbrast.storage.sessions import is_writing, reading, writing
from kelbrast.storage.stored import Stored

_NEWEST: Final = 200  # as many parts say all that there is to say of a rate


def size_answer(file: SizeFile, learnt: Mapping[str, float] | None = None) -> SizeAnswer:
    """Where the work stands, and the next move; `learnt`: the shop's own factors of rates, by what it is worked with.

    Raises:
        BadInput: something in the file does not exist or does not fit.
    """
    risk = constant("precision.risk").value if file.pass_risk is None else file.pass_risk
    part, rounds, gauge, grades = part_of(file), rounds_of(file, learnt), gauge_of(file), grades_of(file)
    try:
        advice = advise(part, rounds, gauge, risk=risk, grades=grades, material=material_of(file), warmer=warmer_of(file))
    except OutsideValidity as problem:
        raise BadInput.one("", f"these figures cannot be of one part: {problem}") from None
    return to_size_answer(file.title, advice, learnt=worked_by(file) in (learnt or {}))


def pair_answer(pair: PairFile) -> PairAnswer:
    """A bore and a shaft beside each other.

    Raises:
        BadInput: something in a file does not exist or does not fit, or they are no pair.
    """
    for name, file in (("bore", pair.bore), ("shaft", pair.shaft)):
        if file.kind != name:
            raise BadInput.one(name, f"must be a {name}")
        if not any(size_round.readings for size_round in file.rounds):
            raise BadInput.one(name, "must be measured first")
    least, most = (to_si(one, "um") for one in pair.clearance_um)
    try:
        found = pair_up(_mate(pair.bore), _mate(pair.shaft), least=least, most=most)
    except OutsideValidity as problem:
        raise BadInput.one("", str(problem)) from None
    return to_pair_answer(found, size_answer(pair.bore), size_answer(pair.shaft))


def _mate(file: SizeFile) -> Mate:
    gauge = gauge_of(file)
    return Mate(follow(part_of(file), rounds_of(file), gauge), gauge, material_of(file).expansion)


@dataclass(frozen=True, slots=True)
class KeptSizing:
    """A part with its id and how often it was changed; `answer`: None before it was measured, `places`: where to read next."""

    id: int
    revision: int
    updated_at: datetime
    size: SizeFile
    answer: SizeAnswer | None

    @property
    def limits_mm(self) -> tuple[float, float]:
        """The limits that are wanted, whatever way they were said."""
        wanted = part_of(self.size).wanted
        return from_si(wanted.low, "mm"), from_si(wanted.high, "mm")

    @property
    def places(self) -> list[PlaceFile]:
        """Where to read next."""
        return to_places(everywhere(length=part_of(self.size).length)) if self.answer is None else self.answer.places


@dataclass(frozen=True, slots=True)
class SizingPage:
    """How many parts there are, some of them, and those among them that cannot be read."""

    count: int
    sizes: tuple[KeptSizing, ...]
    unreadable: tuple[Unreadable, ...]


class Sizings:
    """The parts of one database that are worked to size. Every method is one transaction."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._ratios: dict[str, tuple[object, list[_Rate]]] = {}  # by family

    def page(self, words: str = "", *, offset: int = 0, limit: int | None = None) -> SizingPage:
        """Some of those with these words in their titles, the last changed first."""
        with reading(self._engine) as session:
            count, stored = store.search_sizings(session, words.split(), offset=offset, limit=limit)
            kept, failed = readable(
                stored,
                lambda stored: self._kept(session, stored),
                lambda stored: (stored.id, str(stored.document.get("title", ""))),
            )
        return SizingPage(count, tuple(kept), tuple(failed))

    def document(self, sizing_id: int) -> Mapping[str, Any]:
        """One of them as it is stored, whether it can be read or not.

        Raises:
            NotFound: none with this id.
        """
        with reading(self._engine) as session:
            return store.get_sizing(session, sizing_id).document

    def get(self, sizing_id: int) -> KeptSizing:
        """One of them.

        Raises:
            NotFound: none with this id.
        """
        with reading(self._engine) as session:
            return self._kept(session, store.get_sizing(session, sizing_id))

    def add(self, file: SizeFile) -> KeptSizing:
        """Keep a new one.

        Raises:
            BadInput: something in the file does not exist or does not fit.
        """
        answered(file)
        with writing(self._engine) as session:
            return self._kept(session, store.add_sizing(session, _document(file)))

    def change(self, sizing_id: int, file: SizeFile, *, revision: int) -> KeptSizing:
        """Replace one that nobody else changed in the meantime.

        Raises:
            NotFound: none with this id.
            Conflict: it was changed elsewhere.
            BadInput: something in the file does not exist or does not fit.
        """
        answered(file)
        with writing(self._engine) as session:
            return self._kept(session, store.change_sizing(session, sizing_id, _document(file), revision=revision))

    def remove(self, sizing_id: int) -> None:
        """Forget one.

        Raises:
            NotFound: none with this id.
        """
        with writing(self._engine) as session:
            store.remove_sizing(session, sizing_id)

    def file(self, sizing_id: int) -> SizeFile:
        """One of them without its answer.

        Raises:
            NotFound: none with this id.
        """
        return check_size_file(dict(self.document(sizing_id)))

    def _kept(self, session: Session, stored: Stored) -> KeptSizing:
        file = check_size_file(dict(stored.document))
        return KeptSizing(
            stored.id, stored.revision, stored.updated_at, file, answered(file, self._learnt(session, stored.id, file))
        )

    def _learnt(self, session: Session, sizing_id: int, file: SizeFile) -> dict[str, float]:
        """What the newest other parts of its family that were worked with the same say of its rate."""
        by, family = worked_by(file), material_of(file).family
        ratios = [
            rate.ratio
            for rate in self._rates(session, family)
            if rate.sizing != sizing_id and rate.worked_by == by and rate.ratio is not None
        ]
        factor = learnt_rate(ratios)
        return {} if factor is None else {by: factor}

    def _rates(self, session: Session, family: str) -> "list[_Rate]":
        """Of the newest parts of a family; read again only when something was committed."""
        mark = None if is_writing(self._engine) else (as_committed(self._engine), in_use())
        known = self._ratios.get(family)
        if mark is not None and mark[0] is not None and known is not None and known[0] == mark:
            return known[1]
        like = [material.id for material in materials().values() if material.family == family]
        rates = []
        for sizing_id, document in store.newest_of_materials(session, like, _NEWEST):
            rates.append(_Rate(sizing_id, *_ratio(document)))
        if mark is not None:
            self._ratios[family] = mark, rates
        return rates


@dataclass(frozen=True, slots=True)
class _Rate:
    """What a part was worked with, and its rate against the published one; None where its rounds do not tell."""

    sizing: int
    worked_by: str
    ratio: float | None


def answered(file: SizeFile, learnt: Mapping[str, float] | None = None) -> SizeAnswer | None:
    """The answer; None before the first reading.

    Raises:
        BadInput: something in the file does not exist or does not fit.
    """
    if any(size_round.readings for size_round in file.rounds[:1]) or len(file.rounds) > 1:
        return size_answer(file, learnt)
    part_of(file), grades_of(file)
    return None


def _document(file: SizeFile) -> dict[str, object]:
    return file.model_dump(mode="json", by_alias=True, exclude_none=True)


@remembered(4 * _NEWEST)
def _ratio(document: str) -> tuple[str, float | None]:
    """What a part was worked with, and its rate against the published one; None where its rounds do not tell."""
    try:
        file = check_size_file(json.loads(document))
        told = len(file.rounds) > 2
        return worked_by(file), rate_ratio(follow(part_of(file), rounds_of(file), gauge_of(file))) if told else None
    except UNREADABLE:
        return "", None


def laps_of_rack(
    rack: Rack, *, kind: RoundKind, tightest_mm: float, target_mm: float, length_mm: float, grade: str
) -> list[LapAtHandFile]:
    """Every lap of the rack on this work.

    Raises:
        BadInput: the grade is none.
    """
    laps = laps_at_hand(
        [item.item for item in rack.items()],
        kind=kind,
        tightest=to_si(tightest_mm, "mm"),
        target=to_si(target_mm, "mm"),
        length=to_si(length_mm, "mm"),
        grade=parse_grade(grade, field="grade"),
    )
    return to_laps_file(laps)


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
