"""Lessons: the next question for a person, the answer to it, and how they have come on."""

import random
from collections.abc import Sequence
from datetime import UTC, datetime

from sqlalchemy import Engine

from kelbrast.app.clock import day_of
from kelbrast.core.errors import BadInput
from kelbrast.core.practice.course import Answer, Course, course_of, judged, next_question
from kelbrast.core.practice.exercises import Exercise, ExerciseKind, Skill, exercise
from kelbrast.storage import practice as store
from kelbrast.storage.practice import StoredAnswer
from kelbrast.storage.sessions import reading, writing


class Lessons:
    """The practice of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def people(self) -> list[str]:
        """Everybody who has practised."""
        with reading(self._engine) as session:
            return store.people(session)

    def next(self, person: str, seed: int | None = None) -> tuple[ExerciseKind, float, int, Exercise]:
        """The next question for a person."""
        seed = random.SystemRandom().randrange(1, 10**9) if seed is None else seed
        kind, difficulty = next_question(self._answers(person), seed)
        return kind, difficulty, seed, exercise(kind, difficulty, seed)

    def answer(
        self, person: str, kind: ExerciseKind, difficulty: float, seed: int, chosen: int
    ) -> tuple[Exercise, bool, Skill]:
        """Keep an answer; gives the question again with what is right, and the rating after it.

        Raises:
            BadInput: no such choice, a difficulty that there is not, or no name.
        """
        asked, right = judged(kind, difficulty, seed, chosen)
        told = StoredAnswer(_named(person), datetime.now(UTC), kind, difficulty, seed, len(asked.options), right)
        with writing(self._engine) as session:
            store.add_answer(session, told)
        return asked, right, self.progress(person).skill

    def progress(self, person: str) -> Course:
        """How a person has come on, week by week."""
        return course_of(self._answers(person))

    def _answers(self, person: str) -> Sequence[Answer]:
        with reading(self._engine) as session:
            told = store.answers_of(session, _named(person))
        return [
            Answer(
                day_of(stored_answer.at),
                stored_answer.kind,
                stored_answer.difficulty,
                stored_answer.options,
                stored_answer.right,
            )
            for stored_answer in told
        ]


def _named(person: str) -> str:
    name = person.strip()
    if not name:
        raise BadInput.one("person", "say who practises; any name will do")
    return name
