"""The joint estimate of size and rate, updated by working and by reading (extended Kalman filter).

Sizes run towards the limit that must not be passed: the diameter of a bore, and of a shaft its diameter with the sign turned.
"""

import math
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero, require_numbers

_ROUNDS: Final = 60
_SETTLED: Final = 1e-5  # of a deviation
_LONGEST_STEP: Final = (15e-6, 1.0)  # of an iteration: m, and of the logarithm
_GRID: Final = np.linspace(-5.0, 5.0, 101)
_WEIGHTS: Final = np.exp(-0.5 * _GRID**2) / np.exp(-0.5 * _GRID**2).sum()
_LEAST, _MOST = 1e-2, 1e6  # s, between which a time is looked for


@dataclass(frozen=True, slots=True)
class Belief:
    """A Gaussian over size and the logarithm of its rate.

    Attributes:
        size: m.  log_rate: of m/s.  var_size, cov, var_log: m2, m, 1.
    """

    size: float
    log_rate: float
    var_size: float
    cov: float
    var_log: float

    @property
    def rate(self) -> float:
        """The likely rate on the diameter, m/s."""
        return math.exp(self.log_rate)

    @property
    def sd_size(self) -> float:
        return math.sqrt(self.var_size)

    def rate_between(self, deviations: float) -> tuple[float, float]:
        """The rate so many standard deviations below and above the likely one, m/s."""
        off = deviations * math.sqrt(self.var_log)
        return math.exp(self.log_rate - off), math.exp(self.log_rate + off)

    def at_least(self, sure: float) -> float:
        """The size that it has at least, so many standard deviations below, m."""
        return self.size - sure * self.sd_size


def drifted(known: Belief, *, drift: float) -> Belief:
    """The same before a further round: charge, pressure and wear are never quite those of the last.

    Equation: `v' = v + q^2` (1)
    Valid: drift not below 0.

    Args:
        known: size and rate.
        drift: q, standard deviation of the logarithm of the rate from round to round, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: kalman.

    >>> round(drifted(Belief(0.0, 0.0, 1e-12, 0.0, 0.49), drift=0.15).var_log, 4)
    0.5125
    """
    require_not_below_zero(drift=drift)
    return replace(known, var_log=known.var_log + drift**2)


def after_round(known: Belief, *, seconds: float, read: float, variance: float) -> Belief:
    """What is known after working so long and reading the size: an iterated extended Kalman step.

    Equation: `h = S + e^theta T`, `K = P H' / (H P H' + r)`, x = x0 + K (y - h(x) - H (x0 - x)) (m, 1)
    Valid: seconds not below 0, variance above 0, every value a number.

    Args:
        known: size and rate before, the drift of this round in it.
        seconds: T, worked, s.
        read: y, mean of the readings after it, m.
        variance: r, of that mean, m2.

    Raises:
        OutsideValidity: outside that.

    Source: kalman.

    >>> before = Belief(-20e-6, math.log(2.5e-6 / 60), 1e-12, 0.0, 0.5125)
    >>> after = after_round(before, seconds=180, read=-8e-6, variance=1e-12)
    >>> round(after.size * 1e6, 2), round(after.rate * 60e6, 2)
    (-8.08, 3.95)
    """
    require_not_below_zero(seconds=seconds)
    require_above_zero(variance=variance)
    require_numbers(read=read)
    prior = np.array([known.size, known.log_rate])
    spread = np.array([[known.var_size, known.cov], [known.cov, known.var_log]])
    at = _likeliest(prior, spread, seconds, read, variance)
    slopes = _slopes(at, seconds)
    gain = spread @ slopes / (slopes @ spread @ slopes + variance)
    kept = (np.eye(2) - np.outer(gain, slopes)) @ spread
    moved = np.array([[1.0, slopes[1]], [0.0, 1.0]])  # from the size before the round to that after it
    now = moved @ kept @ moved.T
    return Belief(_grown(at, seconds), float(at[1]), float(now[0, 0]), float(now[0, 1]), float(now[1, 1]))


def _likeliest(prior: Reals, spread: Reals, seconds: float, read: float, variance: float) -> Reals:
    """The size before and the rate that fit prior and reading best, by steps that are halved where they lead up."""
    weights = np.linalg.inv(spread)

    def misfit(at: Reals) -> float:
        return float((at - prior) @ weights @ (at - prior) + (read - _grown(at, seconds)) ** 2 / variance)

    at = prior.copy()
    for _ in range(_ROUNDS):
        slopes = _slopes(at, seconds)
        gain = spread @ slopes / (slopes @ spread @ slopes + variance)
        step = prior + gain * (read - _grown(at, seconds) - slopes @ (prior - at)) - at
        step = np.clip(step, [-one for one in _LONGEST_STEP], _LONGEST_STEP)
        while misfit(at + step) > misfit(at) and np.abs(step / np.sqrt(spread.diagonal())).max() > _SETTLED:
            step = step / 2
        at = at + step
        if np.abs(step / np.sqrt(spread.diagonal())).max() <= _SETTLED:
            break
    return at


def _slopes(at: Reals, seconds: float) -> Reals:
    return np.array([1.0, math.exp(at[1]) * seconds])


def _grown(at: Reals, seconds: float) -> float:
    return float(at[0] + math.exp(at[1]) * seconds)


def chance_past(known: Belief, *, seconds: float, limit: float) -> float:
    """The chance that working so long passes a limit.

    Equation: `P = E_x Phi((S + rho s x + e^(theta + t x) T - U) / (s sqrt(1 - rho^2)))`, x standard normal
        on a grid (dimensionless)
    Valid: seconds not below 0, the variances above 0.

    Args:
        known: size and rate.
        seconds: T, s.
        limit: U, with what the gauge may be off taken from it, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> known = Belief(-20e-6, math.log(2.5e-6 / 60), 1e-12, 0.0, 0.5125)
    >>> round(chance_past(known, seconds=180, limit=20e-6), 5)
    0.00968
    """
    require_not_below_zero(seconds=seconds)
    require_above_zero(var_size=known.var_size, var_log=known.var_log)
    require_numbers(limit=limit)
    sd, spread = known.sd_size, math.sqrt(known.var_log)
    rho = max(-0.999999, min(0.999999, known.cov / (sd * spread)))
    grown = np.exp(np.minimum(known.log_rate + spread * _GRID, 600.0)) * seconds
    over = (known.size + rho * sd * _GRID + grown - limit) / (sd * math.sqrt(1 - rho * rho))
    return float(_WEIGHTS @ _phi(over))


def _phi(z: Reals) -> Reals:
    return 0.5 * np.fromiter(map(math.erfc, (z * -math.sqrt(0.5)).tolist()), float, len(z))


def longest(known: Belief, *, limit: float, risk: float) -> float:
    """The longest work whose chance of passing the limit is bearable.

    Equation: `max T with P(T) <= alpha`, P as in `chance_past` (s)
    Valid: the risk between 0.0001 and 0.5.

    Args:
        known: size and rate.
        limit: U, as in `chance_past`, m.
        risk: alpha, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> known = Belief(-20e-6, math.log(2.5e-6 / 60), 1e-12, 0.0, 0.5125)
    >>> round(longest(known, limit=20e-6, risk=0.01) / 60, 3)
    3.028
    """
    if not 1e-4 <= risk <= 0.5:
        raise OutsideValidity("the risk must lie between 0.0001 and 0.5")
    require_numbers(limit=limit)
    low, high = _LEAST, _MOST
    if chance_past(known, seconds=low, limit=limit) > risk:
        return 0.0
    if chance_past(known, seconds=high, limit=limit) <= risk:
        return high
    while high > low * (1 + 1e-6):  # halved in ratios: it spans eight decades
        middle = math.sqrt(low * high)
        low, high = (middle, high) if chance_past(known, seconds=middle, limit=limit) <= risk else (low, middle)
    return low
