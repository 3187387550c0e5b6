"""Temporary folders that a killed program cannot leave behind for good: the next start removes those that nobody holds."""

import shutil
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

from filelock import FileLock, Timeout

PREFIX: Final = "kelbrast-scratch-"
_HELD: Final = ".held"
_YOUNG_S: Final = 60.0  # it may not be locked yet


class Scratch:
    """A temporary folder that is held by a lock for as long as this process uses it."""

    def __init__(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix=PREFIX))
        self._lock = FileLock(self.folder / _HELD, thread_local=False)
        self._lock.acquire(blocking=False)

    def remove(self) -> None:
        """Remove it with everything in it."""
        self._lock.release()
        # Work in the background may still put a file where the others were just removed.
        shutil.rmtree(self.folder, ignore_errors=True)


@contextmanager
def scratch() -> Iterator[Path]:
    """A temporary folder, removed at the end of the block."""
    made = Scratch()
    try:
        yield made.folder
    finally:
        made.remove()


def remove_abandoned() -> int:
    """Remove the folders whose process is gone. Returns how many there were."""
    removed = 0
    for folder in Path(tempfile.gettempdir()).glob(f"{PREFIX}*"):
        held = folder / _HELD
        lock = FileLock(held, thread_local=False)
        try:
            if not held.is_file() or time.time() - folder.stat().st_mtime < _YOUNG_S:
                continue
            lock.acquire(blocking=False)
        except (Timeout, OSError):  # somebody works in it, or it is not ours
            continue
        lock.release()
        shutil.rmtree(folder, ignore_errors=True)
        removed += 1
    return removed
