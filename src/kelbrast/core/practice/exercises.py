"""Short questions on simulated patches, and the rating of the person who answers them."""

import math
import random
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final, Literal

from kelbrast.core.catalogue.damages import faults_of_work

START: Final = 1000.0
SPREAD: Final = 400.0  # a question this much harder than the person is answered one time in eleven, guessing aside
STEP: Final = 48.0  # how far one answer moves a new rating
SETTLED: Final = 16.0  # and one that rests on many answers
EASIEST: Final = 700.0
HARDEST: Final = 1700.0
_TARGET: Final = 0.7  # questions are chosen so that about so many are answered rightly


@dataclass(frozen=True, slots=True)
class Skill:
    """A rating and how many answers it rests on."""

    rating: float = START
    answers: int = 0


def expected(rating: float, difficulty: float, options: int) -> float:
    """Chance of a right answer: what guessing gives, and the rest by the logistic law of Elo's ratings.

    Source: A. E. Elo, The Rating of Chessplayers (1978); with the guessing floor of the three-parameter model of item response.

    >>> round(expected(1000, 1000, 10**6), 2), round(expected(1000, 1000, 2), 2)
    (0.5, 0.75)
    """
    known = 1 / (1 + 10 ** ((difficulty - rating) / SPREAD))
    return 1 / options + (1 - 1 / options) * known


def answered(skill: Skill, *, difficulty: float, options: int, right: bool) -> Skill:
    """The rating after an answer. Guessing moves it down on average, as it is right less often than is expected of the rating.

    >>> answered(Skill(), difficulty=1000, options=2, right=True).rating > 1000
    True
    """
    step = max(SETTLED, STEP * math.exp(-skill.answers / 20))
    surprise = (1.0 if right else 0.0) - expected(skill.rating, difficulty, options)
    return Skill(max(400.0, skill.rating + step * surprise), skill.answers + 1)


def difficulty_for(skill: Skill, options: int) -> float:
    """The difficulty that this person answers rightly about seven times in ten, guessing included, within what there is."""
    known = max(0.05, (_TARGET - 1 / options) / (1 - 1 / options))
    harder = SPREAD * math.log10(1 / known - 1)
    return min(HARDEST, max(EASIEST, skill.rating + harder))


def level_of(difficulty: float) -> float:
    """A difficulty as a share, 0 the easiest and 1 the hardest."""
    return (difficulty - EASIEST) / (HARDEST - EASIEST)


ExerciseKind = Literal["done", "rim", "grade", "back", "carrier", "wrong"]
KINDS: Final[dict[ExerciseKind, str]] = {
    "done": "Is the step done?",
    "rim": "Would you move on?",
    "grade": "Which grade is this from?",
    "back": "How far back?",
    "carrier": "Which carrier for this?",
    "wrong": "What is wrong here?",
}
GRADES: Final = ("P80", "P120", "P180", "P240", "P320", "P400", "P600", "P800")
MATERIALS: Final = ("naval-brass", "stainless-304", "aluminium-wrought", "copper", "acrylic")
_SIGNS: Final = {  # faults that are told by what is said of them, in other words than the table's
    "deep-lines": "At the last polish three single lines stand out that were not seen before.",
    "greasy-film": "The work turns black in stripes that smear under the thumb.",
    "nothing-happens": "Two minutes on the wheel, and the surface is as it was.",
    "furrow": "One place is lower than the rest, as wide as the wheel.",
    "rounded": "The holes look like funnels and the arris is gone.",
    "burnt": "The window has a cloudy, gummy patch that smells.",
    "ripple": "A straight lamp tube looks wavy in the finished face.",
    "craters": "The fresh lacquer draws back in small round spots.",
    "taper": "The spindle measures less at one end than at the other.",
    "no-grip": "The paint comes off in sheets.",
    "stain": "In the evening it was bright, in the morning it is brown.",
    "grain-lost": "Some lines run across the brushed face.",
}
_ALIKE: Final = frozenset({"furrow", "taper"})  # the cause of one also explains the other, so they are not asked together


@dataclass(frozen=True, slots=True)
class Shown:
    """A patch to look at: its material, the marks that it was found with, and how far the next grade has come; `rim`: how much
    further it runs at the rim of a place, as a share of the width."""

    material: str
    after: str | None = None
    depth: float | None = None  # m
    kind: str = "lay"
    then: str | None = None
    share: float = 1.0
    soft: bool = False
    rim: float | None = None
    seed: int = 1
    marked: bool = False


@dataclass(frozen=True, slots=True)
class Exercise:
    """A question.

    Attributes:
        question: in a sentence.  options: to choose from; right: the place of the right one.
        shown: the patch, None where the question is in words alone.
        reveal: the same patch with what is left drawn over, or another, to compare.
        why: what the right answer rests on.  difficulty: in the unit of `skill`.
    """

    kind: ExerciseKind
    question: str
    options: tuple[str, ...]
    right: int
    shown: Shown | None
    reveal: Shown | None
    why: str
    difficulty: float


def exercise(kind: ExerciseKind, difficulty: float, seed: int) -> Exercise:
    """A question of a kind, about as hard as asked; the same seed gives the same one."""
    chance = random.Random(seed)
    return _MAKES[kind](difficulty, level_of(difficulty), chance, seed)


def _done(difficulty: float, level: float, chance: random.Random, seed: int) -> Exercise:
    """Harder: the step was left only just too early."""
    at = chance.randrange(0, 4)
    before, then = GRADES[at], GRADES[at + 2]
    done = chance.random() < 0.5
    early = 0.12 + 0.36 * level
    shown = Shown(chance.choice(MATERIALS), before, then=then, share=1.0 if done else early, seed=seed % 9973)
    why = (
        f"No mark of {before} lies across the lay of {then}: the step is done."
        if done
        else f"Marks of {before} still lie across the lay of {then}; only {early * 100:.0f} % of its time was worked."
    )
    question = f"{before} was worked across with {then}. Is the step done?"
    return Exercise(
        "done",
        question,
        ("Done, go on", "Not yet, keep going"),
        0 if done else 1,
        shown,
        replace(shown, marked=True),
        why,
        difficulty,
    )


def _rim(difficulty: float, level: float, chance: random.Random, seed: int) -> Exercise:
    """At the rim of a place. Harder: the coarser grade runs out only just from under the finer."""
    at = chance.randrange(0, 4)
    before, then = GRADES[at], GRADES[at + 3]
    done = chance.random() < 0.5
    out = 0.3 - 0.2 * level
    shown = Shown(chance.choice(MATERIALS), before, then=then, rim=out if done else -out, seed=seed % 9973)
    why = (
        f"The marks of {then} run past those of {before} all round: the place can join the rest."
        if done
        else f"Lines of {before} run out from under {then}: they would stay in the rest of the face. Work further out."
    )
    return Exercise(
        kind="rim",
        question=f"A place was worked with {before}, then {then}; to the right is the rest of the face. Would you move on?",
        options=("Move on", "Not yet, further out"),
        right=0 if done else 1,
        shown=shown,
        reveal=replace(shown, rim=-out if done else out),
        why=why,
        difficulty=difficulty,
    )


def _grade(difficulty: float, level: float, chance: random.Random, seed: int) -> Exercise:
    """Harder: the grades to choose from lie closer together."""
    apart = 3 if level < 0.3 else 2 if level < 0.65 else 1
    low = chance.randrange(0, len(GRADES) - 2 * apart)
    options = tuple(GRADES[low + apart * step] for step in range(3))
    right = chance.randrange(3)
    material = chance.choice(MATERIALS)
    other = options[right - 1] if right else options[1]
    return Exercise(
        kind="grade",
        question="Which paper left these marks?",
        options=options,
        right=right,
        shown=Shown(material, options[right], seed=seed % 9973),
        reveal=Shown(material, other, seed=seed % 9973),
        why=f"{options[right]}. Beside it {other}: look at how wide and how far apart the deepest lines are.",
        difficulty=difficulty,
    )


def _back(difficulty: float, level: float, chance: random.Random, seed: int) -> Exercise:
    """Deep lines among the marks of a finer grade: as deep as which grade's? Harder: the grades lie closer."""
    apart = 2 if level < 0.5 else 1
    fine = chance.randrange(2 * apart, len(GRADES))
    options = tuple(GRADES[fine - apart * step] for step in (2, 1, 0))
    right = chance.randrange(2)
    material = chance.choice(MATERIALS)
    shown = Shown(material, options[right], then=GRADES[fine], share=0.3, seed=seed % 9973)
    return Exercise(
        kind="back",
        question=f"Lines show among the marks of {GRADES[fine]}. Which grade left them?",
        options=options,
        right=right,
        shown=shown,
        reveal=replace(shown, marked=True),
        why=f"They are as wide as the marks of {options[right]}: go back to what clears those, then every step after it.",
        difficulty=difficulty,
    )


def _carrier(difficulty: float, level: float, chance: random.Random, seed: int) -> Exercise:
    """Ripple wants a firm backing, fine marks do not. Harder: the ripple is shallow."""
    ripple = chance.random() < 0.5
    depth = (24 - 18 * level) * 1e-6 if ripple else 0.7e-6
    material = chance.choice(("acrylic", "clear-coat-2k", "naval-brass"))
    shown = Shown(material, depth=depth, kind="waviness" if ripple else "scratches", seed=seed % 9973)
    return Exercise(
        kind="carrier",
        question="What takes this down?",
        options=("Paper on a firm block", "A soft pad with compound will do"),
        right=0 if ripple else 1,
        shown=shown,
        reveal=Shown(material, depth=depth, kind=shown.kind, then="P800", share=1.0, soft=True, seed=shown.seed),
        why=(
            "Ripple: a soft pad rides over it and leaves it there, only shinier. A firm block cuts the tops."
            if ripple
            else "Very fine marks on an even face: a soft pad reaches them and leaves the metal alone."
        ),
        difficulty=difficulty,
    )


def _wrong(difficulty: float, level: float, chance: random.Random, _seed: int) -> Exercise:
    """Told in words. Harder: more to choose from."""
    fault = chance.choice(list(_SIGNS))
    apart = [key for key in _SIGNS if key != fault and not {key, fault} <= _ALIKE]
    others = chance.sample(apart, 2 if level < 0.5 else 3)
    keys = chance.sample([fault, *others], len(others) + 1)
    table = faults_of_work()
    return Exercise(
        kind="wrong",
        question=f"{_SIGNS[fault]} What has happened?",
        options=tuple(table[key].why[0] for key in keys),
        right=keys.index(fault),
        shown=None,
        reveal=None,
        why=f"{table[fault].seen}: {table[fault].why[0]} {table[fault].cure[0]}",
        difficulty=difficulty,
    )


_MAKES: Final[dict[ExerciseKind, Callable[[float, float, random.Random, int], Exercise]]] = {
    "done": _done,
    "rim": _rim,
    "grade": _grade,
    "back": _back,
    "carrier": _carrier,
    "wrong": _wrong,
}
