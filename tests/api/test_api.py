"""The API: jobs and plans, and every refusal as problem+json that names the key."""

import json
import re
import subprocess
import sys
from dataclasses import is_dataclass
from pathlib import Path
from typing import Any, get_args, get_type_hints

import pytest
from fastapi.routing import APIRoute
from pydantic import BaseModel
from sqlalchemy import event
from starlette.testclient import TestClient

from kelbrast.api.application import ROUTERS, description
from kelbrast.api.guards import LARGEST_FILE, LARGEST_REQUEST, POLICY
from kelbrast.app.jobs import Jobs
from kelbrast.storage.backups import Backup, TableChange
from kelbrast.storage.devices import Device
from kelbrast.storage.sessions import begins
from telling import told

ROOT = Path(__file__).parents[2]


def problem(response: Any, status: int) -> dict[str, Any]:
    assert response.status_code == status, response.text
    assert response.headers["content-type"] == "application/problem+json"
    body = response.json()
    assert body["status"] == status
    assert body["detail"]
    return body


def test_a_job_from_cradle_to_grave(client: TestClient, collar: dict[str, Any]) -> None:
    made = client.post("/api/jobs", json=collar)
    assert made.status_code == 201
    address = f"/api/jobs/{made.json()['id']}"
    changed = client.put(address, json={**collar, "title": "Collar"}, headers={"If-Match": '"1"'})
    assert changed.json()["revision"] == 2
    assert client.get(address).json()["job"]["title"] == "Collar"
    assert client.get("/api/jobs").json()["jobs"][0]["hands_on_minutes"] > 0
    assert client.post(f"{address}/duplicate").status_code == 201
    assert client.delete(address).status_code == 204
    problem(client.get(address), 404)


def test_both_plan_endpoints_and_the_file_agree(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json=collar).json()["id"]
    file = client.get(f"/api/jobs/{kept}/file")
    assert "gallery-rail-collar.job.json" in file.headers["content-disposition"]
    plans = [client.get(f"/api/jobs/{kept}/plan").json(), client.post("/api/plan", json=collar).json()]
    plans.append(client.post("/api/plan", content=file.content, headers={"content-type": "application/json"}).json())
    assert plans[0] == plans[1] == plans[2]
    assert plans[0]["kelbrast"] == "plan/1"


def test_choices_and_going_back(client: TestClient, collar: dict[str, Any]) -> None:
    ways = client.post("/api/choices", json=collar).json()
    assert [way["aim"] for way in ways["by_aim"]] == ["time", "metal", "cost", "changes"]
    assert "set-up" in ways["schools"]
    mark = {"face": "outer barrel", "after": 2, "depth_um": 4}
    assert client.post("/api/goback", json=collar, params=mark).json()["faces"][0]["steps"][0]["from_um"] == 4
    sums = client.post("/api/why", json=collar, params={"face": "outer barrel", "step": 1}).json()
    assert [one["what"] for one in sums][:2] == ["Depth of its own marks", "Layer to take off"]
    for bad in ({"face": "lid", "step": 1}, {"face": "outer barrel", "step": 0}):
        problem(client.post("/api/why", json=collar, params=bad), 422)
    assert problem(client.post("/api/goback", json=collar, params={**mark, "after": 9}), 422)["faults"][0]["field"] == "after"


def test_faults_name_their_keys(client: TestClient, collar: dict[str, Any]) -> None:
    collar["faces"][0]["found"]["depth_um"] = 0
    for address in ("/api/plan", "/api/jobs"):
        body = problem(client.post(address, json=collar), 422)
        (fault,) = body["faults"]
        assert (fault["field"], fault["message"]) == ("faces[0].found.depth_um", "must be above 0")
        assert (fault["where"], told(fault["said"])) == ("depth", "Must be above 0")


def test_what_is_no_json_can_not_be_read(client: TestClient) -> None:
    problem(client.post("/api/plan", content="[1", headers={"content-type": "application/json"}), 400)


def test_a_change_needs_the_revision_it_was_made_on(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json=collar).json()["id"]
    problem(client.put(f"/api/jobs/{kept}", json=collar), 428)
    problem(client.put(f"/api/jobs/{kept}", json=collar, headers={"If-Match": "soon"}), 428)
    problem(client.put(f"/api/jobs/{kept}", json=collar, headers={"If-Match": '"7"'}), 412)


@pytest.mark.parametrize("address", ["/api/jobs/99", "/api/jobs/99/plan", "/api/jobs/99/file", "/api/nothing"])
def test_what_is_not_there(client: TestClient, address: str) -> None:
    problem(client.get(address), 404)


def test_an_id_that_is_no_number(client: TestClient) -> None:
    assert problem(client.get("/api/jobs/first"), 422)["faults"][0]["field"] == "job_id"


def test_only_json_from_our_own_page(client: TestClient, collar: dict[str, Any]) -> None:
    problem(client.post("/api/jobs", content=json.dumps(collar), headers={"content-type": "text/plain"}), 415)


def test_a_large_request_is_refused(client: TestClient) -> None:
    headers = {"content-type": "application/json"}
    problem(client.post("/api/plan", content=b" " * (LARGEST_FILE + 1), headers=headers), 413)
    assert client.post("/api/plan", content=b" " * (LARGEST_REQUEST + 1), headers=headers).status_code == 413


def test_a_foreign_host_is_refused(client: TestClient) -> None:
    assert client.get("/api/health", headers={"host": "elsewhere.example"}).status_code == 400


def test_another_site_can_not_change_anything(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json=collar).json()["id"]
    problem(client.post(f"/api/jobs/{kept}/duplicate", headers={"sec-fetch-site": "cross-site"}), 403)
    assert client.post(f"/api/jobs/{kept}/duplicate", headers={"sec-fetch-site": "same-origin"}).status_code == 201
    assert client.get("/api/jobs", headers={"sec-fetch-site": "cross-site"}).json()["count"] == 2


def test_headers_keep_the_page_to_itself(client: TestClient) -> None:
    for address in ("/api/health", "/api/nothing"):
        headers = client.get(address).headers
        assert headers["content-security-policy"] == POLICY
        assert headers["x-content-type-options"] == "nosniff"
    assert "unsafe" not in POLICY


def test_the_catalogue_carries_sources(client: TestClient) -> None:
    catalogue = client.get("/api/catalogue").json()
    assert len(catalogue["tools"]) >= 70
    assert all(figure["source"] for one in catalogue["materials"] for figure in one["figures"])


def test_the_description_is_current() -> None:
    assert (ROOT / "docs" / "openapi.json").read_text(encoding="utf-8") == description(), "run make types"


@pytest.mark.text
def test_the_front_ends_types_are_current() -> None:
    generator = ROOT / "web" / "node_modules" / ".bin" / "openapi-typescript"
    if not generator.exists():
        pytest.fail("the front end's packages are not installed: run make test")
    made = subprocess.run([generator, ROOT / "docs" / "openapi.json"], capture_output=True, text=True, check=True).stdout
    kept = (ROOT / "web" / "src" / "api" / "schema.d.ts").read_text(encoding="utf-8")
    assert made.strip() == kept.strip(), "run make types"


def test_the_core_is_not_asked_for_the_web() -> None:
    code = "import sys, kelbrast.core.planning.whole.plan; print([m for m in ('fastapi','pydantic','sqlalchemy','typer') if m in sys.modules])"
    assert subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout.strip() == "[]"


def _classes_in(annotation: Any, seen: set[type]) -> set[type]:
    """Every class that an answer of this type is made of."""
    for part in get_args(annotation):
        _classes_in(part, seen)
    if isinstance(annotation, type) and annotation not in seen:
        seen.add(annotation)
        if is_dataclass(annotation) or issubclass(annotation, BaseModel):
            for hint in get_type_hints(annotation).values():
                _classes_in(hint, seen)
    return seen


def test_no_dataclass_of_storage_is_an_answer_unless_it_is_listed() -> None:
    """A device as it is kept holds the secret of its session: what may be answered with is said here, one by one."""
    listed = {Backup, TableChange}
    answered: set[type] = set()
    for route in (route for router in ROUTERS for route in router.routes):
        assert isinstance(route, APIRoute)
        _classes_in(get_type_hints(route.endpoint).get("return"), answered)
    kept = {one for one in answered if one.__module__.startswith("kelbrast.storage")}
    assert kept == listed
    assert Device not in answered


KEEPS_ITS_PLACES = {
    "/api/day",
    "/api/day.ics",
    "/api/day.csv",
}  # what is done stays where it stood, so the board remembers that
ASKED = {"face": "f1", "job": 1, "person": "Ada", "kind": "bore", "limits": "25 H7", "like": "p320", "difficulty": 1, "seed": 1}


def test_whoever_only_looks_changes_nothing(client: TestClient, collar: dict[str, Any]) -> None:
    engine = client.app.state.jobs.engine
    job = client.post("/api/jobs", json=collar).json()["id"]
    assert client.post(f"/api/jobs/{job}/runs").status_code == 201
    assert client.post("/api/rack", json={"items": [{"what": "paper-p240"}]}).status_code == 201
    wrote: list[str] = []
    event.listen(engine, "begin", lambda one: wrote.append(begins(one.get_execution_options())))
    answered = 0
    looks = [route.path for router in ROUTERS for route in router.routes if "GET" in route.methods]
    for path in set(looks) - KEEPS_ITS_PLACES:
        answered += client.get(re.sub(r"{\w+_id}", "1", path), params=ASKED).status_code == 200
        assert set(wrote) <= {"BEGIN"}, path
    assert answered > 40


def test_a_failure_of_the_program_is_a_problem_with_a_number_that_stands_in_the_log(
    client: TestClient, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def fails(*_: object, **__: object) -> None:
        raise RuntimeError("a fault of ours")

    monkeypatch.setattr(Jobs, "search", fails)
    quiet = TestClient(client.app, base_url=client.base_url, raise_server_exceptions=False)
    body = problem(quiet.get("/api/jobs"), 500)
    assert body["title"] == "Something went wrong here"
    assert "your jobs are as they were" in body["detail"]
    assert "fault of ours" not in json.dumps(body)
    number = body["instance"].split(":")[-1]
    assert any(number in record.getMessage() for record in caplog.records)
    assert quiet.get("/api/catalogue").status_code == 200
