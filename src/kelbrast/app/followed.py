"""Values derived from the events of a run: its figures, its line in the log, what it teaches, what it used."""

from collections.abc import Sequence
from dataclasses import asdict
from datetime import UTC, datetime
from typing import Any

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.core.bench.account import kept_to, paces, planned, spent
from kelbrast.core.bench.events import Moment
from kelbrast.core.bench.figures import figures, worn_out
from kelbrast.core.bench.observed import observed
from kelbrast.core.bench.run import begin, operation_of
from kelbrast.core.catalogue.damages import faults_of_work
from kelbrast.core.planning.whole.account import Times
from kelbrast.core.rack.item import Effects, Taken, taken_since
from kelbrast.core.surface.part import PROTECTIONS
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.run.format import to_planned
from kelbrast.storage.run_results import Follows


def follows(kept: KeptRun, taken: dict[str, Any]) -> Follows:
    """Everything that the log keeps beside the events. `taken`: what the rack was told so far, with this tap."""
    run = kept.run
    over = [event for event in run.standing if event.kind in ("finished", "stopped")]
    stages = {stage.key: stage for each in run.stages.values() for stage in each}
    steps = kept.steps
    done = [
        (stages[face, route, step].tool, steps[face, route, step].item, work.seconds, work.ended.when)
        for (_, face, route, step), work in run.works.items()
        if work.ended is not None and work.outcome in ("gone", "back")
    ]
    taught = []
    if run.status == "finished":
        taught = [
            *observed(run, to_planned(kept.job, kept.plan, kept.events), run_id=kept.id),
            *paces(run, kept.id, _began(kept)),
        ]
    return Follows(
        status=run.status,
        well=run.well,
        ended_at=over[-1].at.when if over else None,
        figures=figures_of(kept),
        words=_words(kept),
        waxed_at=_waxed_at(kept),
        taken=taken,
        steps=done,
        observations=[
            (observation.carrier, observation.family, observation.quantity, observation.ratio) for observation in taught
        ],
    )


def figures_of(kept: KeptRun) -> dict[str, Any]:
    """The totals of a run in shop units."""
    came_to, asked, took = figures(kept.run, kept.job.shapes), planned(kept.run), spent(kept.run, _began(kept))
    added = asked.hands_on - planned(begin(kept.run.layout)).hands_on  # what ways back made of it
    high = kept.plan.hands_on_minutes_high
    return {
        "hands_on_minutes": round(from_si(asked.hands_on, "min"), 3),
        "hands_on_minutes_high": round(high + from_si(added, "min"), 3) if high is not None else None,
        "start_to_finish_minutes": round(from_si(asked.start_to_finish, "min"), 3),
        "account": _lines(asked),
        **_kept(kept),
        "spent_minutes": round(from_si(took.hands_on, "min"), 3),
        "spent": _lines(took),
        "planned_minutes": round(from_si(came_to.planned, "min"), 2),
        "minutes": round(from_si(came_to.worked, "min"), 2),
        "planned_metal_um": round(from_si(came_to.planned_metal, "um"), 2),
        "metal_um": round(from_si(came_to.metal, "um"), 2) if came_to.metal is not None else None,
        "planned_worn": {name: round(count, 3) for name, count in came_to.planned_worn.items()},
        "worn": {name: round(count, 3) for name, count in came_to.worn.items()},
        "backs": came_to.backs,
        **_protected(kept),
    }


def _began(kept: KeptRun) -> Moment:
    """When the run was begun, by the clock on the wall alone."""
    return Moment(kept.began_at.timestamp(), 0.0, "")


def _kept(kept: KeptRun) -> dict[str, bool | None]:
    """Whether it kept to what its plan allows; nothing while it is not finished, or for a plan from before the account."""
    plan = kept.plan
    if plan.account_high is None or plan.hands_on_minutes_high is None:
        return {}
    allowed = to_si(plan.account_high.cutting, "min"), to_si(plan.hands_on_minutes_high, "min")
    found = kept_to(kept.run, _began(kept), cutting=allowed[0], hands_on=allowed[1])
    return {} if found is None else {"kept_cutting": found.cutting, "kept_hands_on": found.hands_on}


def _lines(times: Times) -> dict[str, float]:
    return {line: round(from_si(seconds, "min"), 3) for line, seconds in asdict(times).items()}


def _protected(kept: KeptRun) -> dict[str, Any]:
    """What was put on the work, and when somebody said so: it is not taken for granted."""
    done = {
        key: waiting.done
        for key, waiting in kept.run.operations.items()
        if operation_of(key)[0] in PROTECTIONS and waiting.done is not None
    }
    last = max(done.values(), key=lambda moment: moment.at, default=None)
    return {
        "protected": operation_of(next(iter(done)))[0] if done else None,
        "protected_at": last.when.isoformat() if last is not None else None,
    }


def _waxed_at(kept: KeptRun) -> datetime | None:
    told = _protected(kept)
    return datetime.fromisoformat(told["protected_at"]).astimezone(UTC) if told["protected"] == "wax" else None


def taken_from_rack(kept: KeptRun, before: dict[str, Any], bars: dict[str, int]) -> tuple[dict[str, Any], Effects]:
    """What the run has used of the rack so far, and what to tell the rack that is new since `before`."""
    run = kept.run
    now, told = taken_since(
        Taken(before.get("worn", {}), tuple(before.get("bound", ()))),
        worn_out(run),
        touched={stage.tool for piece, each in run.stages.items() for stage in each if run.work(piece, stage).seconds > 0},
        items={step.tool: step.item for step in kept.steps.values() if step.item is not None},
        family=kept.job.material.family,
        bars=bars,
    )
    return {"worn": dict(now.worn), "bound": list(now.bound)}, told


def _words(kept: KeptRun) -> str:
    """What people wrote and what went wrong, to search by."""
    found: Sequence[str] = [
        text
        for event in kept.run.standing
        for text in (event.words, faults_of_work()[event.fault].seen if event.fault in faults_of_work() else "")
        if text
    ]
    return "\n".join(found)
