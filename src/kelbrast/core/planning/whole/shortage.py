"""What a plan needs and the rack does not have, or not enough of for all pieces; and the best route without it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.job import Job
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.validity import SAME


@dataclass(frozen=True, slots=True)
class Shortage:
    """A tool of which all pieces use up `need`, and the rack has only `have` (0: it is not there at all)."""

    tool: Tool
    need: int
    have: float


def shortages(plan: Plan, have: Mapping[str, float]) -> tuple[Shortage, ...]:
    """Everything that the plan lays out and the rack cannot, by how many of each tool id it has."""
    return tuple(
        Shortage(one.tool, one.count, have.get(one.tool.id, 0.0))
        for one in plan.gather
        if have.get(one.tool.id, 0.0) < one.count - SAME
    )


@dataclass(frozen=True, slots=True)
class DoneWithout:
    """The best plan of which the rack has everything, or None when there is none; and the tool ids that it does without."""

    plan: Plan | None
    tools: frozenset[str]


def do_without(plan: Plan, have: Mapping[str, float]) -> DoneWithout:
    """Plan again without what is short, until nothing is: the plan without one thing may need another that is short too."""
    tools: frozenset[str] = frozenset()
    while short := frozenset(one.tool.id for one in shortages(plan, have)):
        tools |= short
        plan = without(plan.job, tools)
        # A wish that cannot be kept is given up and said so: then these tools are in the plan again.
        if not plan.possible or any(face.wish_note for face in plan.faces):
            return DoneWithout(None, tools)
    return DoneWithout(plan, tools)


def without(job: Job, tools: frozenset[str]) -> Plan:
    """The best plan that does without these tools; what was wished for with them is given up."""
    return plan_job(replace(job, faces=tuple(_without(face, tools) for face in job.faces)))


def _without(face: Face, tools: frozenset[str]) -> Face:
    wish = face.wish
    kept = Wish(
        start=None if wish.start in tools else wish.start,
        lock=tuple(tool for tool in wish.lock if tool not in tools),
        leave_out=tuple(sorted({*wish.leave_out, *tools})),
    )
    return replace(face, wish=kept)
