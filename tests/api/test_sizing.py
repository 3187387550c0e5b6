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
    assert [one["size"]["title"] for one in client.get("/api/sizes").json()] == ["Bush"]
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
