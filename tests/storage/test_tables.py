"""The tables are compared with the models whenever a database is opened: repaired where that can be, refused by name elsewhere."""

import hashlib
import shutil
import sqlite3
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import StoreTrouble
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import database
from kelbrast.storage.shape import differences

VERSIONS = Path(database.__file__).parent / "migrations" / "versions"
# Published: a database that somebody has was made by exactly these. A change of the tables is a new file, never one of these.
PUBLISHED = {
    "0001_jobs_and_faces.py": "3ae2890eb9d4cc98",
    "0002_the_whole_planner.py": "56772d00394defcf",
    "0003_the_rack.py": "92f8389784792eae",
    "0004_the_bench_and_the_log.py": "330e2660b664e723",
    "0005_practice.py": "ad0922e3f5c0e6d5",
    "0006_revisions_of_the_rack.py": "3b65e15345562985",
    "0007_edges.py": "fdb9746b2540eedd",
    "0008_work_to_size.py": "24b3c6d488268780",
    "0009_faces_to_size.py": "b32beeff8c190d82",
    "0010_the_day_and_the_price.py": "fae90c2e0652d893",
    "0011_photos_of_parts.py": "c8e9f1ff44cb41b9",
    "0012_what_the_eye_saw.py": "16d68299a2ee77c4",
    "0013_documents.py": "96dc0a3c8f2cd335",
    "0014_states_of_jobs.py": "8660eacf1ec6d8ca",
}


def test_published_migrations_never_change_again() -> None:
    now = {file.name: hashlib.sha256(file.read_bytes()).hexdigest()[:16] for file in VERSIONS.glob("0*.py")}
    assert {name: now.get(name) for name in PUBLISHED} == PUBLISHED


@pytest.fixture
def changed(tmp_path: Path, collar: dict[str, Any]) -> Callable[..., Path]:
    """A database with a job in it, changed by these statements."""

    def change(*statements: str) -> Path:
        path = tmp_path / "kept.sqlite"
        jobs = Jobs.open(path)
        jobs.add(check_job_file(collar))
        jobs.close()
        with sqlite3.connect(path) as raw:
            for statement in statements:
                raw.execute(statement)
        raw.close()
        return path

    return change


@pytest.mark.parametrize(
    "missing",
    [
        "alter table runs drop column waxed_at",
        "drop table practice_answers",
        "drop table run_events",
        "drop index ix_jobs_by_state",
        "drop index ix_jobs_by_due",
        "drop table jobs_text",
        "drop trigger runs_text_changed",
        "alter table rack_items drop column revision",
    ],
)
def test_what_is_missing_is_added_and_a_copy_kept(changed: Callable[..., Path], missing: str) -> None:
    drops_index = "waxed_at" in missing
    path = changed(*(["drop index ix_runs_waxed_at"] if drops_index else []), missing)
    before = hashlib.sha256(path.read_bytes()).digest()
    jobs = Jobs.open(path)
    assert len(jobs.search()[1]) == 1
    with jobs.engine.connect() as connection:
        assert not differences(connection)
    jobs.close()
    (copy,) = path.parent.glob("kept-before-*.sqlite")
    jobs = Jobs.open(path)  # once is enough
    jobs.close()
    assert [copy] == list(path.parent.glob("kept-before-*.sqlite"))
    assert hashlib.sha256(path.read_bytes()).digest() != before


@pytest.mark.parametrize(
    ("statement", "said"),
    [
        ("alter table jobs drop column created_at", "jobs has no created_at"),
        ("alter table quotes rename column document to paper", "quotes has no document"),
    ],
)
def test_what_can_not_be_repaired_is_refused_by_name(changed: Callable[..., Path], statement: str, said: str) -> None:
    path = changed(statement)
    before = path.read_bytes()
    with pytest.raises(StoreTrouble, match=said) as trouble:
        Jobs.open(path)
    assert trouble.value.cause == "other-tables"
    assert path.read_bytes() == before
    assert list(path.parent.glob("*-before-*")) == []


def test_a_type_and_a_key_are_looked_at_too(changed: Callable[..., Path]) -> None:
    path = changed(
        "create table other (id integer primary key, job_id integer, at datetime, document text)",
        "drop table quotes",
        "alter table other rename to quotes",
    )
    with pytest.raises(StoreTrouble, match=r"quotes\.document is TEXT, not JSON.*quotes\.job_id does not point at jobs"):
        Jobs.open(path)


@pytest.fixture
def replaced(tmp_path: Path, collar: dict[str, Any]) -> tuple[Jobs, Path]:
    """A database in use, and an older copy of it that somebody will put in its place."""
    path, copy = tmp_path / "kept.sqlite", tmp_path / "older.sqlite"
    Jobs.open(path).close()
    shutil.copyfile(path, copy)
    jobs = Jobs.open(path)
    jobs.add(check_job_file({**collar, "title": "Written before"}))
    return jobs, copy


@pytest.mark.parametrize("how", ["renamed over it", "copied over it", "moved away", "the backup copied over it"])
def test_nothing_is_written_into_a_file_that_was_replaced(
    replaced: tuple[Jobs, Path], collar: dict[str, Any], tmp_path: Path, how: str
) -> None:
    jobs, copy = replaced
    path = Path(jobs.engine.url.database or "")
    if how == "renamed over it":
        copy.replace(path)
    elif how == "copied over it":  # as a sync tool does it: a new file
        path.unlink()
        shutil.copyfile(copy, path)
    elif how == "moved away":
        path.rename(tmp_path / "elsewhere.sqlite")
    else:
        backup = tmp_path / "backup.sqlite"
        back_up = database.save_what_is_held
        back_up(jobs.engine, backup)
        path.write_bytes(backup.read_bytes())  # into the same file
    with pytest.raises(StoreTrouble) as trouble:
        jobs.add(check_job_file({**collar, "title": "Written after"}))
    assert trouble.value.cause == "replaced"
    # What was acknowledged can still be read, unless it was overwritten in place.
    kept = [one.title for one in jobs.search()[1]] if how != "the backup copied over it" else ["Written before"]
    assert kept == ["Written before"]
    database.save_what_is_held(jobs.engine, tmp_path / "saved.sqlite")
    saved = Jobs.open(tmp_path / "saved.sqlite")
    assert [one.title for one in saved.search()[1]] == ["Written before"]
    saved.close()


def test_a_file_that_was_replaced_on_purpose_is_taken(replaced: tuple[Jobs, Path], collar: dict[str, Any]) -> None:
    jobs, copy = replaced
    path = Path(jobs.engine.url.database or "")
    for one in path.parent.glob("kept.sqlite*"):
        one.unlink()
    Jobs.open(copy).close()
    shutil.copyfile(copy, path)
    database.take_new_file(jobs.engine)
    jobs.add(check_job_file(collar))
    assert len(jobs.search()[1]) == 1
