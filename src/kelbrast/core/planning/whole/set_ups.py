"""Set-ups shared between faces: a tool that several faces need in the same round is set up once."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TypeVar

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.order import coarsest_to_come, place_in_order, turn_of
from kelbrast.core.validity import REL_TOL

Served = TypeVar("Served")


@dataclass(frozen=True, slots=True)
class SetUp:
    """A tool on its machine, and the faces worked with it before it comes off again, with their step numbers from 1.

    Attributes:
        washes: how many of these steps begin with a wash.  uses: how many would need the tool set up by themselves.
    """

    tool: Tool
    machine: Machine
    spindle: float | None
    faces: tuple[tuple[str, int], ...]
    washes: int
    uses: int

    @property
    def saved(self) -> float:
        """Seconds that sharing saves on one piece."""
        return saved_by_sharing(self.tool, uses=self.uses, washes=self.washes)


def saved_by_sharing(tool: Tool, *, uses: int, washes: int) -> float:
    """Seconds that are saved when a tool is set up once for so many steps, and the part washed once before them."""
    return (uses - 1) * tool.carrier.stock.setup + max(0, washes - 1) * constant("work.wash").si


def set_ups(plans: tuple[FacePlan, ...]) -> tuple[SetUp, ...]:
    """The set-ups of a part in the order of work.

    Faces of one round go down the grades together, coarsest marks first, so that no coarse grit comes after fine; every face's
    own steps keep their order, because each leaves finer marks than the one before.
    """
    steps = (
        (turn_of(plan.face), coarsest, step.tool, plan.face.key, (plan.face.key, number, step))
        for plan in plans
        for number, (step, coarsest) in enumerate(
            zip(plan.steps, coarsest_to_come([step.marks.after for step in plan.steps]), strict=True), start=1
        )
    )
    set_ups = []
    for tool, uses in in_turn(steps):
        on_face, washes = uses[0][2].on_face, sum(step.time.wash > 0 for _, _, step in uses)
        served = tuple((face, number) for face, number, _ in uses)
        made = sum(not step.goes_on for _, _, step in uses)
        set_ups.append(SetUp(tool, on_face.machine, on_face.setting.spindle, served, washes, made))
    return tuple(set_ups)


def in_turn(steps: Iterable[tuple[int, float, Tool, str, Served]]) -> list[tuple[Tool, list[Served]]]:
    """Steps of several faces as set-ups in the order of work: each tool with what it serves before it comes off again.

    Every face keeps the order of its steps: a tool that comes again on a face, after another, is set up again.

    Args:
        steps: in the order of each face, the turn of the face, the depth of the coarsest marks that the step or a later one
            leaves (m), its tool, the face, and what is told of the step.
    """
    latest: dict[str, tuple[int, float, str]] = {}
    placed = []
    for turn, coarsest, tool, face, served in steps:
        place = place_in_order(turn, coarsest, tool.id)
        latest[face] = max(place, latest.get(face, place))
        placed.append((latest[face], tool, face, served))
    made: list[tuple[int, Tool, list[Served]]] = []
    last: dict[str, int] = {}  # the set-up in which each face was worked last
    for place, tool, face, served in sorted(placed, key=lambda each: each[0]):
        turn = place[0]
        at = next(
            (n for n, (of, one, _) in enumerate(made) if (of, one.id) == (turn, tool.id) and n >= last.get(face, 0)), None
        )
        if at is None:
            at = len(made)
            made.append((turn, tool, []))
        made[at][2].append(served)
        last[face] = at
    return [(tool, uses) for _, tool, uses in made]


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
