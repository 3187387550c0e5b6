"""Keeping the rack. Items go in and out as plain mappings in the form of the rack file; only a newest event is replaced."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from kelbrast.storage.stored import change_row, row_of
from kelbrast.storage.tables import RackEventRow, RackItemRow

_MOST_IDS = 500  # in one question; SQLite takes some thousands


@dataclass(frozen=True, slots=True)
class StoredItem:
    """An item as kept: how often it was changed, its document, and when each of its events was (UTC)."""

    id: int
    revision: int
    document: Mapping[str, Any]
    at: tuple[datetime, ...]


@dataclass(frozen=True, slots=True)
class NewestEvent:
    """The newest event of an item."""

    id: int
    at: datetime
    document: Mapping[str, Any]


def items_by_id(session: Session, ids: Collection[int] | None = None) -> list[StoredItem]:
    """Everything that was ever on the rack, or these items of it, in the order in which it came."""
    items = select(RackItemRow.id, RackItemRow.revision, RackItemRow.document).order_by(RackItemRow.id)
    events = select(RackEventRow.item_id, RackEventRow.at, RackEventRow.document).order_by(RackEventRow.id)
    if ids is not None and len(ids) <= _MOST_IDS:
        items, events = items.where(RackItemRow.id.in_(ids)), events.where(RackEventRow.item_id.in_(ids))
    history: dict[int, list[tuple[datetime, Mapping[str, Any]]]] = defaultdict(list)
    for item_id, at, document in session.execute(events):
        history[item_id].append((at, document))
    return [
        StoredItem(
            item_id,
            revision,
            {**document, "history": [said for _, said in history[item_id]]},
            tuple(at for at, _ in history[item_id]),
        )
        for item_id, revision, document in session.execute(items)
        if ids is None or item_id in ids
    ]


def marks(session: Session) -> dict[int, tuple[int, int]]:
    """Of every item its revision and the number of its newest event: another one when anything about it has changed."""
    newest = select(RackEventRow.item_id, func.max(RackEventRow.id).label("event")).group_by(RackEventRow.item_id).subquery()
    rows = select(RackItemRow.id, RackItemRow.revision, newest.c.event).outerjoin(newest, newest.c.item_id == RackItemRow.id)
    return {item_id: (revision, event or 0) for item_id, revision, event in session.execute(rows)}


@dataclass(frozen=True, slots=True)
class EventsMark:
    """How many events there are, and the id of the newest: another one when anything happened."""

    count: int
    newest: int


def mark_of(session: Session) -> tuple[object, EventsMark]:
    """Two things that are equal as long as nothing is said anew of items, and nothing happened to any."""
    # A change counts the revision up, and numbers of what was taken away are not given again.
    items = session.execute(select(func.count(), func.max(RackItemRow.id), func.sum(RackItemRow.revision))).one()
    count, newest = session.execute(select(func.count(RackEventRow.id), func.max(RackEventRow.id))).one()
    return tuple(items), EventsMark(count, newest or 0)


def told_since(session: Session, newest: int) -> dict[int, tuple[int, int]]:
    """The marks of the items to which something happened after this event."""
    events = select(RackEventRow.item_id, func.max(RackEventRow.id).label("event")).where(RackEventRow.id > newest)
    last = {row.item_id: row.event for row in session.execute(events.group_by(RackEventRow.item_id))}
    revisions = session.execute(select(RackItemRow.id, RackItemRow.revision).where(RackItemRow.id.in_(last)))
    return {item_id: (revision, last[item_id]) for item_id, revision in revisions}


def get_item(session: Session, item_id: int) -> StoredItem:
    """One item.

    Raises:
        NotFound: no item with this id.
    """
    _row(session, item_id)
    return items_by_id(session, [item_id])[0]


def add_item(session: Session, document: Mapping[str, Any]) -> int:
    """Put an item on the rack, with the history that it brings. Returns its id."""
    row = RackItemRow(document=_said(document))
    session.add(row)
    session.flush()
    _add_events(session, row.id, document.get("history", ()))
    return row.id


def change_item(session: Session, item_id: int, document: Mapping[str, Any], *, revision: int | None = None) -> None:
    """Replace what is said of an item, if it is still at this revision (None: whatever it is). Its history stays as it is.

    Raises:
        NotFound: no item with this id.
        Conflict: it was changed elsewhere since.
    """
    change_row(session, _row(session, item_id), {"document": _said(document)}, revision=revision, what="this")


def add_events(session: Session, item_id: int, events: Iterable[Mapping[str, Any]]) -> None:
    """Append to the history of an item.

    Raises:
        NotFound: no item with this id.
    """
    _row(session, item_id)
    _add_events(session, item_id, events)


def newest_event(session: Session, item_id: int) -> NewestEvent | None:
    """The newest event of an item; None where nothing happened to it.

    Raises:
        NotFound: no item with this id.
    """
    _row(session, item_id)
    row = session.scalar(select(RackEventRow).where(RackEventRow.item_id == item_id).order_by(RackEventRow.id.desc()).limit(1))
    return None if row is None else NewestEvent(row.id, row.at, row.document)


def replace_newest(session: Session, item_id: int, was: NewestEvent, document: Mapping[str, Any]) -> None:
    """Put an event in the place of the newest one of an item."""
    _add_events(session, item_id, [document])  # first: it must have another id, by which others see that there is something new
    session.execute(delete(RackEventRow).where(RackEventRow.id == was.id))


def remove_item(session: Session, item_id: int) -> None:
    """Forget an item and its history: for what was put on the rack by mistake."""
    session.delete(_row(session, item_id))


def _add_events(session: Session, item_id: int, events: Iterable[Mapping[str, Any]]) -> None:
    for event in events:
        session.add(RackEventRow(item_id=item_id, document=_said(event)))
        session.flush()  # one after the other: their ids tell in which order they were


def _row(session: Session, item_id: int) -> RackItemRow:
    return row_of(session, RackItemRow, item_id, "rack item")


def _said(document: Mapping[str, Any]) -> dict[str, Any]:
    """What the document says of itself; its history is kept event by event."""
    return {key: value for key, value in document.items() if key != "history" and value is not None}
