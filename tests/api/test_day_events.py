"""The owner's morning: six orders, one person ill, one urgent job at ten; a broken machine, slow work, no lacquer."""

from datetime import datetime, timedelta
from typing import Any

import pytest
from starlette.testclient import TestClient

from ahead import Ahead
from kelbrast.app import clock
from kelbrast.demo.workshop import demo_jobs

MORNING = datetime.now().replace(hour=8, minute=0, second=0, microsecond=0) + timedelta(days=1)
ORDERED = [
    "Barometer lens",
    "Lamp clock housing",
    "Fog gauge window",
    "Signal lamp cover",
    "Tide gauge bush",
    "Keepers' name plates",
]


def ordered(client: TestClient, monkeypatch: pytest.MonkeyPatch, hours: float) -> TestClient:
    """Six orders at eight in the morning: the first promised in so many hours, the others half an hour after each other."""
    shifted = Ahead(clock.time)
    shifted.by = MORNING.timestamp() - clock.time.time()
    monkeypatch.setattr(clock, "time", shifted)
    for at, title in enumerate(ORDERED):
        file = next(file for file in demo_jobs() if file.title == title)
        due = (MORNING + timedelta(hours=hours + at / 2)).astimezone()
        order = file.model_copy(update={"state": "ordered", "due": due, "pieces": 1})
        assert client.post("/api/jobs", json=order.model_dump(mode="json", exclude_none=True)).status_code == 201
    return client


@pytest.fixture
def shop(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> TestClient:
    """A morning on which every hour counts."""
    return ordered(client, monkeypatch, 1.5)


@pytest.fixture
def calm(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> TestClient:
    """The same with time to spare."""
    return ordered(client, monkeypatch, 7)


def board(client: TestClient) -> dict[str, Any]:
    return client.get("/api/day").json()


def late(told: dict[str, Any]) -> int:
    return sum(job["late_min"] for job in told["board"]["jobs"])


def places(told: dict[str, Any]) -> dict[str, tuple[int, str | None]]:
    return {one["key"]: (one["from_min"], one["person"]) for one in told["board"]["blocks"] if one["kind"] != "change"}


def test_somebody_is_ill_and_the_answer_says_first_what_it_does(shop: TestClient) -> None:
    before = board(shop)
    event = {"kind": "away", "person": "One"}
    said = shop.post("/api/day/try", json=event).json()
    assert board(shop)["board"]["blocks"] == before["board"]["blocks"], "nothing is changed by asking"
    assert said["possible"]
    assert {promise["title"] for promise in said["promises"]} == set(ORDERED)
    after = shop.post("/api/day/events", json=event).json()
    assert {one["person"] for one in after["board"]["blocks"] if one["day"] == 0} <= {"Two", None}
    assert {job["title"]: job["late_min"] for job in after["board"]["jobs"]} == {
        promise["title"]: promise["late_min"] for promise in said["promises"]
    }
    assert [one["said"] for one in after["events"]] == ["One is away"]
    back = shop.delete("/api/day/events/0").json()
    assert back["events"] == []
    assert late(back) == late(before)
    assert shop.delete("/api/day/events/0").status_code == 422


def test_an_urgent_job_goes_first_and_the_sentence_names_every_promise_that_changes(shop: TestClient) -> None:
    told = board(shop)
    ends: dict[str, int] = {}
    for block in told["board"]["blocks"]:
        ends[block["job"]] = max(ends.get(block["job"], 0), block["to_min"])
    last = max(ends, key=lambda title: ends[title])
    plates = next(int(job["id"]) for job in told["board"]["jobs"] if job["title"] == last)
    said = shop.post("/api/day/try", json={"kind": "urgent", "job": plates}).json()
    after = shop.post("/api/day/events", json={"kind": "urgent", "job": plates}).json()
    now = max(one["to_min"] for one in after["board"]["blocks"] if one["job"] == last)
    assert now < ends[last]
    job = next(job for job in after["board"]["jobs"] if job["title"] == last)
    assert job["due_min"] <= now  # as soon as it could be, or its promise
    was = {job["title"]: job["late_min"] for job in told["board"]["jobs"]}
    worse = [one["title"] for one in said["promises"] if one["late_min"] > was[one["title"]]]
    assert all(title in said["said"] for title in worse)
    assert worse or "Nothing" in said["said"]


def test_a_broken_machine_is_not_used_until_it_runs_again(shop: TestClient) -> None:
    told = board(shop)
    machine = next(one["machine"] for one in told["board"]["blocks"] if one["machine"])
    after = shop.post("/api/day/events", json={"kind": "broken", "machine": machine, "until_min": 240}).json()
    used = [one for one in after["board"]["blocks"] if one["machine"] == machine]
    assert used
    assert min(one["from_min"] for one in used) >= 240


def test_a_block_that_takes_twice_as_long_moves_few_others(calm: TestClient) -> None:
    told = board(calm)
    long = [one for one in told["board"]["blocks"] if one["kind"] == "work" and one["to_min"] - one["from_min"] >= 10]
    block = max(long, key=lambda one: one["from_min"])
    said = calm.post("/api/day/try", json={"kind": "longer", "block": block["key"]}).json()
    after = calm.post("/api/day/events", json={"kind": "longer", "block": block["key"]}).json()
    now = next(one for one in after["board"]["blocks"] if one["key"] == block["key"] and one["kind"] == "work")
    assert now["to_min"] - now["from_min"] == 2 * (block["to_min"] - block["from_min"])
    was, stands = places(told), places(after)
    moved = sum(stands[key] != was[key] for key in was)
    assert moved == said["moved"]
    assert all(stands[key] == was[key] for key in was if was[key][0] < block["to_min"]), "what comes before it stays"


def test_without_lacquer_nothing_is_lacquered(shop: TestClient) -> None:
    after = shop.post("/api/day/events", json={"kind": "out", "operation": "lacquer", "until_min": 420}).json()
    sprayed = [one for one in after["board"]["blocks"] if one["operation"] == "lacquer" and one["kind"] == "work"]
    assert sprayed
    assert min(one["from_min"] for one in sprayed) >= 420


def test_what_cannot_be_is_said_by_its_field(shop: TestClient) -> None:
    for event, field in (
        ({"kind": "away"}, "person"),
        ({"kind": "away", "person": "Nobody"}, "person"),
        ({"kind": "broken", "machine": "no-such"}, "machine"),
        ({"kind": "stays", "person": "One"}, "until_min"),
        ({"kind": "urgent", "job": 999}, "job"),
        ({"kind": "longer", "block": "x"}, "block"),
    ):
        answer = shop.post("/api/day/events", json=event)
        assert answer.status_code == 422, event
        assert answer.json()["faults"][0]["field"] == field


def test_a_late_promise_has_a_reason_and_cures_whose_results_hold(shop: TestClient) -> None:
    shop.post("/api/day/events", json={"kind": "away", "person": "One"})
    told = board(shop)
    worst = max(told["board"]["jobs"], key=lambda job: job["late_min"])
    assert worst["late_min"] > 0
    why = shop.get(f"/api/day/late/{worst['id']}").json()
    assert why["reason"]
    assert 1 <= len(why["cures"]) <= 3
    assert all(cure["late_min"] < late(told) for cure in why["cures"])
    assert [cure["late_min"] for cure in why["cures"][:-1]] == sorted(cure["late_min"] for cure in why["cures"][:-1])
    helps = next((cure for cure in why["cures"] if cure["event"]), None)
    assert helps is not None
    after = shop.post("/api/day/events", json=helps["event"]).json()
    assert late(after) <= helps["late_min"]
    assert shop.get("/api/day/late/999").status_code == 422
