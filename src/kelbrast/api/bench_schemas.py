"""A run as the bench shows it. Times are in seconds at the moment of the answer; the screen counts on from there."""

from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.eye import cannot_judge_step
from kelbrast.core.bench.account import left, planned
from kelbrast.core.bench.events import ORDERS, Event, Order, Stage, elapsed
from kelbrast.core.bench.expected import cost_of_order, doubted, more_time, protection_left, verdict
from kelbrast.core.bench.limits import Level
from kelbrast.core.bench.run import Run, Status, Waiting, operation_of
from kelbrast.core.bench.sizing import size_at_bench
from kelbrast.core.bench.told import reading_said, tell_one
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si, to_si
from kelbrast.core.wording import Sentence, sentence
from kelbrast.documents.common.fields import shop
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.job.format import FaceFile
from kelbrast.documents.plan.format import OperationFile, StepFile
from kelbrast.documents.run.eye import refusal_said
from kelbrast.documents.size.answer import PlaceFile, SizeAnswer, to_places, to_size_answer


class SizeReadOut(BaseModel):
    """A reading along the length; `old`: of a round before the newest."""

    z_mm: float
    mm: float
    old: bool


class SizeOut(BaseModel):
    """The face in hand by the gauge: what is still to be read before the next move is shown, how much of this lot is read, the
    readings round by round, and the answer; null before the first reading. `within_um`: what two readings may differ by."""

    kind: str
    length_mm: float
    limits_mm: tuple[float, float]
    within_um: float
    to_read: list[PlaceFile]
    read: int
    readings: list[SizeReadOut]
    answer: SizeAnswer | None


class HandOut(BaseModel):
    """The step in hand. `of`: steps of its route; `more_s` were added; `more_by_s`: what "keep going" would add.

    `on_tool_s`, `charged_s`: how long the abrasive and its charge have worked; `change_after_s`, `recharge_after_s`,
    `rest_after_s`: when to change, charge, rest; null where there is nothing of the kind. `running_s`: since the clock was
    started last. `eye_refused`: why the eye cannot help here, whatever the photos are. `described`: the face as the job has it;
    `places`: some steps of its route work places only, the others are over everything.
    """

    piece: int
    face: str
    face_id: str
    found_as: str
    route: int
    step: int
    of: int
    plan: StepFile
    described: FaceFile
    area_cm2: float
    places: bool
    begun: bool
    running: bool
    seconds: float
    running_s: float
    planned_s: float
    more_s: float
    more_by_s: float
    on_tool_s: float
    change_after_s: float | None
    charged_s: float
    recharge_after_s: float | None
    rest_after_s: float | None
    size: SizeOut | None
    eye_refused: SentenceFile | None


class StripOut(BaseModel):
    """A step of the piece and face in hand, on the strip: what it takes, and what it took."""

    route: int
    step: int
    tool: str
    label: str
    grain_um: float
    state: Literal["gone", "back", "dropped", "skipped", "now", "next"]
    seconds: float
    planned_s: float


class PieceOut(BaseModel):
    """A piece: how many of its steps are over, what it waits for, how often it went back."""

    piece: int
    done: int
    of: int
    face: str | None
    label: str | None
    backs: int


class WaitingOut(BaseModel):
    """An operation of a lot of a run, which takes `minutes`. `since_s`: how long it has waited; `within_s`: how long until it
    must be done."""

    operation: OperationFile
    minutes: float
    since_s: float | None
    done: bool
    within_s: float | None


class OrderOut(BaseModel):
    """What is left in one order of pieces and steps: changes and minutes of set-up."""

    order: Order
    label: str
    changes: int
    minutes: float


class ReadingOut(BaseModel):
    """A reading in words, and what it means against the limits."""

    number: int
    quantity: str
    said: SentenceFile
    level: Level | None
    verdict: SentenceFile | None


class LastOut(BaseModel):
    """The last tap that can be taken back. `doubt`: a question, where it ended a step far too soon to be meant."""

    number: int
    said: SentenceFile
    doubt: SentenceFile | None = None


class RunOut(BaseModel):
    """A run at the bench. Send `seen` back with the next tap.

    `hands_on_minutes` and `start_to_finish_minutes`: as planned, with what ways back made of it; `left_minutes`: hands-on time
    that is still to come.
    """

    id: int
    job_id: int | None
    title: str
    material: str
    pieces: int
    order: Order
    seen: int
    status: Status
    well: bool | None
    began_at: datetime
    hands_on_minutes: float
    start_to_finish_minutes: float
    left_minutes: float
    hand: HandOut | None
    strip: list[StripOut]
    each: list[PieceOut]
    waiting: list[WaitingOut]
    orders: list[OrderOut]
    readings: list[ReadingOut]
    last: LastOut | None
    faces: list[str]
    photos: list[int]
    cautions: list[str]


def run_out(kept: KeptRun) -> RunOut:
    """A run for the screen."""
    run, current, asked = kept.run, kept.run.current, planned(kept.run)
    last = tell_one(run.layout, kept.happened, run.last.number) if run.last is not None else None
    return RunOut(
        id=kept.id,
        job_id=kept.job_id,
        title=kept.file.title,
        material=material(kept.file.material).label,
        pieces=run.layout.pieces,
        order=run.order,
        seen=run.seen,
        status=run.status,
        well=run.well,
        began_at=kept.began_at,
        hands_on_minutes=shop(asked.hands_on, "min"),
        start_to_finish_minutes=shop(asked.start_to_finish, "min"),
        left_minutes=shop(left(run, kept.now).hands_on, "min"),
        hand=_hand(kept, *current) if current is not None else None,
        strip=_strip(kept, *current) if current is not None else [],
        each=[_piece(kept, piece) for piece in run.stages],
        waiting=_operations(kept),
        orders=[_order(kept, order) for order in ORDERS],
        readings=[reading_out(kept, event) for event in reversed(run.standing) if event.measured is not None],
        last=_last(run, last) if run.last and last else None,
        faces=list(kept.plan.order),
        photos=[event.photo for event in run.standing if event.photo is not None],
        cautions=kept.plan.cautions,
    )


def _last(run: Run, said: Sentence) -> LastOut:
    assert run.last is not None, "there is one"
    doubt = doubted(run)
    return LastOut(
        number=run.last.number,
        said=to_sentence_file(said),
        doubt=to_sentence_file(doubt) if doubt is not None else None,
    )


def reading_out(kept: KeptRun, event: Event) -> ReadingOut:
    """A reading with its verdict."""
    assert event.measured is not None, "asked for a reading"
    judged = verdict(kept.run, kept.job, event)
    said = reading_said(event.measured)
    return ReadingOut(
        number=event.number,
        quantity=event.measured.quantity,
        said=to_sentence_file(sentence("reading.piece", reading=said, piece=str(event.piece)) if event.piece else said),
        level=judged.level if judged else None,
        verdict=to_sentence_file(judged.said) if judged else None,
    )


def _hand(kept: KeptRun, piece: int, stage: Stage) -> HandOut:
    run, now, step = kept.run, kept.now, kept.steps[stage.key]
    work = run.work(piece, stage)
    return HandOut(
        piece=piece,
        face=stage.label,
        face_id=stage.face,
        found_as=next(face for face in kept.plan.faces if face.id == stage.face).found_as,
        route=stage.route,
        step=stage.step,
        of=sum(one.face == stage.face and one.route == stage.route for one in run.stages[piece]),
        plan=step,
        described=next(face for face in kept.file.faces if face.id == stage.face),
        area_cm2=next(face for face in kept.plan.faces if face.id == stage.face).area_cm2,
        places=any(
            one.zone is not None for (face, route, _), one in kept.steps.items() if (face, route) == (stage.face, stage.route)
        ),
        begun=run.begun,
        running=run.clock is not None,
        seconds=run.seconds_in_hand(now),
        running_s=elapsed(run.clock, now) if run.clock is not None else 0.0,
        planned_s=stage.seconds,
        more_s=work.more,
        more_by_s=more_time(stage),
        on_tool_s=run.on_tool_now(stage.tool, now),
        change_after_s=stage.change_after,
        charged_s=run.on_tool_now(stage.tool, now, charge=True),
        recharge_after_s=constant("bench.recharge").si if step.recharge else None,
        rest_after_s=step.rests.after_seconds if step.rests is not None else None,
        size=_size(kept, stage),
        eye_refused=refusal_said(refused) if (refused := cannot_judge_step(kept)) is not None else None,
    )


def _size(kept: KeptRun, stage: Stage) -> SizeOut | None:
    known = size_at_bench(kept.run, kept.job, kept.now)
    if known is None:
        return None
    part, last = known.sized.part, len(known.rounds) - 1
    return SizeOut(
        kind=part.kind,
        length_mm=shop(part.length, "mm"),
        limits_mm=(shop(part.wanted.low, "mm"), shop(part.wanted.high, "mm")),
        within_um=shop(2 * known.sized.gauge.repeatability, "um"),
        to_read=to_places(known.to_read),
        read=known.read,
        readings=[
            SizeReadOut(z_mm=shop(reading.height, "mm"), mm=shop(reading.diameter, "mm"), old=at < last)
            for at, each in enumerate(known.rounds)
            for reading in each.readings
        ],
        answer=to_size_answer(stage.label, known.advice) if known.advice is not None else None,
    )


def _strip(kept: KeptRun, piece: int, current: Stage) -> list[StripOut]:
    strips = []
    for stage in kept.run.stages[piece]:
        if stage.face != current.face:
            continue
        work = kept.run.work(piece, stage)
        state = "now" if stage == current else "next" if work.outcome == "open" else work.outcome
        one = tool(stage.tool)
        strips.append(
            StripOut(
                route=stage.route,
                step=stage.step,
                tool=stage.tool,
                label=one.label,
                grain_um=from_si(one.grain, "um"),
                state=state,
                seconds=work.seconds,
                planned_s=stage.seconds,
            )
        )
    return strips


def _piece(kept: KeptRun, piece: int) -> PieceOut:
    stages, following = kept.run.stages[piece], kept.run.next_stage(piece)
    works: Sequence[str] = [kept.run.work(piece, stage).outcome for stage in stages]
    return PieceOut(
        piece=piece,
        done=sum(outcome in ("gone", "back", "skipped") for outcome in works),
        of=sum(outcome != "dropped" for outcome in works),
        face=following.label if following else None,
        label=tool(following.tool).label if following else None,
        backs=sum(outcome == "back" for outcome in works),
    )


def _operations(kept: KeptRun) -> list[WaitingOut]:
    """What is done before, between and after the steps, lot by lot."""
    known = {operation.id: operation for operation in kept.plan.operations}
    return [_waiting(kept, known[operation_of(key)[0]], key) for key in kept.run.layout.operations]


def _waiting(kept: KeptRun, operation: OperationFile, key: str) -> WaitingOut:
    state, lot, lots = kept.run.operations.get(key, Waiting()), operation_of(key)[1], len(kept.run.layout.lots)
    if lots > 1:
        operation = operation.model_copy(update={"id": key, "label": f"{operation.label}, lot {lot} of {lots}"})
    within = to_si(operation.within_minutes, "min") if operation.within_minutes is not None else None
    return WaitingOut(
        operation=operation,
        minutes=shop(kept.run.layout.operations[key].before_after, "min"),
        since_s=elapsed(state.since, kept.now) if state.since is not None and state.done is None else None,
        done=state.done is not None,
        within_s=protection_left(kept.run, lot, within, kept.now) if state.done is None else None,
    )


def _order(kept: KeptRun, order: Order) -> OrderOut:
    cost = cost_of_order(kept.run, order)
    return OrderOut(order=order, label=ORDERS[order], changes=cost.changes, minutes=round(from_si(cost.seconds, "min"), 1))
