"""Lessons: the next question, the answer, how a person has come on; and a practice bore."""

from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel, ConfigDict, Field

from kelbrast.api.problems import RESPONSES
from kelbrast.api.requests import Pictures, ShopPractice
from kelbrast.app.light import Light
from kelbrast.core.practice.bores import MOST_ROUNDS, practice_bore, practice_end, practice_read
from kelbrast.core.practice.course import Course, Week
from kelbrast.core.practice.exercises import KINDS, Exercise, ExerciseKind, Shown
from kelbrast.core.units import to_si
from kelbrast.documents.common.fields import OneLine
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.size.format import SizeFile
from kelbrast.documents.size.practice_bore import BoreEndFile, to_bore_end, to_readings, to_size_file
from kelbrast.documents.size.wanted import SizeReading
from kelbrast.documents.surface.picture import asked_of

router = APIRouter(prefix="/api", responses=RESPONSES)

Person = Annotated[str, Field(min_length=1, max_length=80), OneLine]


class QuestionOut(BaseModel):
    """A question. Send kind, difficulty and seed back with the answer. `picture`: at /api/light/{picture}.png."""

    kind: ExerciseKind
    kind_label: str
    difficulty: float
    seed: int
    question: str
    options: list[str]
    picture: str | None
    wide: SentenceFile | None


class AnswerIn(BaseModel):
    """An answer: the place of the option that was chosen, from 0."""

    person: Person
    kind: ExerciseKind
    difficulty: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]
    seed: Annotated[int, Field(ge=0, le=2**53)]
    chosen: Annotated[int, Field(ge=0, le=20)]


class RightOut(BaseModel):
    """What is right, why, what the eye sees of it, and the rating now; the picture again, another beside it, both in words."""

    right: bool
    answer: str
    why: str
    picture: str | None
    picture_words: SentenceFile | None
    beside: str | None
    beside_words: SentenceFile | None
    eye: SentenceFile | None
    rating: float


class KindOut(BaseModel):
    """How a person answers one kind of question."""

    kind: ExerciseKind
    label: str
    answers: int
    right: int


class ProgressOut(BaseModel):
    """How a person has come on."""

    rating: float
    answers: int
    weeks: list[Week]
    kinds: list[KindOut]


Who = Annotated[str, Query(min_length=1, max_length=80, description="who practises"), OneLine]


@router.get("/practice/people")
def people(practice: ShopPractice) -> list[str]:
    """Everybody who has practised."""
    return practice.people()


@router.get("/practice/next")
def next_question(practice: ShopPractice, pictures: Pictures, person: Who) -> QuestionOut:
    """The next question for a person, as hard as they can just do."""
    kind, difficulty, seed, asked = practice.next(person)
    picture = _picture(pictures, asked.shown)
    return QuestionOut(
        kind=kind,
        kind_label=KINDS[kind],
        difficulty=difficulty,
        seed=seed,
        question=asked.question,
        options=list(asked.options),
        picture=picture,
        wide=to_sentence_file(pictures.wide(picture)) if picture is not None else None,
    )


@router.post("/practice/answer")
def answer_question(given: AnswerIn, practice: ShopPractice, pictures: Pictures) -> RightOut:
    """Keep an answer, and say what is right and why."""
    asked, right, skill = practice.answer(given.person, given.kind, given.difficulty, given.seed, given.chosen)
    return _told(asked, right, skill.rating, pictures)


@router.get("/practice/progress")
def progress(practice: ShopPractice, person: Who) -> ProgressOut:
    """How a person has come on, week by week."""
    return _progress(practice.progress(person))


def _told(asked: Exercise, right: bool, rating: float, pictures: Light) -> RightOut:
    keys = [_picture(pictures, shown) for shown in (asked.shown, asked.reveal)]
    words = [to_sentence_file(pictures.words([key])[0]) if key is not None else None for key in keys]
    seen = pictures.eye_says(keys[0]) if asked.kind == "done" and keys[0] is not None else None
    return RightOut(
        right=right,
        answer=asked.options[asked.right],
        why=asked.why,
        picture=keys[0],
        picture_words=words[0],
        beside=keys[1],
        beside_words=words[1],
        eye=to_sentence_file(seen) if seen is not None else None,
        rating=round(rating),
    )


def _progress(told: Course) -> ProgressOut:
    return ProgressOut(
        rating=round(told.skill.rating),
        answers=told.skill.answers,
        weeks=[replace(week, rating=round(week.rating)) for week in told.weeks],
        kinds=[KindOut(kind=kind, label=KINDS[kind], answers=of, right=right) for kind, of, right in told.by_kind],
    )


def _picture(pictures: Light, shown: Shown | None) -> str | None:
    return pictures.show(asked_of(shown)) if shown is not None else None


Difficulty = Annotated[int, Query(ge=1, le=3, description="1 is the easiest")]
Seed = Annotated[int, Query(ge=0, le=2**53, description="number of the bore")]
Seconds = Annotated[float, Field(gt=0, le=36_000, allow_inf_nan=False)]


class WorkedIn(BaseModel):
    """What was worked so far, round by round, s."""

    model_config = ConfigDict(extra="forbid")

    worked_s: Annotated[list[Seconds], Field(max_length=MOST_ROUNDS)]


class ReadIn(WorkedIn):
    """The same, and where to read now: everywhere, or where the oval is widest, for readings where the lap comes first."""

    widest_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)] | None = None


@router.get("/gauge/practice")
def begin_practice_bore(difficulty: Difficulty, seed: Seed) -> SizeFile:
    """What is known of the bore before any reading."""
    return to_size_file(practice_bore(difficulty, seed))


@router.post("/gauge/practice/read")
def read_practice_bore(difficulty: Difficulty, seed: Seed, asked: ReadIn) -> list[SizeReading]:
    """What the simulated gauge reads now."""
    widest = None if asked.widest_deg is None else to_si(asked.widest_deg, "deg")
    return to_readings(practice_read(practice_bore(difficulty, seed), asked.worked_s, widest=widest))


@router.post("/gauge/practice/end")
def end_practice_bore(difficulty: Difficulty, seed: Seed, asked: WorkedIn) -> BoreEndFile:
    """The bore as it is now, and what the program would have done with it."""
    return to_bore_end(practice_end(practice_bore(difficulty, seed), asked.worked_s))
