"""Filling an empty database with the demo workshop."""

from kelbrast.app.jobs import Jobs
from kelbrast.demo.workshop import demo_jobs, demo_rack


def load_demo(jobs: Jobs) -> int:
    """Keep the demo jobs if there are no jobs yet. Returns how many were added."""
    if jobs.any():
        return 0
    jobs.rack.add(demo_rack())
    files = demo_jobs()
    for file in reversed(files):  # the list shows the last changed first
        jobs.add(file)
    return len(files)
