"""How often the eye is right on pairs of photos of which it is known whether old marks are left."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kelbrast.core.vision.agreement import Rightness, rightness
from kelbrast.core.vision.old_marks import EyeVerdict


@dataclass(frozen=True, slots=True)
class ScoredPair:
    """A pair: whether old marks are left on the face, and what the eye said; `refused` where it said nothing."""

    old_marks: bool
    said: EyeVerdict | Literal["refused"]


@dataclass(frozen=True, slots=True)
class EyeScore:
    """Shares with their intervals: of faces with old marks those that are told and those that are called clean, of clean ones
    those that are called marked and those that pass, of all pairs those that are refused.

    Attributes:
        told: seen, or look again.  missed: none seen.  false: seen.  passed: none seen.  refused: nothing said.
    """

    told: Rightness
    missed: Rightness
    false: Rightness
    passed: Rightness
    refused: Rightness


def eye_score(pairs: Sequence[ScoredPair]) -> EyeScore:
    """Score what the eye said. A pair that it refused is counted as refused alone.

    Equation: shares with Wilson's interval (dimensionless)
    Valid: every number of pairs.

    Args:
        pairs: with what is true and what was said.

    Raises:
        OutsideValidity: never.

    Source: wilson.

    >>> score = eye_score([ScoredPair(True, "seen"), ScoredPair(True, "none-seen"), ScoredPair(False, "refused")])
    >>> score.told.right, score.missed.right, score.told.of, score.passed.of, score.refused.of
    (1, 1, 2, 0, 3)
    """
    answered = [pair for pair in pairs if pair.said != "refused"]
    marked = [pair.said for pair in answered if pair.old_marks]
    clean = [pair.said for pair in answered if not pair.old_marks]
    return EyeScore(
        told=rightness(len(marked) - marked.count("none-seen"), len(marked)),
        missed=rightness(marked.count("none-seen"), len(marked)),
        false=rightness(clean.count("seen"), len(clean)),
        passed=rightness(clean.count("none-seen"), len(clean)),
        refused=rightness(len(pairs) - len(answered), len(pairs)),
    )
