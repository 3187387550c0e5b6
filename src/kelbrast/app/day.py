"""The day of a shop: from jobs to a board, at once, and better while somebody waits."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time
from functools import lru_cache

from kelbrast.core.day.air import Rooms
from kelbrast.core.day.from_plan import blocks_of, stations_of
from kelbrast.core.day.greedy import first_come, plan_at_once
from kelbrast.core.day.schedule import clashes, score
from kelbrast.core.day.shop import After, DayWork, ScheduledJob, Station, Task, Worker
from kelbrast.core.day.solver import DayFound, improve
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.documents.day.format import DayFigures, DayFile, to_day_file


@dataclass(frozen=True, slots=True)
class DayJob:
    """A job that is to be done: its identity, by which name it is shown, its plan, and until when."""

    id: str
    name: str
    plan: Plan
    due: datetime | None = None


def told_apart(titles: Sequence[str], numbers: Iterable[int]) -> list[str]:
    """Names of jobs to be read: those of the same title with their number, and a star more where that is a title too.

    >>> told_apart(["Box", "Box (3)", "Box"], [1, 2, 3])
    ['Box (1)', 'Box (3)', 'Box (3)*']
    """
    names: list[str] = []
    for title, number in zip(titles, numbers, strict=True):
        name = title if titles.count(title) == 1 else f"{title} ({number})"
        while name in names:
            name += "*"
        names.append(name)
    return names


def work_of(
    jobs: Sequence[DayJob],
    people: tuple[Worker, ...],
    *,
    day: date,
    now: int,
    shaking: float,
    rooms: Rooms,
    standing: dict[str, tuple[str | None, ...]] | None = None,
) -> DayWork:
    """Everything that is to be planned, from `now` (minutes since midnight) on.

    Raises:
        BadInput: a job has no plan that could be followed.
    """
    tasks: list[Task] = []
    links: list[After] = []
    scheduled: list[ScheduledJob] = []
    for at, job in enumerate(jobs):
        if not job.plan.possible:
            raise BadInput.one(f"jobs[{at}]", f"{job.name} has no plan that could be followed")
        due = _minute(job.due, day)
        made = blocks_of(job.plan, job=job.id, title=job.name, first=len(tasks), due=due, rooms=rooms)
        scheduled.append(ScheduledJob(job.id, job.name, job.plan.account, job.plan.lots, due))
        tasks += made.tasks
        links += made.links
    known = standing or {}
    stations = tuple(_standing(station, known.get(station.id, ())) for station in stations_of(job.plan for job in jobs))
    return DayWork(
        people,
        stations,
        tuple(tasks),
        tuple(links),
        now=now,
        shaking=shaking,
        most_dust=rooms.most_dust(),
        jobs=tuple(scheduled),
    )


def _minute(due: datetime | None, day: date) -> int | None:
    """A promise in minutes since the day's midnight, by the clock on the shop's wall."""
    if due is None:
        return None
    local = due.astimezone().replace(tzinfo=None) if due.tzinfo is not None else due
    return int((local - datetime.combine(day, time())).total_seconds() // 60)


def _standing(station: Station, wheels: Sequence[str | None]) -> Station:
    if len(wheels) != len(station.standing):
        return station
    return Station(station.id, station.label, tuple(wheels))


def at_once(work: DayWork) -> DayFound:
    """A plan that can be followed, at once.

    Raises:
        BadInput: there is none, and why as far as that can be said.
    """
    day_found = planned_or_why(work)
    if isinstance(day_found, str):
        raise BadInput.one("jobs", f"nothing can be planned: {day_found}")
    return day_found


@lru_cache(maxsize=32)
def planned_or_why(work: DayWork) -> DayFound | str:
    """A plan that can be followed, or why there is none: either takes long to find, and the same day is asked for often."""
    made = plan_at_once(work)
    if made is None:
        return _why_not(work)
    longer, plan = made
    return DayFound(longer, tuple(plan), score(longer, plan))


@lru_cache(maxsize=8)
def by_arrival(work: DayWork, *, origin: int) -> DayFigures | None:
    """First come, first served."""
    made = first_come(work)
    if made is None:
        return None
    day_score = score(*made)
    return DayFigures(changes=day_score.changes, late_min=day_score.late, ends_min=max(0, day_score.ends - origin))


def day_file(
    work: DayWork,
    *,
    origin: int,
    seconds: float,
    seed: int,
    tell: Callable[[DayFile], None] = lambda _: None,
    stop: Callable[[], bool] = lambda: False,
) -> DayFile:
    """The board of a day.

    Raises:
        BadInput: there is no plan.
    """
    other = by_arrival(work, origin=origin)
    day_found = at_once(work)
    tell(to_day_file(day_found, origin=origin, first_come=other))
    if seconds > 0 and work.tasks:
        day_found = improve(
            day_found,
            seconds=seconds,
            seed=seed,
            stop=stop,
            tell=lambda better: tell(to_day_file(better, origin=origin, first_come=other)),
        )
    return to_day_file(day_found, origin=origin, first_come=other)


def _why_not(work: DayWork) -> str:
    if found := clashes(work):
        return found[0]
    for task in work.tasks:
        if not task.by_person:
            continue
        able = [person for person in work.people if person.may_use(task.machine)]
        if not able:
            return f"nobody may use what {task.title}, {task.label}, needs"
        longest = max((b - a for worker in able for a, b in worker.free(1)), default=0)
        if task.minutes + task.change > longest:
            return f"{task.title}, {task.label}, takes {task.minutes} minutes, and nobody is there for so long without a break"
    return (
        "what must follow soon after something else does not fit between the hours, the breaks and what stands where it was put"
    )
