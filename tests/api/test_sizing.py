"""Work to size over HTTP."""

import json

from kelbrast.demo.workshop import EXAMPLES

BUSH = json.loads((EXAMPLES / "tide-gauge-bush.size.json").read_text())


def test_a_part_is_kept_changed_and_forgotten(client) -> None:
    made = client.post("/api/sizes", json=BUSH)
    assert made.status_code == 201
    kept = made.json()
    assert kept["answer"]["next"]["move"] == "lap"
    assert kept["size"]["want"]["class"] == "H7"
    address = f"/api/sizes/{kept['id']}"
    assert client.put(address, json=BUSH).status_code == 428
    again = client.put(address, json={**BUSH, "title": "Bush"}, headers={"If-Match": f'"{kept["revision"]}"'})
    assert (again.status_code, again.json()["size"]["title"]) == (200, "Bush")
    late = client.put(address, json=BUSH, headers={"If-Match": f'"{kept["revision"]}"'})
    assert late.status_code == 412
    assert [one["size"]["title"] for one in client.get("/api/sizes").json()["sizes"]] == ["Bush"]
    assert client.delete(address).status_code == 204
    assert client.get(address).status_code == 404


def test_the_same_answer_without_keeping(client) -> None:
    kept = client.post("/api/sizes", json=BUSH).json()
    assert client.post("/api/size", json=BUSH).json() == kept["answer"]


def test_what_is_wrong_is_a_problem_that_names_it(client) -> None:
    told = client.post("/api/size", json={**BUSH, "want": {"nominal_mm": 14, "class": "Q9"}})
    assert told.status_code == 422
    assert told.headers["content-type"].startswith("application/problem+json")
    assert told.json()["faults"][0]["field"] == "want.class"
    assert client.post("/api/size", content="x", headers={"content-type": "text/plain"}).status_code == 415


SPINDLE = json.loads((EXAMPLES / "tide-gauge-spindle.size.json").read_text())


def test_a_shaft_and_its_bore_beside_each_other(client) -> None:
    told = client.post("/api/pair", json={"bore": BUSH, "shaft": SPINDLE, "clearance_um": [7, 20]})
    found = told.json()
    assert told.status_code == 200
    assert (found["verdict"], [take["kind"] for take in found["takes"]]) == ("tight", ["bore", "shaft"])
    assert abs(found["least_um"] - 1000 * (found["bore"]["now_mm"] - found["shaft"]["now_mm"])) < 0.01
    ends = {take["kind"]: take["to_mm"] for take in found["takes"]}
    assert abs(1000 * (ends["bore"] - ends["shaft"]) - 13.5) < 0.01


def test_two_of_a_kind_and_one_that_was_not_measured_are_no_pair(client) -> None:
    told = client.post("/api/pair", json={"bore": BUSH, "shaft": BUSH, "clearance_um": [7, 20]})
    assert told.json()["faults"][0]["field"] == "shaft"
    unread = {**SPINDLE, "rounds": [{"worked_s": 0, "readings": []}]}
    told = client.post("/api/pair", json={"bore": BUSH, "shaft": unread, "clearance_um": [7, 20]})
    assert told.json()["faults"][0]["message"] == "must be measured first"
    told = client.post("/api/pair", json={"bore": BUSH, "shaft": SPINDLE, "clearance_um": [20, 7]})
    assert told.status_code == 422


WORK = {"kind": "bore", "tightest_mm": 13.983, "length_mm": 30}


def test_the_laps_of_the_rack_say_whether_they_can(client) -> None:
    lap = {
        "what": "bore-lap",
        "name": "copper",
        "diameter_mm": 13.96,
        "length_mm": 30.0,
        "set_out_um": 20.0,
        "set_out_by": "mm",
    }
    assert client.post("/api/rack", json={"items": [lap]}).status_code == 201
    (found,) = client.get("/api/laps", params={**WORK, "target_mm": 14.009, "grade": "F400"}).json()
    assert (found["name"], found["able"], found["by"]) == ("copper", True, "mm")
    assert (found["set_out_um"], found["set_out"]) == (13.0, 0.65)  # 20 um a millimetre, as an arbor of 1:50
    assert client.get("/api/laps", params={**WORK, "target_mm": 14.009, "grade": "X"}).json()["faults"][0]["field"] == "grade"


def test_only_laps_are_set_out(client) -> None:
    told = client.post("/api/rack", json={"items": [{"what": "loose", "set_out_um": 60.0}]})
    assert told.json()["faults"][0]["message"] == "belongs to laps, not to a wheel"


def test_the_lap_to_make_is_drawn(client) -> None:
    svg = client.get("/api/lap.svg", params={**WORK, "material": "bronze", "title": "Tide gauge bush"})
    assert svg.headers["content-type"] == "image/svg+xml"
    assert "outside 13.973 mm" in svg.text
    assert "Expanding bore lap for Tide gauge bush" in svg.text
    inch = client.get("/api/lap.svg", params={**WORK, "material": "bronze", "inch": True})
    assert "0.550118 in" in inch.text
    assert " mm" not in inch.text
    pdf = client.get("/api/lap.pdf", params={**WORK, "kind": "shaft", "material": "tool-steel-hardened"})
    assert pdf.content.startswith(b"%PDF")
    assert client.get("/api/lap.svg", params={**WORK, "material": "cheese"}).json()["faults"][0]["field"] == "material"
    small = client.get("/api/lap.svg", params={**WORK, "tightest_mm": 0.005, "material": "bronze"})
    assert small.json()["faults"][0]["field"] == "tightest_mm"
