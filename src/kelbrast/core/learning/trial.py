"""The trial piece: what a marked square, worked for a few minutes, says about a tool; by the same laws as the plans.

One estimator, not two: what a trial says is where the learning from runs begins.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np
from scipy.special import ndtr

from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.process.removal import fresh_in
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero

Seen = Literal["still", "half", "gone"]  # the old marks, under the lamp
SEEN: Final[dict[Seen, str]] = {"still": "Still there", "half": "Half gone", "gone": "Gone"}
_REACH: Final = 4.0  # the grid of ln R goes so many standard deviations of the prior to either side
_POINTS: Final = 801
_NARROW: Final = 0.05  # of ln R: no two looks are told apart better
_NO_CHANCE: Final = 1e-300  # whose logarithm is still a number
_NINE_IN_TEN: Final = 1.6449  # standard deviations on either side


@dataclass(frozen=True, slots=True)
class TrialSquare:
    """A square of marks of a known grade, and what the tables expect of a tool on it (SI).

    Attributes:
        rate: layer that a fresh tool takes off in a second, m/s.
        life: e-folding time of that, s; infinite for what does not die.
        clears: the layer after which the old marks are gone, and halves: half of them, m.
        ra: what the tool leaves.
    """

    rate: float
    life: float
    clears: float
    halves: float
    ra: float

    @property
    def seconds(self) -> float:
        """How long the tables expect it to take until the old marks are gone; infinite where the tool dies before."""
        share = self.clears / (self.rate * self.life)
        if share >= 1:
            return math.inf
        return self.clears / self.rate if math.isinf(self.life) else -self.life * math.log1p(-share)


@dataclass(frozen=True, slots=True)
class LampLook:
    """What was seen after so many seconds of work on the square, counted from the beginning."""

    seconds: float
    seen: Seen


@dataclass(frozen=True, slots=True)
class Removed:
    """What came off in so many seconds of work: a layer, and the standard deviation of measuring it, m."""

    seconds: float
    layer: float
    error: float


@dataclass(frozen=True, slots=True)
class Tried:
    """What a trial says of a factor to the tables: the mean and the standard deviation of its logarithm."""

    mean: float
    error: float

    @property
    def factor(self) -> float:
        """The factor in the middle."""
        return math.exp(self.mean)

    @property
    def nine_in_ten(self) -> tuple[float, float]:
        """The factor lies between these nine times in ten."""
        return math.exp(self.mean - _NINE_IN_TEN * self.error), math.exp(self.mean + _NINE_IN_TEN * self.error)


def removal_tried(square: TrialSquare, looks: Sequence[LampLook], removed: Sequence[Removed] = ()) -> Tried:
    """How many times as fast as in the tables the tool cuts, from what was seen and measured.

    A look says between which layers the old marks stand: gone means that the layer is at least the one that clears them, as the
    person judges it. How well one square speaks of all work with the tool (hand, pressure, sheet) is one error of the trial.

    Equation: `p(ln R) ~ N(0, p) (Phi(a) - Phi(b)) prod N(h; R r f(t), e)`, widened by the trial's own error (dimensionless)
    Valid: at least one look or measure; seconds and rate above 0; looks in order, and none less gone than the one before.

    Args:
        square: what the tables expect.
        looks: in the order in which they were made, s.
        removed: what was weighed or measured, m.

    Raises:
        OutsideValidity: outside that.  BadInput: the looks contradict each other.

    Source: gelman, our-choice.

    >>> square = TrialSquare(rate=0.1e-6, life=math.inf, clears=20e-6, halves=8e-6, ra=1e-6)  # 200 s
    >>> tried = removal_tried(square, [LampLook(60, "half"), LampLook(120, "gone")])
    >>> round(tried.factor, 1), [round(end, 1) for end in tried.nine_in_ten]
    (1.9, [1.2, 2.8])
    """
    require_above_zero(rate=square.rate, clears=square.clears, halves=square.halves)
    if not square.life > 0:
        raise OutsideValidity("life must be above 0")  # without an end for what does not die
    if not looks and not removed:
        raise OutsideValidity("a trial says nothing before anything was seen or measured")
    _in_order(looks)
    prior, own = constant("learning.prior").value, constant("trial.one_square").value
    spread = math.hypot(prior, own)
    grid = np.linspace(-_REACH * spread, _REACH * spread, _POINTS)
    chance = -0.5 * (grid / spread) ** 2
    chance += np.log(np.maximum(_of_looks(square, looks, grid), _NO_CHANCE))
    for one in removed:
        require_above_zero(seconds=one.seconds, error=one.error)
        chance += -0.5 * ((one.layer - np.exp(grid) * _layer(square, one.seconds)) / one.error) ** 2
    weight = np.exp(chance - chance.max())
    weight /= weight.sum()
    middle = float((weight * grid).sum())
    variance = float((weight * (grid - middle) ** 2).sum())
    # The factor of this square is that of the tool, but for the error of the one trial.
    share = prior**2 / spread**2
    return Tried(share * middle, math.sqrt(share**2 * variance + share * own**2))


def scratch_tried(ra: float, *, expected: float, error: float) -> Tried:
    """How many times as deep as in the tables the tool's own marks are.

    Equation: `mean = ln(ra / expected) p^2 / (p^2 + e^2)`, p the prior, e of the reading and the trial (dimensionless)
    Valid: every value above 0.

    Args:
        ra: what was read, m.
        expected: what the tables say, m.
        error: standard deviation of ln(ra) of the reading, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: gelman.

    >>> round(scratch_tried(1.5e-6, expected=1e-6, error=0.1).factor, 2)
    1.43
    """
    require_above_zero(ra=ra, expected=expected, error=error)
    prior, own = constant("learning.prior").value, math.hypot(error, constant("trial.one_square").value)
    share = prior**2 / (prior**2 + own**2)
    return Tried(share * math.log(ra / expected), math.sqrt(share) * own)


def together(tried: Iterable[Tried]) -> Tried:
    """What several trials of one tool on one kind of metal say together: each began from the same prior, which counts once.

    Equation: `1/s^2 = sum 1/s_i^2 - (n - 1)/p^2`, mean = s^2 sum m_i / s_i^2 (dimensionless)
    Valid: at least one trial, errors above 0 and no larger than the prior.

    Args:
        tried: of single trials, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: gelman.

    >>> two = together([Tried(0.4, 0.2), Tried(0.6, 0.2)])
    >>> round(two.mean, 2), two.error < 0.2
    (0.54, True)
    """
    tried = list(tried)
    if not tried:
        raise OutsideValidity("there must be at least one trial")
    require_above_zero(**{f"error_{place}": one.error for place, one in enumerate(tried)})
    prior = constant("learning.prior").value
    precision = sum(1 / one.error**2 for one in tried) - (len(tried) - 1) / prior**2
    if precision <= 0:
        raise OutsideValidity("a trial cannot be less sure than what was believed before it")
    return Tried(sum(one.mean / one.error**2 for one in tried) / precision, 1 / math.sqrt(precision))


def layer_weighed(*, lost: float, density: float, area: float, error: float) -> tuple[float, float]:
    """The layer that a loss of weight means, and its standard deviation.

    Equation: `h = m / (rho A)`; its error sqrt(2) e / (rho A), as it is weighed twice (m)
    Valid: every value above 0; the loss may be 0.

    Args:
        lost: m, kg.
        density: rho, kg/m3.
        area: A of the square, m2.
        error: e of one weighing, kg.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> layer, error = layer_weighed(lost=0.21e-3, density=8400, area=25e-4, error=0.01e-3)
    >>> round(layer * 1e6, 2), round(error * 1e6, 2)
    (10.0, 0.67)
    """
    require_above_zero(density=density, area=area, error=error)
    require_not_below_zero(lost=lost)
    per_layer = density * area
    return lost / per_layer, math.sqrt(2) * error / per_layer


def layer_measured(before: Sequence[float], after: Sequence[float], *, error: float) -> tuple[float, float]:
    """The layer between readings of the thickness at the same places, and its standard deviation.

    Equation: `h = mean(before - after)`; its error sqrt(2 / n) e, or what the places themselves scatter by, if that is more (m)
    Valid: as many readings after as before, at least one; the error above 0.

    Args:
        before: at every place, m.
        after: at the same places in the same order, m.
        error: e of one reading, m.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> layer, error = layer_measured([3e-3] * 9, [2.99e-3] * 9, error=2e-6)
    >>> round(layer * 1e6, 1), round(error * 1e6, 2)
    (10.0, 0.94)
    """
    require_above_zero(error=error)
    if not before or len(before) != len(after):
        raise OutsideValidity("there must be as many readings after the work as before it, and at least one")
    off = np.asarray(before) - np.asarray(after)
    scatter = float(off.std(ddof=1)) / math.sqrt(len(off)) if len(off) > 1 else 0.0
    return float(off.mean()), max(math.sqrt(2 / len(off)) * error, scatter)


def _in_order(looks: Sequence[LampLook]) -> None:
    order = list(SEEN)
    require_above_zero(**{f"look_{place}": look.seconds for place, look in enumerate(looks)})
    for earlier, later in pairwise(looks):
        if later.seconds <= earlier.seconds or order.index(later.seen) < order.index(earlier.seen):
            raise BadInput.one("looks", "must come one after the other, and what was gone cannot come back")


def _layer(square: TrialSquare, seconds: float) -> float:
    return square.rate * float(fresh_in(seconds=seconds, life=square.life, change_after=math.inf))


def _of_looks(square: TrialSquare, looks: Sequence[LampLook], grid: Reals) -> Reals:
    """The chance of what was seen, for every ln R of the grid. Whoever calls marks gone too early does so at every look."""
    most, least = math.inf, -math.inf  # of ln(judged / true layer) less ln R
    for look in looks:
        layer = _layer(square, look.seconds)
        if look.seen != "still":
            most = min(most, math.log(layer / (square.clears if look.seen == "gone" else square.halves)))
        if look.seen != "gone":
            least = max(least, math.log(layer / (square.clears if look.seen == "half" else square.halves)))
    judged = math.hypot(constant("trial.judged").value, constant("spread.depth").value)  # nor are the marks just so deep
    if most - least < _NARROW:  # it did not dull as supposed: where the looks meet is what they say
        middle = (most + least) / 2
        least, most = middle - _NARROW / 2, middle + _NARROW / 2
    chance: Reals = ndtr((grid + most) / judged) - ndtr((grid + least) / judged)
    return chance
