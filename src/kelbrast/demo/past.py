"""The past of the demo workshop: runs that were never worked, played through with a shop's own pace, accidents and chance.

All of it is invented. The pace and the troubles are data (`past.toml`); the chance is seeded, so that it is the same each time.
"""

import random
import tomllib
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from importlib.resources import files
from typing import Any

from kelbrast.core.bench.events import Moment, Stage
from kelbrast.core.bench.run import Run, begin
from kelbrast.core.bench.sizing import size_at_bench
from kelbrast.core.bench.taps import happen
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.precision.form import fit_form
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.surface.sized import Sized
from kelbrast.core.units import from_si
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import to_job
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.run.format import EventFile, TapFile, kept_tap, to_events, to_layout

_DAY, _OPENS = 86_400.0, 9 * 3600.0  # a run begins when the workshop opens


@dataclass(frozen=True, slots=True)
class PastRun:
    """A run that is said to have been: of which job, how many days ago, how quick it was against the shop's own pace."""

    job: str
    days_ago: float
    pace: float
    well: bool
    note: str
    trouble: str
    done: str


@dataclass(frozen=True, slots=True)
class Promise:
    """What is promised of a job, in days from the day on which the demo begins."""

    job: str
    customer: str
    state: str
    in_days: int
    at: str

    def of(self, file: JobFile, today: date) -> JobFile:
        """The job with this promise."""
        due = datetime.combine(today + timedelta(days=self.in_days), time.fromisoformat(self.at))
        return file.model_copy(update={"customer": self.customer, "state": self.state, "due": due})


def promises() -> dict[str, Promise]:
    """What is promised, by the title of the job."""
    told = _told()["promise"]
    return {row["job"]: Promise(**row) for row in told}


def _told() -> dict[str, Any]:
    return tomllib.loads(files(__package__).joinpath("past.toml").read_text(encoding="utf-8"))


def past() -> tuple[dict[tuple[str, str], float], list[PastRun]]:
    """The pace of the shop by carrier and metal family, and its runs, the oldest first."""
    told = _told()
    pace = {(row["carrier"], row["family"]): float(row["takes"]) for row in told["pace"]}
    runs = [
        PastRun(
            row["job"], row["days_ago"], row.get("pace", 1.0), row.get("well", True), row.get("note", ""),
            row.get("trouble", ""), row.get("done", ""),
        )
        for row in told["run"]
    ]  # fmt: skip
    return pace, sorted(runs, key=lambda run: -run.days_ago)


def events_of(
    run: PastRun, job: JobFile, plan: PlanFile, pace: dict[tuple[str, str], float], now: float, seed: int
) -> list[EventFile]:
    """Everything that is said to have happened in a run of this plan.

    Args:
        now: seconds since 1970 from which its days are counted back.
    """
    chance = random.Random(seed)
    known = to_job(job)
    family = known.material.family
    told: list[EventFile] = []
    state = begin(to_layout(known, plan))
    at = (now // _DAY - run.days_ago) * _DAY + _OPENS

    def tap(kind: str, **more: Any) -> None:
        nonlocal state
        file = TapFile.model_validate({"kind": kind, **more})
        event = kept_tap(file, len(told) + 1, Moment(at, at, "demo"), depth_um=None, back=None, way=None)
        told.append(event)
        state = happen(state, *to_events([event], known))

    around = [one for one in plan.operations if one.id in state.layout.operations]

    def operate(*, before: bool) -> None:
        nonlocal at
        for one in around:
            if (one.when == "before") == before:
                at += 60 * (job.pieces * one.minutes + one.lot_minutes + one.waiting_minutes)
                tap("operated", operation=one.id)

    def by_gauge(where: dict[str, Any], part: Specimen) -> None:
        """One thing that the gauge asks for: readings, work, or to go on."""
        nonlocal at
        look = size_at_bench(state, known, Moment(at, at, "demo"))
        assert look is not None, "asked for a face that has a size"
        for one in part.read(look.to_read):
            at += chance.uniform(10, 20)
            reading = {"quantity": "size", "value": round(from_si(one.diameter, "mm"), 4), "instrument": "Bore gauge"}
            place = {"z_mm": from_si(one.height, "mm"), "phi_deg": from_si(one.direction, "deg")}
            tap("measured", measured={**reading, **place}, **where)
        if look.to_read or look.advice is None:
            return
        move = look.advice.move
        if move.action in ("lap", "short-strokes", "expand"):
            at += chance.uniform(40, 120)
            tap("started", **where)
            at += move.seconds
            part.work(move.seconds)
            tap("paused", **where)
        else:
            tap("gone" if state.begun else "skipped", words="By the gauge nothing is left for it.", **where)

    operate(before=True)
    parts: dict[tuple[int, str], Specimen] = {}
    for piece, stage in _stages_of(lambda: state):
        face, route, step, seconds, name = stage.face, stage.route, stage.step, stage.seconds, stage.tool
        where = {"piece": piece, "face": face, "route": route, "step": step}
        if (sized := known.face(face).sized) is not None and sized.readings:
            part = parts.setdefault((piece, face), _found(sized, seed))
            part.hidden = replace(part.hidden, rate=2 * stage.takes / seconds / run.pace)
            by_gauge(where, part)
            continue
        takes = pace.get((tool(name).carrier.id, family), 1.0) * run.pace * chance.lognormvariate(0.0, 0.12)
        at += chance.uniform(40, 120)
        tap("started", **where)
        at += max(10.0, seconds * takes)
        tap("gone", **where)
    if run.trouble:
        tap("trouble", fault=run.trouble, words=run.done)
    if run.note:
        tap("note", words=run.note)
    operate(before=False)
    tap("finished", well=run.well)
    return told


def _found(sized: Sized, seed: int) -> Specimen:
    """An invented part that has the form which was read before any work."""
    form = fit_form(sized.readings, length=sized.part.length, repeatability=sized.gauge.repeatability)
    taper, barrel = (form_estimate.value if form_estimate is not None else 0.0 for form_estimate in (form.taper, form.barrel))
    hidden = Hidden(form.size.value, form.seen_oval, 1.0, taper, barrel, form.widest or 0.0)
    return Specimen(sized.part, hidden, sized.gauge, seed)


def _stages_of(state: Callable[[], Run]) -> Iterator[tuple[int, Stage]]:
    while (current := state().current) is not None:
        yield current
