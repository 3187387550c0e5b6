"""What shops give each other: own things and what was learnt about tools, looked at as if it were here before it comes in."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Final, Literal

from kelbrast.app.jobs import Jobs
from kelbrast.app.own import OwnChange
from kelbrast.app.planning import job_of
from kelbrast.core.errors import BadInput
from kelbrast.core.job import OPEN_STATES, Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.learning.trial import Tried
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import using
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.own.format import OwnFactorFile, OwnFile, read_own_file, rows_of, tool_ids
from kelbrast.storage.sessions import writing

_TELLS: Final[tuple[Literal["removal", "life", "scratch"], ...]] = ("removal", "life", "scratch")


@dataclass(frozen=True, slots=True)
class AsIf:
    """An open job, and the hands-on time that it takes now and would take with the pack (s); None where there is no plan."""

    title: str
    now: float | None
    then: float | None


def pack(jobs: Jobs) -> OwnFile:
    """The shop's own things and the factors that its plans use, for another shop: nothing of jobs or customers."""
    factors = [
        OwnFactorFile(
            carrier=one.carrier,
            family=one.family,
            quantity=quantity,
            factor=round(one.factor, 4),
            error=max(1e-4, round(one.error / one.factor, 4)),
        )
        for one in jobs.rack.learning.learnt()
        for quantity in _TELLS
        if one.used and one.quantity == quantity
    ]
    return OwnFile(entries=jobs.own.file().entries, factors=factors)


def as_if(jobs: Jobs, text: str) -> list[AsIf]:
    """What the open jobs would take if all of a pack were here, its tools on the rack.

    Raises:
        ReadError, BadInput: what is wrong with the pack.
    """
    given = read_own_file(text)
    changes = jobs.own.preview(text)
    files = [kept.job for kept in jobs.plannable(OPEN_STATES)[0]]
    now = [(file.title, _hands_on(file, jobs, (), ())) for file in files]
    merged = {kept.file.id: kept.file for kept in jobs.own.entries()}
    merged |= {change.file.id or f"own-new{at}": change.file for at, change in enumerate(changes)}
    entries = [entry.model_copy(update={"id": key}) for key, entry in merged.items()]
    tools = tuple(tool for entry in entries if not entry.retired for tool in sorted(tool_ids(entry)))
    with using(rows_of(entries)):
        then = [_hands_on(file, jobs, tools, _as_here(given, changes)) for file in files]
    return [AsIf(title, before, after) for (title, before), after in zip(now, then, strict=True)]


def take_in_pack(jobs: Jobs, text: str, *, factors: bool, today: date) -> tuple[list[OwnChange], int]:
    """Take in the entries of a pack, and with `factors` what its shop learnt, less sure here than there. All of it or nothing.

    Returns what became of the entries, and how many factors were taken in.

    Raises:
        ReadError, BadInput: what is wrong with the pack.
    """
    given = read_own_file(text)
    with writing(jobs.engine):
        changes = jobs.own.take_in(text, today=today)
        taken = _as_here(given, changes) if factors else []
        for one in taken:
            tried = Tried(math.log(one.factor), _here(one.error))
            jobs.rack.learning.trials.take_over(one.carrier, one.family, one.quantity, tried)
    return changes, len(taken)


def _as_here(given: OwnFile, changes: Sequence[OwnChange]) -> list[OwnFactorFile]:
    """The factors of a pack, each of the thing that its carrier is here: one of the same name may have another id."""
    called = {file.id: change.file.id for file, change in zip(given.entries, changes, strict=True)}
    return [one.model_copy(update={"carrier": called.get(one.carrier, one.carrier)}) for one in given.factors]


def _here(error: float) -> float:
    """How sure another shop's factor is here: two shops differ by as much as two runs."""
    return min(math.hypot(error, constant("learning.noise").value), constant("learning.prior").value)


def _hands_on(file: JobFile, jobs: Jobs, tools: Sequence[str], factors: Sequence[OwnFactorFile]) -> float | None:
    try:
        job = job_of(file.model_copy(update={"extras": [*file.extras, *tools]}) if tools else file, jobs.rack.shelf())
        plan = plan_job(_with_factors(job, factors))
    except BadInput:
        return None
    return plan.account.all.hands_on if plan.possible else None


def _with_factors(job: Job, factors: Sequence[OwnFactorFile]) -> Job:
    """The job with factors that its own shop has none of."""
    known = {key[:3] for key in job.factors.told}
    more = tuple(
        (one.carrier, one.family, one.quantity, one.factor)
        for one in factors
        if (one.carrier, one.family, one.quantity) not in known
    )
    return replace(job, factors=ShopFactors((*job.factors.told, *more), job.factors.errors))
