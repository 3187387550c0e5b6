"""Keeping what is worked to size. Documents go in and out in the form of the size file."""

from collections.abc import Collection, Mapping
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Select, String, func, select, type_coerce
from sqlalchemy.orm import Session

from kelbrast.storage.stored import Stored, change_row, row_of
from kelbrast.storage.tables import SizingRow
from kelbrast.storage.text_search import SIZINGS, found


def sizing_ids(session: Session) -> list[int]:
    """The id of every one."""
    return list(session.scalars(select(SizingRow.id)))


def search_sizings(session: Session, words: Collection[str], *, offset: int, limit: int | None) -> tuple[int, list[Stored]]:
    """How many there are with these words in their titles, and so many of them, the last changed first."""
    title = SizingRow.document["title"].as_string()
    said = [found(session, SIZINGS, word, elsewhere=[title.icontains(word, autoescape=True)]) for word in words]
    count = session.scalar(select(func.count()).select_from(SizingRow).where(*said))
    return count or 0, [_stored(row) for row in session.scalars(_newest().where(*said).offset(offset).limit(limit))]


def newest_of_materials(session: Session, materials: Collection[str], most: int) -> list[tuple[int, str]]:
    """(id, document as it is written) of the last changed parts of these materials."""
    material, written = SizingRow.document["material"].as_string(), type_coerce(SizingRow.document, String)
    newest = select(SizingRow.id, written).where(material.in_(materials))
    rows = session.execute(newest.order_by(SizingRow.updated_at.desc(), SizingRow.id.desc()).limit(most))
    return [(sizing_id, document) for sizing_id, document in rows]


def _newest() -> "Select[SizingRow]":
    return select(SizingRow).order_by(SizingRow.updated_at.desc(), SizingRow.id.desc())


def get_sizing(session: Session, sizing_id: int) -> Stored:
    """One of them.

    Raises:
        NotFound: none with this id.
    """
    return _stored(_row(session, sizing_id))


def add_sizing(session: Session, document: Mapping[str, Any]) -> Stored:
    """Keep a new one."""
    row = SizingRow(document=dict(document))
    session.add(row)
    session.flush()
    return _stored(row)


def change_sizing(session: Session, sizing_id: int, document: Mapping[str, Any], *, revision: int) -> Stored:
    """Replace one that is still at this revision.

    Raises:
        NotFound: none with this id.
        Conflict: it was changed elsewhere since.
    """
    row = _row(session, sizing_id)
    change_row(session, row, {"document": dict(document), "updated_at": datetime.now(UTC)}, revision=revision, what="this")
    return _stored(row)


def remove_sizing(session: Session, sizing_id: int) -> None:
    """Forget one.

    Raises:
        NotFound: none with this id.
    """
    session.delete(_row(session, sizing_id))


def _row(session: Session, sizing_id: int) -> SizingRow:
    return row_of(session, SizingRow, sizing_id, "work to size")


def _stored(row: SizingRow) -> Stored:
    return Stored(row.id, row.revision, row.updated_at, row.document)
