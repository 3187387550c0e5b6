"""The server is killed with -9 in the middle of a busy run: no tap that was answered is lost, and the run goes on."""

import random
import threading
import time
from pathlib import Path

import httpx

from attacking import many
from kelbrast.app.jobs import Jobs
from kelbrast.app.runs import Runs
from kelbrast.documents.job.read import check_job_file
from killable import Server

ROUNDS = many(2)


class Busy(threading.Thread):
    """A tablet in quick hands: it taps as soon as the last tap was answered, and remembers what was."""

    def __init__(self, address: str, run: int, prefix: str) -> None:
        super().__init__(daemon=True)
        self.run_id, self.address, self.prefix = run, address, prefix
        self.answered: list[tuple[str, int]] = []
        self.sent: list[str] = []

    def run(self) -> None:
        with httpx.Client(base_url=self.address, timeout=5) as http:
            try:
                told = http.get(f"/api/runs/{self.run_id}").json()
                while told["hand"] is not None:
                    hand = told["hand"]
                    at = {key: hand[key] for key in ("piece", "face", "route", "step")}
                    kind = ("gone" if random.random() < 0.6 else "paused") if hand["running"] else "started"
                    if hand["begun"] and not hand["running"]:
                        kind = "started"
                    name = f"{self.prefix}-{len(self.sent):06}"
                    self.sent.append(name)
                    body = {"tap": {"kind": kind, **at}, "name": name, "after": told["seen"]}
                    answer = http.post(f"/api/runs/{self.run_id}/taps", json=body)
                    assert answer.status_code == 200, answer.text
                    told = answer.json()
                    self.answered.append((name, told["seen"]))
            except httpx.TransportError:
                return  # the server is gone


def test_no_answered_tap_is_lost(tmp_path: Path, collar) -> None:
    database = tmp_path / "kept.sqlite"
    jobs = Jobs.open(database)
    job = jobs.add(check_job_file({**collar, "pieces": 60})).id
    runs = Runs(jobs)
    run = runs.begin(job).id
    chance = random.Random(17)
    answered: list[tuple[str, int]] = []
    sent: set[str] = set()
    for each in range(ROUNDS):
        server = Server(database)
        tablet = Busy(server.address, run, f"round{each}")
        tablet.start()
        while not tablet.answered and tablet.is_alive():
            time.sleep(0.01)
        time.sleep(chance.uniform(0.02, 0.9))
        server.kill()
        tablet.join()
        answered += tablet.answered
        sent |= set(tablet.sent)
        kept = runs.get(run)
        numbers = [event.number for event in kept.events]
        assert numbers == list(range(1, len(numbers) + 1))  # nothing half written, nothing twice
        assert kept.run.seen >= max(number for _, number in answered)
    assert len(answered) > 3 * ROUNDS
    with jobs.engine.connect() as raw:
        names = {row[0]: row[1] for row in raw.exec_driver_sql("select tap, number from run_events where run_id = ?", (run,))}
    assert all(names.get(name) == number for name, number in answered)
    assert set(names) <= sent  # and nothing that was never tapped
