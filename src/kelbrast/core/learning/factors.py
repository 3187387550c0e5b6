"""The shop's own factors: removal, wear and scratch depth relative to the published figures, learnt from its runs."""

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from statistics import median
from types import MappingProxyType
from typing import Final, Literal

from kelbrast.core.learning.robust import Estimate, shrunken_mean
from kelbrast.core.learning.trial import Tried
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero

LearntQuantity = Literal["removal", "life", "scratch", "pace"]
QUANTITIES: Final[dict[LearntQuantity, str]] = {
    "removal": "Removal rate",
    "life": "Life of the abrasive",
    "scratch": "Scratch left",
    "pace": "Time taken",
}
_OF_TOOLS: Final[tuple[LearntQuantity, ...]] = ("removal", "life", "scratch")
ANY_FAMILY: Final = ""  # of what does not depend on the metal


@dataclass(frozen=True, slots=True)
class Observation:
    """What a run said: the ratio of what happened to the published figure, for one carrier on one metal family.

    Attributes:
        run: id of the run that it comes from.
        carrier: for "pace" a line of the account, whatever the metal.
    """

    run: int
    carrier: str
    family: str
    quantity: LearntQuantity
    ratio: float


@dataclass(frozen=True, slots=True)
class Learnt:
    """A factor as learnt: published 1, yours `factor`, give or take `error`, from so many runs.

    Attributes:
        used: whether plans use it: there were enough runs or a trial, and the person did not switch it off.
        enough: whether there were enough runs, or a trial.
        tried: whether a trial piece said something of it, from which the runs go on.
    """

    carrier: str
    family: str
    quantity: LearntQuantity
    factor: float
    error: float
    runs: int
    enough: bool
    used: bool
    tried: bool = False


@dataclass(frozen=True, slots=True)
class Yours:
    """The shop's own factors for one tool on one metal family."""

    removal: float = 1.0
    life: float = 1.0
    scratch: float = 1.0


@dataclass(frozen=True, slots=True)
class ShopFactors:
    """What plans multiply the published figures with; 1 where nothing is known.

    Attributes:
        told: (carrier, family, quantity, factor).  errors: the same with the standard error of the factor's logarithm.
    """

    told: tuple[tuple[str, str, LearntQuantity, float], ...] = ()
    errors: tuple[tuple[str, str, LearntQuantity, float], ...] = ()

    def of(self, carrier: str, family: str, quantity: LearntQuantity) -> float:
        """The factor for a quantity of a carrier on a metal family.

        >>> ShopFactors((("paper", "steel", "removal", 0.8),)).of("paper", "steel", "removal")
        0.8
        >>> ShopFactors().of("paper", "steel", "life")
        1.0
        """
        wanted = (carrier, family, quantity)
        return next((factor for *key, factor in self.told if tuple(key) == wanted), 1.0)

    def error_of(self, carrier: str, family: str, quantity: LearntQuantity) -> float | None:
        """The standard error of a factor's logarithm; None where nothing is known.

        >>> ShopFactors(errors=(("paper", "steel", "removal", 0.1),)).error_of("paper", "steel", "removal")
        0.1
        """
        wanted = (carrier, family, quantity)
        return next((error for *key, error in self.errors if tuple(key) == wanted), None)

    def yours(self, carrier: str, family: str) -> Yours:
        """All three for one carrier on a metal family."""
        return Yours(**{quantity: self.of(carrier, family, quantity) for quantity in _OF_TOOLS})

    def pace(self, line: str) -> float:
        """How many times as long as planned the shop takes for a line of the account."""
        return self.of(line, ANY_FAMILY, "pace")


Switch = tuple[str, str, LearntQuantity]


def learn(
    observations: Iterable[Observation],
    *,
    trials: Mapping[Switch, Tried] = MappingProxyType({}),
    off: Sequence[Switch] = (),
    everything_off: bool = False,
) -> list[Learnt]:
    """The shop's own factors from its runs, each as a robust update of the published 1, or of what a trial piece said.

    A run counts once for a factor, with the median of what it said, so that a large batch is not many witnesses. Ratios are
    compared as logarithms: half as quick and twice as quick are equally far away.

    Equation: `f = exp(mean)`, the mean of ln(observed / published) as in `robust.shrunken_mean` (dimensionless)
    Valid: ratios above 0.

    Args:
        observations: what the runs said, ratios, dimensionless.
        trials: what trial pieces said, by carrier, family and quantity, dimensionless.
        off: factors that the person switched off.
        everything_off: all of them.

    Raises:
        OutsideValidity: outside that.

    Source: huber, gelman.

    >>> told = [Observation(run, "paper", "steel", "removal", 0.8) for run in range(20)]
    >>> round(learn(told)[0].factor, 1)
    0.8
    """
    found: dict[Switch, dict[int, list[float]]] = defaultdict(lambda: defaultdict(list))
    for observation in observations:
        require_above_zero(ratio=observation.ratio)
        found[observation.carrier, observation.family, observation.quantity][observation.run].append(
            math.log(observation.ratio)
        )
    learnt = []
    for key in sorted({*found, *trials}):
        carrier, family, quantity = key
        runs, tried = found.get(key, {}), trials.get(key)
        before = tried or Tried(0.0, constant("learning.prior").value)
        estimate = (
            Estimate(before.mean, before.error)
            if not runs
            else shrunken_mean(
                [median(values) for values in runs.values()],
                towards=before.mean,
                prior=before.error,
                spread=constant("learning.least_noise").value,
                noise=constant("learning.noise").value,
                worth=constant("learning.noise_worth").value,
                huber=constant("learning.huber").value,
            )
        )
        factor = math.exp(estimate.mean)
        enough = tried is not None or len(runs) >= constant("learning.fewest_runs").value
        used = enough and not everything_off and key not in off
        error = factor * estimate.error
        learnt.append(Learnt(carrier, family, quantity, factor, error, len(runs), enough, used, tried is not None))
    return learnt


def factors_of(learnt: Iterable[Learnt]) -> ShopFactors:
    """The factors that plans use.

    Equation: those of which there were enough runs, and that are not switched off (dimensionless)
    Valid: factors above 0.

    Args:
        learnt: factors as learnt, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> told = [Observation(run, "paper", "steel", "removal", 0.8) for run in range(20)]
    >>> many, one = factors_of(learn(told)), factors_of(learn(told[:1]))
    >>> round(many.of("paper", "steel", "removal"), 1), one.of("paper", "steel", "removal")
    (0.8, 1.0)
    """
    learnt = list(learnt)
    require_above_zero(**{f"factor_{place}": kind.factor for place, kind in enumerate(learnt)})
    used = [kind for kind in learnt if kind.used]
    return ShopFactors(
        told=tuple((learnt.carrier, learnt.family, learnt.quantity, learnt.factor) for learnt in used),
        errors=tuple((learnt.carrier, learnt.family, learnt.quantity, learnt.error / learnt.factor) for learnt in used),
    )
