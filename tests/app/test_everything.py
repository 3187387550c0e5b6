"""Everything goes out as one archive and in on an empty program: the same rows, plans and logs; what is damaged is refused whole."""

import io
import json
import random
import sqlite3
import zipfile
from datetime import datetime
from pathlib import Path

import pytest
from PIL import Image

from demo_workshop import demo_workshop
from kelbrast.app.everything import bring, look_into, restore
from kelbrast.app.jobs import Jobs
from kelbrast.app.log import Log
from kelbrast.app.photos import PartPhotos, Photos
from kelbrast.app.runs import Runs
from kelbrast.core.errors import BadInput, KelbrastError
from kelbrast.storage import everything as everything_store
from kelbrast.storage import text_search
from kelbrast.storage.backups import Backups
from kelbrast.storage.database import make_tables
from kelbrast.storage.everything import write_everything
from kelbrast.storage.runs import Wanted

NOW = datetime(2026, 3, 1, 7, 30)


def picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (64, 48), "#b08d57").save(out, "JPEG")
    return out.getvalue()


@pytest.fixture(scope="module")
def shop(tmp_path_factory: pytest.TempPathFactory) -> Jobs:
    """The demo workshop with its past, photos, and a job that is gone."""
    jobs = demo_workshop(tmp_path_factory.mktemp("shop") / "shop.sqlite", with_past=True)
    first = jobs.search()[1][0].id
    PartPhotos(jobs.engine).add(first, picture(), shows="before")
    Photos(jobs.engine).add(1, picture(), shows="stage", across_mm=None)
    jobs.remove(jobs.duplicate(first).id)
    return jobs


@pytest.fixture(scope="module")
def archive(shop: Jobs, tmp_path_factory: pytest.TempPathFactory) -> Path:
    return write_everything(Path(shop.engine.url.database), tmp_path_factory.mktemp("out") / "everything.zip")


def rows(path: Path) -> dict[str, list[str]]:
    with sqlite3.connect(path) as raw:
        tables = [name for (name,) in raw.execute("select name from sqlite_master where type = 'table'")]
        kept = (table for table in tables if table not in text_search.TABLES)
        return {table: sorted(map(repr, raw.execute(f'select * from "{table}"'))) for table in kept}


def test_out_and_in_on_an_empty_program_gives_the_same(shop: Jobs, archive: Path, tmp_path: Path) -> None:
    new = Jobs.open(tmp_path / "new.sqlite")
    backups = Backups(tmp_path / "new.sqlite")
    brought = bring(backups, archive, NOW)
    assert brought.kind == "brought"
    assert new.search()[1] == []  # until it is put in place nothing changes
    assert {change.table for change in backups.changes(backups.file(brought.name))} >= {"jobs", "runs", "rack_items", "photos"}
    backups.restore(backups.file(brought.name), NOW)
    shop.close()
    assert rows(tmp_path / "new.sqlite") == rows(Path(shop.engine.url.database))
    assert new.search()[1] == shop.search()[1]
    for one in shop.search()[1]:
        assert new.plan(one.id) == shop.plan(one.id)
    old_log, new_log = (list(Log(Runs(jobs)).run_files(Wanted())) for jobs in (shop, new))
    assert len(old_log) > 5
    assert new_log == old_log
    assert new.rack.items() == shop.rack.items()
    assert Photos(new.engine).picture(1) == Photos(shop.engine).picture(1)
    again = new.duplicate(shop.search()[1][0].id).id
    assert again not in {one.id for one in shop.search()[1]}
    with sqlite3.connect(shop.engine.url.database) as raw:
        (ever,) = raw.execute("select seq from sqlite_sequence where name = 'jobs'").fetchone()
    assert again == ever + 1  # the number of what was deleted is not given again


def test_it_can_be_read_without_this_program(archive: Path, shop: Jobs) -> None:
    with zipfile.ZipFile(archive) as packed:
        about = json.loads(packed.read("kelbrast.json"))
        jobs = [json.loads(line) for line in packed.read("jobs.jsonl").splitlines()]
        runs = [json.loads(line) for line in packed.read("runs.jsonl").splitlines()]
        assert Image.open(io.BytesIO(packed.read("photos/1.jpg"))).size == (64, 48)
    assert about["kelbrast"] == "everything/1"
    assert {job["title"] for job in jobs} == {one.title for one in shop.search()[1]}
    assert runs[0]["plan"]["kelbrast"] == "plan/1"  # documents are documents and no text


def changed(archive: Path, target: Path, name: str, text: str | None) -> Path:
    """The archive with one file otherwise, or without it, and as older versions wrote it: nothing says how many rows there were."""
    with zipfile.ZipFile(archive) as old, zipfile.ZipFile(target, "w") as new:
        for one in old.namelist():
            if one != name:
                data = old.read(one)
                if one == "kelbrast.json":
                    data = json.dumps({**json.loads(data), "rows": None}).encode()
                new.writestr(one, data)
        if text is not None:
            new.writestr(name, text)
    return target


ABOUT = {"kelbrast": "everything/1", "version": "0", "made_at": "2026-03-01", "tables": "0015", "ever": {}}


@pytest.mark.parametrize(
    ("name", "text", "said"),
    [
        ("kelbrast.json", None, "kelbrast.json"),
        ("kelbrast.json", "{", "can be read"),
        ("kelbrast.json", json.dumps({**ABOUT, "kelbrast": "everything/9"}), "everything/9"),
        ("kelbrast.json", json.dumps({**ABOUT, "tables": "9999"}), "newer version"),
        ("kelbrast.json", json.dumps({**ABOUT, "tables": "../0013"}), "newer version"),
        ("kelbrast.json", json.dumps({**ABOUT, "ever": {"jobs": "many"}}), "can be read"),
        ("jobs.jsonl", '{"id": 1, "colour": "red"}', "has no colour"),
        ("jobs.jsonl", "[]", "no row"),
        ("jobs.jsonl", '{"id": 1}', "NOT NULL"),
        ("jobs.jsonl", '{"id": 1, "title": {"a": 1}}', "title must be"),
        ("jobs.jsonl", None, "belongs to nothing in jobs"),
        ("jobs.jsonl", '{"id": 123456789012345678901234567890}', "can be read"),
        ("photos/1.jpg", None, "photos/1.jpg"),
        ("settings.jsonl", '{"key": "shop", "value": {"people": 7}}', "cannot be read: the shop"),
    ],
)
def test_what_is_wrong_in_it_is_named_and_nothing_changes(
    archive: Path, tmp_path: Path, name: str, text: str | None, said: str
) -> None:
    database = tmp_path / "kept.sqlite"
    Jobs.open(database).close()
    before = rows(database)
    with pytest.raises(BadInput, match=said):
        bring(Backups(database), changed(archive, tmp_path / "wrong.zip", name, text), NOW)
    assert rows(database) == before
    assert Backups(database).all() == []


def test_one_enormous_setting_and_millions_of_rows_are_refused_at_once(
    archive: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    Jobs.open(tmp_path / "kept.sqlite").close()
    backups = Backups(tmp_path / "kept.sqlite")
    setting = json.dumps({"key": "shop", "value": {"note": "x" * 5_000_000}})
    with pytest.raises(BadInput, match="settings has a line that is longer"):
        bring(backups, changed(archive, tmp_path / "large.zip", "settings.jsonl", setting), NOW)
    monkeypatch.setattr(everything_store, "MOST_ROWS", 100)
    many = "".join(json.dumps({"id": at, "thing": "wheel", "care": "rake", "at": "2026-01-01"}) + "\n" for at in range(1, 103))
    with pytest.raises(BadInput, match="care_done has more than 100 rows"):
        bring(backups, changed(archive, tmp_path / "many.zip", "care_done.jsonl", many), NOW)


@pytest.mark.parametrize("table", ["jobs", "rack_items", "run_events"])
def test_an_archive_that_lost_rows_is_refused_as_incomplete(archive: Path, tmp_path: Path, table: str) -> None:
    short = tmp_path / "short.zip"
    with zipfile.ZipFile(archive) as old, zipfile.ZipFile(short, "w") as new:
        for one in old.namelist():
            data = old.read(one)
            lines = data.splitlines(keepends=True)
            new.writestr(one, b"".join(lines[:-1]) if one == f"{table}.jsonl" else data)
    Jobs.open(tmp_path / "kept.sqlite").close()
    with pytest.raises(BadInput, match=f"incomplete: {table}"):
        bring(Backups(tmp_path / "kept.sqlite"), short, NOW)


@pytest.mark.parametrize(
    "data",
    [b"", b"x", b"SQLite format 3\x00", b"PK\x05\x06" + bytes(18), b"dear diary " * 1000],
    ids=["empty", "one byte", "a header alone", "an empty archive", "text"],
)
def test_what_holds_nothing_is_no_backup(tmp_path: Path, data: bytes) -> None:
    Jobs.open(tmp_path / "kept.sqlite").close()
    backups, file = Backups(tmp_path / "kept.sqlite"), tmp_path / "file"
    file.write_bytes(data)
    with pytest.raises(BadInput):
        bring(backups, file, NOW)
    assert backups.all() == []


def test_restoring_less_than_there_is_asks_first_with_the_numbers(shop: Jobs, tmp_path: Path) -> None:
    jobs = demo_workshop(tmp_path / "kept.sqlite")
    backups = Backups(tmp_path / "kept.sqlite")
    full = backups.make("asked", NOW)
    count = len(jobs.search()[1])
    jobs.remove(jobs.search()[1][0].id)
    fewer = backups.make("asked", NOW)
    restore(jobs, backups, backups.file(full.name), NOW, sure=False)  # more than there is: nothing is lost
    with pytest.raises(BadInput, match=f"{count - 1} jobs instead of {count}"):
        restore(jobs, backups, backups.file(fewer.name), NOW, sure=False)
    assert len(jobs.search()[1]) == count
    restore(jobs, backups, backups.file(fewer.name), NOW, sure=True)
    assert len(jobs.search()[1]) == count - 1


def test_restoring_what_cannot_be_read_asks_first(tmp_path: Path) -> None:
    jobs = demo_workshop(tmp_path / "kept.sqlite")
    backups = Backups(tmp_path / "kept.sqlite")
    made = backups.make("asked", NOW)
    with sqlite3.connect(backups.file(made.name)) as raw:
        raw.execute("update jobs set document = json_set(document, '$.colour', 'red') where id = 3")
    raw.close()
    look = look_into(backups, backups.file(made.name))
    assert look.unreadable == ("job 3: colour: unknown key",) or look.unreadable[0].startswith("job 3: colour")
    with pytest.raises(BadInput, match="cannot be read by this version"):
        restore(jobs, backups, backups.file(made.name), NOW, sure=False)


def test_a_damaged_database_is_replaced_while_the_program_runs(tmp_path: Path) -> None:
    jobs = demo_workshop(tmp_path / "kept.sqlite")
    backups = Backups(tmp_path / "kept.sqlite")
    made = backups.make("asked", NOW)
    count = len(jobs.search()[1])
    with jobs.engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    jobs.engine.dispose()
    with backups.path.open("r+b") as file:
        file.seek(backups.path.stat().st_size // 2)
        file.write(b"\xa5" * 8192)
    restore(jobs, backups, backups.file(made.name), NOW, sure=True)
    assert len(jobs.search()[1]) == count
    jobs.duplicate(jobs.search()[1][0].id)  # and it can be written to
    assert [one.kind for one in backups.all() if one.kind == "damaged"] == ["damaged"]


def test_a_run_that_can_not_be_replayed_is_named(archive: Path, tmp_path: Path) -> None:
    with zipfile.ZipFile(archive) as packed:
        lines = packed.read("run_events.jsonl").decode().splitlines()
    event = json.loads(lines[0])
    event["document"] = {**event["document"], "kind": "exploded"}
    wrong = changed(archive, tmp_path / "wrong.zip", "run_events.jsonl", "\n".join([json.dumps(event), *lines[1:]]))
    Jobs.open(tmp_path / "kept.sqlite").close()
    with pytest.raises(BadInput, match=f"cannot be read: run {event['run_id']}"):
        bring(Backups(tmp_path / "kept.sqlite"), wrong, NOW)


def test_damaged_archives_are_refused_and_nothing_else_happens(archive: Path, tmp_path: Path) -> None:
    whole, dice = archive.read_bytes(), random.Random(7)
    Jobs.open(tmp_path / "kept.sqlite").close()
    backups = Backups(tmp_path / "kept.sqlite")
    outcomes = []
    for at in range(12):
        damaged = bytearray(whole[: dice.randrange(len(whole))] if at % 3 == 0 else whole)
        for _ in range(dice.randrange(1, 40)):
            damaged[dice.randrange(len(damaged))] = dice.randrange(256)
        file = tmp_path / f"damaged-{at}"
        file.write_bytes(damaged)
        try:
            outcomes.append(bring(backups, file, NOW).kind)
        except KelbrastError as refused:
            outcomes.append(type(refused).__name__)
    assert set(outcomes) <= {"BadInput", "brought"}
    assert "BadInput" in outcomes


def test_an_archive_of_an_older_version_comes_in_with_the_tables_of_today(tmp_path: Path) -> None:
    old = tmp_path / "old.sqlite"
    make_tables(old, "0003")
    with sqlite3.connect(old) as raw:
        raw.execute(
            "insert into jobs (id, revision, created_at, updated_at, title, material, pieces, habit, aim)"
            " values (4, 1, '2025-01-01', '2025-01-01', 'Name plates', 'brass', 2, 'usual', 'minutes')"
        )
    archive = write_everything(old, tmp_path / "old.zip")
    new = Jobs.open(tmp_path / "new.sqlite")
    backups = Backups(tmp_path / "new.sqlite")
    with pytest.raises(BadInput, match="cannot be read: job 4"):  # a job has a face at least
        bring(backups, archive, NOW)
    with sqlite3.connect(old) as raw:
        raw.execute("delete from jobs")
        raw.execute(
            "insert into rack_items (id, what, name, count, made, note) values (1, 'loose', 'The old wheel', 1, '', '')"
        )
    backups.restore(backups.file(bring(backups, write_everything(old, tmp_path / "2.zip"), NOW).name), NOW)
    assert [one.file.name for one in new.rack.items()] == ["The old wheel"]


def test_a_backup_from_elsewhere_comes_in_by_the_same_door(shop: Jobs, tmp_path: Path) -> None:
    backups = Backups(Path(shop.engine.url.database))
    copy = backups.file(backups.make("asked", NOW).name)
    Jobs.open(tmp_path / "new.sqlite").close()
    new = Backups(tmp_path / "new.sqlite")
    assert rows(new.file(bring(new, copy, NOW).name)) == rows(copy)
    new.remove(new.all()[0].name)
    assert new.all() == []


def test_it_is_written_while_the_program_runs_and_never_over_another_file(tmp_path: Path) -> None:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    assert write_everything(tmp_path / "kept.sqlite", tmp_path / "out.zip").is_file()
    with pytest.raises(BadInput, match="exists already"):
        write_everything(tmp_path / "kept.sqlite", tmp_path / "out.zip")
    jobs.close()
    assert [one.name for one in tmp_path.glob("*.part")] == []
