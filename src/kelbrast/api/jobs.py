"""Jobs: list, create, read, change, delete, duplicate, plan, and the file itself."""

import re
from typing import Annotated, Any, Final
from urllib.parse import quote

from fastapi import APIRouter, Depends, Header, Path, Query, Request, Response
from starlette.exceptions import HTTPException

from kelbrast.api.guards import LARGEST_FILE
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.schemas import JobSummaryOut, KeptJobOut, Problem
from kelbrast.app.goback import goback_file
from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import choices_file, plan_file, why_file
from kelbrast.exchange.choices_file import ChoicesFile
from kelbrast.exchange.goback_file import GoBackFile
from kelbrast.exchange.job_file import JobFile
from kelbrast.exchange.plan_file import PlanFile
from kelbrast.exchange.read import read_job_file
from kelbrast.exchange.why_file import SumFile

router = APIRouter(prefix="/api", responses=RESPONSES)

# The body is read by the same door as the command line's, so that faults are told in the same words.
JOB_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/JobFile"}}},
    }
}


async def _job_in_body(request: Request) -> JobFile:
    # Another site's page can send text without asking, but not JSON.
    if not request.headers.get("content-type", "").startswith("application/json"):
        raise HTTPException(415, "Send the job as application/json")
    body = bytearray()
    async for chunk in request.stream():
        body += chunk
        if len(body) > LARGEST_FILE:
            raise HTTPException(413, f"A job file may hold at most {LARGEST_FILE // 1024 // 1024} MB; split it")
    return read_job_file(bytes(body))


def _jobs(request: Request) -> Jobs:
    jobs: Jobs = request.app.state.jobs
    return jobs


def _revision(if_match: Annotated[str | None, Header()] = None) -> int:
    found = re.fullmatch(r'\s*(?:W/)?"?(\d{1,15})"?\s*', if_match or "")
    if not found:
        raise HTTPException(428, "Send the revision that you changed as If-Match, so that no other change is lost")
    return int(found[1])


JobId = Annotated[int, Path(ge=1, le=2**53, description="id of the job")]
JobBody = Annotated[JobFile, Depends(_job_in_body)]
AllJobs = Annotated[Jobs, Depends(_jobs)]
Revision = Annotated[int, Depends(_revision)]


@router.get("/jobs")
def list_jobs(jobs: AllJobs) -> list[JobSummaryOut]:
    """Every job, the last changed first."""
    return [JobSummaryOut.model_validate(summary) for summary in jobs.summaries()]


@router.post("/jobs", status_code=201, openapi_extra=JOB_IN_BODY)
def create_job(job: JobBody, jobs: AllJobs) -> KeptJobOut:
    """Keep a job file."""
    return KeptJobOut.model_validate(jobs.add(job))


@router.get("/jobs/{job_id}", responses=NOT_FOUND)
def read_job(job_id: JobId, jobs: AllJobs) -> KeptJobOut:
    """One job."""
    return KeptJobOut.model_validate(jobs.get(job_id))


@router.put(
    "/jobs/{job_id}",
    openapi_extra=JOB_IN_BODY,
    responses={
        **NOT_FOUND,
        412: {"model": Problem, "description": "It was changed elsewhere"},
        428: {"model": Problem, "description": "If-Match is missing"},
    },
)
def change_job(job_id: JobId, revision: Revision, job: JobBody, jobs: AllJobs) -> KeptJobOut:
    """Replace a job that nobody else changed in the meantime."""
    return KeptJobOut.model_validate(jobs.change(job_id, job, revision=revision))


@router.delete("/jobs/{job_id}", status_code=204, responses=NOT_FOUND)
def delete_job(job_id: JobId, jobs: AllJobs) -> None:
    """Forget a job."""
    jobs.remove(job_id)


@router.post("/jobs/{job_id}/duplicate", status_code=201, responses=NOT_FOUND)
def duplicate_job(job_id: JobId, jobs: AllJobs) -> KeptJobOut:
    """Copy a job."""
    return KeptJobOut.model_validate(jobs.duplicate(job_id))


@router.get("/jobs/{job_id}/plan", responses=NOT_FOUND)
def plan_kept_job(job_id: JobId, jobs: AllJobs) -> PlanFile:
    """Plan a kept job."""
    return jobs.plan(job_id)


@router.get("/jobs/{job_id}/file", responses=NOT_FOUND)
def job_as_file(job_id: JobId, jobs: AllJobs) -> Response:
    """The job file, to keep beside the drawing."""
    job = jobs.get(job_id).job
    name = re.sub(r"[^\w-]+", "-", job.title.lower()).strip("-") or "job"
    return Response(
        job.model_dump_json(indent=2, exclude_none=True) + "\n",
        media_type="application/json",
        headers={"content-disposition": f"attachment; filename*=UTF-8''{quote(name)}.job.json"},
    )


@router.post("/plan", openapi_extra=JOB_IN_BODY)
def plan_job(job: JobBody) -> PlanFile:
    """Plan the job in the request, without keeping it."""
    return plan_file(job)


@router.post("/choices", openapi_extra=JOB_IN_BODY)
def compare_choices(job: JobBody) -> ChoicesFile:
    """The job in the request by every aim and every habit, side by side."""
    return choices_file(job)


@router.post("/why", openapi_extra=JOB_IN_BODY)
def why(
    job: JobBody,
    face: Annotated[str, Query(description="name of the face")],
    step: Annotated[int, Query(description="the step, from 1")],
) -> list[SumFile]:
    """The sums behind one step of the plan, with the source of every constant."""
    return why_file(job, face=face, step=step)


@router.post("/goback", openapi_extra=JOB_IN_BODY)
def go_back(
    job: JobBody,
    face: Annotated[str, Query(description="name of the face")],
    after: Annotated[int, Query(description="the step whose light check failed, from 1")],
    depth_um: Annotated[float | None, Query(description="how deep the mark is")] = None,
    like: Annotated[str | None, Query(description="or: as left by this grade", max_length=20)] = None,
    fingernail: Annotated[bool, Query(description="or: a fingernail catches it")] = False,
) -> GoBackFile:
    """A mark is still there at a light check: the way to the finish from there."""
    return goback_file(job, face=face, after=after, depth_um=depth_um, like=like, fingernail=fingernail)
