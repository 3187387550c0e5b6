"""Many screens for a while, with the schedule open; a log of years; ended by SIGTERM in the middle of new tables."""

import os
import signal
import sqlite3
import threading
import time
from pathlib import Path
from typing import Any

import httpx
import psutil
import pytest
from starlette.testclient import TestClient

from attacking import SOAK, chance, many
from demo_workshop import demo_workshop
from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import StoreTrouble
from kelbrast.storage.database import make_tables
from serving import serve

CLIENTS = 20 if SOAK else 6
SECONDS = 300.0 if SOAK else 2.0


class Screen(threading.Thread):
    """One that looks at the schedule and taps notes at its run, again and again."""

    def __init__(self, address: str, run: int, number: int) -> None:
        super().__init__(daemon=True)
        self.address, self.run_id, self.number = address, run, number
        self.took: list[tuple[str, float]] = []
        self.wrong: list[str] = []
        self.kept = 0

    def run(self) -> None:
        ends = time.monotonic() + SECONDS
        with httpx.Client(base_url=self.address, timeout=60) as client:
            while time.monotonic() < ends:
                body = {"tap": {"kind": "note", "words": "x"}, "name": f"tap-{self.number:03d}-{self.kept:06d}", "after": 0}
                self.asked("tap", client.post(f"/api/runs/{self.run_id}/taps", json=body))
                self.kept += 1
                for address in ("/api/day", "/api/jobs", f"/api/runs/{self.run_id}"):
                    self.asked(address, client.get(address))

    def asked(self, what: str, answer: httpx.Response) -> None:
        self.took.append((what, answer.elapsed.total_seconds()))
        if answer.status_code >= 400:
            self.wrong.append(f"{what}: {answer.status_code} {answer.text[:120]}")


def test_many_screens_with_the_schedule_open(tmp_path: Path) -> None:
    demo_workshop(tmp_path / "kept.sqlite").close()
    served = serve(tmp_path / "kept.sqlite", demo=True)
    try:
        with httpx.Client(base_url=served.address, timeout=60) as client:
            ordered = client.get("/api/jobs", params={"state": "ordered"}).json()["jobs"]
            run = client.post(f"/api/jobs/{ordered[0]['id']}/runs").json()["id"]
            before = psutil.Process().memory_info().rss
            screens = [Screen(served.address, run, number) for number in range(CLIENTS)]
            for one in screens:
                one.start()
            for one in screens:
                one.join(SECONDS + 60)
            kept = client.get(f"/api/runs/{run}").json()["seen"]
        assert [wrong for screen in screens for wrong in screen.wrong] == []
        assert kept == sum(screen.kept for screen in screens)  # every answered tap is there, each once
        for what in ("tap", "/api/day", "/api/jobs"):
            took = sorted(seconds for screen in screens for name, seconds in screen.took if name == what)
            print(
                f"{what}: {len(took)} answers, half within {took[len(took) // 2]:.3f} s, 95 % within {took[len(took) * 95 // 100]:.3f} s"
            )
        print(f"memory: {(psutil.Process().memory_info().rss - before) / 1e6:.0f} MB more")
    finally:
        served.stop()


@pytest.mark.soak
def test_a_log_of_years_is_searched_and_paged(tmp_path: Path) -> None:
    runs = 100_000 if SOAK else many(600)
    jobs = demo_workshop(tmp_path / "kept.sqlite", with_past=True)
    there = TestClient(create_app(jobs, web=None), base_url="http://127.0.0.1")
    few = there.get("/api/log").json()["count"]
    with sqlite3.connect(jobs.engine.url.database or "") as raw:
        names = [row[1] for row in raw.execute("pragma table_info(runs)") if row[1] != "id"]
        first = raw.execute(f"select {', '.join(names)} from runs where status = 'finished' limit 1").fetchone()
        raw.executemany(
            f"insert into runs ({', '.join(names)}) values ({', '.join('?' * len(names))})",
            (
                [f"Run {at}" if name == "title" else value for name, value in zip(names, first, strict=True)]
                for at in range(runs)
            ),
        )
    raw.close()
    told = there.get("/api/log").json()
    assert told["count"] == few + runs
    assert there.get("/api/log", params={"words": f"Run {runs - 1}"}).json()["count"] >= 1
    for address in ("/api/jobs", "/api/upkeep", "/api/learning", "/api/health", "/api/day", "/api/log"):
        assert there.get(address).status_code == 200, address


def test_sigterm_in_the_middle_of_new_tables_leaves_them_as_they_were(tmp_path: Path) -> None:
    luck = chance("sigterm")
    old = tmp_path / "old.sqlite"
    make_tables(old, "0010")
    whole = old.read_bytes()
    for at in range(many(1)):
        path = tmp_path / f"{at}.sqlite"
        path.write_bytes(whole)
        child = os.fork()
        if child == 0:
            try:
                Jobs.open(path).close()
            finally:
                os._exit(0)
        time.sleep(luck.uniform(0.0, 0.4))
        os.kill(child, signal.SIGTERM)
        os.waitpid(child, 0)
        try:
            Jobs.open(path).close()
        except StoreTrouble as trouble:
            raise AssertionError(str(trouble)) from None
        copies: list[Any] = list(tmp_path.glob(f"{at}-before-*.sqlite"))
        assert len(copies) <= 1
