"""The scheduling problem: people and hours, machines and spindles, blocks, vibration. Times are whole minutes."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.planning.whole.account import Account

TaskKind = Literal["work", "wait"]
DAY: Final = 24 * 60  # minutes from one day to the next


@dataclass(frozen=True, slots=True)
class Worker:
    """Somebody who works (minutes since the day's midnight).

    Attributes:
        begins, ends: of every day.  breaks: (from, to) of every day.
        away: (from, to) in minutes since the midnight of the first day, once.
        machines: ids that they may use; None for all.
        vibrated: points of hand-arm vibration that they have had today already.
    """

    name: str
    begins: int
    ends: int
    breaks: tuple[tuple[int, int], ...] = ()
    away: tuple[tuple[int, int], ...] = ()
    machines: frozenset[str] | None = None
    vibrated: float = 0.0

    def __post_init__(self) -> None:
        if not 0 <= self.begins < self.ends <= DAY:
            raise OutsideValidity(f"the hours of {self.name} must begin before they end, within one day")

    def may_use(self, machine: str | None) -> bool:
        return machine is None or self.machines is None or machine in self.machines

    def free(self, days: int) -> tuple[tuple[int, int], ...]:
        """(from, to) in which they can work, over so many days."""
        closed = sorted([*((day * DAY + a, day * DAY + b) for day in range(days) for a, b in self.breaks), *self.away])
        found = []
        for day in range(days):
            at, end = day * DAY + self.begins, day * DAY + self.ends
            for a, b in closed:
                if b <= at or a >= end:
                    continue
                if a > at:
                    found.append((at, a))
                at = max(at, b)
            if at < end:
                found.append((at, end))
        return tuple(found)


@dataclass(frozen=True, slots=True)
class Station:
    """A machine: `standing` has one entry a spindle, the wheel that stands on it (see `Task.wheel`), None for empty."""

    id: str
    label: str
    standing: tuple[str | None, ...] = (None,)


@dataclass(frozen=True, slots=True)
class Task:
    """One block of work or of waiting.

    Attributes:
        job: identity of its job; title, label: what it is, in words: nothing is known by them.
        key: identity of this very block, whatever else is on the board.
        faces: what those are known by that it is for; names: what they are called.  step: of the first of them, or None.
        pieces: (from, to) of those that it is for, from 1; None for all.
        minutes: of work; of waiting, the least.  most: of waiting that has a latest end too; None for any.
        by_person: somebody must do it.  machine: that it needs; wheel: tool and metal family that stand on its spindle.
        change: minutes of putting the wheel on, where it does not stand there.
        vibration: of the machine in the hand, m/s2; 0 for what does not shake.
        dusty: dry grinding.  clean: needs air without dust.  sparks: it throws them.  burns: its dust does.
        room: in which it is done; empty for the main one.
        due: minute by which it must end, for the last block of a job; None for no promise.
        fixed: (from, person's name or None, spindle): where it stands and stays; None for free.  begun: it is in hand.
        earliest: minute before which it cannot begin.
    """

    id: int
    job: str
    label: str
    minutes: int
    kind: TaskKind = "work"
    key: str = ""
    title: str = ""
    faces: tuple[str, ...] = ()
    names: tuple[str, ...] = ()
    step: int | None = None
    operation: str | None = None
    pieces: tuple[int, int] | None = None
    tool: str | None = None
    most: int | None = None
    by_person: bool = True
    machine: str | None = None
    wheel: str | None = None
    change: int = 0
    vibration: float = 0.0
    dusty: bool = False
    clean: bool = False
    sparks: bool = False
    burns: bool = False
    room: str = ""
    due: int | None = None
    earliest: int = 0
    fixed: tuple[int, str | None, int | None] | None = None
    begun: bool = False

    def __post_init__(self) -> None:
        if self.minutes < 0 or self.change < 0:
            raise OutsideValidity(f"{self.label}: minutes must not be below 0")


@dataclass(frozen=True, slots=True)
class After:
    """`task` begins after `before` ends, at least `least` and at most `most` minutes later (None: whenever)."""

    before: int
    task: int
    least: int = 0
    most: int | None = None


@dataclass(frozen=True, slots=True)
class ScheduledJob:
    """A job that is on the schedule: its identity, its name, its account, its lots, and the minute of its promise."""

    id: str
    title: str
    account: Account
    lots: tuple[int, ...]
    due: int | None = None


@dataclass(frozen=True, slots=True)
class DayWork:
    """Everything that is to be planned.

    Attributes:
        jobs: that the blocks are of.
        now: nothing that is not fixed begins before it, in minutes since the first midnight.  days: that it may take.
        shaking: points of hand-arm vibration that a person may have in a day; infinite for no limit.
        most_dust: by room, how many blocks that raise dust may be worked at once; those of other rooms as many as there are.
    """

    people: tuple[Worker, ...]
    stations: tuple[Station, ...]
    tasks: tuple[Task, ...]
    links: tuple[After, ...]
    now: int = 0
    days: int = 1
    shaking: float = float("inf")
    most_dust: Mapping[str, int] = field(default_factory=dict, hash=False)
    jobs: tuple[ScheduledJob, ...] = ()
    by_id: Mapping[int, Task] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        ids = [task.id for task in self.tasks]
        if len(set(ids)) != len(ids):
            raise OutsideValidity("every block needs a number of its own")
        known = {station.id for station in self.stations}
        for task in self.tasks:
            if task.machine is not None and task.machine not in known:
                raise OutsideValidity(f"{task.label} needs {task.machine}, which the shop has not")
        for link in self.links:
            if link.before not in ids or link.task not in ids:
                raise OutsideValidity("an order names a block that is not there")
        object.__setattr__(self, "by_id", {task.id: task for task in self.tasks})

    @property
    def horizon(self) -> int:
        return self.days * DAY

    def station(self, machine: str) -> Station:
        return next(station for station in self.stations if station.id == machine)
