"""Timings of the log and the bench with a hundred thousand events, for `make bench`."""

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from sqlalchemy import insert, select
from sqlalchemy.orm import Session
from starlette.testclient import TestClient

from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs
from kelbrast.app.learnt import Learning
from kelbrast.app.runs import Runs
from kelbrast.demo.past import PastRun, events_of
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.run.format import TapFile
from kelbrast.storage.tables import ObservationRow, RunEventRow, RunRow, RunStepRow

Row = tuple[str, str, str]
RUNS = 1000
OUR_TABLES = (RunEventRow, RunStepRow, ObservationRow)


def the_log(median_ms: Callable[..., float]) -> list[Row]:
    with tempfile.TemporaryDirectory() as folder:
        jobs = Jobs.open(Path(folder) / "log.sqlite")
        runs = Runs(jobs)
        collar = next(file for file in demo_jobs() if file.title == "Gallery rail collar")
        job = jobs.add(collar.model_copy(update={"pieces": 7})).id
        past = PastRun(collar.title, 30, 1.0, True, "north stair", "haze", "new cloth")
        first = runs.take_in(job, lambda file, plan: events_of(past, file, plan, {}, time.time(), 1)).id
        events = _copy(jobs, first, RUNS - 1)
        client = TestClient(create_app(jobs, web=None), base_url="http://127.0.0.1")
        # A learning that has seen nothing yet each time, as after a new start.
        learn = median_ms(lambda: Learning(jobs.engine).learnt(), 5)
        rows = [
            ("open the log", f"{_page(client, median_ms, ''):.0f} ms", f"{RUNS} runs, {events} events, HTTP in process"),
            ("search it by words", f"{_page(client, median_ms, '?text=north+stair'):.0f} ms", ""),
            ("search it by tool", f"{_page(client, median_ms, '?tool=felt-white'):.0f} ms", ""),
            ("the page of one run", f"{median_ms(lambda: client.get(f'/api/runs/{first}/page'), 10):.0f} ms", ""),
            ("learn from all of it", f"{learn:.0f} ms", "after a new start; otherwise kept"),
        ]
        return [*rows, *_taps(jobs, runs, collar)]


def _page(client: TestClient, median_ms: Callable[..., float], query: str) -> float:
    def ask() -> None:
        assert client.get(f"/api/log{query}").status_code == 200

    return median_ms(ask, 15)


def _copy(jobs: Jobs, run_id: int, times: int) -> int:
    """So many copies of a run with all that belongs to it. Returns how many events there are then."""
    with Session(jobs.engine) as session, session.begin():
        run = _row(session.get(RunRow, run_id))
        mine = {
            table: [_row(one) for one in session.scalars(select(table).where(table.run_id == run_id))] for table in OUR_TABLES
        }
        ids = range(run_id + 1, run_id + 1 + times)
        session.execute(insert(RunRow), [{**run, "id": one} for one in ids])
        for table, rows in mine.items():
            bare = [{key: value for key, value in row.items() if key != "id"} for row in rows]
            session.execute(insert(table), [{**row, "run_id": one} for one in ids for row in bare])
        return (times + 1) * len(mine[RunEventRow])


def _row(row: object) -> dict[str, object]:
    return {column.name: getattr(row, column.name) for column in row.__table__.columns}


def _taps(jobs: Jobs, runs: Runs, collar: object) -> list[Row]:
    """What a tap takes at the beginning of a run and deep in a large batch."""
    job = jobs.add(collar.model_copy(update={"pieces": 60})).id
    kept = runs.begin(job)
    taken: list[float] = []
    for number in range(600):
        assert kept.run.current is not None
        piece, stage = kept.run.current
        kind = "gone" if kept.run.begun else "started"
        tap = TapFile(kind=kind, piece=piece, face=stage.face, route=stage.route, step=stage.step)
        begun = time.perf_counter()
        kept = runs.tap(kept.id, tap, name=f"tap-{number:06}", after=kept.run.seen)
        taken.append((time.perf_counter() - begun) * 1000)
    early, late = statistics.median(taken[:50]), statistics.median(taken[-50:])
    return [("keep a tap", f"{early:.0f} ms", f"{late:.0f} ms after 600 of them in one run; on the disk when it is answered")]
