"""Backups: every day and kept for a fortnight, compared row by row, and put back as they were."""

import os
import sqlite3
import tempfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest

from demo_workshop import demo_workshop
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import BadInput, NotFound, StoreTrouble
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import backups as store
from kelbrast.storage.backups import Backups, TableChange
from kelbrast.storage.copies import back_up_before_migration
from kelbrast.storage.scratch import Scratch, remove_abandoned

NOW = datetime(2026, 3, 1, 7, 30, tzinfo=UTC)


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
    first, second = jobs.search()[1][:2]
    jobs.remove(first.id)
    jobs.change(second.id, check_job_file({**collar, "title": "Changed since"}), revision=jobs.get(second.id).revision)
    added = jobs.add(check_job_file({**collar, "title": "New since"}))
    changes = {change.table: change for change in backups.changes(backups.file(made.name))}
    assert changes["jobs"].go == (0 if added.id == first.id else 1)
    assert changes["jobs"].other >= 1
    saved = backups.restore(backups.file(made.name), NOW + timedelta(minutes=5))
    assert rows(backups.path) == before
    assert {one.title for one in jobs.search()[1]} >= {first.title, second.title}
    assert jobs.add(check_job_file(collar)).id  # the open program goes on with it
    backups.restore(backups.file(saved.name), NOW + timedelta(minutes=6))  # and what was there before is not lost
    assert "New since" in {one.title for one in jobs.search()[1]}


def test_nothing_changes_where_nothing_would(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    assert backups.changes(backups.file(backups.make("asked", NOW).name)) == []


def test_what_would_change_is_counted_by_table(kept: tuple[Jobs, Backups], collar: dict[str, Any]) -> None:
    jobs, backups = kept
    made = backups.make("asked", NOW)
    added = jobs.add(check_job_file(collar))
    assert backups.changes(backups.file(made.name)) == [
        TableChange("jobs", 0, 1, 0, now=len(jobs.search()[1]), then=len(jobs.search()[1]) - 1)
    ]
    jobs.remove(added.id)
    jobs.remove(jobs.search()[1][0].id)
    assert {(change.table, change.come > 0, change.go) for change in backups.changes(backups.file(made.name))} == {
        ("jobs", True, 0),
    }


def damage(path: Path) -> None:
    """Overwrite pages in the middle of the file, as a failing disk does."""
    with path.open("r+b") as file:
        file.seek(path.stat().st_size // 2)
        file.write(b"\xa5" * 8192)


def test_the_newest_fortnight_of_daily_backups_is_kept_and_what_was_asked_for_stays(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    asked = backups.make("asked", NOW - timedelta(days=40))
    for day in range(20):
        at = NOW + timedelta(days=day)
        assert backups.every_day(at) is not None
        assert backups.every_day(at + timedelta(hours=3)) is None
    daily = [one.at for one in backups.all() if one.kind == "daily"]
    assert daily == [NOW + timedelta(days=day) for day in range(19, 5, -1)]
    assert backups.all()[-1] == asked


@pytest.mark.parametrize("wrong", [NOW + timedelta(days=3650), datetime(1970, 1, 2, tzinfo=UTC)])
def test_a_wrong_clock_costs_one_backup_at_most(kept: tuple[Jobs, Backups], wrong: datetime) -> None:
    _, backups = kept
    for day in range(14):
        backups.every_day(NOW + timedelta(days=day))
    before = {one.name for one in backups.all()}
    made = backups.every_day(wrong)
    assert made is not None
    after = {one.name for one in backups.all()}
    assert made.name in after
    assert len(before - after) == 1
    for day in range(14, 20):
        assert backups.every_day(NOW + timedelta(days=day)) is not None
    assert len([one for one in backups.all() if one.kind == "daily"]) == 14


def test_a_damaged_database_is_never_backed_up_and_costs_no_good_backup(kept: tuple[Jobs, Backups]) -> None:
    jobs, backups = kept
    backups.every_day(NOW)
    before = rows(backups.file(backups.all()[0].name))
    jobs.close()
    damage(backups.path)
    for day in range(1, 20):
        with pytest.raises(StoreTrouble, match="damaged"):
            backups.every_day(NOW + timedelta(days=day))
    with pytest.raises(StoreTrouble, match="damaged"):
        backups.check()
    (only,) = backups.all()
    assert list(backups.folder.iterdir()) == [backups.file(only.name)]
    assert backups.restore(backups.file(only.name), NOW + timedelta(days=20)).kind == "damaged"
    assert rows(backups.path) == before
    backups.check()


def test_strange_names_in_the_folder_stop_nothing(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    backups.folder.mkdir()
    (backups.folder / "20261399-000000-daily.sqlite").write_text("no such month")
    (backups.folder / "00000000-000000Z-daily.sqlite").write_text("no such day")
    (backups.folder / "20260301-000000-daily.sqlite").mkdir()
    (backups.folder / "20260302-000000-daily.sqlite").symlink_to("nowhere")
    (backups.folder / "shopping list.txt").write_text("rags")
    assert backups.every_day(NOW) is not None
    assert [one.kind for one in backups.all()] == ["daily"]
    with pytest.raises(NotFound):
        backups.file("20261399-000000-daily.sqlite")


def test_what_the_program_makes_is_bounded_by_number_and_by_size(
    kept: tuple[Jobs, Backups], monkeypatch: pytest.MonkeyPatch
) -> None:
    _, backups = kept
    for hour in range(12):
        backups.make("before-restore", NOW + timedelta(hours=hour))
    assert len(backups.all()) == 10
    monkeypatch.setattr(store, "LARGEST_IN_ALL", 1)
    backups.make("daily", NOW + timedelta(days=1))
    assert [one.kind for one in backups.all()] == ["daily", "before-restore", "before-restore"]
    monkeypatch.setattr(store, "MOST_OF_A_PERSON", 2)
    for hour in range(2):
        backups.make("asked", NOW + timedelta(hours=hour))
    with pytest.raises(BadInput, match="remove one"):
        backups.make("asked", NOW + timedelta(hours=3))


def test_interrupted_copies_are_removed_but_not_those_in_the_making(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    backups.folder.mkdir()
    left, making = backups.folder / "a.sqlite.part", backups.folder / "b.sqlite.part"
    for one in (left, making, backups.path.with_name("shop-before-0013.sqlite.part")):
        one.write_text("half")
    for one in (left, backups.path.with_name("shop-before-0013.sqlite.part")):
        os.utime(one, (0, 0))
    backups.remove_parts()
    assert [one.name for one in backups.folder.iterdir()] == [making.name]
    assert list(backups.path.parent.glob("*.part")) == []


def test_the_repeated_hour_of_autumn_is_told_apart(kept: tuple[Jobs, Backups]) -> None:
    _, backups = kept
    first = datetime(2026, 10, 25, 0, 30, tzinfo=UTC)  # half past two in middle Europe, and an hour later again
    made = [backups.make("asked", first + timedelta(hours=hour)) for hour in (0, 1)]
    assert [one.at for one in reversed(backups.all())] == [first, first + timedelta(hours=1)]
    assert made[0].name != made[1].name


def test_copies_before_a_migration_are_few(tmp_path: Path) -> None:
    path = tmp_path / "shop.sqlite"
    Jobs.open(path).close()
    copies = {back_up_before_migration(path, "0099") for _ in range(20)}
    assert len(copies) == 1
    assert len(list(tmp_path.glob("shop-before-*"))) == 1
    for number in range(6):
        with sqlite3.connect(path) as raw:
            raw.execute("insert into settings (key, value) values (?, '{}')", (f"k{number}",))
        raw.close()
        newest = back_up_before_migration(path, "0099")
    assert len(list(tmp_path.glob("shop-before-*"))) == 3
    assert rows(newest) == rows(path)


def test_abandoned_folders_are_removed_and_held_ones_stay(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(tempfile, "tempdir", str(tmp_path))
    held, left = Scratch(), Scratch()
    left._lock.release()  # as when its process was killed
    for one in (held, left):
        os.utime(one.folder, (0, 0))
    assert remove_abandoned() == 1
    assert (held.folder.exists(), left.folder.exists()) == (True, False)
    held.remove()


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
