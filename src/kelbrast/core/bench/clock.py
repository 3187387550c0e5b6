"""Moments at the bench, so that a changed clock, a closed lid or a new start of the program lose no time."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime


@dataclass(frozen=True, slots=True)
class Moment:
    """A moment on two clocks.

    Attributes:
        at: seconds since 1970, UTC, by the wall clock, which people and time servers set.
        ticks: seconds by the machine's own clock, which nobody sets and which runs on while the lid is closed.
        boot: which start of the machine the ticks count from.
    """

    at: float
    ticks: float
    boot: str

    @property
    def when(self) -> datetime:
        return datetime.fromtimestamp(self.at, UTC)

    def earlier(self, seconds: float) -> "Moment":
        """So many seconds before."""
        return self.later(-seconds)

    def later(self, seconds: float) -> "Moment":
        """So many seconds after."""
        return replace(self, at=self.at + seconds, ticks=self.ticks + seconds)


Clock = Callable[[], Moment]


def elapsed(start: Moment, end: Moment) -> float:
    """Seconds between two moments, never below 0: by the machine's own clock where it can tell, else by the wall clock.

    >>> lid = Moment(100.0, 10.0, "a"), Moment(7300.0, 40.0, "a")   # the wall clock was put forward two hours
    >>> elapsed(*lid)
    30.0
    >>> elapsed(Moment(100.0, 10.0, "a"), Moment(160.0, 2.0, "b"))  # the machine was started again
    60.0
    """
    between = end.ticks - start.ticks if start.boot == end.boot else end.at - start.at
    return max(0.0, between)
