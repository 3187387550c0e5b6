"""One job tells one total: list, plan, card, quote, schedule, bench and log, also halfway through a run and after going back."""

from typing import Any

import pytest
from starlette.testclient import TestClient

from kelbrast.core.wording import minutes_text
from kelbrast.demo.workshop import demo_jobs
from tapping import tap

SECOND = 1 / 60
HANDS_ON = ("cutting", "handling", "set_up", "before_after")


@pytest.fixture
def workshop(client: TestClient) -> TestClient:
    """All demo jobs, on the schedule."""
    for file in demo_jobs():
        ordered = file.model_copy(update={"state": "ordered"})
        client.post("/api/jobs", json=ordered.model_dump(mode="json", exclude_none=True))
    return client


def jobs_of(client: TestClient) -> dict[str, dict[str, Any]]:
    found = client.get("/api/jobs", params={"limit": 100}).json()["jobs"]
    return {job["title"]: job for job in found if job["state"] == "ready"}


def hands_on(account: dict[str, float]) -> float:
    return sum(account[line] for line in HANDS_ON)


def test_every_surface_tells_one_total_of_every_demo_job(workshop: TestClient) -> None:
    board = {job["title"]: job for job in workshop.get("/api/day").json()["board"]["jobs"]}
    jobs = jobs_of(workshop)
    assert len(jobs) > 8
    for title, job in jobs.items():
        plan = workshop.get(f"/api/jobs/{job['id']}/plan").json()
        total = plan["hands_on_minutes"]
        assert hands_on(plan["account"]) == pytest.approx(total, abs=SECOND)
        assert total + plan["account"]["waiting"] == pytest.approx(plan["start_to_finish_minutes"], abs=SECOND)
        each, lot = plan["account_each"], plan["account_lot"]
        summed = {line: plan["pieces"] * each[line] + len(plan["lots"]) * lot[line] for line in each}
        assert summed == pytest.approx(plan["account"], abs=SECOND)
        # By the steps and operations that a person sees.
        steps = [step for face in plan["faces"] for step in face["steps"]]
        cutting = plan["pieces"] * sum(step["cut_minutes"] for step in steps)
        handling = plan["pieces"] * sum(step["handling_minutes"] for step in steps)
        handling += len(plan["lots"]) * sum(step["lot_handling_minutes"] for step in steps)
        set_up = len(plan["lots"]) * sum(step["set_up_minutes"] for step in steps)
        around = [one for one in plan["operations"] if not one["counted"]]
        beside = sum(plan["pieces"] * one["minutes"] + len(plan["lots"]) * one["lot_minutes"] for one in around)
        assert cutting + handling + set_up + beside == pytest.approx(total, abs=SECOND), title
        assert job["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
        assert job["start_to_finish_minutes"] == pytest.approx(plan["start_to_finish_minutes"], abs=SECOND)
        card = workshop.get(f"/api/jobs/{job['id']}/card").json()
        assert f"Hands-on {minutes_text(total)}, allow up to {minutes_text(plan['hands_on_minutes_high'])}" in card["summary"]
        (price,) = workshop.get(f"/api/jobs/{job['id']}/quote", params={"pieces": plan["pieces"]}).json()["prices"]
        assert price["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
        assert price["hands_on_minutes_high"] == pytest.approx(plan["hands_on_minutes_high"], abs=SECOND)
        assert board[title]["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
        assert board[title]["lots"] == plan["lots"]
        run = workshop.post(f"/api/jobs/{job['id']}/runs").json()
        assert run["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
        assert run["left_minutes"] == pytest.approx(total, abs=SECOND)
        assert run["start_to_finish_minutes"] == pytest.approx(plan["start_to_finish_minutes"], abs=SECOND)
        line = workshop.get(f"/api/runs/{run['id']}/page").json()["line"]["figures"]
        assert line["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
        assert line["account"] == pytest.approx(plan["account"], abs=SECOND)


def test_halfway_and_after_going_back_the_total_is_what_was_planned_and_what_was_added(workshop: TestClient) -> None:
    job = jobs_of(workshop)["Keepers' name plates"]
    total = job["hands_on_minutes"]
    run = workshop.post(f"/api/jobs/{job['id']}/runs").json()
    left = [run["left_minutes"]]
    for _ in range(8):
        run = tap(workshop, tap(workshop, run, "started").json(), "gone").json()
        left.append(run["left_minutes"])
    assert run["hands_on_minutes"] == pytest.approx(total, abs=SECOND)
    assert left == sorted(left, reverse=True)
    assert left[-1] < total
    while run["hand"]["step"] < 2:
        run = tap(workshop, tap(workshop, run, "started").json(), "gone").json()
    run = tap(workshop, run, "started").json()
    back = workshop.get(f"/api/runs/{run['id']}/goback", params={"depth_um": 9}).json()["goback"]
    route = back[back["extent"]]["steps"]
    gone_back = tap(workshop, run, "back", depth_um=9.0, extent=back["extent"]).json()
    line = workshop.get(f"/api/runs/{run['id']}/page").json()["line"]["figures"]
    assert gone_back["hands_on_minutes"] == pytest.approx(line["hands_on_minutes"], abs=SECOND)
    assert hands_on(line["account"]) == pytest.approx(line["hands_on_minutes"], abs=SECOND)
    steps = [step for face in workshop.get(f"/api/jobs/{job['id']}/plan").json()["faces"] for step in face["steps"]]
    added = sum(step["minutes"] for step in route)
    # The steps that were left on this piece and face are not worked any more, and those of the way back are.
    dropped = sum(step["cut_minutes"] + step["handling_minutes"] for step in steps)
    assert total - dropped < gone_back["hands_on_minutes"] - added < total + SECOND


def test_the_log_holds_cutting_against_cutting_and_hands_on_against_hands_on(client: TestClient) -> None:
    file = next(file for file in demo_jobs() if file.title == "Barometer lens")
    job = client.post("/api/jobs", json=file.model_dump(mode="json", exclude_none=True)).json()["id"]
    run = client.post(f"/api/jobs/{job}/runs").json()
    while run["hand"] is not None:
        run = tap(client, tap(client, run, "started").json(), "gone").json()
    tap(client, run, "finished", well=True)
    figures = client.get(f"/api/runs/{run['id']}/page").json()["line"]["figures"]
    assert figures["minutes"] == pytest.approx(figures["spent"]["cutting"], abs=SECOND)
    assert figures["planned_minutes"] == pytest.approx(figures["account"]["cutting"], abs=SECOND)
    assert figures["spent_minutes"] == pytest.approx(hands_on(figures["spent"]), abs=SECOND)
    assert '"hands_on_minutes","spent_minutes"' in client.get("/api/log.csv").text.splitlines()[0]
