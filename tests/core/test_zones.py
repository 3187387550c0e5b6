"""Zones: every route over places and the whole face, costed one by one from the laws as they are written down."""

import math
from dataclasses import dataclass, replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import figures_of
from kelbrast.core.planning.face.routes import RouteRequest, best_route
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.step_table import Route
from kelbrast.core.process.removal import cutting
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import forbidden_steps, possible_ends, usable
from kelbrast.core.rules.habits import excess, repeats
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.tooling.surfaces import Surfaces, surfaces_of
from kelbrast.core.tooling.tool_context import ToolContext
from making import UM, face, job, spots

GROUPS = (1e-4, 8e-4, 20e-4, 60e-4)


@dataclass
class Law:
    """The laws of zones for one face, in plain arithmetic (SI)."""

    face: Face
    job: Job
    slope: float

    def __post_init__(self) -> None:
        context = ToolContext.of(self.face, self.job)
        near = usable(replace(context, place=min(context.place, max(one.length * one.width for one in self.face.spots))))
        self.near, self.wide = near, {on.tool.id: on for on in usable(context)}
        self.rest = surfaces_of(self.face, context, near)
        self.kinds = [surfaces_of(replace(self.face, found=one.found), context, near) for one in self.face.spots]
        self.in_places = [n for n, on in enumerate(near) if not on.tool.carrier.access.turned_only]
        self.radius = [math.sqrt(on.tool.carrier.running.patch / math.pi) for on in near]
        groups = [sum(on.tool.carrier.running.patch > bound * 1.0000001 for bound in GROUPS) for on in near]
        self.width = [max(r for r, other in zip(self.radius, groups, strict=True) if other == group) for group in groups]

    def margin(self, kind: int, tool: int, width: float) -> float:
        depth, raised = self.likely(kind), self.face.spots[kind].found.stands_proud
        first, jump = (50 if raised else 10), 2.3
        past = 0.010 * max(0.0, math.log(depth / (math.sqrt(first) * self.near.tools[tool].depth)) / (1.21 * math.log(jump)))
        return max(0.0 if raised else 1.5 * depth / self.slope, width) + past

    def likely(self, kind: int) -> float:
        return float(self.kinds[kind].depth_likely[0])

    def area(self, kinds: frozenset[int], tool: int, width: float) -> float:
        total = 0.0
        for kind in kinds:
            one, e = self.face.spots[kind], self.margin(kind, tool, width)
            each = one.length * one.width + 2 * e * (one.length + one.width) + math.pi * e**2
            total += min(one.count * each, self.face.area)
        return min(total, self.face.area)

    def dug(self, kind: int, tool: int) -> float:
        one = self.face.spots[kind]
        r = 0.0 if one.found.stands_proud else max(1.5 * self.likely(kind) / self.slope, self.radius[tool])
        hollow = one.count * (one.length * one.width + r * (one.length + one.width) + 0.3 * math.pi * r**2)
        return min(hollow, self.area(frozenset({kind}), tool, self.width[tool]))


def layer_of(surfaces: Surfaces, row: int, tool: int, depth: np.ndarray, ends: np.ndarray) -> float:
    own = surfaces.depth_worst[tool + 1]
    if row == 0 and surfaces.face.found.stands_proud and not ends[tool + 1]:
        return float(max(depth[0] - own, own))
    return float(max(surfaces.clearance[row] * depth[row], own))


def least_seconds(one: Face, planned: Job, *, slope: float, habit: str, limit: float) -> float | None:
    """The least time with repeats and the end's risk over all routes, by trying them all."""
    law = Law(one, planned, slope)
    figures = figures_of(one, planned)
    assert figures is not None
    everything = frozenset(range(len(one.spots)))
    ends = np.logical_and.reduce(list(possible_ends(law.rest).values()))
    done = one.found.as_wanted
    masks = [np.logical_or.reduce(list(forbidden_steps(each).values())) for each in (law.rest, *law.kinds)]
    again = [repeats(each, excess(each, habit), "free") for each in (law.rest, *law.kinds)]
    states = [law.rest, *law.kinds]
    best: float | None = None

    def tail_fits(lost: dict[int, float]) -> bool:
        above = [one.above, *(kind.found.above for kind in one.spots)]
        return all(metal <= limit + above[state] + 1e-9 * (abs(limit) + metal) for state, metal in lost.items())

    def walk(
        kinds: frozenset[int], whole: bool, last: int | None, width: float, seconds: float, lost: dict[int, float]
    ) -> None:
        nonlocal best
        if (
            last is not None
            and (whole or (kinds == everything and done and one.want.deformed in (0.0, 1.0)))
            and ends[last + 1]
        ):
            node = next(
                n for n in range(1, len(figures.graph.row))
                if figures.graph.row[n] == last + 1 and figures.graph.whole[n] == whole
                and (whole or (figures.graph.kinds[n] == sum(1 << k for k in kinds)
                               and abs(figures.area[n] - law.area(kinds, last, width)) < 1e-12))
            )  # fmt: skip
            total = seconds + float(figures.stop[0, node])
            if tail_fits(lost) and (best is None or total < best):
                best = total
        larger = [] if whole else [frozenset(k for k in everything if bits >> k & 1) for bits in range(1, 1 << len(everything))]
        for onward in [each for each in larger if each >= kinds]:
            for tool in law.in_places:
                step(kinds, onward, False, last, tool, width, seconds, lost)
        for tool in range(len(law.near.tools)):
            if law.near.tools[tool].tool.id in law.wide:
                step(kinds, everything, True, last, tool, width, seconds, lost, whole)

    def step(kinds, onward, to_whole, last, tool, width, seconds, lost, whole=False) -> None:
        row = 0 if last is None else last + 1
        own = float(law.rest.depth_worst[tool + 1])
        stays = (to_whole and whole) or (not to_whole and onward == kinds)
        on = last == tool
        finer = last is None or law.rest.depth_worst[row] > own
        if not finer and (stays or not (to_whole or on)):
            return
        begun = list(onward - kinds) if not (to_whole and whole) else []
        met = [(0, row)] if last is not None and not on else []
        met += [(k + 1, 0) for k in begun]
        if to_whole and not whole and not done:
            met.append((0, 0))
        if any(masks[state][at, tool + 1] for state, at in met):
            return
        worst = {pair: layer_of(states[pair[0]], pair[1], tool, states[pair[0]].depth_worst, ends) for pair in met}
        probably = {pair: layer_of(states[pair[0]], pair[1], tool, states[pair[0]].depth_likely, ends) for pair in met}
        on_face = law.wide[law.near.tools[tool].tool.id] if to_whole else law.near.tools[tool]
        new_width = max(width, law.width[tool])
        where_it_was = own if on else probably.get((0, row), 0.0) if last is not None else 0.0
        if to_whole and whole:
            volume = where_it_was * one.area
        elif to_whole:
            level = [probably[k + 1, 0] for k in begun if not one.spots[k].found.stands_proud]
            everywhere = max([own if done else probably[0, 0], where_it_was, *level])
            volume = everywhere * one.area
            volume += sum(
                max(probably[k + 1, 0] - own, 0.0) * (law.dug(k, tool)) for k in begun if one.spots[k].found.stands_proud
            )
        else:
            now = law.area(onward, tool, new_width)
            before = law.area(kinds, last, width) if last is not None else 0.0
            volume = where_it_was * before + own * max(now - before, 0.0)
            volume += sum(max(probably[k + 1, 0] - own, 0.0) * law.dug(k, tool) for k in begun)
        deepest = max([own, *(float(states[state].depth_likely[at]) for state, at in met)])
        life = on_face.life_on(deepest)
        cut = cutting(fresh=volume / on_face.rate, life=life, change_after=on_face.change_after(life))
        stock = on_face.tool.carrier.stock
        time = float(cut.seconds) + (float(cut.used) - 1) * stock.change + constant("work.check").si
        if not on:
            time += stock.setup + (constant("work.wet_wipe").si if on_face.working.wet else 0.0)
        if last is not None and not on:
            time += WASH
        risk = max([0.0, *(float(again[state][at, tool + 1]) for state, at in met)])
        took = max([own, *worst.values()]) if to_whole or last is None else own if on else worst[0, row]
        left = {state: metal + took for state, metal in lost.items()}
        for k in begun:
            left[k + 1] = max([own, *worst.values()]) if to_whole else worst[k + 1, 0]
        if to_whole and not whole:
            left[0] = max([own, *worst.values()])
        walk(onward, to_whole, tool, new_width, seconds + time * (1 + risk), left)

    walk(frozenset(), False, None, 0.0, 0.0, {})
    return best


def seconds_of(figures: StepFigures, route: Route | None, habit: str) -> float | None:
    if route is None:
        return None
    again = figures.repeats(habit, "free")
    taken = sum(float(figures.values[0, step]) * (1 + float(again[step])) for step in route.steps)
    return taken + float(figures.stop[0, route.nodes[-1]])


WASH = constant("work.wash").si
racks = st.lists(st.sampled_from(sorted(key for key, one in tools().items() if one.carrier.kind not in ("lap", "stone"))),
                 min_size=2, max_size=5, unique=True).map(tuple)  # fmt: skip
kinds = st.tuples(
    st.sampled_from(["scratches", "pits", "nick", "raised"]),
    st.floats(3, 150),
    st.integers(1, 5),
    st.floats(2, 120),
    st.floats(0.5, 20),
)


@settings(max_examples=many(60))
@given(
    racks,
    st.sampled_from(["brass", "stainless-304", "mild-steel", "acrylic"]),
    st.sampled_from([("mirror", 0.01), ("bright", 0.01), ("satin", 0.01), ("brushed-fine", 0.01), ("paint-ready", 0.02)]),
    st.floats(0.5, 12),
    st.booleans(),
    st.lists(kinds, min_size=1, max_size=2),
    st.sampled_from(["long-steps", "double-up"]),
    st.one_of(st.none(), st.floats(5, 300)),
)
def test_no_route_over_places_and_the_face_is_better(rack, stuff, want, depth, done, found, habit, limit) -> None:
    finish, slope = want
    rest = face(finish, depth=depth, area=0.3)
    rest = replace(rest, found=Found("scratches", as_wanted=True)) if done else rest
    some = tuple(spots(kind, deep, count=count, length_mm=long, width_mm=min(wide, long), name=str(n))
                 for n, (kind, deep, count, long, wide) in enumerate(found))  # fmt: skip
    one = replace(rest, spots=some)
    planned = job(stuff, one, rack=rack, habit=habit)
    figures = figures_of(one, planned)
    assert figures is not None
    may = np.inf if limit is None else limit * UM
    route = best_route(figures, RouteRequest(limit=may, habit=habit))
    least = least_seconds(one, planned, slope=slope, habit=habit, limit=may)
    found_least = seconds_of(figures, route, habit)
    assert (found_least is None) == (least is None)
    np.testing.assert_allclose(found_least or 0.0, least or 0.0, rtol=1e-9)
