"""The plan of a job: every face's route, the order of the faces, shared set-ups, and the work around the abrasives, and what
the rack does not have enough of."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, plan_face, work_out
from kelbrast.core.planning.face.fallback import Fallback, fallback
from kelbrast.core.planning.whole.account import Account, StepShare, Times, shares, total
from kelbrast.core.planning.whole.lots import lot_cautions, lot_sizes, most_in_a_lot
from kelbrast.core.planning.whole.operations import Operation, operations
from kelbrast.core.planning.whole.set_ups import Gathered, SetUp, gather, set_ups, wheel_changes
from kelbrast.core.planning.whole.together import Gained, together
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.advice import part_advice
from kelbrast.core.rules.cautions import part_cautions, vibration_cautions
from kelbrast.core.rules.coats import blocked
from kelbrast.core.rules.order import order_of_work
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.tooling.at_hand import choose_rack
from kelbrast.core.validity import REL_TOL


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a job (SI): faces as in the job, and the order in which their work begins, as the set-ups have it.

    Attributes:
        set_ups: tools in the order of work, each with the faces that share it.
        operations: what is done before, between and after the steps.
        fallbacks: for every face whose limit binds, what can be reached all the same.
        blocked: why nothing can begin, such as paint that must come off first; None when nothing stands in the way.
        gained: what choosing the routes of the faces together gained; None where each face's own best is the best.
    """

    job: Job
    faces: tuple[FacePlan, ...]
    order: tuple[str, ...]
    set_ups: tuple[SetUp, ...]
    operations: tuple[Operation, ...]
    cautions: tuple[str, ...]
    advice: tuple[str, ...]
    fallbacks: tuple[Fallback | None, ...]
    blocked: str | None = None
    gained: Gained | None = None

    @property
    def possible(self) -> bool:
        return self.blocked is None and all(face.possible for face in self.faces)

    @property
    def shares(self) -> tuple[StepShare, ...]:
        """What every step contributes to the account, in the order of work."""
        return shares(self.set_ups, self.faces, self.job.factors)

    @property
    def account(self) -> Account:
        """Where the time of the whole job goes."""
        return self.account_of(self.job.pieces)

    def account_of(self, pieces: int) -> Account:
        """The same for so many pieces."""
        shared = self.shares
        around = [operation for operation in self.operations if not operation.counted]
        return Account(
            pieces=pieces,
            lots=len(self.lots_of(pieces)),
            each=total(share.each for share in shared) + Times(before_after=sum(operation.active for operation in around)),
            once=total(share.once for share in shared)
            + Times(
                before_after=sum(operation.lot for operation in around),
                waiting=sum(operation.passive for operation in self.operations),
            ),
        )

    @property
    def lots(self) -> tuple[int, ...]:
        """How many pieces are in every lot."""
        return self.lots_of(self.job.pieces)

    def lots_of(self, pieces: int) -> tuple[int, ...]:
        """The same of so many pieces."""
        most = most_in_a_lot(self.job, self.set_ups, self.shares, self.operations)
        return lot_sizes(pieces, pieces if most is None else most)

    @property
    def seconds_each(self) -> float:
        """At the abrasives, for one piece: the steps, with shared set-ups counted once."""
        return total(share.of(1, 1) for share in self.shares).hands_on

    @property
    def saved(self) -> float:
        """Seconds that sharing set-ups between faces saves on one piece."""
        return sum(set_up.saved for set_up in self.set_ups)

    @property
    def gather(self) -> tuple[Gathered, ...]:
        """What to lay out for all pieces."""
        return gather(self.faces, self.job.pieces)

    @property
    def worn_of_rack(self) -> list[tuple[str, int, float]]:
        """(tool id, item of the shop's rack, how much of it all pieces use up) of every step that is done with one."""
        worn: dict[tuple[str, int], float] = {}
        for step in (step for face in self.faces for step in face.steps if step.own is not None):
            assert step.own is not None, "only these were taken"
            key = step.tool.id, step.own.item
            worn[key] = worn.get(key, 0.0) + step.use.worn * self.job.pieces
        return [(tool, item, used) for (tool, item), used in worn.items()]

    @property
    def changes(self) -> int:
        """Wheel changes of one piece."""
        return wheel_changes([set_up.tool for set_up in self.set_ups])


def plan_job(job: Job) -> Plan:
    """Plan every face of a job.

    Raises:
        BadInput: the rack names something that does not exist.
    """
    choose_rack(job.rack)
    worked = together([work_out(face, job) for face in job.faces], job)
    faces = tuple(face.plan(job) for face in worked.faces)
    shared = set_ups(faces)
    begun = [face for set_up in shared for face, _ in set_up.faces]
    around = operations(job, faces)
    late = lot_cautions(job, shared, shares(shared, faces, job.factors), around)
    return Plan(
        job=job,
        faces=faces,
        order=tuple(dict.fromkeys([*begun, *(face.key for face in order_of_work(job.faces))])),
        set_ups=shared,
        operations=around,
        cautions=(*late, *part_cautions(job), *vibration_cautions(_held(faces, job.pieces))),
        advice=part_advice(job),
        fallbacks=tuple(fallback(face, job) for face in faces),
        blocked=blocked(job),
        gained=worked.gained,
    )


def _held(faces: Iterable[FacePlan], pieces: int) -> list[tuple[Machine, float]]:
    """(machine, seconds on all pieces) of every step with a machine that is held."""
    steps = [step for face in faces for step in face.steps]
    return [(step.on_face.machine, step.time.cut * pieces) for step in steps if not step.on_face.machine.stands]


def face_in_plan(face: Face, job: Job) -> FacePlan:
    """A face as it is planned in its job; by itself when it is none of its faces."""
    return plan_job(job).faces[job.faces.index(face)] if face in job.faces else plan_face(face, job)


@dataclass(frozen=True, slots=True)
class Shortage:
    """A tool of which all pieces use up `need`, and the rack has only `have` (0: it is not there at all)."""

    tool: Tool
    need: int
    have: float


def shortages(plan: Plan, have: Mapping[str, float]) -> tuple[Shortage, ...]:
    """Everything that the plan lays out and the rack cannot, by how many of each tool id it has."""
    return tuple(
        Shortage(gathered.tool, gathered.count, have.get(gathered.tool.id, 0.0))
        for gathered in plan.gather
        if have.get(gathered.tool.id, 0.0) < gathered.count - REL_TOL
    )


@dataclass(frozen=True, slots=True)
class DoneWithout:
    """The best plan of which the rack has everything, and the tool ids that it does without.

    Attributes:
        plan: None when there is none.  sane: it takes no more than some times as long as the plan with these tools.
    """

    plan: Plan | None
    tools: frozenset[str]
    sane: bool = True


def do_without(plan: Plan, have: Mapping[str, float]) -> DoneWithout:
    """Plan again without what is short, until nothing is: the plan without one thing may need another that is short too."""
    tools: frozenset[str] = frozenset()
    with_them = plan.account.all.hands_on
    while short := frozenset(shortage.tool.id for shortage in shortages(plan, have)):
        tools |= short
        plan = without(plan.job, tools)
        # A wish that cannot be kept is given up and said so: then these tools are in the plan again.
        if not plan.possible or any(face.wish_note for face in plan.faces):
            return DoneWithout(None, tools)
    return DoneWithout(plan, tools, plan.account.all.hands_on <= constant("plan.without_most").value * with_them)


def without(job: Job, tools: frozenset[str]) -> Plan:
    """The best plan that does without these tools; what was wished for with them is given up."""
    return plan_job(replace(job, faces=tuple(_without(face, tools) for face in job.faces)))


def _without(face: Face, tools: frozenset[str]) -> Face:
    wish = face.wish
    kept = Wish(
        start=None if wish.start in tools else wish.start,
        lock=tuple(tool for tool in wish.lock if tool not in tools),
        leave_out=tuple(sorted({*wish.leave_out, *tools})),
    )
    return replace(face, wish=kept)
