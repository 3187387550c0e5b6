"""What is accepted once is accepted everywhere after: kept, planned, worked to the end, exported, imported, quoted, put on the board."""

import io
import json
import random
import zipfile
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest
from PIL import Image
from starlette.testclient import TestClient

from attacking import chance, many
from conftest import EXAMPLES
from kelbrast.api.application import create_app
from kelbrast.app.everything import bring
from kelbrast.app.jobs import Jobs
from kelbrast.documents.common.fields import LONGEST_NAME, LONGEST_NOTE, LONGEST_REMARK
from kelbrast.storage.backups import Backups
from kelbrast.storage.everything import write_everything

SIGNS = ("barrel, outer", "'=1+1", '"', "щ", "面", "é", "🔦", "/", "..", "<b>", "%s", "{face}", "\\", "ß;", "a")
PLATE = {
    "name": "top",
    "area_cm2": 40,
    "found": {"kind": "scratches", "depth_um": 4},
    "want": {"finish": "satin"},
}


def a_name(luck: random.Random, longest: int = LONGEST_NAME) -> str:
    """A name as long as it may be, or of signs that mean something somewhere."""
    sign = luck.choice(SIGNS)
    return (sign * longest)[: luck.choice([1, 7, longest])].strip() or "x"


def a_job(luck: random.Random) -> dict[str, Any]:
    names = {a_name(luck) for _ in range(luck.randint(1, 3))}
    operation = {"label": a_name(luck), "when": luck.choice(["before", "between", "after"]), "minutes": luck.choice([0, 7])}
    texts = {"text": a_name(luck, LONGEST_NOTE), "caution": a_name(luck, LONGEST_REMARK), "check": a_name(luck, LONGEST_REMARK)}
    return {
        "kelbrast": "job/2",
        "title": a_name(luck),
        "material": luck.choice(["brass", "stainless-304", "acrylic"]),
        "pieces": luck.choice([1, 2]),
        "customer": luck.choice(["", a_name(luck)]),
        "note": a_name(luck, LONGEST_NOTE),
        "due": luck.choice([None, "2026-12-01T10:00:00", "2031-02-28T23:59:59+13:00"]),
        "state": "ordered",
        "own_operations": [{**operation, **texts}],
        "faces": [{**PLATE, "name": name} for name in sorted(names)],
    }


@pytest.fixture
def client(tmp_path: Path) -> TestClient:
    return TestClient(
        create_app(Jobs.open(tmp_path / "kept.sqlite"), web=None), base_url="http://127.0.0.1", raise_server_exceptions=False
    )


def good(answer: Any) -> Any:
    assert answer.status_code < 300, (answer.request.url, answer.text[:500])
    return answer


def work_to_the_end(client: TestClient, run: int, luck: random.Random) -> None:
    def tap(**what: Any) -> dict[str, Any]:
        seen = good(client.get(f"/api/runs/{run}")).json()["seen"]
        body = {"tap": what, "name": f"tap-{seen:08d}", "after": seen}
        return good(client.post(f"/api/runs/{run}/taps", json=body)).json()

    now = good(client.get(f"/api/runs/{run}")).json()
    tap(kind="note", words=a_name(luck, LONGEST_NOTE))
    for one in now["waiting"]:
        tap(kind="operated", operation=one["operation"]["id"])
    while now["hand"]:
        where = {key: now["hand"][key] for key in ("piece", "face", "route", "step")}
        tap(kind="started", **where)
        now = tap(kind="gone", **where)
    tap(kind="finished", well=True, words=a_name(luck, LONGEST_NOTE))


def picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (64, 48), "#b08d57").save(out, "JPEG")
    return out.getvalue()


def test_a_job_goes_everywhere(client: TestClient, tmp_path: Path) -> None:
    luck = chance("everywhere")
    for _ in range(many(2)):
        told = a_job(luck)
        kept = good(client.post("/api/jobs", json=told)).json()
        job = kept["id"]
        good(client.put(f"/api/jobs/{job}", json=kept["job"], headers={"If-Match": f'"{kept["revision"]}"'}))
        assert good(client.get(f"/api/jobs/{job}/plan")).json()["possible"]
        for address in ("plan.csv", "card", "card.pdf", "quote", "quote.pdf", "file"):
            good(client.get(f"/api/jobs/{job}/{address}"))
        good(client.post(f"/api/jobs/{job}/quotes"))
        good(client.post(f"/api/jobs/{job}/duplicate"))
        photo = good(client.post(f"/api/jobs/{job}/photos", params={"shows": "before"}, content=picture())).json()
        outlines = [{"face": face["name"], "points": [[1, 1], [9, 1], [9, 9]]} for face in kept["job"]["faces"]]
        drawn = {"scale": None, "outlines": outlines, "marks": [], "anchors": []}
        good(client.put(f"/api/part-photos/{photo['id']}", json=drawn))
        board = good(client.get("/api/day")).json()
        assert job in board["ids"].values(), board["left_out"]
        good(client.get("/api/day.csv"))
        good(client.get("/api/day.ics"))
        run = good(client.post(f"/api/jobs/{job}/runs")).json()["id"]
        good(client.get("/api/day"))
        work_to_the_end(client, run, luck)
        for address in ("page", "file.json"):
            good(client.get(f"/api/runs/{run}/{address}"))
        run_file = client.get(f"/api/runs/{run}/file.json").text
        zipped = good(client.get("/api/jobs.zip", params={"job": [job]})).content
        other = TestClient(
            create_app(Jobs.open(tmp_path / f"other-{job}.sqlite"), web=None),
            base_url="http://127.0.0.1",
            raise_server_exceptions=False,
        )
        good(other.post("/api/log", content=run_file, headers={"content-type": "application/json"}))
        good(other.post("/api/jobs.zip", content=zipped, headers={"content-type": "application/zip"}))
        assert other.get("/api/jobs").json()["count"] == 1
        with zipfile.ZipFile(io.BytesIO(zipped)) as archive:
            archive.extractall(tmp_path / f"unpacked-{job}")  # names are such that they can be unpacked
    for address in ("/api/log", "/api/log.csv", "/api/quotes.csv", "/api/house", "/api/jobs"):
        good(client.get(address))
    archive = write_everything(tmp_path / "kept.sqlite", tmp_path / "everything.zip")
    Jobs.open(tmp_path / "new.sqlite").close()
    assert bring(Backups(tmp_path / "new.sqlite"), archive, datetime.now()).kind == "brought"


def test_a_size_goes_everywhere(client: TestClient) -> None:
    luck = chance("sizes everywhere")
    bush = json.loads((EXAMPLES / "tide-gauge-bush.size.json").read_text())
    for _ in range(many(1)):
        made = good(client.post("/api/sizes", json={**bush, "title": a_name(luck)})).json()
        again = {"If-Match": f'"{made["revision"]}"'}
        good(client.put(f"/api/sizes/{made['id']}", json=made["size"], headers=again))
        good(client.get(f"/api/sizes/{made['id']}/file"))
    assert client.get("/api/sizes").json()["unreadable"] == []


@pytest.mark.parametrize("title", ["  ", "\u2028", "\u202e\u202e", "\t", "\u200b"])
def test_a_name_that_nobody_can_see_is_refused(client: TestClient, collar: dict[str, Any], title: str) -> None:
    for job in ({**collar, "title": title}, {**collar, "faces": [{**collar["faces"][0], "name": title}]}):
        told = client.post("/api/jobs", json=job)
        assert told.status_code == 422
        assert "blank" in told.json()["detail"]


def test_signs_that_turn_the_writing_are_taken_out(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json={**collar, "title": " rim\u202eexe.\u2066 ", "note": "a\u202eb\nc"}).json()
    assert (kept["job"]["title"], kept["job"]["note"]) == ("rimexe.", "ab\nc")
