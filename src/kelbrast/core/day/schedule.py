"""A schedule: block positions, constraint violations and score. Every schedule is checked here, whoever made it."""

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from kelbrast.core.day.air import air_of
from kelbrast.core.day.shop import DAY, DayWork, Task
from kelbrast.core.process.vibration import vibration_points
from kelbrast.core.units import to_si


@dataclass(frozen=True, slots=True)
class Placed:
    """A block: its task, from when to when, by whom, on which spindle (from 1), and whether the wheel is put on first."""

    task: int
    begins: int
    ends: int
    person: str | None = None
    spindle: int | None = None
    change: bool = False


@dataclass(frozen=True, slots=True, order=True)
class DayScore:
    """Goals in order: minutes late over all promises, wheel changes, the minute at which the last work ends."""

    late: int
    changes: int
    ends: int


def score(work: DayWork, plan: Sequence[Placed]) -> DayScore:
    """How good a plan is."""
    late = sum(max(0, placed.ends - due) for placed in plan if (due := work.by_id[placed.task].due) is not None)
    return DayScore(late, sum(placed.change for placed in plan), max((placed.ends for placed in plan), default=0))


def violations(work: DayWork, plan: Sequence[Placed]) -> list[str]:
    """Everything that cannot be, in words; empty for a plan that can be followed."""
    at = {placed.task: placed for placed in plan}
    if len(at) != len(plan) or set(at) != set(work.by_id):
        return ["every block must stand in the plan once"]
    return [
        *(words for placed in plan for words in _alone(work, placed)),
        *_orders(work, at),
        *_people(work, plan),
        *_spindles(work, plan),
        *_air(work, at),
    ]


def points_by_day(work: DayWork, plan: Sequence[Placed]) -> dict[tuple[str, int], float]:
    """Points of hand-arm vibration by person and day; what they had before counts on the first."""
    found: dict[tuple[str, int], float] = defaultdict(float)
    for person in work.people:
        found[person.name, work.now // DAY] += person.vibrated
    for placed in plan:
        task = work.by_id[placed.task]
        if placed.person is not None and task.vibration:
            seconds = to_si(task.minutes, "min")
            found[placed.person, placed.begins // DAY] += vibration_points(vibration=task.vibration, seconds=seconds)
    return dict(found)


def _alone(work: DayWork, placed: Placed) -> Iterator[str]:
    task = work.by_id[placed.task]
    long = placed.ends - placed.begins
    wanted = task.minutes + (task.change if placed.change else 0)
    if task.kind == "work" and long != wanted:
        yield f"{task.label} takes {wanted} minutes and has {long}"
    if task.kind == "wait" and not (task.minutes <= long and (task.most is None or long <= task.most)):
        yield f"{task.label} waits {long} minutes, which is too little or too much"
    if task.fixed is not None:
        if placed.begins != task.fixed[0]:
            yield f"{task.label} was to stay where it stands"
        return
    if placed.begins < max(work.now, task.earliest):
        yield f"{task.label} begins before it can"


def _orders(work: DayWork, at: dict[int, Placed]) -> Iterator[str]:
    for link in work.links:
        gap = at[link.task].begins - at[link.before].ends
        if gap < link.least:
            yield f"{work.by_id[link.task].label} begins before {work.by_id[link.before].label} is done"
        elif link.most is not None and gap > link.most:
            yield f"{work.by_id[link.task].label} begins too late after {work.by_id[link.before].label}"


def _people(work: DayWork, plan: Sequence[Placed]) -> Iterator[str]:
    known = {person.name: person for person in work.people}
    mine: dict[str, list[Placed]] = defaultdict(list)
    for placed in plan:
        task = work.by_id[placed.task]
        if (placed.person is not None) != task.by_person:
            yield f"{task.label} needs {'somebody' if task.by_person else 'nobody'}"
        elif placed.person is not None:
            mine[placed.person].append(placed)
    for name, blocks in mine.items():
        person = known.get(name)
        if person is None:
            yield f"nobody here is called {name}"
            continue
        free = person.free(work.days)
        for block in blocks:
            task = work.by_id[block.task]
            if not person.may_use(task.machine):
                yield f"{name} may not use what {task.label} needs"
            if task.fixed is None and not any(a <= block.begins and block.ends <= b for a, b in free):
                yield f"{name} is not there for {task.label}"
        yield from _overlaps(work, blocks, name)
    for (name, _), points in points_by_day(work, plan).items():
        if points > work.shaking + 1e-6 and points > known[name].vibrated + 1e-6:
            yield f"{name} would have {points:.0f} points of vibration in a day"


def _overlaps(work: DayWork, blocks: Sequence[Placed], where: str) -> Iterator[str]:
    for placed, other in pairwise(sorted(blocks, key=lambda block: (block.begins, block.ends))):
        if other.begins < placed.ends:
            yield f"{work.by_id[placed.task].label} and {work.by_id[other.task].label} are at once at {where}"


def _spindles(work: DayWork, plan: Sequence[Placed]) -> Iterator[str]:
    on: dict[tuple[str, int], list[Placed]] = defaultdict(list)
    for placed in plan:
        task = work.by_id[placed.task]
        if task.machine is None:
            continue
        station = work.station(task.machine)
        if placed.spindle is None or not 1 <= placed.spindle <= len(station.standing):
            yield f"{task.label} needs a spindle of {station.label}"
        else:
            on[task.machine, placed.spindle].append(placed)
    for (machine, spindle), blocks in on.items():
        yield from _overlaps(work, blocks, f"{work.station(machine).label}, spindle {spindle}")
        stands = work.station(machine).standing[spindle - 1]
        for one in sorted(blocks, key=lambda block: block.begins):
            task = work.by_id[one.task]
            if one.change != needs_change(task, stands) and task.fixed is None:
                yield f"{task.label} {'needs its wheel put on' if not one.change else 'has its wheel on already'}"
            stands = task.wheel or stands


def needs_change(task: Task, stands: str | None) -> bool:
    """Whether its wheel must be put on where this one stands."""
    return task.wheel is not None and task.wheel != stands


def clashes(work: DayWork) -> list[str]:
    """What people put so that the air of a room cannot bear it, in words."""
    stands = [task for task in work.tasks if task.fixed is not None]
    at = {task.id: Placed(task.id, task.fixed[0], task.fixed[0] + task.minutes) for task in stands if task.fixed is not None}
    return list(_air(work, at))


def _air(work: DayWork, at: dict[int, Placed]) -> Iterator[str]:
    air = air_of(work)
    for apart in air.apart:
        if apart.first not in at or apart.other not in at:
            continue
        first, other = at[apart.first], at[apart.other]
        if first.begins < other.ends and other.begins < first.ends + apart.after:
            yield f"{work.by_id[other.task].label} {apart.why} {work.by_id[first.task].label}"
    for room, dusty in air.dusty.items():
        blocks = [at[task] for task in dusty if task in at]
        for placed in blocks:
            beside = [one for one in blocks if one.begins <= placed.begins < one.ends]
            if len(beside) > air.most[room] and not all(work.by_id[one.task].begun for one in beside):
                yield f"{work.by_id[placed.task].label} makes more dust at once than the extractors take"
