"""The wall clock and the monotonic clock of this machine."""

import time
import uuid
from datetime import date, datetime
from datetime import time as time_of_day
from pathlib import Path
from typing import Final

from kelbrast.core.bench.events import Moment

_BOOT_ID: Final = Path("/proc/sys/kernel/random/boot_id")


def _this_boot() -> str:
    try:
        return _BOOT_ID.read_text().strip()
    except OSError:  # no such clock here: ticks then only count while this process lives
        return uuid.uuid4().hex


_BOOT: Final = _this_boot()


def began(day: date) -> datetime:
    """When a day began in the shop, whose clock on the wall this machine has."""
    return datetime.combine(day, time_of_day()).astimezone()


def day_of(at: datetime) -> date:
    """The day that it was in the shop."""
    return at.astimezone().date()


def machine_clock() -> Moment:
    """Now, by the clock on the wall and by the clock that runs since the machine was started, also while it sleeps."""
    ticks = time.clock_gettime(time.CLOCK_BOOTTIME) if hasattr(time, "CLOCK_BOOTTIME") else time.monotonic()
    return Moment(time.time(), ticks, _BOOT)


def wall_clock() -> datetime:
    """Now, by the clock on the shop's wall."""
    return datetime.fromtimestamp(machine_clock().at)
