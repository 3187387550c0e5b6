"""What a screen is told ahead is what the bench then shows; taps that waited are kept in order, each after its own one before."""

from typing import Any

import pytest
from starlette.testclient import TestClient

from demo_workshop import demo_workshop
from kelbrast.api.application import create_app
from kelbrast.core.bench.expected import STEPS_AHEAD
from tapping import tap


def step(run: dict[str, Any]) -> tuple[Any, ...] | None:
    hand = run["hand"]
    return hand and tuple(hand[key] for key in ("piece", "face", "route", "step", "of", "planned_s", "begun", "running"))


@pytest.fixture(scope="module")
def workshop(tmp_path_factory: pytest.TempPathFactory) -> TestClient:
    jobs = demo_workshop(tmp_path_factory.mktemp("demo") / "demo.sqlite")
    return TestClient(create_app(jobs, web=None), base_url="http://127.0.0.1")


@pytest.mark.parametrize("title", ["Keepers' name plates", "Barometer lens", "Lamp clock housing", "Tide gauge spindle"])
def test_the_bench_then_shows_what_was_told_ahead(workshop: TestClient, title: str) -> None:
    job = next(one for one in workshop.get("/api/jobs").json()["jobs"] if one["title"] == title)
    run = workshop.post(f"/api/jobs/{job['id']}/runs").json()
    told = workshop.get(f"/api/runs/{run['id']}/ahead").json()
    assert told["seen"] == run["seen"]
    assert 1 <= len(told["runs"]) <= STEPS_AHEAD
    for foreseen in told["runs"]:
        run = tap(workshop, tap(workshop, run, "started").json(), "gone").json()
        assert step(foreseen) == step(run)
        assert [(one["state"], one["tool"]) for one in foreseen["strip"]] == [
            (one["state"], one["tool"]) for one in run["strip"]
        ]
        assert [one["done"] for one in foreseen["each"]] == [one["done"] for one in run["each"]]
    sized = run["hand"] is not None and run["hand"]["size"] is not None
    assert run["hand"] is None or sized or len(told["runs"]) == STEPS_AHEAD


def test_a_clock_that_runs_is_part_of_it_and_nothing_is_kept(client: TestClient, collar: dict[str, Any]) -> None:
    job = client.post("/api/jobs", json=collar).json()["id"]
    run = tap(client, client.post(f"/api/jobs/{job}/runs").json(), "started").json()
    first = client.get(f"/api/runs/{run['id']}/ahead").json()["runs"][0]
    assert first["hand"]["begun"] is False
    assert first["each"][0]["done"] == 1
    assert client.get(f"/api/runs/{run['id']}").json()["seen"] == 1


def test_where_a_gauge_decides_nothing_is_told_ahead(workshop: TestClient) -> None:
    job = next(one for one in workshop.get("/api/jobs").json()["jobs"] if one["title"] == "Tide gauge bush")
    run = workshop.post(f"/api/jobs/{job['id']}/runs").json()
    assert run["hand"]["size"] is not None
    assert workshop.get(f"/api/runs/{run['id']}/ahead").json()["runs"] == []


def test_taps_that_waited_follow_their_own_one_before(client: TestClient, collar: dict[str, Any]) -> None:
    job = client.post("/api/jobs", json={**collar, "pieces": 3}).json()["id"]
    run = client.post(f"/api/jobs/{job}/runs").json()
    at = {key: run["hand"][key] for key in ("piece", "face", "route", "step")}

    def send(kind: str, name: str, **more: Any):
        body = {"tap": {"kind": kind, **(at if kind != "note" else {"words": "dry"})}, "name": name, "after": 0, **more}
        return client.post(f"/api/runs/{run['id']}/taps", json=body)

    assert send("started", "tap-one-1").status_code == 200
    other = send("note", "tap-other-1")  # another screen writes something: that contradicts nothing
    assert other.json()["seen"] == 2
    assert send("gone", "tap-two-2", after_tap="tap-one-1").status_code == 200
    assert send("gone", "tap-two-2", after_tap="tap-one-1").json()["seen"] == 3  # sent twice, kept once
    at = {**at, "piece": 2}
    assert send("started", "tap-three-3", after_tap="tap-never").status_code == 412
    assert send("started", "tap-three-3", after_tap="tap-one-1").status_code == 412  # "gone" has happened since
    assert send("started", "tap-three-3", after_tap="tap-two-2").status_code == 200
    assert send("paused", "tap-four-4", after=99).status_code == 412
