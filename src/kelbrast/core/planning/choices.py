"""The same job by every aim and every habit, side by side: what each would take, and what it costs against the best."""

from dataclasses import dataclass, replace

from kelbrast.core.planning.job import AIMS, HABITS, Aim, Job
from kelbrast.core.planning.plan import FacePlan, graph_of, plan_face


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to do the whole job (SI), for one piece.

    Attributes:
        metal: the most that comes off any face.
        possible: whether every face has a route; the totals count only those that have.
    """

    aim: Aim
    habit: str
    possible: bool
    seconds: float
    metal: float
    cost: float
    changes: int
    steps: int


@dataclass(frozen=True, slots=True)
class Choices:
    """By aim within the job's habit, and by habit for the job's aim."""

    by_aim: tuple[Choice, ...]
    by_habit: tuple[Choice, ...]


def choices(job: Job) -> Choices:
    """Plan the job every way. The steps of a face are worked out once for all of them."""
    graphs = [graph_of(face, job) for face in job.faces]

    def choice(aim: Aim, habit: str) -> Choice:
        changed = replace(job, aim=aim, habit=habit)
        faces = [plan_face(face, changed, graph) for face, graph in zip(job.faces, graphs, strict=True)]
        return _total(aim, habit, faces)

    return Choices(
        by_aim=tuple(choice(aim, job.habit) for aim in AIMS),
        by_habit=tuple(choice(job.aim, habit) for habit in HABITS),
    )


def _total(aim: Aim, habit: str, faces: list[FacePlan]) -> Choice:
    return Choice(
        aim=aim,
        habit=habit,
        possible=all(face.possible for face in faces),
        seconds=sum(face.seconds for face in faces),
        metal=max((face.metal for face in faces), default=0.0),
        cost=sum(face.cost for face in faces),
        changes=sum(face.changes for face in faces),
        steps=sum(len(face.steps) for face in faces),
    )
