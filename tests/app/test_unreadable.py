"""One document that this version cannot read is one line that says so: the others, the board and the bench are as they were."""

import sqlite3
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from demo_workshop import demo_workshop
from kelbrast.api.application import create_app
from kelbrast.app.health import Health, Watch
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import Conflict, StoreTrouble
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import database
from kelbrast.storage.backups import Backups
from kelbrast.storage.holding import held_by_server

NOW = datetime(2026, 3, 1, 7, 30, tzinfo=UTC)
# What a newer version may have written, and what a hand may have: an unknown key, a tightened limit, a shape that is none.
STRANGE = ("'$.colour', 'red'", "'$.pieces', 1000000", "'$.faces', json('7')")


@pytest.fixture
def jobs(tmp_path: Path) -> Jobs:
    return demo_workshop(tmp_path / "kept.sqlite", with_past=True)


@pytest.fixture
def client(jobs: Jobs) -> TestClient:
    return TestClient(create_app(jobs, web=None), base_url="http://127.0.0.1", raise_server_exceptions=False)


def spoil(jobs: Jobs, table: str, row: int, change: str, column: str = "document") -> None:
    with sqlite3.connect(jobs.engine.url.database or "") as raw:
        raw.execute(f"update {table} set {column} = json_set({column}, {change}) where id = ?", (row,))
    raw.close()


@pytest.mark.parametrize("change", STRANGE)
def test_a_job(client: TestClient, jobs: Jobs, change: str) -> None:
    before = client.get("/api/jobs").json()["jobs"]
    ordered = next(one for one in before if one["kept_state"] == "ordered")
    spoil(jobs, "jobs", ordered["id"], change)
    after = {one["id"]: one for one in client.get("/api/jobs").json()["jobs"]}
    assert len(after) == len(before)
    line = after[ordered["id"]]
    assert (line["state"], line["title"]) == ("unreadable", ordered["title"])
    assert line["reason"]
    assert all(after[one["id"]] == one for one in before if one["id"] != ordered["id"])
    board = client.get("/api/day")
    assert board.status_code == 200
    assert ordered["title"] in [one["job"] for one in board.json()["left_out"]]
    file = client.get(f"/api/jobs/{ordered['id']}/file")
    assert (file.status_code, file.json()["title"]) == (200, ordered["title"])
    assert client.get("/api/jobs.zip", params={"job": [one["id"] for one in before]}).status_code == 200
    assert client.get(f"/api/jobs/{ordered['id']}").status_code == 422
    assert client.post("/api/buying", params={"by": "minutes"}).status_code in (200, 201, 202)
    assert client.delete(f"/api/jobs/{ordered['id']}").status_code == 204


def test_a_size(client: TestClient, jobs: Jobs) -> None:
    first, *others = client.get("/api/sizes").json()["sizes"]
    spoil(jobs, "sizings", first["id"], "'$.colour', 'red'")
    page = client.get("/api/sizes").json()
    assert [one["id"] for one in page["sizes"]] == [other["id"] for other in others]
    assert [(one["id"], one["title"]) for one in page["unreadable"]] == [(first["id"], first["size"]["title"])]
    assert client.get(f"/api/sizes/{first['id']}/file").json()["colour"] == "red"
    for one in others:
        assert client.get(f"/api/sizes/{one['id']}").status_code == 200


def test_a_run_at_the_bench(client: TestClient, jobs: Jobs) -> None:
    ids = [one["id"] for one in client.get("/api/jobs", params={"state": "ordered"}).json()["jobs"]][:2]
    runs = [client.post(f"/api/jobs/{one}/runs").json()["id"] for one in ids]
    spoil(jobs, "runs", runs[0], "'$.colour', 'red'", column="job")
    assert [one["id"] for one in client.get("/api/runs").json()] == [runs[1]]
    assert client.get("/api/day").status_code == 200
    assert client.get("/api/log").status_code == 200


def test_a_quote_and_a_template(client: TestClient, jobs: Jobs) -> None:
    job = client.get("/api/jobs").json()["jobs"][0]["id"]
    kept = [client.post(f"/api/jobs/{job}/quotes").json()["id"] for _ in range(2)]
    spoil(jobs, "quotes", kept[0], "'$.prices', 7")
    assert [one["id"] for one in client.get(f"/api/jobs/{job}/quotes").json()] == [kept[1]]
    assert client.get(f"/api/jobs/{job}/quote").status_code == 200


def test_it_is_told_to_every_screen_when_the_program_starts(client: TestClient, jobs: Jobs, tmp_path: Path) -> None:
    health = client.app.state.health
    watch = Watch(jobs, Backups(tmp_path / "kept.sqlite"), health)
    watch.begin(NOW)
    assert client.get("/api/health").json()["troubles"] == []
    spoil(jobs, "jobs", 2, "'$.colour', 'red'")
    watch.begin(NOW)
    (trouble,) = client.get("/api/health").json()["troubles"]
    assert trouble["concern"] == "documents"
    assert "job 2" in trouble["said"]


def test_a_state_is_no_part_of_the_job_and_no_edit_takes_it_back(client: TestClient, collar: dict[str, Any]) -> None:
    kept = client.post("/api/jobs", json={**collar, "state": "ordered"}).json()
    address, old = f"/api/jobs/{kept['id']}", kept["job"]
    assert (kept["state"], kept["state_number"]) == ("ordered", 0)
    assert client.put(f"{address}/state", json={"state": "delivered", "after": 0}).json()["state"] == "delivered"
    again = client.put(address, json={**old, "state": "asked"}, headers={"If-Match": f'"{kept["revision"]}"'})
    assert (again.status_code, again.json()["state"]) == (200, "delivered")
    late = client.put(f"{address}/state", json={"state": "asked", "after": 0})
    assert late.status_code == 412
    assert client.get(f"{address}/file").json()["state"] == "delivered"


def test_what_is_tapped_after_the_end_leaves_the_state_alone(jobs: Jobs, client: TestClient, collar: dict[str, Any]) -> None:
    job = jobs.add(check_job_file({**collar, "state": "ordered"})).id
    run = client.post(f"/api/jobs/{job}/runs").json()

    def tap(**what: Any) -> Any:
        seen = client.get(f"/api/runs/{run['id']}").json()["seen"]
        body = {"tap": what, "name": f"tap-{seen:08d}", "after": seen}
        told = client.post(f"/api/runs/{run['id']}/taps", json=body)
        assert told.status_code == 200, told.text
        return told.json()

    assert jobs.get(job).state == "at-the-bench"
    now = client.get(f"/api/runs/{run['id']}").json()
    while now["hand"]:
        where = {key: now["hand"][key] for key in ("piece", "face", "route", "step")}
        tap(kind="started", **where)
        now = tap(kind="gone", **where)
    tap(kind="finished", well=True)
    assert jobs.get(job).state == "done"
    jobs.set_state(job, "delivered", after=jobs.get(job).state_number)
    tap(kind="note", words="The customer is happy")
    assert jobs.get(job).state == "delivered"
    with pytest.raises(Conflict):
        jobs.set_state(job, "asked", after=0)


def test_a_second_server_is_refused_naming_the_first(tmp_path: Path) -> None:
    database = tmp_path / "kept.sqlite"
    with held_by_server(database, "http://127.0.0.1:8642/"):
        with pytest.raises(StoreTrouble, match=r"already runs on .*http://127\.0\.0\.1:8642/"), held_by_server(database, "x"):
            pass
        link = tmp_path / "link.sqlite"
        Jobs.open(database).close()
        link.symlink_to(database)
        with pytest.raises(StoreTrouble), held_by_server(link, "x"):
            pass
    with held_by_server(database, "http://127.0.0.1:1/"):  # it was let go
        pass
    assert not database.with_name("kept.sqlite.server.json").exists()


def test_what_is_wrong_is_told_until_it_is_mended(tmp_path: Path) -> None:
    jobs = demo_workshop(tmp_path / "kept.sqlite")
    health, backups = Health(jobs), Backups(tmp_path / "kept.sqlite")
    watch = Watch(jobs, backups, health)
    backups.folder.write_text("a file where the folder should be")
    watch.look(NOW)
    assert [trouble.concern for trouble in health.troubles()] == ["backup"]
    backups.folder.unlink()
    watch.look(NOW)
    assert health.troubles() == []
    moved = (tmp_path / "kept.sqlite").rename(tmp_path / "elsewhere.sqlite")
    (told,) = health.troubles()
    assert told.concern == "replaced"
    moved.rename(tmp_path / "kept.sqlite")
    assert health.troubles() == []


def test_a_watch_survives_whatever_fails(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    jobs = demo_workshop(tmp_path / "kept.sqlite")
    health, backups = Health(jobs), Backups(tmp_path / "kept.sqlite")

    def fails(*_: Any) -> None:
        raise RuntimeError("nobody thought of this")

    monkeypatch.setattr(Backups, "every_day", fails)
    Watch(jobs, backups, health).look(NOW)
    assert [trouble.concern for trouble in health.troubles()] == ["backup"]


def test_a_large_database_answers_first_and_is_looked_through_then(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "kept.sqlite"
    demo_workshop(path, with_past=True).close()
    with path.open("r+b") as file:  # a page in the middle, which nothing needs that is asked for at the start
        file.seek(path.stat().st_size // 8192 * 4096)
        file.write(b"\xff" * 4096)
    with pytest.raises(StoreTrouble, match="damaged"):
        Jobs.open(path)
    monkeypatch.setattr(database, "LARGE", 4096)
    jobs = Jobs.open(path)
    health = Health(jobs)
    watch = Watch(jobs, Backups(path), health)
    assert (health.looked_through.at, health.looked_through.busy) == (None, False)
    watch.begin(NOW)
    assert "damaged" in {trouble.concern for trouble in health.troubles()}
    assert (health.looked_through.at, health.looked_through.busy) == (NOW, False)


def test_in_a_quiet_moment_what_was_written_is_put_into_the_one_file(jobs: Jobs, tmp_path: Path) -> None:
    path = Path(jobs.engine.url.database or "")
    log = path.with_name(path.name + "-wal")
    watch = Watch(jobs, Backups(path), Health(jobs))
    before = path.read_bytes()
    jobs.duplicate(1)
    watch.rest()  # somebody may be writing still
    assert path.read_bytes() == before
    watch.rest()
    assert path.read_bytes() != before
    assert log.exists()
    watch.look(NOW)
