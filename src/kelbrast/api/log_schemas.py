"""The log as the screens show it."""

from datetime import datetime
from typing import Any

from pydantic import BaseModel

from kelbrast.api.bench_schemas import ReadingOut, reading_out
from kelbrast.app.board_at_bench import KeptRun
from kelbrast.core.bench.told import tell
from kelbrast.core.catalogue.damages import FaultOfWork, faults_of_work
from kelbrast.core.catalogue.materials import material, materials
from kelbrast.core.catalogue.tools import tool, tools
from kelbrast.core.rack.upkeep import care
from kelbrast.core.surface.part import PROTECTIONS
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.job.format import FaceFile
from kelbrast.documents.plan.format import AccountFile
from kelbrast.storage.runs import LogLine


class WornOut(BaseModel):
    """Abrasives, bars or tubs of a tool: planned, and what it took."""

    tool: str
    label: str
    unit: str
    planned: float
    worn: float


class FiguresOut(BaseModel):
    """What a run came to, as planned and as it was; `metal_um` where it was measured.

    `hands_on_minutes`, `start_to_finish_minutes` and `account` as planned, with what ways back made of it; `spent_minutes` is
    the hands-on time that it took, by line in `spent`. `planned_minutes` and `minutes` are the cutting alone. A run from before
    the account has these only.
    """

    hands_on_minutes: float | None
    hands_on_minutes_high: float | None
    start_to_finish_minutes: float | None
    account: AccountFile | None
    spent_minutes: float | None
    spent: AccountFile | None
    planned_minutes: float
    minutes: float
    planned_metal_um: float
    metal_um: float | None
    backs: int
    worn: list[WornOut]


class LogLineOut(BaseModel):
    """A line of the log."""

    id: int
    job_id: int | None
    title: str
    material: str
    finishes: str
    pieces: int
    status: str
    well: bool | None
    began_at: datetime
    ended_at: datetime | None
    figures: FiguresOut


class NamedOut(BaseModel):
    """Something to search by."""

    id: str
    label: str


class LogOut(BaseModel):
    """So many lines of the log, how many there are in all, and the tools that were ever used."""

    count: int
    lines: list[LogLineOut]
    tools: list[NamedOut]


class ToldOut(BaseModel):
    """An event in words."""

    number: int
    at: datetime
    kind: str
    piece: int | None
    said: SentenceFile
    taken_back: bool


class StepLogOut(BaseModel):
    """A step of a piece: planned and as it was."""

    piece: int
    face: str
    face_id: str
    route: int
    step: int
    label: str
    outcome: str
    planned_s: float
    seconds: float
    corrected: bool


class TroubleOut(BaseModel):
    """What went wrong in a run, and what was done."""

    at: datetime
    piece: int | None
    fault: FaultOfWork | None
    done: str


class FaceWorkedOut(BaseModel):
    """A face that was worked, as it was described then, and the most that was planned to come off."""

    face: FaceFile
    area_cm2: float
    metal_um: float


class RunPageOut(BaseModel):
    """A run for the log: everything that happened, in words and in figures.

    `protected`: what was put on the work and told to be done; `protection`: what was planned; `keeping`: how to keep it so.
    """

    line: LogLineOut
    steps: list[StepLogOut]
    told: list[ToldOut]
    readings: list[ReadingOut]
    troubles: list[TroubleOut]
    notes: list[str]
    protected: str | None
    protection: str | None
    keeping: str | None
    faces: list[FaceWorkedOut]
    seen: int


def line_out(line: LogLine) -> LogLineOut:
    """A line of the log for the screen."""
    known = materials().get(line.material)
    return LogLineOut(
        id=line.id,
        job_id=line.job_id,
        title=line.title,
        material=known.label if known else line.material,
        finishes=line.finishes,
        pieces=line.pieces,
        status=line.status,
        well=line.well,
        began_at=line.began_at,
        ended_at=line.ended_at,
        figures=_figures(dict(line.figures)),
    )


def named_tools(ids: list[str]) -> list[NamedOut]:
    """Tools by their labels."""
    return [NamedOut(id=one, label=tools()[one].label if one in tools() else one) for one in ids]


def run_page(kept: KeptRun, figures: dict[str, Any], finishes: str) -> RunPageOut:
    """Everything about a run. `figures`: as `app.followed.figures_of` gives them."""
    run = kept.run
    over = [event.at.when for event in run.standing if event.kind in ("finished", "stopped")]
    line = LogLineOut(
        id=kept.id,
        job_id=kept.job_id,
        title=kept.file.title,
        material=material(kept.file.material).label,
        finishes=finishes,
        pieces=run.layout.pieces,
        status=run.status,
        well=run.well,
        began_at=kept.began_at,
        ended_at=over[-1] if over else None,
        figures=_figures(figures),
    )
    return RunPageOut(
        line=line,
        steps=_steps(kept),
        told=[
            ToldOut(
                number=told.event.number,
                at=told.event.at.when,
                kind=told.event.kind,
                piece=told.event.piece,
                said=to_sentence_file(told.said),
                taken_back=told.taken_back,
            )
            for told in tell(run.layout, kept.happened)
        ],
        readings=[reading_out(kept, event) for event in run.standing if event.measured is not None],
        troubles=[
            TroubleOut(
                at=event.at.when,
                piece=event.piece,
                fault=faults_of_work().get(event.fault or ""),
                done=event.words,
            )
            for event in run.standing
            if event.kind == "trouble"
        ],
        notes=[event.words for event in run.standing if event.kind == "note"],
        protected=next(
            (operation.label for operation in kept.plan.operations if operation.id == figures.get("protected")), None
        ),
        protection=next((operation.label for operation in kept.plan.operations if operation.id in PROTECTIONS), None),
        keeping=care("rewax").text if figures.get("protected") == "wax" else None,
        faces=[
            FaceWorkedOut(face=face, area_cm2=plan.area_cm2, metal_um=plan.metal_um)
            for face, plan in zip(kept.file.faces, kept.plan.faces, strict=True)
            if plan.steps
        ],
        seen=run.seen,
    )


def _steps(kept: KeptRun) -> list[StepLogOut]:
    return [
        StepLogOut(
            piece=piece,
            face=stage.label,
            face_id=stage.face,
            route=stage.route,
            step=stage.step,
            label=tool(stage.tool).label,
            outcome=work.outcome,
            planned_s=stage.seconds,
            seconds=work.seconds,
            corrected=work.corrected,
        )
        for piece, stages in kept.run.stages.items()
        for stage in stages
        for work in [kept.run.work(piece, stage)]
    ]


def _figures(figures: dict[str, Any]) -> FiguresOut:
    planned, worn = figures.get("planned_worn", {}), figures.get("worn", {})
    names = [name for name in dict.fromkeys([*planned, *worn]) if name in tools()]
    return FiguresOut(
        hands_on_minutes=figures.get("hands_on_minutes"),
        hands_on_minutes_high=figures.get("hands_on_minutes_high"),
        start_to_finish_minutes=figures.get("start_to_finish_minutes"),
        account=figures.get("account"),
        spent_minutes=figures.get("spent_minutes"),
        spent=figures.get("spent"),
        planned_minutes=figures.get("planned_minutes", 0.0),
        minutes=figures.get("minutes", 0.0),
        planned_metal_um=figures.get("planned_metal_um", 0.0),
        metal_um=figures.get("metal_um"),
        backs=figures.get("backs", 0),
        worn=[
            WornOut(
                tool=name,
                label=tools()[name].label,
                unit=tools()[name].carrier.stock.unit,
                planned=planned.get(name, 0.0),
                worn=worn.get(name, 0.0),
            )
            for name in names
        ],
    )
