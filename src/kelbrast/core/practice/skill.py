"""How well a person reads a surface: a rating that rises with hard questions answered and falls with easy ones missed."""

import math
from dataclasses import dataclass
from typing import Final

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
