"""Abrasives die: the cutting rate falls as exp(-t / life), and a dead one is changed when that pays."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

from kelbrast.core.errors import OutsideValidity


@dataclass(frozen=True, slots=True)
class Cutting:
    """Time on the work (s), and how many abrasives were started."""

    seconds: float
    used: int


_DEAREST: Final = 1e12  # of the life; beyond it the equation has no answer in these numbers


@cache
def change_after(*, life: float, change_cost: float) -> float:
    """When to change a dying abrasive so that the work done per cost is greatest.

    Cutting for T gives `life (1 - exp(-T / life))` of fresh cutting and costs `T + change_cost`, so the best
    x = T / life solves `exp(x) = 1 + x + change_cost / life`.

    Args:
        life: e-folding time of the cutting rate, s.
        change_cost: what a change costs in seconds: the time itself and the price of the abrasive as bench time.

    Returns:
        seconds of cutting before the change.

    >>> round(change_after(life=240.0, change_cost=120.0))  # half a life of change cost: about seven eighths of a life
    206
    """
    if not (0 < life < math.inf and 0 < change_cost < math.inf):
        raise OutsideValidity("life and change cost must be above 0, and numbers")
    share = change_cost / life
    if share > _DEAREST:
        raise OutsideValidity("a change that costs as much as this against the life of the abrasive is none")
    low, high = 0.0, math.log1p(share) + 2.0
    while math.exp(high) < 1 + high + share:
        high *= 2
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if math.exp(middle) < 1 + middle + share else (low, middle)
    return high * life


def cutting(*, fresh: float, life: float | None, change_cost: float) -> Cutting:
    """Time to do what a never-dulling abrasive would do in `fresh` seconds.

    >>> cutting(fresh=100.0, life=None, change_cost=30.0)
    Cutting(seconds=100.0, used=1)
    >>> cutting(fresh=100.0, life=240.0, change_cost=120.0).seconds > 100
    True
    """
    if fresh < 0:
        raise OutsideValidity("cutting time can not be below 0")
    if life is None:
        return Cutting(fresh, 1)
    stay = change_after(life=life, change_cost=change_cost)
    each = life * -math.expm1(-stay / life)
    full = max(0, math.ceil(fresh / each - 1e-9) - 1)
    rest = min(fresh - full * each, each)
    return Cutting(full * stay - life * math.log1p(-rest / life), full + 1)


def share_done(*, seconds: float, fresh: float, life: float | None, change_cost: float) -> float:
    """Share of the step's layer gone after so many seconds of cutting (0 to 1)."""
    if fresh <= 0:
        return 1.0
    stay = None if life is None else change_after(life=life, change_cost=change_cost)
    return min(1.0, fresh_in(seconds=seconds, life=life, stay=stay) / fresh)


def fresh_in(*, seconds: float, life: float | None, stay: float | None) -> float:
    """Seconds of fresh cutting that so many seconds on the work are worth, with a new abrasive after every `stay`.

    >>> fresh_in(seconds=90.0, life=None, stay=None)
    90.0
    >>> fresh_in(seconds=240.0, life=240.0, stay=240.0) < 240.0
    True
    """
    if life is None or stay is None:
        return seconds
    full, rest = divmod(seconds, stay)
    return full * life * -math.expm1(-stay / life) + life * -math.expm1(-rest / life)
