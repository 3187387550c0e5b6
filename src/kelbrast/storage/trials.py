"""Keeping trials: each as it was worked, with what it said then."""

from collections.abc import Mapping
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from kelbrast.core.errors import NotFound
from kelbrast.storage.tables import TrialRow


def all_trials(session: Session) -> list[tuple[int, Mapping[str, Any]]]:
    """(id, document) of every one, the newest first."""
    return [(row.id, row.document) for row in session.scalars(select(TrialRow).order_by(TrialRow.id.desc()))]


def mark_of_trials(session: Session) -> object:
    """Something that is equal as long as there are the same trials; they are never changed."""
    return tuple(session.execute(select(func.count(), func.max(TrialRow.id), func.sum(TrialRow.id))).one())


def add_trial(session: Session, document: Mapping[str, Any]) -> int:
    """Keep one. Returns its id."""
    row = TrialRow(document=dict(document))
    session.add(row)
    session.flush()
    return row.id


def remove_trial(session: Session, trial_id: int) -> None:
    """Forget one.

    Raises:
        NotFound: none with this id.
    """
    row = session.get(TrialRow, trial_id)
    if row is None:
        raise NotFound("trial", str(trial_id))
    session.delete(row)
