"""The rack that a command plans with."""

from pathlib import Path
from typing import Annotated

import typer

from kelbrast.app.rack import Shelf
from kelbrast.cli.output import text_of
from kelbrast.documents.rack.csv import read_rack
from kelbrast.documents.rack.format import to_item
from kelbrast.storage.header import is_database

RackOption = Annotated[
    Path | None,
    typer.Option("--rack", help="your own rack, JSON or CSV; or the program's database, with what its log taught"),
]


def shelf_of(path: Path | None) -> Shelf | None:
    """The rack in a file or a database; None where none is named."""
    if path is None:
        return None
    if is_database(path):
        from kelbrast.app.jobs import Jobs  # the database is only loaded where it is asked for: `kelbrast plan` stays quick

        return Jobs.open(path).rack.shelf()
    return Shelf(tuple(to_item(file, at) for at, file in enumerate(read_rack(text_of(str(path))), start=1)))
