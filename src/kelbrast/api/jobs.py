"""Jobs: list, create, read, change, delete, duplicate, plan, and the file and card themselves."""

from dataclasses import fields
from datetime import datetime
from typing import Annotated, Any, Final

from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool

from kelbrast.api.problems import CHANGED_ELSEWHERE, NOT_FOUND, RESPONSES
from kelbrast.api.requests import JOB_IN_BODY, AllJobs, JobAsWritten, JobBody, PartPictures, Revision, file_answer, named
from kelbrast.app.from_rack import job_worked
from kelbrast.app.job_list import JobSummary
from kelbrast.app.jobs import JobOrder, KeptJob
from kelbrast.app.planning import card_file, card_pdf
from kelbrast.core.job import JobState, NextAction, PlanState
from kelbrast.documents.common.fields import LONGEST_NAME
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.job.archive import jobs_archive, read_jobs_archive
from kelbrast.documents.plan.card import CardFile
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.plan.text import plan_csv

router = APIRouter(prefix="/api", responses=RESPONSES)


class JobStateIn(BaseModel):
    """How far a job is, and the number of the newest state that whoever says so had seen."""

    model_config = ConfigDict(extra="forbid")

    state: JobState
    after: Annotated[int, Field(ge=0, le=2**53)]


class WorkedOut(BaseModel):
    """How many items of the rack were changed by working a job."""

    items: int


class JobSummaryOut(BaseModel):
    """A line of the job list; the minutes are for all pieces. `next`: what somebody has to do next for it."""

    id: int
    title: str
    material: str
    pieces: int
    faces: int
    finishes: list[SentenceFile]
    hands_on_minutes: float | None
    hands_on_minutes_high: float | None
    start_to_finish_minutes: float | None
    state: PlanState
    kept_state: JobState
    next: NextAction
    customer: str
    due: datetime | None
    note: str
    reason: SentenceFile | None
    updated_at: datetime


class JobPageOut(BaseModel):
    """How many jobs there are of what is looked for, and some of them. `any`: there is a job at all."""

    count: int
    any: bool
    jobs: list[JobSummaryOut]


def summary_out(summary: JobSummary) -> JobSummaryOut:
    """A line of the list, its facts ready to be told."""
    told = {field.name: getattr(summary, field.name) for field in fields(summary)}
    told["finishes"] = [to_sentence_file(finish) for finish in summary.finishes]
    told["reason"] = to_sentence_file(summary.reason) if summary.reason else None
    return JobSummaryOut.model_validate(told)


JobId = Annotated[int, Path(ge=1, le=2**53, description="id of the job")]
OneOfIds = Annotated[int, Field(ge=1, le=2**53)]
_ARCHIVE_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


_WORDS: Final = "each of them is found in title, customer, material, finish or note"


_WITHIN: Final = 'jobs whose plans are not known after so long have the state "planning"; the next question goes on with them'


@router.get("/jobs")
def list_jobs(
    jobs: AllJobs,
    words: Annotated[str, Query(max_length=LONGEST_NAME, description=_WORDS)] = "",
    state: Annotated[list[JobState] | None, Query(max_length=10)] = None,
    by: Annotated[JobOrder, Query()] = "changed",
    offset: Annotated[int, Query(ge=0, le=2**53)] = 0,
    limit: Annotated[int, Query(ge=1, le=500)] = 100,
    within_ms: Annotated[int | None, Query(ge=0, le=60_000, description=_WITHIN)] = None,
) -> JobPageOut:
    """A page of the jobs."""
    within_s = None if within_ms is None else within_ms / 1000
    count, summaries = jobs.search(words, state, by, offset=offset, limit=limit, within_s=within_s)
    return JobPageOut(count=count, any=bool(count) or jobs.any(), jobs=[summary_out(summary) for summary in summaries])


@router.post("/jobs", status_code=201, openapi_extra=JOB_IN_BODY)
def create_job(
    job: JobBody,
    jobs: AllJobs,
    photos: PartPictures,
    was: Annotated[int | None, Query(ge=1, le=2**53, description="the number it had before it was deleted")] = None,
) -> KeptJob:
    """Keep a job file. One that was deleted and comes back has its photos again."""
    kept = jobs.add(job)
    if was is not None:
        photos.follow(was, kept.id)
    return kept


@router.get("/jobs.zip", responses={**NOT_FOUND, 200: {"content": {"application/zip": {}}}})
def jobs_as_archive(jobs: AllJobs, job: Annotated[list[OneOfIds], Query(min_length=1, max_length=500)]) -> Response:
    """Several job files in one archive."""
    data = jobs_archive([jobs.document(one) for one in job])
    return Response(data, media_type="application/zip", headers={"content-disposition": 'attachment; filename="jobs.zip"'})


@router.post("/jobs.zip", status_code=201, openapi_extra=_ARCHIVE_IN_BODY)
async def take_in_archive(request: Request, jobs: AllJobs) -> list[KeptJob]:
    """Keep every job file of an archive, all of them or none."""
    data = await request.body()
    return await run_in_threadpool(lambda: jobs.add_all(read_jobs_archive(data)))


@router.get("/jobs/{job_id}", responses=NOT_FOUND)
def read_job(job_id: JobId, jobs: AllJobs) -> KeptJob:
    """One job."""
    return jobs.get(job_id)


@router.put(
    "/jobs/{job_id}",
    openapi_extra=JOB_IN_BODY,
    responses={**NOT_FOUND, **CHANGED_ELSEWHERE},
)
def change_job(job_id: JobId, revision: Revision, job: JobAsWritten, jobs: AllJobs) -> KeptJob:
    """Replace a job that nobody else changed in the meantime."""
    return jobs.change(job_id, job, revision=revision)


@router.put("/jobs/{job_id}/state", responses={**NOT_FOUND, **CHANGED_ELSEWHERE})
def change_job_state(job_id: JobId, given: JobStateIn, jobs: AllJobs) -> KeptJob:
    """Say how far a job is; its document and revision stay as they are."""
    return jobs.set_state(job_id, given.state, after=given.after)


@router.delete("/jobs/{job_id}", status_code=204, responses=NOT_FOUND)
def delete_job(job_id: JobId, jobs: AllJobs) -> None:
    """Forget a job."""
    jobs.remove(job_id)


@router.post("/jobs/{job_id}/duplicate", status_code=201, responses=NOT_FOUND)
def duplicate_job(job_id: JobId, jobs: AllJobs) -> KeptJob:
    """Copy a job."""
    return jobs.duplicate(job_id)


@router.get("/jobs/{job_id}/plan", responses=NOT_FOUND)
def plan_kept_job(job_id: JobId, jobs: AllJobs) -> PlanFile:
    """Plan a kept job."""
    return jobs.plan(job_id)


@router.post("/jobs/{job_id}/worked", responses=NOT_FOUND)
def job_was_worked(job_id: JobId, jobs: AllJobs) -> WorkedOut:
    """The job was worked from the rack: bind its wheels and count down what it used up."""
    return WorkedOut(items=job_worked(jobs, job_id))


@router.get("/jobs/{job_id}/file", responses=NOT_FOUND)
def job_as_file(job_id: JobId, jobs: AllJobs) -> Response:
    """The job file, to keep beside the drawing; as it is stored where this version cannot read it."""
    document = jobs.document(job_id)
    return file_answer(document, str(document.get("title", "")), "job.json")


@router.get("/jobs/{job_id}/plan.csv", responses={**NOT_FOUND, 200: {"content": {"text/csv": {}}}})
def plan_as_csv(job_id: JobId, jobs: AllJobs) -> Response:
    """The plan for a spreadsheet: a row a step."""
    title = jobs.get(job_id).job.title
    return Response(plan_csv(jobs.plan(job_id)), media_type="text/csv", headers=named(title, "plan.csv"))


@router.get("/jobs/{job_id}/card", responses=NOT_FOUND)
def job_card_shown(job_id: JobId, jobs: AllJobs, inch: bool = False) -> CardFile:
    """What stands on the job card, in the reader's units."""
    return card_file(jobs.get(job_id).job, jobs.rack.shelf(), inch=inch)


@router.get("/jobs/{job_id}/card.pdf", responses={**NOT_FOUND, 200: {"content": {"application/pdf": {}}}})
def job_card(job_id: JobId, jobs: AllJobs, inch: bool = False) -> Response:
    """The job card to print and take to the bench."""
    kept = jobs.get(job_id).job
    return Response(
        card_pdf(kept, jobs.rack.shelf(), inch=inch), media_type="application/pdf", headers=named(kept.title, "pdf")
    )
