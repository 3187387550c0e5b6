"""The account of time: every second of a job belongs to one line, for each piece or once for a lot.

Whatever shows a time of a job, on screen, on paper or in a file, takes it from here: `account_of` for the whole job, `shares`
for what each step contributes to it.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, fields
from operator import attrgetter
from typing import Final, Literal

from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.face.step import Step
from kelbrast.core.planning.whole.set_ups import SetUp
from kelbrast.core.reference.loader import constant

AccountLine = Literal["cutting", "handling", "set_up", "before_after", "waiting"]
LINES: Final[Mapping[AccountLine, str]] = {
    "cutting": "Cutting",
    "handling": "Handling",
    "set_up": "Set-up",
    "before_after": "Before and after",
    "waiting": "Waiting",
}


@dataclass(frozen=True, slots=True)
class Times:
    """Seconds by line of the account.

    Attributes:
        cutting: the tool is on the work.  handling: washing, changing the abrasive, cooling, the light check.
        set_up: putting tools on.  before_after: operations before, between and after the steps.
        waiting: soaking and drying: nobody's time.
    """

    cutting: float = 0.0
    handling: float = 0.0
    set_up: float = 0.0
    before_after: float = 0.0
    waiting: float = 0.0

    @property
    def hands_on(self) -> float:
        """A person's time: everything but waiting."""
        return self.cutting + self.handling + self.set_up + self.before_after

    @property
    def start_to_finish(self) -> float:
        """With the waiting."""
        return self.hands_on + self.waiting

    def __add__(self, other: "Times") -> "Times":
        return Times(*(a + b for a, b in zip(_lines_of(self), _lines_of(other), strict=True)))

    def __mul__(self, often: float) -> "Times":
        return Times(*(often * each for each in _lines_of(self)))


_lines_of = attrgetter(*(field.name for field in fields(Times)))


@dataclass(frozen=True, slots=True)
class Account:
    """The time of a job (SI): `each` for every piece, `once` for every lot."""

    pieces: int
    lots: int
    each: Times
    once: Times

    @property
    def all(self) -> Times:
        """For all pieces."""
        return self.each * self.pieces + self.once * self.lots

    @property
    def by_itself(self) -> Times:
        """For one piece that is a lot of its own."""
        return self.each + self.once


@dataclass(frozen=True, slots=True)
class StepShare:
    """What a step (from 1) of a face contributes: `each` for every piece, `once` for every lot."""

    face: str
    number: int
    step: Step
    each: Times
    once: Times

    def of(self, pieces: int, lots: int) -> Times:
        """For so many pieces in so many lots."""
        return self.each * pieces + self.once * lots


def shares(set_ups: Iterable[SetUp], faces: Iterable[FacePlan], factors: ShopFactors) -> tuple[StepShare, ...]:
    """What every step contributes, in the order of work, at the shop's own pace.

    The first step of a set-up bears putting the tool on, and the first one that begins with a wash bears the wash; of that,
    fresh water and cloths are for the whole lot.
    """
    pace = Times(handling=factors.pace("handling"), set_up=factors.pace("set_up"))
    steps = {(plan.face.key, number): step for plan in faces for number, step in enumerate(plan.steps, start=1)}
    found = []
    for set_up in set_ups:
        washed = False
        for at, (face, number) in enumerate(set_up.faces):
            step = steps[face, number]
            wash = 0.0 if washed else step.time.wash
            for_lot = constant("work.wash_lot").value * wash
            each = step.time.handling - step.time.wash + wash - for_lot
            put_on = set_up.tool.carrier.stock.setup if at == 0 else 0.0
            washed = washed or step.time.wash > 0
            once = Times(handling=pace.handling * for_lot, set_up=pace.set_up * put_on)
            found.append(StepShare(face, number, step, Times(cutting=step.time.cut, handling=pace.handling * each), once))
    return tuple(found)


def total(times: Iterable[Times]) -> Times:
    """Their sum."""
    added = Times()
    for one in times:
        added += one
    return added
