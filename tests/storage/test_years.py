"""What stays quick over years: every question goes through an index, words are found in one, and totals equal the whole replay."""

import random
import re
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Engine, event

from attacking import SOAK, chance
from demo_workshop import demo_workshop
from kelbrast.app.jobs import Jobs
from kelbrast.app.upkeep import Upkeep
from kelbrast.core.learning.factors import Observation
from kelbrast.core.rack.item import ItemEvent, of_work
from kelbrast.core.rack.upkeep import Due, looked_after, upkeep
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import jobs as job_store
from kelbrast.storage import rack as rack_store
from kelbrast.storage import run_results, shop
from kelbrast.storage import runs as store
from kelbrast.storage.backups import Backups
from kelbrast.storage.quotes import all_quotes
from kelbrast.storage.sessions import reading, writing
from kelbrast.storage.sizings import search_sizings
from kelbrast.storage.tables import ObservationRow, RunStepRow

NOW = datetime(2026, 3, 10, 15, 0, tzinfo=UTC)


@pytest.fixture
def jobs(tmp_path: Path) -> Iterator[Jobs]:
    jobs = demo_workshop(tmp_path / "demo.sqlite", with_past=True)
    yield jobs
    jobs.close()


def plans_of(engine: Engine, ask: Any) -> list[str]:
    """How the database goes about every question that is asked."""
    asked: list[tuple[str, Any]] = []

    def note(_c: Any, _cursor: Any, statement: str, parameters: Any, _context: Any, _many: bool) -> None:
        asked.append((statement, parameters))

    event.listen(engine, "before_cursor_execute", note)
    try:
        with reading(engine) as session:
            ask(session)
    finally:
        event.remove(engine, "before_cursor_execute", note)
    with engine.connect() as connection:
        rows = [
            connection.exec_driver_sql(f"explain query plan {said}", given).all()
            for said, given in asked
            if "select" in said.lower()
        ]
    return [row[3] for each in rows for row in each]


WANTED = job_store.JobsWanted
WORD = (job_store.SoughtWord("collar"),)
LARGE = ("jobs", "runs", "run_events", "run_steps", "observations", "rack_events", "photos", "sizings", "quotes", "job_states")
QUESTIONS = {
    "a page of the jobs": lambda s: job_store.search_jobs(s, WANTED(), offset=0, limit=50),
    "by title": lambda s: job_store.search_jobs(s, WANTED(by="title"), offset=0, limit=50),
    "by promise": lambda s: job_store.search_jobs(s, WANTED(by="due"), offset=0, limit=50),
    "by customer": lambda s: job_store.search_jobs(s, WANTED(by="customer"), offset=0, limit=50),
    "of a state": lambda s: job_store.search_jobs(s, WANTED(states=("ordered",)), offset=0, limit=50),
    "a page of the log": lambda s: store.search_log(s, store.Wanted(), offset=0, limit=50),
    "of a tool": lambda s: store.search_log(s, store.Wanted(tool="paper-p240"), offset=0, limit=50),
    "of a material": lambda s: store.search_log(s, store.Wanted(material="copper"), offset=0, limit=50),
    "since a day": lambda s: store.search_log(s, store.Wanted(since=NOW), offset=0, limit=50),
    "a run": lambda s: store.get_run(s, 1),
    "runs at the bench": store.open_runs,
    "whether a tap is there": lambda s: store.tapped_already(s, 1, "a"),
    "tools of the log": store.tools_in_log,
    "what was observed": lambda s: run_results.newest_observations(s, 200),
    "whether it changed": run_results.observations_change,
    "work told closely": lambda s: run_results.work_done(s, run_results.work_days(s), [(None, NOW.date()), (3, NOW.date())]),
    "what was waxed": lambda s: run_results.waxed_runs(s, NOW, also=[1]),
    "quotes of a job": lambda s: all_quotes(s, 1),
    "a page of the gauge": lambda s: search_sizings(s, (), offset=0, limit=50),
    "the newest of an item": lambda s: rack_store.newest_event(s, 1),
}


FOUND_THEN_SORTED = ("of a tool", "what was waxed", "runs at the bench", "quotes of a job")


@pytest.mark.parametrize("question", QUESTIONS)
def test_no_question_goes_through_a_whole_large_table(jobs: Jobs, question: str) -> None:
    """A count may go through an index, which is narrow; a page in order ends when it is full."""
    plans = plans_of(jobs.engine, QUESTIONS[question])
    assert plans
    sorted_by_hand = "TEMP B-TREE" if question not in FOUND_THEN_SORTED else "none"
    whole = [plan for plan in plans if re.fullmatch(rf"SCAN ({'|'.join(LARGE)})", plan) or sorted_by_hand in plan]
    assert whole == []


def search(jobs: Jobs, words: str) -> list[str]:
    return [job.title for job in jobs.search(words)[1]]


def test_words_are_found_wherever_they_stand_and_follow_what_is_changed(jobs: Jobs) -> None:
    document = jobs.document(1)
    file = check_job_file({**document, "title": 'Öse of "the" bell', "customer": "Harbour 100%", "note": "ring it\nsoftly"})
    kept = jobs.add(file)
    for words in ("öse", "ÖSE", '"the"', "harbour bell", "100%", "softly", "of", "%", "ing it"):
        assert kept.job.title in search(jobs, words), words
    for words in ("100_", "quince", "xyz", 'the" OR "bell', "softly quince"):
        assert kept.job.title not in search(jobs, words), words
    jobs.change(kept.id, file.model_copy(update={"title": "Hook", "note": ""}), revision=kept.revision)
    assert search(jobs, "softly") == []
    assert search(jobs, "hook harbour") == ["Hook"]
    jobs.remove(kept.id)
    assert search(jobs, "hook") == []


def test_a_job_is_found_by_its_material_and_finish_but_not_by_their_ids_in_a_note(jobs: Jobs) -> None:
    document = jobs.document(1)
    faces = [{**document["faces"][0], "want": {"finish": "mirror"}}]
    shining = jobs.add(check_job_file({**document, "title": "Shining", "faces": faces}))
    talked = jobs.add(
        check_job_file({**document, "title": "Talked of", "note": '|mirror| "finish": "mirror"', "faces": document["faces"]})
    )
    with reading(jobs.engine) as session:
        found = job_store.search_jobs(
            session, WANTED(words=(job_store.SoughtWord("zzz", (), ("mirror",)),)), offset=0, limit=None
        )[1]
        of_material = job_store.search_jobs(
            session, WANTED(words=(job_store.SoughtWord("zzz", (document["material"],)),)), offset=0, limit=None
        )[1]
    assert shining.id in [job.id for job in found]
    assert talked.id not in [job.id for job in found]
    assert {shining.id, talked.id} <= {job.id for job in of_material}


def test_runs_are_found_by_what_was_written_about_them(jobs: Jobs) -> None:
    with reading(jobs.engine) as session:
        everything = store.search_log(session, store.Wanted(), offset=0, limit=None)[1]
    run = everything[0]
    with writing(jobs.engine) as session:
        run_results.replace_what_follows(session, run.id, 1, follows(words="the belt squealed", status="finished"))
    with reading(jobs.engine) as session:
        count, lines = store.search_log(session, store.Wanted(text="squealed"), offset=0, limit=10)
    assert (count, [line.id for line in lines]) == (1, [run.id])


def follows(steps: list[tuple[str, int | None, float, datetime]] | None = None, **more: Any) -> run_results.Follows:
    said = {"well": True, "ended_at": NOW, "figures": {}, "words": "", "waxed_at": None, "taken": {}, "observations": []}
    return run_results.Follows(**{"status": "open", "steps": steps or [], **said, **more})


def test_totals_of_days_are_worth_the_whole_replay(jobs: Jobs) -> None:
    """Random steps that come, change and go, and cares in the middle of days: what is due is as from every single step."""
    luck = chance("upkeep") if SOAK else random.Random(5)
    runs = [line.id for line in _lines(jobs)][:6]
    items = [kept.id for kept in jobs.rack.items() if kept.item.kind in ("wheel", "abrasive")][:8]
    moments = [NOW - timedelta(minutes=luck.randrange(0, 40 * 24 * 60)) for _ in range(60)]
    for _ in range(12):
        run = luck.choice(runs)
        steps = [
            ("paper-p240", luck.choice([*items, None]), round(luck.uniform(1, 9000), 3), luck.choice(moments))
            for _ in range(luck.randrange(0, 9))
        ]
        with writing(jobs.engine) as session:
            run_results.replace_what_follows(session, run, 1, follows(steps))
            if luck.random() < 0.7:
                thing = luck.choice(["shop", *(f"item:{item}" for item in items)])
                care = luck.choice(["filters", "touch-up"] if thing == "shop" else ["rake", "true", "dress"])
                shop.add_care(session, thing, care, luck.choice(moments) - timedelta(minutes=luck.choice((0, 1))))
        assert told(Upkeep(jobs).due(NOW)) == told(replayed(jobs))


def told(dues: list[Due]) -> list[Any]:
    """What is shown of each; seconds are told to the thousandth, whatever they were added in."""
    of_things = [due for due in dues if due.thing.on != "waxed"]
    return [(due.care.id, due.thing.key, due.last, round(due.worked, 3), due.on_day, due.now) for due in of_things]


def _lines(jobs: Jobs) -> list[store.LogLine]:
    with reading(jobs.engine) as session:
        return store.search_log(session, store.Wanted(), offset=0, limit=None)[1]


def replayed(jobs: Jobs) -> list[Due]:
    with reading(jobs.engine) as session:
        rows = session.query(RunStepRow.item, RunStepRow.ended_at, RunStepRow.seconds).all()
        done = shop.care_done(session)
        waxed = run_results.waxed_runs(session, NOW - timedelta(days=3650), also=[])
    items = [(kept.item, kept.at[0] if kept.at else None) for kept in jobs.rack.items()]
    things = looked_after(items, waxed, work=[tuple(row) for row in rows], done=done, now=NOW)
    return upkeep(things, NOW)


def test_what_was_learnt_is_read_anew_when_it_changes_and_only_then(jobs: Jobs) -> None:
    run = _lines(jobs)[0].id
    with writing(jobs.engine) as session:
        before = run_results.observations_change(session)
        run_results.replace_what_follows(
            session, run, 1, follows(observations=[("felt", "steel", "time", 1.5), ("felt", "steel", "time", 1.5)])
        )
        assert run_results.observations_change(session) == before + 1
        run_results.replace_what_follows(
            session, run, 1, follows(observations=[("felt", "steel", "time", 1.5), ("felt", "steel", "time", 1.5)])
        )
        assert run_results.observations_change(session) == before + 1
        assert session.query(ObservationRow).filter(ObservationRow.run_id == run).count() == 2
        assert run_results.newest_observations(session, 1).count(Observation(run, "felt", "steel", "time", 1.5)) == 1
        run_results.replace_what_follows(session, run, 1, follows())
        assert run_results.observations_change(session) == before + 2


def test_the_rack_is_as_it_was_when_a_backup_is_put_back(jobs: Jobs) -> None:
    backups = Backups(Path(jobs.engine.url.database or ""))
    bar = next(kept for kept in jobs.rack.items() if kept.item.kind == "compound")
    made = backups.make("asked", NOW)
    jobs.rack.note_all([(bar.id, ItemEvent("stock", amount=-0.25))], why="spilt")
    assert jobs.rack.get(bar.id).item.have == pytest.approx(bar.item.have - 0.25)
    backups.restore(backups.file(made.name), NOW)
    assert jobs.rack.get(bar.id).item == bar.item


def test_what_work_used_on_a_day_is_one_entry_and_the_stock_is_the_same(jobs: Jobs) -> None:
    bar = next(kept for kept in jobs.rack.items() if kept.item.kind == "compound")
    entries, have = len(bar.item.history), bar.item.have
    for amount, title in ((-0.25, "Bell"), (-0.125, "Bell"), (-0.125, "Rail")):
        with writing(jobs.engine) as session:
            jobs.rack.tell(session, [(bar.id, ItemEvent("stock", amount=amount))], why=of_work(title))
    now = next(kept for kept in jobs.rack.items() if kept.id == bar.id)
    assert len(now.item.history) == entries + 1
    assert now.item.have == pytest.approx(have - 0.5)
    assert (now.item.history[-1].amount, now.item.history[-1].why) == (-0.5, "bench: several jobs")
    jobs.rack.note_all([(bar.id, ItemEvent("stock", amount=2.0))], why="bought")
    with writing(jobs.engine) as session:
        jobs.rack.tell(
            session,
            [(bar.id, ItemEvent("stock", amount=-0.5)), (999_999, ItemEvent("stock", amount=-1.0))],
            why=of_work("Bell"),
        )
    assert len(next(kept for kept in jobs.rack.items() if kept.id == bar.id).item.history) == entries + 3
