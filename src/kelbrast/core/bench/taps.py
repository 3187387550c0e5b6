"""Applies, replays and undoes the events of a run."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Final

from kelbrast.core.bench.events import Event, EventKind, Stage, elapsed
from kelbrast.core.bench.run import Layout, Outcome, Run, Waiting, WorkKey, begin, in_hand
from kelbrast.core.errors import BadInput


def happen(run: Run, event: Event) -> Run:
    """The run after this event, which stands.

    Raises:
        BadInput: it cannot happen now: another stage is in hand, the run is over, something it needs is missing.
    """
    if run.status != "open" and event.kind not in BESIDE:
        raise BadInput.one("kind", "this run is over; take its end back to go on")
    after = replace(_DOES[event.kind](run, event), standing=(*run.standing, event), seen=event.number)
    return replace(after, current=in_hand(after)) if event.kind in _TURNS else after


def _started(run: Run, event: Event) -> Run:
    _in_hand(run, event)
    if run.clock is not None:
        raise BadInput.one("kind", "the clock runs already")
    return replace(run, clock=event.at, begun=True, picked=event.piece)


def _paused(run: Run, event: Event) -> Run:
    _in_hand(run, event)
    if run.clock is None:
        raise BadInput.one("kind", "the clock stands already")
    return _stop_clock(run, event)


def _ended(run: Run, event: Event, outcome: Outcome) -> Run:
    """The stage in hand is over. With one piece through, the piece stays in hand; else the next in order comes."""
    key = _in_hand(run, event)
    run = _stop_clock(run, event)
    piece, stage = _current(run)
    work = replace(run.work(piece, stage), outcome=outcome, ended=event.at)
    return replace(
        run,
        works={**run.works, key: work},
        ahead=_ahead(run, piece, run.ahead[piece][1:]),
        begun=False,
        picked=event.piece if run.order == "piece" else None,
    )


def _gone(run: Run, event: Event) -> Run:
    if not run.begun:
        raise BadInput.one("kind", "this step was not begun; start it, or leave it out and say why")
    return _ended(run, event, "gone")


def _more(run: Run, event: Event) -> Run:
    key = _in_hand(run, event)
    if event.seconds is None or event.seconds <= 0:
        raise BadInput.one("seconds", "must be above 0")
    work = run.work(*_current(run))
    run = replace(run, works={**run.works, key: replace(work, more=work.more + event.seconds)})
    return run if run.clock is not None else replace(run, clock=event.at, begun=True, picked=event.piece)


def _back(run: Run, event: Event) -> Run:
    """The stage in hand failed its light check: a new route takes the place of what was left on this face."""
    _in_hand(run, event)
    piece, stage = _current(run)
    route = run.next_route
    if not event.stages or any((one.face, one.route) != (stage.face, route) for one in event.stages):
        raise BadInput.one("stages", f'must be route {route} of "{stage.label}"')
    run = _ended(run, event, "back")
    open_still = run.ahead.get(piece, ())
    dropped = [one for one in open_still if one.face == stage.face]
    left = {(piece, *stage.key): replace(run.work(piece, stage), outcome="dropped") for stage in dropped}
    behind = [stage for stage in run.stages[piece] if stage not in open_still or stage in dropped]
    others = [stage for stage in open_still if stage not in dropped]
    ahead = tuple(sorted([*others, *event.stages], key=lambda stage: stage.place))
    return replace(
        run,
        works={**run.works, **left},
        stages={**run.stages, piece: (*behind, *ahead)},
        ahead=_ahead(run, piece, ahead),
        picked=piece,
    )


def _accepted(run: Run, event: Event) -> Run:
    _in_hand(run, event)
    return run


def _skipped(run: Run, event: Event) -> Run:
    if not event.words.strip():
        raise BadInput.one("words", "say why it is left out")
    return _ended(run, event, "skipped")


def _picked(run: Run, event: Event) -> Run:
    if event.piece is None or event.piece not in run.stages:
        raise BadInput.one("piece", f"there are pieces 1 to {run.layout.pieces}")
    if run.next_stage(event.piece) is None:
        raise BadInput.one("piece", f"piece {event.piece} is through")
    return replace(_stop_clock(run, event), picked=event.piece, begun=False)


def _order(run: Run, event: Event) -> Run:
    if event.order is None:
        raise BadInput.one("order", 'must be "step" or "piece"')
    picked = run.current[0] if run.current and (event.order == "piece" or run.begun) else None
    return replace(run, order=event.order, picked=picked)


def _ahead(run: Run, piece: int, left: tuple[Stage, ...]) -> dict[int, tuple[Stage, ...]]:
    """What is still open when so much is left of a piece."""
    others = {other: stages for other, stages in run.ahead.items() if other != piece}
    return {**others, piece: left} if left else others


def _changed(run: Run, event: Event) -> Run:
    tool = _tool(run, event)
    if run.clock is not None:
        run = replace(_stop_clock(run, event), clock=event.at)
    lasted = (*run.worn_at.get(tool, ()), run.on_tool.get(tool, 0.0))
    return replace(
        run,
        on_tool={**run.on_tool, tool: 0.0},
        changes={**run.changes, tool: run.changes.get(tool, 0) + 1},
        worn_at={**run.worn_at, tool: lasted},
    )


def _recharged(run: Run, event: Event) -> Run:
    tool = _tool(run, event)
    if run.clock is not None:
        run = replace(_stop_clock(run, event), clock=event.at)
    return replace(run, charged={**run.charged, tool: 0.0})


def _waiting(run: Run, event: Event) -> Run:
    return replace(run, operations={**run.operations, _operation(run, event): Waiting(since=event.at)})


def _operated(run: Run, event: Event) -> Run:
    name = _operation(run, event)
    before = run.operations.get(name, Waiting())
    return replace(run, operations={**run.operations, name: replace(before, done=event.at)})


def _measured(run: Run, event: Event) -> Run:
    if event.measured is None:
        raise BadInput.one("measured", "say what was measured")
    return _about(run, event)


def _photo(run: Run, event: Event) -> Run:
    if event.photo is None:
        raise BadInput.one("photo", "say which photo")
    return _about(run, event)


def _note(run: Run, event: Event) -> Run:
    if not event.words.strip():
        raise BadInput.one("words", "write something, or leave the note out")
    return _about(run, event)


def _trouble(run: Run, event: Event) -> Run:
    if not event.fault and not event.words.strip():
        raise BadInput.one("fault", "say what went wrong, from the list or in your own words")
    return _about(run, event)


def _corrected(run: Run, event: Event) -> Run:
    """The time of a stage that is over was not what the clock said: somebody forgot to stop it."""
    key = _key(event)
    work = run.works.get(key)
    if work is None or work.outcome == "open":
        raise BadInput.one("stage", "only the time of a step that is over can be put right")
    if event.seconds is None or event.seconds < 0:
        raise BadInput.one("seconds", "must not be below 0")
    return replace(run, works={**run.works, key: replace(work, seconds=event.seconds, corrected=True)})


def _finished(run: Run, event: Event) -> Run:
    if run.current is not None:
        raise BadInput.one("kind", "there are steps left; do them, leave them out, or stop the run")
    if event.well is None:
        raise BadInput.one("well", "say whether it came out as wanted")
    return replace(run, status="finished", well=event.well)


def _stopped(run: Run, event: Event) -> Run:
    return replace(_stop_clock(run, event), status="stopped", well=False, begun=False)


_DOES: Final[Mapping[EventKind, Callable[[Run, Event], Run]]] = {
    "started": _started,
    "paused": _paused,
    "gone": _gone,
    "more": _more,
    "back": _back,
    "accepted": _accepted,
    "skipped": _skipped,
    "picked": _picked,
    "order": _order,
    "changed": _changed,
    "recharged": _recharged,
    "waiting": _waiting,
    "operated": _operated,
    "measured": _measured,
    "photo": _photo,
    "note": _note,
    "trouble": _trouble,
    "corrected": _corrected,
    "finished": _finished,
    "stopped": _stopped,
}
# After these another piece or stage may be in hand.
_TURNS: Final[tuple[EventKind, ...]] = ("started", "more", "gone", "back", "skipped", "picked", "order")
# Beside the work: they also happen when the run is over, and contradict nothing that another screen taps.
BESIDE: Final[tuple[EventKind, ...]] = (
    "waiting", "operated", "measured", "photo", "note", "trouble", "corrected",
)  # fmt: skip


def _key(event: Event) -> WorkKey:
    if event.piece is None or event.stage is None:
        raise BadInput.one("stage", "say which piece and step it is about")
    return (event.piece, *event.stage)


def _current(run: Run) -> tuple[int, Stage]:
    if run.current is None:
        raise BadInput.one("kind", "every step of every piece is done")
    return run.current


def _in_hand(run: Run, event: Event) -> WorkKey:
    """The key of the stage in hand, which the event must be about: nobody taps for a step that is no longer there."""
    piece, stage = _current(run)
    key = (piece, *stage.key)
    if _key(event) != key:
        raise BadInput.one("stage", f'piece {piece}, "{stage.label}", step {stage.step} is in hand now')
    return key


def _stop_clock(run: Run, event: Event) -> Run:
    """What ran until now is put down to the stage, its abrasive and its charge."""
    if run.clock is None:
        return run
    piece, stage = _current(run)
    ran = elapsed(run.clock, event.at)
    work = run.work(piece, stage)
    return replace(
        run,
        clock=None,
        works={**run.works, (piece, *stage.key): replace(work, seconds=work.seconds + ran)},
        on_tool={**run.on_tool, stage.tool: run.on_tool.get(stage.tool, 0.0) + ran},
        charged={**run.charged, stage.tool: run.charged.get(stage.tool, 0.0) + ran},
    )


def _tool(run: Run, event: Event) -> str:
    known = {stage.tool for stages in run.stages.values() for stage in stages}
    if event.tool not in known:
        raise BadInput.one("tool", f"must be one of {', '.join(sorted(known))}")
    return event.tool


def _operation(run: Run, event: Event) -> str:
    if event.operation is None or event.operation not in run.layout.operations:
        raise BadInput.one("operation", f"must be one of {', '.join(run.layout.operations)}")
    return event.operation


def _about(run: Run, event: Event) -> Run:
    """Something that is kept as it is; if it names a piece, there must be such a piece."""
    if event.piece is not None and event.piece not in run.stages:
        raise BadInput.one("piece", f"there are pieces 1 to {run.layout.pieces}")
    return run


def replay(layout: Layout, events: Iterable[Event]) -> Run:
    """The state after these events, in the order of their numbers. What was taken back is as if it never happened.

    Raises:
        BadInput: an event cannot have happened then.
    """
    told = list(events)
    taken_back = {event.undoes for event in told if event.kind == "undone"}
    run = begin(layout)
    for event in told:
        if event.kind != "undone" and event.number not in taken_back:
            run = happen(run, event)
    return replace(run, seen=told[-1].number if told else 0)


def check_undo(run: Run, event: Event) -> None:
    """Whether an event may be taken back: only the last one that stands.

    Raises:
        BadInput: it is not.
    """
    if run.last is None:
        raise BadInput.one("undoes", "nothing has happened that could be taken back")
    if event.undoes != run.last.number:
        raise BadInput.one("undoes", f"only the last tap can be taken back, and that is number {run.last.number}")
