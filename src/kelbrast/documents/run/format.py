"""The open run file, `run/1`: a job as it was worked, with the plan that it followed and everything that happened."""

import json
from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Annotated, Literal, get_args

from pydantic import ConfigDict, Field, ValidationError

from kelbrast.core.bench.events import Event, EventKind, Measured, Moment, Order, Stage, StageDrive
from kelbrast.core.bench.instruments import QUANTITIES, GaugedQuantity
from kelbrast.core.bench.observed import Planned, Stages
from kelbrast.core.bench.run import Layout, Status, operation_key
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import Yours
from kelbrast.core.planning.questions.goback import Extent
from kelbrast.core.planning.whole.account import Times
from kelbrast.core.process.removal import pullout_life_factor
from kelbrast.core.rules.order import turn_of
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.faults import faults_of
from kelbrast.documents.common.fields import ID, GradeText, NameText, Note, Strict, Word
from kelbrast.documents.common.versions import up_to_date
from kelbrast.documents.job.face_ids import identified
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.format import FacePlanFile, OperationFile, PlanFile, StepFile, ZoneFile

EventNumber = Annotated[int, Field(ge=1, le=2**53)]
Real = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]


class ReadingFile(Strict):
    """A reading in the unit of its quantity: size mm, coat and ra um, gloss GU, temperature C, spindle rev/min, weight g.

    Of a size that is followed by the gauge: `z_mm` from the middle of the length, and the direction `phi_deg`.
    """

    quantity: GaugedQuantity
    value: Real
    position: Word = ""
    direction: Word = ""
    instrument: Word = ""
    simulated: bool = False
    z_mm: Real | None = None
    phi_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)] | None = None


class TapFile(Strict):
    """What a person tapped. Only what its kind needs is given.

    "back" and "accepted" say how deep the mark is: `depth_um`, `like` a grade, or a `fingernail` catches it.
    """

    kind: EventKind
    piece: EventNumber | None = None
    face: NameText | None = None
    route: Annotated[int, Field(ge=0, le=10_000)] | None = None
    step: EventNumber | None = None
    extent: Extent | None = None
    depth_um: Annotated[float, Field(gt=0, le=1e5, allow_inf_nan=False)] | None = None
    like: GradeText | None = None
    fingernail: bool = False
    seconds: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] | None = None
    order: Order | None = None
    tool: ID | None = None
    operation: ID | None = None
    measured: ReadingFile | None = None
    photo: EventNumber | None = None
    fault: ID | None = None
    well: bool | None = None
    undoes: EventNumber | None = None
    words: Note = ""


class EventFile(TapFile):
    """A tap as it was kept: its number in the run, when it was by the clock on the wall (UTC) and by the machine's own clock
    (`ticks` since its start `boot`), and for "back" the way that was planned then, under the route number `way`."""

    number: EventNumber
    at: datetime
    ticks: float
    boot: str
    back: FacePlanFile | None = None
    way: int | None = None


class RunFile(Strict):
    """A run."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, title="Kelbrast run, version 1")

    kelbrast: Literal["run/1"] = "run/1"
    title: str
    status: Status
    job: JobFile
    plan: PlanFile
    events: list[EventFile]
    told: Annotated[list[str], Field(description="the same events in words")]


assert set(get_args(GaugedQuantity)) == set(QUANTITIES), "a quantity of the files that the core does not know"


def read_run_file(text: str | bytes) -> RunFile:
    """Read and check a run file.

    Raises:
        BadInput: every key that is wrong, missing or not known, and why.
    """
    try:
        file = RunFile.model_validate_json(_with_newest_job(text))
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None
    return file.model_copy(update={"job": identified(file.job)})


def _with_newest_job(text: str | bytes) -> str | bytes:
    """The text with its job in the newest form; what is wrong with it is left to the reader."""
    try:
        data = json.loads(text)
        job = data["job"]
        return json.dumps({**data, "job": up_to_date(job, job["kelbrast"])})
    except (ValueError, LookupError, TypeError, RecursionError):
        return text


def to_layout(job: Job, plan: PlanFile) -> Layout:
    """What a run of this plan begins with."""
    turns = _turns(job)
    stages = [stage for face in plan.faces for stage in to_stages(face, turn=turns[face.id], route=0)]
    around: dict[str, Times] = {}
    for lot, pieces in enumerate(plan.lots or [plan.pieces], start=1):
        for operation in plan.operations:
            if not operation.counted:
                key = operation_key(operation.id, lot)
                around[key] = around.get(key, Times()) + _times(operation, pieces)
    return Layout(plan.pieces, tuple(stages), around, tuple(plan.lots))


def _times(operation: OperationFile, pieces: int) -> Times:
    """What the account has for an operation on a lot."""
    active = to_si(pieces * operation.minutes + operation.lot_minutes, "min")
    return Times(before_after=active, waiting=to_si(operation.waiting_minutes, "min"))


def to_stages(face: FacePlanFile, *, turn: int, route: int) -> tuple[Stage, ...]:
    """The steps of a face's plan as stages at the bench."""
    return tuple(_stage(face, step, turn, route, number) for number, step in enumerate(face.steps, start=1))


def _event(file: EventFile, keys: dict[str, str], turns: dict[str, int]) -> Event:
    face = keys.get(file.face or "", file.face)
    return Event(
        kind=file.kind,
        number=file.number,
        at=Moment(file.at.timestamp(), file.ticks, file.boot),
        piece=file.piece,
        stage=(face, file.route, file.step) if face and file.route is not None and file.step is not None else None,
        stages=to_stages(file.back, turn=turns[file.back.id], route=file.way or 0) if file.back else (),
        extent=file.extent,
        depth=to_si(file.depth_um, "um") if file.depth_um is not None else None,
        seconds=file.seconds,
        order=file.order,
        tool=file.tool,
        operation=file.operation,
        measured=to_measured(file.measured) if file.measured else None,
        photo=file.photo,
        fault=file.fault,
        well=file.well,
        undoes=file.undoes,
        words=file.words,
    )


def to_events(files: Sequence[EventFile], job: Job) -> list[Event]:
    """The events of a run of this job, in SI. A face goes by its id or, before faces had one, by its name."""
    keys, turns = job.face_keys, _turns(job)
    return [_event(file, keys, turns) for file in files]


def in_ids(plan: PlanFile, events: Sequence[EventFile], job: Job) -> tuple[PlanFile, tuple[EventFile, ...]]:
    """Return a run's plan and events with the ids of the job's faces, which those from before faces had one do not say."""
    keys = job.face_keys

    def with_id(face: FacePlanFile) -> FacePlanFile:
        return face if face.id else face.model_copy(update={"id": keys.get(face.name, face.name)})

    return plan.model_copy(update={"faces": [with_id(face) for face in plan.faces]}), tuple(
        event if event.back is None else event.model_copy(update={"back": with_id(event.back)}) for event in events
    )


def to_measured(file: ReadingFile) -> Measured:
    """A reading in SI.

    Raises:
        BadInput: no instrument could have read that.
    """
    kind = QUANTITIES[file.quantity]
    value = to_si(file.value, kind.unit)
    if not kind.low <= value <= kind.high:
        low, high = from_si(kind.low, kind.unit), from_si(kind.high, kind.unit)
        raise BadInput.one("measured.value", f"must lie between {low:g} and {high:g} {kind.unit}")
    height = to_si(file.z_mm, "mm") if file.z_mm is not None else None
    angle = to_si(file.phi_deg, "deg") if file.phi_deg is not None else None
    return Measured(file.quantity, value, file.position, file.direction, file.instrument, file.simulated, height, angle)


def moment_of(file: EventFile) -> Moment:
    return Moment(file.at.timestamp(), file.ticks, file.boot)


def kept_tap(
    tap: TapFile, number: int, at: Moment, *, depth_um: float | None, back: FacePlanFile | None, way: int | None
) -> EventFile:
    """A tap as it is kept; how deep a mark is stands in micrometres whichever way it was said."""
    told = tap.model_dump() | {"depth_um": depth_um, "measured": tap.measured}
    when = datetime.fromtimestamp(at.at, UTC)
    return EventFile.model_construct(**told, number=number, at=when, ticks=at.ticks, boot=at.boot, back=back, way=way)


def steps_of_run(plan: PlanFile, events: Sequence[EventFile]) -> dict[tuple[str, int, int], StepFile]:
    """Every step that a run was planned to take, also of the ways back, by face, route and number."""
    faces = [(face, 0) for face in plan.faces]
    faces += [(event.back, event.way or 0) for event in events if event.back is not None]
    return {(face.id, route, number): step for face, route in faces for number, step in enumerate(face.steps, start=1)}


def to_planned(job: Job, plan: PlanFile, events: Sequence[EventFile]) -> Stages:
    """What the plan expected of every step, for learning from the run."""
    known = {face.key: face.found.after is not None for face in job.faces}
    return {
        key: _planned(
            step,
            job.material.family,
            guessed=key[2] == 1 and (key[1] > 0 or not known[key[0]]),
            shape=job.face(key[0]).gauged.shape,
        )
        for key, step in steps_of_run(plan, events).items()
    }


def _planned(step: StepFile, family: str, *, guessed: bool, shape: str | None) -> Planned:
    carrier = tool(step.tool).carrier
    life = to_si(step.life_minutes, "min") if step.life_minutes is not None else None
    lasts_longer = life / published if life is not None and (published := _published_life(step)) else 1.0
    yours = step.yours
    return Planned(
        carrier=carrier.id,
        family=family,
        seconds=to_si(step.cut_minutes, "min"),
        life=life,
        change_after=to_si(step.change_after_minutes, "min") if step.change_after_minutes is not None else None,
        takes=to_si(step.takes_um * step.likely_um / step.from_um, "um"),
        leaves_ra=to_si(step.leaves_ra_um, "um"),
        guessed=guessed,
        shape=shape,
        yours=Yours(yours.removal if yours else 1.0, lasts_longer, yours.scratch if yours else 1.0),
    )


def _published_life(step: StepFile) -> float | None:
    """The life of its abrasive by the catalogue, on the marks that the step meets."""
    one = tool(step.tool)
    if one.carrier.stock.life is None or not one.is_torn:
        return one.carrier.stock.life
    return one.carrier.stock.life * float(pullout_life_factor(grain=one.grain, depth=to_si(step.likely_um, "um")))


def _turns(job: Job) -> dict[str, int]:
    return {face.key: turn_of(face) for face in job.faces}


def _stage(face: FacePlanFile, step: StepFile, turn: int, route: int, number: int) -> Stage:
    carrier = tool(step.tool).carrier
    own_set_up = 0.0 if step.goes_on else carrier.stock.setup
    put_on = from_si(own_set_up, "min") if step.set_up_minutes is None else step.set_up_minutes
    handling = step.handling_minutes
    if handling is None:  # as plans had it before the account
        handling = max(0.0, step.minutes - step.cut_minutes - put_on)
    return Stage(
        face=face.id,
        name=face.name,
        route=route,
        step=number,
        tool=step.tool,
        turn=turn,
        leaves=to_si(step.leaves_um, "um"),
        takes=to_si(step.takes_um, "um"),
        seconds=to_si(step.cut_minutes, "min"),
        setup=own_set_up,
        mounted=carrier.mount != "hand",
        handling=to_si(handling, "min"),
        once=Times(handling=to_si(step.lot_handling_minutes, "min"), set_up=to_si(put_on, "min")),
        places=_places(step.zone) if step.zone else None,
        coarsest=to_si(max(later.leaves_um for later in face.steps[number - 1 :]), "um"),
        worn=step.spent.worn,
        change_after=to_si(step.change_after_minutes, "min") if step.change_after_minutes is not None else None,
        drive=_drive(step),
    )


def _places(zone: ZoneFile) -> tuple[tuple[str, float], ...]:
    return tuple((key, to_si(margin, "mm")) for key, margin in zip(zone.ids, zone.margins_mm, strict=True))


def _drive(step: StepFile) -> StageDrive:
    return StageDrive(
        machine=step.machine,
        spindle=to_si(step.rpm, "rev/min") if step.rpm is not None else None,
        diameter=to_si(step.diameter_mm, "mm") if step.diameter_mm is not None else None,
        marked=step.speed_limit_m_s,
        rest_after=step.rests.after_seconds if step.rests is not None else None,
        rest_by_hand=step.rests is not None and step.rests.by_hand,
    )
