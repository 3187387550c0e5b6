"""The plan of a job: every face's route, the order of the faces, shared set-ups, and the work around the abrasives."""

from dataclasses import dataclass

from kelbrast.core.planning.advice import part_cautions
from kelbrast.core.planning.at_hand import choose_rack
from kelbrast.core.planning.face_plan import FacePlan, plan_face
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.operations import Operation, blocked, operations
from kelbrast.core.planning.setups import Gathered, SetUp, gather, rank, set_ups, wheel_changes
from kelbrast.core.surface.face import Face


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a job (SI): faces as in the job, and the order to work them in.

    Attributes:
        set_ups: tools in the order of work, each with the faces that share it.
        operations: what is done before, between and after the steps.
        blocked: why nothing can begin, such as paint that must come off first; None when nothing stands in the way.
    """

    job: Job
    faces: tuple[FacePlan, ...]
    order: tuple[str, ...]
    set_ups: tuple[SetUp, ...]
    operations: tuple[Operation, ...]
    cautions: tuple[str, ...]
    blocked: str | None = None

    @property
    def possible(self) -> bool:
        return self.blocked is None and all(face.possible for face in self.faces)

    @property
    def seconds_each(self) -> float:
        """At the abrasives, for one piece: the steps, with shared set-ups counted once."""
        return sum(face.seconds for face in self.faces) - self.saved

    @property
    def saved(self) -> float:
        """Seconds that sharing set-ups between faces saves on one piece."""
        return sum(one.saved for one in self.set_ups)

    @property
    def seconds_all(self) -> float:
        """At the abrasives, for all pieces: every set-up serves the whole batch."""
        once = sum(one.tool.carrier.setup for one in self.set_ups)
        return once + self.job.pieces * (self.seconds_each - once)

    @property
    def around(self) -> float:
        """Seconds of a person around the abrasives, for one piece."""
        return sum(one.active for one in self.operations if not one.counted)

    @property
    def waiting(self) -> float:
        """Seconds of waiting: soaking, drying; for all pieces together."""
        return sum(one.passive for one in self.operations)

    @property
    def gather(self) -> tuple[Gathered, ...]:
        """What to lay out for all pieces."""
        return gather(self.faces, self.job.pieces)

    @property
    def changes(self) -> int:
        """Wheel changes of one piece."""
        return wheel_changes([one.tool for one in self.set_ups])


def plan_job(job: Job) -> Plan:
    """Plan every face of a job.

    Raises:
        BadInput: the rack names something that does not exist.
    """
    choose_rack(job.rack)
    faces = tuple(plan_face(face, job) for face in job.faces)
    return Plan(
        job=job,
        faces=faces,
        order=tuple(face.name for face in order_of_work(job.faces)),
        set_ups=set_ups(faces),
        operations=operations(job, faces),
        cautions=part_cautions(job),
        blocked=blocked(job),
    )


def order_of_work(faces: tuple[Face, ...]) -> list[Face]:
    """Recesses and insides before the open faces around them; brushed faces last, so that nothing crosses their lay."""
    return sorted((face for face in faces if not face.keep_off), key=rank)
