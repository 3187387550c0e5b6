"""Keeping what the eye saw at the light checks of runs, and what came of them."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.core.bench.observed import LightCheck, TurnedOut
from kelbrast.storage.tables import EyeCheckRow


@dataclass(frozen=True, slots=True)
class StoredLook:
    """A light check with what the eye said of it, and what came of it; None where that was never worked out."""

    run_id: int
    check: LightCheck
    verdict: str
    came: TurnedOut | None = None


def add_look(session: Session, look: StoredLook, *, score: float) -> None:
    """Keep what the eye saw; nothing has come of it yet."""
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


def follow_looks(session: Session, run_id: int, turned_out: Callable[[LightCheck], TurnedOut]) -> None:
    """Keep what came of the light checks of a run."""
    for row in session.scalars(select(EyeCheckRow).where(EyeCheckRow.run_id == run_id)):
        came = turned_out(_check(row))
        row.person, row.left, row.followed = came.person, came.left, True
    session.flush()


def all_looks(session: Session) -> list[StoredLook]:
    """Everything that the eye saw, run by run."""
    rows = session.scalars(select(EyeCheckRow).order_by(EyeCheckRow.run_id, EyeCheckRow.id))
    return [
        StoredLook(row.run_id, _check(row), row.verdict, TurnedOut(row.person, row.left) if row.followed else None)
        for row in rows
    ]


def _check(row: EyeCheckRow) -> LightCheck:
    return LightCheck(row.after, row.piece, (row.face, row.route, row.step))
