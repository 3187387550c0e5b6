"""Converts the plan of a job to blocks: operations, set-ups for all pieces, and waits."""

import hashlib
import json
import math
from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import accumulate, islice
from typing import Final

from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.materials import family
from kelbrast.core.day.air import Rooms
from kelbrast.core.day.shop import After, Station, Task
from kelbrast.core.planning.whole.account import StepShare
from kelbrast.core.planning.whole.lots import seconds_in_the_last_set_up
from kelbrast.core.planning.whole.operations import Operation
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.planning.whole.set_ups import SetUp
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.lay import is_brushed
from kelbrast.core.units import from_si, to_si

_ONE_ROOM: Final = Rooms()
_DRIES_CLEAN: Final = ("lacquer",)


@dataclass(frozen=True, slots=True)
class JobBlocks:
    """The blocks of a job and their order."""

    tasks: tuple[Task, ...]
    links: tuple[After, ...]


def block_key(job: str, *what: object) -> str:
    """Return the identity of a block of a job: it stays when other blocks come, go, or change their order.

    >>> block_key("7", "tool", "felt", ["rim, outer"]) == block_key("7", "tool", "felt", ["rim", "outer"])
    False
    """
    return f"{job}-{hashlib.sha1(json.dumps(what).encode(), usedforsecurity=False).hexdigest()[:12]}"


def blocks_of(
    plan: Plan, *, job: str, title: str, first: int, due: int | None = None, earliest: int = 0, rooms: Rooms = _ONE_ROOM
) -> JobBlocks:
    """The blocks of a job, lot by lot, numbered from `first`, one after the other; its promise is that of its last.

    Args:
        job: its identity.  title: its name, to be read.
    """
    tasks: list[Task] = []
    links: list[After] = []
    before: list[Task] = []
    for lot in _lots(plan.lots):
        made = _Blocks(plan, job, title, first + len(tasks), earliest, lot, rooms)
        made.all()
        # Lots follow each other: what is done with one is done with the one before first.
        links += [*made.links, *(After(one.id, other.id) for one, other in zip(before, made.tasks, strict=False))]
        tasks += made.tasks
        before = made.tasks
    if due is not None and tasks:
        tasks[-1] = replace(tasks[-1], due=due)
    return JobBlocks(tuple(tasks), tuple(links))


@dataclass(frozen=True, slots=True)
class _Lot:
    """One of `of` lots: its number, its first piece and how many it has."""

    number: int
    of: int
    begins: int
    pieces: int

    @property
    def said(self) -> str:
        """Which one, where there are several."""
        return f"lot {self.number} of {self.of}" if self.of > 1 else ""


def _lots(sizes: Sequence[int]) -> list[_Lot]:
    ends = list(accumulate(sizes))
    return [_Lot(at, len(sizes), end - size + 1, size) for at, (size, end) in enumerate(zip(sizes, ends, strict=True), start=1)]


def stations_of(plans: Iterable[Plan]) -> tuple[Station, ...]:
    """The machines that these plans use, with empty spindles."""
    used = {set_up.machine.id for plan in plans for set_up in plan.set_ups if set_up.machine.id != "hand"}
    found = [machines()[machine] for machine in machines() if machine in used]
    return tuple(Station(machine.id, machine.label, (None,) * machine.spindles) for machine in found)


def machines_missing(plan: Plan, there: Collection[str] | None) -> tuple[str, ...]:
    """The machines that a plan needs and the shop does not have, as they are called; none where nobody knows what it has."""
    if there is None:
        return ()
    needed = {set_up.machine.id: set_up.machine.label for set_up in plan.set_ups if set_up.machine.id != "hand"}
    return tuple(label for machine, label in needed.items() if machine not in there)


def minutes_of(seconds: float) -> int:
    """Whole minutes, none shorter than a block can be.

    >>> minutes_of(0.0), minutes_of(20.0), minutes_of(61.0)
    (0, 1, 2)
    """
    if seconds <= 0:
        return 0
    least = from_si(constant("day.least_block").si, "min")
    return math.ceil(max(least, from_si(seconds, "min")) - 1e-9)


class _Blocks:
    """Block after block of one lot of a job.

    A board has whole minutes: what a block is rounded by is made up for by the next ones, so that together they take as long as
    the account says.
    """

    def __init__(self, plan: Plan, job: str, title: str, first: int, earliest: int, lot: _Lot, rooms: Rooms) -> None:
        self.plan, self.job, self.title, self.next, self.earliest = plan, job, title, first, earliest
        self.lot, self.pieces, self.rooms = lot, lot.pieces, rooms
        self.names = {face.face.key: face.face.name for face in plan.faces}
        self.keys: Counter[str] = Counter()
        self.tasks: list[Task] = []
        self.links: list[After] = []
        self.last: int | None = None
        self.worked: int | None = None
        self.soaks = False  # the block before is a wait that may not be forgotten
        self._owed = 0.0  # seconds of the account that no block has had yet

    def all(self) -> None:
        """Every block."""
        plan, shares = self.plan, iter(self.plan.shares)
        for one in plan.operations:
            if one.when == "before" and not one.counted:
                self.operation(one)
        brushed = {face.face.key for face in plan.faces if is_brushed(face.face)}
        between = [operation for operation in plan.operations if operation.when == "between" and not operation.counted]
        for at, set_up in enumerate(plan.set_ups):
            last = at == len(plan.set_ups) - 1
            if between and (last or any(face in brushed for face, _ in set_up.faces)):
                for one in between:
                    self.operation(one)
                between = []
            self.set_up(set_up, list(islice(shares, len(set_up.faces))))
        for one in between:
            self.operation(one)
        self.worked = self.last
        for one in plan.operations:
            if one.when == "after" and not one.counted:
                self.operation(one)

    def _minutes(self, seconds: float) -> int:
        """Whole minutes for so many seconds, with what blocks before had too little or too much."""
        if seconds <= 0:
            return 0
        least = round(from_si(constant("day.least_block").si, "min"))
        minutes = max(least, round(from_si(self._owed + seconds, "min")))
        self._owed += seconds - to_si(minutes, "min")
        return minutes

    def _add_work(self, task: Task) -> None:
        """Work that is longer than somebody keeps at one thing is done in parts, with room between them."""
        longest = round(from_si(constant("day.longest_block").si, "min"))
        parts = max(1, math.ceil(task.minutes / longest))
        for at in range(parts):
            minutes = task.minutes * (at + 1) // parts - task.minutes * at // parts
            label = task.label if parts == 1 else f"{task.label}, part {at + 1} of {parts}"
            self._add(replace(task, id=self.next, minutes=minutes, label=label))

    def _add(self, task: Task) -> None:
        several = self.lot.of > 1
        self.tasks.append(
            replace(
                task,
                room=self.rooms.of(task),
                earliest=self.earliest,
                key=self._key(task),
                title=self.title,
                label=f"{task.label}, {self.lot.said}" if several else task.label,
                pieces=(self.lot.begins, self.lot.begins + self.pieces - 1) if several else None,
            )
        )
        if self.last is not None:
            self.links.append(After(self.last, task.id, 0, 0 if self.soaks else None))
        self.soaks = False
        self.last, self.next = task.id, task.id + 1

    def _key(self, task: Task) -> str:
        """What the block is for, and the how manyeth of these it is: a tool may be used twice, and long work is in parts."""
        what = (task.kind, task.operation, task.tool, task.faces)
        key = block_key(self.job, *what, self.lot.number) if self.lot.of > 1 else block_key(self.job, *what)
        self.keys[key] += 1
        return f"{key}-{self.keys[key]}"

    def operation(self, operation: Operation) -> None:
        minutes = self._minutes(operation.active * self.pieces + operation.lot)
        if minutes:
            clean = operation.id in _DRIES_CLEAN
            task = Task(self.next, self.job, operation.label, minutes, operation=operation.id, clean=clean)
            self._add_work(task)
            if operation.within is not None and self.worked is not None:
                # It must be on by then, so it begins by its own length earlier; and the first piece has waited for the others.
                waited = (self.pieces - 1) * seconds_in_the_last_set_up(self.plan.set_ups, self.plan.shares)
                most = max(0, math.floor(from_si(operation.within - waited, "min")) - minutes)
                self.links.append(After(self.worked, self.next - 1, 0, most))
        waits = minutes_of(operation.passive)
        if not waits:
            return
        soaks = operation.when == "before"
        longest = round(waits * constant("day.soak_most").value) if soaks else None
        clean = operation.id in _DRIES_CLEAN
        label = f"{operation.label}, {'soaking' if soaks else 'drying'}"
        self._add(
            Task(
                self.next,
                self.job,
                label,
                waits,
                kind="wait",
                operation=operation.id,
                most=longest,
                by_person=False,
                clean=clean,
            )
        )
        self.soaks = soaks

    def set_up(self, set_up: SetUp, shares: Sequence[StepShare]) -> None:
        work = sum(share.of(self.pieces, 1).hands_on - share.once.set_up for share in shares)
        setup = sum(share.once.set_up for share in shares)
        by_machine, kin = set_up.machine.id != "hand", family(self.plan.job.material.family)
        change = self._minutes(setup) if by_machine else 0
        self._add_work(
            Task(
                self.next,
                self.job,
                set_up.tool.label,
                self._minutes(work + (0 if by_machine else setup)),
                faces=(faces := tuple(dict.fromkeys(face for face, _ in set_up.faces))),
                names=tuple(self.names[face] for face in faces),
                step=set_up.faces[0][1],
                tool=set_up.tool.id,
                machine=set_up.machine.id if by_machine else None,
                wheel=f"{set_up.tool.id} on {self.plan.job.material.family}" if by_machine else None,
                change=change,
                vibration=set_up.machine.vibration,
                dusty=(dusty := by_machine and not _is_wet(shares) and set_up.tool.carrier.cutting.wear_law != "compound"),
                sparks=dusty and kin.sparks,
                burns=dusty and kin.burns,
            )
        )


def _is_wet(shares: Sequence[StepShare]) -> bool:
    return shares[0].step.on_face.working.wet
