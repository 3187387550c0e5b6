"""The trial piece: how to make one, what it says, and accepting it; and which would be worth making."""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel

from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllJobs, OwnRack
from kelbrast.app.kept_trials import KeptTrial
from kelbrast.app.planning import job_of
from kelbrast.app.trials import accept, trial_answer, trial_reading, trial_set
from kelbrast.core.catalogue.materials import families, materials
from kelbrast.core.catalogue.tools import carriers, tools
from kelbrast.core.job import OPEN_STATES
from kelbrast.core.planning.questions.worth_trying import WorthTrying, worth_trying
from kelbrast.documents.common.fields import shop
from kelbrast.documents.own.trial import TrialAnswer, TrialAsked, TrialFile, TrialReadingIn, TrialSet
from kelbrast.documents.run.format import ReadingFile

router = APIRouter(prefix="/api/trials", responses=RESPONSES)
TrialId = Annotated[int, Path(ge=1, le=2**53, description="id of the trial")]


class TrialOut(BaseModel):
    """A trial that was accepted; `factor`: how many times as fast as in the tables, null where it says nothing of it. Without a
    `trial` it is what another shop learnt."""

    id: int
    label: str
    material_label: str
    factor: float | None
    trial: TrialFile | None


class WorthOut(BaseModel):
    """A trial that would help, in minutes over all pieces of open jobs. Nobody knows whether they take `unsure` more or less;
    `risk` is how much of that a trial takes away, `saved` what plans that know the rate are expected to save."""

    tool: str
    label: str
    material: str
    material_label: str
    jobs: int
    work_minutes: float
    unsure_minutes: float
    risk_minutes: float
    saved_minutes: float


@router.get("")
def list_trials(rack: OwnRack) -> list[TrialOut]:
    """The trials that were accepted, the newest first."""
    return [_out(kept) for kept in rack.learning.trials.all()]


@router.get("/worth")
def which_are_worth_it(jobs: AllJobs) -> list[WorthOut]:
    """The trials that would do most for the open jobs, the best first."""
    shelf = jobs.rack.shelf()
    files = [kept.job for kept in jobs.plannable(OPEN_STATES)[0]]
    return [_worth(one) for one in worth_trying([job_of(file, shelf) for file in files])]


@router.post("/set")
def how_to_try(asked: TrialAsked, rack: OwnRack) -> TrialSet:
    """How to make a trial: the marks to begin with, the square, the machine, and what the tables expect."""
    return trial_set(asked, rack.shelf())


@router.post("/readings/{instrument_id}", responses=NOT_FOUND)
def read_for_trial(asked: TrialReadingIn, instrument_id: Annotated[str, Path(max_length=80)], rack: OwnRack) -> ReadingFile:
    """Read a balance or a micrometer: before the work, or after so many seconds of it."""
    return trial_reading(asked, rack.shelf(), instrument_id)


@router.post("/answer")
def what_it_says(trial: TrialFile, rack: OwnRack) -> TrialAnswer:
    """What a trial says so far; nothing is kept."""
    return trial_answer(trial, rack.shelf())


@router.post("", status_code=201)
def accept_trial(trial: TrialFile, jobs: AllJobs) -> TrialOut:
    """Accept what a trial says: plans use it from now on, and the learning goes on from it."""
    return _out(accept(trial, jobs.rack.shelf(), jobs.rack.learning.trials, today=date.today()))


@router.delete("/{trial_id}", status_code=204, responses=NOT_FOUND)
def forget_trial(trial_id: TrialId, rack: OwnRack) -> None:
    """Go back to what was believed without it."""
    rack.learning.trials.remove(trial_id)


def _worth(one: WorthTrying) -> WorthOut:
    work, unsure, risk, saved = (shop(seconds, "min") for seconds in (one.work, one.unsure, one.risk, one.saved))
    return WorthOut(
        tool=one.tool,
        label=tools()[one.tool].label,
        material=one.material,
        material_label=materials()[one.material].label,
        jobs=one.jobs,
        work_minutes=work,
        unsure_minutes=unsure,
        risk_minutes=risk,
        saved_minutes=saved,
    )


def _out(kept: KeptTrial) -> TrialOut:
    removal, file = kept.said.get("removal"), kept.file
    tried, of = (tools().get(file.tool), materials().get(file.material)) if file else (None, None)
    carrier, family = carriers().get(kept.carrier), families().get(kept.family)
    return TrialOut(
        id=kept.id,
        label=tried.label if tried else carrier.label if carrier else kept.carrier,
        material_label=of.label if of else family.label if family else kept.family,
        factor=removal.factor if removal else None,
        trial=kept.file,
    )
