"""Filling an empty database with the demo workshop."""

import time
from datetime import date

from kelbrast.app.board import Boards
from kelbrast.app.jobs import Jobs
from kelbrast.app.runs import Runs
from kelbrast.demo.past import PastRun, events_of, past, promises
from kelbrast.demo.workshop import demo_jobs, demo_rack, demo_shop, demo_sizes
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.run.format import EventFile
from kelbrast.storage.sessions import writing


def load_demo(jobs: Jobs, *, with_past: bool = True) -> int:
    """Keep the demo jobs and the runs of their past, if there are no jobs yet: all of it or nothing.

    Returns how many jobs were added.
    """
    with writing(jobs.engine):
        if jobs.any():
            return 0
        jobs.rack.add(demo_rack())
        Boards(jobs).change_shop(demo_shop())
        files = demo_jobs()
        promised, today = promises(), date.today()
        files = [promised[file.title].of(file, today) if file.title in promised else file for file in files]
        ids = {file.title: jobs.add(file).id for file in reversed(files)}  # the list shows the last changed first
        for size in demo_sizes():
            jobs.sizings.add(size)
        if with_past:
            _play_past(jobs, ids)
        return len(files)


def _play_past(jobs: Jobs, ids: dict[str, int]) -> None:
    runs, (pace, told), now = Runs(jobs), past(), time.time()
    for seed, run in enumerate(told):

        def events(job: JobFile, plan: PlanFile, run: PastRun = run, seed: int = seed) -> list[EventFile]:
            return events_of(run, job, plan, pace, now, seed)

        runs.take_in(ids[run.job], events)
