"""The open plan file, `plan/1`: what the command line prints and the screens draw."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from kelbrast.core.planning.advice import LayOfStep
from kelbrast.core.planning.job import Aim
from kelbrast.core.planning.plan import FacePlan, Plan, Step
from kelbrast.core.planning.rules import Rule
from kelbrast.core.units import from_si
from kelbrast.exchange.shop_units import shop, shop_or_none


class Spent(BaseModel):
    """Abrasives for one piece: how many to have at hand, and how many of them (or of bars, tubs) are worn out."""

    count: int
    unit: str
    worn: float


class StepFile(BaseModel):
    """One step. `takes_um = clearance * from_um`, and `from_um` is the `leaves_um` of the step before."""

    tool: str
    label: str
    machine: str
    machine_label: str
    grain_um: float
    from_um: float
    likely_um: float
    takes_um: float
    leaves_um: float
    leaves_ra_um: float
    clearance: float
    minutes: float
    cut_minutes: float
    speed_m_s: float
    rpm: float | None
    speed_limit_m_s: float | None
    speed_band_m_s: tuple[float, float] | None
    diameter_mm: float | None
    force_n: float
    pressure: Literal["light", "normal"]
    longest_stay_s: float | None
    spent: Spent
    cost: float
    lay: LayOfStep
    check: str
    cautions: list[str]
    curve: Annotated[list[tuple[float, float]], Field(description="(minutes since the step began, deepest marks left in um)")]


class Nicks(BaseModel):
    """How nicks are taken out: blended in a dish around each, or the face lowered; and the minutes of the other way."""

    blended: bool
    count: int
    dish_radius_mm: float
    other_minutes: float | None


class FacePlanFile(BaseModel):
    """The route of one face; `steps` is empty when it is not possible, kept off, or as wanted already."""

    name: str
    possible: bool
    binding: Rule | None
    reason: str | None
    keep_off: bool
    aim: Aim
    minutes: float
    metal_um: float
    cost: float
    changes: int
    area_cm2: float
    limit_um: float | None
    wanted_depth_um: float | None
    wanted_low_um: float | None
    habit_note: str | None
    nicks: Nicks | None
    steps: list[StepFile]


class PlanFile(BaseModel):
    """The plan of a job, for one piece."""

    model_config = ConfigDict(title="Kelbrast plan, version 1")

    kelbrast: Literal["plan/1"] = "plan/1"
    title: str
    material: str
    pieces: int
    possible: bool
    minutes: float
    minutes_all: float
    order: list[str]
    faces: list[FacePlanFile]
    cautions: list[str]


def to_plan_file(plan: Plan) -> PlanFile:
    """The plan in the units of the file."""
    minutes = shop(plan.seconds_each, "min")
    return PlanFile(
        title=plan.job.title,
        material=plan.job.material.id,
        pieces=plan.job.pieces,
        possible=plan.possible,
        minutes=minutes,
        minutes_all=shop(plan.seconds_each * plan.job.pieces, "min"),
        order=list(plan.order),
        faces=[face_plan_file(face) for face in plan.faces],
        cautions=list(plan.cautions),
    )


def face_plan_file(plan: FacePlan) -> FacePlanFile:
    """One face in the units of the file."""
    return FacePlanFile.model_construct(
        name=plan.face.name,
        possible=plan.possible,
        binding=plan.binding.rule if plan.binding else None,
        reason=plan.binding.reason if plan.binding else None,
        keep_off=plan.face.keep_off,
        aim=plan.aim,
        minutes=shop(plan.seconds, "min"),
        metal_um=shop(plan.metal, "um"),
        cost=shop(plan.cost, "money"),
        changes=plan.changes,
        area_cm2=shop(plan.face.area, "cm2"),
        limit_um=shop_or_none(plan.face.limit, "um"),
        wanted_depth_um=shop_or_none(plan.wanted[1], "um"),
        wanted_low_um=shop(plan.wanted[0], "um") if plan.wanted[0] > 0 else None,
        habit_note=plan.habit_note,
        nicks=Nicks(
            blended=plan.nicks.blended,
            count=plan.nicks.count,
            dish_radius_mm=shop(plan.nicks.radius, "mm"),
            other_minutes=shop_or_none(plan.nicks.other_seconds, "min"),
        )
        if plan.nicks
        else None,
        steps=[_step(step) for step in plan.steps],
    )


def _step(step: Step) -> StepFile:
    fit, carrier = step.fit, step.tool.carrier
    band = fit.setting.band
    return StepFile.model_construct(
        tool=step.tool.id,
        label=step.tool.label,
        machine=fit.machine.id,
        machine_label=fit.machine.label,
        grain_um=shop(step.tool.grain, "um"),
        from_um=shop(step.depth_before, "um"),
        likely_um=shop(step.likely_before, "um"),
        takes_um=shop(step.layer, "um"),
        leaves_um=shop(step.depth_after, "um"),
        leaves_ra_um=shop(fit.ra, "um"),
        clearance=shop(step.clearance, "1"),
        minutes=shop(step.seconds, "min"),
        cut_minutes=shop(step.cut_seconds, "min"),
        speed_m_s=shop(fit.setting.surface, "m/s"),
        rpm=shop_or_none(fit.setting.spindle, "rev/min"),
        speed_limit_m_s=shop_or_none(carrier.marked_limit, "m/s"),
        speed_band_m_s=(shop(band[0], "m/s"), shop(band[1], "m/s")) if band else None,
        diameter_mm=shop_or_none(carrier.diameter, "mm"),
        force_n=fit.force,
        pressure="light" if fit.light else "normal",
        longest_stay_s=shop(fit.stay, "s") if fit.stay < from_si(3600, "s") else None,
        spent=Spent(count=round(step.used), unit=carrier.unit, worn=shop(step.worn, "1")),
        cost=shop(step.worn * carrier.price, "money"),
        lay=step.lay,
        check=step.check,
        cautions=list(step.cautions),
        curve=[(shop(seconds, "min"), shop(depth, "um")) for seconds, depth in step.curve],
    )
