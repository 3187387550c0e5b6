"""The work around the abrasives, from dirty to protected, chosen by what the part is and what the plan does to it."""

from dataclasses import dataclass
from typing import Any, Final, Literal

from kelbrast.core.catalogue.families import family
from kelbrast.core.planning.face_plan import FacePlan
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.setups import rank
from kelbrast.core.reference.loader import Source, constant, record

When = Literal["before", "between", "after"]
_RESIDUE: Final = ("residue-ultrasonic", "residue-wash", "residue-lukewarm", "residue-dry")
_DM2: Final = 0.01


@dataclass(frozen=True, slots=True)
class Operation:
    """One operation on one piece (SI).

    Attributes:
        when: before the first step, between steps, or after the last.
        active: seconds of a person; passive: seconds of waiting, for all pieces together.
        counted: its active time is in the steps already.
        source: where its minutes come from.
        within: seconds after the last step until which it must be done; None when it can wait.
    """

    id: str
    label: str
    when: When
    text: str
    active: float
    passive: float
    counted: bool
    within: float | None
    source: Source
    cautions: tuple[str, ...]


def operations(job: Job, plans: tuple[FacePlan, ...]) -> tuple[Operation, ...]:
    """Every operation of a job in the order of work. Coats and inserts decide which way each is done."""
    worked = [plan for plan in plans if plan.steps]
    found = [_operation("inspect", "before", job)]
    if job.part.covering == "unknown":
        found.append(_operation("identify", "before", job))
    elif job.part.covering in _STRIPS:
        found.append(_operation(_STRIPS[job.part.covering], "before", job))
    if kept_off := sum(face.keep_off for face in job.faces):
        found.append(_operation("mask", "before", job, times=kept_off))
    if (washes := sum(len(plan.steps) - 1 for plan in worked)) > 0:
        found.append(_operation("wash", "between", job, times=washes, counted=True))
    ranks = [rank(plan.face) for plan in worked]
    if 2 in ranks and (done := sum(one < 2 for one in ranks)):
        found.append(_operation("mask-finished", "between", job, times=done))
    if worked:
        found += _finishing(job, worked)
    return tuple(found)


_STRIPS: Final = {"anodised": "strip-anodising", "lacquered": "strip-lacquer"}


def protection_of(job: Job) -> tuple[str, float | None]:
    """What protects the part at the end ("none", "oil", "wax" or "lacquer"), and within how many seconds it must be on."""
    chosen = job.material.protection if job.part.protect == "usual" else job.part.protect
    if job.part.protect == "usual" and any(face.want.deformed == 0 for face in job.faces if not face.keep_off):
        chosen = "none"  # a face that waits for paint must stay clean
    return chosen, job.material.protect_within


def _finishing(job: Job, worked: list[FacePlan]) -> list[Operation]:
    kin = family(job.material.family)
    no_bath = not kin.bath or _area(job, largest=True) > constant("work.bath").si
    forbids = job.forbids | ({"ultrasonic"} if no_bath else set())
    residue = next(key for key in _RESIDUE if not forbids & set(record("operations")[key].get("forbidden_by", ())))
    found = [_operation(residue, "after", job)]
    protect, within = protection_of(job)
    painted = any(plan.face.want.deformed == 0 for plan in worked)
    if protect == "lacquer" or painted:
        gentle = not kin.alcohol or "solvent" in forbids
        found.append(_operation("degrease-plastic" if gentle else "degrease", "after", job))
    if protect != "none":
        found.append(_operation(protect, "after", job, within=within))
    found.append(_operation("compare", "after", job))
    return found


def _area(job: Job, *, largest: bool = False) -> float:
    areas = [face.area for face in job.faces if not face.keep_off]
    return max(areas, default=0.0) if largest else sum(areas)


def blocked(job: Job) -> str | None:
    """Why the coat on this part can not be dealt with here; None when it can."""
    if job.part.covering == "painted":
        return "Painted parts are not stripped by this route: have the paint taken off first, then describe what is found."
    if (key := _STRIPS.get(job.part.covering)) is None:
        return None
    if key == "strip-anodising" and not family(job.material.family).anodises:
        return f"Anodising is a coat of aluminium; this part is {job.material.label.lower()}. Say what covers it instead."
    stopped = job.forbids & set(record("operations")[key].get("forbidden_by", ()))
    if stopped:
        return "What is stuck in this part does not bear the stripping: take it out first, or leave the coat on."
    return None


def _operation(
    key: str, when: When, job: Job, *, times: int = 1, counted: bool = False, within: float | None = None
) -> Operation:
    row: dict[str, Any] = record("operations")[key]
    active = times * row["active"].si + (row["per_dm2"].si * _area(job) / _DM2 if "per_dm2" in row else 0.0)
    passive = row["passive"].si if "passive" in row else 0.0
    return Operation(
        id=key,
        label=row["label"],
        when=when,
        text=row["text"],
        active=active,
        passive=passive,
        counted=counted,
        within=within,
        source=row["active"].source,
        cautions=tuple(row.get("cautions", ())),
    )
