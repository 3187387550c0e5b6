"""Everything that is kept, out as one archive and brought back: looked through first, then a backup like any other."""

import shutil
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from functools import partial
from pathlib import Path
from typing import Final

from pydantic import ValidationError

from kelbrast.app.board import Boards
from kelbrast.app.house import HouseWays
from kelbrast.app.jobs import Jobs
from kelbrast.app.quotes import Quotes
from kelbrast.app.runs import Runs
from kelbrast.app.sizing import Sizings
from kelbrast.app.templates import Templates
from kelbrast.core.errors import BadInput, Cause, KelbrastError, StoreTrouble
from kelbrast.storage import jobs as job_store
from kelbrast.storage.backups import Backup, Backups
from kelbrast.storage.everything import is_archive, read_everything
from kelbrast.storage.runs import every_run
from kelbrast.storage.scratch import scratch
from kelbrast.storage.sessions import reading
from kelbrast.storage.trouble import told

_NO_BACKUP: Final[dict[Cause, str]] = {
    "damaged": "is neither an archive of everything nor a backup, or it is damaged",
    "foreign": "is the database of another program",
    "newer": "was written by a newer version of Kelbrast; bring it back with that version",
    "half-made": "is a backup whose making was interrupted",
}


def bring(backups: Backups, file: Path, now: datetime) -> Backup:
    """Put an archive of everything, or a copy of a database, among the backups. What is kept now stays as it is.

    Raises:
        BadInput: it is neither, is damaged or of a newer version, or something in it can not be read; it says what.
        StoreTrouble: there is no room, or no right to write there.
    """
    with as_database(file) as database:
        return backups.take_in(database, now)


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
                shutil.copyfile(file, database)
        jobs = _opened(database)
        try:
            _read_through(jobs)
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


def _read_through(jobs: Jobs) -> None:
    """Every document is read as the screens would read it."""
    with reading(jobs.engine) as session:
        job_ids = job_store.job_ids(session)
        run_ids = every_run(session)
    runs = Runs(jobs)
    for job in job_ids:
        _readable(f"job {job}", partial(jobs.get, job))
        _readable(f"quotes of job {job}", partial(Quotes(jobs).of, job))
    for run in run_ids:
        _readable(f"run {run}", partial(runs.get, run))
    _readable("the rack", jobs.rack.shelf)
    _readable("the parts at the gauge", Sizings(jobs.engine).all)
    _readable("the house ways", HouseWays(jobs.engine).all)
    _readable("the templates", Templates(jobs.engine).all)
    _readable("the shop", Boards(jobs).shop)


def _readable(what: str, read: Callable[[], object]) -> None:
    try:
        read()
    except (KelbrastError, ValidationError, ValueError, TypeError, KeyError, AttributeError) as problem:
        said = str(problem).splitlines()[0]
        raise BadInput.one("archive", f"{what} can not be read: {said}") from None
