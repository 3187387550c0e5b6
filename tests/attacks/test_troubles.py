"""A database that cannot be used is refused by name, untouched; the cause is named in the API and at the command line."""

import hashlib
import sqlite3
from pathlib import Path
from typing import Any

import httpx
import pytest
from sqlalchemy import event
from starlette.testclient import TestClient

from attacking import chance, many, rows_of
from commanding import run, run_process
from demo_workshop import demo_workshop
from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import StoreTrouble
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import sessions
from kelbrast.storage.database import close_database, open_database
from killable import Server


def foreign(path: Path, wal: bool) -> None:
    with sqlite3.connect(path) as raw:
        raw.execute(f"PRAGMA journal_mode={'WAL' if wal else 'DELETE'}")
        raw.execute("create table orders (id integer)")
        raw.execute("insert into orders values (1)")
    raw.close()


def newer(path: Path) -> None:
    Jobs.open(path).close()
    with sqlite3.connect(path) as raw:
        raw.execute("update alembic_version set version_num = '9999'")
    raw.close()


def half_made(path: Path) -> None:
    Jobs.open(path).close()
    with sqlite3.connect(path) as raw:
        raw.execute("delete from alembic_version")
    raw.close()


def interrupted(path: Path) -> None:
    """As an older version could leave it: the tables of a later step are there, the number of the step is not."""
    Jobs.open(path).close()
    with sqlite3.connect(path) as raw:
        raw.execute("update alembic_version set version_num = '0003'")
    raw.close()


NOT_OURS = {
    "foreign": (lambda path: foreign(path, False), "belongs to another program"),
    "foreign-wal": (lambda path: foreign(path, True), "belongs to another program"),
    "newer": (newer, "newer version"),
    "half-made": (half_made, "half made"),
    "interrupted": (interrupted, "half made"),
    "text": (lambda path: path.write_text("dear diary, " * 1000), "damaged"),
}


@pytest.mark.parametrize("kind", NOT_OURS)
def test_what_is_not_ours_is_refused_by_name_and_untouched(tmp_path: Path, kind: str) -> None:
    make, said = NOT_OURS[kind]
    path = tmp_path / "kept.sqlite"
    make(path)
    before = path.read_bytes()
    with pytest.raises(StoreTrouble, match=said):
        open_database(path)
    assert path.read_bytes() == before
    # What serves is in a process of its own: were it not refused, it would never come back.
    told = run("log", "--database", path) if kind != "text" else run_process("serve", "--database", path, "--port", "0")
    assert told.returncode == 2, told
    assert said in told.stderr
    assert "Traceback" not in told.stderr
    assert len(told.stderr.splitlines()) == 1
    assert path.read_bytes() == before


def test_a_folder_and_a_place_that_is_not_there(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("")
    for place in (tmp_path, tmp_path / "file" / "kept.sqlite"):
        with pytest.raises(StoreTrouble) as trouble:
            open_database(place)
        assert str(place) in str(trouble.value)


def test_damage_is_named_wherever_it_is(tmp_path: Path) -> None:
    """Bytes are changed at random: it opens whole, or it is refused as damaged and left as it was; never anything else."""
    luck, whole = chance("damage"), tmp_path / "whole.sqlite"
    demo_workshop(whole).close()
    good, refused = whole.read_bytes(), 0
    for turn in range(many(4)):
        path = tmp_path / "kept.sqlite"
        hurt = bytearray(good)
        if turn == 0 or luck.random() < 0.3:  # half a file is refused wherever it was cut
            hurt = hurt[: luck.randrange(100, len(hurt) // 2)]
        else:
            at = luck.randrange(len(hurt))
            hurt[at : at + 512] = luck.randbytes(min(512, len(hurt) - at))
        path.write_bytes(hurt)
        mark = hashlib.sha256(hurt).digest()
        try:
            kept = Jobs.open(path)
        except StoreTrouble as trouble:
            assert trouble.cause in ("damaged", "foreign", "half-made", "newer")
            assert hashlib.sha256(path.read_bytes()).digest() == mark
            refused += 1
        else:
            client = TestClient(create_app(kept, web=None), base_url="http://127.0.0.1", raise_server_exceptions=False)
            answer = client.get("/api/jobs")
            assert answer.status_code == 200 or answer.headers["content-type"] == "application/problem+json"
            kept.engine.dispose()
        for left in tmp_path.glob("kept*"):
            left.unlink()
    assert refused


def test_names_of_tables_that_are_no_text_are_damage(tmp_path: Path) -> None:
    path = tmp_path / "kept.sqlite"
    Jobs.open(path).close()
    with sqlite3.connect(path) as raw:
        raw.execute("PRAGMA writable_schema = on")
        raw.execute("update sqlite_master set name = cast(x'8a8a' as text) where name = 'quotes'")
    raw.close()
    with pytest.raises(StoreTrouble) as trouble:
        Jobs.open(path)
    assert trouble.value.cause == "damaged"


@pytest.fixture
def job(kept: Jobs, collar: dict[str, Any]) -> int:
    return kept.add(check_job_file(collar)).id


def test_a_full_disk_is_named_and_nothing_is_lost(client, kept: Jobs, collar, job) -> None:
    with kept.engine.connect() as raw:
        pages = raw.exec_driver_sql("PRAGMA page_count").scalar()

    def limited(connection: Any, _: Any) -> None:
        connection.execute(f"PRAGMA max_page_count={pages}").close()

    kept.engine.dispose()
    event.listen(kept.engine, "connect", limited)
    answers = [client.post("/api/jobs", json={**collar, "title": "x" * 190}) for _ in range(40)]
    refused = [answer for answer in answers if answer.status_code == 507]
    assert refused
    assert refused[0].json()["title"].startswith("The disk is full")
    assert "Nothing of this was written" in refused[0].json()["detail"]
    event.remove(kept.engine, "connect", limited)
    kept.engine.dispose()
    assert client.get("/api/jobs").json()["count"] == 1 + len(answers) - len(refused)


def test_a_database_that_somebody_holds_is_named(tmp_path: Path, collar) -> None:
    path = tmp_path / "kept.sqlite"
    Jobs.open(path).close()
    kept = Jobs(open_database(path, wait_s=0.2))
    client = TestClient(create_app(kept, web=None), base_url="http://127.0.0.1", raise_server_exceptions=False)
    holder = sqlite3.connect(path, isolation_level=None)
    holder.execute("BEGIN IMMEDIATE")
    answer = client.post("/api/jobs", json=collar)
    assert answer.status_code == 503
    assert "Another program holds the database" in answer.json()["title"]
    assert client.get("/api/jobs").status_code == 200  # looking is still possible
    holder.execute("ROLLBACK")
    assert client.post("/api/jobs", json=collar).status_code == 201
    holder.close()
    close_database(kept.engine)


def test_a_file_that_can_not_be_written(client, kept: Jobs, collar, job) -> None:
    event.listen(kept.engine, "connect", lambda one, _: one.execute("PRAGMA query_only=ON").close())  # as SQLite says it then
    kept.engine.dispose()
    answer = client.post("/api/jobs", json=collar)
    assert answer.status_code == 500
    assert "cannot be written to" in answer.json()["title"]


def test_a_plain_copy_after_the_stop_has_everything(tmp_path: Path, collar) -> None:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    with TestClient(create_app(jobs, web=None), base_url="http://127.0.0.1") as client:
        for _ in range(20):
            assert client.post("/api/jobs", json=collar).status_code == 201
    assert rows_of(tmp_path / "kept.sqlite")["jobs"] == 20
    assert not list(tmp_path.glob("*-wal"))


def test_a_plain_copy_after_ctrl_c_has_everything(tmp_path: Path, collar) -> None:
    Jobs.open(tmp_path / "kept.sqlite").close()
    server = Server(tmp_path / "kept.sqlite")
    with httpx.Client(base_url=server.address) as client:
        for _ in range(10):
            assert client.post("/api/jobs", json=collar).status_code == 201
    server.stop()
    assert rows_of(tmp_path / "kept.sqlite")["jobs"] == 10


def test_a_transaction_in_a_transaction_is_part_of_it(kept: Jobs, collar) -> None:
    with pytest.raises(RuntimeError, match="in the middle"), sessions.writing(kept.engine):
        kept.add(check_job_file(collar))
        assert len(kept.search()[1]) == 1
        raise RuntimeError("in the middle")
    assert kept.search()[1] == []
