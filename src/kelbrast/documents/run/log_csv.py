"""The log for a spreadsheet: a row a run, and a row an event of one run."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any, Final

from kelbrast.core.bench.told import Told
from kelbrast.core.units import from_si
from kelbrast.core.wording import tell
from kelbrast.documents.common.csv_text import csv_text

RUN_COLUMNS: Final = (
    "run", "began_utc", "ended_utc", "title", "material", "finishes", "pieces", "status", "as_wanted", "hands_on_minutes",
    "spent_minutes", "planned_minutes", "minutes", "planned_metal_um", "metal_um", "went_back",
    "planned_abrasives", "abrasives",
)  # fmt: skip
EVENT_COLUMNS: Final = (
    "number", "at_utc", "kind", "piece", "face", "route", "step", "depth_um", "seconds", "quantity", "value_si", "said",
    "taken_back",
)  # fmt: skip


def runs_csv(rows: Iterable[Mapping[str, Any]]) -> str:
    """A row a run; each is a mapping with the columns above."""
    return csv_text(RUN_COLUMNS, ([row.get(column) for column in RUN_COLUMNS] for row in rows))


def events_csv(told: Sequence[Told]) -> str:
    """A row an event of one run, also those that were taken back."""
    return csv_text(EVENT_COLUMNS, (_event(event) for event in told))


def _event(told: Told) -> list[Any]:
    event = told.event
    _, route, step = event.stage or (None, None, None)
    depth = from_si(event.depth, "um") if event.depth is not None else None
    reading = event.measured
    return [
        event.number, event.at.when, event.kind, event.piece, told.face or None, route, step, depth, event.seconds,
        reading.quantity if reading else None, reading.value if reading else None, tell(told.said), told.taken_back,
    ]  # fmt: skip
