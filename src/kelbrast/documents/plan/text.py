"""A plan as plain text, for a terminal or a piece of paper, and as a table."""

from typing import Any, Final

from kelbrast.core.planning.whole.account import LINES
from kelbrast.core.units import to_si
from kelbrast.core.wording import Measure, System, counted, measured, minutes_range, minutes_text, tell
from kelbrast.documents.common.csv_text import csv_text
from kelbrast.documents.common.sentences import to_sentence
from kelbrast.documents.plan.format import (
    FacePlanFile,
    OperationFile,
    PlanFile,
    RackCheck,
    SetUpFile,
    SpotsLeftFile,
    StepFile,
    ZoneFile,
)
from kelbrast.documents.plan.questions import AdviceFile, ChoiceFile, GoBackFile, WayFile, WeighFile


def plan_text(plan: PlanFile) -> str:
    """The plan in words, a block per face in the order of the file."""
    head = [plan.title, f"{plan.material}, {counted(plan.pieces, 'piece')}", *account_text(plan)]
    if plan.blocked:
        head.append(f"! {plan.blocked}")
    if len(plan.order) > 1:
        head.append("Order of work: " + ", ".join(plan.order))
    if (together := plan.together) is not None:
        changes = f" and {counted(together.saves_changes, 'wheel change')}" if together.saves_changes > 0 else ""
        saved = f"{minutes_text(max(0.0, together.saves_minutes))}{changes} less than each face's own best"
        head.append(
            f"The routes of the faces are chosen together: {saved}{'' if together.exact else '; a better choice may exist'}."
        )
    shared = [f"Set up once for {_and(set_up)}: {set_up.label}" for set_up in plan.set_ups if len(_faces(set_up)) > 1]
    blocks = ["\n".join([*head, *shared])]
    if plan.rack is not None and plan.rack.short:
        blocks.append(_short(plan.rack))
    blocks += _operations("Before", plan, "before")
    blocks += [_face_text(face) for face in plan.faces]
    blocks += [*_operations("Between", plan, "between"), *_operations("After", plan, "after")]
    blocks.append("\n".join([*(f"! {caution}" for caution in plan.cautions), *(f"* {one}" for one in plan.advice)]))
    return "\n\n".join(blocks)


def account_text(plan: PlanFile) -> list[str]:
    """The totals, the lines of the account, and what varies most; nothing where nothing is planned."""
    if plan.account is None or plan.hands_on_minutes_high is None:
        return []
    lines = [(LINES[line].lower(), getattr(plan.account, line)) for line in LINES]
    hands_on, most = minutes_text(plan.hands_on_minutes), minutes_text(plan.hands_on_minutes_high)
    told = [f"Hands-on {hands_on}, allow up to {most}. Start to finish {minutes_text(plan.start_to_finish_minutes)}."]
    told.append(f"{', '.join(f'{label} {minutes_text(minutes)}' for label, minutes in lines if minutes)}.".capitalize())
    if plan.spread:
        causes = ", then ".join(f"{cause.label} ({100 * cause.share:.0f} %)" for cause in plan.spread[:2])
        told.append(f"What varies most: {causes}.")
    return told


def _and(set_up: SetUpFile) -> str:
    return " and ".join(_faces(set_up))


def _faces(set_up: SetUpFile) -> list[str]:
    """The names of the faces that share it, each once."""
    return list(dict.fromkeys(step.face for step in set_up.steps))


def _short(check: RackCheck) -> str:
    """What the rack has not, and the best without it."""
    lines = ["Missing on the rack"]
    lines += [f"  {short.label}: {figures(short.have)} of {short.need}" for short in check.short]
    best = (
        f"  Best without: {minutes_text(check.without_minutes)}" if check.without_minutes is not None else "  No plan without"
    )
    return "\n".join([*lines, best])


def operation_times(operation: OperationFile, pieces: int) -> str:
    """How long it takes: for each piece and once for a lot where they differ, the waiting, and how soon it must be done."""
    each, once = operation.minutes, operation.lot_minutes
    parts = [minutes_text(each + once)]
    if pieces > 1:
        parts = [f"{minutes_text(minutes)} {word}" for minutes, word in ((each, "each"), (once, "once")) if minutes]
    waiting = f", then {minutes_text(operation.waiting_minutes)} of waiting" if operation.waiting_minutes else ""
    soon = f", within {minutes_text(operation.within_minutes)}" if operation.within_minutes else ""
    return f"{' and '.join(parts)}{waiting}{soon}"


def _operations(title: str, plan: PlanFile, when: str) -> list[str]:
    """A block, or none when there is nothing of that kind."""
    lines = []
    for operation in plan.operations:
        if operation.when == when:
            lines.append(f"  {operation.label} ({operation_times(operation, plan.pieces)}): {operation.text}")
            lines += [f"  ! {caution}" for caution in operation.cautions]
    return ["\n".join([title, *lines])] if lines else []


def goback_text(made: GoBackFile) -> str:
    """The way on from a failed light check, and what the other choices cost."""
    back = made.goback
    lines = [f"A mark of {figures(back.depth_um)} µm after step {back.after} of {made.faces[0].name}"]
    if back.missed_step is not None:
        lines.append(f"Step {back.missed_step} was left too early.")
    if back.deeper:
        lines.append("It is deeper than the face was described: no step was left too early.")
    for name, choice in (("Where the mark is", back.patch), ("Over the whole face", back.whole)):
        if choice is not None:
            taken = f"{minutes_text(choice.minutes)}, {figures(choice.metal_um)} µm off"
            said = taken if choice.possible else str(choice.reason)
            lines.append(f"{name}: {said}")
    seen = "it will show" if back.accept.shows else "it will not show"
    lines.append(f"Accepting it leaves {figures(back.accept.depth_um)} µm: {seen}.")
    extent = "where the mark is" if back.extent == "patch" else "over the whole face"
    return "\n".join(lines) + f"\n\nThe quicker way, {extent}:\n" + _face_text(made.faces[0])


def weigh_text(made: WeighFile) -> str:
    """Aims and habits side by side, then for every face the best trade-offs, and the bet on its depth."""
    ways = made.choices
    blocks = [made.title]
    for title, rows in (
        ("Ways that differ", ways.ways),
        ("By aim", ways.by_aim),
        ("By jump between grades", ways.by_habit),
        ("By where the wheel starts", ways.by_handover),
        ("By speed at the bench", ways.by_bench_speed),
    ):
        blocks.append("\n".join([title, *(f"  {row.label:32} {_way(row)}" for row in rows)]))
    blocks.append(ways.schools)
    blocks += [_weighed(face) for face in made.faces]
    return "\n\n".join(blocks)


def _way(choice: ChoiceFile) -> str:
    if not choice.possible:
        return "not possible"
    kept = "" if choice.kept else ", not kept on every face"
    in_all = f", hands-on in all {minutes_text(choice.hands_on_minutes)}" if isinstance(choice, WayFile) else ""
    return _sums(choice.minutes, choice.metal_um, choice.cost, choice.changes) + in_all + kept


def _sums(minutes: float, metal_um: float, cost: float, changes: int) -> str:
    return f"{minutes_text(minutes):>9}  {figures(metal_um):>5} µm  cost {cost:6.2f}  {counted(changes, 'change')}"


def _weighed(face: AdviceFile) -> str:
    lines = [f"{face.face}: {counted(len(face.front), 'route')} among the best trade-offs"]
    for route in face.front:
        lines.append(f"  {_sums(route.minutes, route.metal_um, route.cost, route.changes)}  {', '.join(route.labels)}")
    if face.named:
        lines.append("  What each would take:")
    for named in face.named:
        sums = _sums(named.minutes, named.metal_um, named.cost, named.changes)
        lines.append(f"  {sums}  {', '.join(named.names)}: {', '.join(named.labels)}")
    if face.bet is not None:
        bet = face.bet
        first = f"try {bet.fine_label} on a patch" if bet.try_first else f"start with {bet.coarse_label}"
        lines.append(
            f"  The depth is a guess. {bet.coarse_label} at once: {minutes_text(bet.sure_minutes)}; {bet.fine_label} on a patch"
            f" first: {minutes_text(bet.trying_minutes)}. Rather {first}."
        )
    return "\n".join(lines)


def _face_text(face: FacePlanFile) -> str:
    if face.keep_off:
        return f"{face.name}: keep off, mask it"
    if not face.possible:
        return "\n  ".join([f"{face.name}: not possible ({face.binding})", str(face.reason), *_instead(face)])
    if face.edge is not None and face.edge.wanted == "sharp":
        return f"{face.name}: stays sharp, let no wheel roll over it"
    if not face.steps:
        return f"{face.name}: nothing to do, it is as wanted already"
    limit = f" of {figures(face.limit_um)}" if face.limit_um is not None else ""
    above = f" after {figures(face.above_um)} µm that stood above it" if face.above_um else ""
    metal = f"{figures(max(0.0, face.metal_um - face.above_um))}{limit} µm off{above}"
    if face.metal_elsewhere_um is not None:
        metal += f" at the spots, {figures(face.metal_elsewhere_um)} elsewhere"
    changes = counted(face.changes, "change")
    lines = [f"{face.name}: {minutes_range(face.minutes, face.minutes_high)}, {metal}, {changes}"]
    lines += [f"  {note}" for note in (face.wish_note, face.habit_note) if note]
    lines += [f"  {tell(to_sentence(note))}" for note in (face.end_note, face.limit_note) if note]
    if face.rework_minutes:
        lines.append(f"  Repeats to expect: {minutes_text(face.rework_minutes)} more.")
    if face.without_habit_minutes is not None:
        lines.append(f"  Without the habit: {minutes_text(face.without_habit_minutes)}, and more repeats to expect.")
    if face.marks_said is not None:
        said = tell(to_sentence(face.marks_said))
        lines.append(f"  {said[0].upper()}{said[1:]} can be expected to be left.")
    lines += [f"  {_left(left)}" for left in face.left]
    for number, step in enumerate(face.steps, start=1):
        lines += _step_lines(number, step)
    return "\n".join(lines)


def _left(left: SpotsLeftFile) -> str:
    costs = f"taking that out costs {figures(left.least_um)} µm, and {figures(left.may_um)} may come off"
    dish = f"Fill it, accept it, or leave a dish of {figures(left.dish_radius_mm)} mm radius"
    return f"Left as found: {left.spots}; {costs}. {dish if left.may_um > 0 else 'Fill it or accept it'}."


def _instead(face: FacePlanFile) -> list[str]:
    """What the limit leaves possible."""
    instead = face.fallback
    if instead is None:
        return []
    lines = []
    if instead.minutes is not None:
        lines.append(
            f"Within the limit marks to {figures(instead.cleared_um)} µm come out in {minutes_text(instead.minutes)}"
            f" ({', '.join(instead.tools)}); the deepest stays {figures(instead.stays_um)} µm deep."
            f"{' Hardly worth it.' if instead.dear else ''}"
        )
    if instead.simpler:
        some = ", ".join(
            f"{simpler_finish.label} ({minutes_text(simpler_finish.minutes)})" for simpler_finish in instead.simpler
        )
        lines.append(f"With every mark taken out: {some}.")
    dish = f"A dish of {figures(instead.dish_radius_mm)} mm radius around a single mark"
    lines.append(f"{dish} leaves {figures(instead.dish_stays_um)} µm in its middle, softened.")
    return lines


def _step_lines(number: int, step: StepFile) -> list[str]:
    speed = turning_text(step)
    stay = f", at most {figures(step.longest_stay_s)} s on one spot" if step.longest_stay_s is not None else ""
    stay += ", wet" if step.wet else ""
    if step.rests is not None:
        how = f"{figures(step.rests.after_seconds)} s of work, {figures(step.rests.seconds)} s each"
        stay += f"; {counted(step.rests.count, 'rest')} to cool ({how})"
    places = f", on {zone_text(step.zone)}" if step.zone else ""
    on = " goes on" if step.goes_on else ""
    return [
        f"  {number}. {step.label}{on}{places} ({step.machine_label}; {speed})",
        f"     {minutes_range(step.minutes, step.minutes_high)}: {figures(step.from_um)} -> {figures(step.leaves_um)} µm deep,"
        f" takes {figures(step.takes_um)} µm, {step.pressure} pressure{stay}",
        f"     Lay: {step.lay}. {step.check}",
        *(f"     ! {caution}" for caution in step.cautions),
        *(f"     * {advice}" for advice in step.advice),
    ]


def zone_text(zone: ZoneFile, system: System = "metric") -> str:
    """Which places a step works, and how much of the face that is: "gouges, 192 cm² in all"."""
    band = " in bands along the lay" if zone.band else ""
    return f"{' and '.join(zone.spots)}{band}, {measured(Measure(to_si(zone.area_cm2, 'cm2'), 'area'), system)} in all"


def turning_text(step: StepFile, system: System = "metric") -> str:
    """How fast it turns and runs, never above what was planned."""
    speed = measured(Measure(step.speed_m_s, "speed"), system)
    return speed if step.rpm is None else f"{step.rpm:.0f} rev/min, {speed}"


def reason_text(face: FacePlanFile, system: System = "metric") -> str:
    """Why a face is not possible, in the reader's units."""
    return tell(to_sentence(face.reason_said), system) if face.reason_said is not None else face.reason or ""


def figures(value: float) -> str:
    """Two significant figures, without an exponent.

    >>> figures(0.0337), figures(1234.0)
    ('0.034', '1200')
    """
    return f"{float(f'{value:.2g}'):.10g}"


PLAN_COLUMNS: Final = (
    "face", "step", "tool", "machine", "grain_um", "from_um", "takes_um", "leaves_um", "leaves_ra_um", "minutes",
    "minutes_high", "rpm", "speed_m_s", "diameter_mm", "pressure", "wet", "longest_stay_s", "lay", "cost", "check", "cautions",
    "spots", "area_cm2",
)  # fmt: skip


def plan_csv(plan: PlanFile) -> str:
    """A row a step; minutes and cost are of one piece. A face that has no route has a row with the reason as its tool."""
    return csv_text(PLAN_COLUMNS, (row for face in plan.faces for row in _rows(face)))


def _rows(face: FacePlanFile) -> list[list[Any]]:
    if not face.steps and face.reason:
        return [[face.name, None, face.reason, *[None] * (len(PLAN_COLUMNS) - 3)]]
    return [_row(face, at, step) for at, step in enumerate(face.steps, start=1)]


def _row(face: FacePlanFile, at: int, step: StepFile) -> list[Any]:
    return [
        face.name, at, step.label, step.machine_label, step.grain_um, step.from_um, step.takes_um, step.leaves_um,
        step.leaves_ra_um, step.minutes, step.minutes_high, step.rpm, step.speed_m_s, step.diameter_mm, step.pressure, step.wet,
        step.longest_stay_s, step.lay, step.cost, step.check, " ".join(step.cautions),
        " ".join(step.zone.spots) if step.zone else None, step.zone.area_cm2 if step.zone else face.area_cm2,
    ]  # fmt: skip
