"""What happens in a day, what it does to the promises, and why something is late, in files and in words."""

from collections.abc import Callable, Iterable
from typing import Annotated

from pydantic import BaseModel, Field

from kelbrast.core.catalogue.machines import machines
from kelbrast.core.day.events import DayEvent, EventKind
from kelbrast.core.day.promises import Cure, Effect, JobPromise, LateReason
from kelbrast.core.day.shop import DAY, DayWork
from kelbrast.core.errors import BadInput
from kelbrast.core.wording import minutes_text
from kelbrast.documents.common.fields import ID, LONGEST_NAME, OneLine, Strict
from kelbrast.documents.day.format import clock_of

_NEEDS: dict[EventKind, tuple[str, ...]] = {
    "away": ("person",),
    "stays": ("person", "until_min"),
    "broken": ("machine",),
    "longer": ("block",),
    "urgent": ("job",),
    "out": ("operation",),
}
_Person = Annotated[str, Field(max_length=LONGEST_NAME), OneLine]


class DayEventFile(Strict):
    """Something that happened; minutes from where the board begins. `until_min` null: for the rest of the day, or, for an
    urgent job, as soon as it can be. `job`: number of a job; `block`: key of a block that takes `times` as long."""

    kind: EventKind
    person: _Person | None = None
    machine: ID | None = None
    block: Annotated[str, Field(max_length=80), OneLine] | None = None
    job: Annotated[int, Field(ge=1, le=2**53)] | None = None
    operation: ID | None = None
    until_min: Annotated[int, Field(ge=0, le=40_000)] | None = None
    times: Annotated[float, Field(gt=0.1, le=20, allow_inf_nan=False)] = 2.0


class PromiseFile(BaseModel):
    """When a job is done, and by how much that is late."""

    job: int
    title: str
    due: str | None
    ends: str
    late_min: int


class EffectFile(BaseModel):
    """What something would do: in one sentence, by promise, and how many blocks move. `possible`: a schedule is left then."""

    said: str
    possible: bool
    moved: int
    promises: list[PromiseFile]


class CureFile(BaseModel):
    """Something that would help, in words, with what it leaves late; `event`: what to say to the schedule to have it."""

    said: str
    late_min: int
    promises: list[PromiseFile]
    event: DayEventFile | None


class LateFile(BaseModel):
    """Why a promise is late, and up to three things that would help."""

    job: int
    reason: str
    cures: list[CureFile]


def to_event(file: DayEventFile, *, at: int, origin: int) -> DayEvent:
    """The event; `at`: now, `origin`: where the board begins, in minutes since the first midnight.

    Raises:
        BadInput: it does not say what its kind needs.
    """
    for field in _NEEDS[file.kind]:
        if getattr(file, field) is None:
            raise BadInput.one(field, f"say the {field.removesuffix('_min')}")
    until = None if file.until_min is None else file.until_min + origin
    if until is not None and until <= at and file.kind != "stays":
        raise BadInput.one("until_min", "must be later than now")
    job = None if file.job is None else str(file.job)
    return DayEvent(file.kind, at, file.person, file.machine, file.block, job, file.operation, until, file.times)


def to_promise_file(promise: JobPromise) -> PromiseFile:
    """A promise in the units of the file."""
    due = None if promise.due is None else time_of(promise.due)
    return PromiseFile(job=int(promise.job), title=promise.title, due=due, ends=time_of(promise.ends), late_min=promise.late)


def time_of(minute: int) -> str:
    """A time, and the day where that is not the first.

    >>> time_of(510), time_of(1440 + 485), time_of(-60)
    ('08:30', '08:05 on day 2', '23:00 before today')
    """
    if minute < 0:
        return f"{clock_of(minute)} before today"
    return clock_of(minute) if minute < DAY else f"{clock_of(minute)} on day {minute // DAY + 1}"


def to_effect_file(found: Effect | None, work: DayWork) -> EffectFile:
    """An effect in one sentence and by promise."""
    if found is None:
        return EffectFile(said="Nothing could be planned then.", possible=False, moved=0, promises=[])
    return EffectFile(
        said=effect_said(found, work),
        possible=True,
        moved=found.moved,
        promises=[to_promise_file(promise) for promise in found.after],
    )


def effect_said(found: Effect, work: DayWork) -> str:
    """What it does to every promise, in one sentence."""
    blocks = "no block moves" if not found.moved else "1 block moves" if found.moved == 1 else f"{found.moved} blocks move"
    if not found.later:
        still = [promise for promise in found.after if promise.late]
        said = "Nothing would be late" if not still else "Nothing more would be late"
        return f"{said}; {blocks}."
    late = " and ".join(f"{promise.title} would be {minutes_text(promise.late)} late" for promise in found.later)
    if found.cure is None:
        return f"{late}; {blocks}."
    return f"{late}; {cure_said(found.cure, work)}, {_left(found.cure.late)}."


def changes_said(before: Iterable[JobPromise], after: Iterable[JobPromise]) -> list[str]:
    """Every job that would be done at another time, in words."""
    was = {promise.job: promise for promise in before}
    said = []
    for promise in after:
        old = was.get(promise.job)
        if old is None or old.ends == promise.ends:
            continue
        late = f", {minutes_text(promise.late)} late" if promise.late else ", in time" if promise.due is not None else ""
        said.append(f"{promise.title}: done {time_of(promise.ends)} instead of {time_of(old.ends)}{late}")
    return said


def _left(late: int) -> str:
    return "nothing is late" if not late else f"{minutes_text(late)} in all would be late"


def cure_said(cure: Cure, work: DayWork) -> str:
    """What would help, as a condition."""
    match cure.kind:
        case "first":
            title = next((job.title for job in work.jobs if cure.event and job.id == cure.event.job), "it")
            return f"if {title} goes first"
        case "stays":
            return f"if {cure.person} stays until {time_of(cure.until or 0)}"
        case "may-use":
            return f"if {cure.person} may use the {machines()[cure.machine or ''].label.lower()}"
        case "later":
            return f"if it is promised for {time_of(cure.until or 0)}"


def reason_said(found: LateReason, work: DayWork, ends: Callable[[int], int]) -> str:
    """Why something is late; `ends`: when a block ends."""
    block = work.by_id[found.block]
    other = work.by_id[found.other] if found.other is not None else None
    whose = f"{other.title}, {other.label}, until {time_of(ends(other.id))}" if other is not None else ""
    match found.held:
        case "spindle":
            machine = machines()[block.machine or "hand"].label
            return f"{block.label} waits for the {machine.lower()}: it is taken by {whose}."
        case "person":
            return f"{block.label} waits for somebody: there is {whose} first."
        case "air":
            return f"{block.label} must not be in one room with {whose}."
        case "hours":
            return f"{block.label} waits until somebody is there again."
        case "wait":
            return f"{block.label} takes {minutes_text(block.minutes)}, and nothing can shorten that."
        case "put":
            return f"{block.label} was put where it stands."
        case "own":
            return "Its own work takes that long from where it can begin."


def to_late_file(
    job: str, found: LateReason, cures: tuple[Cure, ...], work: DayWork, ends: Callable[[int], int], origin: int
) -> LateFile:
    """Why, and what would help."""
    return LateFile(
        job=int(job),
        reason=reason_said(found, work, ends),
        cures=[
            CureFile(
                said=f"{_capital(cure_said(cure, work))}, {_left(cure.late)}.",
                late_min=cure.late,
                promises=[to_promise_file(promise) for promise in cure.promises],
                event=to_day_event_file(cure.event, origin) if cure.event else None,
            )
            for cure in cures
        ],
    )


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def to_day_event_file(event: DayEvent, origin: int) -> DayEventFile:
    """An event in the units of the file."""
    return DayEventFile(
        kind=event.kind,
        person=event.person,
        machine=event.machine,
        block=event.block,
        job=None if event.job is None else int(event.job),
        operation=event.operation,
        until_min=None if event.until is None else max(0, event.until - origin),
        times=event.times,
    )


def event_said(file: DayEventFile, work: DayWork, begins: int) -> str:
    """What happened, in words."""
    until = "" if file.until_min is None else f" until {time_of(file.until_min + begins)}"
    titles = {job.id: job.title for job in work.jobs}
    blocks = {task.key: f"{task.title}, {task.label}" for task in work.tasks}
    match file.kind:
        case "away":
            return f"{file.person} is away{until}"
        case "stays":
            return f"{file.person} stays{until}"
        case "broken":
            known = machines().get(file.machine or "")
            return f"{known.label if known else file.machine} is out of order{until}"
        case "longer":
            return f"{blocks.get(file.block or '', 'A block')} takes {file.times:g} times as long"
        case "urgent":
            wanted = f" by {time_of(file.until_min + begins)}" if file.until_min is not None else ""
            return f"{titles.get(str(file.job), 'A job')} is urgent{wanted}"
        case "out":
            return f"What {file.operation} needs has run out{until}"
