"""What if: swap, omit, lock or force a step, with the effect on minutes, metal and marks."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, figures_of, wished_route, wishing
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.face.step_marks import marks_left_by, marks_share_by
from kelbrast.core.planning.kernel.step_table import COST, METAL, TIME, Route
from kelbrast.core.planning.whole.plan import face_in_plan
from kelbrast.core.process.removal import share_done
from kelbrast.core.process.scratch import marks_said
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.wording import Sentence

Change = Literal["swap", "leave-out", "start"]


@dataclass(frozen=True, slots=True)
class WhatIf:
    """One change of a plan and what it leads to (SI).

    Attributes:
        tool: what is taken instead, or started with; None when a step is left out.
        wish: what to set on the face to take it.
        seconds, metal, cost: of the changed route; `more_seconds`, `more_metal` against the plan.
        marks_left: old marks that can be expected to be there at the end.
        hurried: for a step left out, the marks left when the next step is given no more time than before; else None.
    """

    change: Change
    tool: Tool | None
    wish: Wish
    seconds: float
    metal: float
    cost: float
    more_seconds: float
    more_metal: float
    marks_left: float
    marks_said: Sentence
    hurried: float | None = None
    hurried_said: Sentence | None = None


def what_if(face: Face, job: Job, *, step: int) -> tuple[WhatIf, ...]:
    """Every way to change step `step` (from 1) of a face's plan, quickest first.

    Swapping and leaving out keep the rest of the route as it is, and the tools given more to do than they can reach are
    planned with the marks that they leave. A forced start lets the planner choose the rest again.

    Raises:
        BadInput: the plan has no such step.
    """
    planned = face_in_plan(face, job)
    if not 1 <= step <= len(planned.steps):
        raise BadInput.one("step", f"the plan of this face has {len(planned.steps)} steps, and {step} is not one of them")
    stay = [each.spots for each in planned.left]
    figures = figures_of(replace(face, spots=tuple(spots for spots in face.spots if spots not in stay)), job, for_any_wish=True)
    assert figures is not None, "a plan with steps has figures"
    route = tuple(step.tool.id for step in planned.steps if not step.goes_on)
    what_ifs = []
    seen = {route}
    place = sum(not each.goes_on for each in planned.steps[:step])  # in the route, where what goes on is named once
    for change, tool, wish in _changes(figures, route, place):
        made = wished_route(wishing(figures, wish), job)
        if made is None or (ids := figures.ids_of(made)) in seen:
            continue
        seen.add(ids)
        left, said = _hurried(figures, planned, step) if change == "leave-out" else (None, None)
        what_if = _compared(change, tool, wish, figures, made, planned)
        what_ifs.append(replace(what_if, hurried=left, hurried_said=said))
    return tuple(sorted(what_ifs, key=lambda what_if: (what_if.change != "leave-out", what_if.seconds)))


def _changes(figures: StepFigures, route: tuple[str, ...], step: int) -> list[tuple[Change, Tool | None, Wish]]:
    at = step - 1
    node = {tool: k for k, tool in enumerate(figures.surfaces.ids, start=1)}
    above = node[route[at - 1]] if at else 0
    below = node[route[at + 1]] if at + 1 < len(route) else len(figures.tools) + 1
    found: list[tuple[Change, Tool | None, Wish]] = []
    if len(route) > 1:
        found.append(("leave-out", None, Wish(route=route[:at] + route[at + 1 :])))
    for k, on_face in enumerate(figures.tools, start=1):
        if above < k < below and on_face.tool.id != route[at]:
            found.append(("swap", on_face.tool, Wish(route=(*route[:at], on_face.tool.id, *route[at + 1 :]))))
    if at == 0:
        found += [
            ("start", on_face.tool, Wish(start=on_face.tool.id)) for on_face in figures.tools if on_face.tool.id != route[0]
        ]
    return found


def _hurried(figures: StepFigures, planned: FacePlan, step: int) -> tuple[float | None, Sentence | None]:
    """Marks left when the step after the one left out is given only the time that it had, and the same in words."""
    if step == len(planned.steps) or any(each.zone for each in planned.steps):
        return None, None  # where places are worked by themselves, another route may work others
    nodes = [0, *(figures.surfaces.ids.index(step.tool.id) + 1 for step in planned.steps)]
    leads = (figures.met.before == nodes[step - 1]) & (figures.met.after == nodes[step + 1])
    at = int(np.flatnonzero(leads & figures.graph.whole[figures.graph.after])[0])
    done = share_done(
        seconds=planned.steps[step].time.cut,
        fresh=float(figures.fresh[at]),
        life=float(figures.life[at]),
        change_after=float(figures.change_after[at]),
    )
    layer = float(figures.layer[at]) * float(done)
    left = marks_left_by(figures, at, layer)
    return left, marks_said(left, marks_share_by(figures, at, layer))


def _compared(change: Change, tool: Tool | None, wish: Wish, figures: StepFigures, made: Route, planned: FacePlan) -> WhatIf:
    layers = [(each, float(figures.layer[each])) for each in made.steps]
    left = sum(marks_left_by(figures, each, layer) for each, layer in layers)
    share = max((marks_share_by(figures, each, layer) for each, layer in layers), default=0.0)
    return WhatIf(
        change=change,
        tool=tool,
        wish=wish,
        seconds=float(made.totals[TIME]),
        metal=float(made.totals[METAL]),
        cost=float(made.totals[COST]),
        more_seconds=float(made.totals[TIME]) - planned.seconds,
        more_metal=float(made.totals[METAL]) - planned.metal,
        marks_left=left,
        marks_said=marks_said(left, share),
    )
