"""Operations before and after the abrasives, from cleaning to protection, chosen from the part and its plan."""

from dataclasses import dataclass
from typing import Any, Final, Literal

from kelbrast.core.catalogue.materials import family
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.reference.loader import Source, record, sources
from kelbrast.core.rules.coats import STRIPS, off_first, passivates, residue_removal
from kelbrast.core.rules.lay import is_brushed
from kelbrast.core.rules.protection import protection_of

When = Literal["before", "between", "after"]
_DM2: Final = 0.01


@dataclass(frozen=True, slots=True)
class Operation:
    """One operation (SI).

    Attributes:
        when: before the first step, between steps, or after the last.
        active: seconds of a person for each piece; lot: the same once for a lot; passive: seconds of waiting, once for a lot.
        counted: its active time is in the steps already.
        source: where its minutes come from.
        within: seconds after the last step until which it must be done; None when it can wait.
        check: what must be found right before it counts as done; empty for nothing.
    """

    id: str
    label: str
    when: When
    text: str
    active: float
    lot: float
    passive: float
    counted: bool
    within: float | None
    source: Source
    cautions: tuple[str, ...]
    check: str = ""


def operations(job: Job, plans: tuple[FacePlan, ...]) -> tuple[Operation, ...]:
    """Every operation of a job in the order of work. Coats and inserts decide which way each is done."""
    worked = [plan for plan in plans if plan.steps]
    return _with_own(_computed(job, worked), job)


def _with_own(found: list[Operation], job: Job) -> tuple[Operation, ...]:
    """What the person adds stands after what is computed for the same part of the work; what is last is looked at last."""
    last = [operation for operation in found if operation.id == "compare"]
    rest = [operation for operation in found if operation.id != "compare"]
    own = [
        Operation(
            id=f"own-{at}",
            label=own_operation.label,
            when=own_operation.when,
            text=own_operation.text,
            active=own_operation.active,
            lot=own_operation.once,
            passive=own_operation.passive,
            counted=False,
            within=None,
            source=sources()["put-in"],
            cautions=(own_operation.caution,) if own_operation.caution else (),
            check=own_operation.check,
        )
        for at, own_operation in enumerate(job.own_operations, start=1)
    ]
    order = ("before", "between", "after")
    return (*sorted([*rest, *own], key=lambda operation: order.index(operation.when)), *last)


def _computed(job: Job, worked: list[FacePlan]) -> list[Operation]:
    work = [_operation("inspect", "before", job)]
    if job.part.covering == "unknown":
        work.append(_operation("identify", "before", job))
    elif job.part.covering in STRIPS:
        work.append(_operation(STRIPS[job.part.covering], "before", job))
    work += [_operation(key, "before", job) for key in off_first(job)]
    if kept_off := sum(face.keep_off for face in job.faces):
        work.append(_operation("mask", "before", job, times=kept_off))
    if (washes := sum(len(plan.steps) - 1 for plan in worked)) > 0:
        work.append(_operation("wash", "between", job, times=washes, counted=True))
    brushed = sum(is_brushed(plan.face) for plan in worked)
    if brushed and (done := len(worked) - brushed):
        work.append(_operation("mask-finished", "between", job, times=done))
    if worked:
        work += _finishing(job, worked)
    return work


def _finishing(job: Job, worked: list[FacePlan]) -> list[Operation]:
    kin = family(job.material.family)
    work = [_operation(residue_removal(job), "after", job)]
    if passivates(job):
        work.append(_operation("passivate", "after", job))
    protect, within = protection_of(job)
    painted = any(plan.face.want.deformed == 0 and plan.face.edge is None for plan in worked)
    if protect == "lacquer" or painted:
        gentle = not kin.alcohol or "solvent" in job.forbids
        work.append(_operation("degrease-plastic" if gentle else "degrease", "after", job))
    if protect != "none":
        work.append(_operation(protect, "after", job, times=job.coats, waits=job.coats, within=within))
    work.append(_operation("compare", "after", job))
    return work


def _area(job: Job) -> float:
    return sum(face.area for face in job.faces if not face.left_alone)


def _operation(
    key: str, when: When, job: Job, *, times: int = 1, counted: bool = False, waits: int = 1, within: float | None = None
) -> Operation:
    row: dict[str, Any] = record("operations")[key]
    pace = job.factors.pace("before_after")
    active = times * row["active"].si + (row["per_dm2"].si * _area(job) / _DM2 if "per_dm2" in row else 0.0)
    passive = waits * row["passive"].si if "passive" in row else 0.0
    return Operation(
        id=key,
        label=row["label"],
        when=when,
        text=row["text"],
        active=pace * active,
        lot=pace * times * row["lot"].si if "lot" in row else 0.0,
        passive=passive,
        counted=counted,
        within=within,
        source=row["active"].source,
        cautions=tuple(row.get("cautions", ())),
    )
