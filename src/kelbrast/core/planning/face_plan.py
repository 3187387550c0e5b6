"""The plan of one face: the best route within the habits and the wish, or what stands in the way."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.planning.binding import Binding, binding
from kelbrast.core.planning.fit import Place, fits, usable
from kelbrast.core.planning.graph import CHANGES, COST, METAL, TIME, Graph, build_graph, wanted_band
from kelbrast.core.planning.job import HABITS, HANDOVERS, Aim, Job
from kelbrast.core.planning.nicks import dishes_of, lowered
from kelbrast.core.planning.rules import Rule
from kelbrast.core.planning.search import Route, Search, best_route
from kelbrast.core.planning.step import Step, steps_of
from kelbrast.core.process.marks_said import marks_said
from kelbrast.core.process.scratch import depth_of_marks
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.wording import Sentence


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
        habit_note: said when the rack could not keep the habit; wish_note: when no route keeps the wish.
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
    wish_note: str | None = None
    nicks: NickChoice | None = None

    @property
    def marks_left(self) -> float:
        """Old marks that can be expected to be there at the end."""
        return sum(step.marks_left for step in self.steps)

    @property
    def marks_said(self) -> Sentence:
        """The same in words."""
        return marks_said(self.marks_left, max((step.marks_share for step in self.steps), default=0.0))

    @property
    def possible(self) -> bool:
        return self.binding is None


def graph_of(face: Face, job: Job) -> Graph | None:
    """All steps that the job's rack may take on a face; None for a face that is kept off."""
    return None if face.keep_off else build_graph(face, job, usable(job.material, Place.of(face, job), job.rack))


def _obstacle(face: Face, job: Job) -> Binding:
    """What stands in the way, asked of the whole rack with the tools that may not be used here."""
    graph = build_graph(face, job, fits(job.material, Place.of(face, job), job.rack))
    return binding(graph, job.material, Search(aim=job.aim, limit=face.may_come_off))


def ways_of(face: Face) -> tuple[Face, ...]:
    """The face as it is; for nicks that could be blended, also with the whole face lowered, unless the person chose."""
    if face.keep_off or dishes_of(face, face.found.likely or 0.0) is None or face.found.blend:
        return (face,)
    return (lowered(face),) if face.found.blend is False else (face, lowered(face))


def plan_face(face: Face, job: Job, graph: Graph | None = None) -> FacePlan:
    """The best route of one face for the job's aim, habits and rack. `graph`: the face's steps, where they are known already.

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


def search_for(face: Face, job: Job) -> Search:
    """What is looked for on a face before any habit: the aim, the metal limit and the wish.

    A route that the person sets out step by step may ask too much of a soft wheel: it is planned, with the marks it leaves.
    """
    lifted: frozenset[Rule] = frozenset({"too-soft"}) if face.wish.route else frozenset()
    return Search(aim=job.aim, limit=face.may_come_off, wish=face.wish, lifted=lifted)


def _plan_face(face: Face, job: Job, graph: Graph | None = None) -> FacePlan:
    low, high = wanted_band(face, job.material.hardness)
    wanted = (depth_of_marks(low), depth_of_marks(high))
    graph = graph or graph_of(face, job)
    if graph is None:
        return FacePlan(face, job.aim, None, (), 0.0, 0.0, 0.0, 0, wanted)
    route, habit_note, wish_note = chosen_route(graph, job)
    if route is None:
        return FacePlan(face, job.aim, _obstacle(face, job), (), 0.0, 0.0, 0.0, 0, wanted)
    return FacePlan(
        face=face,
        aim=job.aim,
        binding=None,
        steps=steps_of(graph, route.nodes, job.material),
        seconds=float(route.totals[TIME]),
        metal=float(route.totals[METAL]),
        cost=float(route.totals[COST]),
        changes=round(route.totals[CHANGES]),
        wanted=wanted,
        habit_note=habit_note,
        wish_note=wish_note,
    )


def chosen_route(graph: Graph, job: Job) -> tuple[Route | None, str | None, str | None]:
    """The best route that keeps the wish and the habits, each given up only as far as it must be; and what was given up."""
    search = search_for(graph.face, job)
    if search.wish.route:
        route, note = best_route(graph, search), None
    else:
        route, note = _keeping_habits(graph, search, job)
    if route is not None or search.wish.empty:
        return route, note, None
    free = replace(search, wish=Wish(), lifted=frozenset())
    return *_keeping_habits(graph, free, job), "No route here keeps what you set for it; this is the best without that."


def widest_jump(habit: str) -> float:
    """The largest ratio of grain sizes between two backed abrasives that the habit allows (infinite for long steps)."""
    return np.inf if habit == "long-steps" else constant(f"habit.{habit}").value


def _keeping_habits(graph: Graph, search: Search, job: Job) -> tuple[Route | None, str | None]:
    """The best route within the habits: the jump between grades is widened as little as the rack and the limit force."""
    widest = widest_jump(job.habit)
    kept = replace(search, ratio=widest, handover=job.handover)
    if (route := best_route(graph, kept)) is not None:
        return route, None
    if best_route(graph, search) is None:
        return None, None
    notes = []
    if best_route(graph, replace(kept, ratio=np.inf)) is None:
        notes.append(f"This rack can not keep “{HANDOVERS[job.handover].lower()}” on this face.")
        kept = replace(kept, handover="free")
    if (route := best_route(graph, kept)) is None:
        jumps = np.unique(graph.ratio[graph.ratio > widest])
        at = _first_that_opens(graph, kept, jumps)
        route = best_route(graph, replace(kept, ratio=float(jumps[at]))) if at is not None else None
        if route is not None and at is not None:
            notes.append(f"This rack can not keep “{HABITS[job.habit].lower()}”: one jump here is {jumps[at]:.2g} times finer.")
    return route, " ".join(notes) or None


def _first_that_opens(graph: Graph, search: Search, jumps: np.ndarray[tuple[int], np.dtype[np.float64]]) -> int | None:
    """The smallest of these jumps that opens a route; None when even the largest does not."""
    low, high = 0, len(jumps) - 1
    if high < 0 or best_route(graph, replace(search, ratio=float(jumps[high]))) is None:
        return None
    while low < high:
        middle = (low + high) // 2
        if best_route(graph, replace(search, ratio=float(jumps[middle]))) is None:
            low = middle + 1
        else:
            high = middle
    return low
