"""The log: every run, searched, and told so that it can be read without the program."""

from collections.abc import Iterator
from typing import Final

from kelbrast.app.runs import Runs
from kelbrast.core.bench import told
from kelbrast.core.vision.agreement import Rightness, rightness
from kelbrast.core.wording import tell
from kelbrast.documents.run.format import RunFile
from kelbrast.storage import run_results
from kelbrast.storage import runs as store
from kelbrast.storage.runs import LogLine, Wanted
from kelbrast.storage.sessions import reading

_NEWEST: Final = 1000  # runs; older ones say little of how the shop works now
_KEPT: Final = {"cutting": "kept_cutting", "hands_on": "kept_hands_on"}


class Log:
    """The log of one database."""

    def __init__(self, runs: Runs) -> None:
        self._runs = runs
        self._engine = runs.engine

    def search(self, wanted: Wanted, *, offset: int = 0, limit: int | None = 50) -> tuple[int, list[LogLine]]:
        """How many runs there are of what is looked for, and so many of them, the newest first."""
        with reading(self._engine) as session:
            return store.search_log(session, wanted, offset=offset, limit=limit)

    def tools(self) -> list[str]:
        """Ids of every tool that was used in a run, to search by."""
        with reading(self._engine) as session:
            return store.tools_in_log(session)

    def calibration(self) -> dict[str, Rightness]:
        """Of the newest runs that were promised at nine in ten, how many kept to it: in cutting, and in hands-on time."""
        with reading(self._engine) as session:
            figures = run_results.newest_figures(session, _NEWEST)
        told = {line: [one[key] for one in figures if one.get(key) is not None] for line, key in _KEPT.items()}
        return {line: rightness(sum(kept), len(kept)) for line, kept in told.items()}

    def run_file(self, run_id: int) -> RunFile:
        """A run as a run/1 file, with its events in words beside them.

        Raises:
            NotFound: no such run.
        """
        kept = self._runs.get(run_id)
        return RunFile.model_construct(
            title=kept.file.title,
            status=kept.run.status,
            job=kept.file,
            plan=kept.plan,
            events=list(kept.events),
            told=[tell(event.said) for event in told.tell(kept.run.layout, kept.happened)],
        )

    def run_files(self, wanted: Wanted) -> Iterator[RunFile]:
        """Every run of what is looked for, the newest first."""
        for line in self.search(wanted, limit=None)[1]:
            yield self.run_file(line.id)
