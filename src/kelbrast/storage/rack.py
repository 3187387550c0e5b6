"""Keeping the rack. Items go in and out as plain mappings in the form of the rack file; events are only ever added."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict, NotFound
from kelbrast.storage.tables import RackEventRow, RackItemRow

_ITEM_KEYS: Final = tuple(column.name for column in RackItemRow.__table__.columns if column.name not in ("id", "revision"))
_EVENT_KEYS: Final = tuple(
    column.name for column in RackEventRow.__table__.columns if column.name not in ("id", "item_id", "at")
)


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
    row = RackItemRow(**_values(document))
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
    found = RackItemRow.id == item_id
    if revision is not None:
        found = found & (RackItemRow.revision == revision)
    changed = update(RackItemRow).where(found).values(**_values(document), revision=RackItemRow.revision + 1)
    if session.scalar(changed.returning(RackItemRow.id), execution_options={"synchronize_session": False}) is None:
        raise Conflict(f"this was changed elsewhere: it is at revision {row.revision}, not {revision}")
    session.refresh(row)
    return _stored(row)


def add_events(session: Session, item_id: int, events: Iterable[Mapping[str, Any]]) -> StoredItem:
    """Append to the history of an item."""
    row = _row(session, item_id)
    row.events.extend(_event(each) for each in events)
    session.flush()
    return _stored(row)


def remove_item(session: Session, item_id: int) -> None:
    """Forget an item and its history: for what was put on the rack by mistake."""
    session.delete(_row(session, item_id))


def _row(session: Session, item_id: int) -> RackItemRow:
    row = session.get(RackItemRow, item_id)
    if row is None:
        raise NotFound("rack item", str(item_id))
    return row


def _values(document: Mapping[str, Any]) -> dict[str, Any]:
    return {key: document.get(key) for key in _ITEM_KEYS}


def _event(document: Mapping[str, Any]) -> RackEventRow:
    return RackEventRow(**{key: document.get(key) for key in _EVENT_KEYS})


def _stored(row: RackItemRow) -> StoredItem:
    history = [{key: getattr(event, key) for key in _EVENT_KEYS} for event in row.events]
    document = {key: getattr(row, key) for key in _ITEM_KEYS}
    told = {key: value for key, value in document.items() if value is not None}
    events = [{key: value for key, value in each.items() if value is not None} for each in history]
    at = tuple(event.at for event in row.events)
    return StoredItem(row.id, row.revision, {**told, "history": events}, at)
