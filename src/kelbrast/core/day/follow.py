"""The day as it goes on: what is done stays where it was, what is in hand keeps its place, the rest settles around it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kelbrast.core.day.schedule import Placed
from kelbrast.core.day.shop import After, DayWork, Station


@dataclass(frozen=True, slots=True)
class Pin:
    """Where a person wants a block: from when, by whom, on which spindle; None for whoever and wherever."""

    begins: int
    person: str | None = None
    spindle: int | None = None


def with_done(work: DayWork, plan: Sequence[Placed], done: Mapping[int, int], *, now: int) -> DayWork:
    """What is left of a day.

    Blocks that are done (by number, with the minute at which they ended) are taken out of it: what follows them can not begin
    before that, and what they left on a spindle stands there. A block that was begun in the plan and is not done is in hand: it
    stays where it is, and lasts at least until now.
    """
    at = {one.task: one for one in plan}
    left = [task for task in work.tasks if task.id not in done]
    earliest = {task.id: task.earliest for task in left}
    kept = []
    for link in work.links:
        if link.before in done and link.task in earliest:
            earliest[link.task] = max(earliest[link.task], done[link.before] + link.least)
        elif link.before not in done and link.task not in done:
            kept.append(link)
    tasks = []
    for task in left:
        placed = at.get(task.id)
        if placed is not None and placed.begins < now and task.kind == "work":
            lasts = max(task.minutes, now - placed.begins - (task.change if placed.change else 0))
            fixed = (placed.begins, placed.person, placed.spindle)
            tasks.append(replace(task, minutes=lasts, fixed=fixed))
        elif placed is not None and placed.begins < now:
            tasks.append(replace(task, fixed=(placed.begins, None, None)))
        else:
            tasks.append(replace(task, earliest=earliest[task.id]))
    return replace(work, tasks=tuple(tasks), links=tuple(kept), stations=_standing(work, at, done), now=now)


def _standing(work: DayWork, at: Mapping[int, Placed], done: Mapping[int, int]) -> tuple[Station, ...]:
    """What stands on every spindle after what is done."""
    found = []
    for station in work.stations:
        stands = list(station.standing)
        ended = sorted((done[task.id], task) for task in work.tasks if task.id in done and task.machine == station.id)
        for _, task in ended:
            placed = at.get(task.id)
            if placed is not None and placed.spindle is not None:
                stands[placed.spindle - 1] = task.wheel
        found.append(replace(station, standing=tuple(stands)))
    return tuple(found)


def with_pins(work: DayWork, pins: Mapping[int, Pin]) -> DayWork:
    """Blocks that a person put somewhere stay there."""
    tasks = tuple(
        replace(task, fixed=(pins[task.id].begins, pins[task.id].person, pins[task.id].spindle))
        if task.id in pins and task.fixed is None
        else task
        for task in work.tasks
    )
    return replace(work, tasks=tasks)


def first_of_all(work: DayWork, task_id: int) -> DayWork:
    """The day if this block, and what must come before it, went first: nothing else begins before it does."""
    before = {task_id}
    grew = True
    while grew:
        more = {link.before for link in work.links if link.task in before} - before
        before |= more
        grew = bool(more)
    others = [task for task in work.tasks if task.id not in before and task.fixed is None]
    starts = [task for task in others if not any(link.task == task.id and link.before not in before for link in work.links)]
    links = tuple(After(task_id, task.id, -10_000, None) for task in starts)
    return replace(work, links=(*work.links, *links)) if links else work
