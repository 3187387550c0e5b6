"""What nine of ten stay below: of a step, a face, and every line of the account of a job; and the causes of the variance."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from statistics import NormalDist
from typing import Final, Literal

from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ANY_FAMILY
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.face.step import Step
from kelbrast.core.planning.whole.account import LINES, AccountLine, Times, shares
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.planning.whole.set_ups import set_ups
from kelbrast.core.process.spread import Stretch, moments, stays_below
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.validity import REL_TOL

SpreadCause = Literal["depth", "rate", "hand", "pace", "checks"]
CAUSES: Final[dict[SpreadCause, str]] = {
    "depth": "how deep the marks really are",
    "rate": "how quickly the abrasives cut here",
    "hand": "the hand and its pressure",
    "pace": "how long washing, set-ups and the rest take",
    "checks": "light checks that fail",
}
_SHARE: Final = 0.9
_WORST: Final = NormalDist().inv_cdf(0.95)  # what the worst depth of a guess stands for
_HAND: Final = "hand"
_PACE: Final = "pace"


@dataclass(frozen=True, slots=True)
class Spread:
    """What nine of ten stay below, s; and by cause, its share (0 to 1) of what the minutes vary, largest first."""

    high: float
    causes: tuple[tuple[SpreadCause, float], ...]


@dataclass(frozen=True, slots=True)
class Allowance:
    """What to allow for a job, s: nine of ten jobs stay below `hands_on`, and below each of `lines` by itself."""

    hands_on: float
    lines: Times

    @property
    def start_to_finish(self) -> float:
        """Waiting takes what it takes."""
        return self.hands_on + self.lines.waiting


_Lines = dict[AccountLine, list[Stretch]]


def spread_of_plan(plan: Plan) -> Spread:
    """Return the spread of one piece at the abrasives, with shared set-ups counted once."""
    stretches = _all(_lines(plan, pieces=1, around=False))
    return Spread(_high(stretches, plan.seconds_each), _causes(stretches))


def allowance(plan: Plan, pieces: int) -> Allowance:
    """Return what to allow for so many pieces.

    Hand, pace, depth and the rate of an abrasive are the same for all pieces of a job; every light check fails by itself.
    """
    lines, likely = _lines(plan, pieces=pieces, around=True), plan.account_of(pieces).all
    highs = {line: _high(lines[line], getattr(likely, line)) for line in LINES}
    return Allowance(_high(_all(lines), likely.hands_on), Times(**highs))


def high_of_face(face: FacePlan, job: Job) -> float:
    """Return the seconds that nine of ten stay below on a face by itself."""
    return _high([one for step in _of_steps(face, job) for one in _all(step)], face.seconds)


def high_of_steps(face: FacePlan, job: Job) -> tuple[float, ...]:
    """Return the seconds that nine of ten stay below on each step of a face by itself."""
    stretches = _of_steps(face, job)
    return tuple(_high(_all(of_step), step.time.all) for of_step, step in zip(stretches, face.steps, strict=True))


def seconds_again(step: Step) -> Times:
    """What a light check that fails costs each time: part of the cutting, and the set-up, the wash and the check again."""
    again = constant("spread.again").value
    return Times(
        cutting=again * step.time.cut,
        handling=constant("work.wash").si + constant("work.check").si,
        set_up=step.tool.carrier.stock.setup,
    )


def _lines(plan: Plan, *, pieces: int, around: bool) -> _Lines:
    """The stretches of so many pieces by line of the account."""
    lines: _Lines = {line: [] for line in LINES}
    faces, depths = {face.face.key: face for face in plan.faces}, {}
    for key, face in faces.items():
        depths[key] = _own_depths(face)
    account = plan.account_of(pieces)
    for share in plan.shares:
        times = share.of(pieces, account.lots)
        check = f"{share.face} {share.number}"
        of_step = _of_step(share.step, plan.job, depths[share.face][share.number - 1], times, pieces, check)
        for line, stretches in of_step.items():
            lines[line] += stretches
    if around:
        own = [
            Stretch(operation.active * pieces + operation.lot * account.lots, own=_pace(plan.job, "before_after"))
            for operation in plan.operations
            if not operation.counted
        ]
        lines["before_after"] += own
        lines["waiting"].append(Stretch(account.all.waiting))
    return lines


def _of_steps(face: FacePlan, job: Job) -> list[_Lines]:
    depths = _own_depths(face)
    alone = {share.number: share.of(1, 1) for share in shares(set_ups((face,)), (face,), job.factors)}
    numbered = enumerate(face.steps, start=1)
    return [_of_step(step, job, depths[number - 1], alone[number], 1, f"{number}") for number, step in numbered]


def _of_step(step: Step, job: Job, depth: float, times: Times, pieces: int, check: str) -> _Lines:
    """The stretches of a step: the work, which varies with hand, abrasive and depth; the rest, with the pace; and both again
    where its light check fails. Resting and changing the abrasive go with the work."""
    carrier = step.tool.carrier
    known = job.factors.error_of(carrier.id, job.material.family, "removal")
    unknown = constant("spread.rate").value
    work = {_HAND: constant("spread.hand").value, carrier.id: unknown if known is None else min(known, unknown)}
    pace, mounting = {_PACE: _pace(job, "handling")}, {_PACE: _pace(job, "set_up")}
    sure = min(times.handling, pieces * (step.time.wash + constant("work.check").si))
    again, often = seconds_again(step), pieces * step.fails

    def sent_back(seconds: float, shared: dict[str, float]) -> Stretch:
        return Stretch(seconds, shared, times=often, times_variance=often * (1 - step.fails), check=check)

    return {
        "cutting": [Stretch(times.cutting, work, depth), sent_back(again.cutting, work)],
        "handling": [
            Stretch(times.handling - sure, work, depth),
            Stretch(sure, pace),
            sent_back(again.handling, pace),
        ],
        "set_up": [Stretch(times.set_up, mounting), sent_back(again.set_up, mounting)],
    }


def _pace(job: Job, line: AccountLine) -> float:
    """Of the logarithm: how unsure it is how long the shop takes for a line of the account."""
    known, unknown = job.factors.error_of(line, ANY_FAMILY, "pace"), constant("spread.pace").value
    return unknown if known is None else min(known, unknown)


def _all(lines: _Lines) -> list[Stretch]:
    """The stretches of a person's work."""
    return [stretch for line, stretches in lines.items() if line != "waiting" for stretch in stretches]


def _own_depths(face: FacePlan) -> list[float]:
    """Of every step, how unsure the depth is of what it meets: a guess for the first step on something that was found; the
    others meet the marks of the step before."""
    zones = [step.zone for step in face.steps]
    found = _depth_spread(face.face)
    return [
        found if at == 0 or (zone and zone.begun) or (zone is None and zones[at - 1] is not None) else 0.0
        for at, zone in enumerate(zones)
    ]


def _depth_spread(face: Face) -> float:
    """Of what a face was found with, the least sure: what covers it, or its spots."""
    return max(_spread_of(found) for found in face.found_anywhere)


def _spread_of(found: Found) -> float:
    """The standard deviation of the logarithm of the depth: its worst is its 95th percentile, and no guess is exact."""
    if found.after is not None or not found.likely:
        return 0.0
    told = math.log(max(found.worst or found.likely, found.likely) / found.likely) / _WORST
    return max(told, constant("spread.depth").value)


def _high(stretches: Sequence[Stretch], likely: float) -> float:
    """Never less than the likely seconds."""
    found = moments(stretches)
    return likely if found.mean <= 0 else max(likely, stays_below(found, share=_SHARE))


def _causes(stretches: Sequence[Stretch]) -> tuple[tuple[SpreadCause, float], ...]:
    """The share of each cause of the variance, largest first."""
    alone = {cause: moments([_only(cause, stretch) for stretch in stretches]).variance for cause in CAUSES}
    whole = sum(alone.values())
    shares_of = [(cause, variance / whole) for cause, variance in alone.items() if variance > REL_TOL * whole]
    return tuple(sorted(shares_of, key=lambda share: -share[1]))


def _only(cause: SpreadCause, stretch: Stretch) -> Stretch:
    """The same work if nothing varied but this."""
    causes = {factor: factor if factor in (_HAND, _PACE) else "rate" for factor in stretch.shared}
    return replace(
        stretch,
        shared={factor: amount for factor, amount in stretch.shared.items() if causes[factor] == cause},
        own=stretch.own if cause == "depth" else 0.0,
        times_variance=stretch.times_variance if cause == "checks" else 0.0,
    )
