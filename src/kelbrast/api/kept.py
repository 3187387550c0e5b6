"""The jobs and the rack behind a request."""

from typing import Annotated

from fastapi import Depends, Request

from kelbrast.app.jobs import Jobs
from kelbrast.app.rack import Rack


def _jobs(request: Request) -> Jobs:
    jobs: Jobs = request.app.state.jobs
    return jobs


def _rack(request: Request) -> Rack:
    return _jobs(request).rack


AllJobs = Annotated[Jobs, Depends(_jobs)]
OwnRack = Annotated[Rack, Depends(_rack)]
