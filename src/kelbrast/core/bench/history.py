"""The state of a run from everything that happened, and what of it can be taken back."""

from collections.abc import Iterable
from dataclasses import replace

from kelbrast.core.bench.events import Event
from kelbrast.core.bench.run import Layout, Run, begin
from kelbrast.core.bench.taps import happen
from kelbrast.core.errors import BadInput


def replay(layout: Layout, events: Iterable[Event]) -> Run:
    """The state after these events, in the order of their numbers. What was taken back is as if it never happened.

    Raises:
        BadInput: an event can not have happened then.
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
