"""Asking about a plan: what may be weighed, what if, and the card."""

import re
import zlib
from typing import Any

from starlette.testclient import TestClient

from telling import told


def test_advice_for_a_face(client: TestClient, collar: dict[str, Any]) -> None:
    made = client.post("/api/advice", json=collar, params={"face": "outer barrel"}).json()
    assert len(made["front"]) > 3
    assert made["front"][0]["minutes"] == min(route["minutes"] for route in made["front"])
    assert made["pruned"] > made["kept"] > 0


def test_a_route_of_the_front_can_be_taken(client: TestClient, collar: dict[str, Any]) -> None:
    route = client.post("/api/advice", json=collar, params={"face": "outer barrel"}).json()["front"][-1]
    collar["faces"][0]["wish"] = {"route": route["tools"]}
    (face,) = client.post("/api/plan", json=collar).json()["faces"]
    assert [step["tool"] for step in face["steps"]] == route["tools"]
    assert abs(face["minutes"] - route["minutes"]) < 1e-6
    assert face["wish_note"] is None


def test_what_if_and_then_taking_it(client: TestClient, collar: dict[str, Any]) -> None:
    found = client.post("/api/whatif", json=collar, params={"face": "outer barrel", "step": 2}).json()
    swap = next(one for one in found if one["change"] == "swap")
    collar["faces"][0]["wish"] = swap["wish"]
    (face,) = client.post("/api/plan", json=collar).json()["faces"]
    assert face["steps"][1]["tool"] == swap["tool"]
    assert abs(face["minutes"] - swap["minutes"]) < 1e-6
    assert client.post("/api/whatif", json=collar, params={"face": "outer barrel", "step": 9}).status_code == 422


def test_a_wish_for_a_tool_that_does_not_exist_is_named(client: TestClient, collar: dict[str, Any]) -> None:
    collar["faces"][0]["wish"] = {"lock": ["felt-wite"]}
    collar["diameters_mm"] = {"loose-white": 900}
    faults = client.post("/api/plan", json=collar).json()["faults"]
    assert {fault["field"] for fault in faults} == {"faces[0].wish.lock[0]", "diameters_mm.loose-white"}
    assert "felt-white" in str(faults)


def test_the_plan_carries_operations_and_set_ups(client: TestClient, collar: dict[str, Any]) -> None:
    collar["protect"] = "lacquer"
    made = client.post("/api/plan", json=collar).json()
    ids = [one["id"] for one in made["operations"]]
    assert ids[0] == "inspect"
    assert "lacquer" in ids
    assert made["account"]["waiting"] >= 90
    assert [one["tool"] for one in made["set_ups"]] == [step["tool"] for step in made["faces"][0]["steps"]]
    assert {one["tool"] for one in made["gather"]} == {one["tool"] for one in made["set_ups"]}


def written(pdf: bytes) -> str:
    """The letters of a PDF, whose streams are only packed."""
    streams = re.findall(rb"stream\r?\n(.*?)\r?\nendstream", pdf, re.DOTALL)
    return b"".join(zlib.decompress(stream) for stream in streams if stream[:1] == b"x").decode("latin-1")


def test_the_card_of_a_kept_job(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json=collar).json()["id"]
    metric, inch = (client.get(f"/api/jobs/{kept}/card.pdf", params={"inch": inch}) for inch in (False, True))
    assert metric.headers["content-type"] == "application/pdf"
    assert "gallery-rail-collar.pdf" in metric.headers["content-disposition"]
    assert metric.content.startswith(b"%PDF")
    letters = [re.sub(r"5 mm orbit|µm diamond", "", written(one.content)) for one in (metric, inch)]
    for text, here, there in zip(letters, ("µm", "thou"), ("thou", "µm"), strict=True):
        assert here in text
        assert there not in text
    assert "m/s" not in letters[1]
    assert "°C" not in letters[1]
    assert client.get("/api/jobs/99/card.pdf").status_code == 404


def test_what_covers_a_part_can_stand_in_the_way(client: TestClient, collar: dict[str, Any]) -> None:
    collar["covering"] = "painted"
    made = client.post("/api/plan", json=collar).json()
    assert made["possible"] is False
    assert "Painted" in made["blocked"]
    client.post("/api/jobs", json=collar)
    (summary,) = client.get("/api/jobs").json()["jobs"]
    assert summary["state"] == "not-possible"
    assert "Painted" in told(summary["reason"])
