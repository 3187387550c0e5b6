"""The day of a shop in files: people and their hours, the board, and what holds for the whole shop. Minutes count from the hour
at which the day begins."""

import re
from collections.abc import Sequence
from typing import Annotated, Final, Literal

from pydantic import BaseModel, Field

from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.day.air import Room, Rooms
from kelbrast.core.day.schedule import Placed, points_by_day
from kelbrast.core.day.shop import DAY, DayWork, ScheduledJob, Task, Worker
from kelbrast.core.day.solver import DayFound
from kelbrast.core.errors import BadInput
from kelbrast.core.job import RackUsed
from kelbrast.core.process.vibration import Exposure, exposure_of
from kelbrast.core.wording import counted, minutes_text
from kelbrast.documents.common.fields import ID, Address, NameText, Note, OneLine, Strict, Text, shop

_CLOCK: Final = re.compile(r"^([01]?\d|2[0-4]):([0-5]\d)$")
DayTime = Annotated[str, Field(max_length=5)]


Break = Annotated[tuple[DayTime, DayTime], Field(strict=False)]  # JSON has no tuples


class WorkerFile(Strict):
    """Somebody who works: hours as `08:00`, breaks, machines by id (null: all), and whether they are away today."""

    name: Text
    begins: DayTime = "08:00"
    ends: DayTime = "16:30"
    breaks: Annotated[list[Break], Field(max_length=10)] = [("12:00", "12:30")]
    machines: Annotated[list[ID], Field(max_length=100)] | None = None
    away: bool = False


def minute_of(clock: str, field: str) -> int:
    """Minutes since midnight.

    Raises:
        BadInput: no time of a day.

    >>> minute_of("08:30", "begins")
    510
    """
    found = _CLOCK.match(clock)
    minutes = int(found[1]) * 60 + int(found[2]) if found else DAY + 1
    if minutes > DAY:
        raise BadInput.one(field, f'"{clock}" is no time of a day: write it as 08:30')
    return minutes


def clock_of(minute: int) -> str:
    """A minute since the first midnight as a time of its day.

    >>> clock_of(510), clock_of(1440 + 485)
    ('08:30', '08:05')
    """
    return f"{minute % DAY // 60:02d}:{minute % 60:02d}"


def to_workers(files: Sequence[WorkerFile]) -> tuple[Worker, ...]:
    """The people who are there.

    Raises:
        BadInput: two have the same name, hours that are none, or nobody is there.
    """
    workers: list[Worker] = []
    for at, file in enumerate(files):
        field = f"people[{at}]"
        if file.name in [worker.name for worker in workers]:
            raise BadInput.one(f"{field}.name", f'two people are called "{file.name}"')
        begins, ends = minute_of(file.begins, f"{field}.begins"), minute_of(file.ends, f"{field}.ends")
        if begins >= ends:
            raise BadInput.one(f"{field}.ends", "must be after the beginning")
        breaks = tuple((minute_of(a, f"{field}.breaks"), minute_of(b, f"{field}.breaks")) for a, b in file.breaks)
        machines = None if file.machines is None else frozenset(file.machines)
        if not file.away:
            workers.append(Worker(file.name, begins, ends, breaks, machines=machines))
    if not workers:
        raise BadInput.one("people", "nobody is there to do it")
    return tuple(workers)


def to_rooms(shop: "ShopFile") -> Rooms:
    """The rooms of a shop.

    Raises:
        BadInput: two of one name, a machine that stands in two, or one that there is not.
    """
    names: set[str] = set()
    stands: dict[str, str] = {}
    for at, room in enumerate(shop.rooms):
        if room.name in names:
            raise BadInput.one(f"rooms[{at}].name", f'two rooms are called "{room.name}"')
        names.add(room.name)
        for machine in room.machines:
            if machine not in machines():
                raise BadInput.one(f"rooms[{at}].machines", f"there is no machine {machine}")
            if machine in stands:
                raise BadInput.one(f"rooms[{at}].machines", f"{machines()[machine].label} stands in {stands[machine]} already")
            stands[machine] = room.name
    others = tuple(Room(one.name, frozenset(one.machines), one.lacquers, one.extractors) for one in shop.rooms)
    return Rooms(others, shop.extractors)


class BlockFile(BaseModel):
    """A block of the board. `key`: its identity; a wheel that is put on first is a block of its own, of kind `change`.

    `job` and `face` are to be read: other jobs may be called the same.
    """

    key: str
    job: str
    face: str
    step: int | None
    operation: str | None
    label: str
    tool: str | None
    grain_um: float | None
    person: str | None
    machine: str | None
    spindle: int | None
    starts_min: Annotated[int, Field(description="where it is put: with the wheel that is put on first")]
    from_min: int
    to_min: int
    at: str
    day: int
    kind: Literal["work", "change", "wait"]
    late_min: int = 0
    fixed: bool = False


class DayFigures(BaseModel):
    """How good a plan is."""

    changes: int
    late_min: int
    ends_min: int


class DayBounds(BaseModel):
    """What no plan can be better than; null where that was not come to yet."""

    late_min: int | None
    changes: int | None
    ends_min: int | None


class ShakingFile(BaseModel):
    """Points of hand-arm vibration of a person on a day."""

    person: str
    day: int
    points: float
    exposure: Exposure


class DayJobFile(BaseModel):
    """A job of the board: its hands-on time as its plan has it, how many pieces its lots have, when it is ready, what it is
    late by, and its promise. Minutes from where the board begins; null for none."""

    id: str
    title: str
    hands_on_minutes: float
    start_to_finish_minutes: float
    lots: list[int]
    ends_min: int | None
    late_min: int
    due: str | None
    due_min: int | None


class DayFile(BaseModel):
    """The board. `proven`: goals of which nothing is better; `gap`: how far the end could still be from the best, as a share;
    `first_come`: the same figures for first come, first served."""

    begins: str
    days: int
    jobs: list[DayJobFile] = []
    blocks: list[BlockFile]
    changes: int
    late_min: int
    ends_min: int
    bound: DayBounds
    gap: float | None
    proven: list[str]
    first_come: DayFigures | None
    shaking: list[ShakingFile]


def to_day_file(found: DayFound, *, origin: int, first_come: DayFigures | None) -> DayFile:
    """The board; minutes from `origin`, the minute at which the day begins."""
    work, score = found.work, found.score
    late, changes, ends = found.bounds
    blocks = [block for placed in found.plan for block in _blocks(work, placed, origin)]
    whole = score.ends - origin
    return DayFile(
        begins=clock_of(origin),
        days=work.days,
        jobs=[_job(job, found, origin) for job in work.jobs],
        blocks=sorted(blocks, key=lambda block: (block.from_min, block.key)),
        changes=score.changes,
        late_min=score.late,
        ends_min=max(0, whole),
        bound=DayBounds(late_min=late, changes=changes, ends_min=None if ends is None else max(0, ends - origin)),
        gap=None if ends is None or whole <= 0 else round(max(0.0, (score.ends - ends) / whole), 4),
        proven=list(found.proven),
        first_come=first_come,
        shaking=_shaking(work, found.plan),
    )


def _job(job: ScheduledJob, found: DayFound, origin: int) -> DayJobFile:
    ends = [placed.ends for placed in found.plan if found.work.by_id[placed.task].job == job.id]
    times = job.account.all
    return DayJobFile(
        id=job.id,
        title=job.title,
        hands_on_minutes=shop(times.hands_on, "min"),
        start_to_finish_minutes=shop(times.start_to_finish, "min"),
        lots=list(job.lots),
        ends_min=max(ends) - origin if ends else None,
        late_min=max(0, max(ends, default=0) - job.due) if job.due is not None else 0,
        due=None if job.due is None else clock_of(job.due),
        due_min=None if job.due is None else job.due - origin,
    )


def _shaking(work: DayWork, plan: Sequence[Placed]) -> list[ShakingFile]:
    points = sorted(points_by_day(work, plan).items(), key=lambda item: (item[0][1], item[0][0]))
    return [
        ShakingFile(person=name, day=day, points=round(many, 1), exposure=exposure_of(many))
        for (name, day), many in points
        if many
    ]


def _blocks(work: DayWork, placed: Placed, origin: int) -> list[BlockFile]:
    task = work.by_id[placed.task]
    late = max(0, placed.ends - task.due) if task.due is not None else 0
    if not placed.change:
        return [_block(task, placed, placed.begins, placed.ends, origin, kind=task.kind, late=late)]
    on = placed.begins + task.change
    return [
        _block(task, placed, placed.begins, on, origin, kind="change", late=0),
        _block(task, placed, on, placed.ends, origin, kind="work", late=late),
    ]


def _block(
    task: Task, placed: Placed, begins: int, ends: int, origin: int, *, kind: Literal["work", "change", "wait"], late: int
) -> BlockFile:
    return BlockFile(
        key=task.key,
        job=task.title or task.job,
        face=", ".join(task.names),
        step=task.step,
        operation=task.operation,
        label=task.label,
        tool=task.tool,
        grain_um=shop(tool(task.tool).grain, "um") if task.tool is not None else None,
        person=placed.person,
        machine=task.machine,
        spindle=placed.spindle,
        starts_min=placed.begins - origin,
        from_min=begins - origin,
        to_min=ends - origin,
        at=clock_of(begins),
        day=begins // DAY,
        kind=kind,
        late_min=late,
        fixed=task.fixed is not None,
    )


def day_text(board: DayFile) -> str:
    """To be read at a terminal."""
    proven = f" (nothing is better: {', '.join(board.proven)})" if board.proven else ""
    ends, changes = counted(board.ends_min, "minute"), counted(board.changes, "wheel change")
    lines = [f"{counted(board.late_min, 'minute')} late, {changes}, done after {ends}{proven}"]
    if board.first_come is not None:
        other = board.first_come
        figures = f"{other.late_min} late, {counted(other.changes, 'change')}, {counted(other.ends_min, 'minute')}"
        lines.append(f"First come, first served: {figures}")
    for block in board.blocks:
        where = f" on {block.machine}" + (f" {block.spindle}" if block.spindle else "") if block.machine else ""
        who = block.person or "-"
        day = f"day {block.day + 1} " if board.days > 1 else ""
        what = {"change": "put on ", "wait": "", "work": ""}[block.kind]
        late = f"  LATE by {block.late_min}" if block.late_min else ""
        lines.append(
            f"{day}{block.at}  {block.to_min - block.from_min:3d} min  {who:8s} {block.job}: {what}{block.label}{where}{late}"
        )
    for job in board.jobs:
        lots = f" in {len(job.lots)} lots" if len(job.lots) > 1 else ""
        promised = f", promised for {job.due}" if job.due is not None else ""
        late = f", LATE by {job.late_min} min" if job.late_min else ""
        lines.append(f"{job.title}: hands-on {minutes_text(job.hands_on_minutes)}{lots}{promised}{late}")
    for shaking in board.shaking:
        if shaking.exposure != "below":
            over = f"{shaking.points:.0f} points of hand-arm vibration, above the {shaking.exposure} value"
            lines.append(f"{shaking.person}: {over}; the maker's figures and local rules come first")
    return "\n".join(lines)


class UsualFile(Strict):
    """What usually comes in: ids of a material, a finish and a damage; and what jobs are planned from."""

    material: ID = "brass"
    finish: ID = "bright"
    damage: ID = "scratches"
    use_rack: RackUsed | None = None


class RoomFile(Strict):
    """A room beside the main one: the machines in it, and whether lacquer is put on and dries there. `extractors`: how many
    machines that raise dust it can take at once; null for as many as there are."""

    name: Annotated[str, Field(min_length=1, max_length=200), OneLine]
    machines: Annotated[list[ID], Field(max_length=100)] = []
    lacquers: bool = False
    extractors: Annotated[int | None, Field(ge=1, le=50)] = 1


class LetterheadFile(Strict):
    """What stands on a page for a customer. `contact`: telephone, mail; `valid_days`: how long a quote holds; `prefix`: before
    its number; `terms`: the shop's own.

    `tax`: a share of the price, called `tax_name`, null for none; `tax_number`: the shop's.
    """

    name: NameText = ""
    address: Address = ""
    contact: NameText = ""
    tax: Annotated[float | None, Field(ge=0, le=1, allow_inf_nan=False)] = None
    tax_name: Annotated[str, Field(max_length=20), OneLine] = "VAT"
    tax_number: Annotated[str, Field(max_length=40), OneLine] = ""
    valid_days: Annotated[int, Field(ge=1, le=1000)] = 30
    terms: Note = ""
    prefix: Annotated[str, Field(max_length=12), OneLine] = "Q-"


class ShopFile(Strict):
    """The shop. `hour`: what an hour of a person is charged at, in `currency`; `margin`: a share on everything.

    `extractors`: how many machines that raise dust the main room can take at once, null for as many as there are; `rooms`:
    others beside it. `shaking`: points of hand-arm vibration that nobody goes above in a day. `standing`: for a machine, the
    wheel on each spindle (tool on metal family). `usual`: what usually comes in, as a new job begins. `letterhead`: what stands
    on a page for a customer. `welcomed`: the first questions were answered or skipped.
    """

    people: Annotated[list[WorkerFile], Field(min_length=1, max_length=30)] = [WorkerFile(name="One"), WorkerFile(name="Two")]
    currency: Annotated[str, Field(max_length=8), OneLine] = "EUR"
    hour: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] = 48.0
    margin: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] = 0.15
    shaking: Annotated[float, Field(gt=0, le=400, allow_inf_nan=False)] = 400.0
    extractors: Annotated[int | None, Field(ge=1, le=50)] = 1
    rooms: Annotated[list[RoomFile], Field(max_length=20)] = []
    standing: Annotated[dict[ID, list[str | None]], Field(max_length=50)] = {}
    usual: UsualFile = UsualFile()
    letterhead: LetterheadFile = LetterheadFile()
    welcomed: bool = False
