"""Keeping what is worked to size. Documents go in and out in the form of the size file."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Select, func, select, update
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict, NotFound
from kelbrast.storage.tables import SizingRow


@dataclass(frozen=True, slots=True)
class StoredSizing:
    """As kept: its id, how often it was changed, when last (UTC), and the document."""

    id: int
    revision: int
    updated_at: datetime
    document: Mapping[str, Any]


def sizing_ids(session: Session) -> list[int]:
    """The id of every one."""
    return list(session.scalars(select(SizingRow.id)))


def search_sizings(
    session: Session, words: Collection[str], *, offset: int, limit: int | None
) -> tuple[int, list[StoredSizing]]:
    """How many there are with these words in their titles, and so many of them, the last changed first."""
    title = SizingRow.document["title"].as_string()
    said = [title.icontains(word, autoescape=True) for word in words]
    count = session.scalar(select(func.count()).select_from(SizingRow).where(*said))
    return count or 0, [_stored(row) for row in session.scalars(_newest().where(*said).offset(offset).limit(limit))]


def newest_of_materials(session: Session, materials: Collection[str], most: int) -> list[StoredSizing]:
    """The last changed parts of these materials."""
    material = SizingRow.document["material"].as_string()
    return [_stored(row) for row in session.scalars(_newest().where(material.in_(materials)).limit(most))]


def _newest() -> "Select[SizingRow]":
    return select(SizingRow).order_by(SizingRow.updated_at.desc(), SizingRow.id.desc())


def get_sizing(session: Session, sizing_id: int) -> StoredSizing:
    """One of them.

    Raises:
        NotFound: none with this id.
    """
    return _stored(_row(session, sizing_id))


def add_sizing(session: Session, document: Mapping[str, Any]) -> StoredSizing:
    """Keep a new one."""
    row = SizingRow(document=dict(document))
    session.add(row)
    session.flush()
    return _stored(row)


def change_sizing(session: Session, sizing_id: int, document: Mapping[str, Any], *, revision: int) -> StoredSizing:
    """Replace one that is still at this revision.

    Raises:
        NotFound: none with this id.
        Conflict: it was changed elsewhere since.
    """
    row = _row(session, sizing_id)
    changed = (
        update(SizingRow)
        .where(SizingRow.id == sizing_id, SizingRow.revision == revision)
        .values(document=dict(document), revision=revision + 1, updated_at=datetime.now(UTC))
    )
    if session.scalar(changed.returning(SizingRow.id), execution_options={"synchronize_session": False}) is None:
        raise Conflict(f"this was changed elsewhere: it is at revision {row.revision}, not {revision}")
    session.refresh(row)
    return _stored(row)


def remove_sizing(session: Session, sizing_id: int) -> None:
    """Forget one.

    Raises:
        NotFound: none with this id.
    """
    session.delete(_row(session, sizing_id))


def _row(session: Session, sizing_id: int) -> SizingRow:
    row = session.get(SizingRow, sizing_id)
    if row is None:
        raise NotFound("work to size", str(sizing_id))
    return row


def _stored(row: SizingRow) -> StoredSizing:
    return StoredSizing(row.id, row.revision, row.updated_at, row.document)
