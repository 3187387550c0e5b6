"""What the API answers with, beside the open files."""

from dataclasses import fields
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from kelbrast.app.jobs import JobSummary
from kelbrast.core.errors import Fault
from kelbrast.core.job import JobState
from kelbrast.documents.common import faults
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file


class JobStateIn(BaseModel):
    """How far a job is, and the number of the newest state that whoever says so had seen."""

    model_config = ConfigDict(extra="forbid")

    state: JobState
    after: Annotated[int, Field(ge=0, le=2**53)]


class WorkedOut(BaseModel):
    """How many items of the rack were changed by working a job."""

    items: int


class JobSummaryOut(BaseModel):
    """A line of the job list; `minutes` is for all pieces."""

    id: int
    title: str
    material: str
    pieces: int
    faces: int
    finishes: list[SentenceFile]
    minutes: float | None
    state: Literal["ready", "not-possible", "cannot-plan", "unreadable"]
    kept_state: JobState
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


def summary_out(one: JobSummary) -> JobSummaryOut:
    """A line of the list, its facts ready to be told."""
    told = {field.name: getattr(one, field.name) for field in fields(one)}
    told["finishes"] = [to_sentence_file(finish) for finish in one.finishes]
    told["reason"] = to_sentence_file(one.reason) if one.reason else None
    return JobSummaryOut.model_validate(told)


class FaultOut(BaseModel):
    """One thing that is wrong: the key, and what would mend it; and the same for a person who sees no keys.

    `where`: the field in words; `about`: the keys of all the fields that it speaks of.
    """

    field: str
    message: str
    where: str
    said: SentenceFile
    about: list[str]


def fault_out(fault: Fault) -> FaultOut:
    """A fault for a screen."""
    said = f"{fault.message}; {fault.hint}" if fault.hint else fault.message
    return FaultOut(
        field=fault.field,
        message=said,
        where=faults.where(fault),
        said=to_sentence_file(faults.what(fault)),
        about=list(faults.about(fault)),
    )


class Problem(BaseModel):
    """RFC 9457 problem details, with the faults by key."""

    type: Annotated[str, Field(examples=["about:blank"])] = "about:blank"
    title: str
    status: int
    detail: str
    instance: Annotated[str, Field(description="names this very problem; the program's log has it too")] = ""
    faults: list[FaultOut] = []
