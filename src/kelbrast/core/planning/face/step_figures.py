"""The cost of every possible step on a face, as arrays, and the rules that forbid steps.

Node 0 is the surface as found, node k what tool k leaves. Every quantity is an (n, n) array indexed [from, to]; every refusal
is a mask that can be lifted on its own, so that "what stands in the way" can be asked of the same numbers.
"""

import math
from dataclasses import dataclass, field

import numpy as np

from kelbrast.core.job import Job
from kelbrast.core.planning.face.nicks import dishes_of
from kelbrast.core.planning.kernel.search import CHANGES, COST, CRITERIA, METAL, TIME
from kelbrast.core.process.blend import dish_volume
from kelbrast.core.process.heat import rest, work_until_hot
from kelbrast.core.process.removal import break_volume, cutting, radius_volume
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import forbidden_steps, possible_ends
from kelbrast.core.rules.habits import excess, repeats
from kelbrast.core.rules.order import COARSE_TO_FINE
from kelbrast.core.rules.roughness import chance_outside_band
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.edge import Edge
from kelbrast.core.surface.face import Face, usual_share
from kelbrast.core.tooling.surfaces import Surfaces, surfaces_of
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace, Toolset
from kelbrast.core.validity import REL_TOL, Flags, Reals


@dataclass(frozen=True, slots=True)
class Warming:
    """Per tool of a list, in seconds: work until the first rest (infinite for none), between rests, and one rest."""

    first: Reals
    between: Reals
    rest: float

    def rests(self, cut: Reals) -> Reals:
        """How many rests so much cutting asks for; the last axis runs over the tools."""
        more = np.ceil((cut - self.first) / self.between - REL_TOL)
        return np.where(cut > self.first, np.maximum(more, 1.0), 0.0)


def warming(job: Job, tools: tuple[ToolOnFace, ...]) -> Warming:
    """The whole part as one lump; where nothing is known of its weight, it is taken as too heavy to warm."""
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
        layer, likely_layer: (n, n) what each step takes off at worst and probably, m.
        life, change_after: (n, n) e-folding time of the cutting rate, and when an abrasive is changed, s; infinite for never.
        cut, fresh: (n, n) seconds of cutting, and what they would be if nothing dulled.
        used, worn: (n, n) abrasives to have at hand, and how many of them or of bars and tubs are worn out.
        warm, rests: how the part warms, and (n, n) how often it is put down to cool.
        values: (4, n, n) time (s), metal (m), cost, changes of each step.
        passable: (n, n) where a step goes at all; forbids: by refusal, where its rules forbid it.
        outside: (n,) the chance that an end there misses the wanted band.
        stop: (4, n) what ending there risks: that grade again, several times, by the odds of missing the band.
        may_end: (n,) by refusal, where a route may end; under None what is never lifted.
        own: by tool, the items of the shop's rack.
    """

    surfaces: Surfaces
    layer: Reals
    likely_layer: Reals
    life: Reals
    change_after: Reals
    cut: Reals
    fresh: Reals
    used: Reals
    worn: Reals
    warm: Warming
    rests: Reals
    values: Reals
    passable: Flags
    forbids: dict[Refusal, Flags]
    may_end: dict[Refusal | None, Flags]
    outside: Reals
    stop: Reals
    own: dict[str, OwnTool]
    _beyond: dict[str, Reals] = field(default_factory=dict, compare=False)
    _repeats: dict[tuple[str, str], Reals] = field(default_factory=dict, compare=False)

    def beyond(self, habit: str) -> Reals:
        """(n, n) how many times as far each step goes as a habit allows; worked out once, as no wish changes it."""
        if habit not in self._beyond:
            self._beyond[habit] = excess(self.surfaces, habit)
        return self._beyond[habit]

    def repeats(self, habit: str, handover: str) -> Reals:
        """(n, n) how often each step is expected to be repeated by a habit and a school; worked out once."""
        key = habit, handover
        if key not in self._repeats:
            self._repeats[key] = repeats(self.surfaces, self.beyond(habit), handover)
        return self._repeats[key]

    @property
    def face(self) -> Face:
        return self.surfaces.face

    @property
    def tools(self) -> tuple[ToolOnFace, ...]:
        return self.surfaces.tools


def step_figures(face: Face, job: Job, tools: Toolset) -> StepFigures:
    """Work out every step between any two of these tools on the face."""
    surfaces = surfaces_of(face, ToolContext.of(face, job), tools)
    may_end = possible_ends(surfaces)
    ends = np.logical_and.reduce(list(may_end.values()))
    layer = _layers(surfaces, surfaces.depth_worst, ends)
    likely_layer = _layers(surfaces, surfaces.depth_likely, ends)
    volume = likely_layer * face.area
    volume[0] = _first_volume(surfaces, likely_layer[0])
    fresh = volume / tools.rate
    life = tools.life_on(surfaces.depth_likely)
    changed_after = tools.change_after(life)
    done = cutting(fresh=fresh, life=life, change_after=changed_after)
    worn = np.where(np.isfinite(life), done.seconds / changed_after, fresh / tools.lasts)
    warm = warming(job, tools.tools)
    rests = np.pad(warm.rests(done.seconds[:, 1:]), ((0, 0), (1, 0)))
    values, outside = _values(done.seconds + rests * warm.rest, done.used, worn, layer, tools), chance_outside_band(surfaces)
    return StepFigures(
        surfaces=surfaces,
        layer=layer,
        likely_layer=likely_layer,
        life=life,
        change_after=changed_after,
        cut=done.seconds,
        fresh=fresh,
        used=done.used,
        worn=worn,
        warm=warm,
        rests=rests,
        values=values,
        passable=COARSE_TO_FINE.mask(surfaces),
        forbids=forbidden_steps(surfaces),
        may_end=may_end,
        outside=outside,
        stop=_stop(surfaces, outside, values),
        own={own_tool.tool: own_tool for own_tool in job.own.tools} if job.own else {},
    )


def _layers(surfaces: Surfaces, depth: Reals, ends: Flags) -> Reals:
    """(n, n) m off; what stands proud is knocked down to just above the face, by no more than the new marks are deep."""
    layer, own = surfaces.layer(depth), surfaces.depth_worst
    if surfaces.face.edge is not None:
        layer[0] = np.maximum(depth[0], own)
    if surfaces.face.above:
        layer[0, ~ends] = np.maximum(depth[0] - own, own)[~ends]
    return layer


def _stop(surfaces: Surfaces, outside: Reals, values: Reals) -> Reals:
    """(4, n) what an end adds to the criteria: its grade again over its own marks, by the odds that it misses the band."""
    again = (
        surfaces.depth_worst * surfaces.face.area / surfaces.toolset.rate + constant("work.check").si + constant("work.wash").si
    )
    stop, seconds = np.zeros((len(CRITERIA), surfaces.count)), values[TIME, 0]
    stop[TIME, 1:], stop[METAL, 1:] = again[1:], surfaces.depth_worst[1:]
    stop[COST] = np.divide(values[COST, 0] * stop[TIME], seconds, out=np.zeros_like(seconds), where=seconds > 0)
    return stop * constant("end.price").value * outside / np.maximum(1 - outside, REL_TOL)


def _first_volume(surfaces: Surfaces, layer: Reals) -> Reals:
    """(n,) m3 that the first step cuts: ripple, raised metal and edges do not fill the layer, and nicks are only dished.

    A dish is no smaller than the tool, and the rest of the face must be covered with the tool's own marks.
    """
    face = surfaces.face
    whole = layer * face.area
    if face.edge is not None:
        return _edge_volume(face.edge) + surfaces.depth_worst * face.area
    if face.stock or face.found.after is not None:
        return whole
    if face.found.kind == "waviness":
        return whole * constant("removal.waviness_share").value
    if face.found.kind == "raised":
        return whole * (face.found.share or usual_share(face.found.kind) or 1.0)
    dishes = dishes_of(face, float(surfaces.depth_likely[0]))
    if dishes is None:
        return whole
    dug = dishes.count * dish_volume(area=np.maximum(dishes.area, surfaces.toolset.patch), depth=layer)
    return np.minimum(whole, dug + surfaces.depth_worst * face.area)


def _edge_volume(edge: Edge) -> float:
    if edge.wanted == "break":
        return break_volume(leg=edge.size, length=edge.length)
    return radius_volume(radius=edge.size, length=edge.length)


def _values(busy: Reals, used: Reals, worn: Reals, layer: Reals, tools: Toolset) -> Reals:
    """What every step adds to the criteria; `busy`: seconds of cutting and resting."""
    values = np.zeros((len(CRITERIA), *busy.shape))
    values[TIME] = busy + (used - 1) * tools.change + (tools.setup + constant("work.check").si)
    values[TIME, 1:] += constant("work.wash").si
    values[METAL] = layer
    values[COST] = tools.price * worn
    values[CHANGES, 1:] = tools.mounted
    return values
