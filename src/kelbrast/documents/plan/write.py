"""From a plan of the core to the plan file."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import asdict

from kelbrast.core.catalogue.damages import called
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import Yours
from kelbrast.core.planning.face.face_plan import FacePlan, SpotsLeft, size_plan
from kelbrast.core.planning.face.fallback import Fallback
from kelbrast.core.planning.face.step import Rests, Step, ZoneOfStep
from kelbrast.core.planning.whole.account import StepShare, Times, shares
from kelbrast.core.planning.whole.operations import Operation
from kelbrast.core.planning.whole.plan import DoneWithout, Plan, Shortage
from kelbrast.core.planning.whole.set_ups import SetUp, set_ups
from kelbrast.core.planning.whole.spread import CAUSES, allowance, high_of_face, high_of_steps, spread_of_plan
from kelbrast.core.planning.whole.together import Gained
from kelbrast.core.precision.readings import everywhere
from kelbrast.core.process.scratch import marks_said
from kelbrast.core.rack.offer import Refused
from kelbrast.core.surface.edge import Edge
from kelbrast.core.units import from_si
from kelbrast.core.wording import Sentence, tell
from kelbrast.documents.common.fields import shop, shop_all, shop_or_none
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.plan.format import (
    AccountFile,
    EdgePlan,
    FacePlanFile,
    FaceStep,
    FallbackFile,
    FitPlan,
    GatheredFile,
    OperationFile,
    PlanFile,
    RackCheck,
    RefusedFile,
    RestsFile,
    SetUpFile,
    ShortFile,
    SimplerFinish,
    Spent,
    SpotsLeftFile,
    SpreadShare,
    StepFile,
    TogetherFile,
    YoursFile,
    ZoneFile,
)
from kelbrast.documents.size.answer import to_places, to_size_answer


def to_plan_file(plan: Plan) -> PlanFile:
    """The plan in the units of the file."""
    contributed = plan.shares
    spread, account, allowed = spread_of_plan(plan), plan.account, allowance(plan, plan.job.pieces)
    names = {face.face.key: face.face.name for face in plan.faces}
    return PlanFile(
        title=plan.job.title,
        material=plan.job.material.id,
        pieces=plan.job.pieces,
        lots=list(plan.lots),
        possible=plan.possible,
        blocked=plan.blocked,
        minutes=shop(plan.seconds_each, "min"),
        minutes_high=shop(spread.high, "min"),
        spread=[SpreadShare(cause=cause, label=CAUSES[cause], share=shop(share, "1")) for cause, share in spread.causes],
        around_minutes=shop(account.by_itself.before_after, "min"),
        hands_on_minutes=shop(account.all.hands_on, "min"),
        hands_on_minutes_high=shop(allowed.hands_on, "min"),
        start_to_finish_minutes=shop(account.all.start_to_finish, "min"),
        account=_times(account.all),
        account_each=_times(account.each),
        account_lot=_times(account.once),
        account_high=_times(allowed.lines),
        changes=plan.changes,
        order=[names[key] for key in plan.order],
        faces=[
            face_plan_file(face, plan.job, instead, contributed)
            for face, instead in zip(plan.faces, plan.fallbacks, strict=True)
        ],
        set_ups=[_set_up(set_up, names) for set_up in plan.set_ups],
        together=_together(plan.gained, plan.job) if plan.gained else None,
        planned_from="own" if plan.job.own is not None else "catalogue",
        gather=[
            GatheredFile(
                tool=gathered.tool.id, label=gathered.tool.label, count=gathered.count, unit=gathered.tool.carrier.stock.unit
            )
            for gathered in plan.gather
        ],
        operations=[_operation(operation) for operation in plan.operations],
        cautions=list(plan.cautions),
        advice=list(plan.advice),
    )


def _together(gained: Gained, job: Job) -> TogetherFile:
    return TogetherFile(
        saves_minutes=shop(gained.seconds, "min"),
        saves_changes=gained.changes,
        exact=gained.exact,
        at_most=shop(gained.at_most, "min" if job.aim == "time" else "1"),
    )


def _times(times: Times) -> AccountFile:
    return AccountFile(**{line: shop(seconds, "min") for line, seconds in asdict(times).items()})


def face_plan_file(
    plan: FacePlan, job: Job, instead: Fallback | None = None, within: Sequence[StepShare] | None = None
) -> FacePlanFile:
    """One face in the units of the file.

    Args:
        within: what the steps of its plan contribute to the account; None for a face that is planned by itself.
    """
    contributed = shares(set_ups((plan,)), (plan,), job.factors) if within is None else within
    mine = {share.number: share for share in contributed if share.face == plan.face.key}
    return FacePlanFile.model_construct(
        id=plan.face.key,
        name=plan.face.name,
        possible=plan.possible,
        binding=plan.binding.rule if plan.binding else None,
        reason=tell(plan.binding.reason) if plan.binding else None,
        reason_said=to_sentence_file(plan.binding.reason) if plan.binding else None,
        keep_off=plan.face.keep_off,
        found_as=", ".join(dict.fromkeys(word for found in plan.face.found_anywhere if (word := called(found.called)))),
        edge=_edge(plan.face.edge) if plan.face.edge else None,
        aim=plan.aim,
        minutes=shop(plan.seconds, "min"),
        minutes_high=shop(high_of_face(plan, job), "min"),
        metal_um=shop(plan.metal, "um"),
        above_um=shop(plan.above, "um"),
        cost=shop(plan.cost, "money"),
        changes=plan.changes,
        area_cm2=shop(plan.face.area, "cm2"),
        limit_um=shop_or_none(plan.face.limit, "um"),
        limit_kind=plan.face.limit_kind,
        wanted_depth_um=shop_or_none(plan.wanted[1], "um"),
        wanted_low_um=shop(plan.wanted[0], "um") if plan.wanted[0] > 0 else None,
        rework_minutes=shop(plan.rework, "min"),
        without_habit_minutes=shop_or_none(plan.without_habit, "min"),
        end_note=to_sentence_file(plan.end_note) if plan.end_note else None,
        limit_note=to_sentence_file(plan.limit_note) if plan.limit_note else None,
        habit_note=tell(plan.habit_note) if plan.habit_note else None,
        wish_note=tell(plan.wish_note) if plan.wish_note else None,
        marks_left=_count_of_marks(plan.marks_left),
        marks_said=_left(plan.marks_said),
        fallback=_fallback(instead) if instead else None,
        metal_elsewhere_um=shop_or_none(plan.metal_elsewhere, "um"),
        rest_um=shop_or_none(plan.rest, "um"),
        all_alike_minutes=shop_or_none(plan.all_alike, "min"),
        left=[_spots_left(left) for left in plan.left],
        fit=_fit(plan, job) if plan.face.sized else None,
        steps=[
            _step(step, high, mine[number])
            for number, (step, high) in enumerate(zip(plan.steps, high_of_steps(plan, job), strict=True), start=1)
        ],
    )


def to_rack_check(short: Sequence[Shortage], without: DoneWithout | None, refused: Sequence[Refused]) -> RackCheck:
    """The plan against the rack, in the units of the file. What is no sane alternative is not offered."""
    offered = without.plan if without is not None and without.sane else None
    return RackCheck(
        short=[
            ShortFile(
                tool=shortage.tool.id,
                label=shortage.tool.label,
                unit=shortage.tool.carrier.stock.unit,
                need=shortage.need,
                have=shortage.have,
            )
            for shortage in short
        ],
        without_minutes=shop(offered.account.all.hands_on, "min") if offered is not None else None,
        without_possible=without is None or offered is not None,
        without_tools=sorted(without.tools) if without is not None and offered is not None else [],
        refused=[RefusedFile(tool=item.tool, label=tool(item.tool).label, reason=item.reason) for item in refused],
    )


def _fit(plan: FacePlan, job: Job) -> FitPlan:
    sized = plan.face.sized
    assert sized is not None, "asked for a face that has a size"
    said, part = size_plan(plan, job.material), sized.part
    return FitPlan(
        limits_mm=(shop(part.wanted.low, "mm"), shop(part.wanted.high, "mm")),
        answer=to_size_answer(plan.face.name, said) if said else None,
        places=to_places(everywhere(length=part.length)),
    )


def _edge(edge: Edge) -> EdgePlan:
    return EdgePlan(length_mm=shop(edge.length, "mm"), wanted=edge.wanted, size_mm=shop(edge.size, "mm"))


def _step(step: Step, high: float, share: StepShare) -> StepFile:
    on_face, carrier = step.on_face, step.tool.carrier
    marks, working, band = step.marks, on_face.working, on_face.setting.band
    return StepFile.model_construct(
        tool=step.tool.id,
        label=step.tool.label,
        machine=on_face.machine.id,
        machine_label=on_face.machine.label,
        grain_um=shop(step.tool.grain, "um"),
        from_um=shop(marks.before, "um"),
        likely_um=shop(marks.likely_before, "um"),
        takes_um=shop(marks.layer, "um"),
        leaves_um=shop(marks.after, "um"),
        leaves_ra_um=shop(on_face.ra, "um"),
        clearance=shop(marks.clearance, "1"),
        minutes=shop(step.time.all, "min"),
        minutes_high=shop(high, "min"),
        cut_minutes=shop(step.time.cut, "min"),
        handling_minutes=shop(share.each.handling, "min"),
        lot_handling_minutes=shop(share.once.handling, "min"),
        set_up_minutes=shop(share.once.set_up, "min"),
        speed_m_s=shop(on_face.setting.surface, "m/s"),
        rpm=shop_or_none(on_face.setting.spindle, "rev/min"),
        speed_limit_m_s=shop_or_none(on_face.drive.marked, "m/s"),
        speed_band_m_s=(shop(band[0], "m/s"), shop(band[1], "m/s")) if band else None,
        diameter_mm=shop_or_none(on_face.drive.diameter, "mm"),
        new_diameter_mm=shop_or_none(carrier.running.diameter if carrier.stock.wears_down else None, "mm"),
        force_n=working.force,
        pressure="light" if working.light else "normal",
        wet=working.wet,
        longest_stay_s=shop(working.stay, "s") if working.stay < from_si(3600, "s") else None,
        rests=_rests(step.time.rests) if step.time.rests else None,
        marks_left=_count_of_marks(marks.left),
        marks_said=_left(marks_said(marks.left, marks.share)),
        stays_um=shop(marks.stays, "um"),
        item=step.own.item if step.own else None,
        commits=step.own.commits if step.own else False,
        life_minutes=shop_or_none(step.use.life if math.isfinite(step.use.life) else None, "min"),
        change_after_minutes=shop_or_none(step.use.change_after if math.isfinite(step.use.change_after) else None, "min"),
        recharge=carrier.cutting.wear_law == "compound",
        yours=YoursFile(**asdict(on_face.yours)) if on_face.yours != Yours() else None,
        spent=Spent(count=round(step.use.at_hand), unit=carrier.stock.unit, worn=shop(step.use.worn, "1")),
        cost=shop(step.use.cost, "money"),
        lay=step.lay,
        check=step.check,
        cautions=list(step.cautions),
        advice=list(step.advice),
        zone=_zone(step.zone) if step.zone else None,
        goes_on=step.goes_on,
        curve=_curve(step.curve),
    )


def _zone(zone: ZoneOfStep) -> ZoneFile:
    return ZoneFile(
        spots=[spots.name for spots in zone.spots],
        ids=[spots.key for spots in zone.spots],
        begun=[spots.key for spots in zone.begun],
        area_cm2=shop(zone.area, "cm2"),
        margins_mm=shop_all(zone.margins, "mm"),
        band=zone.band,
        count=sum(spots.count for spots in zone.spots),
    )


def _spots_left(left: SpotsLeft) -> SpotsLeftFile:
    return SpotsLeftFile(
        spots=left.spots.name,
        id=left.spots.key,
        least_um=shop(left.least, "um"),
        may_um=shop(left.may, "um"),
        dish_radius_mm=shop(left.dish, "mm"),
        dish_stays_um=shop(left.dish_stays, "um"),
    )


def _curve(curve: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    seconds, depths = zip(*curve, strict=True)
    return list(zip(shop_all(seconds, "min"), shop_all(depths, "um"), strict=True))


def _rests(rests: Rests) -> RestsFile:
    return RestsFile(
        count=rests.count,
        seconds=shop(rests.seconds, "s"),
        after_seconds=shop(rests.after, "s"),
        by_hand=rests.by_hand,
    )


def _left(said: Sentence) -> SentenceFile | None:
    """The marks that are left in words; null where there are none."""
    return None if said.code == "marks.none" else to_sentence_file(said)


def _count_of_marks(expected: float) -> float:
    """An expected number of marks: below a thousandth it is none."""
    return 0.0 if expected < 1e-3 else shop(expected, "1")


def _fallback(instead: Fallback) -> FallbackFile:
    return FallbackFile(
        cleared_um=shop(instead.cleared, "um"),
        stays_um=shop(instead.stays, "um"),
        minutes=shop(instead.plan.seconds, "min") if instead.plan else None,
        dear=instead.dear,
        tools=[step.tool.label for step in instead.plan.steps] if instead.plan else [],
        simpler=[
            SimplerFinish(finish=finish.id, label=finish.label, minutes=shop(seconds, "min"))
            for finish, seconds in instead.simpler
        ],
        dish_radius_mm=shop(instead.dish, "mm"),
        dish_stays_um=shop(instead.dish_stays, "um"),
    )


def _operation(operation: Operation) -> OperationFile:
    return OperationFile(
        id=operation.id,
        label=operation.label,
        when=operation.when,
        text=operation.text,
        minutes=shop(operation.active, "min"),
        lot_minutes=shop(operation.lot, "min"),
        waiting_minutes=shop(operation.passive, "min"),
        counted=operation.counted,
        within_minutes=shop_or_none(operation.within, "min"),
        source_kind=operation.source.kind,
        source=operation.source.title,
        cautions=list(operation.cautions),
        check=operation.check,
    )


def _set_up(set_up: SetUp, names: Mapping[str, str]) -> SetUpFile:
    return SetUpFile(
        tool=set_up.tool.id,
        label=set_up.tool.label,
        machine=set_up.machine.id,
        machine_label=set_up.machine.label,
        rpm=shop_or_none(set_up.spindle, "rev/min"),
        steps=[FaceStep(face=names[key], face_id=key, step=step) for key, step in set_up.faces],
        saved_minutes=shop(set_up.saved, "min"),
    )
