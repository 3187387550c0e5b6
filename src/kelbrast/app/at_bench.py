"""A run as it stands at the bench, with its files. The job is turned into SI once, when the run is read."""

from dataclasses import dataclass
from datetime import datetime

from kelbrast.core.bench.events import Event, Moment
from kelbrast.core.bench.run import Run
from kelbrast.core.job import Job
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.format import PlanFile, StepFile
from kelbrast.documents.run.format import EventFile, steps_of_run


@dataclass(frozen=True, slots=True)
class KeptRun:
    """A run with its files, its job as it was when the run began, its state, and the moment for which that holds."""

    id: int
    job_id: int | None
    began_at: datetime
    file: JobFile
    job: Job
    plan: PlanFile
    events: tuple[EventFile, ...]
    happened: tuple[Event, ...]
    run: Run
    now: Moment

    @property
    def steps(self) -> dict[tuple[str, int, int], StepFile]:
        """Every step of the plan and of the ways back, by face, route and number."""
        return steps_of_run(self.plan, self.events)
