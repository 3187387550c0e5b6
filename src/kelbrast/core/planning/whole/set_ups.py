"""Set-ups shared between faces: a tool that several faces need in the same round is set up once."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TypeVar

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.order import place_in_order, turn_of
from kelbrast.core.validity import REL_TOL

Served = TypeVar("Served")


@dataclass(frozen=True, slots=True)
class SetUp:
    """A tool on its machine, and the faces worked with it before it comes off again, with their step numbers from 1.

    Attributes:
        washes: how many of these steps begin with a wash.
    """

    tool: Tool
    machine: Machine
    spindle: float | None
    faces: tuple[tuple[str, int], ...]
    washes: int

    @property
    def saved(self) -> float:
        """Seconds that sharing saves on one piece."""
        return saved_by_sharing(self.tool, uses=len(self.faces), washes=self.washes)


def saved_by_sharing(tool: Tool, *, uses: int, washes: int) -> float:
    """Seconds that are saved when a tool is set up once for so many steps, and the part washed once before them."""
    return (uses - 1) * tool.carrier.stock.setup + max(0, washes - 1) * constant("work.wash").si


def set_ups(plans: tuple[FacePlan, ...]) -> tuple[SetUp, ...]:
    """The set-ups of a part in the order of work.

    Faces of one round go down the grades together, coarsest marks first, so that no coarse grit comes after fine; every face's
    own steps keep their order, because each leaves finer marks than the one before.
    """
    steps = (
        (turn_of(plan.face), step.marks.after, step.tool, (plan.face.key, number, step))
        for plan in plans
        for number, step in enumerate(plan.steps, start=1)
    )
    set_ups = []
    for tool, uses in in_turn(steps):
        on_face, washes = uses[0][2].on_face, sum(step.time.wash > 0 for _, _, step in uses)
        set_ups.append(
            SetUp(tool, on_face.machine, on_face.setting.spindle, tuple((face, number) for face, number, _ in uses), washes)
        )
    return tuple(set_ups)


def in_turn(steps: Iterable[tuple[int, float, Tool, Served]]) -> list[tuple[Tool, list[Served]]]:
    """Steps of several faces as set-ups in the order of work: each tool with what it serves before it comes off again.

    Args:
        steps: the turn of the face, the depth of the marks that the step leaves (m), its tool, and what is told of the step.
    """
    tools: dict[tuple[int, str], tuple[Tool, list[Served]]] = {}
    for turn, _, tool, use in sorted(steps, key=lambda step: place_in_order(step[0], step[1], step[2].id)):
        tools.setdefault((turn, tool.id), (tool, []))[1].append(use)
    return list(tools.values())


def wheel_changes(tools: Sequence[Tool]) -> int:
    """How often a wheel is put on for these set-ups, after the first of them."""
    return sum(tool.carrier.mount != "hand" for tool in tools[1:])


@dataclass(frozen=True, slots=True)
class Gathered:
    """A tool to have at hand before the work begins, and how many of its sheets, discs or bars all pieces use up."""

    tool: Tool
    count: int


def gather(plans: tuple[FacePlan, ...], pieces: int) -> tuple[Gathered, ...]:
    """Everything to lay out for all pieces, coarse to fine."""
    worn: dict[str, float] = {}
    tools: dict[str, Tool] = {}
    for plan in plans:
        for step in plan.steps:
            worn[step.tool.id] = worn.get(step.tool.id, 0.0) + step.use.worn * pieces
            tools[step.tool.id] = step.tool
    ordered = sorted(tools.values(), key=lambda tool: (-tool.grain, tool.id))
    return tuple(Gathered(tool, max(1, math.ceil(worn[tool.id] - REL_TOL))) for tool in ordered)
