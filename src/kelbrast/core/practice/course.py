"""A person's progress: the rating from their answers, week by week, and the next question."""

import random
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from kelbrast.core.errors import BadInput
from kelbrast.core.practice.exercises import (
    EASIEST,
    HARDEST,
    KINDS,
    Exercise,
    ExerciseKind,
    Skill,
    answered,
    difficulty_for,
    exercise,
)

_USUAL_OPTIONS: Final = 3
_LATELY: Final = 10  # answers of a kind that its weight looks back on


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer that was given, on a day."""

    day: date
    kind: str
    difficulty: float
    options: int
    right: bool


@dataclass(frozen=True, slots=True)
class Week:
    """A week of practice: its first day, answers, how many were right, and the rating at its end."""

    begins: date
    answers: int
    right: int
    rating: float


@dataclass(frozen=True, slots=True)
class Course:
    """How a person has come on: by kind of question, how many were answered and how many rightly."""

    skill: Skill
    weeks: tuple[Week, ...]
    by_kind: tuple[tuple[ExerciseKind, int, int], ...]


def course_of(answers: Sequence[Answer]) -> Course:
    """What these answers, in order, come to."""
    weeks: dict[date, Week] = {}
    skill = Skill()
    for one in answers:
        skill = answered(skill, difficulty=one.difficulty, options=one.options, right=one.right)
        monday = one.day - timedelta(days=one.day.weekday())
        week = weeks.get(monday, Week(monday, 0, 0, skill.rating))
        weeks[monday] = Week(monday, week.answers + 1, week.right + one.right, skill.rating)
    by_kind = [(kind, [answer.right for answer in answers if answer.kind == kind]) for kind in KINDS]
    return Course(skill, tuple(weeks.values()), tuple((kind, len(of), sum(of)) for kind, of in by_kind if of))


def next_question(answers: Sequence[Answer], seed: int) -> tuple[ExerciseKind, float]:
    """The kind and the difficulty of the next question: what is seen least often rightly comes a little more often."""
    kinds = list(KINDS)
    kind = random.Random(seed).choices(kinds, [_weight(answers, kind) for kind in kinds])[0]
    return kind, round(difficulty_for(course_of(answers).skill, _USUAL_OPTIONS))


def judged(kind: ExerciseKind, difficulty: float, seed: int, chosen: int) -> tuple[Exercise, bool]:
    """A question as it was asked, and whether the choice is right.

    Raises:
        BadInput: no such choice, or a difficulty that there is not.
    """
    if not EASIEST <= difficulty <= HARDEST:
        raise BadInput.one("difficulty", f"must lie between {EASIEST:g} and {HARDEST:g}")
    asked = exercise(kind, difficulty, seed)
    if not 0 <= chosen < len(asked.options):
        raise BadInput.one("chosen", f"must be 0 to {len(asked.options) - 1}")
    return asked, chosen == asked.right


def _weight(answers: Sequence[Answer], kind: ExerciseKind) -> float:
    of = [answer.right for answer in answers if answer.kind == kind][-_LATELY:]
    return 1.5 - sum(of) / len(of) if of else 1.5
