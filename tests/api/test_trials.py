"""The trial piece over the API: how to make one, what it says, and that plans and learning go on from it."""

import json
from pathlib import Path
from typing import Any

from starlette.testclient import TestClient

EXAMPLE = json.loads((Path(__file__).parents[2] / "examples" / "01-gallery-rail-collar.job.json").read_text())
TOOL = "sisal-tripoli"


def trial(client: TestClient, looks: list[tuple[float, str]], **more: Any) -> dict[str, Any]:
    made = client.post("/api/trials/set", json={"tool": TOOL, "material": "naval-brass"}).json()
    seen = [{"seconds": seconds, "seen": what} for seconds, what in looks]
    square = {key: made[key] for key in ("tool", "material", "grade", "side_mm")}
    return {**square, "seconds": looks[-1][0] if looks else 60, "looks": seen, **more}


def minutes_by(client: TestClient, plan: dict[str, Any]) -> list[tuple[str, float]]:
    faces = client.post("/api/plan", json=plan).json()["faces"]
    return [(step["tool"], step["minutes"]) for face in faces for step in face["steps"]]


def test_a_slow_wheel_is_tried_accepted_planned_with_and_forgotten(client: TestClient) -> None:
    plan = {**EXAMPLE, "use_rack": "catalogue"}
    before = minutes_by(client, plan)
    assert any(tool == TOOL for tool, _ in before)
    made = client.post("/api/trials/set", json={"tool": TOOL, "material": "naval-brass"}).json()
    assert any("glasses" in caution for caution in made["cautions"])
    slow = [(made["expected_s"], "still"), (2.5 * made["expected_s"], "gone")]
    said = client.post("/api/trials/answer", json=trial(client, slow)).json()
    rate = said["removal_um_min"]
    assert rate["low"] < rate["likely"] < rate["high"] < rate["tables"]
    accepted = client.post("/api/trials", json=trial(client, slow))
    assert accepted.status_code == 201
    (learnt,) = client.get("/api/learning").json()["learnt"]
    assert (learnt["carrier"], learnt["tried"], learnt["runs"], learnt["used"]) == ("sisal", True, 0, True)
    assert learnt["factor"] == round(rate["factor"], 3)
    slower = dict(minutes_by(client, plan))
    assert all(slower.get(tool, minutes + 1) > minutes for tool, minutes in before if tool == TOOL)  # left, or it takes longer
    assert [one["label"] for one in client.get("/api/trials").json()] == [made["label"]]
    assert client.delete(f"/api/trials/{accepted.json()['id']}").status_code == 204
    assert minutes_by(client, plan) == before


def test_what_is_measured_counts_and_stand_ins_do_not(client: TestClient) -> None:
    looks = [(60.0, "half"), (120.0, "gone")]
    seen = client.post("/api/trials/answer", json=trial(client, looks)).json()["removal_um_min"]
    square = {key: value for key, value in trial(client, looks).items() if key in ("tool", "material", "grade", "side_mm")}
    before = client.post("/api/trials/readings/balance", json=square).json()
    after = client.post("/api/trials/readings/balance", json={**square, "seconds": 120, "before": before["value"]}).json()
    assert before["simulated"] is True
    assert after["value"] <= before["value"] + 0.05
    weighed = trial(client, looks, weighed={"before_g": 210.0, "after_g": 209.9}, simulated=True)
    said = client.post("/api/trials/answer", json=weighed).json()
    assert said["removal_um_min"]["high"] / said["removal_um_min"]["low"] < seen["high"] / seen["low"]
    assert said["usable"] is False
    refused = client.post("/api/trials", json=weighed)
    assert (refused.status_code, "stand-ins" in refused.json()["detail"]) == (422, True)
    places = trial(client, looks, measured={"before_mm": [3, 3, 3], "after_mm": [2.99, 2.99]})
    assert "3 readings" in client.post("/api/trials/answer", json=places).json()["detail"]
    heavier = trial(client, looks, weighed={"before_g": 209.9, "after_g": 210.0})
    assert "before the work" in client.post("/api/trials/answer", json=heavier).json()["detail"]
    other = client.post("/api/trials/readings/gloss-meter", json=square)
    assert (other.status_code, "balance" in other.json()["detail"]) == (422, True)
    wrong = client.post("/api/trials/set", json={"tool": "nonwoven-wheel-fine", "material": "glass"})
    assert wrong.status_code in (404, 422)


def test_which_trial_is_worth_it_follows_the_open_jobs(client: TestClient) -> None:
    assert client.get("/api/trials/worth").json() == []
    assert client.post("/api/jobs", json=EXAMPLE).status_code == 201
    worth = client.get("/api/trials/worth").json()
    assert worth
    assert all(one["jobs"] == 1 and one["risk_minutes"] <= one["unsure_minutes"] for one in worth)
