"""A database as eight people leave it after five years, made of copies of the demo workshop: every kind of row that there is.

The copies are written as rows, since working them one by one would take as long as the five years. What a list shows differs
from row to row (titles, customers, moments); the documents are those of the demo workshop.
"""

import json
import random
import sqlite3
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from kelbrast.app.jobs import Jobs
from kelbrast.app.quotes import Quotes, quote_file
from kelbrast.app.workshop import load_demo
from kelbrast.core.price.quote import Rates
from kelbrast.demo.workshop import demo_jobs

_YEARS_MIN: Final = 5 * 365 * 24 * 60  # minutes
_EVENTS_OF_A_RUN: Final = 100
_PHOTO: Final = 200_000  # bytes of a photo as it is kept
_LIVE: Final = 60  # jobs that are asked for, ready or at the bench; all others were delivered
_LARGE: Final = "Two hundred faces"


@dataclass(frozen=True, slots=True)
class Size:
    """How much of everything."""

    jobs: int = 20_000
    runs: int = 30_000
    photos: int = 5_000
    sizes: int = 3_000
    items: int = 5_000
    faces: int = 200


def fill(path: Path, size: Size) -> int:
    """Make the database. The id of a job with so many faces."""
    jobs = Jobs.open(path)
    load_demo(jobs, with_past=True)
    collar = next(job for job in demo_jobs() if job.title == "Gallery rail collar")
    many = [collar.faces[0].model_copy(update={"name": f"face {number}", "id": None}) for number in range(size.faces)]
    large = jobs.add(collar.model_copy(update={"title": _LARGE, "faces": many})).id
    ready = next(kept for kept in jobs.plannable(["asked", "quoted", "at-the-bench"])[0] if kept.id != large)
    Quotes(jobs).keep(ready.id, quote_file(ready.job, jobs.rack.shelf(), rates=Rates(48.0, 0.15)))
    jobs.close()
    with sqlite3.connect(path, isolation_level=None) as raw:
        for said in ("PRAGMA synchronous=OFF", "PRAGMA cache_size=-400000", "BEGIN"):
            raw.execute(said)
        _jobs(raw, size.jobs, large)
        _runs(raw, size.runs)
        _pictures(raw, size.photos)
        _rest(raw, size)
        for said in ("COMMIT", "PRAGMA wal_checkpoint(TRUNCATE)"):
            raw.execute(said)
    raw.close()
    return large


def _jobs(raw: sqlite3.Connection, count: int, large: int) -> None:
    """Jobs of five years; most of them went through every state."""
    there = [key for (key,) in raw.execute("select id from jobs where id <> ? order by id", (large,))]
    states = ("asked", "quoted", "ordered")
    for number in range(count):
        age = count - number  # the newest last, as they were kept
        state = states[number % 3] if age <= _LIVE else "delivered"
        minutes = -_YEARS_MIN * age // count
        raw.execute(
            "insert into jobs (revision, created_at, updated_at, title, material, customer, due, state, document)"
            " select 1, datetime(created_at, ? || ' minutes'), datetime(updated_at, ? || ' minutes'), title || ' ' || ?,"
            " material, 'Customer ' || ?, due, ?,"
            " json_set(document, '$.title', title || ' ' || ?, '$.customer', 'Customer ' || ?) from jobs where id = ?",
            (minutes, minutes, number, number % 700, state, number, number % 700, there[number % len(there)]),
        )
    for number, state in enumerate(("ordered", "at-the-bench", "done", "delivered"), start=1):
        raw.execute(
            "insert into job_states (job_id, number, at, state)"
            " select id, ?, updated_at, ? from jobs where state = 'delivered'",
            (number, state),
        )


def _runs(raw: sqlite3.Connection, count: int) -> None:
    """Finished runs of a hundred events each: those of the demo's past, with notes among them."""
    done = [key for (key,) in raw.execute("select id from runs where status = 'finished' order by id")]
    newest_job = raw.execute("select max(id) from jobs").fetchone()[0]
    first = raw.execute("select max(id) from runs").fetchone()[0] + 1
    for old in done:
        _with_notes(raw, old)
    for number in range(count):
        minutes = -_YEARS_MIN * (count - number) // count
        raw.execute(
            "insert into runs (id, job_id, title, material, finishes, pieces, began_at, job, plan, status, well, ended_at,"
            " figures, words, waxed_at, taken, seen) select ?, ?, title || ' ' || ?, material, finishes, pieces,"
            " datetime(began_at, ? || ' minutes'), job, plan, status, well, datetime(ended_at, ? || ' minutes'), figures,"
            " words || ' batch ' || ?, datetime(waxed_at, ? || ' minutes'), taken, seen from runs where id = ?",
            (
                first + number, max(1, newest_job - (count - number) * 2 // 3), number, minutes, minutes, number % 997, minutes,
                done[number % len(done)],
            ),
        )  # fmt: skip
    raw.execute("create temp table source (new integer primary key, old integer, minutes integer)")
    raw.executemany(
        "insert into source values (?, ?, ?)",
        ((first + n, done[n % len(done)], -_YEARS_MIN * (count - n) // count) for n in range(count)),
    )
    for table, columns, taken in (
        ("run_events", "number, tap, form, document", "number, tap, form, document"),
        ("run_steps", "tool, item, seconds, ended_at", "tool, item, seconds, datetime(ended_at, minutes || ' minutes')"),
        ("observations", "carrier, family, quantity, ratio", "carrier, family, quantity, ratio"),
    ):
        raw.execute(
            f"insert into {table} (run_id, {columns}) select new, {taken} from source join {table} on run_id = old"
            f" order by new, {table}.id"
        )
    raw.execute("drop table source")


def _with_notes(raw: sqlite3.Connection, run: int) -> None:
    """So many events in a run: what is missing are notes after the first one."""
    events = [
        json.loads(text) for (text,) in raw.execute("select document from run_events where run_id = ? order by number", (run,))
    ]
    missing = max(0, _EVENTS_OF_A_RUN - len(events))
    note = {key: events[0][key] for key in ("at", "ticks", "boot")} | {"kind": "note", "words": "as planned"}
    all_of_it = [events[0], *({**note} for _ in range(missing)), *events[1:]]
    assert all("undoes" not in event for event in events), "their numbers would have to follow"
    (form,) = raw.execute("select form from run_events where run_id = ?", (run,)).fetchone()
    raw.execute("delete from run_events where run_id = ?", (run,))
    raw.executemany(
        "insert into run_events (run_id, number, tap, form, document) values (?, ?, ?, ?, ?)",
        (
            (run, number, f"copied-{number}", form, json.dumps({**event, "number": number}))
            for number, event in enumerate(all_of_it, start=1)
        ),
    )
    raw.execute("update runs set seen = ? where id = ?", (len(all_of_it), run))


def _pictures(raw: sqlite3.Connection, count: int) -> None:
    """Photos of runs, a fifth as many of parts, and what the eye saw on them."""
    noise = random.Random(1)
    newest = raw.execute("select max(id) from runs").fetchone()[0]
    newest_job = raw.execute("select max(id) from jobs").fetchone()[0]
    for number in range(count):
        run = 1 + number * (newest - 1) // count
        when = f"datetime('now', '{-(count - number) * _YEARS_MIN // count} minutes')"
        raw.execute(
            "insert into photos (run_id, at, shows, width, height, across_mm, data)"
            f" values (?, {when}, 'result', 1600, 1200, 40, ?)",
            (run, noise.randbytes(_PHOTO)),
        )
        raw.execute(
            'insert into eye_checks (run_id, after, piece, face, route, step, at, verdict, score, person, "left", followed)'
            " select id, 1, 1, json_extract(plan, '$.faces[0].id'), 0, 1,"
            f" {when}, 'none-seen', 0.3, 0, 0, 1 from runs where id = ?",
            (run,),
        )
        if number % 5 == 0:
            job = 1 + number * (newest_job - 1) // count
            raw.execute(
                "insert into part_photos (job_id, was, at, shows, width, height, drawn, data)"
                f" values (?, ?, {when}, 'part', 1600, 1200, '{{}}', ?)",
                (job, job, noise.randbytes(_PHOTO)),
            )


def _rest(raw: sqlite3.Connection, size: Size) -> None:
    """Sized parts, the rack with its history, quotes, upkeep that was done, answers of the practice."""
    for table, columns, count in (
        ("sizings", "revision, updated_at, document", size.sizes),
        ("rack_items", "revision, document", size.items),
    ):
        there = [key for (key,) in raw.execute(f"select id from {table} order by id")]
        changed = columns.replace("document", "json_set(document, '$.{}', json_extract(document, '$.{}') || ' ' || ?)")
        changed = changed.format(*("title",) * 2) if table == "sizings" else changed.format(*("name",) * 2)
        raw.executemany(
            f"insert into {table} ({columns}) select {changed} from {table} where id = ?",
            ((number, there[number % len(there)]) for number in range(count)),
        )
    taken = json.dumps({"kind": "stock", "amount": 0.1, "why": "bench"})
    for quarter in range(3):
        raw.execute(
            "insert into rack_events (item_id, at, document) select id, datetime('now', ? || ' days'), ? from rack_items",
            (-90 * (quarter + 1), taken),
        )
    newest = raw.execute("select max(id) from jobs").fetchone()[0]
    raw.executemany(
        "insert into practice_answers (person, at, kind, difficulty, seed, options, right)"
        " values (?, datetime('now', ? || ' hours'), 'done', 0.4, ?, 2, ?)",
        ((f"Person {n % 8}", -n * 4, n, n % 3 > 0) for n in range(size.jobs // 2)),
    )
    raw.executemany(
        "insert into care_done (thing, care, at) values ('shop', 'filters', datetime('now', ? || ' days'))",
        ((-n % 1800,) for n in range(1800)),
    )
    (quote,) = raw.execute("select min(id) from quotes").fetchone()
    raw.executemany(
        "insert into quotes (job_id, at, document) select ?, datetime('now', ? || ' days'), document from quotes where id = ?",
        ((newest - number * 4, -number * 1800 * 4 // size.jobs, quote) for number in range(size.jobs // 4)),
    )
