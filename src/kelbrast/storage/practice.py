"""Keeping the answers of the practice."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.storage.tables import PracticeRow


@dataclass(frozen=True, slots=True)
class StoredAnswer:
    """An answer as kept."""

    person: str
    at: datetime
    kind: str
    difficulty: float
    seed: int
    options: int
    right: bool


def answers_of(session: Session, person: str) -> Sequence[StoredAnswer]:
    """Every answer of a person, the oldest first."""
    rows = session.scalars(select(PracticeRow).where(PracticeRow.person == person).order_by(PracticeRow.id))
    return [StoredAnswer(row.person, row.at, row.kind, row.difficulty, row.seed, row.options, row.right) for row in rows]


def add_answer(session: Session, answer: StoredAnswer) -> None:
    """Keep an answer."""
    session.add(
        PracticeRow(
            person=answer.person,
            at=answer.at,
            kind=answer.kind,
            difficulty=answer.difficulty,
            seed=answer.seed,
            options=answer.options,
            right=answer.right,
        )
    )


def people(session: Session) -> list[str]:
    """Everybody who has practised."""
    return list(session.scalars(select(PracticeRow.person).distinct().order_by(PracticeRow.person)))
