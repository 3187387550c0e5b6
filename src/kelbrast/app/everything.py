"""Everything that is kept, out as one archive and brought back: looked through first, then a backup like any other."""

import shutil
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from functools import partial
from itertools import chain
from pathlib import Path
from typing import Final

from kelbrast.app.board import Boards
from kelbrast.app.house import HouseWays
from kelbrast.app.jobs import Jobs
from kelbrast.app.quotes import Quotes
from kelbrast.app.readable import UNREADABLE, why_unreadable
from kelbrast.app.runs import Runs
from kelbrast.app.templates import Templates
from kelbrast.core.errors import BadInput, Cause, StoreTrouble
from kelbrast.core.reference.own_rows import NOTHING, using
from kelbrast.core.wording import counted
from kelbrast.storage import jobs as job_store
from kelbrast.storage.backups import Backup, Backups, TableChange
from kelbrast.storage.database import take_new_file
from kelbrast.storage.everything import is_archive, read_everything
from kelbrast.storage.holding import is_database
from kelbrast.storage.runs import every_run, open_runs
from kelbrast.storage.scratch import scratch
from kelbrast.storage.sessions import reading
from kelbrast.storage.sizings import sizing_ids
from kelbrast.storage.trouble import told

_OTHERS: Final = 9.0  # so much of the time is everybody else's while documents are read through beside the work
_NO_BACKUP: Final[dict[Cause, str]] = {
    "damaged": "is neither an archive of everything nor a backup, or it is damaged",
    "foreign": "is the database of another program",
    "newer": "was written by a newer version of Kelbrast; bring it back with that version",
    "half-made": "is a backup whose making was interrupted",
    "other-tables": "has other tables than this version; bring it back with the version that wrote it",
}


def bring(backups: Backups, file: Path, now: datetime) -> Backup:
    """Put an archive of everything, or a copy of a database, among the backups. What is kept now stays as it is.

    Raises:
        BadInput: it is neither, is damaged or of a newer version, or something in it cannot be read; it says what.
        StoreTrouble: there is no room, or no right to write there.
    """
    with as_database(file) as database:
        return backups.take_in(database, now)


@dataclass(frozen=True, slots=True)
class RestoreLook:
    """What restoring a backup would do: by table, and the documents in it that this version cannot read."""

    tables: tuple[TableChange, ...]
    unreadable: tuple[str, ...]

    @property
    def doubts(self) -> str:
        """Why somebody should be asked first, in words; empty where nothing would be lost."""
        fewer = [f"{table.then} {table.table} instead of {table.now}" for table in self.tables if table.then < table.now]
        said = [f"afterwards there would be {', '.join(fewer)}"] if fewer else []
        if self.unreadable:
            count = counted(len(self.unreadable), "document")
            said.append(f"{count} in it cannot be read by this version ({self.unreadable[0]})")
        return "; ".join(said)


def look_into(backups: Backups, source: Path) -> RestoreLook:
    """What restoring this copy would change; the database stays as it is.

    Raises:
        StoreTrouble: the copy is damaged, foreign or of a newer version.
    """
    changes = tuple(backups.changes(source))
    with scratch() as folder:
        copy = folder / "copy.sqlite"
        with told(source):
            shutil.copyfile(source, copy)
        jobs = Jobs.open(copy)
        try:
            return RestoreLook(changes, tuple(unreadable(jobs)))
        finally:
            jobs.close()


def restore(jobs: Jobs, backups: Backups, source: Path, now: datetime, *, sure: bool) -> Backup:
    """Put a copy in the place of everything, for a running program. Answers with the backup of what was there before.

    Args:
        sure: also where there would be fewer rows than now, or documents that cannot be read.

    Raises:
        BadInput: somebody must be asked first; the numbers are in it.
        StoreTrouble: the copy or the database cannot be used; the database is as it was.
    """
    if not sure and (doubts := look_into(backups, source).doubts):
        raise BadInput.one("backup", f"{doubts}. Say that you are sure to restore it all the same")
    before = backups.restore(source, now)
    if before.kind == "damaged":
        take_new_file(jobs.engine)
    return before


@contextmanager
def as_database(file: Path) -> Iterator[Path]:
    """A database of this version with what an archive or a copy holds, read through once.

    Raises:
        BadInput, StoreTrouble: as `bring`.
    """
    with scratch() as folder:
        database = folder / "brought.sqlite"
        if is_archive(file):
            read_everything(file, database)
        else:
            with told(file):
                if not is_database(file):
                    raise BadInput.one("file", _NO_BACKUP["damaged"])
                shutil.copyfile(file, database)
        jobs = _opened(database)
        try:
            if (said := next(unreadable(jobs), None)) is not None:
                raise BadInput.one("archive", f"cannot be read: {said}")
        finally:
            jobs.close()
        yield database


def _opened(database: Path) -> Jobs:
    try:
        return Jobs.open(database)
    except StoreTrouble as trouble:
        if (said := _NO_BACKUP.get(trouble.cause)) is None:
            raise
        raise BadInput.one("file", said) from None


def unreadable(jobs: Jobs, *, at_once: bool = True) -> Iterator[str]:
    """Every document that this version cannot read, and why: each is read as the screens would read it.

    Args:
        at_once: finished runs too, as quickly as it goes; False beside the work of a shop, which must not wait for it.
    """
    try:
        own = jobs.own.rows()
    except UNREADABLE as problem:
        own = NOTHING
        yield f"what the shop has of its own: {why_unreadable(problem)}"
    with using(own):
        yield from _unreadable(jobs, at_once=at_once)


def _unreadable(jobs: Jobs, *, at_once: bool) -> Iterator[str]:
    with reading(jobs.engine) as session:
        job_ids = job_store.job_ids(session)
        run_ids = every_run(session) if at_once else open_runs(session)
        size_ids = sizing_ids(session)
    runs, sizings = Runs(jobs), jobs.sizings
    reads: Iterator[tuple[str, Callable[[], object]]] = chain(
        ((f"job {one}", partial(jobs.get, one)) for one in job_ids),
        ((f"run {one}", partial(runs.get, one)) for one in run_ids),
        ((f"part {one} at the gauge", partial(sizings.get if at_once else sizings.file, one)) for one in size_ids),
        (
            ("the rack", jobs.rack.shelf),
            ("the shop", Boards(jobs).shop),
        ),
    )
    for what, read in reads:
        began = time.perf_counter()
        try:
            read()
        except UNREADABLE as problem:
            yield f"{what}: {why_unreadable(problem)}"
        if not at_once:
            time.sleep(_OTHERS * (time.perf_counter() - began))
    for what, failed in (
        ("quote", Quotes(jobs).unreadable() if at_once else ()),  # read whenever they are shown, and never changed
        ("house way", HouseWays(jobs.engine).unreadable()),
        ("template", Templates(jobs.engine).unreadable()),
    ):
        yield from (f"{what} {unreadable.title or unreadable.id}: {unreadable.reason}" for unreadable in failed)
