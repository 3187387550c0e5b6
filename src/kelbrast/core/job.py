"""A job: a part with its faces, and how the person wants to work."""

import math
from dataclasses import dataclass, field
from typing import Final, Literal

from kelbrast.core.catalogue.materials import Material, forbidden_by, insert
from kelbrast.core.errors import BadInput
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.process.heat import Lump
from kelbrast.core.rack.offer import Own
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, known_as
from kelbrast.core.surface.part import Part

Aim = Literal["time", "metal", "cost", "changes"]
AIMS: Final[dict[Aim, str]] = {
    "time": "Quickest",
    "metal": "Least removed",
    "cost": "Cheapest",
    "changes": "Fewest changes",
}
HabitKey = Literal["every-grade", "double-up", "long-steps"]
HABITS: Final[dict[HabitKey, str]] = {
    "every-grade": "Every grit in the box",
    "double-up": "About double each time",
    "long-steps": "Long steps",
}
Handover = Literal["free", "fine-paper", "early-wheel"]
HANDOVERS: Final[dict[Handover, str]] = {
    "free": "Wherever it is best",
    "fine-paper": "Fine paper, then a short polish",
    "early-wheel": "Early wheel with a cutting bar",
}
BenchSpeed = Literal["usual", "low"]
BENCH_SPEEDS: Final[dict[BenchSpeed, str]] = {"usual": "Usual speed", "low": "Low speed at the bench"}

RackUsed = Literal["catalogue", "own"]
JobState = Literal["asked", "quoted", "ordered", "at-the-bench", "done", "delivered"]
JOB_STATES: Final[dict[JobState, str]] = {
    "asked": "Asked",
    "quoted": "Quoted",
    "ordered": "Ordered",
    "at-the-bench": "At the bench",
    "done": "Done",
    "delivered": "Delivered",
}
ORDERED_STATES: Final[tuple[JobState, ...]] = ("ordered", "at-the-bench")  # on the board of the day
OPEN_STATES: Final[tuple[JobState, ...]] = ("asked", "quoted", "ordered", "at-the-bench")  # not over yet
NextAction = Literal["fix", "decide", "quote", "order", "start", "bench", "deliver", "none"]
PlanState = Literal["ready", "not-possible", "cannot-plan", "unreadable", "planning"]
OwnWhen = Literal["before", "between", "after"]


def state_after_tap(state: JobState, *, was_well: bool, is_well: bool) -> JobState:
    """Return the state of a job after a tap of its run: only a tap that ends the run well, or takes that back, changes it.

    >>> state_after_tap("at-the-bench", was_well=False, is_well=True), state_after_tap("delivered", was_well=True, is_well=True)
    ('done', 'delivered')
    >>> state_after_tap("done", was_well=True, is_well=False)
    'at-the-bench'
    """
    if is_well and not was_well:
        return "done"
    return "at-the-bench" if was_well and not is_well and state == "done" else state


_NEXT: Final[dict[JobState, NextAction]] = {
    "asked": "quote",
    "quoted": "order",
    "ordered": "start",
    "at-the-bench": "bench",
    "done": "deliver",
    "delivered": "none",
}


def next_action(state: JobState, plan: PlanState) -> NextAction:
    """Return what somebody has to do next for a job. A plan that is not there comes first, until the work has
    begun; one that is being worked out is taken to be there.

    >>> next_action("asked", "ready"), next_action("ordered", "not-possible"), next_action("at-the-bench", "not-possible")
    ('quote', 'decide', 'bench')
    >>> next_action("quoted", "cannot-plan"), next_action("delivered", "cannot-plan"), next_action("asked", "unreadable")
    ('fix', 'none', 'none')
    >>> next_action("ordered", "planning")
    'start'
    """
    if plan == "unreadable":
        return "none"
    if plan not in ("ready", "planning") and state in ("asked", "quoted", "ordered"):
        return "fix" if plan == "cannot-plan" else "decide"
    return _NEXT[state]


@dataclass(frozen=True, slots=True)
class OwnOperation:
    """Work that a person adds to a job: taking apart, a trial, putting back (SI).

    Attributes:
        when: before the first step, between steps, or after the last.
        active: seconds of a person, for one piece; once: for a lot.  passive: seconds of waiting, for a lot together.
        caution: what can hurt.  check: what must be found right before it counts as done.
    """

    label: str
    when: OwnWhen
    active: float
    passive: float = 0.0
    once: float = 0.0
    text: str = ""
    caution: str = ""
    check: str = ""


@dataclass(frozen=True, slots=True)
class Job:
    """One job.

    Attributes:
        lot: how many pieces are worked together; None for as many as go.
        rack: ids of the tools (and, if wanted, machines) to plan with; None for the whole starter rack.
        carried: whether the part can be brought to a bench machine; None to judge by its size and weight.
        habit, aim, handover, bench_speed: keys of the tables above.
        own: the rack that is planned with instead of the starter rack or `rack`.
        factors: what the shop learnt about its own way of working.
        own_operations: what the person adds.  coats: of the protection at the end.
        diameters: (tool id, m) for wheels that have worn down from the starter rack's size.
    """

    title: str
    material: Material
    faces: tuple[Face, ...]
    pieces: int = 1
    lot: int | None = None
    rack: tuple[str, ...] | None = None
    habit: HabitKey = "double-up"
    aim: Aim = "time"
    carried: bool | None = None
    handover: Handover = "free"
    bench_speed: BenchSpeed = "usual"
    part: Part = field(default_factory=Part)
    diameters: tuple[tuple[str, float], ...] = ()
    own: Own | None = None
    own_operations: tuple[OwnOperation, ...] = ()
    coats: int = 1
    factors: ShopFactors = field(default_factory=ShopFactors)

    @property
    def unwieldy(self) -> float:
        """How many times as large, long or heavy as suits a bench machine the part is; 0 or infinite where the person said."""
        if self.carried is not None:
            return 0.0 if self.carried else math.inf
        area = sum(face.area for face in self.faces if face.edge is None)
        side = max((face.longest for face in self.faces if face.longest is not None), default=0.0)
        known = {"area": area, "side": side, "mass": self.part.mass or 0.0}
        return max(amount / constant(f"work.carried_{key}").si for key, amount in known.items())

    @property
    def loose_mass(self) -> float | None:
        """Of a part that nothing clamps, kg; None for one that is clamped or was not weighed."""
        return self.part.mass if self.part.held == "hand" else None

    @property
    def comes_to_the_bench(self) -> bool:
        """Whether the part is brought to a machine that stands at all."""
        return self.unwieldy <= constant("work.beyond").value

    def face(self, said: str) -> Face:
        """Return the face that is known by this, or else called so: a person at a keyboard says the name.

        Raises:
            BadInput: the job has no such face.
        """
        key = self.face_keys.get(said)
        if key is None:
            have = ", ".join(face.name for face in self.faces)
            raise BadInput.one("face", f'there is no face "{said}"; the job has {have}')
        return next(face for face in self.faces if face.key == key)

    @property
    def face_keys(self) -> dict[str, str]:
        """What each face is known by, by every word that it goes by."""
        return known_as((face.key, face.name) for face in self.faces)

    @property
    def shapes(self) -> dict[str, str | None]:
        """The kind of shape of each face, None where it is not known."""
        return {face.key: face.gauged.shape for face in self.faces}

    @property
    def held_in_hand(self) -> bool:
        """A hand holds the part to machines that stand, in finger guards where it gets hot."""
        return self.part.held == "hand" and self.comes_to_the_bench

    @property
    def forbids(self) -> frozenset[str]:
        """Ways of working that the inserts forbid."""
        return forbidden_by(self.part.inserts)

    @property
    def hottest(self) -> float:
        """The temperature in K to stay below: the material's, or that of what is stuck in it."""
        return min([self.material.limit, *(insert(key).limit.si for key in self.part.inserts)])

    @property
    def lump(self) -> Lump | None:
        """The part as one warm lump. Without its weight, the heaviest wall behind a face stands for it: never too much."""
        walls = [face.area * face.thickness for face in self.faces if face.thickness is not None]
        mass = self.part.mass if self.part.mass is not None else max(walls, default=0.0) * self.material.density
        surface = max([sum(face.area for face in self.faces), *(2 * face.area for face in self.faces if face.thickness)])
        return Lump(mass * self.material.specific_heat, surface) if mass > 0 else None
