"""A plan for a spreadsheet: a row a step, in the order in which the faces are worked."""

from typing import Any, Final

from kelbrast.exchange.csv_text import csv_text
from kelbrast.exchange.plan_file import FacePlanFile, PlanFile, StepFile

PLAN_COLUMNS: Final = (
    "face", "step", "tool", "machine", "grain_um", "from_um", "takes_um", "leaves_um", "leaves_ra_um", "minutes",
    "minutes_high", "rpm", "speed_m_s", "diameter_mm", "pressure", "wet", "longest_stay_s", "lay", "cost", "check", "cautions",
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
    ]  # fmt: skip
