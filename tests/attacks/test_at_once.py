"""Many hands at once: no change goes over another unseen, nothing is kept twice, nobody is told that the database is locked."""

import sqlite3
from concurrent.futures import ThreadPoolExecutor, wait
from pathlib import Path
from typing import Any

import httpx
import pytest

from attacking import many
from serving import serve

TIMES = many(4)


@pytest.fixture
def job(client, collar: dict[str, Any]) -> int:
    return client.post("/api/jobs", json=collar).json()["id"]


def test_of_two_saves_of_one_revision_one_is_kept(client, collar, job, at_once) -> None:
    for revision in range(1, TIMES + 1):

        def save(number: int, revision: int = revision) -> int:
            headers = {"If-Match": f'"{revision}"'}
            return client.put(f"/api/jobs/{job}", json={**collar, "title": f"save {number}"}, headers=headers).status_code

        codes = at_once(4, save)
        assert sorted(codes) == [200, 412, 412, 412]
        kept = client.get(f"/api/jobs/{job}").json()
        assert kept["revision"] == revision + 1
        assert kept["job"]["title"] == f"save {codes.index(200)}"


def test_of_two_changes_of_a_thing_on_the_rack_one_is_kept(client, at_once) -> None:
    item = client.post("/api/rack", json={"items": [{"what": "paper-p240", "count": 3}]}).json()[0]
    assert client.put(f"/api/rack/{item['id']}", json=item["item"]).status_code == 428
    for revision in range(item["revision"], item["revision"] + TIMES):

        def save(number: int, revision: int = revision) -> int:
            headers = {"If-Match": f'"{revision}"'}
            return client.put(
                f"/api/rack/{item['id']}", json={**item["item"], "note": f"{number}"}, headers=headers
            ).status_code

        assert sorted(at_once(3, save)) == [200, 412, 412]


def test_two_identical_imports_do_not_double(client, at_once) -> None:
    for number in range(TIMES):
        text = f"what,name,count\npaper-p240,drawer {number},3\ngrey,shelf {number},2\n"
        answers = at_once(4, lambda _, text=text: client.post("/api/rack/import", json={"text": text}))
        assert {answer.status_code for answer in answers} == {200}
        assert sorted(one["change"] for answer in answers for one in answer.json()) == ["new"] * 2 + ["same"] * 6
    assert len(client.get("/api/rack").json()) == 2 * TIMES


def test_two_quick_presses_begin_one_run(client, job, at_once) -> None:
    began = at_once(6, lambda _: client.post(f"/api/jobs/{job}/runs").json()["id"])
    assert len(set(began)) == 1
    assert len(client.get("/api/runs").json()) == 1


def test_the_very_same_tap_at_once_is_kept_once_and_told_so(client, job, at_once) -> None:
    run = client.post(f"/api/jobs/{job}/runs").json()
    for number in range(TIMES):
        body = {"tap": {"kind": "note", "words": f"note {number}"}, "name": f"the-tap-{number:04}", "after": number}
        answers = at_once(6, lambda _, body=body: client.post(f"/api/runs/{run['id']}/taps", json=body))
        assert [answer.status_code for answer in answers] == [200] * 6
        assert {answer.json()["seen"] for answer in answers} == {number + 1}


def test_forty_notes_at_once_are_all_kept(client, job, at_once) -> None:
    run = client.post(f"/api/jobs/{job}/runs").json()

    def note(number: int) -> Any:
        body = {"tap": {"kind": "note", "words": f"note {number}"}, "name": f"the-note-{number:04}", "after": 0}
        return client.post(f"/api/runs/{run['id']}/taps", json=body)

    answers = at_once(40, note)
    assert [answer.text for answer in answers if answer.status_code != 200] == []
    events = client.get(f"/api/runs/{run['id']}/file.json").json()["events"]
    assert sorted(event["words"] for event in events) == sorted(f"note {number}" for number in range(40))


def test_readers_do_not_wait_for_writers(tmp_path: Path, collar: dict[str, Any]) -> None:
    """Forty-five changes wait for a database that somebody holds: whoever only looks is answered meanwhile."""
    served = serve(tmp_path / "kept.sqlite", demo=False)
    assert httpx.get(f"{served.address}/api/health").status_code == 200
    holder = sqlite3.connect(tmp_path / "kept.sqlite", isolation_level=None)
    holder.execute("BEGIN IMMEDIATE")
    try:
        with ThreadPoolExecutor(45) as pool, httpx.Client(base_url=served.address, timeout=30) as client:
            writers = [pool.submit(httpx.post, f"{served.address}/api/jobs", json=collar, timeout=60) for _ in range(45)]
            wait(writers, timeout=1.5)
            read = [client.get(address).status_code for address in ("/api/jobs", "/api/rack", "/api/health", "/")]
            answered = sum(writer.done() for writer in writers)
            holder.execute("ROLLBACK")
            codes = {writer.result().status_code for writer in writers}
        assert read == [200, 200, 200, 200]
        assert answered == 0
        assert codes == {201}
    finally:
        holder.close()
        served.stop()
