"""What a job takes from the rack: the set-ups beforehand, and what it used up afterwards."""

from collections.abc import Sequence

from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import job_of, rack_used
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.whole.mounting import Preparation, prepare
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.rack.item import effects_of
from kelbrast.storage.runs import runs_of_job
from kelbrast.storage.sessions import reading


def preparation(jobs: Jobs, ids: Sequence[int]) -> Preparation:
    """What to gather and how to mount it for these jobs.

    Raises:
        NotFound: no such job.  BadInput: no job is named, or one cannot be planned.
    """
    if not ids:
        raise BadInput.one("job", "name at least one job")
    shelf = jobs.rack.shelf()
    return prepare([plan_job(job_of(jobs.get(number).job, shelf)) for number in dict.fromkeys(ids)])


def job_worked(jobs: Jobs, job_id: int) -> int:
    """Write down what the plan of a kept job does to the rack, for all its pieces. Returns how many items changed.

    Raises:
        NotFound: no such job.  BadInput: it is not planned from the rack, or has no plan.
    """
    file = jobs.get(job_id).job
    if rack_used(file, jobs.rack.shelf()) != "own":
        raise BadInput.one("use_rack", "this job is planned from any tool; plan it from your own rack first")
    with reading(jobs.engine) as session:
        if runs_of_job(session, job_id):
            raise BadInput.one("use_rack", "this job was at the bench, and every tap there told the rack already")
    job = job_of(file, jobs.rack.shelf())
    plan = plan_job(job)
    if not plan.possible:
        raise BadInput.one("faces", "this job has no plan that could have been worked")
    told = effects_of(plan.worn_of_rack, job.material.family, jobs.rack.bars())
    jobs.rack.note_all(told, why=f"worked: {file.title}")
    return len({item for item, _ in told})
