"""What is wrong with an installation: every part that it needs, looked at one by one."""

import os
import re
import shutil
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from importlib.metadata import PackageNotFoundError, requires, version
from pathlib import Path
from typing import Annotated, Final

import typer

from kelbrast.cli.output import say
from kelbrast.core.errors import KelbrastError

LEAST_ROOM: Final = 100_000_000  # bytes: a backup of every day for a fortnight, of a small shop


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that was looked at: whether it is well, what was found, and the mend where it is not."""

    well: bool
    what: str
    mend: str = ""


def doctor(
    database: Annotated[Path, typer.Option("--database", envvar="KELBRAST_DATABASE", help="the SQLite file")] = Path(
        "data/kelbrast.sqlite"
    ),
) -> None:
    """Say what is wrong with this installation; exit code 0 when nothing is."""
    findings = [*_python(), *_packages(), *_facts(), *_screens(), *_database(database)]
    for one in findings:
        say(f"{'well ' if one.well else 'WRONG'}  {one.what}{'' if one.well else f': {one.mend}'}")
    if not all(finding.well for finding in findings):
        raise typer.Exit(1)


def _python() -> Iterator[Finding]:
    running = ".".join(map(str, sys.version_info[:3]))
    yield Finding(sys.version_info >= (3, 11), f"Python {running}", "install Python 3.11 or newer")


def _packages() -> Iterator[Finding]:
    """Every package that the project names, and whether it is there in a version that fits."""
    for needed in requires("kelbrast") or []:
        if (named := re.match(r"([\w.-]+)[^>]*>=([\d.]+)", needed)) is None:
            continue
        name, low = named.groups()
        try:
            there = version(name)
        except PackageNotFoundError:
            yield Finding(False, f"{name} is missing", f"pip install '{needed}'")
            continue
        fits = _parts(there) >= _parts(low)
        if not fits:
            yield Finding(False, f"{name} {there} is too old", f"pip install '{needed}'")
    yield Finding(True, f"{len(requires('kelbrast') or [])} packages looked at")


def _parts(written: str) -> tuple[int, ...]:
    return tuple(int(part) for part in re.findall(r"\d+", written)[:3])


def _facts() -> Iterator[Finding]:
    from kelbrast.core.catalogue.materials import materials
    from kelbrast.core.catalogue.tools import tools

    try:
        yield Finding(True, f"{len(tools())} tools and {len(materials())} materials, each figure with its source")
    except KelbrastError as trouble:
        yield Finding(False, "the reference files", str(trouble))


def _screens() -> Iterator[Finding]:
    from kelbrast.api.application import WEB

    built = (WEB / "index.html").is_file()
    yield Finding(built, f"the screens, in {WEB}", "make demo builds them; a wheel has them inside")


def _database(path: Path) -> Iterator[Finding]:
    from kelbrast.app.jobs import Jobs

    folder = next(parent for parent in path.resolve().parents if parent.exists())
    yield Finding(os.access(folder, os.W_OK), f"the folder {folder} can be written to", "give this user the right to")
    free = shutil.disk_usage(folder).free
    yield Finding(free > LEAST_ROOM, f"{free / 1e9:.1f} GB free there", "make room on the disk")
    if not path.exists():
        yield Finding(True, f"no database at {path} yet: it is made when the program starts")
        return
    try:
        jobs = Jobs.open(path)
        count = jobs.search(limit=1)[0]
        jobs.close()
        yield Finding(True, f"the database {path}, {count} jobs")
    except KelbrastError as trouble:
        yield Finding(False, f"the database {path}", str(trouble))
