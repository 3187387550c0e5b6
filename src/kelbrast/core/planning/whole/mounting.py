"""Set-ups for one or several jobs: tools to gather, and which wheel goes on which spindle in which order."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.planning.whole.set_ups import Gathered, SetUp, gather, set_ups
from kelbrast.core.rules.order import families_apart


@dataclass(frozen=True, slots=True)
class Mounted:
    """A set-up on a spindle (from 1) of its machine; `mount`: it must be put on first."""

    set_up: SetUp
    spindle: int
    mount: bool


@dataclass(frozen=True, slots=True)
class MachineSetUps:
    """The set-ups of one machine in order, the changes they need, and notes on mounting."""

    machine: Machine
    mounted: tuple[Mounted, ...]
    notes: tuple[str, ...]

    @property
    def changes(self) -> int:
        """How often a wheel is put on after the first on every spindle."""
        first = len({mounted.spindle for mounted in self.mounted})
        return sum(mounted.mount for mounted in self.mounted) - first


@dataclass(frozen=True, slots=True)
class Preparation:
    """Everything to get ready for these jobs."""

    gather: tuple[Gathered, ...]
    machines: tuple[MachineSetUps, ...]


def prepare(plans: Sequence[Plan]) -> Preparation:
    """Jobs of one metal family go down the grades together; families follow each other, so that nothing is mixed."""
    named = len(plans) > 1
    faces = (
        (plan.job.material.family, _to_be_read(f"{plan.job.title}: " if named else "", face))
        for plan in plans
        for face in plan.faces
    )
    machines: dict[str, list[SetUp]] = {}
    for set_up in (each for family in families_apart(faces) for each in set_ups(tuple(family))):
        machines.setdefault(set_up.machine.id, []).append(set_up)
    counts: dict[str, int] = {}
    needs = [need for plan in plans for need in gather(plan.faces, plan.job.pieces)]
    for need in needs:
        counts[need.tool.id] = counts.get(need.tool.id, 0) + need.count
    tools = sorted({need.tool.id: need.tool for need in needs}.values(), key=lambda tool: (-tool.grain, tool.id))
    gathered = tuple(Gathered(tool, counts[tool.id]) for tool in tools)
    return Preparation(gathered, tuple(_machine(machine) for machine in machines.values()))


def _to_be_read(before: str, plan: FacePlan) -> FacePlan:
    """The plan of a face that is only named from here on: faces of several jobs may have one id."""
    return replace(plan, face=replace(plan.face, name=f"{before}{plan.face.name}", id=""))


def _machine(one_machine: list[SetUp]) -> MachineSetUps:
    machine = one_machine[0].machine
    spindles = mountings([set_up.tool.id for set_up in one_machine], spindles=machine.spindles)
    mounted = tuple(Mounted(set_up, at.spindle, at.mount) for set_up, at in zip(one_machine, spindles, strict=True))
    return MachineSetUps(machine, mounted, machine.mounting)


@dataclass(frozen=True, slots=True)
class Mounting:
    """One use of a wheel: on which spindle (from 1), and whether it must be put on first."""

    wheel: str
    spindle: int
    mount: bool


def mountings(wheels: Sequence[str], *, spindles: int) -> tuple[Mounting, ...]:
    """Where each wheel of a sequence is mounted, with the fewest changes.

    When a spindle is needed, the wheel that is used again latest (or never) comes off: with the whole sequence known this
    is the best that can be done (Belady 1966, the optimal replacement).

    >>> [(one.wheel, one.spindle, one.mount) for one in mountings(["a", "b", "a", "c", "a"], spindles=2)]
    [('a', 1, True), ('b', 2, True), ('a', 1, False), ('c', 2, True), ('a', 1, False)]
    """
    on: dict[int, str] = {}
    mountings = []
    for at, wheel in enumerate(wheels):
        here = next((spindle for spindle, mounted in on.items() if mounted == wheel), None)
        if here is None:
            free = next((spindle for spindle in range(1, spindles + 1) if spindle not in on), None)
            spindle = free if free is not None else max(on, key=lambda spindle: _next_use(wheels, at, on[spindle]))
            on[spindle] = wheel
            mountings.append(Mounting(wheel, spindle, True))
        else:
            mountings.append(Mounting(wheel, here, False))
    return tuple(mountings)


def _next_use(wheels: Sequence[str], at: int, wheel: str) -> int:
    return next((later for later in range(at + 1, len(wheels)) if wheels[later] == wheel), len(wheels))
