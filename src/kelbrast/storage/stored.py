"""Documents as they are kept: with an id, how often and when last changed, and changed only from the newest revision."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, TypeVar

from sqlalchemy import update
from sqlalchemy.orm import Session

from kelbrast.core.errors import Conflict, NotFound
from kelbrast.storage.tables import JobRow, OwnEntryRow, RackItemRow, SizingRow

Row = TypeVar("Row", JobRow, SizingRow, RackItemRow, OwnEntryRow)


@dataclass(frozen=True, slots=True)
class Stored:
    """A document as kept: its id, how often it was changed, when last (UTC), and the document."""

    id: int
    revision: int
    updated_at: datetime
    document: Mapping[str, Any]

    @property
    def title(self) -> str:
        return str(self.document.get("title", ""))


def row_of(session: Session, kind: type[Row], row_id: int, what: str) -> Row:
    """The row with this id.

    Raises:
        NotFound: there is none; `what` names it.
    """
    row = session.get(kind, row_id)
    if row is None:
        raise NotFound(what, str(row_id))
    return row


def change_row(session: Session, row: Row, values: Mapping[str, Any], *, revision: int | None, what: str) -> None:
    """Give a row new values if it is still at this revision (None: whatever it is), and count the change.

    Raises:
        Conflict: it was changed elsewhere since; `what` names it.
    """
    kind = type(row)
    # Compared and set in one statement: of two changes of the same revision only one finds its row.
    chosen = kind.id == row.id if revision is None else (kind.id == row.id) & (kind.revision == revision)
    changed = update(kind).where(chosen).values(**values, revision=kind.revision + 1).returning(kind.id)
    if session.scalar(changed, execution_options={"synchronize_session": False}) is None:
        raise Conflict(f"{what} was changed elsewhere: it is at revision {row.revision}, not {revision}")
    session.refresh(row)
