"""Set-ups for one kept job or for several together."""

from collections.abc import Sequence

from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import job_of
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.whole.mounting import Preparation, prepare
from kelbrast.core.planning.whole.plan import plan_job


def preparation(jobs: Jobs, ids: Sequence[int]) -> Preparation:
    """What to gather and how to mount it for these jobs.

    Raises:
        NotFound: no such job.  BadInput: no job is named, or one cannot be planned.
    """
    if not ids:
        raise BadInput.one("job", "name at least one job")
    shelf = jobs.rack.shelf()
    return prepare([plan_job(job_of(jobs.get(one).job, shelf)) for one in dict.fromkeys(ids)])
