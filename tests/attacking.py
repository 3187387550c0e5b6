"""Attacks on the program, and what holds for any numbers: a few of each in `make test`, many more in `make soak`."""

import os
import random
import shutil
import signal
import sqlite3
import time
from collections.abc import Callable
from pathlib import Path

SOAK = float(os.environ.get("KELBRAST_SOAK", "0"))  # how many times as many as usual
SEED = int(os.environ.get("KELBRAST_SEED", "0")) or random.SystemRandom().randrange(1, 10**6)


def many(usual: int) -> int:
    """How often to try: as usual, or so many times as often in a soak."""
    return round(usual * max(1.0, SOAK))


def chance(name: str) -> random.Random:
    """Chance of its own for each attack. A failure names the seed, which KELBRAST_SEED brings back."""
    print(f"KELBRAST_SEED={SEED}")
    return random.Random(f"{name} {SEED}")


def took(act: Callable[[], object]) -> float:
    """How long this takes in a process of its own when nobody kills it, s."""
    began = time.monotonic()
    assert _child(act, None) == 0
    return time.monotonic() - began


def killed(act: Callable[[], object], after_s: float) -> bool:
    """Do it in a process of its own and kill that with -9 after so long; whether it was killed before it was through."""
    return _child(act, after_s) == -signal.SIGKILL


def _child(act: Callable[[], object], after_s: float | None) -> int:
    child = os.fork()
    if child == 0:
        try:
            act()
            os._exit(0)
        except BaseException:
            os._exit(1)
    if after_s is not None:
        time.sleep(after_s)
        os.kill(child, signal.SIGKILL)
    return os.waitstatus_to_exitcode(os.waitpid(child, 0)[1])


def rows_of(path: Path) -> dict[str, int]:
    """How many rows each table of a database has, read from a plain copy of its one file."""
    copy = path.with_name("plain-copy.sqlite")
    shutil.copyfile(path, copy)
    raw = sqlite3.connect(copy)
    try:
        names = [
            name for (name,) in raw.execute("select name from sqlite_master where type = 'table' and name not like 'sqlite%'")
        ]
        return {name: raw.execute(f"select count(*) from {name}").fetchone()[0] for name in names}
    finally:
        raw.close()
        for left in copy.parent.glob(f"{copy.name}*"):
            left.unlink()
