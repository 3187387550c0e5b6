"""Keeping, changing and listing jobs."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any, cast

from sqlalchemy import Engine

from kelbrast.app.board_at_bench import RunsRead
from kelbrast.app.job_list import JobLines, JobSummary
from kelbrast.app.own import OwnThings
from kelbrast.app.planning import job_of, plan_file
from kelbrast.app.rack import Rack
from kelbrast.app.readable import UNREADABLE, Unreadable, readable
from kelbrast.app.sizing import Sizings
from kelbrast.core.catalogue.finishes import finishes
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.job import JobState
from kelbrast.documents.job.face_ids import identified
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.plan.format import PlanFile
from kelbrast.storage import jobs as store
from kelbrast.storage.database import close_database, open_database
from kelbrast.storage.sessions import reading, writing

JobOrder = store.JobOrder


@dataclass(frozen=True, slots=True)
class KeptJob:
    """A job with its id and how often it was changed: `revision` goes into If-Match when it is changed.

    `state`: how far it is; `state_number`: of the event that brought it there, which a change of the state names. The job file
    says nothing of it here.
    """

    id: int
    revision: int
    updated_at: datetime
    job: JobFile
    state: JobState
    state_number: int


class Jobs:
    """The jobs of one database. Every method is one transaction: it happens whole or not at all."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self.rack = Rack(engine)
        self.own = OwnThings(engine)
        self.sizings = Sizings(engine)
        self.runs_read = RunsRead()
        self._lines = JobLines()

    @classmethod
    def open(cls, path: Path) -> "Jobs":
        """Raises StoreTrouble where there is no database that can be used."""
        return cls(open_database(path))

    def close(self) -> None:
        """Let go of the database, with everything in its one file."""
        close_database(self.engine)

    def search(
        self,
        words: str = "",
        states: Sequence[JobState] | None = None,
        by: JobOrder = "changed",
        *,
        offset: int = 0,
        limit: int | None = None,
        within_s: float | None = None,
    ) -> tuple[int, list[JobSummary]]:
        """How many jobs there are of what is looked for, and so many of them. Only those are planned, for their minutes.

        Args:
            within_s: those whose plans are not known after so long are told as "planning"; the next call goes on with them.
        """
        wanted = store.JobsWanted(tuple(map(_sought, words.split())), tuple(states) if states is not None else None, by)
        with reading(self.engine) as session:
            count, stored = store.search_jobs(session, wanted, offset=offset, limit=limit)
        return count, self._lines.told(stored, self.rack.shelf(), within_s=within_s)

    def plannable(self, states: Sequence[JobState]) -> tuple[list[KeptJob], list[Unreadable]]:
        """The jobs that are so far, the last changed first, and those that cannot be understood; none of them is planned."""
        with reading(self.engine) as session:
            stored = store.search_jobs(session, store.JobsWanted(states=tuple(states)), offset=0, limit=None)[1]
        shelf = self.rack.shelf()

        def understood(stored_job: store.StoredJob) -> KeptJob:
            kept = _kept(stored_job)
            job_of(kept.job, shelf)
            return kept

        return readable(stored, understood, lambda stored_job: (stored_job.id, stored_job.title))

    def any(self) -> bool:
        with reading(self.engine) as session:
            return store.any_jobs(session)

    def get(self, job_id: int) -> KeptJob:
        with reading(self.engine) as session:
            return _kept(store.get_job(session, job_id))

    def add(self, file: JobFile) -> KeptJob:
        """Keep a new job, once it is sure that it can be understood."""
        to_job(file)
        with writing(self.engine) as session:
            return _kept(store.add_job(session, _document(identified(file)), file.state or "asked"))

    def add_all(self, files: Sequence[JobFile]) -> list[KeptJob]:
        """Keep several, all of them or none."""
        with writing(self.engine):
            return [self.add(file) for file in files]

    def change(self, job_id: int, file: JobFile, *, revision: int) -> KeptJob:
        """Keep what a job is now. A face that comes without an id is the one that was called so."""
        to_job(file)
        with writing(self.engine) as session:
            file = identified(file, _before(store.get_job(session, job_id)))
            return _kept(store.change_job(session, job_id, _document(file), revision=revision))

    def set_state(self, job_id: int, state: JobState, *, after: int) -> KeptJob:
        """Say how far a job is. `after`: number of the newest state that whoever says so had seen.

        Raises:
            NotFound: no such job.  Conflict: it came to another state since.
        """
        with writing(self.engine) as session:
            store.set_state(session, job_id, state, after=after)
            return _kept(store.get_job(session, job_id))

    def document(self, job_id: int) -> Mapping[str, Any]:
        """A job as it is stored, with its state, whether it can be read or not.

        Raises:
            NotFound: no such job.
        """
        with reading(self.engine) as session:
            stored = store.get_job(session, job_id)
        return {**stored.document, "state": stored.state}

    def remove(self, job_id: int) -> None:
        with writing(self.engine) as session:
            store.remove_job(session, job_id)

    def duplicate(self, job_id: int) -> KeptJob:
        """A copy under a title of its own."""
        with writing(self.engine) as session:
            stored = store.get_job(session, job_id)
            title = f"{stored.document['title']}"[:190] + " (copy)"
            return _kept(store.add_job(session, {**stored.document, "title": title}, "asked"))

    def plan(self, job_id: int) -> PlanFile:
        return plan_file(self.get(job_id).job, self.rack.shelf())


def _sought(word: str) -> store.SoughtWord:
    def called(labels: Mapping[str, Any]) -> tuple[str, ...]:
        return tuple(key for key, one in labels.items() if word.lower() in one.label.lower())

    return store.SoughtWord(word, called(materials()), called(finishes()))


def _document(file: JobFile) -> dict[str, object]:
    return file.model_dump(mode="json", exclude_none=True)


def _kept(stored: store.StoredJob) -> KeptJob:
    return KeptJob(stored.id, stored.revision, stored.updated_at, _file(stored), _state(stored), stored.state_number)


def _state(stored: store.StoredJob) -> JobState:
    return cast(JobState, stored.state)


def _file(stored: store.StoredJob) -> JobFile:
    return check_job_file(dict(stored.document))


def _before(stored: store.StoredJob) -> JobFile | None:
    """A job as it was; None where that cannot be understood."""
    try:
        return _file(stored)
    except UNREADABLE:
        return None
