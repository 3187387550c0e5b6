"""Which trial piece is worth making: the tools whose unsure removal rate moves the open jobs most."""

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.reference.loader import constant
from kelbrast.core.tooling.trial_square import suited


@dataclass(frozen=True, slots=True)
class WorthTrying:
    """A carrier on a family of metals, and what a trial of it would do for the open jobs (s, over all their pieces).

    Attributes:
        tool: the tool of it that does most of the work, on which a trial can be made.  material: what that is done on.
        work: how long it works in these jobs.  jobs: in how many of them.
        unsure: how much of that nobody knows, one standard deviation.
        risk: how much of the unsure a trial takes away.  saved: how much less work is expected where plans know the rate.
    """

    carrier: str
    family: str
    tool: str
    material: str
    work: float
    jobs: int
    unsure: float
    risk: float
    saved: float

    @property
    def worth(self) -> float:
        """What ranks it: the work that is saved, and the risk that is removed at what the shop pays for risk."""
        return self.saved + constant("trial.risk_price").value * self.risk


def worth_trying(jobs: Sequence[Job], *, most: int = 6) -> list[WorthTrying]:
    """The trials that would do most for these jobs, the best first; only what a trial can tell, and none that says nothing.

    The rate of a carrier is known to a standard deviation of its logarithm: that of its learnt factor, else the prior of the
    learning. Two rates stand for it, a deviation up and down. What is expected to be saved is what the plan for each of them
    takes less than the plan as it is, worked at that rate.

    Equation: `saved = mean over R of (t_now(R) - t_best(R))`, t_now(R) = t - t_c + t_c / R; risk = t_c (s - s_after) (s)
    Valid: jobs that can be planned; others are left out.

    Args:
        jobs: open ones, with the shop's rack and factors.  most: how many are worked out, dimensionless.

    Raises:
        Nothing.

    Source: our-choice.
    """
    planned = [(job, plan) for job in jobs if (plan := _planned(job)) is not None]
    found = sorted(_by_carrier(planned), key=lambda one: -one.risk)[:most]
    weighed = [replace(one, saved=_saved(one, planned)) for one in found]
    return sorted(weighed, key=lambda one: -one.worth)


def _planned(job: Job) -> Plan | None:
    try:
        plan = plan_job(job)
    except BadInput:
        return None
    return plan if all(face.possible for face in plan.faces if not face.face.keep_off) else None


def _by_carrier(planned: Sequence[tuple[Job, Plan]]) -> list[WorthTrying]:
    work: dict[tuple[str, str], dict[tuple[str, int], float]] = defaultdict(lambda: defaultdict(float))
    for number, (job, plan) in enumerate(planned):
        for face in plan.faces:
            for step in face.steps:
                work[step.tool.carrier.id, job.material.family][step.tool.id, number] += step.time.cut * job.pieces
    found = []
    for (carrier, family), parts in work.items():
        (tool, number), _ = max(parts.items(), key=lambda part: part[1])
        job = planned[number][0]
        known = job.factors.error_of(carrier, family, "removal") or constant("learning.prior").value
        after = 1 / math.sqrt(1 / known**2 + 1 / constant("trial.one_square").value ** 2)
        total = sum(parts.values())
        if not _can_be_tried(tool, job):
            continue
        numbers = {number for _, number in parts}
        unsure = total * known
        found.append(
            WorthTrying(carrier, family, tool, job.material.id, total, len(numbers), unsure, total * (known - after), 0.0)
        )
    return found


def _can_be_tried(tool: str, job: Job) -> bool:
    try:
        suited(tool, job)
    except BadInput:
        return False
    return True


def _saved(one: WorthTrying, planned: Sequence[tuple[Job, Plan]]) -> float:
    saved = 0.0
    for job, plan in planned:
        cut = sum(step.time.cut for face in plan.faces for step in face.steps if step.tool.carrier.id == one.carrier)
        if job.material.family != one.family or cut == 0:
            continue
        known = job.factors.error_of(one.carrier, one.family, "removal") or constant("learning.prior").value
        for rate in (math.exp(known), math.exp(-known)):
            best = _planned(replace(job, factors=_with_rate(job.factors, one, rate)))
            now = plan.account.all.hands_on + job.pieces * (cut / rate - cut)
            if best is not None:
                saved += max(0.0, now - best.account.all.hands_on) / 2
    return saved


def _with_rate(factors: ShopFactors, one: WorthTrying, rate: float) -> ShopFactors:
    factor = rate * factors.of(one.carrier, one.family, "removal")
    return replace(factors, told=((one.carrier, one.family, "removal", factor), *factors.told))
