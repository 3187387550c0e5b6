"""The search for a better schedule, in a thread of its own: what it was asked, what it has, and why it failed if it did."""

import logging
import threading
from collections.abc import Sequence
from dataclasses import replace
from typing import Final

from kelbrast.core.day.schedule import Placed
from kelbrast.core.day.shop import DayWork
from kelbrast.core.day.solver import DayFound, improve
from kelbrast.core.reference.own_rows import carrying

IMPROVE_S: Final = 20.0  # of the solver's own time, for a search that nobody asked for
_FAILED: Final = "The search for a better schedule failed; this one can be followed. The program's log says more"
log = logging.getLogger(__name__)


class Search:
    """A search that runs until it is stopped, has proven everything or has had its time.

    Attributes:
        found: the best schedule so far.  searching: still looking.  trouble: why it failed; empty if it did not.
    """

    def __init__(self, begin: DayFound, *, seconds: float, seed: int, keep: Sequence[Placed]) -> None:
        self.found, self.searching, self.trouble = begin, True, ""
        self._about = _question(begin.work)
        self._stop = threading.Event()
        threading.Thread(target=carrying(self._run), args=(seconds, seed, keep), name="improve", daemon=True).start()

    def answers(self, work: DayWork) -> bool:
        """Whether it was asked about this work."""
        return self._about == _question(work)

    def stop(self) -> None:
        """Stop looking; what was found stays."""
        self._stop.set()

    def _run(self, seconds: float, seed: int, keep: Sequence[Placed]) -> None:
        try:
            self.found = improve(self.found, seconds=seconds, seed=seed, stop=self._stop.is_set, tell=self._tell, keep=keep)
        except Exception:
            # What was found before stays on the board, with this beside it: a failure is no end of the search.
            log.exception("the search for a better board failed")
            self.trouble = _FAILED
        finally:
            self.searching = False

    def _tell(self, better: DayFound) -> None:
        self.found = better


def _question(work: DayWork) -> object:
    """What a search is about: the same question has the same answer, minute by minute as nothing new happens."""
    tasks = tuple(replace(task, earliest=0) for task in work.tasks)
    return work.people, work.stations, tasks, work.links, work.shaking, dict(work.most_dust)
