"""Backups: every day and kept for a fortnight, compared row by row, and put back as they were."""

import sqlite3
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

from demo_workshop import demo_workshop
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import BadInput, NotFound, StoreTrouble
from kelbrast.exchange.read import check_job_file
from kelbrast.storage.backups import Backups, TableChange

NOW = datetime(2026, 3, 1, 7, 30)


def rows(path: Path) -> dict[str, list[Any]]:
    with sqlite3.connect(path) as raw:
        tables = [name for (name,) in raw.execute("select name from sqlite_master where type = 'table'")]
        return {table: sorted(map(repr, raw.execute(f'select * from "{table}"'))) for table in tables}


@pytest.fixture
def kept(tmp_path: Path) -> tuple[Jobs, Backups]:
    return demo_workshop(tmp_path / "shop.sqlite"), Backups(tmp_path / "shop.sqlite")


def test_a_backup_is_put_back_row_by_row_while_the_program_runs(kept: tuple[Jobs, Backups], collar: dict[str, Any]) -> None:
    jobs, backups = kept
    made = backups.make("asked", NOW)
    before = rows(backups.folder / made.name)
    first, second = jobs.summaries()[:2]
    jobs.remove(first.id)
    jobs.change(second.id, check_job_file({**collar, "title": "Changed since"}), revision=jobs.get(second.id).revision)
    added = jobs.add(check_job_file({**collar, "title": "New since"}))
    changes = {one.table: one for one in backups.changes(backups.file(made.name))}
    assert changes["jobs"].go == (0 if added.id == first.id else 1)
    assert changes["jobs"].other >= 1
    saved = backups.restore(backups.file(made.name), NOW + timedelta(minutes=5))
    assert rows(backups.path) == before
    assert {one.title for one in jobs.summaries()} >= {first.title, second.title}
    assert jobs.add(check_job_file(collar)).id  # the open program goes on with it
    backups.restore(backups.file(saved.name), NOW + timedelta(minutes=6))  # and what was there before is not lost
    assert "New since" in {one.title for one in jobs.summaries()}


def test_nothing_changes_where_nothing_would(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    assert backups.changes(backups.file(backups.make("asked", NOW).name)) == []


def test_what_would_change_is_counted_by_table(kept: tuple[Jobs, Backups], collar: dict[str, Any]) -> None:
    jobs, backups = kept
    made = backups.make("asked", NOW)
    added = jobs.add(check_job_file(collar))
    assert backups.changes(backups.file(made.name)) == [TableChange("jobs", 0, 1, 0)]
    jobs.remove(added.id)
    jobs.remove(jobs.summaries()[0].id)
    assert {(one.table, one.come > 0, one.go) for one in backups.changes(backups.file(made.name))} == {
        ("jobs", True, 0),
    }


def test_one_a_day_for_a_fortnight_and_what_was_asked_for_stays(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    asked = backups.make("asked", NOW - timedelta(days=40))
    for day in range(20):
        at = NOW + timedelta(days=day)
        assert backups.every_day(at) is not None
        assert backups.every_day(at + timedelta(hours=3)) is None
    daily = [one.at for one in backups.all() if one.kind == "daily"]
    assert daily == [NOW + timedelta(days=day) for day in range(19, 4, -1)]
    assert backups.all()[-1] == asked


def test_what_is_no_backup_is_refused_and_the_database_stays(kept: tuple[Jobs, Backups], tmp_path: Path) -> None:
    _, backups = kept
    before = rows(backups.path)
    for name in ("../shop.sqlite", "nothing.sqlite", "20260301-073000-asked.sqlite"):
        with pytest.raises(NotFound):
            backups.file(name)
    text = tmp_path / "text.sqlite"
    text.write_text("not a database at all, but long enough to be looked at as one " * 20)
    with pytest.raises(StoreTrouble):
        backups.restore(text, NOW)
    with pytest.raises(StoreTrouble):
        backups.restore(tmp_path / "missing.sqlite", NOW)
    with pytest.raises(BadInput, match="itself"):
        backups.restore(backups.path, NOW)
    assert rows(backups.path) == before
    assert backups.all() == []
