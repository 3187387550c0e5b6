"""What a person asks of a plan: other aims and habits, trade-offs, a bet on the depth, what if, why, going back."""

from typing import Annotated, Any

from pydantic import BaseModel, Field

from kelbrast.core.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, Aim, BenchSpeed, HabitKey, Handover, Job
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.pareto import ParetoFront
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, METAL, TIME, Route
from kelbrast.core.planning.questions.choices import Choices, JobChoice, NamedRoute, Way
from kelbrast.core.planning.questions.derivation import Derivation, Given
from kelbrast.core.planning.questions.goback import Extent, GoingBack, plan_of
from kelbrast.core.planning.questions.guess import Bet
from kelbrast.core.planning.questions.whatif import Change, WhatIf
from kelbrast.core.reference.loader import record
from kelbrast.core.reference.schemas import KINDS
from kelbrast.core.surface.face import Wish
from kelbrast.documents.common.fields import shop
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.job.format import WishFile
from kelbrast.documents.plan.format import FacePlanFile, PlanFile
from kelbrast.documents.plan.write import face_plan_file, to_plan_file


class FrontRoute(BaseModel):
    """A route that no other beats in minutes, metal, cost and changes at once."""

    tools: list[str]
    labels: list[str]
    minutes: float
    metal_um: float
    cost: float
    changes: int


class NamedRouteFile(FrontRoute):
    """The route that these aims, habits and schools would take."""

    names: list[str]


class BetFile(BaseModel):
    """Start coarse and be sure, or try the finer on a patch first: expected minutes of both, and what is advised."""

    coarse: str
    coarse_label: str
    fine: str
    fine_label: str
    sure_minutes: float
    trying_minutes: float
    trial_minutes: float
    patch_cm2: float
    clears: float
    try_first: bool


class AdviceFile(BaseModel):
    """For one face. `kept` and `pruned` count the partial routes that the search looked at."""

    face: str
    front: list[FrontRoute]
    kept: int
    pruned: int
    named: list[NamedRouteFile]
    bet: BetFile | None


class ChoiceFile(BaseModel):
    """One way, for one piece. `kept`: every face could keep the habits. `metal_um` is the most that comes off any face."""

    aim: Aim
    habit: HabitKey
    handover: Handover
    bench_speed: BenchSpeed
    label: str
    possible: bool
    kept: bool
    minutes: float
    rework_minutes: Annotated[float, Field(description="repeats to expect by the job's own habits, beside the work")] = 0.0
    metal_um: float
    cost: float
    changes: int
    steps: int


class WayFile(ChoiceFile):
    """A way that no other beats, or the job's own. `label`: what it is best at, or else the habit or school that it goes by.

    `by`: the habit or school that it goes by, where that is another than the job's and the label does not say it.
    """

    best_at: list[Aim]
    by: str
    hands_on_minutes: Annotated[float, Field(description="of a person for all pieces, as the plan has it when it is taken")]


class ChoicesFile(BaseModel):
    """By aim within the job's habits, by each habit for its aim, and in a line why the schools differ.

    `ways`: of all of these the ones that differ and that no other beats, quickest first, and the job's own in any case.
    """

    ways: list[WayFile]

    by_aim: list[ChoiceFile]
    by_habit: list[ChoiceFile]
    by_handover: list[ChoiceFile]
    by_bench_speed: list[ChoiceFile]
    schools: str


class WeighFile(BaseModel):
    """A whole job side by side, and every face that is worked."""

    title: str
    choices: ChoicesFile
    faces: list[AdviceFile]


class WhatIfFile(BaseModel):
    """One change of the plan; `wish` is what to set on the face to take it. Differences are against the plan."""

    change: Change
    tool: str | None
    label: str | None
    wish: WishFile
    minutes: float
    metal_um: float
    cost: float
    more_minutes: float
    more_metal_um: float
    marks_left: float
    marks_said: SentenceFile
    hurried_marks_left: float | None
    hurried_said: SentenceFile | None


def to_advice_file(
    face: str, figures: StepFigures | None, found: ParetoFront | None, named: tuple[NamedRoute, ...], bet: Bet | None
) -> AdviceFile:
    routes = found.routes if found and figures else ()
    return AdviceFile(
        face=face,
        front=[FrontRoute(**_route(figures, route)) for route in routes] if figures else [],
        named=[NamedRouteFile(**_route(figures, named_route.route), names=list(named_route.names)) for named_route in named]
        if figures
        else [],
        kept=found.kept if found else 0,
        pruned=found.pruned if found else 0,
        bet=_bet(bet) if bet else None,
    )


def _route(figures: StepFigures, route: Route) -> dict[str, Any]:
    tools = [figures.tool_at(node).tool for node in route.nodes]
    return {
        "tools": [tool.id for tool in tools],
        "labels": [tool.label for tool in tools],
        "minutes": shop(route.totals[TIME], "min"),
        "metal_um": shop(route.totals[METAL], "um"),
        "cost": shop(route.totals[COST], "money"),
        "changes": round(route.totals[CHANGES]),
    }


def to_what_if_file(found: tuple[WhatIf, ...]) -> list[WhatIfFile]:
    return [
        WhatIfFile(
            change=what_if.change,
            tool=what_if.tool.id if what_if.tool else None,
            label=what_if.tool.label if what_if.tool else None,
            wish=_wish(what_if.wish),
            minutes=shop(what_if.seconds, "min"),
            metal_um=shop(what_if.metal, "um"),
            cost=shop(what_if.cost, "money"),
            more_minutes=shop(what_if.more_seconds, "min"),
            more_metal_um=shop(what_if.more_metal, "um"),
            marks_left=shop(what_if.marks_left, "1"),
            marks_said=to_sentence_file(what_if.marks_said),
            hurried_marks_left=None if what_if.hurried is None else shop(what_if.hurried, "1"),
            hurried_said=None if what_if.hurried_said is None else to_sentence_file(what_if.hurried_said),
        )
        for what_if in found
    ]


def _wish(wish: Wish) -> WishFile:
    return WishFile(start=wish.start, lock=list(wish.lock), leave_out=list(wish.leave_out), route=list(wish.route))


def _bet(bet: Bet) -> BetFile:
    return BetFile(
        coarse=bet.coarse.id,
        coarse_label=bet.coarse.label,
        fine=bet.fine.id,
        fine_label=bet.fine.label,
        sure_minutes=shop(bet.sure, "min"),
        trying_minutes=shop(bet.trying, "min"),
        trial_minutes=shop(bet.trial, "min"),
        patch_cm2=shop(bet.patch, "cm2"),
        clears=bet.clears,
        try_first=bet.try_first,
    )


def to_choices_file(ways: Choices) -> ChoicesFile:
    return ChoicesFile(
        ways=[_way(way, ways.own) for way in ways.ways],
        by_aim=[_choice(choice, AIMS[choice.aim]) for choice in ways.by_aim],
        by_habit=[_choice(choice, HABITS[choice.habit]) for choice in ways.by_habit],
        by_handover=[_choice(choice, HANDOVERS[choice.handover]) for choice in ways.by_handover],
        by_bench_speed=[_choice(choice, BENCH_SPEEDS[choice.bench_speed]) for choice in ways.by_bench_speed],
        schools=record("advice")["general"]["schools"],
    )


def _way(way: Way, own: JobChoice) -> WayFile:
    """One way; `own`: the job as it is set."""
    choice = way.choice
    by = (
        HABITS[choice.habit]
        if choice.habit != own.habit
        else HANDOVERS[choice.handover]
        if choice.handover != own.handover
        else ""
    )
    best = ", ".join(AIMS[aim] for aim in way.best_at).capitalize()
    label = best or by or ("As set" if choice.aim == own.aim else f"By aim: {AIMS[choice.aim].lower()}")
    return WayFile(
        **_choice(choice, label).model_dump(),
        best_at=list(way.best_at),
        by=by if best else "",
        hands_on_minutes=shop(way.hands_on, "min"),
    )


def _choice(choice: JobChoice, label: str) -> ChoiceFile:
    return ChoiceFile(
        aim=choice.aim,
        habit=choice.habit,
        handover=choice.handover,
        bench_speed=choice.bench_speed,
        label=label,
        possible=choice.possible,
        kept=choice.kept,
        minutes=shop(choice.seconds, "min"),
        rework_minutes=shop(choice.rework, "min"),
        metal_um=shop(choice.metal, "um"),
        cost=shop(choice.cost, "money"),
        changes=choice.changes,
        steps=choice.steps,
    )


class TermFile(BaseModel):
    """A value in a sum. `kind` and `source` are null for what is worked out or measured."""

    symbol: str
    name: str
    value: float
    unit: str
    kind: str | None
    kind_label: str | None
    source: str | None


class SumFile(BaseModel):
    """A number of the plan with its formula and the values put in."""

    what: str
    formula: str
    terms: list[TermFile]
    result: float
    unit: str


def to_why_file(sums: tuple[Derivation, ...]) -> list[SumFile]:
    return [
        SumFile(
            what=derivation.what,
            formula=derivation.formula,
            terms=[_term(term) for term in derivation.terms],
            result=derivation.result,
            unit=derivation.unit,
        )
        for derivation in sums
    ]


def _term(term: Given) -> TermFile:
    source = term.constant.source if term.constant else None
    return TermFile(
        symbol=term.symbol,
        name=term.name,
        value=float(f"{term.value:.6g}"),
        unit=term.unit,
        kind=source.kind if source else None,
        kind_label=KINDS[source.kind] if source else None,
        source=source.title if source else None,
    )


class Accepting(BaseModel):
    """What is left when the mark is accepted: how deep it is, how much deeper than the finish allows, whether it shows."""

    depth_um: float
    times_deeper: float
    shows: bool


class GoBack(BaseModel):
    """The choices at a failed light check.

    `like` is the paper grade whose marks are nearest; `extent` which of the two the plan follows: the quicker one.
    `deeper`: the mark is deeper than the face was described, so no step was left too early.
    """

    after: int
    depth_um: float
    missed_step: int | None
    deeper: bool
    like: str
    extent: Extent
    patch: FacePlanFile | None
    whole: FacePlanFile
    accept: Accepting


class GoBackFile(PlanFile):
    """The plan from there on, of one face."""

    goback: GoBack


def to_goback_file(job: Job, going: GoingBack) -> GoBackFile:
    """The answer in the units of the file."""
    extent, best = going.cheapest
    plan = to_plan_file(plan_of(job, best))
    depth = shop(going.depth, "um")
    return GoBackFile(
        **{name: getattr(plan, name) for name in PlanFile.model_fields},
        goback=GoBack(
            after=going.after,
            depth_um=depth,
            missed_step=going.missed,
            deeper=going.deeper,
            like=going.like,
            extent=extent,
            patch=face_plan_file(going.patch, job) if going.patch is not None else None,
            whole=face_plan_file(going.whole, job),
            accept=Accepting(depth_um=depth, times_deeper=float(f"{going.times_deeper:.3g}"), shows=going.shows),
        ),
    )
