"""The list of jobs, a line each: how its plan comes out is worked out once for a job and a rack that offers the same."""

import time
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Final, cast

from kelbrast.app.planning import plan_file, rack_used
from kelbrast.app.rack import Shelf
from kelbrast.app.readable import UNREADABLE, why_unreadable
from kelbrast.core.catalogue.finishes import band_said, finishes
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.errors import BadInput
from kelbrast.core.job import JobState, NextAction, PlanState, next_action
from kelbrast.core.reference.own_rows import in_use
from kelbrast.core.units import to_si
from kelbrast.core.wording import Sentence, plain, sentence
from kelbrast.documents.common.sentences import to_sentence
from kelbrast.documents.job.format import FaceFile, JobFile
from kelbrast.documents.job.read import check_job_file
from kelbrast.documents.plan.format import FacePlanFile, PlanFile
from kelbrast.storage.jobs import StoredJob

_MOST: Final = 1000  # lines that are remembered


@dataclass(frozen=True, slots=True)
class JobSummary:
    """A line of the list. `state`: "ready", "not-possible" (with the reason), "cannot-plan" when the file needs mending,
    "unreadable" when this version cannot read it, or "planning" when nobody waited for its plan.

    `kept_state`: how far it is with the customer, from asked to delivered; `next`: what somebody has to do next for it.
    """

    id: int
    title: str
    material: str
    pieces: int
    faces: int
    finishes: tuple[Sentence, ...]
    hands_on_minutes: float | None
    hands_on_minutes_high: float | None
    start_to_finish_minutes: float | None
    state: PlanState
    kept_state: JobState
    next: NextAction
    customer: str
    due: datetime | None
    note: str
    reason: Sentence | None
    updated_at: datetime


@dataclass(frozen=True, slots=True)
class _Line:
    """A line with what it was worked out from."""

    document: Mapping[str, Any]
    file: JobFile
    planned_with: object
    summary: JobSummary


class JobLines:
    """The lines of one database that were worked out already."""

    def __init__(self) -> None:
        self._known: dict[int, _Line] = {}

    def told(self, stored: Sequence[StoredJob], shelf: Shelf, *, within_s: float | None = None) -> list[JobSummary]:
        """The lines of these jobs; after so long those that are not known are left as "planning". The small ones come first: a
        job of hundreds of faces holds nobody up."""
        until = float("inf") if within_s is None else time.perf_counter() + within_s
        lines = {stored_job.id: self._line(stored_job, shelf, until) for stored_job in sorted(stored, key=_faces)}
        return [lines[stored_job.id] for stored_job in stored]

    def _line(self, stored: StoredJob, shelf: Shelf, until: float) -> JobSummary:
        known = self._known.get(stored.id)
        if known is not None and (known.document, known.summary.updated_at) != (stored.document, stored.updated_at):
            known = None
        file = _read(stored) if known is None else known.file
        if isinstance(file, str):
            return _not_planned(stored, None, "unreadable", plain(file))
        planned_with = _planned_with(file, shelf)
        if known is None or known.planned_with != planned_with:
            if time.perf_counter() > until:
                return _not_planned(stored, file, "planning")
            if len(self._known) >= _MOST:
                self._known.clear()
            known = self._known[stored.id] = _Line(stored.document, file, planned_with, _summary(stored, file, shelf))
        # How far it is with the customer changes without the job.
        return replace(known.summary, kept_state=_state(stored), next=next_action(_state(stored), known.summary.state))


def _faces(stored: StoredJob) -> int:
    """How many faces a job has, read or not."""
    faces = stored.document.get("faces")
    return len(faces) if isinstance(faces, list) else 0


def _planned_with(file: JobFile, shelf: Shelf) -> object:
    """What a plan follows from besides the job: equal where the same plan comes out."""
    known = materials().get(file.material)
    own = shelf.offer(known.family, insist=file.insist) if known and rack_used(file, shelf) == "own" else None
    return in_use(), shelf.factors, own


def _read(stored: StoredJob) -> JobFile | str:
    """The job file, or why it cannot be read."""
    try:
        return check_job_file(dict(stored.document))
    except UNREADABLE as problem:
        return why_unreadable(problem)


def _state(stored: StoredJob) -> JobState:
    return cast(JobState, stored.state)


def _summary(stored: StoredJob, file: JobFile, shelf: Shelf) -> JobSummary:
    plan: PlanFile | None = None
    reason: Sentence | None = None
    state: PlanState
    try:
        plan = plan_file(file, shelf, check=False)
        state = "ready" if plan.possible else "not-possible"
        reason = (
            plain(plan.blocked) if plan.blocked else next((_reason(face) for face in plan.faces if not face.possible), None)
        )
    except BadInput as bad:
        state, reason = "cannot-plan", plain(str(bad))
    possible = plan if plan is not None and plan.possible else None
    return replace(
        _not_planned(stored, file, state, reason),
        hands_on_minutes=possible.hands_on_minutes if possible else None,
        hands_on_minutes_high=possible.hands_on_minutes_high if possible else None,
        start_to_finish_minutes=possible.start_to_finish_minutes if possible else None,
    )


def _not_planned(stored: StoredJob, file: JobFile | None, state: PlanState, reason: Sentence | None = None) -> JobSummary:
    """A line without minutes; of a job that cannot be read, with what stands beside its document."""
    known = materials().get(file.material) if file else None
    faces = [face for face in file.faces if not face.keep_off and not face.edge] if file else []
    return JobSummary(
        id=stored.id,
        title=file.title if file else stored.title,
        material=known.label if known else file.material if file else "",
        pieces=file.pieces if file else 0,
        faces=len(file.faces) if file else 0,
        finishes=tuple(dict.fromkeys(finish_label(face) for face in faces)),
        hands_on_minutes=None,
        hands_on_minutes_high=None,
        start_to_finish_minutes=None,
        state=state,
        kept_state=_state(stored),
        next=next_action(_state(stored), state),
        customer=file.customer if file else "",
        due=file.due if file else None,
        note=file.note if file else "",
        reason=reason,
        updated_at=stored.updated_at,
    )


def _reason(face: FacePlanFile) -> Sentence:
    said = to_sentence(face.reason_said) if face.reason_said else plain(face.reason or "")
    return sentence("job.reason", face=face.name, reason=said)


def finish_label(face: FaceFile) -> Sentence:
    """The finish that a face gets, by its name or its band."""
    if face.want.finish is None:
        low, high = (None if end is None else to_si(end, "um") for end in face.want.ra_um or (None, None))
        return band_said(low, high)
    known = finishes().get(face.want.finish)
    return plain(known.label if known else face.want.finish)
