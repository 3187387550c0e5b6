"""What to buy next, worked out in the background: one search at a time, with its progress, and stopped when asked."""

import logging
import threading
from collections.abc import Sequence
from dataclasses import dataclass, field

from kelbrast.core.errors import BadInput, NotFound
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.buying import BuyingProgress, Gain, what_to_buy
from kelbrast.core.reference.own_rows import carrying

log = logging.getLogger(__name__)


@dataclass(slots=True)
class BuyingSearch:
    """A search as it stands. `titles`: of the jobs, by number."""

    id: int
    titles: tuple[str, ...]
    progress: BuyingProgress = field(default_factory=lambda: BuyingProgress(0, 0, ()))
    done: bool = False
    trouble: str | None = None
    stop: threading.Event = field(default_factory=threading.Event)


class Buying:
    """Searches of this server. They live as long as it does: nothing of them is worth keeping."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._searches: dict[int, BuyingSearch] = {}

    def start(self, jobs: Sequence[tuple[str, Job]], *, by: Gain) -> BuyingSearch:
        """Begin a search over these jobs by title; one that still runs is stopped.

        Raises:
            BadInput: there is no job to plan.
        """
        if not jobs:
            raise BadInput.one("jobs", "there is no job yet to plan with what could be bought")
        with self._lock:
            for old in self._searches.values():
                old.stop.set()
            search = BuyingSearch(len(self._searches) + 1, tuple(title for title, _ in jobs))
            self._searches[search.id] = search
        thread = threading.Thread(target=carrying(_run), args=(search, [job for _, job in jobs], by), daemon=True)
        thread.start()
        return search

    def get(self, search_id: int) -> BuyingSearch:
        """How far a search is.

        Raises:
            NotFound: no such search.
        """
        buying_search = self._searches.get(search_id)
        if buying_search is None:
            raise NotFound("search", str(search_id))
        return buying_search

    def stop(self, search_id: int) -> None:
        """Stop a search; what it has found so far stays readable."""
        self.get(search_id).stop.set()


def _run(search: BuyingSearch, jobs: Sequence[Job], by: Gain) -> None:
    try:
        for progress in what_to_buy(jobs, by=by):
            search.progress = progress
            if search.stop.is_set():
                break
    except BadInput as bad:
        search.trouble = str(bad)
    except Exception:
        log.exception("the search for what to buy failed")
        search.trouble = "The search failed; the program's log says more"
    finally:
        search.done = True
