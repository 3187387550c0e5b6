"""Machines: mounts, speeds, and the share of the time in contact with the work."""

import math
from dataclasses import dataclass
from typing import Any

from kelbrast.core.reference.loader import find, record
from kelbrast.core.reference.own_rows import remembered


@dataclass(frozen=True, slots=True)
class Drawing:
    """How a machine turns and where the work may touch it. Angles in radians, anticlockwise from three o'clock.

    Attributes:
        view: "side", along the spindle with the worker on the left; "face", at the disc or pad as it meets the work.
        turns: "clockwise" or "anticlockwise" in that view.
        worker: where the worker stands.  touch: the arc, from and to.  where: the same in words.
    """

    view: str
    turns: str
    worker: float
    touch: tuple[float, float]
    where: str


@dataclass(frozen=True, slots=True)
class Machine:
    """A machine, or the bare hand.

    Attributes:
        takes: the mounts it can drive ("bench-wheel", "belt", "hand" ...).
        contact: share of the time in real contact with the work.
        stands: the part is brought to it.
        settings: spindle speeds in rev/s when it has fixed ones.
        low, high: its range in rev/s when it is variable.
        orbit: orbit diameter in metres for an orbital machine.
        stroke: speed of a hand stroke in m/s.
        spindles: how many wheels are mounted at once.
        vibration: in the hand, frequency-weighted, m/s2; 0 where the part is brought to it.
        turns_work: the part turns, so the surface speed follows from its diameter.
        mounting: what to look at when something is put on it.
        least_mass: kg; a lighter part that nothing clamps runs away under it.
        like: of a shop's own, the machine of the reference that it is like.
        drawing: how it turns and where the work may touch; None for the bare hand.
    """

    id: str
    label: str
    takes: tuple[str, ...]
    contact: float
    stands: bool = False
    settings: tuple[float, ...] = ()
    low: float | None = None
    high: float | None = None
    orbit: float | None = None
    stroke: float | None = None
    vibration: float = 0.0
    turns_work: bool = False
    spindles: int = 1
    mounting: tuple[str, ...] = ()
    least_mass: float = 0.0
    drawing: "Drawing | None" = None
    like: str = ""

    @property
    def kin(self) -> str:
        """Id of the machine of the reference that it is, or that a shop's own is like."""
        return self.like or self.id

    @property
    def top(self) -> float:
        """Its highest spindle speed, rev/s; infinite where it has none."""
        return max([*self.settings, *([self.high] if self.high is not None else [])], default=math.inf)


@remembered()
def machines() -> dict[str, Machine]:
    """Every machine by its id."""
    return {key: _machine(key, row) for key, row in record("machines").items()}


def machine(key: str) -> Machine:
    """The machine with this id.

    >>> machine("hand").stroke
    0.6
    """
    return find("machine", machines(), key)


def _machine(key: str, row: dict[str, Any]) -> Machine:
    def si(name: str) -> float | None:
        return float(row[name].si) if name in row else None

    return Machine(
        id=key,
        label=row["label"],
        takes=tuple(row["takes"]),
        contact=row["contact"].si,
        stands=row.get("stands", False),
        settings=tuple(setting.si for setting in row.get("speeds", [])),
        low=si("speed_low"),
        high=si("speed_high"),
        orbit=si("orbit"),
        stroke=si("stroke"),
        vibration=si("vibration") or 0.0,
        turns_work=row.get("turns_work", False),
        spindles=row.get("spindles", 1),
        mounting=tuple(str(record("advice")["mounting"][key]) for key in row.get("mounting", ())),
        least_mass=si("least_mass") or 0.0,
        drawing=_drawing(row) if "view" in row else None,
        like=row.get("like", ""),
    )


def _drawing(row: dict[str, Any]) -> Drawing:
    touch = (row["touch_from"].si, row["touch_to"].si)
    return Drawing(row["view"], row["turns"], row["worker"].si, touch, row["where"])
