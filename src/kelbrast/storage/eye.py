"""Keeping what the eye saw."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.core.bench.observed import LightCheck
from kelbrast.storage.tables import EyeCheckRow


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
