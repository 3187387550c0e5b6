"""Updates a schedule as the day goes on: finished blocks stay, running blocks keep their place, the rest moves."""

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


def with_done(
    work: DayWork, plan: Sequence[Placed], done: Mapping[int, int], *, now: int, begun: Mapping[int, int] | None = None
) -> DayWork:
    """What is left of a day.

    Blocks that are done (by number, with the minute at which they ended) are taken out of it: what follows them cannot begin
    before that, and what they left on a spindle stands there. Blocks in hand (with the minute at which they were begun) stay
    where they are, with whom and on which spindle the plan had them, and last at least until now. Everything else is free. What
    must come before a block that is done or in hand is over too, whether anybody said so or not.
    """
    at, in_hand = {placed.task: placed for placed in plan}, begun or {}
    done = _with_what_came_before(work, done, in_hand)
    left = [task for task in work.tasks if task.id not in done]
    earliest = {task.id: task.earliest for task in left}
    links = []
    for link in work.links:
        if link.before in done and link.task in earliest:
            earliest[link.task] = max(earliest[link.task], done[link.before] + link.least)
        elif link.before not in done and link.task not in done:
            links.append(link)
    busy: set[str] = set()
    tasks = []
    for task in left:
        if task.id not in in_hand:
            tasks.append(replace(task, earliest=earliest[task.id]))
            continue
        placed, since = at.get(task.id), in_hand[task.id]
        person = placed.person if placed is not None and placed.person not in busy else None
        busy |= {person} if person is not None else set()
        lasts = max(task.minutes, now - since) if task.kind == "work" else task.minutes
        # Its wheel is on already.
        tasks.append(
            replace(
                task, minutes=lasts, change=0, fixed=(since, person, placed.spindle if placed is not None else None), begun=True
            )
        )
    return replace(work, tasks=tuple(tasks), links=tuple(links), stations=_standing(work, at, done), now=now)


def _with_what_came_before(work: DayWork, done: Mapping[int, int], begun: Mapping[int, int]) -> dict[int, int]:
    """What is done, with everything that must have been done before it or before what is in hand."""
    found = dict(done)
    ahead = [*done.items(), *begun.items()]
    while ahead:
        task, when = ahead.pop()
        for link in work.links:
            if link.task == task and link.before not in found:
                found[link.before] = when
                ahead.append((link.before, when))
    return {task: when for task, when in found.items() if task not in begun}


def _standing(work: DayWork, at: Mapping[int, Placed], done: Mapping[int, int]) -> tuple[Station, ...]:
    """What stands on every spindle after what is done."""
    stations = []
    for station in work.stations:
        stands = list(station.standing)
        here = [task for task in work.tasks if task.id in done and task.machine == station.id]
        for task in sorted(here, key=lambda task: (done[task.id], task.id)):
            placed = at.get(task.id)
            if placed is not None and placed.spindle is not None:
                stands[placed.spindle - 1] = task.wheel
        stations.append(replace(station, standing=tuple(stands)))
    return tuple(stations)


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
