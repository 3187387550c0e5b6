"""Finds the binding constraint of a face without a route, and the missing amount."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kelbrast.core.planning.face.routes import RouteRequest, best_route, surfaces_in_reach
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.step_table import METAL, Route
from kelbrast.core.rules import book, lay, metal, roughness
from kelbrast.core.rules.rule import REFUSALS, Refusal
from kelbrast.core.wording import Sentence, sentence


@dataclass(frozen=True, slots=True)
class Binding:
    """What binds (one of `REFUSALS`) and a sentence with the missing number."""

    rule: Refusal
    reason: Sentence


_NAMES: Final[dict[Refusal, str]] = {
    "metal": "the metal that may come off",
    "reach": "the reach of the tools",
    "heat": "heat",
    "speed": "the speed of the machines",
    "contamination": "what the wheels are kept for",
    "lay": "the lay",
    "too-soft": "the softness of the tools",
    "not-fine-enough": "the roughness band",
}


def binding(figures: StepFigures, request: RouteRequest) -> Binding:
    """Why there is no route: the first refusal that alone would open one; failing that, one of a smallest set that would."""

    def opens(*lifted: Refusal) -> bool:
        return best_route(figures, replace(request, lifted=frozenset(lifted))) is not None

    needed = next((frozenset({one}) for one in REFUSALS if opens(one)), None)
    if needed is None and opens(*REFUSALS):
        needed = frozenset(REFUSALS)
        for one in reversed(REFUSALS):  # a deletion filter: none of what is left could stay
            needed = needed - {one} if opens(*(needed - {one})) else needed
    if needed is None:
        return Binding("reach", sentence("reach.none"))
    refusal, *others = (one for one in REFUSALS if one in needed)
    reason = _reason(refusal, figures, replace(request, lifted=needed))
    if others:
        stand = f"{' and '.join(_NAMES[other] for other in others).capitalize()} {'stand' if len(others) > 1 else 'stands'}"
        reason = sentence("also.others", reason=reason, others=stand)
    return Binding(refusal, reason)


def _reason(refusal: Refusal, figures: StepFigures, request: RouteRequest) -> Sentence:
    """A sentence on the refusal, with numbers from the route that is open once those of `request.lifted` are lifted."""
    opened = _open(figures, request)
    if refusal == "metal":
        least = _open(figures, replace(request, objective="metal"))
        first = float(figures.layer[least.steps[0]])
        return metal.why_not(figures.face, least=float(least.totals[METAL]), first=first, steps=len(least.nodes))
    if refusal == "lay":
        return lay.why_not(figures.surfaces, int(figures.graph.row[opened.nodes[-1]]) if opened.nodes else 0)
    if refusal == "not-fine-enough":
        return roughness.why_not(figures.surfaces, _ends_in_reach(figures, replace(request, lifted=request.lifted - {refusal})))
    forbidden = figures.forbids[refusal]
    step = next((step for step in opened.steps if forbidden[step]), opened.steps[0])
    met, at = figures.met, int(figures.met.after[step])
    reasons = [book.reason(refusal, met.found[found], row, at) for found, row in met.by(step)]
    return next(reason for reason in reasons if reason is not None)


def _open(figures: StepFigures, request: RouteRequest) -> Route:
    route = best_route(figures, request)
    assert route is not None, "what is lifted opens a route"
    return route


def _ends_in_reach(figures: StepFigures, request: RouteRequest) -> list[int]:
    """Surfaces that can be reached and where the route might end if they were fine enough."""
    found = np.flatnonzero(surfaces_in_reach(figures, request)).tolist()
    rows = figures.graph.row
    return sorted({int(rows[node]) for node in found if node and (figures.may_end["lay"][node] or "lay" in request.lifted)})
