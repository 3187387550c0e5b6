"""Keeping what the shop learns by looking: the answers of the practice, and what the eye saw."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.core.bench.observed import LightCheck
from kelbrast.storage.tables import EyeCheckRow, PracticeRow


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


@dataclass(frozen=True, slots=True)
class StoredLook:
    """A light check with what the eye said of it."""

    run_id: int
    check: LightCheck
    verdict: str


def add_look(session: Session, look: StoredLook, *, score: float) -> None:
    """Keep what the eye saw."""
    face, route, step = look.check.stage
    session.add(
        EyeCheckRow(
            run_id=look.run_id,
            after=look.check.after,
            piece=look.check.piece,
            face=face,
            route=route,
            step=step,
            at=datetime.now(UTC),
            verdict=look.verdict,
            score=score,
        )
    )


def all_looks(session: Session) -> list[StoredLook]:
    """Everything that the eye saw, run by run."""
    rows = session.scalars(select(EyeCheckRow).order_by(EyeCheckRow.run_id, EyeCheckRow.id))
    return [
        StoredLook(row.run_id, LightCheck(row.after, row.piece, (row.face, row.route, row.step)), row.verdict) for row in rows
    ]
