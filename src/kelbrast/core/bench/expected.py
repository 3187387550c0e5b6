"""What the plan expects at the bench: what an instrument should read now, and which limits a reading is held against; and what
comes next, for a screen that works offline for a while."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from kelbrast.core.bench.events import Event, Moment, Order, Stage, elapsed
from kelbrast.core.bench.figures import first_reading
from kelbrast.core.bench.instruments import gloss_of
from kelbrast.core.bench.limits import Facts, Verdict, judge
from kelbrast.core.bench.run import Run
from kelbrast.core.bench.sizing import size_at_bench
from kelbrast.core.bench.taps import happen
from kelbrast.core.bench.told import clock_time
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.goback import Done
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.protection import time_left
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.shapes import is_round, size_after
from kelbrast.core.wording import Sentence, sentence


def done_on(run: Run, piece: int, face: str, *, with_current: bool) -> list[Done]:
    """The steps that were done on a face of a piece, in order; with the one in hand, whose light check failed."""
    dones = []
    for stage in run.stages[piece]:
        outcome = run.work(piece, stage).outcome
        in_hand = with_current and run.current == (piece, stage)
        if stage.face == face and (outcome in ("gone", "back") or in_hand):
            dones.append(Done(stage.takes, stage.leaves, stage.places))
    return dones


def doubted(run: Run) -> Sentence | None:
    """Return a question where the last tap ended a step in far less than its planned time: a slip would teach a wrong pace."""
    last = run.last
    if last is None or last.kind != "gone" or last.piece is None or last.stage is None:
        return None
    stage = next((one for one in run.stages[last.piece] if one.key == last.stage), None)
    if stage is None or stage.seconds < constant("bench.doubt_from").si:
        return None
    worked = run.work(last.piece, stage)
    if worked.corrected or worked.seconds >= constant("bench.doubt_share").value * stage.seconds:
        return None
    return sentence("event.quick", worked=clock_time(worked.seconds), planned=clock_time(stage.seconds))


def verdict(run: Run, job: Job, event: Event) -> Verdict | None:
    """What a reading means against the limits that held for it."""
    if event.measured is None:
        return None
    first = first_reading(run, event.measured, event.piece, event.stage[0] if event.stage else None)
    return judge(event.measured, _facts(run, job, event), first)


def expected(run: Run, job: Job, quantity: str, piece: int, stage: Stage | None, now: Moment) -> float | None:
    """What the plan expects an instrument to read now, in SI; None where it expects nothing."""
    if stage is None:
        return None
    if quantity == "size" and (known := size_at_bench(run, job, now)) is not None and known.to_read:
        found = known.expected(known.to_read[0])
        return job.face(stage.face).gauged.diameter if found is None else found
    gauged, thickness = job.face(stage.face).gauged, job.face(stage.face).thickness
    done = done_on(run, piece, stage.face, with_current=False)
    gone = sum(work.layer for work in done)
    ra = done[-1].leaves / constant("scratch.depth_per_ra").value if done else None
    match quantity:
        case "coat":
            return gauged.coat - gone if gauged.coat is not None else None
        case "size" if is_round(gauged.shape) and gauged.diameter is not None:
            return size_after(gauged.diameter, gone, gauged.shape)
        case "size" if thickness is not None:
            return size_after(thickness, gone, None)
        case "ra":
            return ra
        case "gloss":
            return gloss_of(ra) if ra is not None else None
        case "spindle":
            return stage.drive.spindle
        case "temperature":
            return _warmth(run, job, stage, now)
    return None


def protection_left(run: Run, lot: int, within: float | None, now: Moment) -> float | None:
    """Seconds until a protection of a lot must be on; None while work on it is in hand, or where it can wait.

    It counts from the end of the last step on the piece of the lot that was through first.
    """
    of_lot = [piece for piece in run.stages if run.layout.lot_of(piece) == lot]
    last = [_last_end(run, piece) for piece in of_lot]
    ended = [end for end in last if end is not None]
    if not ended or any(piece in run.ahead for piece in of_lot):
        return None
    return time_left(within=within, since_last_step=elapsed(min(ended, key=lambda at: at.at), now))


def _last_end(run: Run, piece: int) -> Moment | None:
    ended = [work.ended for (of, *_), work in run.works.items() if of == piece and work.ended is not None]
    return max(ended, key=lambda at: at.at, default=None)


def more_time(stage: Stage) -> float:
    """Seconds that "keep going" adds to a step: a share of its planned time, in half minutes."""
    share, least = constant("bench.keep_going").value, constant("bench.least_more").si
    return max(least, round(share * stage.seconds / least) * least)


def _warmth(run: Run, job: Job, stage: Stage, now: Moment) -> float:
    """The part as warm as the plan has it: from the room's warmth up to where it is put down to rest, K."""
    room = constant("heat.room").si
    if stage.drive.rest_after is None or run.clock is None:
        return room
    limit = constant("heat.guarded").si if stage.drive.rest_by_hand else job.hottest
    return room + (limit - room) * min(1.0, elapsed(run.clock, now) / stage.drive.rest_after)


def _facts(run: Run, job: Job, event: Event) -> Facts:
    if event.stage is None:
        return Facts(hottest=job.hottest)
    face = job.face(event.stage[0])
    drive = next((stage.drive for each in run.stages.values() for stage in each if stage.key == event.stage), None)
    low, high = (face.want.ra_low, face.want.ra_high) if _finished(run, event.piece, face) else (None, None)
    return Facts(
        keep=face.gauged.keep,
        may_go=face.limit,
        shape=face.gauged.shape,
        hottest=job.hottest,
        by_hand=drive is not None and job.held_in_hand and machine(drive.machine).stands,
        diameter=drive.diameter if drive else None,
        marked=drive.marked if drive else None,
        spindle=drive.spindle if drive else None,
        ra_low=low,
        ra_high=high,
    )


def _finished(run: Run, piece: int | None, face: Face) -> bool:
    """Every step of a face of a piece is over."""
    if piece is None:
        return False
    return all(run.work(piece, stage).outcome != "open" for stage in run.stages[piece] if stage.face == face.key)


STEPS_AHEAD: Final = 24


@dataclass(frozen=True, slots=True)
class Foreseen:
    """A run as it would stand after the step in hand, and when that would be."""

    run: Run
    at: Moment


def ahead(run: Run, job: Job, now: Moment, most: int = STEPS_AHEAD) -> Iterator[Foreseen]:
    """The states after each of the next steps, if each passes its light check when its planned time is over.

    It ends where the run has no more steps, where a gauge has to be read before it is known what comes next, or after so many.
    """
    for _ in range(most):
        if run.status != "open" or run.current is None:
            return
        piece, stage = run.current
        if job.face(stage.face).sized is not None:
            return
        left = max(0.0, stage.seconds + run.work(piece, stage).more - run.seconds_in_hand(now))
        if run.clock is None:
            run = happen(run, Event("started", run.seen + 1, now, piece, stage.key))
        now = now.later(left)
        run = happen(run, Event("gone", run.seen + 1, now, piece, stage.key))
        yield Foreseen(run, now)


@dataclass(frozen=True, slots=True)
class OrderCost:
    """What is left of a run in one order: wheels to put on, and seconds of setting up tools."""

    order: Order
    changes: int
    seconds: float


def left_in_order(run: Run, order: Order) -> list[tuple[int, Stage]]:
    """Every stage that is still open, in the order of work."""
    open_stages = [(piece, stage) for piece, stages in run.ahead.items() for stage in stages]
    if order == "step":
        return sorted(open_stages, key=lambda stage: (run.layout.lot_of(stage[0]), stage[1].place, stage[0]))
    first = run.current[0] if run.current else None
    return sorted(open_stages, key=lambda stage: (stage[0] != first, stage[0]))


def cost_of_order(run: Run, order: Order) -> OrderCost:
    """The changes from here on; what is in hand now is on the machine already.

    A wheel that comes twice in a row stays on, so working all pieces per step changes least.
    """
    changes, seconds = 0, 0.0
    on = run.current[1].tool if run.current is not None and run.begun else None
    for _, stage in left_in_order(run, order):
        if stage.tool != on:
            changes += stage.mounted
            seconds += stage.setup
        on = stage.tool
    return OrderCost(order, changes, seconds)
