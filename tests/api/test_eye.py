"""The eye over HTTP: asked at the bench, its answer told and kept beside the run, and who was right in the end."""

import math
import time
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from photographing import Face, Shot, both, messenger
from tapping import tap

FACE = Face(before="P120", own="P240", share=0.6, lay=math.radians(20))
ALONG = Shot(lamp=FACE.lay, pixels=(448, 1344), um=9.0, seed=95_001)
ACROSS = replace(ALONG, lamp=FACE.lay + math.pi / 2)
WIDE_MM = 1344 * 9e-3


@pytest.fixture(scope="module")
def photos() -> dict[float, tuple[bytes, bytes]]:
    """By the share of its time that the step was worked: the lamp across, and along."""
    return {share: both(replace(FACE, share=share), ACROSS, ALONG)[:2] for share in (0.6, 1.0)}


@pytest.fixture
def run(client: TestClient, collar: dict[str, Any]) -> dict[str, Any]:
    told = {key: collar["faces"][0][key] for key in ("found", "want")}
    plate = {**collar, "pieces": 1, "faces": [{"name": "plate", "area_cm2": 60, "curved": False, **told}]}
    job = client.post("/api/jobs", json=plate).json()["id"]
    began = client.post(f"/api/jobs/{job}/runs").json()
    began = tap(client, tap(client, began, "started").json(), "gone").json()
    return tap(client, began, "started").json()  # the second step crosses what the first one left


def ask(client: TestClient, run: int, one: bytes, two: bytes, **more: Any) -> dict[str, Any]:
    query = {"first_bytes": len(one), "across_mm": WIDE_MM, "lay_deg": 20, "crossing_deg": 70, **more}
    begun = client.post(
        f"/api/runs/{run}/eye", params=query, content=one + two, headers={"content-type": "application/octet-stream"}
    )
    assert begun.status_code == 202, begun.text
    for _ in range(300):
        told = client.get(f"/api/runs/{run}/eye/{begun.json()['look']}", params={"crossing_deg": 70}).json()
        assert 0 <= told["share"] <= 1
        if told["answer"] is not None:
            return told["answer"]
        time.sleep(0.05)
    raise AssertionError("no answer")


def codes(answer: dict[str, Any]) -> list[str]:
    return [one["code"] for one in answer["said"]]


def test_old_marks_are_told_with_place_step_and_what_can_not_be_seen(client, run, photos) -> None:
    told = ask(client, run["id"], *photos[0.6])
    assert told["verdict"] == "seen"
    assert codes(told) == ["eye.seen", "eye.as-before", "eye.not-seen"]
    assert told["lay_deg"] == pytest.approx(20, abs=1)
    assert told["angle_deg"] == pytest.approx(90, abs=6)
    assert all(0 <= place <= 1 for line in told["lines"] for place in line)
    assert len(told["lines"]) >= 2
    assert "grades" not in told
    assert "like" not in told  # nothing of a grade: on photos that nobody simulated it was never right


def test_a_copy_from_a_messenger_and_a_wrong_lamp_are_refused_with_advice(client, run, photos) -> None:
    one, two = photos[0.6]
    assert codes(ask(client, run["id"], messenger(one), messenger(two))) == ["eye.messenger"]
    assert codes(ask(client, run["id"], one, one)) == ["eye.lamp-along"]
    assert codes(ask(client, run["id"], two, one))[0] in ("eye.lamp-along", "eye.no-lay-seen")
    assert codes(ask(client, run["id"], one, two, lay_deg=70)) == ["eye.lay-off"]
    assert codes(ask(client, run["id"], one, two, across_mm=60)) == ["eye.under-a-pixel"]
    assert client.get("/api/log/eye").json()["eye"]["of"] == 0  # a refusal is nobody's answer


def test_before_any_photo_it_says_what_the_camera_shows(client, run) -> None:
    def shows(**query: Any) -> dict[str, Any]:
        return client.get(f"/api/runs/{run['id']}/eye/shows", params=query).json()

    near, far = shows(across_mm=30), shows(across_mm=400)
    assert (near["enough"], codes(near)) == (True, ["eye.shows", "eye.shows-before"])
    assert (far["enough"], codes(far)) == (False, ["eye.shows", "eye.too-wide"])
    assert shows(across_mm=30, pixels=400)["enough"] is False
    anywhere = client.get("/api/eye/shows", params={"across_mm": 30, "before": "P2000"}).json()
    assert anywhere["enough"] is False
    assert client.get("/api/eye/shows", params={"across_mm": 30, "before": "P"}).status_code == 422


def test_the_lay_is_found_on_photo_1_to_be_confirmed(client, photos) -> None:
    def lay(photo: bytes) -> dict[str, Any]:
        return client.post("/api/eye/lay", params={"across_mm": WIDE_MM}, content=photo).json()

    found = lay(photos[1.0][0])
    assert found["lay_deg"] == pytest.approx(20, abs=0.3)
    assert codes(found) == ["eye.lay-found"]
    refused = lay(messenger(photos[1.0][0]))
    assert (refused["lay_deg"], codes(refused)) == (None, ["eye.messenger"])
    assert client.post("/api/eye/lay", params={"across_mm": 4}, content=b"no photo").status_code == 422


def test_who_was_right_follows_from_what_turned_out(client, run, photos) -> None:
    assert ask(client, run["id"], *photos[0.6])["verdict"] == "seen"
    run = tap(client, run, "more", seconds=30).json()  # the person sees them too
    told = client.get("/api/log/eye").json()
    assert (told["person"]["right"], told["eye"]["right"], told["eye"]["of"]) == (1, 1, 1)
    assert ask(client, run["id"], *photos[1.0])["verdict"] == "none-seen"
    run = tap(client, run, "gone").json()
    assert client.get("/api/log/eye").json()["eye"]["of"] == 1  # nobody knows yet
    while run["hand"] is not None:
        run = tap(client, tap(client, run, "started").json(), "gone").json()
    tap(client, run, "finished", well=True)
    told = client.get("/api/log/eye").json()
    assert (told["eye"]["right"], told["eye"]["of"], told["together"]["of"], told["eye_apart"]["of"]) == (2, 2, 2, 0)
    assert 0.3 < told["eye"]["low"] < told["eye"]["high"] == pytest.approx(1.0)


def test_what_is_no_photo_is_refused(client, run) -> None:
    def refused(body: bytes, **query: Any) -> tuple[int, str]:
        told = client.post(f"/api/runs/{run['id']}/eye", params={"across_mm": 4, **query}, content=body)
        return told.status_code, told.json()["detail"]

    assert refused(b"", first_bytes=1)[0] == 422
    assert refused(b"ab", first_bytes=2) == (422, "first_bytes: two photos are needed, one after the other")
    assert "JPEG and PNG can" in refused(b"nothing of the kind", first_bytes=5)[1]
    assert client.get(f"/api/runs/{run['id']}/eye/77").status_code == 404
    assert client.post("/api/runs/99/eye", params={"across_mm": 4, "first_bytes": 1}, content=b"ab").status_code == 404
    assert client.post("/api/eye/marks", params={"across_mm": 4}, content=Path(__file__).read_bytes()).status_code == 405


@pytest.mark.parametrize(
    ("change", "code"),
    [({"shape": {"kind": "dome", "diameter_mm": 120, "height_mm": 40}}, "eye.curved"), ({}, "eye.without-lay")],
)
def test_where_no_photo_can_help_it_is_refused_before_any_is_taken(client, change: dict[str, Any], code: str) -> None:
    face = {"name": "lens", "area_cm2": 80, "found": {"kind": "scratches", "depth_um": 6}, "want": {"finish": "satin"}}
    if change:
        del face["area_cm2"]
    material = "brass" if change else "acrylic"
    job = {"kelbrast": "job/2", "title": "Lamp lens", "material": material, "faces": [{**face, **change}]}
    made = client.post("/api/jobs", json=job).json()["id"]
    run = client.post(f"/api/jobs/{made}/runs").json()
    while run["hand"] and run["hand"]["plan"]["lay"] != "none" and not change:
        run = tap(client, tap(client, run, "started").json(), "gone").json()
    assert run["hand"]["eye_refused"]["code"] == code
    told = client.post(f"/api/runs/{run['id']}/eye", params={"across_mm": 4, "first_bytes": 1}, content=b"ab")
    assert told.status_code == 422
    assert told.json()["faults"][0]["field"] == "eye"


def test_where_it_can_help_nothing_is_refused(client, run) -> None:
    assert run["hand"]["eye_refused"] is None
