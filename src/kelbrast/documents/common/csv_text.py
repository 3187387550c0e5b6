"""CSV for spreadsheets, written and read: every cell quoted and guarded, every row as wide as the header."""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from typing import Any, Final

from kelbrast.core.errors import BadInput, Fault, ReadError

_FORMULA: Final = ("=", "+", "-", "@", "\t", "\r", "\n")  # with these a spreadsheet takes a text for a formula
_GUARD: Final = "'"


def csv_text(columns: Sequence[str], rows: Iterable[Sequence[Any]]) -> str:
    """A table with its columns named in the first row."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n", quoting=csv.QUOTE_ALL)
    writer.writerow(columns)
    writer.writerows([cell(value) for value in row] for row in rows)
    return out.getvalue()


def cell(value: object) -> str:
    """As text. What a spreadsheet would take for a formula is put behind an apostrophe, and so is what begins with one.

    >>> cell("=1+1"), cell(-2.5), cell(None), cell(True), as_it_was(cell("'tis"))
    ("'=1+1", '-2.5', '', 'yes', "'tis")
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:g}"
    text = value.strftime("%Y-%m-%d %H:%M:%S") if isinstance(value, datetime) else str(value)
    return _GUARD + text if text[:1] in (*_FORMULA, _GUARD) and not isinstance(value, int) else text


def as_it_was(text: str) -> str:
    """The text of a cell without its guard."""
    return text[1:] if text[:1] == _GUARD and text[1:2] in (*_FORMULA, _GUARD) else text


def csv_rows(text: str, columns: Sequence[str], *, needs: str) -> Iterator[tuple[int, dict[str, str] | Fault]]:
    """The rows of a table by column, each with its number; one that is not as wide as the first is a fault in its place.

    Args:
        columns: that may be there.  needs: the one that must be.

    Raises:
        ReadError: not CSV, or not a table of this kind.  BadInput: columns that do not belong to it.
    """
    text = text.lstrip("\ufeff")
    first = text.lstrip("\r\n").split("\n", 1)[0]
    separator = ";" if ";" in first and "," not in first else "\t" if "\t" in first and "," not in first else ","
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    names: list[str] | None = None
    try:
        for row in reader:
            if not any(part.strip() for part in row):
                continue
            if names is None:
                names = [name.strip() for name in row]
                _check(names, columns, needs)
            elif len(row) != len(names):
                said = (
                    f"has {len(row)} cells where the first row names {len(names)} columns; was a comma meant as a decimal sign?"
                )
                yield reader.line_num, Fault(f"row {reader.line_num}", said)
            else:
                yield reader.line_num, {name: as_it_was(part.strip()) for name, part in zip(names, row, strict=True)}
    except csv.Error as problem:
        raise ReadError.one("", f"this is not CSV: {problem}") from None
    if names is None:
        _check([], columns, needs)


def _check(names: Sequence[str], columns: Sequence[str], needs: str) -> None:
    if needs not in names:
        known = ", ".join(columns)
        raise ReadError.one("", f'the first row must name the columns, "{needs}" among them ({known})')
    strange = [Fault(f"column {name}", "is not a column of this file") for name in names if name not in columns]
    twice = [Fault(f"column {name}", "is there twice") for name in dict.fromkeys(names) if names.count(name) > 1]
    if strange or twice:
        raise BadInput([*strange, *twice])
