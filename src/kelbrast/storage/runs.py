"""Keeping runs: what happened is appended; and finding them in the log. What follows from it is kept by `run_results`."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Select, func, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict, NotFound
from kelbrast.storage.tables import (
    RunEventRow,
    RunRow,
    RunStepRow,
)
from kelbrast.storage.text_search import RUNS, found


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
