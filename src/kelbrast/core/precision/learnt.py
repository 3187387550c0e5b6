"""Rates of laps, files and cloth learnt from a shop's own parts, per family of materials."""

import math
from collections.abc import Sequence

from kelbrast.core.learning.robust import shrunken_mean
from kelbrast.core.precision.state import SizeState
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero


def rate_ratio(state: SizeState) -> float | None:
    """What the rate of a part turned out to be against the published one; None before it was worked twice.

    Equation: `f = rate / published` (dimensionless)
    Valid: any state.

    Args:
        state: where the work stands.

    Raises:
        OutsideValidity: never.

    Source: our-choice.

    >>> from kelbrast.core.precision.readings import everywhere
    >>> from kelbrast.core.surface.sized import Reading
    >>> from kelbrast.core.precision.state import SizingTool, WorkRound, follow
    >>> from kelbrast.core.surface.sized import Gauge, RoundPart, SizeLimits
    >>> bush, lap = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3)), SizingTool("F400", 2e-8, 1.0)
    >>> def read(size): return tuple(Reading(size, z, phi) for z, phi in everywhere(length=40e-3))
    >>> rounds = [WorkRound(t, lap, read(size)) for t, size in ((0.0, 19.98e-3), (200.0, 19.988e-3), (200.0, 19.996e-3))]
    >>> round(rate_ratio(follow(bush, rounds, Gauge(1e-6, 1e-6))), 1)
    2.0
    """
    return state.belief.rate / state.tool.rate if state.rounds >= 2 else None


def learnt_rate(ratios: Sequence[float]) -> float | None:
    """The shop's own factor of a rate; None from too few parts.

    Equation: `f = exp(mean)`, the mean of ln(ratio) as in `robust.shrunken_mean` (dimensionless)
    Valid: every ratio above 0.

    Args:
        ratios: of the parts, each as in `rate_ratio`, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: huber, gelman.

    >>> learnt_rate([2.0, 2.1]), round(learnt_rate([2.0, 2.1, 1.9, 2.0]), 1)
    (None, 2.0)
    """
    for one in ratios:
        require_above_zero(ratio=one)
    if len(ratios) < constant("learning.fewest_runs").value:
        return None
    estimate = shrunken_mean(
        [math.log(ratio) for ratio in ratios],
        prior=constant("precision.prior_known").value,
        spread=constant("learning.least_noise").value,
        noise=constant("learning.noise").value,
        worth=constant("learning.noise_worth").value,
        huber=constant("learning.huber").value,
    )
    return math.exp(estimate.mean)
