"""What the API answers with, beside the open files."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from kelbrast.exchange.job_file import JobFile


class KeptJobOut(BaseModel):
    """A job as kept. Send `revision` back in If-Match when changing it."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    revision: int
    updated_at: datetime
    job: JobFile


class WorkedOut(BaseModel):
    """How many items of the rack were changed by working a job."""

    items: int


class JobSummaryOut(BaseModel):
    """A line of the job list; `minutes` is for all pieces."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    title: str
    material: str
    pieces: int
    faces: int
    finishes: list[str]
    minutes: float | None
    state: Literal["ready", "not-possible", "cannot-plan"]
    reason: str | None
    updated_at: datetime


class FaultOut(BaseModel):
    """One thing that is wrong: the key, and what would mend it."""

    field: str
    message: str


class Problem(BaseModel):
    """RFC 9457 problem details, with the faults by key."""

    type: Annotated[str, Field(examples=["about:blank"])] = "about:blank"
    title: str
    status: int
    detail: str
    faults: list[FaultOut] = []


class Health(BaseModel):
    version: str
