"""Keeping runs: what happened is appended, what follows from it is replaced, all in the transaction of the tap;
and what the eye saw at their light checks."""

from collections import Counter
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import Any, Final, cast

from sqlalchemy import ColumnElement, Select, delete, func, insert, or_, select, tuple_, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import InstrumentedAttribute, Session

from kelbrast.core.bench.observed import LightCheck, TurnedOut
from kelbrast.core.errors import Conflict, NotFound
from kelbrast.core.learning.factors import LearntQuantity, Observation
from kelbrast.storage.tables import (
    ChangeCountRow,
    EyeCheckRow,
    ObservationRow,
    RunEventRow,
    RunRow,
    RunStepRow,
    WorkDayRow,
)
from kelbrast.storage.text_search import RUNS, found

_OBSERVATIONS: Final = "observations"


@dataclass(frozen=True, slots=True)
class StoredRun:
    """A run as kept: the documents of its job and plan, what happened in order, each
    as (form, document), and what it took from the rack."""

    id: int
    job_id: int | None
    job: Mapping[str, Any]
    plan: Mapping[str, Any]
    events: Sequence[tuple[str, Mapping[str, Any]]]
    taken: Mapping[str, Any]
    seen: int
    began_at: datetime


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


@dataclass(frozen=True, slots=True)
class LogLine:
    """A line of the log."""

    id: int
    job_id: int | None
    title: str
    material: str
    finishes: str
    pieces: int
    status: str
    well: bool | None
    began_at: datetime
    ended_at: datetime | None
    figures: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Wanted:
    """What is looked for in the log; None and "" for anything."""

    text: str = ""
    material: str | None = None
    finish: str | None = None
    tool: str | None = None
    status: str | None = None
    since: datetime | None = None
    until: datetime | None = None


def add_run(
    session: Session,
    *,
    job_id: int | None,
    job: Mapping[str, Any],
    plan: Mapping[str, Any],
    finishes: str,
    began_at: datetime,
    figures: Mapping[str, Any],
) -> int:
    """Keep a new run. Returns its id."""
    row = RunRow(
        job_id=job_id,
        title=job["title"],
        material=job["material"],
        finishes=finishes[:400],
        pieces=job["pieces"],
        began_at=began_at,
        job=dict(job),
        plan=dict(plan),
        figures=dict(figures),
    )
    session.add(row)
    session.flush()
    return row.id


def get_run(session: Session, run_id: int) -> StoredRun:
    """A run with everything that happened.

    Raises:
        NotFound: no run with this id.
    """
    row = _row(session, run_id)
    rows = session.execute(
        select(RunEventRow.form, RunEventRow.document).where(RunEventRow.run_id == run_id).order_by(RunEventRow.number)
    )
    events = [(form, document) for form, document in rows]
    return StoredRun(row.id, row.job_id, row.job, row.plan, events, row.taken, row.seen, row.began_at)


def seen_of(session: Session, run_id: int) -> int:
    """The number of the newest event of a run, without reading the rest.

    Raises:
        NotFound: no run with this id.
    """
    seen = session.scalar(select(RunRow.seen).where(RunRow.id == run_id))
    if seen is None:
        raise NotFound("run", str(run_id))
    return seen


def newest_tap(session: Session, run_id: int) -> tuple[int, str, int | None]:
    """The number and the name of the newest event of a run (0 and "" before that) and its job: another one when a run was
    tapped, or its job deleted.

    Raises:
        NotFound: no run with this id.
    """
    row = session.execute(select(RunRow.seen, RunRow.job_id).where(RunRow.id == run_id)).one_or_none()
    if row is None:
        raise NotFound("run", str(run_id))
    seen, job_id = row
    tap = session.scalar(select(RunEventRow.tap).where(RunEventRow.run_id == run_id, RunEventRow.number == seen))
    return seen, tap or "", job_id


def tapped_already(session: Session, run_id: int, tap: str) -> bool:
    """Whether this very tap was kept before."""
    return session.scalar(select(RunEventRow.id).where(RunEventRow.run_id == run_id, RunEventRow.tap == tap)) is not None


def number_of(session: Session, run_id: int, tap: str) -> int:
    """The number of the event that a tap became.

    Raises:
        Conflict: this tap was not kept.
    """
    number = session.scalar(select(RunEventRow.number).where(RunEventRow.run_id == run_id, RunEventRow.tap == tap))
    if number is None:
        raise Conflict("the tap before this one was not kept: look again, then tap")
    return number


def append_event(session: Session, run_id: int, number: int, tap: str, form: str, document: Mapping[str, Any]) -> None:
    """Append what happened, in this form.

    Raises:
        Conflict: somebody else's tap was quicker.
    """
    session.add(RunEventRow(run_id=run_id, number=number, tap=tap, form=form, document=dict(document)))
    try:
        session.flush()
    except IntegrityError:
        raise Conflict("another screen has tapped in the meantime") from None


def count_event(session: Session, run_id: int, seen: int) -> None:
    """Say that there is one more event, which changes nothing that follows."""
    session.execute(update(RunRow).where(RunRow.id == run_id).values(seen=seen))


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


def open_runs(session: Session) -> list[int]:
    """Ids of the runs that are at the bench, the newest first."""
    return list(session.scalars(select(RunRow.id).where(RunRow.status == "open").order_by(RunRow.id.desc())))


def every_run(session: Session) -> list[int]:
    """Ids of every run."""
    return list(session.scalars(select(RunRow.id).order_by(RunRow.id)))


def open_run_of(session: Session, job_id: int) -> int | None:
    """The run of a job that is at the bench."""
    return session.scalar(select(RunRow.id).where(RunRow.job_id == job_id, RunRow.status == "open").order_by(RunRow.id.desc()))


def run_begun(session: Session, title: str, at: datetime) -> int | None:
    """The run of this title that began at this moment."""
    return session.scalar(select(RunRow.id).where(RunRow.title == title, RunRow.began_at == at.astimezone(UTC)))


def runs_of_job(session: Session, job_id: int) -> int:
    """How many runs a job had."""
    return session.scalar(select(func.count()).select_from(RunRow).where(RunRow.job_id == job_id)) or 0


def search_log(session: Session, wanted: Wanted, *, offset: int, limit: int | None) -> tuple[int, list[LogLine]]:
    """How many runs there are of what is looked for, and so many of them, the newest first."""
    columns: Select[Any] = select(*(getattr(RunRow, name) for name in LogLine.__slots__))
    count = session.scalar(_where(session, select(func.count()).select_from(RunRow), wanted)) or 0
    newest = _where(session, columns, wanted).order_by(RunRow.began_at.desc(), RunRow.id.desc())
    return count, [LogLine(**row._mapping) for row in session.execute(newest.offset(offset).limit(limit))]


def tools_in_log(session: Session) -> list[str]:
    """Ids of every tool that was used in a run."""
    tools: list[str] = []
    # From one to the next in the index.
    tool = session.scalar(select(func.min(RunStepRow.tool)))
    while tool is not None:
        tools.append(tool)
        tool = session.scalar(select(func.min(RunStepRow.tool)).where(RunStepRow.tool > tool))
    return tools


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


def _where(session: Session, query: "Select[Any]", wanted: Wanted) -> "Select[Any]":
    for word in wanted.text.split():
        columns = (RunRow.title, RunRow.words, RunRow.finishes)
        elsewhere = [column.icontains(word, autoescape=True) for column in columns]
        query = query.where(found(session, RUNS, word, elsewhere=elsewhere))
    if wanted.material:
        query = query.where(RunRow.material == wanted.material)
    if wanted.finish:
        query = query.where(RunRow.finishes.contains(wanted.finish, autoescape=True))
    if wanted.tool:
        query = query.where(RunRow.id.in_(select(RunStepRow.run_id).where(RunStepRow.tool == wanted.tool)))
    if wanted.status:
        query = query.where(RunRow.status == wanted.status)
    if wanted.since:
        query = query.where(RunRow.began_at >= wanted.since)
    if wanted.until:
        query = query.where(RunRow.began_at < wanted.until)
    return query


def _row(session: Session, run_id: int) -> RunRow:
    row = session.get(RunRow, run_id)
    if row is None:
        raise NotFound("run", str(run_id))
    return row


@dataclass(frozen=True, slots=True)
class StoredLook:
    """A light check with what the eye said of it, and what came of it; None where that was never worked out."""

    run_id: int
    check: LightCheck
    verdict: str
    came: TurnedOut | None = None


def add_look(session: Session, look: StoredLook, *, score: float) -> None:
    """Keep what the eye saw; nothing has come of it yet."""
    face, route, step = look.check.stage
    session.add(
        EyeCheckRow(
            run_id=look.run_id,
            after=look.check.after,
            piece=look.check.piece,
            face=face,
            route=route,
            step=step,
            at=datetime.now(UTC),
            verdict=look.verdict,
            score=score,
        )
    )


def follow_looks(session: Session, run_id: int, turned_out: Callable[[LightCheck], TurnedOut]) -> None:
    """Keep what came of the light checks of a run."""
    for row in session.scalars(select(EyeCheckRow).where(EyeCheckRow.run_id == run_id)):
        came = turned_out(_check(row))
        row.person, row.left, row.followed = came.person, came.left, True
    session.flush()


def all_looks(session: Session) -> list[StoredLook]:
    """Everything that the eye saw, run by run."""
    rows = session.scalars(select(EyeCheckRow).order_by(EyeCheckRow.run_id, EyeCheckRow.id))
    return [
        StoredLook(row.run_id, _check(row), row.verdict, TurnedOut(row.person, row.left) if row.followed else None)
        for row in rows
    ]


def _check(row: EyeCheckRow) -> LightCheck:
    return LightCheck(row.after, row.piece, (row.face, row.route, row.step))
