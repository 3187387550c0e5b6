"""What the bench says of the blocks of a board: runs as they stand, which blocks are over and which are in hand."""

import threading
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, time
from typing import Any, Final

from kelbrast.core.bench.events import Event, Moment, Stage
from kelbrast.core.bench.run import Run, operation_key
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.day.from_plan import block_key, minutes_of
from kelbrast.core.day.shop import After, DayWork, Task
from kelbrast.core.job import Job
from kelbrast.core.reference.own_rows import in_use
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.format import PlanFile, StepFile
from kelbrast.documents.run.format import EventFile, steps_of_run

_MOST_READ: Final = 64  # runs that are remembered: more than there are benches


@dataclass(frozen=True, slots=True)
class KeptRun:
    """A run with its files, its job as it was when the run began, its state, and the moment for which that holds."""

    id: int
    job_id: int | None
    began_at: datetime
    file: JobFile
    job: Job
    plan: PlanFile
    events: tuple[EventFile, ...]
    happened: tuple[Event, ...]
    run: Run
    now: Moment

    @property
    def steps(self) -> dict[tuple[str, int, int], StepFile]:
        """Every step of the plan and of the ways back, by face, route and number."""
        return steps_of_run(self.plan, self.events)


class RunsRead:
    """Runs as they were read last: tablets ask for them and tap every second, and their plans are long documents."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._read: OrderedDict[int, tuple[object, KeptRun, Mapping[str, Any]]] = OrderedDict()

    def get(self, run_id: int, mark: object) -> tuple[KeptRun, Mapping[str, Any]] | None:
        """A run and what it took from the rack, if nothing was tapped since that mark and the same own rows are in use."""
        with self._lock:
            known = self._read.get(run_id)
        return (known[1], known[2]) if known is not None and known[0] == (mark, in_use()) else None

    def put(self, run_id: int, mark: object, kept: KeptRun, taken: Mapping[str, Any]) -> None:
        """Remember it."""
        with self._lock:
            self._read[run_id] = (mark, in_use()), kept, taken
            self._read.move_to_end(run_id)
            while len(self._read) > _MOST_READ:
                self._read.popitem(last=False)


def _ended(task: Task, run: KeptRun) -> datetime | None:
    """When a block was over at the bench; None while it is not."""
    if task.operation is not None:
        lot = run.run.layout.lot_of(task.pieces[0]) if task.pieces else 1
        waiting = run.run.operations.get(operation_key(task.operation, lot))
        done = waiting.done if waiting is not None else None
        return datetime.fromtimestamp(done.at) if done is not None else None
    works = [
        run.run.work(piece, stage)
        for piece, stages in run.run.stages.items()
        for stage in stages
        if stage.tool == task.tool and stage.face in task.faces and stage.route == 0 and _has(task, piece)
    ]
    if not works or any(work.outcome == "open" for work in works):
        return None
    ends = [work.ended.at for work in works if work.ended is not None]
    return datetime.fromtimestamp(max(ends)) if ends else None


def _has(task: Task, piece: int) -> bool:
    return task.pieces is None or task.pieces[0] <= piece <= task.pieces[1]


def at_the_bench(
    work: DayWork, runs: Mapping[str, KeptRun], back: Mapping[int, tuple[int, int]], day: date
) -> tuple[dict[int, int], dict[int, int]]:
    """Blocks that the bench says are over, and those that are in hand, each with the minute at which that was.

    `runs`: at the bench, by the identity of their job.
    """
    done, begun = {}, {}
    for task in work.tasks:
        run = runs.get(task.job)
        if run is None:
            continue
        way = back.get(task.id)
        ended, since = (None if way else _ended(task, run)), _begun(task, run, way)
        if ended is not None:
            done[task.id] = _minute_of(ended, day)
        elif since is not None:
            begun[task.id] = _minute_of(since, day)
    return done, begun


def with_ways_back(work: DayWork, runs: Mapping[str, KeptRun]) -> tuple[DayWork, dict[int, tuple[int, int]]]:
    """The day with the steps of every way back that the bench has begun, before what is done when all steps are.

    With the route and step of the blocks that belong to a way back.
    """
    tasks, links = list(work.tasks), list(work.links)
    back: dict[int, tuple[int, int]] = {}
    for job, run in runs.items():
        mine = [task for task in work.tasks if task.job == job]
        if not mine:
            continue
        after = {operation.id for operation in run.plan.operations if operation.when == "after"}
        ends = next((task.id for task in mine if task.operation in after), None)
        before: int | None = None
        for route, step in sorted({(stage.route, stage.step) for stage in _ahead(run)}):
            stages = [stage for stage in _ahead(run) if (stage.route, stage.step) == (route, step)]
            first, number = stages[0], max(task.id for task in tasks) + 1
            minutes = minutes_of(sum(stage.seconds + stage.handling + stage.once.hands_on for stage in stages))
            label = f"{tool(first.tool).label}, way back"
            key, title = block_key(job, "back", route, step), mine[0].title
            tasks.append(
                Task(
                    number,
                    job,
                    label,
                    minutes,
                    key=key,
                    title=title,
                    faces=(first.face,),
                    names=(first.label,),
                    step=step,
                    tool=first.tool,
                )
            )
            back[number] = route, step
            if before is not None:
                links.append(After(before, number))
            before = number
        if before is not None and ends is not None:
            links.append(After(before, ends))
    return replace(work, tasks=tuple(tasks), links=tuple(links)), back


def _ahead(run: KeptRun) -> list[Stage]:
    """Stages of ways back that are still open, of every piece."""
    return [stage for stages in run.run.ahead.values() for stage in stages if stage.route > 0]


def _begun(task: Task, run: KeptRun, way: tuple[int, int] | None) -> datetime | None:
    """Since when a block is in hand, as planned or on a way back; None while it is not."""
    current = run.run.current
    if current is None or not run.run.begun or task.operation is not None:
        return None
    piece, stage = current
    if stage.tool != task.tool or stage.face not in task.faces or not _has(task, piece):
        return None
    if (stage.route, stage.step) != way if way else stage.route != 0:
        return None
    starts = [event.at.at for event in run.run.standing if event.kind == "started" and event.stage == stage.key]
    return datetime.fromtimestamp(min(starts)) if starts else None


def _minute_of(when: datetime, day: date) -> int:
    return int((when - datetime.combine(day, time())).total_seconds() // 60)
