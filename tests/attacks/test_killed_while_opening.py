"""The program is killed, or the disk is full, while it makes or changes its tables: the next start finds all or nothing."""

import sqlite3
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from alembic.config import Config

from attacking import chance, killed, many, rows_of, took
from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo
from kelbrast.core.errors import StoreTrouble
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import database
from kelbrast.storage.copies import back_up
from kelbrast.storage.database import open_database


@pytest.fixture(autouse=True)
def step_by_step(quick_databases, monkeypatch: pytest.MonkeyPatch) -> None:
    """Here the tables are made as they are in earnest."""
    monkeypatch.setattr(database, "_bring_up_to_date", quick_databases)


def _opened(path: Path) -> None:
    open_database(path).dispose()


@pytest.fixture
def older(tmp_path: Path, collar: dict[str, Any]) -> Callable[[str], Path]:
    """A database with twenty jobs as an older version left it."""

    def make(version: str) -> Path:
        path = tmp_path / f"of-{version}.sqlite"
        jobs = Jobs.open(path)
        for number in range(20):
            jobs.add(check_job_file({**collar, "title": f"collar {number}"}))
        jobs.close()
        config = Config()
        config.set_main_option("script_location", str(database._MIGRATIONS))
        engine = database._engine(path, 5, foreign_keys=False)
        with engine.connect() as connection, connection.begin():
            config.attributes["connection"] = connection
            command.downgrade(config, version)
        database.close_database(engine)
        return path

    return make


def test_killed_in_the_first_start(tmp_path: Path) -> None:
    luck, path, through = chance("first start"), tmp_path / "kept.sqlite", 0
    whole = took(lambda: _opened(tmp_path / "other.sqlite"))
    for _ in range(many(2)):
        for left in tmp_path.glob("kept*"):
            left.unlink()
        through += not killed(
            lambda: _opened(path), luck.uniform(0, whole) / 2**through
        )  # on a machine that got quicker, earlier
        jobs = Jobs.open(path)
        assert jobs.search()[1] == []
        jobs.engine.dispose()
    assert through < many(2)  # at least one was killed in the middle


@pytest.mark.parametrize("version", ["0001", "0005"])
def test_killed_while_the_tables_are_changed(tmp_path: Path, older: Callable[[str], Path], version: str) -> None:
    luck, path = chance("upgrade"), tmp_path / "kept.sqlite"
    made = older(version)
    before = made.read_bytes()
    path.write_bytes(before)
    whole = took(lambda: _opened(path))
    for _ in range(many(1)):
        for left in tmp_path.glob("kept*"):
            left.unlink()
        path.write_bytes(before)
        while killed(lambda: _opened(path), luck.uniform(0, whole)) and luck.random() < 0.5:
            pass  # killed again and again
        _opened(path)
        jobs = Jobs.open(path)
        assert [one.title for one in jobs.search()[1]] == [f"collar {number}" for number in reversed(range(20))]
        jobs.engine.dispose()
        for copy in tmp_path.glob("kept-before-*.sqlite"):
            with sqlite3.connect(copy) as raw:  # what was made before is a whole database of the older version
                assert raw.execute("select version_num from alembic_version").fetchone() == (version,)
                assert raw.execute("select count(*) from jobs").fetchone() == (20,)
        assert list(tmp_path.glob("kept-before-*.sqlite"))


def test_the_copy_made_before_is_never_written_over(tmp_path: Path, older: Callable[[str], Path]) -> None:
    path = older("0005")
    first = path.with_name(f"{path.stem}-before-{_newest()}.sqlite")
    first.write_text("something that is dear to somebody")
    _opened(path)
    assert first.read_text() == "something that is dear to somebody"
    assert rows_of(first.with_name(f"{first.stem}-2.sqlite"))["jobs"] == 20


@pytest.mark.soak
def test_killed_while_the_demo_is_filled(tmp_path: Path) -> None:
    luck, path = chance("demo"), tmp_path / "demo.sqlite"

    def fill() -> None:
        load_demo(Jobs.open(path))

    whole = took(fill)
    for _ in range(many(1)):
        for left in tmp_path.glob("demo*"):
            left.unlink()
        killed(fill, luck.uniform(0, whole))
        jobs = Jobs.open(path)
        assert len(jobs.search()[1]) in (0, len(demo_jobs()))
        load_demo(jobs)
        assert len(jobs.search()[1]) == len(demo_jobs())
        assert jobs.rack.items()
        jobs.engine.dispose()


def test_a_disk_that_is_full_while_the_tables_are_made(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path, engine_of = tmp_path / "kept.sqlite", database._engine
    for pages in range(2, 40, 4):

        def small(*given: Any, pages: int = pages, **more: Any) -> Any:
            engine = engine_of(*given, **more)
            database.event.listen(engine, "connect", lambda one, _: one.execute(f"PRAGMA max_page_count={pages}").close())
            return engine

        monkeypatch.setattr(database, "_engine", small)
        with pytest.raises(StoreTrouble, match="disk is full"):
            open_database(path)
        monkeypatch.setattr(database, "_engine", engine_of)
        with sqlite3.connect(path) as raw:
            assert raw.execute("select count(*) from sqlite_master").fetchone() == (0,)
    _opened(path)


def test_a_backup_is_whole_or_not_there(tmp_path: Path, older: Callable[[str], Path]) -> None:
    luck, path, target = chance("backup"), older("0005"), tmp_path / "copy.sqlite"
    whole = took(lambda: back_up(path, tmp_path / "other.sqlite"))
    for _ in range(many(2)):
        target.unlink(missing_ok=True)
        killed(lambda: back_up(path, target), luck.uniform(0, whole))
        assert not target.exists() or rows_of(target)["jobs"] == 20
    target.unlink(missing_ok=True)
    back_up(path, target)
    assert not list(tmp_path.glob("*.part"))


def _newest() -> str:
    return max(path.name[:4] for path in (database._MIGRATIONS / "versions").glob("0*.py"))
