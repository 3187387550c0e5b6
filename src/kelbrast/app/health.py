"""Problems of the running program, shown on every screen until they are solved."""

import logging
import threading
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from kelbrast.app.everything import unreadable
from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import KelbrastError, StoreTrouble
from kelbrast.storage import scratch
from kelbrast.storage.backups import Backups
from kelbrast.storage.database import as_committed, check_in_place, is_large, learn_sizes, tidy

Concern = Literal["replaced", "damaged", "backup", "documents", "schedule", "certificate"]
log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Trouble:
    """Something that is wrong: what it concerns, in words, and since when."""

    concern: Concern
    said: str
    since: datetime


@dataclass(frozen=True, slots=True)
class LookedThrough:
    """When the database was last looked through for damage by the running program, and whether that goes on now."""

    at: datetime | None
    busy: bool


def _utc() -> datetime:
    return datetime.now(UTC)


class Health:
    """The troubles of one running program."""

    def __init__(self, jobs: Jobs, clock: Callable[[], datetime] = _utc) -> None:
        self._jobs, self._clock, self._lock = jobs, clock, threading.Lock()
        self._troubles: dict[Concern, Trouble] = {}
        self.looked_through = LookedThrough(None, busy=False)

    def report(self, concern: Concern, said: str) -> None:
        """Tell every screen; the same thing said again keeps its time."""
        with self._lock:
            known = self._troubles.get(concern)
            if known is None or known.said != said:
                log.warning("%s: %s", concern, said)
                self._troubles[concern] = Trouble(concern, said, self._clock())

    def well(self, concern: Concern) -> None:
        """It is mended."""
        with self._lock:
            self._troubles.pop(concern, None)

    def troubles(self) -> list[Trouble]:
        """Everything that is wrong now, the oldest first."""
        try:
            check_in_place(self._jobs.engine)
            self.well("replaced")
        except StoreTrouble as trouble:
            self.report("replaced", str(trouble))
        with self._lock:
            return sorted(self._troubles.values(), key=lambda trouble: trouble.since)


class Watch:
    """Looks after the database while the program runs: a backup every day, damage, documents that cannot be read."""

    def __init__(self, jobs: Jobs, backups: Backups, health: Health) -> None:
        self._jobs, self._backups, self._health = jobs, backups, health
        self._written: object = None
        self._tidied: object = None

    def begin(self, now: datetime) -> None:
        """Once, when the program starts: remove what killed programs left, look through a large database, which was opened
        without that, and look whether every document can be read."""
        self._kept_up("backup", self._backups.remove_parts)
        scratch.remove_abandoned()
        if is_large(self._backups.path):
            self._look_through(now)
        self._kept_up("documents", self._read_through)

    def look(self, now: datetime) -> None:
        """Every hour: today's backup, and the database itself, a large one once a day. What fails is told and tried again."""
        self._kept_up("backup", lambda: self._backups.every_day(now))
        checked = self._health.looked_through.at
        if not is_large(self._backups.path) or checked is None or checked.date() != now.date():
            self._look_through(now)
        self._if_possible(lambda: learn_sizes(self._jobs.engine))

    def rest(self) -> None:
        """Every few seconds: when nothing was written since the last time, put what was written into the one file."""
        self._if_possible(self._put_away)

    def _put_away(self) -> None:
        now = as_committed(self._jobs.engine)
        if now is not None and now == self._written and now != self._tidied:
            tidy(self._jobs.engine)
            self._tidied = now
        self._written = now

    def _if_possible(self, act: Callable[[], object]) -> None:
        """What only makes it quicker: another time will do."""
        try:
            act()
        except Exception as trouble:
            log.info("not now: %s", trouble)

    def _look_through(self, now: datetime) -> None:
        self._health.looked_through = LookedThrough(self._health.looked_through.at, busy=True)
        self._kept_up("damaged", self._backups.check)
        self._health.looked_through = LookedThrough(now, busy=False)

    def _read_through(self) -> None:
        found = list(unreadable(self._jobs, at_once=False))
        if found:
            more = f" and {len(found) - 3} more" if len(found) > 3 else ""
            said = f"Cannot be read: {'; '.join(found[:3])}{more}. They are kept as they are, and can be saved as files."
            self._health.report("documents", said)

    def _kept_up(self, concern: Concern, act: Callable[[], object]) -> None:
        try:
            act()
        except (KelbrastError, OSError) as trouble:
            words = {"backup": "Today's backup could not be made", "damaged": "The database was looked through"}
            self._health.report(concern, f"{words.get(concern, concern)}: {trouble}")
        except Exception:
            log.exception("looking after the database failed")
            self._health.report(concern, f"The program failed while it looked after its data ({concern}); see its log")
        else:
            if concern != "documents":
                self._health.well(concern)
