"""The trial piece: what it states holds as often as it says, also in a world that is not quite its own."""

import math
import random
from dataclasses import dataclass, replace
from statistics import mean

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import Observation, ShopFactors, factors_of, learn
from kelbrast.core.learning.trial import (
    LampLook,
    Removed,
    TrialSquare,
    Tried,
    layer_measured,
    layer_weighed,
    removal_tried,
    scratch_tried,
    together,
)
from kelbrast.core.planning.questions.worth_trying import worth_trying
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.tooling.trial_square import on_trial, suited

SQUARE = TrialSquare(rate=0.12e-6, life=600.0, clears=20e-6, halves=8e-6, ra=1e-6)
AREA, DENSITY = 25e-4, 8400.0


@dataclass(frozen=True)
class World:
    """How a simulated bench differs from the tables: errors of ln, and what the laws of the program leave out."""

    hand: float = 0.12
    judged: float = 0.15
    marks: float = 0.1
    life: float = 0.0
    slow_start: float = 0.0
    slips: float = 0.0  # chance that a look is called one too early

    def trial(self, factor: float, chance: random.Random, *, weighed: bool) -> Tried:
        rate = SQUARE.rate * factor * math.exp(chance.gauss(0, self.hand))
        life = SQUARE.life * math.exp(chance.gauss(0, self.life))
        judge = math.exp(chance.gauss(0, self.judged) + chance.gauss(0, self.marks))
        looks: list[LampLook] = []
        while not looks or (looks[-1].seen != "gone" and looks[-1].seconds < 900):
            seconds = (looks[-1].seconds if looks else 0) + 60
            layer = rate * life * -math.expm1(-max(0.0, seconds - self.slow_start) / life)
            seen = "gone" if layer >= SQUARE.clears * judge else "half" if layer >= SQUARE.halves * judge else "still"
            if seen == "half" and chance.random() < self.slips:
                seen = "gone"
            looks.append(LampLook(seconds, seen))
        if not weighed:
            return removal_tried(SQUARE, looks)
        read = (
            (layer * AREA * DENSITY + chance.gauss(0, math.sqrt(2) * 1e-5)) // 1e-5 * 1e-5
        )  # a balance shows hundredths of a gram
        layer, error = layer_weighed(lost=max(read, 0), density=DENSITY, area=AREA, error=1e-5)
        return removal_tried(SQUARE, looks, [Removed(looks[-1].seconds, layer, error)])


@pytest.mark.parametrize(
    ("world", "least", "left"),
    [(World(), 0.88, 0.5), (World(life=0.3, slow_start=5), 0.88, 0.5), (World(hand=0.18, slips=0.1), 0.77, 0.7)],
    ids=["as supposed", "dulls otherwise", "hasty"],
)
@pytest.mark.parametrize("weighed", [False, True])
def test_nine_in_ten_holds_and_one_trial_halves_the_error_of_the_minutes(
    world: World, least: float, left: float, weighed: bool
) -> None:
    chance, held, before, after = random.Random(4), 0, [], []
    for _ in range(600):
        truth = chance.gauss(0, 0.5)
        tried = world.trial(math.exp(truth), chance, weighed=weighed)
        low, high = tried.nine_in_ten
        held += low <= math.exp(truth) <= high
        before.append(abs(math.exp(-truth) - 1))  # of the minutes, by the tables
        after.append(abs(math.exp(tried.mean - truth) - 1))
    assert held >= least * 600
    assert held <= 0.97 * 600
    assert mean(after) < left * mean(before)


def test_more_that_is_known_makes_it_surer_and_an_unlikely_look_never_breaks_it() -> None:
    look = [LampLook(60, "half"), LampLook(120, "gone")]
    seen = removal_tried(SQUARE, look)
    weighed = removal_tried(SQUARE, look, [Removed(120, 22e-6, 0.7e-6)])
    assert weighed.error < seen.error
    assert removal_tried(SQUARE, [LampLook(1, "gone")]).factor > 3
    assert removal_tried(SQUARE, [LampLook(900, "still")]).factor < 0.5
    both = together([seen, seen])
    assert both.error < seen.error
    assert both.factor > seen.factor  # the prior counts once


@pytest.mark.parametrize(
    "looks",
    [[], [LampLook(60, "gone"), LampLook(120, "half")], [LampLook(60, "still"), LampLook(60, "gone")], [LampLook(0, "still")]],
)
def test_what_contradicts_itself_is_refused(looks: list[LampLook]) -> None:
    with pytest.raises((BadInput, OutsideValidity)):
        removal_tried(SQUARE, looks)


def test_what_was_weighed_measured_and_read() -> None:
    assert layer_weighed(lost=1e-5, density=8400, area=25e-4, error=1e-5)[0] == pytest.approx(0.476e-6, rel=0.01)
    layer, error = layer_measured([3e-3, 3.001e-3], [2.99e-3, 2.989e-3], error=1e-6)
    assert (layer, error) == (pytest.approx(11e-6), pytest.approx(1e-6))  # the places scatter by more than the micrometer
    with pytest.raises(OutsideValidity):
        layer_measured([3e-3], [], error=1e-6)
    read, compared = (scratch_tried(2e-6, expected=1e-6, error=error) for error in (0.08, 0.25))
    assert 1 < compared.factor < read.factor < 2


def test_the_learning_goes_on_from_a_trial() -> None:
    key = ("paper", "steel", "removal")
    tried = {key: Tried(math.log(1.6), 0.15)}
    (alone,) = learn([], trials=tried)
    assert (alone.factor, alone.runs, alone.used, alone.tried) == (pytest.approx(1.6), 0, True, True)
    runs = [Observation(run, *key, 1.2) for run in range(8)]
    (both,), (without,) = learn(runs, trials=tried), learn(runs)
    assert without.factor < both.factor < alone.factor
    assert both.error < without.error
    assert factors_of([alone]).error_of(*key) == pytest.approx(0.15)
    assert not learn([], trials=tried, off=[key])[0].used


def job(name: str = "brass") -> Job:
    face = Face("plate", area=0.03, found=Found("scratches", 20e-6, 30e-6), want=finish("mirror"))
    return Job(title="plate", faces=(face,), material=material(name), pieces=4)


def test_the_square_suits_the_tool() -> None:
    for name in ("paper-p240", "belt-p120", "sewn-tripoli"):
        trial = suited(name, job())
        assert 30 <= trial.square.seconds <= 600
        assert trial.grade.grain > tools()[name].grain
        assert trial.round <= trial.square.seconds / 2
        assert on_trial(name, job(), trial.grade, side=trial.side).square == trial.square
    assert suited("belt-p120", job()).side > suited("paper-p240", job()).side
    with pytest.raises(BadInput):
        suited("lap-f400", job())


def test_what_is_worth_trying_is_what_moves_the_open_jobs_most_and_a_trial_takes_it_off_the_list() -> None:
    first, *others = worth_trying([job(), job("brass")])
    assert first.worth >= max(one.worth for one in others)
    assert first.jobs == 2
    assert 0 < first.risk < first.unsure
    known = ShopFactors(
        errors=((first.carrier, first.family, "removal", 0.1),), told=((first.carrier, first.family, "removal", 1.0),)
    )
    again = worth_trying([replace(job(), factors=known)] * 2)
    left = next((one.risk for one in again if one.carrier == first.carrier), 0.0)
    assert left < 0.25 * first.risk
    cut = sum(step.time.cut for step in plan_job(job()).faces[0].steps if step.tool.carrier.id == first.carrier)
    assert first.work == pytest.approx(2 * 4 * cut)
