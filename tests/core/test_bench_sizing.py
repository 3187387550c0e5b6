"""A run by the gauge: whatever the tools really take, the face is on size; readings, their places, going on to the finer lap."""

import itertools
import json
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from conftest import EXAMPLES
from kelbrast.app.planning import plan_file
from kelbrast.core.bench.events import Event, Measured, Moment
from kelbrast.core.bench.run import Run, begin
from kelbrast.core.bench.sizing import SizeAtBench, size_at_bench
from kelbrast.core.bench.taps import happen
from kelbrast.core.job import Job
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.surface.sized import Gauge
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.run.format import to_layout

UM = 1e-6


class Bench:
    """A bronze bush at the bench, with an invented part in the vice; taps are numbered and a second apart."""

    def __init__(self, times: float, *, read_before: bool = True, seed: int = 3, pieces: int = 1) -> None:
        document: dict[str, Any] = json.loads((EXAMPLES / "12-tide-gauge-bush.job.json").read_text())
        document["pieces"] = pieces
        self.hidden = Hidden(size=13.990e-3, oval=12 * UM, taper=2 * UM, rate=1.0, widest=1.0, drift=0.1, off=0.5 * UM)
        job = to_job(check_job_file(document))
        self.part = job.faces[0].sized.part
        self.specimen = Specimen(self.part, self.hidden, Gauge(1.5 * UM, 1 * UM), seed)
        fit = document["faces"][0]["fit"]
        fit["readings"] = [self._as_file(one) for one in self._read(PLACES)] if read_before else []
        file = check_job_file(document)
        self.job: Job = to_job(file)
        self.run: Run = begin(to_layout(self.job, plan_file(file)))
        self.times = times
        self.now = 1000.0
        self.number = itertools.count(1)

    def _read(self, places):
        return self.specimen.read(places)

    @staticmethod
    def _as_file(one) -> dict[str, float]:
        return {
            "z_mm": one.height * 1e3,
            "phi_deg": round(one.direction * 57.29577951308232, 6),
            "mm": round(one.diameter * 1e3, 4),
        }

    def tap(self, kind: Any, **more: Any) -> None:
        piece, stage = self.run.current
        event = Event(kind, next(self.number), Moment(self.now, self.now, "test"), piece, stage.key, **more)
        self.run = happen(self.run, event)

    def look(self) -> SizeAtBench:
        found = size_at_bench(self.run, self.job, Moment(self.now, self.now, "test"))
        assert found is not None, "this face is followed by the gauge"
        return found

    def work(self, seconds: float) -> None:
        _, stage = self.run.current
        self.specimen.hidden = replace(self.hidden, rate=self.times * 2 * stage.takes / stage.seconds)
        self.tap("started")
        self.now += seconds
        self.specimen.work(seconds)
        self.tap("paused")

    def read(self, places) -> None:
        for one in self._read(places):
            self.now += 5
            self.tap("measured", measured=Measured("size", one.diameter, height=one.height, angle=one.direction))

    def to_size(self) -> int:
        """Follow the gauge to the end of the face; how many rounds it took."""
        rounds = 0
        while self.run.current is not None and rounds < 30:
            known = self.look()
            if known.to_read:
                self.read(known.to_read)
                continue
            move = known.advice.move
            if move.action in ("finer", "stop"):
                self.tap("gone" if self.run.begun else "skipped", words="the gauge")
                continue
            assert move.action in ("lap", "short-strokes", "expand"), move.action
            rounds += 1
            self.work(move.seconds)
        return rounds


PLACES = tuple(
    (z, phi) for z in (0.0, -10.5e-3, 10.5e-3) for phi in (0.0, 0.7853981633974483, 1.5707963267948966, 2.356194490192345)
)


@pytest.mark.parametrize("times", [0.5, 1.0, 2.0])
@pytest.mark.parametrize("read_before", [True, False])
def test_a_face_is_on_size_whatever_the_laps_take(times: float, *, read_before: bool) -> None:
    bench = Bench(times, read_before=read_before)
    rounds = bench.to_size()
    assert bench.run.current is None
    assert bench.part.near <= bench.specimen.cut <= bench.part.far
    assert 2 <= rounds <= 12


@settings(max_examples=12)
@given(times=st.floats(0.5, 2.0), seed=st.integers(0, 10_000))
def test_never_past_the_limit(times: float, seed: int) -> None:
    bench = Bench(times, seed=seed)
    bench.to_size()
    assert bench.specimen.cut <= bench.part.far


def test_every_lap_of_the_route_is_worked_and_the_finer_one_takes_what_was_left_to_it() -> None:
    bench = Bench(1.0)
    bench.to_size()
    worked = {key[3]: work.seconds for key, work in bench.run.works.items()}
    assert len(worked) == 2
    assert all(seconds > 10 for seconds in worked.values())


def test_it_asks_for_twelve_readings_first_and_then_for_four() -> None:
    bench = Bench(1.0, read_before=False)
    known = bench.look()
    assert (len(known.to_read), known.read, known.advice) == (12, 0, None)
    bench.read(known.to_read[:5])
    assert (len(bench.look().to_read), bench.look().read) == (7, 5)
    bench.read(bench.look().to_read)
    assert bench.look().to_read == ()
    bench.work(60)
    known = bench.look()
    assert (len(known.to_read), known.read) == (4, 0)
    bench.read(known.to_read[:1])
    assert (len(bench.look().to_read), bench.look().read) == (3, 1)


def test_nothing_is_read_while_it_is_worked_and_a_reading_beside_the_plan_changes_nothing() -> None:
    bench = Bench(1.0)
    bench.tap("started")
    bench.now += 30
    assert bench.look().to_read == ()
    before = bench.look().advice.state.belief
    bench.tap("measured", measured=Measured("size", 14.1e-3, position="middle"))
    bench.tap("measured", measured=Measured("ra", 0.4e-6))
    assert bench.look().advice.state.belief == before


def test_the_next_piece_begins_with_readings_of_its_own() -> None:
    bench = Bench(1.0, pieces=2)
    bench.run = happen(bench.run, Event("picked", next(bench.number), Moment(bench.now, bench.now, "test"), 2))
    assert (len(bench.look().to_read), bench.look().advice) == (12, None)


def test_a_stand_in_reads_what_the_form_and_the_work_leave_to_expect() -> None:
    bench = Bench(1.0)
    known = bench.look()
    wide, narrow = (known.expected((0.0, 1.0 + turn)) for turn in (0.0, 1.5707963267948966))
    assert wide - narrow == pytest.approx(known.advice.state.oval, rel=0.2)
    assert known.expected((0.0, 0.0)) >= known.advice.state.belief.size


def test_a_face_without_a_size_is_not_followed() -> None:
    document = json.loads((EXAMPLES / "01-gallery-rail-collar.job.json").read_text())
    file = check_job_file(document)
    run = begin(to_layout(to_job(file), plan_file(file)))
    assert size_at_bench(run, to_job(file), Moment(0.0, 0.0, "test")) is None
