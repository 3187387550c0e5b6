"""Days of the log are those of the shop, wherever on the earth it stands."""

import time
from collections.abc import Iterator
from datetime import UTC, datetime

import pytest

from kelbrast.app.clock import began, day_of
from kelbrast.app.runs import Runs
from kelbrast.core.bench.events import Moment


@pytest.fixture(params=["Pacific/Auckland", "America/Vancouver", "UTC"])
def zone(request, monkeypatch: pytest.MonkeyPatch) -> Iterator[str]:
    monkeypatch.setenv("TZ", request.param)
    time.tzset()
    yield request.param
    monkeypatch.undo()
    time.tzset()


def test_a_run_is_found_on_the_day_of_the_shop(client, collar, zone: str) -> None:
    # half past one in the morning by the clock on the wall: another day in UTC for most shops
    at = datetime(2026, 3, 14, 1, 30).astimezone()
    job = client.post("/api/jobs", json=collar).json()["id"]
    Runs(client.app.state.jobs, clock=lambda: Moment(at.timestamp(), 0.0, "test")).begin(job)

    def found(since: str, until: str) -> int:
        return client.get("/api/log", params={"since": since, "until": until}).json()["count"]

    assert found("2026-03-14", "2026-03-14") == 1
    assert found("2026-03-13", "2026-03-13") == found("2026-03-15", "2026-03-15") == 0
    assert found("0001-01-01", "9999-12-31") == 1


def test_a_day_begins_at_midnight_of_the_wall(zone: str) -> None:
    begins = began(datetime(2026, 6, 1).date())
    assert (begins.hour, begins.minute) == (0, 0)
    assert day_of(begins.astimezone(UTC)).isoformat() == "2026-06-01"
