"""What a person may weigh on a face: the routes that nothing beats, the bet on a guessed depth, and what if."""

from typing import Any

from pydantic import BaseModel

from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.pareto import ParetoFront
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, METAL, TIME, Route
from kelbrast.core.planning.questions.front import NamedRoute
from kelbrast.core.planning.questions.guess import Bet
from kelbrast.core.planning.questions.whatif import Change, WhatIf
from kelbrast.core.surface.face import Wish
from kelbrast.exchange.choices_file import ChoicesFile
from kelbrast.exchange.job_file import WishFile
from kelbrast.exchange.sentence_file import SentenceFile, to_sentence_file
from kelbrast.exchange.shop_units import shop


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
        named=[NamedRouteFile(**_route(figures, one.route), names=list(one.names)) for one in named] if figures else [],
        kept=found.kept if found else 0,
        pruned=found.pruned if found else 0,
        bet=_bet(bet) if bet else None,
    )


def _route(figures: StepFigures, route: Route) -> dict[str, Any]:
    tools = [figures.surfaces.leaving(node).tool for node in route.nodes]
    return {
        "tools": [one.id for one in tools],
        "labels": [one.label for one in tools],
        "minutes": shop(route.totals[TIME], "min"),
        "metal_um": shop(route.totals[METAL], "um"),
        "cost": shop(route.totals[COST], "money"),
        "changes": round(route.totals[CHANGES]),
    }


def to_what_if_file(found: tuple[WhatIf, ...]) -> list[WhatIfFile]:
    return [
        WhatIfFile(
            change=one.change,
            tool=one.tool.id if one.tool else None,
            label=one.tool.label if one.tool else None,
            wish=_wish(one.wish),
            minutes=shop(one.seconds, "min"),
            metal_um=shop(one.metal, "um"),
            cost=shop(one.cost, "money"),
            more_minutes=shop(one.more_seconds, "min"),
            more_metal_um=shop(one.more_metal, "um"),
            marks_left=shop(one.marks_left, "1"),
            marks_said=to_sentence_file(one.marks_said),
            hurried_marks_left=None if one.hurried is None else shop(one.hurried, "1"),
            hurried_said=None if one.hurried_said is None else to_sentence_file(one.hurried_said),
        )
        for one in found
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
