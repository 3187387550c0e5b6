"""Set-ups shared between faces: a tool that several faces need in the same round is set up once."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TypeVar

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face_plan import FacePlan
from kelbrast.core.surface.face import Face

Use = TypeVar("Use")


@dataclass(frozen=True, slots=True)
class SetUp:
    """A tool on its machine, and the faces worked with it before it comes off again, with their step numbers from 1."""

    tool: Tool
    machine: Machine
    spindle: float | None
    faces: tuple[tuple[str, int], ...]

    @property
    def saved(self) -> float:
        """Seconds of set-up that sharing saves on one piece."""
        return (len(self.faces) - 1) * self.tool.carrier.setup


def rank(face: Face) -> int:
    """Recesses and insides before the open faces around them; brushed faces last, so that nothing crosses their lay."""
    return 2 if face.want.lay == "one-way" else 0 if face.reach in ("inside", "tight") else 1


def set_ups(plans: tuple[FacePlan, ...]) -> tuple[SetUp, ...]:
    """The set-ups of a part in the order of work.

    Faces of one rank go down the grades together, coarsest marks first, so that no coarse grit comes after fine; every face's
    own steps keep their order, because each leaves finer marks than the one before.
    """
    steps = (
        (rank(plan.face), step.depth_after, step.tool, (plan.face.name, number, step.fit))
        for plan in plans
        for number, step in enumerate(plan.steps, start=1)
    )
    found = []
    for tool, uses in in_turn(steps):
        fit = uses[0][2]
        found.append(SetUp(tool, fit.machine, fit.setting.spindle, tuple((face, number) for face, number, _ in uses)))
    return tuple(found)


def in_turn(steps: Iterable[tuple[int, float, Tool, Use]]) -> list[tuple[Tool, list[Use]]]:
    """Steps of several faces as set-ups in the order of work: each tool with what it serves before it comes off again.

    Args:
        steps: the rank of the face, the depth of the marks that the step leaves (m), its tool, and what is told of the step.
    """
    found: dict[tuple[int, str], tuple[Tool, list[Use]]] = {}
    for turn, _, tool, use in sorted(steps, key=lambda one: (one[0], -one[1], one[2].id)):
        found.setdefault((turn, tool.id), (tool, []))[1].append(use)
    return list(found.values())


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
            worn[step.tool.id] = worn.get(step.tool.id, 0.0) + step.worn * pieces
            tools[step.tool.id] = step.tool
    ordered = sorted(tools.values(), key=lambda tool: (-tool.grain, tool.id))
    return tuple(Gathered(tool, max(1, math.ceil(worn[tool.id] - 1e-9))) for tool in ordered)
