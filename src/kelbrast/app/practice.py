"""Practice: the next question for a person, the answer to it, and how they have come on."""

import random
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from sqlalchemy import Engine

from kelbrast.app.clock import day_of
from kelbrast.core.errors import BadInput
from kelbrast.core.practice.exercises import KINDS, Exercise, Kind, Shown, exercise
from kelbrast.core.practice.skill import EASIEST, HARDEST, Skill, answered, difficulty_for
from kelbrast.core.units import from_si
from kelbrast.exchange.light_file import Asked
from kelbrast.storage import practice as store
from kelbrast.storage.practice import StoredAnswer
from kelbrast.storage.sessions import reading, writing

_USUAL_OPTIONS = 3


@dataclass(frozen=True, slots=True)
class Week:
    """A week of practice: its first day, answers, how many were right, and the rating at its end."""

    begins: date
    answers: int
    right: int
    rating: float


@dataclass(frozen=True, slots=True)
class Progress:
    """How a person has come on."""

    skill: Skill
    weeks: tuple[Week, ...]
    by_kind: tuple[tuple[Kind, int, int], ...]


class Practice:
    """The practice of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def people(self) -> list[str]:
        """Everybody who has practised."""
        with reading(self._engine) as session:
            return store.people(session)

    def next(self, person: str, seed: int | None = None) -> tuple[Kind, float, int, Exercise]:
        """The next question for a person: what they see least often rightly comes a little more often."""
        told = self._answers(person)
        seed = random.SystemRandom().randrange(1, 10**9) if seed is None else seed
        chance = random.Random(seed)
        kinds: list[Kind] = list(KINDS)
        kind = chance.choices(kinds, [_weight(told, kind) for kind in kinds])[0]
        difficulty = round(difficulty_for(skill_after(told), _USUAL_OPTIONS))
        return kind, difficulty, seed, exercise(kind, difficulty, seed)

    def answer(self, person: str, kind: Kind, difficulty: float, seed: int, chosen: int) -> tuple[Exercise, bool, Skill]:
        """Keep an answer; gives the question again with what is right, and the rating after it.

        Raises:
            BadInput: no such choice, a difficulty that there is not, or no name.
        """
        if not EASIEST <= difficulty <= HARDEST:
            raise BadInput.one("difficulty", f"must lie between {EASIEST:g} and {HARDEST:g}")
        asked = exercise(kind, difficulty, seed)
        if not 0 <= chosen < len(asked.options):
            raise BadInput.one("chosen", f"must be 0 to {len(asked.options) - 1}")
        right = chosen == asked.right
        told = StoredAnswer(_named(person), datetime.now(UTC), kind, difficulty, seed, len(asked.options), right)
        with writing(self._engine) as session:
            store.add_answer(session, told)
        return asked, right, skill_after(self._answers(person))

    def progress(self, person: str) -> Progress:
        """How a person has come on, week by week."""
        told = self._answers(person)
        return Progress(skill_after(told), tuple(_weeks(told)), tuple(_by_kind(told)))

    def _answers(self, person: str) -> Sequence[StoredAnswer]:
        with reading(self._engine) as session:
            return store.answers_of(session, _named(person))


def skill_after(answers: Sequence[StoredAnswer]) -> Skill:
    """The rating that follows from these answers, in order."""
    skill = Skill()
    for one in answers:
        skill = answered(skill, difficulty=one.difficulty, options=one.options, right=one.right)
    return skill


def asked_of(shown: Shown) -> Asked:
    """A patch of an exercise as it is asked of the simulator."""
    return Asked.model_validate(
        {
            "material": shown.material,
            "kind": shown.kind,
            "depth_um": from_si(shown.depth, "um") if shown.depth is not None else None,
            "after": shown.after,
            "then": shown.then,
            "share": shown.share,
            "soft": shown.soft,
            "seed": shown.seed,
            "marked": shown.marked,
            "rows": 240,
            "columns": 375,
        }
    )


def _named(person: str) -> str:
    name = person.strip()
    if not name:
        raise BadInput.one("person", "say who practises; any name will do")
    return name


def _weight(told: Sequence[StoredAnswer], kind: Kind) -> float:
    of = [one.right for one in told if one.kind == kind][-10:]
    return 1.5 - sum(of) / len(of) if of else 1.5


def _weeks(told: Sequence[StoredAnswer]) -> list[Week]:
    found: dict[date, Week] = {}
    skill = Skill()
    for one in told:
        skill = answered(skill, difficulty=one.difficulty, options=one.options, right=one.right)
        day = day_of(one.at)
        monday = day - timedelta(days=day.weekday())
        week = found.get(monday, Week(monday, 0, 0, skill.rating))
        found[monday] = Week(monday, week.answers + 1, week.right + one.right, skill.rating)
    return list(found.values())


def _by_kind(told: Sequence[StoredAnswer]) -> list[tuple[Kind, int, int]]:
    return [(kind, len(of), sum(of)) for kind in KINDS if (of := [one.right for one in told if one.kind == kind])]
