"""The plan of a job: for every face the best route, step by step, or what stands in the way."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.advice import LayOfStep, lay_of_step, light_check, part_cautions, step_cautions
from kelbrast.core.planning.binding import Binding, binding
from kelbrast.core.planning.fit import Fit, Place, choose_rack, fits
from kelbrast.core.planning.graph import CHANGES, COST, METAL, TIME, Graph, build_graph, wanted_band
from kelbrast.core.planning.job import HABITS, Aim, Job
from kelbrast.core.planning.nicks import dishes_of, lowered
from kelbrast.core.planning.search import Route, Search, best_route
from kelbrast.core.process.dulling import share_done
from kelbrast.core.process.scratch import depth_of_marks
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face

_CURVE_POINTS = 40


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a route (SI).

    Attributes:
        depth_before: depth of the marks that it meets, at worst; `likely_before`: as it will probably be.
        layer: what it takes off, `clearance * depth_before`.
        depth_after: depth of its own marks.
        seconds: everything; `cut_seconds`: on the work.
        used: abrasives to have at hand; worn: how many of them, or of bars and tubs, are worn out by it.
        curve: (seconds since the step began, deepest marks left) for drawing.
    """

    fit: Fit
    depth_before: float
    likely_before: float
    layer: float
    depth_after: float
    clearance: float
    seconds: float
    cut_seconds: float
    used: float
    worn: float
    lay: LayOfStep
    check: str
    cautions: tuple[str, ...]
    curve: tuple[tuple[float, float], ...]

    @property
    def tool(self) -> Tool:
        return self.fit.tool


@dataclass(frozen=True, slots=True)
class NickChoice:
    """How nicks are taken out: a dish around each, or the whole face lowered. `other_seconds`: what the other way takes.

    Attributes:
        radius: of a dish, m.
        other_seconds: None when the other way has no route.
    """

    blended: bool
    count: int
    radius: float
    other_seconds: float | None


@dataclass(frozen=True, slots=True)
class FacePlan:
    """The route of a face. `steps` is empty when nothing is to be done, when the face is kept off, or when `binding` is set.

    Attributes:
        wanted: depth of the marks at the fine and the coarse end of the wanted band, m (0 and infinite for no end).
        habit_note: said when the rack could not keep the habit.
        nicks: for a nicked face, whether it is blended, and what the other way costs.
    """

    face: Face
    aim: Aim
    binding: Binding | None
    steps: tuple[Step, ...]
    seconds: float
    metal: float
    cost: float
    changes: int
    wanted: tuple[float, float]
    habit_note: str | None = None
    nicks: "NickChoice | None" = None

    @property
    def possible(self) -> bool:
        return self.binding is None


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a job: faces as in the job, and the order to work them in."""

    job: Job
    faces: tuple[FacePlan, ...]
    order: tuple[str, ...]
    cautions: tuple[str, ...]

    @property
    def possible(self) -> bool:
        return all(face.possible for face in self.faces)

    @property
    def seconds_each(self) -> float:
        return sum(face.seconds for face in self.faces)


def plan_job(job: Job) -> Plan:
    """Plan every face of a job.

    Raises:
        BadInput: the rack names something that does not exist.
    """
    choose_rack(job.rack)
    faces = tuple(plan_face(face, job) for face in job.faces)
    return Plan(
        job=job,
        faces=faces,
        order=tuple(face.name for face in order_of_work(job.faces)),
        cautions=part_cautions(job.material, keep_off=any(face.keep_off for face in job.faces)),
    )


def order_of_work(faces: tuple[Face, ...]) -> list[Face]:
    """Recesses and insides before the open faces around them; brushed faces last, so that nothing crosses their lay."""

    def rank(face: Face) -> int:
        return 2 if face.want.lay == "one-way" else 0 if face.reach in ("inside", "tight") else 1

    return sorted((face for face in faces if not face.keep_off), key=rank)


def graph_of(face: Face, job: Job) -> Graph | None:
    """All steps that the job's rack could take on a face; None for a face that is kept off."""
    if face.keep_off:
        return None
    place = Place.of(face, carried=job.comes_to_the_bench)
    return build_graph(face, job.material, fits(job.material, place, job.rack))


def plan_face(face: Face, job: Job, graph: Graph | None = None) -> FacePlan:
    """The best route of one face for the job's aim, habit and rack. `graph`: the face's steps, where they are known already.

    Nicks are blended or the face lowered, whichever is quicker, unless the person chose.
    """
    dishes = None if face.keep_off else dishes_of(face, face.found.likely or 0.0)
    if dishes is None:
        return _plan_face(face, job, graph)
    blended, lower = _plan_face(face, job, graph), _plan_face(lowered(face), job)
    blend = blended.seconds <= lower.seconds if face.found.blend is None else face.found.blend
    best, other = (blended, lower) if blend else (lower, blended)
    nicks = NickChoice(blend, dishes.count, dishes.radius, other.seconds if other.possible else None)
    return replace(best, face=face, nicks=nicks)


def _plan_face(face: Face, job: Job, graph: Graph | None = None) -> FacePlan:
    low, high = wanted_band(face, job.material.hardness)
    wanted = (depth_of_marks(low), depth_of_marks(high))
    graph = graph or graph_of(face, job)
    if graph is None:
        return FacePlan(face, job.aim, None, (), 0.0, 0.0, 0.0, 0, wanted)
    limit = np.inf if face.limit is None else face.limit
    route, note = _keeping_habit(graph, Search(aim=job.aim, limit=limit), job.habit)
    if route is None:
        obstacle = binding(graph, job.material, Search(aim=job.aim, limit=limit))
        return FacePlan(face, job.aim, obstacle, (), 0.0, 0.0, 0.0, 0, wanted)
    pairs = list(zip((0, *route.nodes), route.nodes, strict=False))
    steps = tuple(
        _step(graph, before, at, job.material, first=place == 0, last=place == len(pairs) - 1)
        for place, (before, at) in enumerate(pairs)
    )
    totals = route.totals
    return FacePlan(
        face=face,
        aim=job.aim,
        binding=None,
        steps=steps,
        seconds=float(totals[TIME]),
        metal=float(totals[METAL]),
        cost=float(totals[COST]),
        changes=round(totals[CHANGES]),
        wanted=wanted,
        habit_note=note,
    )


def widest_jump(habit: str) -> float:
    """The largest ratio of grain sizes between two backed abrasives that the habit allows (infinite for long steps)."""
    return np.inf if habit == "long-steps" else constant(f"habit.{habit}").value


def _keeping_habit(graph: Graph, search: Search, habit: str) -> tuple[Route | None, str | None]:
    """The best route within the habit, the habit being widened as little as the rack and the limit force."""
    widest = widest_jump(habit)
    route = best_route(graph, replace(search, ratio=widest))
    if route is not None or np.isinf(widest):
        return route, None
    if best_route(graph, search) is None:
        return None, None
    jumps = np.unique(graph.ratio[graph.ratio > widest])
    low, high = 0, len(jumps) - 1
    while low < high:
        middle = (low + high) // 2
        if best_route(graph, replace(search, ratio=float(jumps[middle]))) is None:
            low = middle + 1
        else:
            high = middle
    route = best_route(graph, replace(search, ratio=float(jumps[low])))
    note = f"This rack can not keep “{HABITS[habit].lower()}”: one jump here is {jumps[low]:.2g} times finer."
    return route, note


def _step(graph: Graph, before: int, at: int, material: Material, *, first: bool, last: bool) -> Step:
    fit, face = graph.fits[at - 1], graph.face
    layer, depth = float(graph.layer[before, at]), float(graph.depth_worst[before])
    cut = float(graph.cut[before, at])
    seconds = float(graph.values[before, at, TIME])
    return Step(
        fit=fit,
        depth_before=depth,
        likely_before=float(graph.depth_likely[before]),
        layer=layer,
        depth_after=float(graph.depth_worst[at]),
        clearance=layer / depth,
        seconds=seconds,
        cut_seconds=cut,
        used=float(graph.used[before, at]),
        worn=float(graph.worn[before, at]),
        lay=lay_of_step(fit, face, last=last),
        check=light_check(fit, face, first=first, last=last),
        cautions=step_cautions(fit, material),
        curve=_curve(graph, before, at, seconds),
    )


def _curve(graph: Graph, before: int, at: int, seconds: float) -> tuple[tuple[float, float], ...]:
    """Deepest marks left over the step: old ones sink as the layer goes, down to the step's own; changes spread evenly."""
    fit = graph.fits[at - 1]
    carrier = fit.tool.carrier
    depth, own = float(graph.depth_likely[before]), float(graph.depth_worst[at])
    layer = max(float(graph.clearance[before]) * depth, own)
    cut, fresh = float(graph.cut[before, at]), float(graph.fresh[before, at])
    start = carrier.setup + (constant("work.wash").si if before else 0.0)
    working = seconds - start - constant("work.check").si
    points = [(0.0, max(depth, own)), (start, max(depth, own))]
    for k in range(1, _CURVE_POINTS + 1):
        share = k / _CURVE_POINTS
        done = share_done(seconds=cut * share, fresh=fresh, life=carrier.life, change_cost=fit.change_cost)
        points.append((start + working * share, max(depth - layer * done, own)))
    return (*points, (seconds, own))
