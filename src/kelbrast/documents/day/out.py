"""The schedule for other programs: a calendar per person, and a table."""

from datetime import date, datetime, time, timedelta
from typing import Final

from kelbrast.documents.common.csv_text import csv_text
from kelbrast.documents.day.format import DayFile, minute_of

_COLUMNS: Final = (
    "day", "at", "minutes", "kind", "person", "job", "face", "label", "machine", "spindle", "tool", "late_min",
)  # fmt: skip


def day_csv(board: DayFile) -> str:
    """One row a block."""
    rows = [
        (
            block.day + 1, block.at, block.to_min - block.from_min, block.kind, block.person, block.job, block.face,
            block.label, block.machine, block.spindle, block.tool, block.late_min,
        )
        for block in board.blocks
    ]  # fmt: skip
    return csv_text(_COLUMNS, rows)


def day_calendar(board: DayFile, day: date, *, now: datetime, person: str | None = None) -> str:
    """An iCalendar (RFC 5545) of everything, or of one person. Times are those of the clock on the wall."""
    from icalendar import Calendar, Event  # takes a third of a second to load, and few days are exported

    calendar = Calendar()
    calendar.add("prodid", "-//Kelbrast//The day//EN")
    calendar.add("version", "2.0")
    begins = datetime.combine(day, time()) + timedelta(minutes=minute_of(board.begins, "begins"))
    for at, one in enumerate(block for block in board.blocks if person is None or block.person == person):
        what = f"Put on {one.label}" if one.kind == "change" else one.label
        event = Event()
        event.add("uid", f"{day.isoformat()}-{one.key}-{at}@kelbrast")
        event.add("dtstamp", now)
        event.add("dtstart", begins + timedelta(minutes=one.from_min))
        event.add("dtend", begins + timedelta(minutes=one.to_min))
        event.add("summary", f"{one.job}: {what}")
        if one.machine:
            event.add("location", f"{one.machine}, spindle {one.spindle}")
        if one.person:
            event.add("description", one.person)
        calendar.add_component(event)
    return str(calendar.to_ical().decode())
