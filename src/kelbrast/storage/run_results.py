"""Keeping what follows from the events of runs, in the transaction of the tap: their lines in the log, the work of each day and
thing, and what was observed."""

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any, Final, cast

from sqlalchemy import ColumnElement, delete, func, insert, or_, select, tuple_, update
from sqlalchemy.orm import InstrumentedAttribute, Session

from kelbrast.core.learning.factors import LearntQuantity, Observation
from kelbrast.storage.tables import ChangeCountRow, ObservationRow, RunRow, RunStepRow, WorkDayRow

_OBSERVATIONS: Final = "observations"


@dataclass(frozen=True, slots=True)
class Follows:
    """What follows from the events so far, to search by and to learn from. `steps`: (tool, item, seconds, ended at)."""

    status: str
    well: bool | None
    ended_at: datetime | None
    figures: Mapping[str, Any]
    words: str
    waxed_at: datetime | None
    taken: Mapping[str, Any]
    steps: Sequence[tuple[str, int | None, float, datetime]]
    observations: Sequence[tuple[str, str, str, float]]


def replace_what_follows(session: Session, run_id: int, seen: int, follows: Follows) -> None:
    """Put what follows from the events in the place of what was there."""
    # Set without being read: the documents of job and plan beside these are large.
    session.execute(
        update(RunRow)
        .where(RunRow.id == run_id)
        .values(
            status=follows.status,
            well=follows.well,
            ended_at=follows.ended_at,
            seen=seen,
            figures=dict(follows.figures),
            words=follows.words,
            waxed_at=follows.waxed_at,
            taken=dict(follows.taken),
        )
    )
    steps = (RunStepRow.tool, RunStepRow.item, RunStepRow.seconds, RunStepRow.ended_at)
    changed = _replace_rows(session, RunStepRow, run_id, steps, follows.steps)
    _sum_up(session, {(item or 0, at.astimezone(UTC).date()) for _, item, _, at in changed})
    said = (ObservationRow.carrier, ObservationRow.family, ObservationRow.quantity, ObservationRow.ratio)
    if _replace_rows(session, ObservationRow, run_id, said, follows.observations):
        _count_change(session, _OBSERVATIONS)
    session.flush()


def _replace_rows(
    session: Session,
    table: type[RunStepRow | ObservationRow],
    run_id: int,
    columns: "Sequence[InstrumentedAttribute[Any]]",
    rows: Sequence[tuple[Any, ...]],
) -> list[tuple[Any, ...]]:
    """Put these rows of a run in the place of those that were there. Answers with what came and went: most taps change one."""
    wanted, gone = Counter(rows), []
    for row_id, *values in session.execute(select(table.id, *columns).where(table.run_id == run_id)):
        row = tuple(values)
        if wanted[row] > 0:
            wanted[row] -= 1
        else:
            gone.append((row_id, row))
    if gone:
        session.execute(delete(table).where(table.id.in_([row_id for row_id, _ in gone])))
    come = list(wanted.elements())
    if come:
        names = [column.key for column in columns]
        session.execute(insert(table), [dict(zip(names, row, strict=True), run_id=run_id) for row in come])
    return come + [row for _, row in gone]


def _sum_up(session: Session, days: Collection[tuple[int, date]]) -> None:
    """Bring the work of these days on these things up to date: summed anew, so that nothing can drift."""
    for item, day in days:
        of_item = RunStepRow.item.is_(None) if item == 0 else RunStepRow.item == item
        total = select(func.sum(RunStepRow.seconds), func.min(RunStepRow.ended_at)).where(of_item, *_on(day))
        seconds, first = session.execute(total).one()
        session.execute(delete(WorkDayRow).where(WorkDayRow.item == item, WorkDayRow.day == day))
        if first is not None:
            session.execute(insert(WorkDayRow).values(item=item, day=day, seconds=seconds, first=first))


def _on(day: date) -> "tuple[ColumnElement[bool], ...]":
    begins = datetime(day.year, day.month, day.day, tzinfo=UTC)
    return RunStepRow.ended_at >= begins, RunStepRow.ended_at < begins + timedelta(days=1)


def _count_change(session: Session, what: str) -> None:
    changed = update(ChangeCountRow).where(ChangeCountRow.what == what).values(count=ChangeCountRow.count + 1)
    if session.scalar(changed.returning(ChangeCountRow.what)) is None:
        session.add(ChangeCountRow(what=what, count=1))


def newest_figures(session: Session, most: int) -> list[Mapping[str, Any]]:
    """The figures of so many of the newest finished runs."""
    newest = select(RunRow.figures).where(RunRow.status == "finished").order_by(RunRow.id.desc()).limit(most)
    return list(session.scalars(newest))


def newest_observations(session: Session, most: int) -> list[Observation]:
    """What the newest finished runs said, so many for each carrier, family and quantity."""
    said = (ObservationRow.carrier, ObservationRow.family, ObservationRow.quantity)
    wanted = (ObservationRow.id, ObservationRow.run_id, *said, ObservationRow.ratio)
    rows: list[Any] = []
    # From one kind to the next in the index: there are some dozens of kinds among a million rows.
    kind = session.execute(select(*said).order_by(*said).limit(1)).first()
    while kind is not None:
        these = [column == value for column, value in zip(said, kind, strict=True)]
        rows += session.execute(select(*wanted).where(*these).order_by(ObservationRow.id.desc()).limit(most))
        kind = session.execute(select(*said).where(tuple_(*said) > tuple_(*kind)).order_by(*said).limit(1)).first()
    rows.sort()
    return [
        Observation(run, carrier, family, cast(LearntQuantity, quantity), ratio)
        for _, run, carrier, family, quantity, ratio in rows
    ]


def observations_change(session: Session) -> int:
    """Changes whenever the observations do."""
    return session.scalar(select(ChangeCountRow.count).where(ChangeCountRow.what == _OBSERVATIONS)) or 0


@dataclass(frozen=True, slots=True)
class WorkDay:
    """How long a thing was worked with on a day, and when the first step was over; None for what is on no rack."""

    item: int | None
    day: date
    seconds: float
    first: datetime


def work_days(session: Session) -> list[WorkDay]:
    """All work, a day and a thing in one."""
    rows = session.execute(select(WorkDayRow.item, WorkDayRow.day, WorkDayRow.seconds, WorkDayRow.first))
    return [WorkDay(item or None, day, seconds, first) for item, day, seconds, first in rows]


def work_done(
    session: Session, days: Sequence[WorkDay], closely: Collection[tuple[int | None, date]]
) -> list[tuple[int | None, datetime, float]]:
    """(item, when, seconds) of all work: of each day and thing in one, with the moment of its first step.

    Args:
        closely: (item, day) of which every step is told by itself; None in the place of an item for all of that day.
    """
    whole = {day for item, day in closely if item is None}
    apart = {(item, day) for item, day in closely if item is not None and day not in whole}
    work = [
        (each.item, each.first, each.seconds) for each in days if each.day not in whole and (each.item, each.day) not in apart
    ]
    for day in whole:
        work += _steps(session, *_on(day))
    for item, day in apart:
        work += _steps(session, RunStepRow.item == item, *_on(day))
    return work


def _steps(session: Session, *which: "ColumnElement[bool]") -> list[tuple[int | None, datetime, float]]:
    rows = session.execute(select(RunStepRow.item, RunStepRow.ended_at, RunStepRow.seconds).where(*which))
    return [(item, at, seconds) for item, at, seconds in rows]


def waxed_runs(session: Session, since: datetime, *, also: Sequence[int]) -> list[tuple[int, str, datetime]]:
    """(run, title, when it was waxed) of finished work that was waxed since, and of these runs whenever it was."""
    wanted = or_(RunRow.waxed_at >= since, RunRow.id.in_(also))
    rows = session.execute(select(RunRow.id, RunRow.title, RunRow.waxed_at).where(wanted, RunRow.status == "finished"))
    return [(run_id, title, at) for run_id, title, at in rows if at is not None]
