"""Keeping what the shop has of its own. Entries go in and out as plain mappings in the form of their file."""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any, Final

from sqlalchemy import String, cast, func, select, text
from sqlalchemy.orm import Session

from kelbrast.core.errors import NotFound
from kelbrast.storage.stored import Stored, change_row
from kelbrast.storage.tables import JobRow, OwnEntryRow, RackItemRow, RunRow, SizingRow


def all_own(session: Session) -> list[Stored]:
    """Every entry, in the order in which they came."""
    return [_stored(row) for row in session.scalars(select(OwnEntryRow).order_by(OwnEntryRow.id))]


MARK_OF_OWN: Final = "select count(*), max(id), sum(revision) from own_entries"


def mark_of_own(session: Session) -> object:
    """Something that is equal as long as no entry has changed."""
    return tuple(session.execute(text(MARK_OF_OWN)).one())


def add_own(session: Session, key: str, document: Mapping[str, Any]) -> None:
    """Keep a new one."""
    session.add(OwnEntryRow(key=key, document=dict(document)))
    session.flush()


def change_own(session: Session, key: str, document: Mapping[str, Any], *, revision: int | None) -> None:
    """Replace one that is still at this revision (None: whatever it is).

    Raises:
        NotFound: none of this id.  Conflict: it was changed elsewhere since.
    """
    row = _row(session, key)
    change_row(session, row, {"document": dict(document), "updated_at": datetime.now(UTC)}, revision=revision, what="this")


def remove_own(session: Session, key: str) -> None:
    """Forget one.

    Raises:
        NotFound: none of this id.
    """
    session.delete(_row(session, key))


def uses_of(session: Session, key: str) -> int:
    """How many jobs, runs, things on the rack and parts at the gauge name it."""
    places = (JobRow.document, RackItemRow.document, SizingRow.document, RunRow.job, RunRow.plan)
    said = (select(func.count()).where(cast(place, String).contains(key, autoescape=True)) for place in places)
    return sum(session.scalar(query) or 0 for query in said)


def _row(session: Session, key: str) -> OwnEntryRow:
    row = session.scalar(select(OwnEntryRow).where(OwnEntryRow.key == key))
    if row is None:
        raise NotFound("entry of the shop's own", key)
    return row


def _stored(row: OwnEntryRow) -> Stored:
    return Stored(row.id, row.revision, row.updated_at, row.document)
