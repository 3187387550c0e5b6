"""Runs for tests, in a line."""

from itertools import count
from typing import Any

from kelbrast.core.bench.events import Event, Moment, Stage
from kelbrast.core.bench.run import Layout, Run, begin
from kelbrast.core.bench.taps import happen


def stage(face: str = "barrel", step: int = 1, tool: str = "paper-p240", **more: Any) -> Stage:
    figures = {"route": 0, "turn": 1, "leaves": 10e-6 / step, "takes": 20e-6, "seconds": 60.0, "setup": 30.0, "mounted": True}
    return Stage(face=face, step=step, tool=tool, **{**figures, **more})


LAYOUT = Layout(
    3,
    (
        stage(step=1, tool="flap-p180", worn=0.5, change_after=120.0),
        stage(step=2, tool="sewn-tripoli", worn=0.1),
        stage("flange", step=1, tool="flap-p180", worn=0.25, change_after=120.0),
    ),
    ("inspect", "wax"),
)


class Bench:
    """Taps one after the other, a second apart unless told otherwise."""

    def __init__(self, layout: Layout = LAYOUT) -> None:
        self.run: Run = begin(layout)
        self.events: list[Event] = []
        self.now = 0.0
        self._numbers = count(1)

    def tap(self, kind: str, after: float = 1.0, **more: Any) -> Run:
        self.now += after
        if kind in ("started", "paused", "gone", "more", "back", "accepted", "skipped") and "stage" not in more:
            assert self.run.current is not None
            more = {"piece": self.run.current[0], "stage": self.run.current[1].key, **more}
        event = Event(kind, next(self._numbers), Moment(self.now, self.now, "test"), **more)
        self.run = happen(self.run, event)
        self.events.append(event)
        return self.run

    def do(self, seconds: float) -> Run:
        """Start the step in hand and find it done after so many seconds."""
        self.tap("started")
        return self.tap("gone", after=seconds)
