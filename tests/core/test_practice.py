"""Practice: who improves gets harder questions and a rising score, who guesses does not."""

import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.damages import faults_of_work
from kelbrast.core.practice.exercises import (
    EASIEST,
    HARDEST,
    KINDS,
    START,
    Skill,
    answered,
    difficulty_for,
    exercise,
    expected,
    level_of,
)


def learner(strength_at, answers: int, seed: int) -> list[tuple[Skill, float]]:
    """A simulated person whose true rating at each answer is given; None guesses. (Skill, difficulty) after each answer."""
    chance, skill, told = random.Random(seed), Skill(), []
    for number in range(answers):
        options = chance.choice((2, 3, 3))
        difficulty = difficulty_for(skill, 3)
        strength = strength_at(number)
        sure = 1 / options if strength is None else expected(strength, difficulty, options)
        skill = answered(skill, difficulty=difficulty, options=options, right=chance.random() < sure)
        told.append((skill, difficulty))
    return told


def test_a_learner_who_improves_gets_harder_questions_and_a_rising_score() -> None:
    for seed in range(10):
        told = learner(lambda number: 900 + 5 * number, 140, seed)
        ratings, difficulties = [skill.rating for skill, _ in told], [difficulty for _, difficulty in told]
        assert sum(ratings[-20:]) / 20 > sum(ratings[20:40]) / 20 + 150
        assert sum(difficulties[-20:]) / 20 > sum(difficulties[20:40]) / 20 + 100


def test_one_who_guesses_does_not() -> None:
    ends = [learner(lambda _: None, 140, seed)[-1] for seed in range(20)]
    assert sum(skill.rating for skill, _ in ends) / 20 < START - 80
    assert max(difficulty for _, difficulty in ends) < START


def test_the_rating_finds_the_true_one() -> None:
    found = [learner(lambda _: 1200.0, 200, seed)[-1][0].rating for seed in range(20)]
    assert sum(found) / 20 == pytest.approx(1200, abs=80)


@given(st.floats(400, 2200), st.floats(EASIEST, HARDEST), st.integers(2, 5))
def test_right_raises_wrong_lowers_and_hard_ones_count_more(rating, difficulty, options) -> None:
    skill = Skill(rating, 5)
    up, down = (answered(skill, difficulty=difficulty, options=options, right=right) for right in (True, False))
    assert down.rating <= skill.rating <= up.rating
    harder = answered(skill, difficulty=difficulty + 200, options=options, right=True)
    assert harder.rating >= up.rating


@given(st.floats(400, 2500), st.integers(2, 5))
def test_questions_stay_within_what_there_is(rating, options) -> None:
    assert EASIEST <= difficulty_for(Skill(rating), options) <= HARDEST


@settings(max_examples=many(20))
@given(st.sampled_from(list(KINDS)), st.floats(EASIEST, HARDEST), st.integers(0, 10**9))
def test_every_question_has_one_right_answer_and_repeats(kind, difficulty, seed) -> None:
    asked = exercise(kind, difficulty, seed)
    assert asked == exercise(kind, difficulty, seed)
    assert 0 <= asked.right < len(asked.options)
    assert len(set(asked.options)) == len(asked.options) >= 2
    assert asked.why
    assert (asked.shown is None) == (kind == "wrong")


@pytest.mark.parametrize("kind", list(KINDS))
def test_the_right_answer_is_not_always_in_the_same_place(kind) -> None:
    assert len({exercise(kind, 1100, seed).right for seed in range(40)}) > 1


def test_harder_is_harder() -> None:
    early = [one for one in (exercise("done", d, s) for d in (EASIEST, HARDEST) for s in range(30)) if one.right == 1]
    shares = {one.difficulty: one.shown.share for one in early}
    assert shares[EASIEST] < shares[HARDEST]  # left later, so less is to be seen
    assert level_of(EASIEST) == 0
    assert level_of(HARDEST) == 1


def test_no_question_in_words_has_two_right_answers() -> None:
    """A furrow and a taper both come from staying too long in one place."""
    alike = {faults_of_work()[fault].why[0] for fault in ("furrow", "taper")}
    for seed in range(300):
        asked = exercise("wrong", HARDEST, seed)
        assert len(set(asked.options)) == len(asked.options)
        assert asked.options[asked.right] not in alike or not alike <= set(asked.options)
