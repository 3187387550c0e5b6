"""What a plan needs and the rack does not have, or not enough of for all pieces; and the best route without it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.plan import Plan, plan_job
from kelbrast.core.surface.face import Face, Wish


@dataclass(frozen=True, slots=True)
class Shortage:
    """A tool of which all pieces use up `need`, and the rack has only `have` (0: it is not there at all)."""

    tool: Tool
    need: int
    have: float


def shortages(plan: Plan, have: Mapping[str, float]) -> tuple[Shortage, ...]:
    """Everything that the plan lays out and the rack can not, by how many of each tool id it has."""
    return tuple(
        Shortage(one.tool, one.count, have.get(one.tool.id, 0.0))
        for one in plan.gather
        if have.get(one.tool.id, 0.0) < one.count - 1e-9
    )


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
