"""The cost of every possible step on a face, as arrays, and the rules that forbid steps.

Every quantity of the steps is an array with one value for each step of the face's `Graph`; every refusal is a mask that can be
lifted on its own, so that "what stands in the way" can be asked of the same numbers. A step may meet several surfaces at
once: what the tool before it left, and, where it takes up more of the face, what was found there. It meets the deepest of
them, and a rule that forbids it on one of them forbids it.
"""

import math
from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from kelbrast.core.job import Job
from kelbrast.core.planning.face.graph import LEFT, Graph, graph_of
from kelbrast.core.planning.face.met import Met, cuts, down, layers_of, met_by_steps, off_places, tail_metal
from kelbrast.core.planning.face.zones import Zones, may_be_zoned, zones_of
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, CRITERIA, METAL, TIME, Route, StepTable
from kelbrast.core.process.heat import rest, work_until_hot
from kelbrast.core.process.removal import cutting
from kelbrast.core.process.rework import chance_of_repeat
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import forbidden_steps, forbidden_tools, possible_ends, usable
from kelbrast.core.rules.habits import excess, repeats, steepness
from kelbrast.core.rules.lay import blends_in, is_brushed
from kelbrast.core.rules.order import COARSE_TO_FINE
from kelbrast.core.rules.reach import works_places
from kelbrast.core.rules.roughness import chance_outside_band
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces, surfaces_of
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace, Toolset
from kelbrast.core.validity import REL_TOL, Flags, Places, Reals


@dataclass(frozen=True, slots=True)
class Warming:
    """Per step, in seconds: work until the first rest (infinite for none), between rests; and one rest."""

    first: Reals
    between: Reals
    rest: float

    def rests(self, cut: Reals) -> Reals:
        """How many rests so much cutting asks for."""
        more = np.ceil((cut - self.first) / self.between - REL_TOL)
        return np.where(cut > self.first, np.maximum(more, 1.0), 0.0)


def warming(job: Job, tools: tuple[ToolOnFace, ...]) -> Warming:
    """The same for each of these tools: the whole part as one lump; where nothing is known of its weight, too heavy to warm."""
    lump = job.lump
    if lump is None:
        return Warming(np.full(len(tools), np.inf), np.ones(len(tools)), 0.0)
    air, left = constant("heat.loss_air").si, constant("heat.rest_to").value

    def again(on_face: ToolOnFace) -> float:
        """Work goes on at the share of the rise that a rest leaves."""
        if math.isinf(on_face.working.until_hot):
            return math.inf
        return on_face.working.until_hot - work_until_hot(
            lump=lump, power=on_face.working.power, loss=air, allowed=on_face.working.allowed * left
        )

    first = np.array([tool.working.until_hot for tool in tools])
    between = np.where(np.isfinite(first), np.array([again(tool) for tool in tools]), 1.0)
    cooling = constant("heat.loss_water").si if "wet" not in job.forbids else air
    return Warming(first, between, rest(lump=lump, loss=cooling, left=left) + constant("heat.handling").si)


@dataclass(frozen=True, slots=True)
class StepFigures:
    """Steps of one face.

    Attributes:
        surfaces: the face all over as it was found, and after each tool.
        graph: its states and steps.  met: what the steps meet.  zones: of its spots; None where no place is worked by itself.
        banded: (n,) where what is worked last is a band along the lay, and not all of the face.
        tools_at: the tool of each node; None for the face as found.
        area: (n,) area that is worked at each node, m2.
        layers: (n, n) for each of the surfaces found, what a step takes off for it, at worst, m.
        layer, likely_layer: (steps,) the most that each takes off anywhere, at worst and probably, m.
        life, change_after: (steps,) e-folding time of the cutting rate, and when an abrasive is changed, s; infinite for never.
        slabs: what each step probably cuts, see `cuts`.
        cut, fresh: (steps,) seconds of cutting, and what they would be if nothing dulled.
        used, worn: (steps,) abrasives to have at hand, and how many of them or of bars and tubs are worn out.
        warm, rests: how the part warms, and (steps,) how often it is put down to cool.
        values: (4, steps) time (s), metal (m), cost, changes of each; the metal is that of places taken up before.
        off: (found, steps) what each surface as found loses by the step that takes it up, m; minus infinity by any other.
        lost: (steps,) the most of that, less what stands above the face there.
        forbids: by refusal, (steps,) where its rules forbid a step.
        outside: (n,) the chance that an end there misses the wanted band.
        stop: (4, n) what ending there risks: that grade again, several times, by the odds of missing the band.
        may_end: (n,) by refusal, where a route may end; under None what is never lifted.
        own: by tool, the items of the shop's rack.
        tables: the tables of what was asked of these steps, to be asked again.
    """

    surfaces: Surfaces
    graph: Graph
    met: Met
    zones: Zones | None
    banded: Flags
    tools_at: tuple[ToolOnFace | None, ...]
    area: Reals
    layers: list[Reals]
    layer: Reals
    likely_layer: Reals
    life: Reals
    change_after: Reals
    slabs: tuple[tuple[Reals, Reals], ...]
    cut: Reals
    fresh: Reals
    used: Reals
    worn: Reals
    warm: Warming
    rests: Reals
    values: Reals
    off: Reals
    lost: Reals
    forbids: dict[Refusal, Flags]
    may_end: dict[Refusal | None, Flags]
    outside: Reals
    stop: Reals
    own: dict[str, OwnTool]
    tables: dict[Hashable, StepTable] = field(default_factory=dict, compare=False)
    _excess: dict[str, list[Reals]] = field(default_factory=dict, compare=False)
    _repeats: dict[tuple[str, str], Reals] = field(default_factory=dict, compare=False)

    def beyond(self, habit: str, steps: Sequence[int]) -> Reals:
        """How many times as far each of these steps goes as a habit allows."""
        return self.met.only(np.array(steps, dtype=np.intp)).most(self._excesses(habit))

    def repeats(self, habit: str, handover: str) -> Reals:
        """(steps,) how often each step is expected to be repeated by a habit and a school; worked out once."""
        key = habit, handover
        if key not in self._repeats:
            pairs = zip(self.met.found, self._excesses(habit), strict=True)
            each = [repeats(found, beyond, handover) for found, beyond in pairs]
            self._repeats[key] = self.met.most(each)
        return self._repeats[key]

    def chance_of_repeat(self, step: int, habit: str, handover: str) -> float:
        """The chance that a step's light check sends it back; where the habit bounds nothing, that of any check."""
        if steepness(habit) is None and handover == "free":
            return constant("spread.check_fails").value
        return chance_of_repeat(float(self.repeats(habit, handover)[step]))

    def _excesses(self, habit: str) -> list[Reals]:
        """How many times as far a step goes as the habit allows: (n, n) on the face, (1, n) for each kind of its spots."""
        if habit not in self._excess:
            rows = self.surfaces.count
            self._excess[habit] = [excess(found, habit)[: 1 if at else rows] for at, found in enumerate(self.met.found)]
        return self._excess[habit]

    def tool_at(self, node: int) -> ToolOnFace:
        """The tool that leaves the face in the state of a node from 1."""
        on_face = self.tools_at[node]
        assert on_face is not None, "a tool led to it"
        return on_face

    def ids_of(self, route: Route) -> tuple[str, ...]:
        """The ids of its tools in order; what goes on over more of the face is named once."""
        return tuple(self.tool_at(int(self.graph.after[step])).tool.id for step in route.steps if not self.met.on[step])

    def washed(self, step: int) -> bool:
        """Whether the grit of the tool before is washed off first."""
        return bool(self.graph.before[step] > 0 and not self.met.on[step])

    def metal_of(self, route: Route) -> Reals:
        """(found,) what each of the surfaces as found loses on a route, m; 0 where it is not worked."""
        after = 0.0
        lost = np.zeros(len(self.off))
        for step in reversed(route.steps):
            lost = np.where(np.isfinite(self.off[:, step]), self.off[:, step] + after, lost)
            after += float(self.values[METAL, step])
        return lost

    def counted_metal_of(self, route: Route) -> float:
        """What that one loses, m."""
        most = self.loses_most(route)
        return float(self.metal_of(route)[most]) - self.above_of(most)

    def loses_most(self, route: Route) -> int:
        """Which of the surfaces as found loses most on a route, without what stands above the face there."""
        above = np.array([self.above_of(found) for found in range(len(self.met.found))])
        return int((self.metal_of(route) - above).argmax())

    def above_of(self, found: int) -> float:
        """How high metal stands above the face all over (0) or at a kind of spots (from 1), m; below 0 where some is gone."""
        return self.face.above if found == 0 else self.face.spots[found - 1].spare

    def uses_zones(self, route: Route) -> bool:
        """Whether some of its steps work places only."""
        return not self.graph.whole[list(route.nodes)].all()

    @property
    def face(self) -> Face:
        return self.surfaces.face

    @property
    def tools(self) -> tuple[ToolOnFace, ...]:
        return self.surfaces.tools


def step_figures(face: Face, job: Job, choose: Callable[[ToolContext], Toolset], *, for_any_wish: bool = True) -> StepFigures:
    """Work out every step between any two of the tools that are chosen for the face, and for places on it.

    Args:
        choose: the tools for a context.  for_any_wish: also the steps that rules forbid, which a person may ask for.
    """
    context = ToolContext.of(face, job)
    wide = choose(context)
    within = replace(context, place=_place(face, context)) if face.spots else context
    near = choose(within) if face.spots else wide
    surfaces = surfaces_of(face, context, near)
    found = (surfaces, *(surfaces_of(replace(face, found=spots.found), context, near) for spots in face.spots))
    may_end = possible_ends(surfaces)
    ends = np.logical_and.reduce(list(may_end.values()))
    done = bool(face.spots) and (face.found.as_wanted or (face.found.after is not None and bool(ends[0])))
    depths = [float(each.depth_likely[0]) for each in found[1:]]
    zones = zones_of(face, face.spots, surfaces, depths) if face.spots and len(near) and may_be_zoned(surfaces) else None
    at = {on_face.tool.id: number for number, on_face in enumerate(wide, start=1)}
    place_in_wide = np.array([0, *(at.get(tool, 0) for tool in surfaces.ids)])
    in_places = np.array([False, *map(works_places, near)])
    graph = graph_of(COARSE_TO_FINE.mask(surfaces), place_in_wide > 0, in_places, zones)
    met = met_by_steps(graph, found, done)
    forbids = _forbidden(met, graph, (near, within), (wide, context))
    ends_at = _ends(may_end, graph, surfaces, done)
    if not for_any_wish:
        allowed = ~np.logical_or.reduce(list(forbids.values()))
        may = graph.on_a_way(allowed, np.logical_and.reduce(list(ends_at.values())))
        graph, met, forbids = graph.only(may), met.only(may), {}
    columns = _Columns(near, wide, graph.row, place_in_wide[graph.row], graph.whole)
    banded = _banded(face, graph, zones, done)
    area = _areas(face, graph, zones, banded)
    layers = [layers_of(each, each.depth_worst, ends) for each in found]
    likely_layers = [layers_of(each, each.depth_likely, ends) for each in found]
    own_marks = surfaces.depth_worst.take(met.after)
    layer, likely_layer = np.maximum(met.most(layers), own_marks), np.maximum(met.most(likely_layers), own_marks)
    slabs = cuts(met, graph, zones, area, likely_layers)
    volume = sum((thickness * over for thickness, over in slabs), np.zeros(len(own_marks)))
    fresh = volume / columns.of("rate").take(graph.after)
    torn_by = np.maximum(met.most([down(each.depth_likely) for each in found]), own_marks)
    life, changed_after = near.lives(met.after, torn_by)
    cut = cutting(fresh=fresh, life=life, change_after=changed_after)
    lasts = columns.of("lasts").take(graph.after)
    worn = np.where(np.isfinite(life), cut.seconds / changed_after, fresh / lasts)
    of_tools = warming(job, near.tools)
    warm = Warming(of_tools.first[met.after - 1], of_tools.between[met.after - 1], of_tools.rest)
    rests = warm.rests(cut.seconds)
    values = _values(
        cut.seconds + rests * warm.rest, cut.used, worn, tail_metal(met, graph, layers, layer), columns, graph, met
    )
    outside = chance_outside_band(surfaces)[graph.row]
    return StepFigures(
        surfaces=surfaces,
        graph=graph,
        met=met,
        zones=zones,
        banded=banded,
        tools_at=columns.tools,
        area=area,
        layers=layers,
        layer=layer,
        likely_layer=likely_layer,
        life=life,
        change_after=changed_after,
        slabs=slabs,
        cut=cut.seconds,
        fresh=fresh,
        used=cut.used,
        worn=worn,
        warm=warm,
        rests=rests,
        values=values,
        off=(off := off_places(met, graph, layers, layer)),
        lost=_lost(face, off),
        forbids=forbids,
        may_end=ends_at,
        outside=outside,
        stop=_stop(graph, surfaces, area, columns, outside, values),
        own={own_tool.tool: own_tool for own_tool in job.own.tools} if job.own else {},
    )


def _place(face: Face, context: ToolContext) -> float:
    """The area of the largest of the spots, m2."""
    return min(context.place, max(spots.length * spots.width for spots in face.spots))


class _Columns:
    """A figure of every node's tool: of the tools as they work a place, or all of the face."""

    def __init__(self, near: Toolset, wide: Toolset, row: Places, row_of_wide: Places, whole: Flags) -> None:
        self._near, self._wide, self._row, self._row_of_wide, self._whole = near, wide, row, row_of_wide, whole
        pairs = zip(row.tolist(), row_of_wide.tolist(), whole.tolist(), strict=True)
        self.tools = tuple((wide.tools[b - 1] if w else near.tools[a - 1]) if a else None for a, b, w in pairs)

    def of(self, name: str) -> Reals:
        """(n,) a column of `Toolset`."""
        near, wide = getattr(self._near, name), getattr(self._wide, name)
        return np.asarray(near[self._row] if near is wide else np.where(self._whole, wide[self._row_of_wide], near[self._row]))


def _banded(face: Face, graph: Graph, zones: Zones | None, done: bool) -> Flags:
    """(n,) where a band along the lay takes the place of all of the face: where the rest is as wanted, the lay runs out at both
    ends, and the bands are no more than half of it."""
    if zones is None or not (done and face.lay_runs_out and is_brushed(face)):
        return np.zeros(len(graph.row), dtype=bool)
    narrow: Flags = graph.whole & (zones.bands[graph.row] <= face.area / 2)
    return narrow


def _areas(face: Face, graph: Graph, zones: Zones | None, banded: Flags) -> Reals:
    """(n,) m2 that are worked at each node; all of the face where nothing was yet."""
    area = np.full(len(graph.row), face.area)
    if zones is None:
        return area
    area[banded] = zones.bands[graph.row[banded]]
    at = np.flatnonzero(~graph.whole)[1:]
    members = (graph.kinds[at][:, None] >> np.arange(len(zones.spots)) & 1).astype(bool)
    each = zones.areas[:, graph.row[at], graph.width[at]].T
    area[at] = np.minimum((each * members).sum(axis=1), face.area)
    return area


def _lost(face: Face, off: Reals) -> Reals:
    each = [places + face.above - spots.spare for places, spots in zip(off[1:], face.spots, strict=True)]
    return np.asarray(np.max([off[0], *each], axis=0))


def _values(busy: Reals, used: Reals, worn: Reals, metal: Reals, columns: _Columns, graph: Graph, met: Met) -> Reals:
    """What every step adds to the criteria; `busy`: seconds of cutting and resting. What goes on needs no set-up."""
    after, wash = graph.after, constant("work.wash").si
    values = np.empty((len(CRITERIA), len(busy)))
    setup = columns.of("setup").take(after)
    setup[met.on] = 0.0
    values[TIME] = busy + (used - 1) * columns.of("change").take(after) + (setup + constant("work.check").si)
    values[TIME] += np.where((graph.before > 0) & ~met.on, wash, 0.0)
    values[METAL] = metal
    values[COST] = columns.of("price").take(after) * worn
    values[CHANGES] = columns.of("mounted").take(after)
    values[CHANGES, met.on | (graph.before == 0)] = 0.0
    values[:, graph.idle] = 0.0
    return values


def _stop(graph: Graph, surfaces: Surfaces, area: Reals, columns: _Columns, outside: Reals, values: Reals) -> Reals:
    """(4, n) what an end adds to the criteria: its grade again over its own marks, by the odds that it misses the band."""
    own = surfaces.depth_worst[graph.row]
    again = own * area / columns.of("rate") + constant("work.check").si + constant("work.wash").si
    stop = np.zeros((len(CRITERIA), len(graph.row)))
    seconds, cost = np.zeros(len(graph.row)), np.zeros(len(graph.row))
    first = graph.before == 0
    seconds[graph.after[first]], cost[graph.after[first]] = values[TIME, first], values[COST, first]
    stop[TIME, 1:], stop[METAL, 1:] = again[1:], own[1:]
    stop[COST] = np.divide(cost * stop[TIME], seconds, out=np.zeros_like(seconds), where=seconds > 0)
    return stop * constant("end.price").value * outside / np.maximum(1 - outside, REL_TOL)


def _forbidden(
    met: Met, graph: Graph, of_places: tuple[Toolset, ToolContext], of_face: tuple[Toolset, ToolContext]
) -> dict[Refusal, Flags]:
    """(steps,) by refusal, where a rule forbids a step; the tools and what they depend on, for places and all of the face."""
    each = [forbidden_steps(found) for found in met.found]
    forbids = {refusal: met.any_of([masks[refusal] for masks in each]) for refusal in each[0]}
    whole = graph.whole[graph.after]
    for (tools, context), here in ((of_places, ~whole), (of_face, whole)):
        if tools is usable(context):  # whatever a rule forbids here is not among these
            continue
        for refusal, column in forbidden_tools(of_places[0], context).items():
            forbids[refusal] = forbids.get(refusal, False) | (here & column[met.after])
    return forbids


def _ends(may_end: dict[Refusal | None, Flags], graph: Graph, surfaces: Surfaces, done: bool) -> dict[Refusal | None, Flags]:
    """(n,) by refusal; spots that are not worked are no end, and a place alone only where it is not seen beside the rest."""
    face = surfaces.face
    ends = {refusal: flags[graph.row] for refusal, flags in may_end.items()}
    if face.spots:
        everything = (1 << len(face.spots)) - 1
        blended = (graph.kinds == everything) & (graph.width != LEFT) & blends_in(surfaces, rest_is_done=done)[graph.row]
        ends[None] = ends[None] & (graph.whole | blended)
    return ends
