"""Opening the database: SQLite with a write-ahead log, foreign keys, and the newest tables."""

import sqlite3
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine, event

_MIGRATIONS = Path(__file__).parent / "migrations"


def open_database(path: Path) -> Engine:
    """Open the database at this path, creating it or bringing its tables up to date.

    An older database is copied beside itself before its tables are changed.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{path}")
    event.listen(engine, "connect", _prepare)
    config = Config()
    config.set_main_option("script_location", str(_MIGRATIONS))
    newest = ScriptDirectory.from_config(config).get_current_head()
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current != newest:
        if current is not None:
            back_up(path, path.with_name(f"{path.stem}-before-{newest}{path.suffix}"))
        with engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
    return engine


def back_up(path: Path, target: Path) -> Path:
    """Copy a database, also while it is in use (SQLite's own backup)."""
    source, copy = sqlite3.connect(path), sqlite3.connect(target)
    try:
        source.backup(copy)
    finally:
        copy.close()
        source.close()
    return target


def backup_name(path: Path) -> Path:
    """A name with the time in it, beside the database."""
    return path.with_name(f"{path.stem}-{datetime.now(UTC):%Y%m%d-%H%M%S}{path.suffix}")


def _prepare(connection: Any, _record: Any) -> None:
    cursor = connection.cursor()
    for pragma in ("journal_mode=WAL", "foreign_keys=ON", "busy_timeout=5000", "synchronous=FULL"):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()
