"""Planning a job file: the use case behind the command line and both plan endpoints."""

from functools import lru_cache

from kelbrast.core.planning.choices import choices
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.plan import plan_job
from kelbrast.exchange.choices_file import ChoicesFile, to_choices_file
from kelbrast.exchange.job_file import JobFile
from kelbrast.exchange.plan_file import PlanFile, to_plan_file
from kelbrast.exchange.read import to_job


def plan_file(file: JobFile) -> PlanFile:
    """The plan of a job file.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    return _planned(to_job(file))


def choices_file(file: JobFile) -> ChoicesFile:
    """The job by every aim and habit, side by side.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    return to_choices_file(choices(to_job(file)))


# A list of jobs shows the minutes of each; jobs rarely change between two looks at the list.
@lru_cache(maxsize=512)
def _planned(job: Job) -> PlanFile:
    return to_plan_file(plan_job(job))
