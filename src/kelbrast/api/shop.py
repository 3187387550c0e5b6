"""What the shop knows of itself: what it learnt, its house ways, its upkeep."""

from datetime import datetime
from typing import Annotated, Final

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import JOB_IN_BODY, AllRuns, JobBody, OwnRack, OwnTemplates, ShopUpkeep, ShopWays, WhatWasLearnt
from kelbrast.app.house import KeptWay
from kelbrast.core.catalogue.tools import carriers
from kelbrast.core.learning.factors import QUANTITIES, Learnt, LearntQuantity
from kelbrast.core.planning.whole.account import LINES
from kelbrast.core.rack.upkeep import Due
from kelbrast.core.units import from_si
from kelbrast.documents.common.fields import NameText, Word
from kelbrast.documents.job.format import OwnOperationFile
from kelbrast.documents.run.house import HouseOfferFile

router = APIRouter(prefix="/api", responses=RESPONSES)

CareKey = Word
TemplateName = Annotated[str, Path(min_length=1, max_length=80, description="what the template is called")]
WayId = Annotated[int, Path(ge=1, le=2**53, description="id of the house way")]


class LearntOut(BaseModel):
    """A factor: published 1, yours `factor` give or take `error`, from so many runs; `used` by every later plan."""

    carrier: str
    carrier_label: str
    family: str
    quantity: LearntQuantity
    quantity_label: str
    factor: float
    error: float
    runs: int
    enough: bool
    tried: bool
    used: bool


class LearningOut(BaseModel):
    """Everything that was learnt; `on`: plans use it."""

    on: bool
    learnt: list[LearntOut]


class SwitchIn(BaseModel):
    """Use what was learnt, or not: all of it, or one factor when it is named."""

    on: bool
    carrier: CareKey | None = None
    family: CareKey | None = None
    quantity: LearntQuantity | None = None


class WayIn(BaseModel):
    """The face of a run whose way becomes the house way, and what to call it."""

    face: NameText
    name: Word


class DueOut(BaseModel):
    """A care of a thing. `worked_h` of `after_h` hours of work; `on_day` by the calendar; `now`: due now.

    `waxed_on`: when a piece of work left with its wax; null for everything else.
    """

    thing: str
    thing_label: str
    care: str
    label: str
    text: str
    last: datetime | None
    waxed_on: datetime | None
    worked_h: float
    after_h: float | None
    on_day: datetime | None
    now: bool
    source_kind: str


class TemplateIn(BaseModel):
    """Own operations to keep."""

    operations: Annotated[list[OwnOperationFile], Field(max_length=50)]


class CareIn(BaseModel):
    """A care that was done."""

    thing: CareKey
    care: CareKey


@router.get("/learning")
def what_was_learnt(learning: WhatWasLearnt) -> LearningOut:
    """The shop's own factors, used or not."""
    return LearningOut(on=learning.on, learnt=[_learnt(learnt) for learnt in learning.learnt()])


@router.put("/learning")
def switch_learning(given: SwitchIn, learning: WhatWasLearnt) -> LearningOut:
    """Switch what was learnt on or off, all of it or one factor."""
    if given.carrier is None or given.family is None or given.quantity is None:
        learning.switch(on=given.on)
    else:
        learning.switch_one((given.carrier, given.family, given.quantity), on=given.on)
    return what_was_learnt(learning)


@router.get("/house")
def house_ways(ways: ShopWays) -> list[KeptWay]:
    """Every house way, the newest first."""
    return ways.all()


@router.post("/runs/{run_id}/house", status_code=201, responses=NOT_FOUND)
def make_house_way(
    run_id: Annotated[int, Path(ge=1, le=2**53, description="id of the run")], given: WayIn, runs: AllRuns, ways: ShopWays
) -> KeptWay:
    """The way in which a face of a run was done becomes the house way for its kind."""
    return ways.make(runs.get(run_id), given.face, given.name)


@router.delete("/house/{way_id}", status_code=204, responses=NOT_FOUND)
def forget_house_way(way_id: WayId, ways: ShopWays) -> None:
    """Forget a house way; the runs stay."""
    ways.forget(way_id)


@router.post("/house/offers", openapi_extra=JOB_IN_BODY)
def offered_house_ways(job: JobBody, rack: OwnRack, ways: ShopWays) -> list[HouseOfferFile]:
    """The house ways that fit the faces of the job in the request, with their own figures there."""
    return ways.offered(job, rack.shelf())


@router.get("/templates")
def operation_templates(templates: OwnTemplates) -> dict[str, list[OwnOperationFile]]:
    """Own operations that were kept for the next such part, by name."""
    return templates.all()


@router.put("/templates/{name}", status_code=204)
def keep_template(name: TemplateName, operations: TemplateIn, templates: OwnTemplates) -> None:
    """Keep own operations under a name; one of that name is replaced."""
    templates.keep(name, operations.operations)


@router.delete("/templates/{name}", status_code=204, responses=NOT_FOUND)
def forget_template(name: TemplateName, templates: OwnTemplates) -> None:
    """Forget a template; jobs keep what they have."""
    templates.forget(name)


_MOST_DUE: Final = 500  # of a list that a person reads from the top


@router.get("/upkeep")
def upkeep_due(upkeep: ShopUpkeep) -> list[DueOut]:
    """What is looked after, what is due first; what comes long after that is not told."""
    return [_due(due) for due in upkeep.due()[:_MOST_DUE]]


@router.post("/upkeep")
def care_was_done(given: CareIn, upkeep: ShopUpkeep) -> list[DueOut]:
    """A care was done."""
    upkeep.done(given.thing, given.care)
    return upkeep_due(upkeep)


def _learnt(learnt: Learnt) -> LearntOut:
    carrier, lines = carriers().get(learnt.carrier), {str(line): label for line, label in LINES.items()}
    return LearntOut(
        carrier=learnt.carrier,
        carrier_label=carrier.label if carrier else lines.get(learnt.carrier, learnt.carrier),
        family=learnt.family,
        quantity=learnt.quantity,
        quantity_label=QUANTITIES[learnt.quantity],
        factor=round(learnt.factor, 3),
        error=round(learnt.error, 3),
        runs=learnt.runs,
        enough=learnt.enough,
        tried=learnt.tried,
        used=learnt.used,
    )


def _due(due: Due) -> DueOut:
    return DueOut(
        thing=due.thing.key,
        thing_label=due.thing.label,
        care=due.care.id,
        label=due.care.label,
        text=due.care.text,
        last=due.last,
        waxed_on=due.thing.since if due.thing.on == "waxed" else None,
        worked_h=round(from_si(due.worked, "h"), 2),
        after_h=from_si(due.care.after, "h") if due.care.after is not None else None,
        on_day=due.on_day,
        now=due.now,
        source_kind=due.care.source.kind,
    )
