"""Set-ups shared between faces: a tool that several faces need in the same round is set up once."""

import math
from dataclasses import dataclass

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face_plan import FacePlan
from kelbrast.core.planning.step import Step
from kelbrast.core.surface.face import Face


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
    found: list[SetUp] = []
    for turn in range(3):
        steps = [
            (-step.depth_after, step.tool.id, plan.face.name, number, step)
            for plan in plans
            if rank(plan.face) == turn
            for number, step in enumerate(plan.steps, start=1)
        ]
        by_tool: dict[str, list[tuple[str, int]]] = {}
        first: dict[str, Step] = {}
        for _, tool, face, number, step in sorted(steps, key=lambda one: one[:4]):
            by_tool.setdefault(tool, []).append((face, number))
            first.setdefault(tool, step)
        for tool, faces in by_tool.items():
            fit = first[tool].fit
            found.append(SetUp(fit.tool, fit.machine, fit.setting.spindle, tuple(faces)))
    return tuple(found)


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
