"""The same job by every aim and every habit, side by side: what each would take, and what it costs against the best."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from kelbrast.core.planning.face_plan import chosen_route, graph_of, ways_of
from kelbrast.core.planning.graph import COST, CRITERIA, METAL, TIME, Graph
from kelbrast.core.planning.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, Aim, Job
from kelbrast.core.planning.search import Route
from kelbrast.core.planning.setups import in_turn, rank, wheel_changes


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to do the whole job (SI), for one piece, with set-ups that faces share counted once.

    Attributes:
        metal: the most that comes off any face.
        kept: whether every face could keep the habits.
        possible: whether every face has a route; the totals count only those that have.
    """

    aim: Aim
    habit: str
    handover: str
    bench_speed: str
    possible: bool
    kept: bool
    seconds: float
    metal: float
    cost: float
    changes: int
    steps: int


@dataclass(frozen=True, slots=True)
class Choices:
    """By aim within the job's habits, and by each habit for the job's aim with the other habits as they are."""

    by_aim: tuple[Choice, ...]
    by_habit: tuple[Choice, ...]
    by_handover: tuple[Choice, ...]
    by_bench_speed: tuple[Choice, ...]


# The steps of a face, for every way of taking its damage out.
Ways = Sequence[Graph]


def choices(job: Job) -> Choices:
    """Plan the job every way. The steps of a face are worked out once for all of them."""
    ways = {speed: _ways(replace(job, bench_speed=speed)) for speed in BENCH_SPEEDS}

    known: dict[Job, Choice] = {}

    def choice(**change: Any) -> Choice:
        changed = replace(job, **change)
        if changed not in known:
            known[changed] = _total(changed, ways[changed.bench_speed])
        return known[changed]

    return Choices(
        by_aim=tuple(choice(aim=aim) for aim in AIMS),
        by_habit=tuple(choice(habit=habit) for habit in HABITS),
        by_handover=tuple(choice(handover=handover) for handover in HANDOVERS),
        by_bench_speed=tuple(choice(bench_speed=speed) for speed in BENCH_SPEEDS),
    )


def _ways(job: Job) -> list[Ways]:
    faces = [[graph_of(way, job) for way in ways_of(face)] for face in job.faces]
    return [[graph for graph in graphs if graph is not None] for graphs in faces]


def _total(job: Job, faces: Sequence[Ways]) -> Choice:
    best = [_quickest(job, graphs) for graphs in faces if graphs]
    routes = [(graph, route) for graph, route, _ in best if route is not None]
    set_ups = in_turn(
        (rank(graph.face), float(graph.depth_worst[node]), graph.fits[node - 1].tool, node)
        for graph, route in routes
        for node in route.nodes
    )
    saved = sum((len(uses) - 1) * tool.carrier.setup for tool, uses in set_ups)
    totals = np.array([route.totals for _, route in routes]).reshape(len(routes), len(CRITERIA))
    return Choice(
        aim=job.aim,
        habit=job.habit,
        handover=job.handover,
        bench_speed=job.bench_speed,
        possible=len(routes) == len(best),
        kept=all(note is None for _, _, note in best),
        seconds=float(totals[:, TIME].sum()) - saved,
        metal=float(totals[:, METAL].max()) if routes else 0.0,
        cost=float(totals[:, COST].sum()),
        changes=wheel_changes([tool for tool, _ in set_ups]),
        steps=sum(len(route.nodes) for _, route in routes),
    )


def _quickest(job: Job, graphs: Ways) -> tuple[Graph, Route | None, str | None]:
    """As `plan_face` chooses between blending nicks and lowering the face: by time."""
    found = [(graph, *chosen_route(graph, job)[:2]) for graph in graphs]
    return min(found, key=lambda one: np.inf if one[1] is None else float(one[1].totals[TIME]))
