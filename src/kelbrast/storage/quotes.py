"""Keeping quotes. Documents go in and out in the form of the quote file."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.core.errors import NotFound
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


def all_quotes(session: Session, job_id: int | None = None) -> list[StoredQuote]:
    """Every quote, or those of a job, the newest first."""
    query = select(QuoteRow).order_by(QuoteRow.at.desc(), QuoteRow.id.desc())
    rows = session.scalars(query if job_id is None else query.where(QuoteRow.job_id == job_id)).all()
    if not rows:
        return []
    # The runs of all their jobs in one question, and of those the first that was begun after each quote.
    finished = select(RunRow.job_id, RunRow.began_at, RunRow.figures).where(RunRow.status == "finished")
    quoted = select(QuoteRow.job_id) if job_id is None else [job_id]
    runs: dict[int, list[tuple[datetime, Mapping[str, Any]]]] = {}
    for job, began, figures in session.execute(finished.where(RunRow.job_id.in_(quoted)).order_by(RunRow.began_at)):
        runs.setdefault(job, []).append((began, figures))
    return [_stored(row, runs.get(row.job_id, [])) for row in rows]


def get_quote(session: Session, quote_id: int) -> StoredQuote:
    """One quote.

    Raises:
        NotFound: no such quote.
    """
    row = session.get(QuoteRow, quote_id)
    if row is None:
        raise NotFound("quote", str(quote_id))
    return next(quote for quote in all_quotes(session, row.job_id) if quote.id == quote_id)


def add_quote(session: Session, job_id: int, document: Mapping[str, Any]) -> StoredQuote:
    """Keep one."""
    row = QuoteRow(job_id=job_id, document=dict(document))
    session.add(row)
    session.flush()
    return _stored(row, [])


def _stored(row: QuoteRow, runs: Sequence[tuple[datetime, Mapping[str, Any]]]) -> StoredQuote:
    figures = next((figures for began, figures in runs if began >= row.at), {})
    return StoredQuote(row.id, row.job_id, row.at, row.document, figures.get("hands_on_minutes"), figures.get("spent_minutes"))
