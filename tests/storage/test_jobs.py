"""Keeping jobs in SQLite: what goes in comes out, changes cannot overwrite each other, tables follow the migrations."""

import json
import sqlite3
from pathlib import Path
from typing import Any

import pytest
from alembic.autogenerate import compare_metadata
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory

from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo
from kelbrast.core.errors import BadInput, Conflict, NotFound
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.common import versions
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import migrations, text_search
from kelbrast.storage.copies import back_up
from kelbrast.storage.database import make_tables, open_database, table_versions
from kelbrast.storage.tables import Base


@pytest.fixture
def jobs(tmp_path: Path) -> Jobs:
    return Jobs.open(tmp_path / "kept.sqlite")


@pytest.mark.parametrize("file", demo_jobs(), ids=lambda file: file.title)
def test_what_goes_in_comes_out(jobs: Jobs, file: Any) -> None:
    assert jobs.get(jobs.add(file).id).job == file


def test_change_counts_and_replaces(jobs: Jobs, collar: dict[str, Any]) -> None:
    kept = jobs.add(check_job_file(collar))
    second = {**collar["faces"][0], "id": "flange", "name": "flange"}
    changed = jobs.change(kept.id, check_job_file({**collar, "faces": [second, *collar["faces"]]}), revision=1)
    assert changed.revision == 2
    assert [face.name for face in jobs.get(kept.id).job.faces] == ["flange", "outer barrel"]


def test_a_change_on_an_old_revision_is_refused_and_nothing_is_lost(jobs: Jobs, collar: dict[str, Any]) -> None:
    kept = jobs.add(check_job_file(collar))
    jobs.change(kept.id, check_job_file({**collar, "title": "first"}), revision=1)
    with pytest.raises(Conflict):
        jobs.change(kept.id, check_job_file({**collar, "title": "second"}), revision=1)
    assert jobs.get(kept.id).job.title == "first"


def test_what_can_not_be_planned_is_not_kept(jobs: Jobs, collar: dict[str, Any]) -> None:
    with pytest.raises(BadInput):
        jobs.add(check_job_file({**collar, "material": "cheese"}))
    assert jobs.search()[1] == []


def test_duplicate_and_remove(jobs: Jobs, collar: dict[str, Any]) -> None:
    kept = jobs.add(check_job_file(collar))
    copy = jobs.duplicate(kept.id)
    assert copy.job.title == "Gallery rail collar (copy)"
    assert copy.job.faces == kept.job.faces
    jobs.remove(kept.id)
    with pytest.raises(NotFound):
        jobs.get(kept.id)
    assert [summary.id for summary in jobs.search()[1]] == [copy.id]


def test_the_demo_is_loaded_once_and_in_order(jobs: Jobs) -> None:
    assert load_demo(jobs) == len(demo_jobs())
    assert load_demo(jobs) == 0
    summaries = jobs.search()[1]
    assert [summary.title for summary in summaries] == [file.title for file in demo_jobs()]
    assert {summary.state for summary in summaries} == {"ready", "not-possible"}


def test_a_job_that_no_longer_plans_is_listed_with_its_reason(tmp_path: Path, collar: dict[str, Any]) -> None:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    jobs.add(check_job_file(collar))
    with sqlite3.connect(tmp_path / "kept.sqlite") as raw:
        raw.execute("update jobs set document = json_set(document, '$.material', 'unobtainium')")
    (summary,) = jobs.search()[1]
    assert summary.state == "cannot-plan"
    assert "unobtainium" in str(summary.reason)


def test_tables_are_what_the_migrations_make(tmp_path: Path) -> None:
    engine = open_database(tmp_path / "kept.sqlite")
    with engine.connect() as connection:
        ours = {"include_name": lambda name, kind, _: kind != "table" or name not in text_search.TABLES}
        assert compare_metadata(MigrationContext.configure(connection, opts=ours), Base.metadata) == []
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"


def test_the_files_of_the_migrations_are_named_by_their_versions() -> None:
    told = ScriptDirectory(str(Path(migrations.__file__).parent)).walk_revisions()
    assert table_versions() == [one.revision for one in told][::-1]


def test_a_backup_is_a_whole_database(tmp_path: Path, collar: dict[str, Any]) -> None:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    jobs.add(check_job_file(collar))
    copy = back_up(tmp_path / "kept.sqlite", tmp_path / "copy.sqlite")
    assert Jobs.open(copy).search()[1][0].title == "Gallery rail collar"


def test_a_database_of_the_first_tables_is_brought_up_to_date_and_copied_first(tmp_path: Path, collar: dict[str, Any]) -> None:
    path = tmp_path / "kept.sqlite"
    make_tables(path, "0001")
    face = collar["faces"][0]
    with sqlite3.connect(path) as raw:  # as version 0.1.0 kept it
        raw.execute(
            "insert into jobs (id, revision, created_at, updated_at, title, material, pieces, habit, aim) values"
            " (7, 3, '2026-01-02 03:04:05', '2026-01-02 03:04:05', ?, ?, ?, ?, ?)",
            [collar["title"], collar["material"], collar["pieces"], "long-steps", "metal"],
        )
        for position, name in enumerate((face["name"], "flange")):
            raw.execute(
                "insert into faces (job_id, position, name, area_cm2, shape, thickness_mm, reach, found, want, keep_off, curved)"
                " values (7, ?, ?, ?, ?, ?, 'open', ?, ?, ?, ?)",
                [
                    position,
                    name,
                    None,
                    json.dumps(face["shape"]),
                    6,
                    json.dumps(face["found"]),
                    json.dumps(face["want"]),
                    0,
                    None,
                ],
            )
    jobs = Jobs.open(path)
    kept = jobs.get(7)
    assert (kept.revision, kept.job.habit, kept.job.aim, kept.state) == (3, "long-steps", "metal", "asked")
    assert [(face.name, face.thickness_mm, face.curved, face.keep_off) for face in kept.job.faces] == [
        (face["name"], 6, None, False),
        ("flange", 6, None, False),
    ]
    assert kept.job.faces[0].found == check_job_file(collar).faces[0].found
    assert jobs.search()[1][0].state == "ready"
    assert list(tmp_path.glob("kept-before-*.sqlite"))


def test_an_older_form_is_read_as_the_newest_and_kept_as_it_is(
    tmp_path: Path, collar: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    kept = jobs.add(check_job_file(collar))
    named = {key: value for key, value in collar.items() if key != "title"}
    with sqlite3.connect(tmp_path / "kept.sqlite") as raw:
        raw.execute("update jobs set document = ?", [json.dumps({**named, "kelbrast": "job/0", "name": "Old collar"})])
    to_next = {
        "job/0": (
            "job/2",
            lambda old: {**{k: v for k, v in old.items() if k != "name"}, "kelbrast": "job/2", "title": old["name"]},
        )
    }
    with pytest.raises(BadInput, match="job/2"):
        jobs.get(kept.id)
    monkeypatch.setattr(versions.up_to_date, "__kwdefaults__", {"steps": to_next})
    assert jobs.get(kept.id).job.title == "Old collar"
    with sqlite3.connect(tmp_path / "kept.sqlite") as raw:
        assert '"job/0"' in raw.execute("select document from jobs").fetchone()[0]


def test_everything_that_a_job_can_say_is_kept(jobs: Jobs, collar: dict[str, Any]) -> None:
    full = {
        **collar,
        "handover": "fine-paper",
        "bench_speed": "low",
        "covering": "lacquered",
        "protect": "wax",
        "inserts": ["adhesive"],
        "mass_g": 420,
        "held": "clamp",
        "wet": "never",
        "diameters_mm": {"loose-white": 160},
        "use_rack": "own",
        "extras": ["paper-p240"],
        "insist": True,
    }
    full["faces"] = [
        {
            **collar["faces"][0],
            "keep_wall_mm": 5.5,
            "size_left_um": 400,
            "layer": {"kind": "plated", "thickness_um": 200, "keep_um": 20},
            "wish": {"start": "paper-p240", "lock": ["felt-white"], "leave_out": ["loose-rouge"], "route": []},
        }
    ]
    file = check_job_file(full)
    assert jobs.get(jobs.add(file).id).job == file


def _many(jobs: Jobs, collar: dict[str, Any]) -> None:
    for title, more in {
        "Rail collar": {"state": "ordered", "due": "2026-11-28T12:00:00Z", "note": "dent on the left"},
        "Name plates": {"state": "delivered", "customer": "Harbour office"},
        "Clock housing": {"material": "aluminium-cast", "due": "2026-11-27T16:00:00Z", "customer": "100% Lamps"},
    }.items():
        face = {**collar["faces"][0], "want": {"finish": "satin" if title == "Name plates" else "mirror"}}
        jobs.add(check_job_file({**collar, "faces": [face], "title": title, **more}))


@pytest.mark.parametrize(
    ("wanted", "found"),
    [
        ({}, ["Clock housing", "Name plates", "Rail collar"]),
        ({"words": "HARBOUR plates"}, ["Name plates"]),
        ({"words": "dent"}, ["Rail collar"]),
        ({"words": "dent harbour"}, []),
        ({"words": "satin"}, ["Name plates"]),
        ({"words": "alumin"}, ["Clock housing"]),
        ({"words": "100%"}, ["Clock housing"]),
        ({"words": "%"}, ["Clock housing"]),
        ({"states": ["ordered", "asked"]}, ["Clock housing", "Rail collar"]),
        ({"states": []}, []),
        ({"by": "due"}, ["Clock housing", "Rail collar", "Name plates"]),
        ({"by": "title"}, ["Clock housing", "Name plates", "Rail collar"]),
        ({"by": "customer"}, ["Clock housing", "Name plates", "Rail collar"]),
    ],
    ids=str,
)
def test_jobs_are_found_by_words_and_state_and_come_in_order(
    jobs: Jobs, collar: dict[str, Any], wanted: dict[str, Any], found: list[str]
) -> None:
    _many(jobs, collar)
    count, page = jobs.search(**wanted)
    assert ([one.title for one in page], count) == (found, len(found))


def test_a_page_of_them_and_how_many_there_are(jobs: Jobs, collar: dict[str, Any]) -> None:
    _many(jobs, collar)
    count, page = jobs.search(by="title", offset=1, limit=1)
    assert (count, [one.title for one in page]) == (3, ["Name plates"])
