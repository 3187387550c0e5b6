"""Mounting wheels on the spindles of a machine so that they are changed as seldom as possible."""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Mounting:
    """One use of a wheel: on which spindle (from 1), and whether it must be put on first."""

    wheel: str
    spindle: int
    mount: bool


def mountings(wheels: Sequence[str], *, spindles: int) -> tuple[Mounting, ...]:
    """Where each wheel of a sequence is mounted, with the fewest changes.

    When a spindle is needed, the wheel that is used again latest (or never) comes off: with the whole sequence known this
    is the best that can be done (Belady 1966, the optimal replacement).

    >>> [(one.wheel, one.spindle, one.mount) for one in mountings(["a", "b", "a", "c", "a"], spindles=2)]
    [('a', 1, True), ('b', 2, True), ('a', 1, False), ('c', 2, True), ('a', 1, False)]
    """
    on: dict[int, str] = {}
    found = []
    for at, wheel in enumerate(wheels):
        here = next((spindle for spindle, mounted in on.items() if mounted == wheel), None)
        if here is None:
            free = next((spindle for spindle in range(1, spindles + 1) if spindle not in on), None)
            spindle = free if free is not None else max(on, key=lambda spindle: _next_use(wheels, at, on[spindle]))
            on[spindle] = wheel
            found.append(Mounting(wheel, spindle, True))
        else:
            found.append(Mounting(wheel, here, False))
    return tuple(found)


def _next_use(wheels: Sequence[str], at: int, wheel: str) -> int:
    return next((later for later in range(at + 1, len(wheels)) if wheels[later] == wheel), len(wheels))
