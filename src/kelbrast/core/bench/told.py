"""A run in words: every event as a sentence, so that the log can be read without the program."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kelbrast.core.bench.events import ORDERS, Event, Measured, Stage
from kelbrast.core.bench.instruments import QUANTITIES
from kelbrast.core.bench.run import Layout, Run, begin
from kelbrast.core.bench.taps import happen, replay
from kelbrast.core.catalogue.damages import faults_of_work
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.reference.loader import record
from kelbrast.core.wording import Measure, Sentence, plain, sentence


@dataclass(frozen=True, slots=True)
class Told:
    """An event in words; `taken_back`: somebody undid it later. `face`: what its face was called; empty for none."""

    event: Event
    said: Sentence
    taken_back: bool
    face: str


def tell(layout: Layout, events: Sequence[Event]) -> list[Told]:
    """Every event as a sentence, in order, also those that were taken back."""
    taken_back = {event.undoes for event in events if event.kind == "undone"}
    said: dict[int, Sentence] = {}
    found = []
    run = begin(layout)
    for event in events:
        if event.kind == "undone":
            one = sentence("event.taken_back", before=said.get(event.undoes or 0, plain("")))
        else:
            one = _said(run, event)
        said[event.number] = one
        undone = event.number in taken_back
        if event.kind != "undone" and not undone:
            run = happen(run, event)
        found.append(Told(event, one, undone, _face(run, event)))
    return found


def tell_one(layout: Layout, events: Sequence[Event], number: int) -> Sentence | None:
    """The last event that can be taken back as a sentence; None: it is not among them."""
    event = next((event for event in events if event.number == number), None)
    if event is None:
        return None
    return _said(replay(layout, [one for one in events if one.number < number]), event)


def clock_time(seconds: float) -> str:
    """Minutes and seconds.

    >>> clock_time(400.4), clock_time(3725)
    ('6:40', '1:02:05')
    """
    minutes, rest = divmod(round(seconds), 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours}:{minutes:02}:{rest:02}" if hours else f"{minutes}:{rest:02}"


def reading_said(measured: Measured) -> Sentence:
    """A reading with its unit, where and with what.

    >>> str(reading_said(Measured("coat", 41e-6, position="middle")))
    'Coat thickness 41 µm, middle'
    """
    kind = QUANTITIES[measured.quantity]
    by = f"{measured.instrument}{', simulated' if measured.simulated else ''}"
    where = "".join(f", {part}" for part in (measured.position, measured.direction, by) if part)
    return sentence("reading.said", what=kind.label, value=Measure(measured.value, kind.shown, 6), where=where)


def _said(run: Run, event: Event) -> Sentence:
    note = f" {event.words.strip()}" if event.words.strip() else ""
    at = ", ".join(part for part in (event.piece and f"piece {event.piece}", _face(run, event)) if part) or "all"
    stage = run.current[1] if run.current else None
    worked = clock_time(run.seconds_in_hand(event.at)) if run.current else "0:00"
    tool = tools()[event.tool].label if event.tool in tools() else event.tool
    operation = record("operations").get(event.operation or "", {}).get("label", event.operation)
    depth = Measure(event.depth, "depth", 3) if event.depth is not None else "unknown depth"
    route = ", ".join(_label(one) for one in event.stages)
    over = "a patch" if event.extent == "patch" else "the whole face"
    fault = faults_of_work().get(event.fault or "")
    if event.kind == "back":
        step = _step(stage)
        return sentence("event.back", depth=depth, step=step, at=at, over=over, route=route, note=note)
    if event.kind == "accepted":
        return sentence("event.accepted", depth=depth, at=at, step=_step(stage), note=note)
    if event.kind == "measured" and event.measured is not None:
        return sentence("event.measured", at=at, reading=reading_said(event.measured), note=note)
    texts: Mapping[str, str] = {
        "started": f"Began {_step(stage)} ({at}): {_label(stage)}, planned {clock_time(stage.seconds if stage else 0)} on it.",
        "paused": f"Paused after {worked} ({at}).",
        "gone": f"Old marks gone after {worked} ({at}, {_step(stage)}: {_label(stage)}).",
        "more": f"Old marks still there after {worked}: {clock_time(event.seconds or 0)} more ({at}, {_step(stage)}).",
        "skipped": f"Left out {_step(stage)} ({at}: {_label(stage)}).",
        "picked": f"Took piece {event.piece} in hand.",
        "order": f"{ORDERS[event.order] if event.order else ''} from here on.",
        "changed": f"New abrasive on {tool} after {clock_time(run.on_tool_now(event.tool or '', event.at))} of work.",
        "recharged": f"Charged {tool} again.",
        "waiting": f"{operation}: waiting began.",
        "operated": f"{operation}: done.",
        "photo": f"Photo {event.photo} ({at}).",
        "note": "Note:",
        "trouble": f"Trouble ({at}): {fault.seen if fault else 'other'}.",
        "corrected": f"Time put right to {clock_time(event.seconds or 0)} ({at}, step {event.stage and event.stage[2]}).",
        "finished": f"Finished: {'as wanted' if event.well else 'not as wanted'}.",
        "stopped": "Stopped before the end.",
    }
    return plain(texts[event.kind] + note)


def _face(run: Run, event: Event) -> str:
    """The face that the event is about, as it was called when the run began."""
    face = event.stage[0] if event.stage else ""
    return next((one.label for one in run.layout.stages if one.face == face), face)


def _label(stage: Stage | None) -> str:
    if stage is None:
        return ""
    return tools()[stage.tool].label if stage.tool in tools() else stage.tool


def _step(stage: Stage | None) -> str:
    if stage is None:
        return ""
    return f"step {stage.step}" + (f" of way back {stage.route}" if stage.route else "")
