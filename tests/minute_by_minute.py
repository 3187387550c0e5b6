"""A checker of schedules that knows nothing of the program's own: it walks through every minute of every day."""

from collections import Counter, defaultdict
from collections.abc import Sequence

from kelbrast.core.day.schedule import Placed
from kelbrast.core.day.shop import DayWork, Task

DAY = 1440
LIES = 30  # minutes until dust that burns has settled and is swept up


def faults(work: DayWork, plan: Sequence[Placed]) -> list[str]:
    """What is wrong with a schedule, minute by minute; empty for nothing."""
    found: list[str] = []
    tasks = {task.id: task for task in work.tasks}
    if Counter(one.task for one in plan) != Counter(list(tasks)):
        return ["not every block once"]
    at = {one.task: one for one in plan}
    busy: dict[tuple[str, int], list[int]] = defaultdict(list)  # person, minute
    turning: dict[tuple[str, int | None, int], list[int]] = defaultdict(list)  # machine, spindle, minute
    air: dict[tuple[str, int], dict[str, set[int]]] = defaultdict(lambda: defaultdict(set))  # room, minute
    for one in plan:
        task = tasks[one.task]
        for minute in range(one.begins, one.ends):
            if one.person is not None:
                busy[one.person, minute].append(task.id)
            if task.machine is not None:
                turning[task.machine, one.spindle, minute].append(task.id)
            for kind in ("dusty", "clean", "sparks", "burns"):
                if getattr(task, kind):
                    air[task.room, minute][kind].add(task.id)
        if task.burns:
            for minute in range(one.ends, one.ends + LIES):
                air[task.room, minute]["burns"].add(task.id)
    found += [f"two things at once for {who}" for (who, _), what in busy.items() if len(what) > 1]
    found += [f"two things at once on {where}" for (where, _, _), what in turning.items() if len(what) > 1]
    for (room, _), kinds in air.items():
        if any(tasks[a].job != tasks[b].job for a in kinds["sparks"] for b in kinds["burns"]):
            found.append(f"sparks beside dust that burns in {room!r}")
        if kinds["dusty"] and kinds["clean"]:
            found.append(f"dust beside wet lacquer in {room!r}")
        if len(kinds["dusty"]) > work.most_dust.get(room, 99):
            found.append(f"more dust than extractors in {room!r}")
    found += _hours(work, plan, tasks)
    for link in work.links:
        gap = at[link.task].begins - at[link.before].ends
        if gap < link.least or (link.most is not None and gap > link.most):
            found.append(f"{link.task} does not follow {link.before} in its time")
    return found


def _hours(work: DayWork, plan: Sequence[Placed], tasks: dict[int, Task]) -> list[str]:
    """Everybody is there, may do it and is not shaken too much."""
    found = []
    people = {person.name: person for person in work.people}
    shaken: dict[tuple[str, int], float] = defaultdict(float)
    for one in plan:
        task = tasks[one.task]
        if (one.person is None) == task.by_person:
            found.append(f"{task.id} is done by {one.person}")
        if one.person is None:
            continue
        person = people[one.person]
        for minute in range(one.begins, one.ends):
            of_day = minute % DAY
            there = person.begins <= of_day < person.ends and not any(a <= of_day < b for a, b in person.breaks)
            if not there or any(a <= minute < b for a, b in person.away):
                found.append(f"{one.person} is not there at {minute}")
                break
        if task.machine is not None and person.machines is not None and task.machine not in person.machines:
            found.append(f"{one.person} may not use {task.machine}")
        # 100 points are 2.5 m/s2 over eight hours, by the square of the vibration.
        shaken[one.person, one.begins // DAY] += 100 * (task.vibration / 2.5) ** 2 * task.minutes / 480
    found += [f"{who} is shaken too much" for (who, _), points in shaken.items() if points > work.shaking + 0.01]
    return found
