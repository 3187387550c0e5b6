"""What comes next at the bench, for a screen that works offline for a while, and the cost of the order of pieces and steps."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from kelbrast.core.bench.events import Event, Moment, Order, Stage
from kelbrast.core.bench.run import Run
from kelbrast.core.bench.taps import happen
from kelbrast.core.job import Job

STEPS_AHEAD: Final = 24


@dataclass(frozen=True, slots=True)
class Foreseen:
    """A run as it would stand after the step in hand, and when that would be."""

    run: Run
    at: Moment


def ahead(run: Run, job: Job, now: Moment, most: int = STEPS_AHEAD) -> Iterator[Foreseen]:
    """The states after each of the next steps, if each passes its light check when its planned time is over.

    It ends where the run has no more steps, where a gauge has to be read before it is known what comes next, or after so many.
    """
    for _ in range(most):
        if run.status != "open" or run.current is None:
            return
        piece, stage = run.current
        if job.face(stage.face).sized is not None:
            return
        left = max(0.0, stage.seconds + run.work(piece, stage).more - run.seconds_in_hand(now))
        if run.clock is None:
            run = happen(run, Event("started", run.seen + 1, now, piece, stage.key))
        now = now.later(left)
        run = happen(run, Event("gone", run.seen + 1, now, piece, stage.key))
        yield Foreseen(run, now)


@dataclass(frozen=True, slots=True)
class OrderCost:
    """What is left of a run in one order: wheels to put on, and seconds of setting up tools."""

    order: Order
    changes: int
    seconds: float


def left_in_order(run: Run, order: Order) -> list[tuple[int, Stage]]:
    """Every stage that is still open, in the order of work."""
    open_stages = [(piece, stage) for piece, stages in run.ahead.items() for stage in stages]
    if order == "step":
        return sorted(open_stages, key=lambda one: (one[1].place, one[0]))
    first = run.current[0] if run.current else None
    return sorted(open_stages, key=lambda one: (one[0] != first, one[0]))


def cost_of_order(run: Run, order: Order) -> OrderCost:
    """The changes from here on; what is in hand now is on the machine already.

    A wheel that comes twice in a row stays on, so working all pieces per step changes least.
    """
    changes, seconds = 0, 0.0
    on = run.current[1].tool if run.current is not None and run.begun else None
    for _, stage in left_in_order(run, order):
        if stage.tool != on:
            changes += stage.mounted
            seconds += stage.setup
        on = stage.tool
    return OrderCost(order, changes, seconds)
