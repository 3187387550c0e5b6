"""Chooses one option per group when options share fixed charges: exact, by label setting.

A label is a choice for the first groups, with what it has paid so far and which charges are paid. It is dropped when another
is no dearer even after paying for all that the first has paid and it has not, or when its own cost and the least that the other
groups can cost are more than a choice that is known already.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from kelbrast.core.planning.kernel.step_table import ROUNDING_SLACK

Cost = tuple[float, float]
"""What is to be least, and what decides between equals."""
EXACT: Final = 12
"""Up to so many groups the best is found for certain."""
_BEAM: Final = 400  # labels kept beyond that


@dataclass(frozen=True, slots=True)
class Option:
    """What an option costs by itself, and the charges that it needs, as bits."""

    own: Cost
    charges: int


@dataclass(frozen=True, slots=True)
class ChosenTogether:
    """The option chosen in each group, and what all cost together.

    Attributes:
        bound: no choice costs less.  exact: this is the best, for certain.
    """

    picks: tuple[int, ...]
    total: Cost
    bound: float
    exact: bool


@dataclass(frozen=True, slots=True)
class _Label:
    paid: Cost
    charges: int
    picks: tuple[int, ...]


def choose_together(groups: Sequence[Sequence[Option]], prices: Sequence[Cost]) -> ChosenTogether:
    """The cheapest choice of one option in each group.

    Args:
        groups: their options; of each the first is known to be good.
        prices: of the charges, by the number of their bit.
    """
    price = lru_cache(maxsize=None)(lambda charges: _price(charges, prices))
    least_ahead = [0.0]
    for options in reversed(groups):
        least_ahead.append(least_ahead[-1] + min(option.own[0] for option in options))
    least_ahead.reverse()

    def more(label: _Label, at: int, option: Option) -> _Label:
        new = price(option.charges & ~label.charges)
        paid = label.paid[0] + option.own[0] + new[0], label.paid[1] + option.own[1] + new[1]
        return _Label(paid, label.charges | option.charges, (*label.picks, at))

    known = _Label((0.0, 0.0), 0, ())
    for options in groups:
        known = more(known, 0, options[0])
    most = known.paid[0] * ROUNDING_SLACK
    labels, exact = [_Label((0.0, 0.0), 0, ())], True
    for number, options in enumerate(groups, start=1):
        grown = sorted(
            (more(label, at, option) for label in labels for at, option in enumerate(options)), key=lambda label: label.paid
        )
        labels = []
        for label in grown:
            if label.paid[0] + least_ahead[number] > most:
                break
            if not any(_no_dearer(one.paid, price(label.charges & ~one.charges), label.paid) for one in labels):
                labels.append(label)
        if len(groups) > EXACT and len(labels) > _BEAM:
            labels, exact = labels[:_BEAM], False
    best = min((*labels, known), key=lambda label: label.paid)
    return ChosenTogether(best.picks, best.paid, best.paid[0] if exact else _bound(groups, prices), exact)


def _no_dearer(paid: Cost, missing: Cost, other: Cost) -> bool:
    """Whether one label stays no dearer after paying for what only the other has paid."""
    first = paid[0] + missing[0]
    if first < other[0] / ROUNDING_SLACK:
        return True
    return first <= other[0] * ROUNDING_SLACK and paid[1] + missing[1] <= other[1] * ROUNDING_SLACK


def _bound(groups: Sequence[Sequence[Option]], prices: Sequence[Cost]) -> float:
    """No choice costs less: every charge is shared out over the groups that could need it."""
    users = [sum(any(option.charges >> bit & 1 for option in options) for options in groups) for bit in range(len(prices))]
    shared = [(cost / max(1, count), 0.0) for (cost, _), count in zip(prices, users, strict=True)]
    return sum(min(option.own[0] + _price(option.charges, shared)[0] for option in options) for options in groups)


def _price(charges: int, prices: Sequence[Cost]) -> Cost:
    first = second = 0.0
    while charges:
        cost = prices[_lowest(charges)]
        first, second = first + cost[0], second + cost[1]
        charges &= charges - 1
    return first, second


def _lowest(charges: int) -> int:
    """The number of the lowest bit; -1 for none."""
    return (charges & -charges).bit_length() - 1
