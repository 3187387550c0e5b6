"""What comes next at the bench if everything goes as planned: for a screen that has to do without its program for a while."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from kelbrast.core.bench.clock import Moment
from kelbrast.core.bench.events import Event
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
