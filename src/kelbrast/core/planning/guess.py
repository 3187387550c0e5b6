"""Depth is a guess: start coarse and be sure, or try the finer on a patch first and step back if it does not clear."""

import math
from dataclasses import dataclass, replace
from statistics import NormalDist

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.planning.face_plan import graph_of, search_for
from kelbrast.core.planning.graph import TIME, Graph
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.search import best_route
from kelbrast.core.process.dulling import cutting
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, Wish

# The true depth is taken as lognormal, the likely one its middle and the worst one its 95th percentile: read at these shares.
_SHARES = tuple((k + 0.5) / 9 for k in range(9))
_WORST = NormalDist().inv_cdf(0.95)


@dataclass(frozen=True, slots=True)
class Bet:
    """Two ways to begin, with the seconds that each can be expected to take (SI).

    Attributes:
        coarse, fine: the first tools.
        sure: expected when the coarse one is taken at once; trying: when the fine one is tried on a patch first.
        patch: area of the patch, m2.  trial: expected seconds on it, in `trying`.
        clears: how likely the fine one is the right one, 0 to 1.
    """

    coarse: Tool
    fine: Tool
    sure: float
    trying: float
    patch: float
    trial: float
    clears: float

    @property
    def try_first(self) -> bool:
        return self.trying < self.sure


def bet(face: Face, job: Job) -> Bet | None:
    """The bet on a face whose depth was guessed; None when nothing is at stake: one first tool is best at every depth."""
    found = face.found
    if face.keep_off or found.after is not None or found.likely is None or not (found.worst or 0) > found.likely:
        return None
    depths = depths_of_guess(found.likely, found.worst or found.likely)
    graphs = [_at_depth(face, job, depth) for depth in (*depths, found.likely, found.worst or found.likely)]
    fine, coarse = (_first(graph, job) for graph in graphs[-2:])
    if fine is None or coarse is None or fine == coarse:
        return None
    sure = [_seconds(graph, job, coarse) for graph in graphs[:-2]]
    quick = [_seconds(graph, job, fine) for graph in graphs[:-2]]
    if not all(map(math.isfinite, sure)):
        return None
    right = [a < b for a, b in zip(quick, sure, strict=True)]
    patch = min(face.area, constant("blend.least_patch").si)
    last = max((depth for depth, is_right in zip(depths, right, strict=True) if is_right), default=0.0)
    trials = [_trial(graph, fine, min(depth, last), patch) for graph, depth in zip(graphs[:-2], depths, strict=True)]
    each = [a if is_right else b for a, b, is_right in zip(quick, sure, right, strict=True)]
    node = {tool: k for k, tool in enumerate(graphs[-1].tools)}
    return Bet(
        coarse=graphs[-1].fits[node[coarse]].tool,
        fine=graphs[-1].fits[node[fine]].tool,
        sure=float(np.mean(sure)),
        trying=float(np.mean(each) + np.mean(trials)),
        patch=patch,
        trial=float(np.mean(trials)),
        clears=sum(right) / len(right),
    )


def depths_of_guess(likely: float, worst: float) -> tuple[float, ...]:
    """Nine depths that stand for what is probably there, each as likely as the others.

    >>> shallow, *_, deep = depths_of_guess(20e-6, 40e-6)
    >>> round(shallow * 1e6), round(deep * 1e6)
    (10, 39)
    """
    spread = math.log(worst / likely) / _WORST
    return tuple(likely * math.exp(spread * NormalDist().inv_cdf(share)) for share in _SHARES)


def _at_depth(face: Face, job: Job, depth: float) -> Graph:
    graph = graph_of(replace(face, found=replace(face.found, likely=depth, worst=depth), wish=Wish()), job)
    assert graph is not None, "a face that is kept off has no bet"
    return graph


def _first(graph: Graph, job: Job) -> str | None:
    route = best_route(graph, replace(search_for(graph.face, job), aim="time"))
    return graph.tools[route.nodes[0] - 1] if route and route.nodes else None


def _seconds(graph: Graph, job: Job, first: str) -> float:
    """Of the quickest route that starts with this tool; infinite when there is none."""
    route = best_route(graph, replace(search_for(graph.face, job), aim="time", wish=Wish(start=first)))
    return float(route.totals[TIME]) if route else math.inf


def _trial(graph: Graph, tool: str, depth: float, patch: float) -> float:
    """Seconds to work a patch until marks of this depth are gone, and to look."""
    at = graph.tools.index(tool)
    fit = graph.fits[at]
    layer = float(graph.clearance[0]) * max(depth, 0.0)
    work = cutting(fresh=layer * patch / fit.rate, life=fit.tool.carrier.life, change_cost=fit.change_cost)
    return fit.tool.carrier.setup + work.seconds + constant("work.check").si
