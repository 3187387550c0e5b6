"""Printing: JSON as it is, tables in columns; and the rack that a command plans with."""

import codecs
import io
import os
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from enum import StrEnum
from pathlib import Path
from typing import Annotated

import typer
from pydantic import BaseModel

from kelbrast.app.rack import Shelf
from kelbrast.core.errors import BadInput
from kelbrast.core.reference.own_rows import use_from_here
from kelbrast.documents.job.read import LARGEST_FILE
from kelbrast.documents.own.format import read_own_file, rows_of
from kelbrast.documents.rack.csv import read_rack
from kelbrast.documents.rack.format import to_item
from kelbrast.storage.holding import is_database

_ESCAPED = "kelbrast-escaped"
_NOT_IN_TABLES = {"figures", "cautions", "not_for", "suits"}


class Format(StrEnum):
    text = "text"
    json = "json"


@contextmanager
def writable_output() -> Iterator[None]:
    """Output that cannot be written is one line on standard error; what its letters do not have is told as JSON escapes it."""
    codecs.register_error(_ESCAPED, _escaped)
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):
            stream.reconfigure(errors=_ESCAPED)
    try:
        try:
            yield
        finally:
            sys.stdout.flush()
    except BrokenPipeError:  # whoever reads has read enough
        _give_up()
        sys.exit(0)
    except OSError as problem:
        _give_up()
        print(f"The output cannot be written: {problem.strerror}", file=sys.stderr)
        sys.exit(2)


def _give_up() -> None:
    """Nothing more is written, not even when the program ends."""
    sys.stdout = open(os.devnull, "w")  # noqa: SIM115


def _escaped(problem: UnicodeError) -> tuple[str, int]:
    assert isinstance(problem, UnicodeEncodeError), "asked for writing"
    text = problem.object[problem.start : problem.end]
    pairs = text.encode("utf-16-be", "surrogatepass")
    return "".join(f"\\u{pairs[at] << 8 | pairs[at + 1]:04x}" for at in range(0, len(pairs), 2)), problem.end


def say(text: str) -> None:
    """To standard output."""
    print(text)


def text_of(path: str) -> str:
    """The text of a file, or of standard input for `-`.

    Raises:
        BadInput: it cannot be read, is too large, or is not text.
    """
    try:
        with sys.stdin.buffer if path == "-" else Path(path).open("rb") as file:
            data = file.read(LARGEST_FILE + 1)
        if len(data) > LARGEST_FILE:
            raise BadInput.one(path, f"is larger than {LARGEST_FILE // 1024 // 1024} MB; split it")
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise BadInput.one(path, "is not UTF-8 text") from None
    except OSError as problem:
        raise BadInput.one(path, f"cannot be read: {problem.strerror}") from None


def refuse_written(to: Path) -> None:
    """What takes long is not begun for a file that would not be written.

    Raises:
        BadInput: it is there already.
    """
    if to.exists():
        raise BadInput.one("--to", f"{to} exists already; it is left as it is")


def write_new(to: Path, data: bytes) -> None:
    """Write a file that is not there yet.

    Raises:
        BadInput: it is there already, or cannot be written.
    """
    try:
        with to.open("xb") as target:
            target.write(data)
    except FileExistsError:
        refuse_written(to)
    except OSError as problem:
        raise BadInput.one("--to", f"{to} cannot be written: {problem.strerror}") from None


def print_table(rows: Sequence[BaseModel]) -> None:
    """Rows of one kind, in columns as wide as they need to be."""
    names = [name for name in type(rows[0]).model_fields if name not in _NOT_IN_TABLES]
    cells = [[_cell(getattr(row, name)) for name in names] for row in rows]
    widths = [max(len(line[k]) for line in [names, *cells]) for k in range(len(names))]
    for line in [names, *cells]:
        say("  ".join(text.ljust(width) for text, width in zip(line, widths, strict=True)).rstrip())


def _cell(value: object) -> str:
    if value is None:
        return "-"
    if isinstance(value, list | tuple):
        return ",".join(_cell(item) for item in value)
    return f"{value:g}" if isinstance(value, float) else str(value)


RackOption = Annotated[
    Path | None,
    typer.Option("--rack", help="your own rack, JSON or CSV; or the program's database, with what its log taught"),
]


def use_own(path: Path | None) -> None:
    """Plan with what a shop has of its own, from a file or a database."""
    if path is None:
        return
    if is_database(path):
        from kelbrast.app.jobs import Jobs

        use_from_here(Jobs.open(path).own.rows())
    else:
        use_from_here(rows_of(read_own_file(text_of(str(path))).entries))


def shelf_of(path: Path | None) -> Shelf | None:
    """The rack in a file or a database; None where none is named."""
    if path is None:
        return None
    if is_database(path):
        from kelbrast.app.jobs import Jobs  # the database is only loaded where it is asked for: `kelbrast plan` stays quick

        jobs = Jobs.open(path)
        use_from_here(jobs.own.rows())
        return jobs.rack.shelf()
    return Shelf(tuple(to_item(file, at) for at, file in enumerate(read_rack(text_of(str(path))), start=1)))
