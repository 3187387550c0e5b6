"""The rework that a route risks: by steps that go further than a habit allows, and by an end close to its limit."""

import math
from statistics import NormalDist

import numpy as np

from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero


def expected_repeats(excess: Reals, *, first: bool = False) -> Reals:
    """How often a step is expected to be repeated until its light check passes.

    The chance that a check fails is logistic in the logarithm of how far the step goes; a check that fails is followed by the
    same work again, so the expected number of repeats is the odds of that chance. The first grade on damage of unknown shape is
    bounded: a poor rack may have nothing near it.

    Equation: `o x^k`; for the first grade `o x^k / (1 + o x^k / m)` (dimensionless)
    Valid: excess not below 0.

    Args:
        excess: x, how many times as far as the habit allows, dimensionless.
        first: whether it is a first grade.

    Raises:
        OutsideValidity: outside that.

    Source: practice-fit.

    >>> [round(float(one), 2) for one in expected_repeats(np.array([0.0, 0.5, 1.0, 2.0]))]
    [0.0, 0.02, 0.35, 5.6]
    """
    require_not_below_zero(excess=excess)
    odds = constant("rework.odds").value * np.asarray(excess) ** constant("rework.steepness").value
    return np.asarray(odds / (1 + odds / constant("rework.first_most").value) if first else odds)


def chance_of_repeat(repeats: float) -> float:
    """The chance that a step must be repeated at all, from how often that is expected.

    Equation: `p = o / (1 + o)` (dimensionless)
    Valid: not below 0.

    Args:
        repeats: o, the expected number of repeats, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: practice-fit.

    >>> round(chance_of_repeat(0.35), 2), chance_of_repeat(0.0)
    (0.26, 0.0)
    """
    require_not_below_zero(repeats=repeats)
    return 1.0 if math.isinf(repeats) else repeats / (1 + repeats)


def chance_outside(ra: Reals, *, low: float, high: float) -> Reals:
    """The chance that a face ends outside a band of roughness, by the scatter of what a grade leaves.

    Equation: `q = Phi(ln(Ra / high) / s) + Phi(ln(low / Ra) / s)`, s the logarithm of the scatter (dimensionless)
    Valid: Ra and the upper end above 0, the lower end not below 0 (0 for no lower end, infinite for no upper one).

    Args:
        ra: Ra that the last grade leaves by the law, m.
        low: lower end of the band, m.
        high: upper end, m.

    Raises:
        OutsideValidity: outside that.

    Source: scratch-fit.

    >>> [round(float(one), 2) for one in chance_outside(np.array([0.1e-6, 0.2e-6]), low=0.0, high=0.2e-6)]
    [0.0, 0.5]
    """
    require_above_zero(ra=ra, high=1.0 if math.isinf(high) else high)
    require_not_below_zero(low=low)
    scatter = math.log(constant("end.scatter").value)
    normal = NormalDist().cdf
    too_coarse = [0.0 if math.isinf(high) else normal(math.log(one / high) / scatter) for one in ra.tolist()]
    too_fine = [normal(math.log(low / one) / scatter) if low > 0 else 0.0 for one in ra.tolist()]
    return np.asarray(np.array(too_coarse) + np.array(too_fine))
