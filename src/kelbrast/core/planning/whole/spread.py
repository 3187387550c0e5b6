"""The 90th percentile of the minutes of a step, a face and a job, and the share of each cause in their variance."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from statistics import NormalDist
from typing import Final, Literal

from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.face.step import Step
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.process.spread import Scatter, Stretch, moments, stays_below
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found

SpreadCause = Literal["depth", "rate", "hand", "checks"]
CAUSES: Final[dict[SpreadCause, str]] = {
    "depth": "how deep the marks really are",
    "rate": "how quickly the abrasives cut here",
    "hand": "the hand and its pressure",
    "checks": "light checks that fail",
}
_SHARE: Final = 0.9
_WORST: Final = NormalDist().inv_cdf(0.95)  # what the worst depth of a guess stands for


@dataclass(frozen=True, slots=True)
class Spread:
    """What nine of ten stay below, s; and by cause, its share (0 to 1) of what the minutes vary, largest first."""

    high: float
    causes: tuple[tuple[SpreadCause, float], ...]


def spread_of_plan(plan: Plan) -> Spread:
    """Return the spread of one piece of the whole job, with shared set-ups counted once."""
    stretches = [stretch for face in plan.faces for stretch in _stretches(face, plan.job)]
    return Spread(_high(stretches, plan.seconds_each), _causes(stretches))


def high_of_face(face: FacePlan, job: Job) -> float:
    """Return the seconds that nine of ten stay below on a face."""
    return _high(_stretches(face, job), face.seconds)


def high_of_steps(face: FacePlan, job: Job) -> tuple[float, ...]:
    """Return the seconds that nine of ten stay below on each step of a face by itself."""
    return tuple(_high([stretch], step.time.all) for stretch, step in zip(_stretches(face, job), face.steps, strict=True))


def _stretches(plan: FacePlan, job: Job) -> list[Stretch]:
    """The work of every step; the depth is a guess for the first alone: the others meet the marks of the step before."""
    found = _depth_spread(plan.face)
    return [_stretch(step, job, found if meets else 0.0) for step, meets in zip(plan.steps, _meets_found(plan), strict=True)]


def _meets_found(plan: FacePlan) -> list[bool]:
    """Of every step, whether it is the first on something that was found."""
    zones = [step.zone for step in plan.steps]
    return [
        at == 0 or bool(zone and zone.begun) or (zone is None and zones[at - 1] is not None) for at, zone in enumerate(zones)
    ]


def _stretch(step: Step, job: Job, depth: float) -> Stretch:
    carrier = step.tool.carrier
    known = job.factors.error_of(carrier.id, job.material.family, "removal")
    unknown = constant("spread.rate").value
    sure = carrier.stock.setup + step.time.wash + constant("work.check").si
    return Stretch(max(0.0, step.time.all - sure), carrier.id, unknown if known is None else min(known, unknown), depth)


def _depth_spread(face: Face) -> float:
    """Of what a face was found with, the least sure: what covers it, or its spots."""
    return max(_spread_of(found) for found in face.found_anywhere)


def _spread_of(found: Found) -> float:
    """The standard deviation of the logarithm of the depth: its worst is its 95th percentile, and no guess is exact."""
    if found.after is not None or not found.likely:
        return 0.0
    told = math.log(max(found.worst or found.likely, found.likely) / found.likely) / _WORST
    return max(told, constant("spread.depth").value)


def _scatter() -> Scatter:
    return Scatter(*(constant(f"spread.{name}").value for name in ("hand", "check_fails", "again")))


def _high(stretches: Sequence[Stretch], seconds: float) -> float:
    """`seconds`: all of them, of which what is not in the stretches is sure."""
    work = sum(stretch.seconds for stretch in stretches)
    if work <= 0:
        return seconds
    return max(seconds, seconds - work + stays_below(moments(stretches, _scatter()), share=_SHARE))


def _causes(stretches: Sequence[Stretch]) -> tuple[tuple[SpreadCause, float], ...]:
    """The share of each cause of the variance, largest first."""
    if sum(stretch.seconds for stretch in stretches) <= 0:
        return ()
    scatter = _scatter()
    alone = {cause: moments(*_only(cause, stretches, scatter)).variance for cause in CAUSES}
    whole = sum(alone.values())
    shares = [(cause, variance / whole) for cause, variance in alone.items() if variance > 0]
    return tuple(sorted(shares, key=lambda share: -share[1]))


def _only(cause: SpreadCause, stretches: Sequence[Stretch], scatter: Scatter) -> tuple[list[Stretch], Scatter]:
    """The same work if nothing varied but this."""
    kept = [
        replace(stretch, rate=stretch.rate if cause == "rate" else 0.0, depth=stretch.depth if cause == "depth" else 0.0)
        for stretch in stretches
    ]
    return kept, Scatter(
        hand=scatter.hand if cause == "hand" else 0.0,
        fails=scatter.fails if cause == "checks" else 0.0,
        again=scatter.again,
    )
