"""The log of a running program: warnings on standard error, and all of it in a file beside the database, bounded in size."""

import logging
import sys
from enum import StrEnum
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import Final

_LARGEST: Final = 2_000_000  # bytes of one file
_KEPT: Final = 4
_LINE: Final = "%(asctime)s %(levelname)s %(name)s: %(message)s"


class LogLevel(StrEnum):
    debug = "debug"
    info = "info"
    warning = "warning"
    error = "error"


def log_file(database: Path) -> Path:
    """Where the log of a database's program is."""
    return database.with_name(f"{database.stem}.log")


def set_up_log(database: Path, level: LogLevel) -> None:
    """Begin the log. A folder that cannot be written to leaves it on standard error alone."""
    root = logging.getLogger()
    root.setLevel(level.upper())
    on_screen = logging.StreamHandler(sys.stderr)
    on_screen.setLevel(max(logging.WARNING, root.level))
    on_screen.setFormatter(_OnScreen())
    handlers: list[logging.Handler] = [on_screen]
    try:
        database.parent.mkdir(parents=True, exist_ok=True)
        to_file = RotatingFileHandler(log_file(database), maxBytes=_LARGEST, backupCount=_KEPT, encoding="utf-8", delay=True)
        to_file.setFormatter(logging.Formatter(_LINE))
        handlers.insert(0, to_file)
    except OSError as problem:
        print(f"There is no log beside the database: {problem}", file=sys.stderr)
    root.handlers[:] = handlers


class _OnScreen(logging.Formatter):
    """One line: a traceback on the screen tells a person nothing, and the file has it."""

    def format(self, record: logging.LogRecord) -> str:
        return f"{record.levelname}: {record.getMessage()}"
