"""Planning the job in a request, and everything that a person may ask about the plan. Nothing is kept."""

from typing import Annotated

from fastapi import APIRouter, Query

from kelbrast.api.problems import RESPONSES
from kelbrast.api.requests import JOB_IN_BODY, JobBody, OwnRack
from kelbrast.app.planning import DEEPEST_MARK_UM, advice_file, choices_file, goback_file, plan_file, what_if_file, why_file
from kelbrast.documents.common.fields import LONGEST_GRADE, LONGEST_NAME
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.plan.questions import AdviceFile, ChoicesFile, GoBackFile, SumFile, WhatIfFile

router = APIRouter(prefix="/api", responses=RESPONSES)

FaceName = Annotated[str, Query(max_length=LONGEST_NAME, description="id of the face, or its name")]
StepNumber = Annotated[int, Query(ge=1, le=10_000, description="the step, from 1")]
DeepMark = Annotated[float | None, Query(gt=0, le=DEEPEST_MARK_UM, allow_inf_nan=False, description="how deep the mark is")]
LikeGrade = Annotated[str | None, Query(max_length=LONGEST_GRADE, description="or: as left by this grade")]


@router.post("/plan", openapi_extra=JOB_IN_BODY)
def plan_job(job: JobBody, rack: OwnRack) -> PlanFile:
    """Plan the job in the request, without keeping it."""
    return plan_file(job, rack.shelf())


@router.post("/choices", openapi_extra=JOB_IN_BODY)
def compare_choices(job: JobBody, rack: OwnRack) -> ChoicesFile:
    """The job in the request by every aim and every habit, side by side."""
    return choices_file(job, rack.shelf())


@router.post("/advice", openapi_extra=JOB_IN_BODY)
def advise(job: JobBody, rack: OwnRack, face: FaceName) -> AdviceFile:
    """The best trade-offs of a face, and the bet on a guessed depth."""
    return advice_file(job, rack.shelf(), face=face)


@router.post("/whatif", openapi_extra=JOB_IN_BODY)
def what_if(job: JobBody, rack: OwnRack, face: FaceName, step: StepNumber) -> list[WhatIfFile]:
    """What swapping, leaving out or forcing a step would lead to."""
    return what_if_file(job, rack.shelf(), face=face, step=step)


@router.post("/why", openapi_extra=JOB_IN_BODY)
def why(
    job: JobBody,
    rack: OwnRack,
    face: FaceName,
    step: StepNumber,
) -> list[SumFile]:
    """The sums behind one step of the plan, with the source of every constant."""
    return why_file(job, rack.shelf(), face=face, step=step)


@router.post("/goback", openapi_extra=JOB_IN_BODY)
def go_back(
    job: JobBody,
    rack: OwnRack,
    face: FaceName,
    after: Annotated[int, Query(ge=1, le=10_000, description="the step whose light check failed, from 1")],
    depth_um: DeepMark = None,
    like: LikeGrade = None,
    fingernail: Annotated[bool, Query(description="or: a fingernail catches it")] = False,
) -> GoBackFile:
    """A mark is still there at a light check: the way to the finish from there."""
    return goback_file(job, rack.shelf(), face=face, after=after, depth_um=depth_um, like=like, fingernail=fingernail)
