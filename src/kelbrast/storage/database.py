"""Opening the database: SQLite with a write-ahead log, foreign keys, and the newest tables.

A file is looked at before it is touched; its tables are made or changed in one transaction, so that a program that is
killed, or a disk that is full, leaves them as they were.
"""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any, Final
from weakref import WeakKeyDictionary

from sqlalchemy import Connection, Engine, create_engine, event, inspect
from sqlalchemy.exc import OperationalError

from kelbrast.core.errors import BadInput, NotFound, StoreTrouble
from kelbrast.storage.anchor import Anchor
from kelbrast.storage.copies import back_up_before_migration
from kelbrast.storage.sessions import begins
from kelbrast.storage.shape import Differences, differences, repair
from kelbrast.storage.trouble import told, trouble_of

_MIGRATIONS = Path(__file__).parent / "migrations"
_UNTOUCHED: Final = "The file was not changed."
WAIT_S: Final = 10.0  # for another program to let go of the file
LARGE: Final = 64 * 1024**2  # bytes: looked through in less than half a second
_ROWS_LOOKED_AT: Final = 400  # of each index, as SQLite advises
_LOG_PAGES: Final = 4000  # of 4 kB in the log before a tap has to put them into the file; in a quiet moment that is done before
_anchors: "WeakKeyDictionary[Engine, Anchor]" = WeakKeyDictionary()  # of the databases that are open


def open_database(path: Path, *, wait_s: float = WAIT_S) -> Engine:
    """Open the database at this path, creating it or bringing its tables up to date.

    An older database is copied beside itself before its tables are changed.

    Raises:
        StoreTrouble: it cannot be opened, or is not one of this program's; it is as it was.
    """
    with told(path):
        path.parent.mkdir(parents=True, exist_ok=True)
        _look_at(path)
        _bring_up_to_date(path, wait_s)
        engine = _engine(path, wait_s, foreign_keys=True)
        _hold_on(engine, path)
    return engine


def make_tables(path: Path, version: str) -> None:
    """A new database with the tables as they were at this version, for data from then; `open_database` brings it up to date.

    Raises:
        BadInput: there never was such a version, or it is a newer one.
    """
    if version not in table_versions():
        raise BadInput.one("archive", f'was written by another or newer version of Kelbrast (tables "{version}")')
    _bring_up_to_date(path, WAIT_S, version)


def is_large(path: Path) -> bool:
    """Whether nobody would wait until all of it is looked through."""
    return path.exists() and path.stat().st_size > LARGE


def tidy(engine: Engine) -> None:
    """Put what was written into the one file, as far as nobody reads what was there before; for a moment when nobody waits."""
    with told(_path_of(engine)), engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(PASSIVE)")


def learn_sizes(engine: Engine) -> None:
    """Let SQLite count again what its tables hold, where that has changed: it chooses its ways by it."""
    with told(_path_of(engine)), engine.connect() as connection:
        connection.exec_driver_sql(f"PRAGMA analysis_limit={_ROWS_LOOKED_AT}")
        connection.exec_driver_sql("PRAGMA optimize")


def _path_of(engine: Engine) -> Path | None:
    return Path(engine.url.database) if engine.url.database else None


def close_database(engine: Engine) -> None:
    """Put everything into the one file and let go of it, so that a plain copy of it is whole."""
    try:
        with told(), engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    finally:
        leave_database(engine)


def leave_database(engine: Engine) -> None:
    """Let go of it as it is: what is thrown away waits for nobody."""
    engine.dispose()
    if (anchor := _anchors.pop(engine, None)) is not None:
        anchor.let_go()


def check_in_place(engine: Engine) -> None:
    """Raises StoreTrouble when the file that this was opened from does not lie at its path any more."""
    if (anchor := _anchors.get(engine)) is not None:
        with told(anchor.path):
            anchor.check()


def as_committed(engine: Engine) -> object | None:
    """Something that is equal as long as nobody has committed anything, quicker to ask than any table; None for unknown."""
    anchor = _anchors.get(engine)
    return None if anchor is None else (anchor, anchor.commits())


def asked_directly(engine: Engine, statement: str) -> tuple[Any, ...] | None:
    """The one row that answers a question to what was committed, in a twentieth of the time; None where it cannot be asked."""
    anchor = _anchors.get(engine)
    return None if anchor is None else anchor.ask(statement)


def save_what_is_held(engine: Engine, target: Path) -> None:
    """Copy what the file holds that was opened, also when another lies in its place.

    Raises:
        NotFound: it was closed.  StoreTrouble: there is no room, or no right to write there.
    """
    anchor = _anchors.get(engine)
    if anchor is None:  # it was closed
        raise NotFound("open database", str(engine.url.database))
    anchor.save_to(target)


def take_new_file(engine: Engine) -> None:
    """From now on the file that lies at the path is the one: it was put there on purpose."""
    anchor = _anchors.pop(engine, None)
    engine.dispose(close=True)
    if anchor is not None:
        anchor.let_go()
        _anchors[engine] = Anchor(anchor.path)


def _hold_on(engine: Engine, path: Path) -> None:
    """Refuse to write, or to open once more, when the file was replaced."""
    with closing(engine.raw_connection()):  # it is there now, with its log
        _anchors[engine] = Anchor(path)

    def check(_: Any, __: Any = None) -> None:
        check_in_place(engine)

    def check_write(connection: Connection) -> None:
        if begins(connection.get_execution_options()) != begins({}):
            check_in_place(engine)

    event.listen(engine, "connect", check)
    event.listen(engine, "begin", check_write)
    event.listen(engine, "commit", check_write)


def _engine(path: Path, wait_s: float, *, foreign_keys: bool) -> Engine:
    # As many connections as there are threads that answer: nobody waits for one while others wait for their turn to write.
    engine = create_engine(f"sqlite:///{path}", pool_size=20, max_overflow=100)

    def prepare(connection: Any, _record: Any) -> None:
        connection.isolation_level = None  # the driver would commit before it changes tables; transactions begin below
        for pragma in (
            f"busy_timeout={round(wait_s * 1000)}",  # first: the next ones may have to wait too
            "journal_mode=WAL",
            "synchronous=FULL",
            f"wal_autocheckpoint={_LOG_PAGES}",
            f"foreign_keys={'ON' if foreign_keys else 'OFF'}",
        ):
            connection.execute(f"PRAGMA {pragma}").close()

    def begin(connection: Connection) -> None:
        connection.exec_driver_sql(begins(connection.get_execution_options()))

    event.listen(engine, "connect", prepare)
    event.listen(engine, "begin", begin)
    return engine


def table_versions() -> list[str]:
    """The versions of the tables, from the oldest to the newest: what the names of the files begin with."""
    return sorted(file.name.partition("_")[0] for file in (_MIGRATIONS / "versions").glob("[0-9]*.py"))


def _version_of(connection: Connection) -> str | None:
    if not inspect(connection).has_table("alembic_version"):
        return None
    return connection.exec_driver_sql("select version_num from alembic_version").scalar()


def _bring_up_to_date(path: Path, wait_s: float, version: str = "head") -> None:
    newest = table_versions()[-1]
    # A changed table is made anew and the old one dropped, which must not take the rows with it that point at it.
    engine = _engine(path, wait_s, foreign_keys=False)
    try:
        with engine.connect() as connection:
            if _is_current(connection, newest, path):
                return
        with engine.connect().execution_options(kelbrast_writes=True) as connection, connection.begin():
            if _is_current(connection, newest, path):  # another start was quicker
                return
            current = _version_of(connection)
            if current is not None:
                back_up_before_migration(path, newest)
            if current != newest:
                _migrate(connection, version)
            if version == "head":
                repair(connection, _repairable(connection, path))
            if connection.exec_driver_sql("PRAGMA foreign_key_check").first() is not None:
                raise _half_made(path)
    except OperationalError as problem:
        raise trouble_of(problem, path) or _half_made(path) from problem
    finally:
        engine.dispose()


def _is_current(connection: Connection, newest: str, path: Path) -> bool:
    return _version_of(connection) == newest and not _repairable(connection, path)


def _repairable(connection: Connection, path: Path) -> Differences:
    """What is missing in the tables and can be added; what cannot is refused by name."""
    found = differences(connection)
    if found.beyond_repair:
        raise StoreTrouble(
            "other-tables",
            f"The tables of {path} are not those of this version: {'; '.join(found.beyond_repair)}",
            safe=_UNTOUCHED,
            mend="Start it with the version that wrote it, or restore a backup (kelbrast restore).",
        )
    return found


def _migrate(connection: Connection, version: str) -> None:
    # Large, and seldom needed: what only opens its database starts without it.
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(_MIGRATIONS))
    config.attributes["connection"] = connection
    command.upgrade(config, version)


def _look_at(path: Path) -> None:
    """Refuse what is not a database of this program, or is damaged, before anything of it is changed."""
    if not path.exists() or path.stat().st_size == 0:
        return
    # A file that its writer left in the middle of something must be opened as usual, so that SQLite can put it right;
    # every other one is only read.
    left = any(path.with_name(path.name + ending).exists() for ending in ("-journal", "-wal"))
    uri = f"{path.resolve().as_uri()}?{'mode=rw' if left else 'mode=ro&immutable=1'}"
    connection = sqlite3.connect(uri, uri=True)
    try:
        try:
            tables = {name for (name,) in connection.execute("select name from sqlite_master where type = 'table'")}
        except UnicodeDecodeError:  # the names of the tables are no text any more
            raise _damage() from None
        _check_ours(path, connection, tables)
        if not is_large(path):  # a larger one is looked through while it is used already
            (found,) = connection.execute("PRAGMA quick_check(1)").fetchone()
            if found != "ok":
                raise _damage()
    finally:
        connection.close()


def _check_ours(path: Path, connection: sqlite3.Connection, tables: set[str]) -> None:
    if not tables:
        return
    if "alembic_version" not in tables or ("jobs" not in tables and tables != {"alembic_version"}):
        if {"jobs", "faces"} <= tables:
            raise _half_made(path)
        raise StoreTrouble(
            "foreign",
            f"{path} belongs to another program",
            safe=_UNTOUCHED,
            mend="Name another file with --database.",
        )
    known = table_versions()
    versions = [version for (version,) in connection.execute("select version_num from alembic_version")]
    if any(version not in known for version in versions):
        raise StoreTrouble(
            "newer",
            f"{path} was written by a newer version of Kelbrast",
            safe=_UNTOUCHED,
            mend="Start it with that version, or name another file with --database.",
        )
    if not versions and "jobs" in tables:
        raise _half_made(path)


def _damage() -> sqlite3.DatabaseError:
    """The error that SQLite raises itself when it comes upon the damage."""
    problem = sqlite3.DatabaseError("database disk image is malformed")
    problem.sqlite_errorcode = sqlite3.SQLITE_CORRUPT
    return problem


def _half_made(path: Path) -> StoreTrouble:
    return StoreTrouble(
        "half-made",
        f"The tables of {path} are half made: an older version was stopped while it changed them",
        safe=_UNTOUCHED,
        mend=f"Put it aside and use the copy that was made before ({path.stem}-before-*{path.suffix}), or the newest backup.",
    )
