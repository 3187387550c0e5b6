"""A plan/1 for one face from a failed light check on, with the choices beside it."""

from pydantic import BaseModel

from kelbrast.core.job import Job
from kelbrast.core.planning.questions.goback import Extent, GoingBack, plan_of
from kelbrast.documents.common.numbers import shop
from kelbrast.documents.plan.format import FacePlanFile, PlanFile
from kelbrast.documents.plan.write import face_plan_file, to_plan_file


class Accepting(BaseModel):
    """What is left when the mark is accepted: how deep it is, how much deeper than the finish allows, whether it shows."""

    depth_um: float
    times_deeper: float
    shows: bool


class GoBack(BaseModel):
    """The choices at a failed light check.

    `like` is the paper grade whose marks are nearest; `extent` which of the two the plan follows: the quicker one.
    `deeper`: the mark is deeper than the face was described, so no step was left too early.
    """

    after: int
    depth_um: float
    missed_step: int | None
    deeper: bool
    like: str
    extent: Extent
    patch: FacePlanFile | None
    whole: FacePlanFile
    accept: Accepting


class GoBackFile(PlanFile):
    """The plan from there on, of one face."""

    goback: GoBack


def to_goback_file(job: Job, going: GoingBack) -> GoBackFile:
    """The answer in the units of the file."""
    extent, best = going.cheapest
    plan = to_plan_file(plan_of(job, best))
    depth = shop(going.depth, "um")
    return GoBackFile(
        **{name: getattr(plan, name) for name in PlanFile.model_fields},
        goback=GoBack(
            after=going.after,
            depth_um=depth,
            missed_step=going.missed,
            deeper=going.deeper,
            like=going.like,
            extent=extent,
            patch=face_plan_file(going.patch, job) if going.patch is not None else None,
            whole=face_plan_file(going.whole, job),
            accept=Accepting(depth_um=depth, times_deeper=float(f"{going.times_deeper:.3g}"), shows=going.shows),
        ),
    )
