"""The bench over HTTP: begin, tap, look, conflict, photos, the log and its exports, in problem+json where something is wrong."""

import csv
import io
from typing import Any

import pytest
from PIL import Image
from starlette.testclient import TestClient

from tapping import tap
from telling import told


@pytest.fixture
def run(client: TestClient, collar: dict[str, Any]) -> dict[str, Any]:
    job = client.post("/api/jobs", json={**collar, "pieces": 2}).json()["id"]
    began = client.post(f"/api/jobs/{job}/runs")
    assert began.status_code == 201
    return began.json()


def finish(client: TestClient, run: dict[str, Any]) -> dict[str, Any]:
    while run["hand"] is not None:
        run = tap(client, run, "started").json()
        run = tap(client, run, "gone").json()
    return tap(client, run, "finished", well=True).json()


def test_the_bench_says_all_that_the_screen_needs(client, run) -> None:
    hand = run["hand"]
    assert (hand["piece"], hand["begun"], hand["running"]) == (1, False, False)
    assert hand["planned_s"] == pytest.approx(hand["plan"]["cut_minutes"] * 60)
    assert next(one["state"] for one in run["strip"]) == "now"
    assert [one["piece"] for one in run["each"]] == [1, 2]
    by_step, by_piece = run["orders"]
    assert by_step["changes"] < by_piece["changes"]
    assert next(one["operation"]["id"] for one in run["waiting"]) == "inspect"


def test_what_did_not_change_is_not_sent_again(client, run) -> None:
    assert client.get(f"/api/runs/{run['id']}?after=0").status_code == 204
    tap(client, run, "started")
    assert client.get(f"/api/runs/{run['id']}?after=0").json()["seen"] == 1


def test_a_tap_on_an_old_picture_is_a_conflict_and_keeps_nothing(client, run) -> None:
    started = tap(client, run, "started").json()
    late = tap(client, run, "skipped", words="from the other tablet")
    assert late.status_code == 412
    assert late.headers["content-type"] == "application/problem+json"
    assert client.get(f"/api/runs/{run['id']}").json()["seen"] == started["seen"]


@pytest.mark.parametrize(
    ("kind", "more", "field"),
    [
        ("gone", {}, "kind"),
        ("measured", {"measured": {"quantity": "coat", "value": 1e5}}, "measured.value"),
        ("measured", {"measured": {"quantity": "luck", "value": 1}}, "tap.measured.quantity"),
        ("picked", {"piece": 7}, "piece"),
        ("dance", {}, "tap.kind"),
    ],
)
def test_a_tap_that_can_not_be_is_refused_by_field(client, run, kind, more, field) -> None:
    answer = tap(client, run, kind, **more)
    assert answer.status_code == 422
    assert answer.json()["faults"][0]["field"] == field


def test_limits_are_checked_at_once(client, run) -> None:
    after = tap(client, run, "measured", measured={"quantity": "temperature", "value": 400.0}).json()
    assert after["readings"][0]["level"] == "over"
    assert "Stop" in told(after["readings"][0]["verdict"])


def test_an_instrument_reads_what_the_plan_expects_and_says_that_it_is_simulated(client, run) -> None:
    kinds = client.get("/api/measuring").json()
    assert {kind["id"] for kind in kinds["instruments"]} >= {"tachometer", "thermometer", "dial-gauge"}
    reading = client.get(f"/api/runs/{run['id']}/readings/tachometer").json()
    assert reading["simulated"]
    assert reading["value"] == pytest.approx(run["hand"]["plan"]["rpm"], rel=0.01)
    assert client.get(f"/api/runs/{run['id']}/readings/crystal-ball").status_code == 404


def test_ways_back_are_those_of_the_planner(client, run) -> None:
    asked = client.get(f"/api/runs/{run['id']}/goback", params={"depth_um": 9}).json()["goback"]
    started = tap(client, run, "started").json()
    gone_back = tap(client, started, "back", depth_um=9.0, extent=asked["extent"]).json()
    assert gone_back["hand"]["route"] == 1
    assert gone_back["hand"]["plan"]["tool"] == asked[asked["extent"]]["steps"][0]["tool"]
    assert [one["state"] for one in gone_back["strip"]].count("back") == 1
    assert client.get(f"/api/runs/{run['id']}/goback").status_code == 422


def test_the_log_of_a_run_and_its_exports(client, run) -> None:
    over = finish(client, run)
    page = client.get(f"/api/runs/{run['id']}/page").json()
    assert page["line"]["well"]
    assert [one["number"] for one in page["told"]] == list(range(1, over["seen"] + 1))
    assert {one["outcome"] for one in page["steps"]} == {"gone"}
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/runs/{run['id']}/file.csv").text)))
    assert [row["said"] for row in rows] == [told(one["said"]) for one in page["told"]]
    assert client.get(f"/api/runs/{run['id']}/file.json").json()["told"] == [told(one["said"]) for one in page["told"]]
    found = client.get("/api/log", params={"text": "collar", "material": "naval-brass"}).json()
    assert [line["id"] for line in found["lines"]] == [run["id"]]
    assert client.get("/api/log", params={"since": "2400-01-01"}).json()["count"] == 0
    (row,) = csv.DictReader(io.StringIO(client.get("/api/log.csv").text))
    assert (row["title"], row["as_wanted"]) == ("Gallery rail collar", "yes")
    assert len(client.get("/api/log.json").json()) == 1


def test_the_page_of_a_run_claims_no_protection_before_somebody_said_so(client, run, collar) -> None:
    before = client.get(f"/api/runs/{run['id']}/page").json()
    assert (before["protected"], before["protection"], before["keeping"]) == (None, "Wax", None)
    shown, kept = before["faces"][0]["face"], collar["faces"][0]
    assert (shown["found"]["depth_um"], shown["want"]["finish"]) == (kept["found"]["depth_um"], kept["want"]["finish"])
    run = tap(client, finish(client, run), "operated", operation="wax").json()
    after = client.get(f"/api/runs/{run['id']}/page").json()
    assert (after["protected"], after["protection"]) == ("Wax", "Wax")
    assert "thin new film" in after["keeping"]


def test_a_title_that_a_spreadsheet_would_run_is_kept_from_it(client, collar) -> None:
    job = client.post("/api/jobs", json={**collar, "title": "=1+1", "pieces": 1}).json()["id"]
    client.post(f"/api/jobs/{job}/runs")
    (row,) = csv.DictReader(io.StringIO(client.get("/api/log.csv").text))
    assert row["title"] == "'=1+1"


def test_photos_come_back_without_their_past(client, run) -> None:
    out = io.BytesIO()
    Image.new("RGB", (640, 480), (90, 80, 70)).save(out, "PNG")
    kept = client.post(f"/api/runs/{run['id']}/photos?shows=untouched&across_mm=30", content=out.getvalue())
    assert kept.status_code == 201
    photo = kept.json()
    assert client.get(f"/api/photos/{photo['id']}.jpg").headers["content-type"] == "image/jpeg"
    assert client.get(f"/api/runs/{run['id']}/photos").json()["references"][0]["across_mm"] == 30
    assert client.put(f"/api/photos/{photo['id']}/scale?across_mm=45").status_code == 204
    bad = client.post(f"/api/runs/{run['id']}/photos", content=b"no picture")
    assert bad.json()["faults"][0]["field"] == "photo"


def test_house_ways_learning_upkeep_and_faults(client, run, collar) -> None:
    over = finish(client, run)
    face = collar["faces"][0]["name"]
    made = client.post(f"/api/runs/{over['id']}/house", json={"face": face, "name": "Our way"})
    assert made.status_code == 422  # every step was tapped through in no time: that is no way to work
    assert "tapped through" in made.json()["detail"]
    assert client.get("/api/house").json() == []
    assert client.get("/api/learning").json()["on"]
    assert client.put("/api/learning", json={"on": False}).json()["on"] is False
    due = client.get("/api/upkeep").json()
    assert {one["care"] for one in due} >= {"filters", "bearings", "touch-up"}
    after = client.post("/api/upkeep", json={"thing": "shop", "care": "filters"}).json()
    assert next(one for one in after if one["care"] == "filters")["last"] is not None
    assert client.post("/api/upkeep", json={"thing": "moon", "care": "filters"}).status_code == 422
    assert all(fault["cure"] for fault in client.get("/api/faults").json())


def test_the_page_of_a_run_tells_what_went_wrong_what_was_read_and_what_was_worked(client, run) -> None:
    run = tap(client, run, "started").json()
    run = tap(client, run, "trouble", piece=1, fault="deep-lines", words="slower, and more water").json()
    run = tap(client, run, "trouble", words="the lamp fell over").json()
    run = tap(client, run, "measured", piece=1, measured={"quantity": "temperature", "value": 45.0}).json()
    page = client.get(f"/api/runs/{run['id']}/page").json()
    known, own = page["troubles"]
    assert known["fault"]["id"] == "deep-lines"
    assert (known["piece"], known["done"]) == (1, "slower, and more water")
    assert (own["done"], own["fault"]) == ("the lamp fell over", None)
    (reading,) = page["readings"]
    assert (reading["quantity"], reading["level"]) == ("temperature", "fine")
    names = {one["face"]["id"]: one["face"]["name"] for one in page["faces"]}
    assert {step["face_id"]: step["face"] for step in page["steps"]}.items() <= names.items()
    assert [step["outcome"] for step in page["steps"]].count("open") == len(page["steps"])
