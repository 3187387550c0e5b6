"""What happens in a day and changes its schedule: somebody is ill, a machine breaks, work takes longer, stock has run out."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Final, Literal

from kelbrast.core.day.shop import DAY, DayWork, ScheduledJob, Task, Worker

EventKind = Literal["away", "stays", "broken", "longer", "urgent", "out"]


@dataclass(frozen=True, slots=True)
class DayEvent:
    """Something that happened (minutes since the first midnight). Only what its kind needs is set.

    Attributes:
        at: when it was said.
        person: "away", "stays".  machine: "broken".  block: key of the block that takes `times` as long.
        job: that is urgent.  operation: that cannot be done until then.
        until: how long somebody is away or stays, a machine is broken, something is missing; by when an urgent job is wanted.
    """

    kind: EventKind
    at: int = 0
    person: str | None = None
    machine: str | None = None
    block: str | None = None
    job: str | None = None
    operation: str | None = None
    until: int | None = None
    times: float = 2.0


def applied(work: DayWork, events: Iterable[DayEvent]) -> DayWork:
    """The day as these events make it. What is in hand stays where it is."""
    for event in events:
        work = _APPLY[event.kind](work, event)
    return work


def _away(work: DayWork, event: DayEvent) -> DayWork:
    until = work.horizon if event.until is None else event.until
    return _with_person(work, event.person, lambda worker: replace(worker, away=(*worker.away, (event.at, until))))


def _stays(work: DayWork, event: DayEvent) -> DayWork:
    assert event.until is not None, "it is said how long"
    later = (event.until - 1) % DAY + 1
    return _with_person(work, event.person, lambda worker: replace(worker, ends=max(worker.ends, later)))


def _with_person(work: DayWork, name: str | None, change: Callable[[Worker], Worker]) -> DayWork:
    return replace(work, people=tuple(change(worker) if worker.name == name else worker for worker in work.people))


def _broken(work: DayWork, event: DayEvent) -> DayWork:
    return _not_before(work, event.until, lambda task: task.machine == event.machine)


def _out(work: DayWork, event: DayEvent) -> DayWork:
    return _not_before(work, event.until, lambda task: task.operation == event.operation and task.kind == "work")


def _not_before(work: DayWork, until: int | None, which: Callable[[Task], bool]) -> DayWork:
    earliest = work.horizon if until is None else until
    tasks = tuple(
        replace(task, earliest=max(task.earliest, earliest), fixed=None) if which(task) and not task.begun else task
        for task in work.tasks
    )
    return replace(work, tasks=tasks)


def _longer(work: DayWork, event: DayEvent) -> DayWork:
    tasks = tuple(
        replace(task, minutes=round(task.minutes * event.times)) if task.key == event.block else task for task in work.tasks
    )
    return replace(work, tasks=tasks)


def _urgent(work: DayWork, event: DayEvent) -> DayWork:
    """It is promised for then, if not earlier; without a time as soon as it can be."""
    due = work.now if event.until is None else event.until
    last = max((task.id for task in work.tasks if task.job == event.job), default=None)
    tasks = tuple(replace(task, due=_sooner(task.due, due)) if task.id == last else task for task in work.tasks)
    jobs = tuple(replace(job, due=_sooner(job.due, due)) if job.id == event.job else job for job in work.jobs)
    return replace(work, tasks=tasks, jobs=jobs)


def _sooner(due: int | None, other: int) -> int:
    return other if due is None else min(due, other)


def has_job(work: DayWork, job: str) -> ScheduledJob | None:
    """The job of this identity, if it is on the schedule."""
    return next((one for one in work.jobs if one.id == job), None)


_APPLY: Final = {"away": _away, "stays": _stays, "broken": _broken, "longer": _longer, "urgent": _urgent, "out": _out}
