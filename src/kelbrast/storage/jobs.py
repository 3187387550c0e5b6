"""Keeping jobs. Documents go in and out as plain mappings in the form of the job file."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Final, Literal

from sqlalchemy import Select, String, cast, func, literal_column, or_, select
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict
from kelbrast.storage.stored import Stored, change_row, row_of
from kelbrast.storage.tables import JobRow, JobStateRow
from kelbrast.storage.text_search import JOBS, found

_MOST_IDS: Final = 500  # in one question; SQLite takes some thousands
_SOUGHT: Final = ("title", "material", "customer", "due")  # keys of the document that stand beside it too


JobOrder = Literal["changed", "title", "due", "customer"]
# What has no promise and no customer comes last.
_ORDERS: Final[dict[JobOrder, tuple[Any, ...]]] = {
    "changed": (JobRow.updated_at.desc(),),
    "title": (func.lower(JobRow.title),),
    "due": (JobRow.due.is_(None), JobRow.due),
    "customer": (JobRow.customer == literal_column("''"), func.lower(JobRow.customer)),
}


@dataclass(frozen=True, slots=True)
class StoredJob(Stored):
    """A job as kept. `state`: how far it is; `state_number`: of the event that brought it there, 0 for the one it came with."""

    state: str
    state_number: int


def job_ids(session: Session) -> list[int]:
    """The id of every job."""
    return list(session.scalars(select(JobRow.id)))


@dataclass(frozen=True, slots=True)
class SoughtWord:
    """A word of a search, with the ids of the materials and finishes that are called so."""

    text: str
    materials: tuple[str, ...] = ()
    finishes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class JobsWanted:
    """Which jobs, and in which order; None and () for any."""

    words: tuple[SoughtWord, ...] = ()
    states: tuple[str, ...] | None = None
    by: JobOrder = "changed"


def search_jobs(session: Session, wanted: JobsWanted, *, offset: int, limit: int | None) -> tuple[int, list[StoredJob]]:
    """How many jobs there are of what is looked for, and so many of them."""
    counted = _where(session, select(func.count()).select_from(JobRow), wanted)
    rows = _where(session, select(JobRow), wanted).order_by(*_ORDERS[wanted.by], JobRow.id.desc()).offset(offset).limit(limit)
    page = session.scalars(rows).all()
    numbers = _state_numbers(session, [row.id for row in page])
    return session.scalar(counted) or 0, [_stored(row, numbers.get(row.id, 0)) for row in page]


def _where(session: Session, query: "Select[Any]", wanted: JobsWanted) -> "Select[Any]":
    columns, document = (JobRow.title, JobRow.customer, JobRow.document["note"].as_string()), cast(JobRow.document, String)
    for word in wanted.words:
        elsewhere = [column.icontains(word.text, autoescape=True) for column in columns]
        # As a document is written: the name is not found in a note, which has its quotes escaped.
        elsewhere += [document.contains(f'"finish": "{finish}"', autoescape=True) for finish in word.finishes]
        said = found(session, JOBS, word.text, word.finishes, elsewhere=elsewhere)
        query = query.where(or_(said, JobRow.material.in_(word.materials)))
    return query if wanted.states is None else query.where(JobRow.state.in_(wanted.states))


def any_jobs(session: Session) -> bool:
    """Whether there is a job at all."""
    return session.scalar(select(JobRow.id).limit(1)) is not None


def get_job(session: Session, job_id: int) -> StoredJob:
    """One job.

    Raises:
        NotFound: no job with this id.
    """
    return _stored_of(session, _row(session, job_id))


def add_job(session: Session, document: Mapping[str, Any], state: str) -> StoredJob:
    """Keep a new job."""
    row = JobRow(**_values(document), state=state)
    session.add(row)
    session.flush()
    return _stored(row, 0)


def set_state(session: Session, job_id: int, state: str, *, after: int | None = None) -> None:
    """Bring a job to a state. Its document and revision stay: no edit is in the way of that, and none can undo it.

    Args:
        after: number of the newest state that whoever says so had seen; None for the bench, which knows.

    Raises:
        NotFound: no job with this id.
        Conflict: it came to another state since.
    """
    row = _row(session, job_id)
    number = _state_numbers(session, [job_id]).get(job_id, 0)
    if after is not None and after != number:
        raise Conflict(f"the status of this job was changed elsewhere: it is {row.state} now")
    if row.state != state:
        session.add(JobStateRow(job_id=job_id, number=number + 1, at=datetime.now(UTC), state=state))
        row.state = state
        session.flush()


def change_job(session: Session, job_id: int, document: Mapping[str, Any], *, revision: int) -> StoredJob:
    """Replace a job that is still at this revision.

    Raises:
        NotFound: no job with this id.
        Conflict: it was changed elsewhere since.
    """
    row = _row(session, job_id)
    values = {**_values(document), "updated_at": datetime.now(UTC)}
    change_row(session, row, values, revision=revision, what="this job")
    return _stored_of(session, row)


def remove_job(session: Session, job_id: int) -> None:
    """Forget a job.

    Raises:
        NotFound: no job with this id.
    """
    session.delete(_row(session, job_id))


def _row(session: Session, job_id: int) -> JobRow:
    return row_of(session, JobRow, job_id, "job")


def _state_numbers(session: Session, job_ids: Sequence[int]) -> dict[int, int]:
    newest = select(JobStateRow.job_id, func.max(JobStateRow.number)).group_by(JobStateRow.job_id)
    # A page of jobs is asked for by their ids; of all of them everything is read.
    query = newest.where(JobStateRow.job_id.in_(job_ids)) if len(job_ids) <= _MOST_IDS else newest
    return {row[0]: row[1] for row in session.execute(query)}


def _values(document: Mapping[str, Any]) -> dict[str, Any]:
    sought = {key: document.get(key) for key in _SOUGHT}
    return {**sought, "customer": document.get("customer", ""), "document": {k: v for k, v in document.items() if k != "state"}}


def _stored_of(session: Session, row: JobRow) -> StoredJob:
    return _stored(row, _state_numbers(session, [row.id]).get(row.id, 0))


def _stored(row: JobRow, number: int) -> StoredJob:
    return StoredJob(row.id, row.revision, row.updated_at, row.document, row.state, number)
