"""What stands on the job card, in the reader's units: the screen and the PDF show the same."""

from pydantic import BaseModel

from kelbrast.core.units import to_si
from kelbrast.core.wording import Measure, System, measured, minutes_range
from kelbrast.documents.plan.format import FacePlanFile, PlanFile, StepFile
from kelbrast.documents.plan.text import account_text, figures, operation_times, reason_text, turning_text, zone_text


class CardOperation(BaseModel):
    """Work around the abrasives, to tick."""

    label: str
    text: str
    cautions: list[str]


class CardStep(BaseModel):
    """A row of the table, to tick."""

    tool: str
    speed: str
    minutes: str
    takes: str
    leaves: str
    until: str


class CardFace(BaseModel):
    """A face: its name with what becomes of it, and its steps."""

    heading: str
    steps: list[CardStep]


class CardFile(BaseModel):
    """The card from top to bottom."""

    title: str
    summary: str
    blocked: str | None
    lay_out: str
    order: str
    before: list[CardOperation]
    faces: list[CardFace]
    between: list[CardOperation]
    after: list[CardOperation]
    beware: str


def card_of(plan: PlanFile, *, material: str, system: System) -> CardFile:
    """The card of a plan. `material`: as people call it."""
    pieces = "1 piece" if plan.pieces == 1 else f"{plan.pieces} pieces"
    place = {name: at for at, name in enumerate(plan.order)}
    cautions = dict.fromkeys([*plan.cautions, *(c for face in plan.faces for step in face.steps for c in step.cautions)])
    return CardFile(
        title=plan.title,
        summary=" ".join([f"{material}, {pieces}.", *account_text(plan)]),
        blocked=plan.blocked,
        lay_out=", ".join(
            f"{gathered.label} ({gathered.count} {gathered.unit}{'s' if gathered.count > 1 else ''})"
            for gathered in plan.gather
        ),
        order=", then ".join(plan.order) if len(plan.order) > 1 else "",
        before=_operations(plan, "before"),
        faces=[_face(face, system) for face in sorted(plan.faces, key=lambda face: place.get(face.name, -1))],
        between=_operations(plan, "between"),
        after=_operations(plan, "after"),
        beware=" ".join(cautions),
    )


def _operations(plan: PlanFile, when: str) -> list[CardOperation]:
    return [
        CardOperation(
            label=f"{operation.label} ({operation_times(operation, plan.pieces)})",
            text=operation.text,
            cautions=list(operation.cautions),
        )
        for operation in plan.operations
        if operation.when == when
    ]


def _face(face: FacePlanFile, system: System) -> CardFace:
    limit = f" of {_depth(face.limit_um, system)}" if face.limit_um is not None else ""
    off = _depth(max(0.0, face.metal_um - face.above_um), system)
    elsewhere = (
        f" at the spots, {_depth(face.metal_elsewhere_um, system)} elsewhere" if face.metal_elsewhere_um is not None else ""
    )
    told = f"{minutes_range(face.minutes, face.minutes_high)}, {off}{limit} off{elsewhere}"
    stay = "".join(f"; left as found: {left.spots}" for left in face.left)
    if face.keep_off:
        told = "keep off, mask it"
    elif not face.possible:
        told = f"not possible. {reason_text(face, system)}"
    elif face.edge is not None and face.edge.wanted == "sharp":
        told = "stays sharp, let no wheel roll over it"
    elif not face.steps:
        told = "as wanted already"
    return CardFace(
        heading=f"{face.name}: {told}{stay}", steps=[_step(n, step, system) for n, step in enumerate(face.steps, start=1)]
    )


def _step(number: int, step: StepFile, system: System) -> CardStep:
    stay = f" At most {figures(step.longest_stay_s)} s on one spot." if step.longest_stay_s is not None else ""
    rests = f" Put it down to cool {step.rests.count} times." if step.rests is not None else ""
    places = f" on {zone_text(step.zone, system)}" if step.zone else ""
    pressure = "light" if step.pressure == "light" else "light to medium"
    return CardStep(
        tool=f"{number}. {step.label}{places}, {pressure} pressure{', wet' if step.wet else ''}",
        speed=f"{step.machine_label}: {turning_text(step, system)}",
        minutes=minutes_range(step.minutes, step.minutes_high).removesuffix(" min"),
        takes=_depth(step.takes_um, system),
        leaves=_depth(step.leaves_um, system),
        until=f"{step.check}{rests} Lay: {step.lay}.{stay}",
    )


def _depth(um: float | None, system: System) -> str:
    return "-" if um is None else measured(Measure(to_si(um, "um"), "depth"), system)
