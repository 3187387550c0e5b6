"""Backups beside the database: made now or every day, the newest kept, compared with what is there, and restored.

Every backup is looked through before it gets its name, and old ones are only removed once a newer whole one is there: a damaged
database or a wrong clock never costs the last good backup.
"""

import re
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Final, Literal, get_args

from kelbrast.core.errors import BadInput, NotFound, StoreTrouble
from kelbrast.storage import text_search
from kelbrast.storage.copies import back_up, check_whole, free_name, remove_parts
from kelbrast.storage.database import close_database, open_database
from kelbrast.storage.scratch import scratch
from kelbrast.storage.trouble import told

BackupKind = Literal["daily", "asked", "before-restore", "brought", "damaged"]
# By number and never by the clock, which may be wrong. What a person asked for or brought is theirs to remove.
KEPT: Final[dict[BackupKind, int]] = {"daily": 14, "before-restore": 10, "damaged": 2}
MOST_OF_A_PERSON: Final = 50
LARGEST_IN_ALL: Final = 20 * 1024**3  # bytes, of what the program makes by itself
LEAST_KEPT: Final = 3  # whatever their size
_TIME: Final = "%Y%m%d-%H%M%S"
_KINDS: Final[dict[str, BackupKind]] = {kind: kind for kind in get_args(BackupKind)}
# In UTC (`Z`), since an hour comes twice in autumn; older versions wrote the time on the shop's wall, without the letter.
_NAME: Final = re.compile(rf"(?P<at>\d{{8}}-\d{{6}})(?P<utc>Z?)-(?P<kind>{'|'.join(_KINDS)})(-\d+)?\.sqlite")


@dataclass(frozen=True, slots=True)
class Backup:
    """A copy of the database. `at`: in UTC."""

    name: str
    at: datetime
    kind: BackupKind
    size: int


@dataclass(frozen=True, slots=True)
class TableChange:
    """What restoring a backup would do to a table: rows that come back, rows that go, rows that are otherwise.

    `now`: rows that there are; `then`: rows that there would be.
    """

    table: str
    come: int
    go: int
    other: int
    now: int
    then: int


class Backups:
    """The backups of the database at this path, in a folder beside it."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self.folder = path.with_name(f"{path.stem}-backups")

    def all(self) -> list[Backup]:
        """Every backup, the newest first."""
        if not self.folder.is_dir():
            return []
        found = (_backup(file) for file in self.folder.iterdir())
        return sorted(
            (backup for backup in found if backup is not None), key=lambda backup: (backup.at, backup.name), reverse=True
        )

    def room(self) -> tuple[int, int]:
        """Bytes of the database with its log, and bytes that are free on its disk."""
        files = (self.path.with_name(self.path.name + ending) for ending in ("", "-wal"))
        size = sum(file.stat().st_size for file in files if file.exists())
        return size, shutil.disk_usage(self.path.parent).free

    def make(self, kind: BackupKind, now: datetime) -> Backup:
        """Copy the database as it is now.

        Raises:
            BadInput: there are too many already.
            StoreTrouble: the database is damaged, there is no room, or no right to write there.
        """
        return self._copy(self.path, kind, now)

    def take_in(self, database: Path, now: datetime) -> Backup:
        """Put a copy from elsewhere among the backups.

        Raises:
            BadInput: there are too many already.
            StoreTrouble: it is damaged, there is no room, or no right to write there.
        """
        return self._copy(database, "brought", now)

    def check(self) -> None:
        """Look through the database as it is now.

        Raises:
            StoreTrouble: it is damaged, or cannot be read.
        """
        with told(self.path):
            check_whole(self.path)

    def remove_parts(self) -> None:
        """Remove copies that were interrupted, here and beside the database."""
        remove_parts((self.folder, self.path.parent))

    def remove(self, name: str) -> None:
        """Forget a backup.

        Raises:
            NotFound: there is none of that name.  StoreTrouble: there is no right to.
        """
        with told(self.folder):
            self.file(name).unlink(missing_ok=True)

    def _copy(self, database: Path, kind: BackupKind, now: datetime) -> Backup:
        theirs = [backup for backup in self.all() if backup.kind == kind]
        if kind not in KEPT and len(theirs) >= MOST_OF_A_PERSON:
            raise BadInput.one("backup", f"there are {len(theirs)} of this kind; remove one that is no longer needed first")
        with told(self.folder):
            self.folder.mkdir(exist_ok=True)
        target = back_up(database, free_name(self.folder / _name(now, kind)))
        made = next(backup for backup in self.all() if backup.name == target.name)
        self._remove_old(made)
        return made

    def every_day(self, now: datetime) -> Backup | None:
        """Today's backup, if there is none yet; the oldest daily one goes once there is a newer one.

        Raises:
            StoreTrouble: as `make`; then no backup is removed.
        """
        today = now.astimezone().date()
        if any(backup.kind == "daily" and backup.at.astimezone().date() == today for backup in self.all()):
            return None
        return self.make("daily", now)

    def _remove_old(self, made: Backup) -> None:
        """Keep the newest by number and size of what the program makes by itself; never remove the one just made."""
        size = 0
        by_kind: dict[BackupKind, int] = {}
        kept = 0
        for backup in (made, *(other for other in self.all() if other != made)):
            if backup.kind not in KEPT:
                continue
            size += backup.size
            by_kind[backup.kind] = by_kind.get(backup.kind, 0) + 1
            if by_kind[backup.kind] <= KEPT[backup.kind] and (size <= LARGEST_IN_ALL or kept < LEAST_KEPT):
                kept += 1
                continue
            size -= backup.size
            (self.folder / backup.name).unlink(missing_ok=True)

    def file(self, name: str) -> Path:
        """Where a backup is.

        Raises:
            NotFound: there is none of that name.
        """
        if _NAME.fullmatch(name) is None or _backup(self.folder / name) is None:
            raise NotFound("backup", name, [backup.name for backup in self.all()])
        return self.folder / name

    def changes(self, source: Path) -> list[TableChange]:
        """What putting this copy back would change, by table; the database stays as it is.

        Raises:
            StoreTrouble: the copy is damaged, foreign or of a newer version.
        """
        with _brought_up_to_date(source) as copy, told(self.path), closing(_reader(self.path)) as here:
            here.execute("attach ? as there", (copy.resolve().as_uri() + "?mode=ro",))
            table_changes = [_compared(here, table) for table in _tables(here)]
        return [table_change for table_change in table_changes if table_change.come or table_change.go or table_change.other]

    def restore(self, source: Path, now: datetime) -> Backup:
        """Put a copy in the place of everything; what was there is kept as a backup first, a damaged file as it is.

        Raises:
            StoreTrouble: the copy or the database cannot be used; the database is as it was.
        """
        if source.resolve() == self.path.resolve():
            raise BadInput.one("backup", "is the database itself")
        with _brought_up_to_date(source) as copy:
            try:
                before = self.make("before-restore", now)
            except StoreTrouble as trouble:
                if trouble.cause != "damaged":
                    raise
                before = self.set_aside(now)
            self._write(copy)
        return before

    def put_in_place(self, source: Path) -> None:
        """Put a copy where no database is.

        Raises:
            StoreTrouble: the copy cannot be used, or there is no right to write there.
        """
        with _brought_up_to_date(source) as copy:
            self._write(copy)

    def _write(self, copy: Path) -> None:
        with told(self.path), closing(_reader(copy)) as there, closing(sqlite3.connect(self.path, timeout=10)) as here:
            there.backup(here)

    def set_aside(self, now: datetime) -> Backup:
        """Move a damaged database among the backups as it is, so that another can take its place.

        Raises:
            StoreTrouble: there is no room, or no right to write there.
        """
        with told(self.folder):
            self.folder.mkdir(exist_ok=True)
            target = free_name(self.folder / _name(now, "damaged"))
            for ending in ("-wal", "-shm", ""):
                beside = self.path.with_name(self.path.name + ending)
                if beside.exists():
                    shutil.move(beside, target.with_name(target.name + ending))
        made = next(backup for backup in self.all() if backup.name == target.name)
        self._remove_old(made)
        return made


def _backup(file: Path) -> Backup | None:
    """What a file in the folder is; None when it is no backup, whatever it is called."""
    told = _NAME.fullmatch(file.name)
    try:
        if told is None or not file.is_file():
            return None
        at = datetime.strptime(told["at"], _TIME)
        at = at.replace(tzinfo=UTC) if told["utc"] else at.astimezone(UTC)
        return Backup(file.name, at, _KINDS[told["kind"]], file.stat().st_size)
    except (ValueError, OverflowError, OSError):  # no such day; gone, or not to be read
        return None


def _name(now: datetime, kind: BackupKind) -> str:
    return f"{now.astimezone(UTC):{_TIME}}Z-{kind}.sqlite"


@contextmanager
def _brought_up_to_date(source: Path) -> Iterator[Path]:
    """A copy of it with the newest tables, checked as every database is; the file itself is only read."""
    with scratch() as folder:
        copy = folder / "copy.sqlite"
        with told(source):
            shutil.copyfile(source, copy)
        close_database(open_database(copy))
        yield copy


def _reader(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=10)


def _tables(connection: sqlite3.Connection) -> list[str]:
    rows = connection.execute("select name from sqlite_master where type = 'table' order by name")
    no_rows = {"alembic_version", "work_days", "change_counts", *text_search.TABLES}  # what follows from others is not told
    return [name for (name,) in rows if name not in no_rows and not name.startswith("sqlite_")]


def _compared(here: sqlite3.Connection, table: str) -> TableChange:
    """Counted by the database itself: photos are large, and a log of years is long."""
    columns = [name for _, name, *_ in here.execute(f'PRAGMA main.table_info("{table}")')]
    (key,) = (name for _, name, _, _, _, primary in here.execute(f'PRAGMA main.table_info("{table}")') if primary)
    other = " or ".join(f'old."{name}" is not new."{name}"' for name in columns)

    def count(query: str) -> int:
        (found,) = here.execute(f"select count(*) from {query}").fetchone()
        return int(found)

    there, now = f'there."{table}"', f'main."{table}"'
    return TableChange(
        table,
        come=count(f'{there} where "{key}" not in (select "{key}" from {now})'),
        go=count(f'{now} where "{key}" not in (select "{key}" from {there})'),
        other=count(f'{there} old join {now} new using ("{key}") where {other}'),
        now=count(now),
        then=count(there),
    )
