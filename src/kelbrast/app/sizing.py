"""Parts that are worked to size: kept, changed, and answered."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.precision.advice import advise
from kelbrast.core.precision.learnt import learnt_rate, rate_ratio
from kelbrast.core.precision.pair import Mate, pair_up
from kelbrast.core.precision.readings import everywhere
from kelbrast.core.precision.state import follow
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import to_si
from kelbrast.exchange.pair_file import PairAnswer, PairFile, to_pair_answer
from kelbrast.exchange.size_answer import PlaceFile, SizeAnswer, to_places, to_size_answer
from kelbrast.exchange.size_file import (
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
from kelbrast.storage import sizings as store
from kelbrast.storage.sessions import reading, writing


def size_answer(file: SizeFile, learnt: Mapping[str, float] | None = None) -> SizeAnswer:
    """Where the work stands, and the next move; `learnt`: the shop's own factors of rates, by what it is worked with.

    Raises:
        BadInput: something in the file does not exist or does not fit.
    """
    risk = constant("precision.risk").value if file.pass_risk is None else file.pass_risk
    part, rounds, gauge, grades = part_of(file), rounds_of(file, learnt), gauge_of(file), grades_of(file)
    try:
        found = advise(part, rounds, gauge, risk=risk, grades=grades, material=material_of(file), warmer=warmer_of(file))
    except OutsideValidity as problem:
        raise BadInput.one("", f"these figures can not be of one part: {problem}") from None
    return to_size_answer(file.title, found, learnt=worked_by(file) in (learnt or {}))


def pair_answer(pair: PairFile) -> PairAnswer:
    """A bore and a shaft beside each other.

    Raises:
        BadInput: something in a file does not exist or does not fit, or they are no pair.
    """
    for name, file in (("bore", pair.bore), ("shaft", pair.shaft)):
        if file.kind != name:
            raise BadInput.one(name, f"must be a {name}")
        if not any(one.readings for one in file.rounds):
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
    def places(self) -> list[PlaceFile]:
        """Where to read next."""
        return to_places(everywhere(length=part_of(self.size).length)) if self.answer is None else self.answer.places


class Sizings:
    """The parts of one database that are worked to size. Every method is one transaction."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[KeptSizing]:
        """Every one, the last changed first."""
        with reading(self._engine) as session:
            stored = store.all_sizings(session)
        return [_kept(one, _learnt(one, stored)) for one in stored]

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

    def _kept(self, session: Session, one: store.StoredSizing) -> KeptSizing:
        return _kept(one, _learnt(one, store.all_sizings(session)))


def answered(file: SizeFile, learnt: Mapping[str, float] | None = None) -> SizeAnswer | None:
    """The answer; None before the first reading.

    Raises:
        BadInput: something in the file does not exist or does not fit.
    """
    if any(one.readings for one in file.rounds[:1]) or len(file.rounds) > 1:
        return size_answer(file, learnt)
    part_of(file), grades_of(file)
    return None


def _document(file: SizeFile) -> dict[str, object]:
    return file.model_dump(mode="json", by_alias=True, exclude_none=True)


def _kept(stored: store.StoredSizing, learnt: Mapping[str, float]) -> KeptSizing:
    file = check_size_file(dict(stored.document))
    return KeptSizing(stored.id, stored.revision, stored.updated_at, file, answered(file, learnt))


def _learnt(one: store.StoredSizing, stored: Sequence[store.StoredSizing]) -> dict[str, float]:
    """What the other parts of its family that were worked with the same say of its rate."""
    file = check_size_file(dict(one.document))
    family, by = material_of(file).family, worked_by(file)
    others = [check_size_file(dict(other.document)) for other in stored if other.id != one.id]
    like = [other for other in others if worked_by(other) == by and material_of(other).family == family]
    ratios = [_ratio(other) for other in like if len(other.rounds) > 2]
    factor = learnt_rate([ratio for ratio in ratios if ratio is not None])
    return {} if factor is None else {by: factor}


def _ratio(file: SizeFile) -> float | None:
    return rate_ratio(follow(part_of(file), rounds_of(file), gauge_of(file)))
