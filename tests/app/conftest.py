"""A shop with the collar job planned from its own rack, and clocks that stand until they are told to go on."""

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pytest

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.jobs import Jobs
from kelbrast.app.runs import Runs
from kelbrast.core.bench.events import Moment
from kelbrast.documents.job.read import check_job_file
from kelbrast.documents.run.format import TapFile

WORK = ("started", "paused", "gone", "more", "back", "accepted", "skipped")


@dataclass
class Shop:
    """Runs with a clock in the hand, and taps that name the step in hand by themselves."""

    jobs: Jobs
    at: float = 1_780_000_000.0
    ticks: float = 1000.0
    boot: str = "first"
    runs: Runs = field(init=False)
    kept: KeptRun = field(init=False)
    _taps: int = 0

    def __post_init__(self) -> None:
        self.runs = Runs(self.jobs, clock=lambda: Moment(self.at, self.ticks, self.boot))

    def wait(self, seconds: float) -> None:
        self.at += seconds
        self.ticks += seconds

    def begin(self, job_id: int) -> KeptRun:
        self.kept = self.runs.begin(job_id)
        return self.kept

    def tap(self, kind: str, *, after: int | None = None, name: str | None = None, age: float = 0.0, **more: Any) -> KeptRun:
        if kind in WORK and self.kept.run.current is not None:
            piece, stage = self.kept.run.current
            more = {"piece": piece, "face": stage.face, "route": stage.route, "step": stage.step, **more}
        self._taps += 1
        tap = TapFile.model_validate({"kind": kind, **more})
        seen = self.kept.run.seen if after is None else after
        self.kept = self.runs.tap(self.kept.id, tap, name=name or f"tap-{self._taps:06}", after=seen, age=age)
        return self.kept

    def do(self, seconds: float) -> KeptRun:
        self.tap("started")
        self.wait(seconds)
        return self.tap("gone")

    def finish(self, pace: float = 1.0, *, well: bool = True) -> KeptRun:
        """Every step that is left, at this pace against the plan."""
        while self.kept.run.current is not None:
            self.do(pace * self.kept.run.current[1].seconds)
        return self.tap("finished", well=well)


@pytest.fixture
def jobs(tmp_path: Path) -> Jobs:
    return Jobs.open(tmp_path / "kept.sqlite")


@pytest.fixture
def shop(jobs: Jobs) -> Shop:
    return Shop(jobs)


@pytest.fixture
def keep(shop: Shop, collar: dict[str, Any]) -> Callable[..., int]:
    """Keep the collar job, changed as told; returns its id."""

    def kept(**more: Any) -> int:
        return shop.jobs.add(check_job_file({**collar, **more})).id

    return kept
