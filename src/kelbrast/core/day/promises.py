"""What a schedule does to every promise: when each job is done, what is late and what holds it up, and what would cure it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from kelbrast.core.day.air import air_of
from kelbrast.core.day.events import DayEvent, applied
from kelbrast.core.day.greedy import plan_at_once, put_job_first, settled
from kelbrast.core.day.schedule import Placed, score
from kelbrast.core.day.shop import DAY, DayWork, Task

_CURES: Final = 3
_OVERTIME: Final = (60, 120)  # minutes that somebody may stay longer, to be tried
HeldBy = Literal["own", "wait", "person", "spindle", "air", "hours", "put"]


@dataclass(frozen=True, slots=True)
class JobPromise:
    """A job of the schedule: when its last block ends, and by how many minutes that is late; `due` is None for no promise."""

    job: str
    title: str
    due: int | None
    ends: int

    @property
    def late(self) -> int:
        return 0 if self.due is None else max(0, self.ends - self.due)


def promises(work: DayWork, plan: Sequence[Placed]) -> tuple[JobPromise, ...]:
    """Every job that has blocks left, as the schedule has it."""
    ends: dict[str, int] = {}
    for placed in plan:
        job = work.by_id[placed.task].job
        ends[job] = max(ends.get(job, 0), placed.ends)
    return tuple(JobPromise(job.id, job.title, job.due, ends[job.id]) for job in work.jobs if job.id in ends)


def moved(before: Iterable[Placed], after: Iterable[Placed]) -> int:
    """How many blocks stand elsewhere than before."""
    stood = {placed.task: (placed.begins, placed.person, placed.spindle) for placed in before}
    return sum(stood[placed.task] != (placed.begins, placed.person, placed.spindle) for placed in after if placed.task in stood)


def replanned(work: DayWork, last: Sequence[Placed], *, quickly: bool = False) -> tuple[DayWork, tuple[Placed, ...]] | None:
    """A schedule after something changed: the least late, and of these the one that moves the fewest blocks.

    Args:
        quickly: from the blocks as they stand alone, if that can be.
    """
    made = []
    longer = replace(work, days=max([work.days, *(1 + placed.ends // DAY for placed in last)]))
    if last and (same := settled(longer, last)) is not None:
        made.append((longer, same))
    if not (quickly and made) and (fresh := plan_at_once(work)) is not None:
        made.append((fresh[0], fresh[1]))
    found = min(made, key=lambda one: (score(*one).late, moved(last, one[1]), score(*one)), default=None)
    return None if found is None else (found[0], tuple(found[1]))


@dataclass(frozen=True, slots=True)
class LateReason:
    """What makes a promise late: `held` by what, at which block, and the block that is in its way; ids of tasks."""

    held: HeldBy
    block: int
    other: int | None = None


def reason(work: DayWork, plan: Sequence[Placed], job: str) -> LateReason:
    """Follow the last block of a job backwards along what it had to wait for, to the first thing that is not its own."""
    at = {placed.task: placed for placed in plan}
    mine = [placed for placed in plan if work.by_id[placed.task].job == job]
    block = max(mine, key=lambda placed: placed.ends)
    longest: LateReason | None = None
    while True:
        task = work.by_id[block.task]
        if task.kind == "wait" and (longest is None or task.minutes > work.by_id[longest.block].minutes):
            longest = LateReason("wait", task.id)
        if task.fixed is not None and not task.begun:
            return LateReason("put", task.id)
        before = [at[link.before] for link in work.links if link.task == task.id and link.before in at]
        tight = [one for one in before if one.ends >= block.begins]
        if tight:
            block = max(tight, key=lambda placed: placed.ends)
            continue
        held = _held_by(work, plan, block)
        if held is not None and block.begins > max([work.now, task.earliest, *(one.ends for one in before)]):
            return held
        return longest or LateReason("own", task.id)


def _held_by(work: DayWork, plan: Sequence[Placed], block: Placed) -> LateReason | None:
    """What else ends just when a block begins: on its spindle, with its person, in its air; or somebody comes only then."""
    task = work.by_id[block.task]
    ends = [one for one in plan if one.ends == block.begins and one is not block]
    for one in ends:
        other = work.by_id[one.task]
        if task.machine is not None and (other.machine, one.spindle) == (task.machine, block.spindle):
            return LateReason("spindle", task.id, other.id)
    for one in ends:
        if block.person is not None and one.person == block.person:
            return LateReason("person", task.id, one.task)
    at = {placed.task: placed for placed in plan}
    for apart in air_of(work).apart:
        if apart.other == task.id and at[apart.first].ends + apart.after == block.begins:
            return LateReason("air", task.id, apart.first)
        if apart.first == task.id and at[apart.other].ends == block.begins:
            return LateReason("air", task.id, apart.other)
    person = next((one for one in work.people if one.name == block.person), None)
    if person is not None and any(begins == block.begins for begins, _ in person.free(work.days)):
        return LateReason("hours", task.id)
    return None


@dataclass(frozen=True, slots=True)
class Cure:
    """Something that would help a late promise, and what the schedule would then be.

    Attributes:
        kind: this job goes first; somebody stays longer; somebody may use a machine; it is promised for later.
        event: what to say to the schedule to have it; None where it is another setting.
    """

    kind: Literal["first", "stays", "may-use", "later"]
    promises: tuple[JobPromise, ...]
    moved: int
    event: DayEvent | None = None
    person: str | None = None
    machine: str | None = None
    until: int | None = None

    @property
    def late(self) -> int:
        """Minutes late over all promises."""
        return sum(promise.late for promise in self.promises)


def cures(work: DayWork, plan: Sequence[Placed], job: str) -> tuple[Cure, ...]:
    """What would make less late, the best first, at most three: each tried on the whole schedule."""
    now = sum(promise.late for promise in promises(work, plan))
    found = [cure for cure in _tried(work, plan, job) if cure.late < now]
    found.sort(key=lambda cure: (cure.late, cure.moved))
    ends = next(promise.ends for promise in promises(work, plan) if promise.job == job)
    later = tuple(replace(one, due=ends) if one.job == job else one for one in promises(work, plan))
    return (*found[: _CURES - 1], Cure("later", later, 0, until=ends))


def _tried(work: DayWork, plan: Sequence[Placed], job: str) -> Iterable[Cure]:
    first = put_job_first(work, job)
    if first is not None:
        longer, placed = first
        ends = max(one.ends for one in placed if work.by_id[one.task].job == job)
        event = DayEvent("urgent", at=work.now, job=job, until=ends)
        yield Cure("first", promises(longer, placed), moved(plan, placed), event)
    mine = [work.by_id[placed.task] for placed in plan if work.by_id[placed.task].job == job]
    theirs = {placed.person for placed in plan if work.by_id[placed.task].job == job}
    for person in (one for one in work.people if one.name in theirs):
        best = sum(promise.late for promise in promises(work, plan))
        for minutes in _OVERTIME:
            until = work.now // DAY * DAY + person.ends + minutes
            if person.ends + minutes > DAY:
                continue
            event = DayEvent("stays", at=work.now, person=person.name, until=until)
            made = replanned(applied(work, [event]), plan, quickly=True)
            late = best if made is None else sum(promise.late for promise in promises(*made))
            if made is not None and late < best:  # an hour more that helps no more is not asked of anybody
                best = late
                yield Cure("stays", promises(*made), moved(plan, made[1]), event, person=person.name, until=until)
    yield from _may_use(work, plan, mine)


def _may_use(work: DayWork, plan: Sequence[Placed], mine: Sequence[Task]) -> Iterable[Cure]:
    needed = {task.machine for task in mine if task.machine is not None}
    for person in work.people:
        lacks = sorted(machine for machine in needed if not person.may_use(machine))
        for machine in lacks:
            able = replace(person, machines=(person.machines or frozenset()) | {machine})
            people = tuple(able if one is person else one for one in work.people)
            made = replanned(replace(work, people=people), plan, quickly=True)
            if made is not None:
                yield Cure("may-use", promises(*made), moved(plan, made[1]), person=person.name, machine=machine)


@dataclass(frozen=True, slots=True)
class Effect:
    """What something that happens would do to the promises.

    Attributes:
        before, after: every promise without and with it.  moved: blocks that stand elsewhere then.
        cure: what would help best of what becomes late; None where nothing does or nothing would.
    """

    before: tuple[JobPromise, ...]
    after: tuple[JobPromise, ...]
    moved: int
    cure: Cure | None

    @property
    def later(self) -> tuple[JobPromise, ...]:
        """The promises that are late by more than before."""
        was = {promise.job: promise.late for promise in self.before}
        return tuple(promise for promise in self.after if promise.late > was.get(promise.job, 0))


def effect(work: DayWork, plan: Sequence[Placed], event: DayEvent) -> Effect | None:
    """What an event would do to a schedule; None where nothing could be planned then."""
    before = promises(work, plan)
    made: tuple[DayWork, Sequence[Placed]] | None = None
    if event.kind == "urgent" and event.job and event.until is None:
        made = put_job_first(work, event.job)
    if made is None:
        made = replanned(applied(work, [event]), plan)
    if made is None:
        return None
    changed, placed = made
    after = promises(changed, placed)
    worse = Effect(before, after, moved(plan, placed), None)
    if not worse.later:
        return worse
    worst = max(worse.later, key=lambda promise: promise.late)
    helps = [cure for cure in cures(changed, placed, worst.job) if cure.kind != "later"]
    return replace(worse, cure=helps[0] if helps else None)
