"""Requests that nobody would write: bounds on every figure, other sites' pages, hosts that are not ours; always a problem, never a hang."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from attacking import chance, many
from enumerated import square_table
from kelbrast.core.planning.kernel.search import least_ahead, search
from kelbrast.core.planning.kernel.step_table import CRITERIA, METAL

NUMBERS = ("inf", "-inf", "nan", "1e309", "-1", "0", "1e300", "9" * 400, "1,5", "")


@pytest.fixture
def job(client, collar: dict[str, Any]) -> int:
    return client.post("/api/jobs", json=collar).json()["id"]


@pytest.fixture
def run(client, job: int) -> int:
    return client.post(f"/api/jobs/{job}/runs").json()["id"]


def refused(answer) -> None:
    assert answer.status_code in (400, 404, 422), answer.text
    assert answer.headers["content-type"] == "application/problem+json"


@pytest.mark.parametrize("value", NUMBERS)
def test_no_figure_without_end_reaches_the_computation(client, collar, run, value: str) -> None:
    face = collar["faces"][0]["name"]
    refused(client.get(f"/api/runs/{run}/goback", params={"depth_um": value}))
    refused(client.post("/api/goback", params={"face": face, "after": 1, "depth_um": value}, json=collar))
    refused(client.post("/api/goback", params={"face": face, "after": value, "depth_um": 5}, json=collar))
    refused(client.post("/api/why", params={"face": face, "step": value}, json=collar))
    refused(client.post("/api/whatif", params={"face": face, "step": value}, json=collar))
    refused(client.get(f"/api/light/{'0' * 32}.png", params={"height_deg": value}))
    refused(client.get(f"/api/runs/{run}", params={"after": value})) if value != "0" else None


@pytest.mark.parametrize("value", ["Infinity", "-Infinity", "NaN", "1e400", "1e-320", "-0.0"])
def test_no_json_figure_without_end_either(client, collar, value: str) -> None:
    import json

    luck = chance(f"json {value}")
    text = json.dumps(collar)
    numbers = [
        at for at, sign in enumerate(text) if sign.isdigit() and not text[at - 1].isalnum() and text[at - 1] not in '."-'
    ]
    for _ in range(many(3)):
        at = luck.choice(numbers)
        end = at
        while text[end].isdigit() or text[end] == ".":
            end += 1
        changed = text[:at] + value + text[end:]
        answer = client.post("/api/plan", content=changed, headers={"content-type": "application/json"})
        assert answer.status_code in (200, 400, 422), answer.text


def test_a_search_ends_whatever_its_figures_are() -> None:
    nodes = 12
    steps = np.triu(np.ones((nodes, nodes), dtype=bool), 1)
    for bad in (np.nan, np.inf, -np.inf, -1.0):
        values = np.ones((len(CRITERIA), nodes, nodes))
        values[:, 2, 5] = bad
        table = square_table(values, steps, np.arange(nodes) == nodes - 1)
        least_ahead(table)
        search(table, "time")
        search(replace(table, room=3.0 - table.values[METAL]), "cost")


@pytest.mark.parametrize(
    ("headers", "code"),
    [
        ({"origin": "http://evil.example"}, 403),
        ({"origin": "null"}, 403),
        ({"origin": "http://127.0.0.1:9"}, 403),
        ({"origin": "https://127.0.0.1"}, 403),
        ({"origin": "http://user@127.0.0.1"}, 403),
        ({"origin": "http://127.0.0.1/"}, 403),
        ({"origin": "http://127.0.0.1.evil.example"}, 403),
        ({"sec-fetch-site": "cross-site"}, 403),
        ({"sec-fetch-site": "same-site"}, 403),
        ({"sec-fetch-site": "same-origin", "origin": "http://evil.example"}, 403),
        ({"origin": "http://127.0.0.1", "sec-fetch-site": "same-origin"}, 201),
        ({}, 201),
    ],
)
def test_changes_come_from_our_own_pages(client, collar, job, headers: dict[str, str], code: int) -> None:
    assert client.post("/api/jobs", json=collar, headers=headers).status_code == code
    assert client.post(f"/api/jobs/{job}/duplicate", headers=headers).status_code == code


def test_reading_changes_nothing(client, collar, job, run) -> None:
    def everything() -> list[Any]:
        return [client.get(one).json() for one in ("/api/jobs", "/api/rack", "/api/log", f"/api/runs/{run}/file.json")]

    before = everything()
    description = client.get("/api/openapi.json").json()
    for address in (path for path, ways in description["paths"].items() if "get" in ways):
        for name, value in {"job_id": job, "run_id": run, "item_id": 1, "photo_id": 1, "search_id": 1}.items():
            address = address.replace(f"{{{name}}}", str(value))
        address = address.replace("{instrument_id}", "micrometer-1").replace("{key}", "0" * 32)
        assert client.get(address, headers={"sec-fetch-site": "cross-site"}).status_code != 500
    assert everything() == before


def test_refusals_of_the_framework_are_problems_too(client, collar) -> None:
    for host in ("evil.example", "user@127.0.0.1", "user:pass@127.0.0.1", "127.0.0.1@evil.example"):
        refused(client.get("/api/jobs", headers={"host": host}))
    large = client.post("/api/measure", content=b"x" * (9 * 1024 * 1024))
    assert (large.status_code, large.headers["content-type"]) == (413, "application/problem+json")
    assert "8 MB" in large.json()["detail"]
    refused(client.get("/api/nothing/here"))
    wrong = client.patch("/api/jobs")
    assert (wrong.status_code, wrong.headers["content-type"]) == (405, "application/problem+json")


def test_unseen_signs_break_nothing(client, collar) -> None:
    import csv
    import io
    from xml.etree import ElementTree

    name = "left\x00 end\r=1+1\x1b\u2028,\t\x85'"
    item = client.post("/api/rack", json={"items": [{"what": "loose", "name": name}, {"what": "felt", "name": "'=2"}]}).json()[
        0
    ]
    ElementTree.fromstring(client.get("/api/rack/labels.svg").text)
    assert client.get("/api/rack/labels.pdf").content.startswith(b"%PDF")
    rows = list(csv.reader(io.StringIO(client.get("/api/rack/file.csv").text, newline="")))
    assert {len(row) for row in rows} == {len(rows[0])}
    assert all(not cell.startswith(("=", "+", "@", "\t", "\r")) for row in rows for cell in row)
    for text in (client.get("/api/rack/file.csv").text, client.get("/api/rack/file.json").text):
        assert {one["change"] for one in client.post("/api/rack/preview", json={"text": text}).json()} == {"same"}
    assert "\x00" not in item["item"]["name"]
    kept = client.post("/api/jobs", json={**collar, "title": "a\x00b\nc"}).json()
    assert kept["job"]["title"] == "a b c"
    assert client.get(f"/api/jobs/{kept['id']}/card.pdf").content.startswith(b"%PDF")
