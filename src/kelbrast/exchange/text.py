"""A plan as plain text, for a terminal or a piece of paper."""

from kelbrast.exchange.goback_file import GoBackFile
from kelbrast.exchange.plan_file import FacePlanFile, PlanFile, StepFile


def plan_text(plan: PlanFile) -> str:
    """The plan in words, a block per face in the order of the file."""
    head = [plan.title, f"{plan.material}, {_count(plan.pieces, 'piece')}, {_minutes(plan.minutes)} each"]
    if len(plan.order) > 1:
        head.append("Order of work: " + ", ".join(plan.order))
    blocks = ["\n".join(head), *(_face_text(face) for face in plan.faces)]
    blocks.append("\n".join(f"! {caution}" for caution in plan.cautions))
    return "\n\n".join(blocks)


def goback_text(made: GoBackFile) -> str:
    """The way on from a failed light check, and what the other choices cost."""
    back = made.goback
    lines = [f"A mark of {figures(back.depth_um)} µm after step {back.after} of {made.faces[0].name}"]
    if back.missed_step is not None:
        lines.append(f"Step {back.missed_step} was left too early.")
    for name, choice in (("Over a patch", back.patch), ("Over the whole face", back.whole)):
        if choice is not None:
            said = f"{_minutes(choice.minutes)}, {figures(choice.metal_um)} µm off" if choice.possible else str(choice.reason)
            lines.append(f"{name}: {said}")
    seen = "it will show" if back.accept.shows else "it will not show"
    lines.append(f"Accepting it leaves {figures(back.accept.depth_um)} µm: {seen}.")
    extent = "patch" if back.extent == "patch" else "whole face"
    return "\n".join(lines) + f"\n\nThe quicker way, {extent}:\n" + _face_text(made.faces[0])


def _face_text(face: FacePlanFile) -> str:
    if face.keep_off:
        return f"{face.name}: keep off, mask it"
    if not face.possible:
        return f"{face.name}: not possible ({face.binding})\n  {face.reason}"
    if not face.steps:
        return f"{face.name}: nothing to do, it is as wanted already"
    limit = f" of {figures(face.limit_um)}" if face.limit_um is not None else ""
    metal, changes = f"{figures(face.metal_um)}{limit} µm off", _count(face.changes, "change")
    lines = [f"{face.name}: {_minutes(face.minutes)}, {metal}, {changes}"]
    if face.habit_note:
        lines.append(f"  {face.habit_note}")
    if face.nicks:
        dish = f"a dish of {figures(face.nicks.dish_radius_mm)} mm radius around each nick"
        other = _minutes(face.nicks.other_minutes) if face.nicks.other_minutes is not None else "no route"
        if face.nicks.blended:
            lines.append(f"  Blend {dish}; lowering the whole face: {other}")
        else:
            lines.append(f"  Lower the whole face; {dish}: {other}")
    for number, step in enumerate(face.steps, start=1):
        lines += _step_lines(number, step)
    return "\n".join(lines)


def _step_lines(number: int, step: StepFile) -> list[str]:
    speed = f"{step.speed_m_s:.1f} m/s"
    if step.rpm is not None:
        speed = f"{step.rpm:.0f} rev/min, {speed}"
    stay = f", at most {figures(step.longest_stay_s)} s on one spot" if step.longest_stay_s is not None else ""
    return [
        f"  {number}. {step.label} ({step.machine_label}; {speed})",
        f"     {_minutes(step.minutes)}: {figures(step.from_um)} -> {figures(step.leaves_um)} µm deep,"
        f" takes {figures(step.takes_um)} µm, {step.pressure} pressure{stay}",
        f"     Lay: {step.lay}. {step.check}",
        *(f"     ! {caution}" for caution in step.cautions),
    ]


def figures(value: float) -> str:
    """Two significant figures, without an exponent.

    >>> figures(0.0337), figures(1234.0)
    ('0.034', '1200')
    """
    return f"{float(f'{value:.2g}'):.10g}"


def _minutes(minutes: float) -> str:
    return f"{figures(minutes)} min"


def _count(count: int, what: str) -> str:
    return f"{count} {what}" if count == 1 else f"{count} {what}s"
