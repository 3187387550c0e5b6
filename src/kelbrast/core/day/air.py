"""What must not happen in one room at once: sparks beside dust that burns, dust beside wet lacquer, too much dust."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from kelbrast.core.day.shop import DayWork, Task
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si


@dataclass(frozen=True, slots=True)
class Room:
    """A room of the shop: the machines that stand in it, and whether lacquer is put on and dries there.

    Attributes:
        extractors: how many machines that raise dust it can take at once; None for as many as there are.
    """

    name: str
    machines: frozenset[str] = frozenset()
    lacquers: bool = False
    extractors: int | None = None


@dataclass(frozen=True, slots=True)
class Rooms:
    """The rooms of a shop; what is in none of them shares the main one, where `extractors` are."""

    others: tuple[Room, ...] = ()
    extractors: int | None = None

    def of(self, task: Task) -> str:
        """The name of the room in which a block is done; empty for the main one."""
        for room in self.others:
            if (task.clean and room.lacquers) or (task.machine is not None and task.machine in room.machines):
                return room.name
        return ""

    def most_dust(self) -> Mapping[str, int]:
        """By room, how many blocks that raise dust may be worked at once, where that is limited."""
        known = {"": self.extractors, **{room.name: room.extractors for room in self.others}}
        return {name: count for name, count in known.items() if count is not None}


@dataclass(frozen=True, slots=True)
class Apart:
    """Two blocks that may not overlap: `other` begins at least `after` minutes after `first` ends, or ends before it begins.

    Attributes:
        why: in words, for a person.
    """

    first: int
    other: int
    after: int
    why: str


@dataclass(frozen=True, slots=True)
class Air:
    """What the rooms ask of the blocks of a day.

    Attributes:
        apart: pairs that may not overlap.
        dusty: by room, the blocks that raise dust; most: how many of them at once, where that is limited.
    """

    apart: tuple[Apart, ...] = ()
    dusty: Mapping[str, tuple[int, ...]] = field(default_factory=dict)
    most: Mapping[str, int] = field(default_factory=dict)


def air_of(work: DayWork) -> Air:
    """What holds between the blocks of a day. Two that are in hand already are not told apart: it is as it is."""
    by_room: dict[str, list[Task]] = {}
    for task in work.tasks:
        if task.dusty or task.clean or task.sparks or task.burns:
            by_room.setdefault(task.room, []).append(task)
    apart = tuple(one for tasks in by_room.values() for one in _apart(tasks))
    most = {room: count for room, count in work.most_dust.items() if room in by_room}
    dusty = {room: tuple(task.id for task in by_room[room] if task.dusty) for room in most}
    return Air(apart, dusty, most)


def _apart(tasks: Sequence[Task]) -> Iterator[Apart]:
    lies = round(from_si(constant("day.dust_lies").si, "min"))
    for first in tasks:
        for other in tasks:
            if first is other or (first.begun and other.begun):
                continue
            if first.burns and other.sparks and first.job != other.job:  # of one's own dust the step itself warns
                yield Apart(first.id, other.id, lies, "throws sparks beside dust that burns from")
            if first.clean and other.dusty:
                yield Apart(first.id, other.id, 0, "makes dust while wet lacquer is in the room from")
