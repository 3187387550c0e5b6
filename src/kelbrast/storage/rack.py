"""Keeping the rack. Items go in and out as plain mappings in the form of the rack file; events are only ever added."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from kelbrast.storage.stored import change_row, row_of
from kelbrast.storage.tables import RackEventRow, RackItemRow


@dataclass(frozen=True, slots=True)
class StoredItem:
    """An item as kept: how often it was changed, its document, and when each of its events was (UTC)."""

    id: int
    revision: int
    document: Mapping[str, Any]
    at: tuple[datetime, ...]


def all_items(session: Session) -> list[StoredItem]:
    """Everything that was ever on the rack, in the order in which it came."""
    return [_stored(row) for row in session.scalars(select(RackItemRow).order_by(RackItemRow.id))]


def mark_of(session: Session) -> object:
    """Something that is equal as long as nothing on the rack has changed; quicker to get than the rack itself."""
    # A change counts the revision up, and numbers of what was taken away are not given again.
    items = session.execute(select(func.count(), func.max(RackItemRow.id), func.sum(RackItemRow.revision))).one()
    events = session.execute(select(func.count(), func.max(RackEventRow.id))).one()  # they are only ever added
    return tuple(items), tuple(events)


def get_item(session: Session, item_id: int) -> StoredItem:
    """One item.

    Raises:
        NotFound: no item with this id.
    """
    return _stored(_row(session, item_id))


def add_item(session: Session, document: Mapping[str, Any]) -> StoredItem:
    """Put an item on the rack, with the history that it brings."""
    row = RackItemRow(document=_said(document))
    row.events = [_event(each) for each in document.get("history", ())]
    session.add(row)
    session.flush()
    return _stored(row)


def change_item(session: Session, item_id: int, document: Mapping[str, Any], *, revision: int | None = None) -> StoredItem:
    """Replace what is said of an item, if it is still at this revision (None: whatever it is). Its history stays as it is.

    Raises:
        NotFound: no item with this id.
        Conflict: it was changed elsewhere since.
    """
    row = _row(session, item_id)
    change_row(session, row, {"document": _said(document)}, revision=revision, what="this")
    return _stored(row)


def add_events(session: Session, item_id: int, events: Iterable[Mapping[str, Any]]) -> StoredItem:
    """Append to the history of an item."""
    row = _row(session, item_id)
    row.events.extend(_event(event) for event in events)
    session.flush()
    return _stored(row)


def remove_item(session: Session, item_id: int) -> None:
    """Forget an item and its history: for what was put on the rack by mistake."""
    session.delete(_row(session, item_id))


def _row(session: Session, item_id: int) -> RackItemRow:
    return row_of(session, RackItemRow, item_id, "rack item")


def _said(document: Mapping[str, Any]) -> dict[str, Any]:
    """What the document says of itself; its history is kept event by event."""
    return {key: value for key, value in document.items() if key != "history" and value is not None}


def _event(document: Mapping[str, Any]) -> RackEventRow:
    return RackEventRow(document=_said(document))


def _stored(row: RackItemRow) -> StoredItem:
    history = [event.document for event in row.events]
    return StoredItem(row.id, row.revision, {**row.document, "history": history}, tuple(event.at for event in row.events))
