"""What if: swap a step, leave it out, lock it, or force a start, and what each costs in minutes, metal and marks left."""

from dataclasses import dataclass, replace
from typing import Literal

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.face_plan import FacePlan, chosen_route, graph_of, plan_face, ways_of
from kelbrast.core.planning.graph import COST, METAL, TIME, Graph
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.search import Route
from kelbrast.core.planning.step import marks_left_by, marks_share_by
from kelbrast.core.process.dulling import share_done
from kelbrast.core.process.marks_said import marks_said
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
    planned = plan_face(face, job)
    if not 1 <= step <= len(planned.steps):
        raise BadInput.one("step", f"the plan of this face has {len(planned.steps)} steps, and {step} is not one of them")
    graph = graph_of(ways_of(face)[0] if planned.nicks is None or planned.nicks.blended else ways_of(face)[-1], job)
    assert graph is not None, "a plan with steps has a graph"
    route = tuple(one.tool.id for one in planned.steps)
    found = []
    seen = {route}
    for change, tool, wish in _changes(graph, route, step):
        made, _, gave_up = chosen_route(replace(graph, face=replace(graph.face, wish=wish)), job)
        if made is None or gave_up or (nodes := tuple(graph.tools[node - 1] for node in made.nodes)) in seen:
            continue
        seen.add(nodes)
        left, said = _hurried(graph, planned, step) if change == "leave-out" else (None, None)
        one = _compared(change, tool, wish, graph, made, planned)
        found.append(replace(one, hurried=left, hurried_said=said))
    return tuple(sorted(found, key=lambda one: (one.change != "leave-out", one.seconds)))


def _changes(graph: Graph, route: tuple[str, ...], step: int) -> list[tuple[Change, Tool | None, Wish]]:
    at = step - 1
    node = {tool: k for k, tool in enumerate(graph.tools, start=1)}
    above = node[route[at - 1]] if at else 0
    below = node[route[at + 1]] if at + 1 < len(route) else len(graph.tools) + 1
    found: list[tuple[Change, Tool | None, Wish]] = []
    if len(route) > 1:
        found.append(("leave-out", None, Wish(route=route[:at] + route[at + 1 :])))
    for k, fit in enumerate(graph.fits, start=1):
        if above < k < below and fit.tool.id != route[at]:
            found.append(("swap", fit.tool, Wish(route=(*route[:at], fit.tool.id, *route[at + 1 :]))))
    if at == 0:
        found += [("start", fit.tool, Wish(start=fit.tool.id)) for fit in graph.fits if fit.tool.id != route[0]]
    return found


def _hurried(graph: Graph, planned: FacePlan, step: int) -> tuple[float | None, Sentence | None]:
    """Marks left when the step after the one left out is given only the time that it had, and the same in words."""
    if step == len(planned.steps):
        return None, None
    nodes = [0, *(graph.tools.index(one.tool.id) + 1 for one in planned.steps)]
    before, at = nodes[step - 1], nodes[step + 1]
    fit = graph.fits[at - 1]
    share = share_done(
        seconds=planned.steps[step].cut_seconds,
        fresh=float(graph.fresh[before, at]),
        life=fit.tool.carrier.life,
        change_cost=fit.change_cost,
    )
    layer = float(graph.layer[before, at]) * share
    left = marks_left_by(graph, before, at, layer)
    return left, marks_said(left, marks_share_by(graph, before, at, layer))


def _compared(change: Change, tool: Tool | None, wish: Wish, graph: Graph, made: Route, planned: FacePlan) -> WhatIf:
    pairs = list(zip((0, *made.nodes), made.nodes, strict=False))
    left = sum(marks_left_by(graph, a, b, float(graph.layer[a, b])) for a, b in pairs)
    share = max((marks_share_by(graph, a, b, float(graph.layer[a, b])) for a, b in pairs), default=0.0)
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
