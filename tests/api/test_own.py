"""What the shop has of its own over the API: described, used, changed, sent to another shop, and kept with everything else."""

import json
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from kelbrast.cli.main import main

BELT = {"kind": "tool", "name": "Ceramic belt", "like": "belt", "grades": ["P80", "P120", "P240"], "cuts": 3, "by": "Mara"}
BRONZE = {"kind": "material", "name": "Manganese bronze", "like": "bronze", "hardness": {"value": 180, "scale": "HB"}}
JOB = {
    "kelbrast": "job/2",
    "title": "Hinge plate",
    "faces": [{"name": "front", "area_cm2": 300, "found": {"depth_um": 60}, "want": {"finish": "satin"}}],
}


def describe(client: TestClient, entry: dict[str, Any]) -> dict[str, Any]:
    answer = client.post("/api/own", json={"entry": entry})
    assert answer.status_code == 201, answer.text
    return answer.json()


def minutes(client: TestClient, material: str) -> float:
    plan = client.post("/api/plan", json={**JOB, "material": material, "use_rack": "catalogue"}).json()
    return sum(face["minutes"] for face in plan["faces"])


def hands_on(client: TestClient, title: str) -> float:
    jobs = client.get("/api/day").json()["board"]["jobs"]
    return next(job["hands_on_minutes"] for job in jobs if job["title"] == title)


def test_described_used_everywhere_and_changed_without_touching_what_is_finished(client: TestClient) -> None:
    belt, bronze = describe(client, BELT), describe(client, BRONZE)
    catalogue = client.get("/api/catalogue").json()
    assert [one["label"] for one in catalogue["materials"] if one["id"] == bronze["entry"]["id"]] == ["Manganese bronze"]
    what = f"{belt['entry']['id']}-p80"
    assert "P80 ceramic belt" in {one["label"] for one in client.get("/api/rack/things").json()}
    assert client.post("/api/rack", json={"items": [{"what": what}]}).status_code == 201
    job = client.post("/api/jobs", json={**JOB, "material": bronze["entry"]["id"], "use_rack": "catalogue"}).json()
    run = client.post(f"/api/jobs/{job['id']}/runs").json()["id"]
    before = client.get(f"/api/runs/{run}/file.json").json()["plan"]
    slow, number = minutes(client, bronze["entry"]["id"]), belt["revision"]
    path = f"/api/own/{belt['entry']['id']}"
    ordered = {**JOB, "material": bronze["entry"]["id"], "use_rack": "catalogue", "title": "Lid", "state": "ordered"}
    assert client.post("/api/jobs", json=ordered).status_code == 201
    planned = hands_on(client, "Lid")
    changed = client.put(path, json={"entry": {**belt["entry"], "cuts": 0.5}}, headers={"If-Match": f'"{number}"'})
    assert changed.json()["entry"]["cuts"] == 0.5
    assert minutes(client, bronze["entry"]["id"]) > slow
    assert hands_on(client, "Lid") > planned  # on the schedule too
    assert client.get(f"/api/runs/{run}/file.json").json()["plan"] == before
    again = client.put(path, json={"entry": belt["entry"]}, headers={"If-Match": f'"{number}"'})
    assert again.status_code == 412
    fewer = {"entry": {**belt["entry"], "grades": ["P120"]}}
    refused = client.put(path, json=fewer, headers={"If-Match": f'"{number + 1}"'})
    assert (refused.status_code, "must keep P" in refused.json()["detail"]) == (422, True)  # on the rack, or in a run
    other = {"entry": {**BRONZE, "name": "Belt metal"}}
    assert "stays so" in client.put(path, json=other, headers={"If-Match": f'"{number + 1}"'}).json()["detail"]
    assert client.post("/api/own", json={"entry": {**belt["entry"], "name": "Twin"}}).json()["faults"][0]["field"] == "id"
    kept = client.delete(path)
    assert (kept.status_code, "retire it" in kept.json()["detail"]) == (422, True)
    assert {job["material"] for job in client.get("/api/jobs").json()["jobs"]} == {"Manganese bronze"}


def test_faults_name_the_key_and_leave_everything_as_it_was(client: TestClient) -> None:
    describe(client, BRONZE)
    for entry, field in (
        (BRONZE, "name"),
        ({**BELT, "like": "loose"}, "grades"),
        ({**BRONZE, "name": "Other", "hardness": {"value": 5, "scale": "HRC"}}, "hardness"),
        ({**BELT, "cuts": 0}, "entry.cuts"),
    ):
        refused = client.post("/api/own", json={"entry": entry})
        assert refused.status_code == 422
        assert field in {fault["field"] for fault in refused.json()["faults"]}
    assert [one["entry"]["name"] for one in client.get("/api/own").json()] == ["Manganese bronze"]


def test_a_file_goes_to_another_shop_whole_or_not_at_all(client: TestClient, tmp_path: Path, capsys: Any) -> None:
    for entry in (BELT, BRONZE):
        describe(client, entry)
    text = client.get("/api/own/file.json").text
    assert changes(client.post("/api/own/preview", json={"text": text})) == ["same", "same"]
    for one in client.get("/api/own").json():
        assert client.delete(f"/api/own/{one['entry']['id']}").status_code == 204
    spoilt = json.loads(text)
    spoilt["entries"][1]["hardness"]["value"] = 900
    spoilt["entries"][0]["grades"].append("P9")
    refused = client.post("/api/own/import", json={"text": json.dumps(spoilt)}).json()
    assert {"entries[0].grades[3]", "entries[1].hardness"} <= {fault["field"] for fault in refused["faults"]}
    assert client.get("/api/own").json() == []
    assert changes(client.post("/api/own/import", json={"text": text})) == ["new", "new"]
    renamed = json.loads(text)
    renamed["entries"][0]["id"], renamed["entries"][0]["cuts"] = "", 2.5
    told = client.post("/api/own/import", json={"text": json.dumps(renamed)}).json()["changes"]
    assert [(one["change"], one["keys"]) for one in told] == [("changed", ["cuts"]), ("same", [])]
    own, job = tmp_path / "own.json", tmp_path / "plate.job.json"
    own.write_text(text)
    job.write_text(json.dumps({**JOB, "material": json.loads(text)["entries"][1]["id"]}))
    main_exits(["--own", str(own), "plan", str(job)], 0)
    assert "ceramic belt" in capsys.readouterr().out
    main_exits(["plan", str(job)], 2)  # nothing of it stays behind
    assert "another shop's own: take in its file" in capsys.readouterr().err


def changes(answer: Any) -> list[str]:
    return [one["change"] for one in answer.json()["changes"]]


def test_what_another_shop_learnt_is_tried_as_if_before_it_is_taken_in(client: TestClient) -> None:
    """Its belt is not listed here, and it found fibre discs slow on copper alloys."""
    factors = [{"carrier": "fibre", "family": "copper-alloy", "quantity": "removal", "factor": 0.5, "error": 0.1}]
    belt = {**BELT, "id": "own-theirs"}
    pack = {"kelbrast": "own/1", "entries": [belt], "factors": factors}
    assert client.post("/api/jobs", json={**JOB, "material": "bronze", "use_rack": "catalogue"}).status_code == 201
    now = minutes(client, "bronze")
    seen = client.post("/api/own/preview", json={"text": json.dumps(pack)}).json()
    (job,) = seen["jobs"]
    assert (seen["factors"], job["title"]) == (1, JOB["title"])
    assert job["then_minutes"] != job["now_minutes"]
    assert minutes(client, "bronze") == now  # nothing was taken in
    for _ in range(2):  # a second time changes nothing
        assert client.post("/api/own/import", json={"text": json.dumps(pack), "factors": True}).json()["factors"] == 1
    (learnt,) = client.get("/api/learning").json()["learnt"]
    assert (learnt["carrier"], learnt["factor"], learnt["used"]) == ("fibre", 0.5, True)
    assert learnt["error"] > 0.1 * 0.5  # less sure here than there
    given = json.loads(client.get("/api/own/file.json").text)
    assert [one["factor"] for one in given["factors"]] == [0.5]
    assert "customer" not in json.dumps(given)
    again = {**belt, "id": "own-renamed"}  # the same belt by its name
    theirs = {"kelbrast": "own/1", "entries": [again], "factors": [{**factors[0], "carrier": "own-renamed", "factor": 2.0}]}
    assert changes(client.post("/api/own/import", json={"text": json.dumps(theirs), "factors": True})) == ["same"]
    told = {one["carrier"]: one["factor"] for one in client.get("/api/learning").json()["learnt"]}
    assert told == {"fibre": 0.5, "own-theirs": 2.0}
    wrong = {**pack, "factors": [{**factors[0], "carrier": "fiber"}]}
    refused = client.post("/api/own/import", json={"text": json.dumps(wrong)}).json()
    assert [fault["field"] for fault in refused["faults"]] == ["factors[0].carrier"]


def main_exits(arguments: list[str], code: int) -> None:
    with pytest.raises(SystemExit) as ended:
        main(arguments)
    assert ended.value.code == code
