"""Keeping quotes. Documents go in and out in the form of the quote file."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.storage.tables import QuoteRow, RunRow


@dataclass(frozen=True, slots=True)
class StoredQuote:
    """A quote as kept, with the minutes of the first finished run of its job after it: planned, and as they were."""

    id: int
    job_id: int
    at: datetime
    document: Mapping[str, Any]
    planned: float | None
    worked: float | None


def all_quotes(session: Session) -> list[StoredQuote]:
    """Every quote, the newest first."""
    rows = session.scalars(select(QuoteRow).order_by(QuoteRow.at.desc(), QuoteRow.id.desc())).all()
    return [_stored(session, row) for row in rows]


def add_quote(session: Session, job_id: int, document: Mapping[str, Any]) -> StoredQuote:
    """Keep one."""
    row = QuoteRow(job_id=job_id, document=dict(document))
    session.add(row)
    session.flush()
    return _stored(session, row)


def _stored(session: Session, row: QuoteRow) -> StoredQuote:
    after = select(RunRow).where(RunRow.job_id == row.job_id, RunRow.began_at >= row.at, RunRow.status == "finished")
    run = session.scalars(after.order_by(RunRow.began_at).limit(1)).first()
    figures = run.figures if run is not None else {}
    return StoredQuote(
        row.id, row.job_id, row.at.replace(tzinfo=UTC), row.document, figures.get("planned_minutes"), figures.get("minutes")
    )
