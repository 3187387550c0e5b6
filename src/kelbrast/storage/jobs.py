"""Keeping jobs. Documents go in and out as plain mappings in the form of the job file."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Final

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict, NotFound
from kelbrast.storage.tables import JobRow

_SOUGHT: Final = ("title", "material", "customer", "due")  # keys of the document that stand beside it too


@dataclass(frozen=True, slots=True)
class StoredJob:
    """A job as kept: its id, how often it was changed, when last (UTC), and the document."""

    id: int
    revision: int
    updated_at: datetime
    document: Mapping[str, Any]


def all_jobs(session: Session) -> list[StoredJob]:
    """Every job, the last changed first."""
    rows = session.scalars(select(JobRow).order_by(JobRow.updated_at.desc(), JobRow.id.desc()))
    return [_stored(row) for row in rows]


def any_jobs(session: Session) -> bool:
    """Whether there is a job at all."""
    return session.scalar(select(JobRow.id).limit(1)) is not None


def get_job(session: Session, job_id: int) -> StoredJob:
    """One job.

    Raises:
        NotFound: no job with this id.
    """
    return _stored(_row(session, job_id))


def add_job(session: Session, document: Mapping[str, Any]) -> StoredJob:
    """Keep a new job."""
    row = JobRow(**_values(document), state=document["state"])
    session.add(row)
    session.flush()
    return _stored(row)


def set_state(session: Session, job_id: int, state: str) -> None:
    """How far a job is. What else is said of it stays, and so does its revision: no screen's edit is in the way of that."""
    session.execute(update(JobRow).where(JobRow.id == job_id).values(state=state))


def change_job(session: Session, job_id: int, document: Mapping[str, Any], *, revision: int) -> StoredJob:
    """Replace a job that is still at this revision.

    Raises:
        NotFound: no job with this id.
        Conflict: it was changed elsewhere since.
    """
    row = _row(session, job_id)
    # Compared and set in one statement: of two changes of the same revision only one finds its row.
    changed = (
        update(JobRow)
        .where(JobRow.id == job_id, JobRow.revision == revision)
        .values(**_values(document), state=document["state"], revision=revision + 1, updated_at=datetime.now(UTC))
    )
    if session.scalar(changed.returning(JobRow.id), execution_options={"synchronize_session": False}) is None:
        raise Conflict(f"this job was changed elsewhere: it is at revision {row.revision}, not {revision}")
    session.refresh(row)
    return _stored(row)


def remove_job(session: Session, job_id: int) -> None:
    """Forget a job.

    Raises:
        NotFound: no job with this id.
    """
    session.delete(_row(session, job_id))


def _row(session: Session, job_id: int) -> JobRow:
    row = session.get(JobRow, job_id)
    if row is None:
        raise NotFound("job", str(job_id))
    return row


def _values(document: Mapping[str, Any]) -> dict[str, Any]:
    sought = {key: document.get(key) for key in _SOUGHT}
    return {**sought, "customer": document.get("customer", ""), "document": {k: v for k, v in document.items() if k != "state"}}


def _stored(row: JobRow) -> StoredJob:
    return StoredJob(row.id, row.revision, row.updated_at.replace(tzinfo=UTC), {**row.document, "state": row.state})
