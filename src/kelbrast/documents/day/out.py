"""The board for others: a calendar of each person's blocks, and a table."""

from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from typing import Final

from kelbrast.documents.common.csv_text import csv_text
from kelbrast.documents.day.format import BlockFile, DayFile, minute_of

_COLUMNS: Final = (
    "day", "at", "minutes", "kind", "person", "job", "face", "label", "machine", "spindle", "tool", "late_min",
)  # fmt: skip
_ESCAPED: Final = str.maketrans({"\\": "\\\\", ";": "\\;", ",": "\\,", "\n": "\\n"})


def day_csv(board: DayFile) -> str:
    """One row a block."""
    rows = [
        (
            one.day + 1, one.at, one.to_min - one.from_min, one.kind, one.person, one.job, one.face, one.label, one.machine,
            one.spindle, one.tool, one.late_min,
        )
        for one in board.blocks
    ]  # fmt: skip
    return csv_text(_COLUMNS, rows)


def day_calendar(board: DayFile, day: date, *, now: datetime, person: str | None = None) -> str:
    """An iCalendar (RFC 5545) of everything, or of one person. Times are those of the clock on the wall."""
    stamp = now.strftime("%Y%m%dT%H%M%S")
    begins = minute_of(board.begins, "begins")
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Kelbrast//The day//EN"]
    for at, one in enumerate(_of(board.blocks, person)):
        start = datetime.combine(day, time()) + timedelta(minutes=begins + one.from_min)
        end = start + timedelta(minutes=one.to_min - one.from_min)
        what = f"Put on {one.label}" if one.kind == "change" else one.label
        where = f"{one.machine}, spindle {one.spindle}" if one.machine else ""
        lines += [
            "BEGIN:VEVENT",
            f"UID:{day.isoformat()}-{one.key}-{at}@kelbrast",
            f"DTSTAMP:{stamp}",
            f"DTSTART:{start:%Y%m%dT%H%M%S}",
            f"DTEND:{end:%Y%m%dT%H%M%S}",
            f"SUMMARY:{_told(f'{one.job}: {what}')}",
            *([f"LOCATION:{_told(where)}"] if where else []),
            *([f"DESCRIPTION:{_told(one.person)}"] if one.person else []),
            "END:VEVENT",
        ]
    return "".join(_folded(line) + "\r\n" for line in [*lines, "END:VCALENDAR"])


def _of(blocks: Sequence[BlockFile], person: str | None) -> list[BlockFile]:
    return [one for one in blocks if person is None or one.person == person]


def _told(text: str) -> str:
    return text.translate(_ESCAPED)


def _folded(line: str) -> str:
    """No line is longer than 75 octets; what is, goes on behind a space."""
    found, rest = [], line
    while len(rest.encode()) > 74:
        cut = 74
        while len(rest[:cut].encode()) > 74:
            cut -= 1
        found.append(rest[:cut])
        rest = " " + rest[cut:]
    return "\r\n".join([*found, rest])
