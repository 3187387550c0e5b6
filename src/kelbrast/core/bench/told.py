"""A run as text: every event as a sentence."""

from collections.abc import Sequence
from dataclasses import dataclass

from kelbrast.core.bench.events import ORDERS, Event, Measured, Stage
from kelbrast.core.bench.instruments import QUANTITIES
from kelbrast.core.bench.run import Layout, Run, begin, operation_of
from kelbrast.core.bench.taps import happen, replay
from kelbrast.core.catalogue.damages import faults_of_work
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.reference.loader import record
from kelbrast.core.wording import Measure, Sentence, places_of, plain, sentence


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
    lines = []
    run = begin(layout)
    for event in events:
        if event.kind == "undone":
            fact = sentence("event.taken_back", before=said.get(event.undoes or 0, plain("")))
        else:
            fact = _said(run, event)
        said[event.number] = fact
        undone = event.number in taken_back
        if event.kind != "undone" and not undone:
            run = happen(run, event)
        lines.append(Told(event, fact, undone, _face(run, event)))
    return lines


def tell_one(layout: Layout, events: Sequence[Event], number: int) -> Sentence | None:
    """The last event that can be taken back as a sentence; None: it is not among them."""
    event = next((event for event in events if event.number == number), None)
    if event is None:
        return None
    return _said(replay(layout, [event for event in events if event.number < number]), event)


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
    values = _values(run, event)
    code = _code(event)
    return sentence(code, **{name: values[name] for name in places_of(sentence(code).words)})


def _code(event: Event) -> str:
    """The name of the sentence about such an event."""
    if event.kind == "finished":
        return "event.finished_well" if event.well else "event.finished_badly"
    if event.kind == "trouble" and event.fault not in faults_of_work():
        return "event.trouble_other"
    return f"event.{event.kind}"


def _values(run: Run, event: Event) -> dict[str, Measure | str | Sentence]:
    """Everything that a sentence about an event may need."""
    stage = run.current[1] if run.current else None
    fault = faults_of_work().get(event.fault or "")
    return {
        "note": f" {event.words.strip()}" if event.words.strip() else "",
        "at": _at(event.piece, _face(run, event)),
        "step": _step(stage),
        "label": _label(stage),
        "planned": clock_time(stage.seconds if stage else 0),
        "worked": clock_time(run.seconds_in_hand(event.at)) if run.current else "0:00",
        "given": clock_time(event.seconds or 0),
        "piece": str(event.piece or ""),
        "photo": str(event.photo or ""),
        "number": str(event.stage[2]) if event.stage else "",
        "tool": _tool(event.tool or ""),
        "used": clock_time(run.on_tool_now(event.tool or "", event.at)),
        "operation": _operation(event.operation or ""),
        "order": ORDERS[event.order] if event.order else "",
        "fault": fault.seen if fault else "",
        "depth": Measure(event.depth, "depth", 3) if event.depth is not None else sentence("event.unknown_depth"),
        "over": sentence("event.over_patch" if event.extent == "patch" else "event.over_all"),
        "route": ", ".join(_label(stage) for stage in event.stages),
        "reading": reading_said(event.measured) if event.measured is not None else "",
    }


def _at(piece: int | None, face: str) -> Sentence:
    """Which piece and face it is about, as far as it is about one."""
    if piece and face:
        return sentence("event.at_both", piece=str(piece), face=face)
    if piece:
        return sentence("event.at_piece", piece=str(piece))
    return plain(face) if face else sentence("event.at_all")


def _step(stage: Stage | None) -> Sentence:
    if stage is None:
        return plain("")
    if stage.route:
        return sentence("event.step_back", step=str(stage.step), route=str(stage.route))
    return sentence("event.step", step=str(stage.step))


def _face(run: Run, event: Event) -> str:
    """The face that the event is about, as it was called when the run began."""
    face = event.stage[0] if event.stage else ""
    return next((stage.label for stage in run.layout.stages if stage.face == face), face)


def _label(stage: Stage | None) -> str:
    return _tool(stage.tool) if stage is not None else ""


def _tool(key: str) -> str:
    return tools()[key].label if key in tools() else key


def _operation(key: str) -> str:
    """What an operation is called, with its lot where that is not the first."""
    operation, lot = operation_of(key)
    label = str(record("operations").get(operation, {}).get("label", operation))
    return label if lot == 1 else f"{label}, lot {lot}"
