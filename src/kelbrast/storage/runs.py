"""Keeping runs: what happened is appended, what follows from it is replaced, all in the transaction of the tap;
and what the eye saw at their light checks."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, cast

from sqlalchemy import Select, delete, func, insert, or_, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kelbrast.core.bench.observed import LightCheck
from kelbrast.core.errors import Conflict, NotFound
from kelbrast.core.learning.factors import LearntQuantity, Observation
from kelbrast.storage.tables import EyeCheckRow, ObservationRow, RunEventRow, RunRow, RunStepRow


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
    for table in (RunStepRow, ObservationRow):
        session.execute(delete(table).where(table.run_id == run_id))
    if follows.steps:
        steps = [dict(zip(("tool", "item", "seconds", "ended_at"), step, strict=True), run_id=run_id) for step in follows.steps]
        session.execute(insert(RunStepRow), steps)
    if follows.observations:
        names = ("carrier", "family", "quantity", "ratio")
        session.execute(
            insert(ObservationRow),
            [dict(zip(names, observation, strict=True), run_id=run_id) for observation in follows.observations],
        )
    session.flush()


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
    count = session.scalar(_where(select(func.count()).select_from(RunRow), wanted)) or 0
    newest = _where(columns, wanted).order_by(RunRow.began_at.desc(), RunRow.id.desc())
    return count, [LogLine(**row._mapping) for row in session.execute(newest.offset(offset).limit(limit))]


def tools_in_log(session: Session) -> list[str]:
    """Ids of every tool that was used in a run."""
    return list(session.scalars(select(RunStepRow.tool).distinct().order_by(RunStepRow.tool)))


def newest_figures(session: Session, most: int) -> list[Mapping[str, Any]]:
    """The figures of so many of the newest finished runs."""
    newest = select(RunRow.figures).where(RunRow.status == "finished").order_by(RunRow.id.desc()).limit(most)
    return list(session.scalars(newest))


def newest_observations(session: Session, most: int) -> list[Observation]:
    """What the newest finished runs said, so many for each carrier, family and quantity."""
    said = (ObservationRow.carrier, ObservationRow.family, ObservationRow.quantity)
    place = func.row_number().over(partition_by=said, order_by=ObservationRow.id.desc()).label("place")
    placed = select(ObservationRow.id, ObservationRow.run_id, *said, ObservationRow.ratio, place).subquery()
    wanted = (placed.c.run_id, placed.c.carrier, placed.c.family, placed.c.quantity, placed.c.ratio)
    rows = session.execute(select(*wanted).where(placed.c.place <= most).order_by(placed.c.id))
    return [Observation(run, carrier, family, cast(LearntQuantity, said), ratio) for run, carrier, family, said, ratio in rows]


def observations_change(session: Session) -> tuple[int, int, float]:
    """Changes whenever the observations do."""
    return _mark(session, ObservationRow, ObservationRow.ratio)


def steps_mark(session: Session) -> tuple[int, int, float]:
    """Changes whenever the steps that were done do."""
    return _mark(session, RunStepRow, RunStepRow.seconds)


def _mark(session: Session, table: type[ObservationRow | RunStepRow], figure: Any) -> tuple[int, int, float]:
    """How many rows, the newest id, and what the newest run says: only the newest ids can come again with something else."""
    count, newest = session.execute(select(func.count(table.id), func.max(table.id))).one()
    run = select(table.run_id).where(table.id == newest).scalar_subquery()
    return count, newest or 0, session.scalar(select(func.sum(figure)).where(table.run_id == run)) or 0.0


def work_of_items(session: Session) -> list[tuple[int | None, datetime, float]]:
    """(item, ended at, seconds) of every step that was done."""
    rows = session.execute(select(RunStepRow.item, RunStepRow.ended_at, RunStepRow.seconds))
    return [(item, at, seconds) for item, at, seconds in rows]


def waxed_runs(session: Session, since: datetime, *, also: Sequence[int]) -> list[tuple[int, str, datetime]]:
    """(run, title, when it was waxed) of finished work that was waxed since, and of these runs whenever it was."""
    wanted = or_(RunRow.waxed_at >= since, RunRow.id.in_(also))
    rows = session.execute(select(RunRow.id, RunRow.title, RunRow.waxed_at).where(wanted, RunRow.status == "finished"))
    return [(run_id, title, at) for run_id, title, at in rows if at is not None]


def _where(query: "Select[Any]", wanted: Wanted) -> "Select[Any]":
    for word in wanted.text.split():
        like = f"%{word}%"
        query = query.where(or_(RunRow.title.ilike(like), RunRow.words.ilike(like), RunRow.finishes.ilike(like)))
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
    """A light check with what the eye said of it."""

    run_id: int
    check: LightCheck
    verdict: str


def add_look(session: Session, look: StoredLook, *, score: float) -> None:
    """Keep what the eye saw."""
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


def all_looks(session: Session) -> list[StoredLook]:
    """Everything that the eye saw, run by run."""
    rows = session.scalars(select(EyeCheckRow).order_by(EyeCheckRow.run_id, EyeCheckRow.id))
    return [
        StoredLook(row.run_id, LightCheck(row.after, row.piece, (row.face, row.route, row.step)), row.verdict) for row in rows
    ]
