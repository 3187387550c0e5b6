"""Decision under a guessed depth: start coarse, or try a finer grade on a patch first and step back if it fails."""

import math
from dataclasses import dataclass, replace
from statistics import NormalDist

import numpy as np

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import chosen_route, figures_of, wishing
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.step_table import TIME, Route
from kelbrast.core.process.removal import cutting
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
    if face.left_alone or face.edge is not None or face.spots:  # what to begin with where it is worse is no bet on the face
        return None
    if found.after is not None or found.likely is None or not (found.worst or 0) > found.likely:
        return None
    depths = depths_of_guess(found.likely, found.worst or found.likely)
    steps = [_at_depth(face, job, depth) for depth in (*depths, found.likely, found.worst or found.likely)]
    fine, coarse = (_first(figures, job) for figures in steps[-2:])
    if fine is None or coarse is None or fine == coarse:
        return None
    sure = [_seconds(figures, job, coarse) for figures in steps[:-2]]
    quick = [_seconds(figures, job, fine) for figures in steps[:-2]]
    if not all(map(math.isfinite, sure)):
        return None
    right = [a < b for a, b in zip(quick, sure, strict=True)]
    if all(right) or not any(right):
        return None
    patch = min(face.area, constant("blend.least_patch").si)
    last = max((depth for depth, is_right in zip(depths, right, strict=True) if is_right), default=0.0)
    trials = [_trial(figures, fine, min(depth, last), patch) for figures, depth in zip(steps[:-2], depths, strict=True)]
    each = [a if is_right else b for a, b, is_right in zip(quick, sure, right, strict=True)]
    tools = {on_face.tool.id: on_face.tool for on_face in steps[-1].tools}
    return Bet(
        coarse=tools[coarse],
        fine=tools[fine],
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


def _at_depth(face: Face, job: Job, depth: float) -> StepFigures:
    figures = figures_of(replace(face, found=replace(face.found, likely=depth, worst=depth), wish=Wish()), job)
    assert figures is not None, "a face that is kept off has no bet"
    return figures


def _first(figures: StepFigures, job: Job) -> str | None:
    route = _quickest(figures, job)
    return figures.ids_of(route)[0] if route and route.nodes else None


def _seconds(figures: StepFigures, job: Job, first: str) -> float:
    """Of the quickest route that starts with this tool; infinite when there is none."""
    route = _quickest(wishing(figures, Wish(start=first)), job)
    return float(route.totals[TIME]) if route else math.inf


def _quickest(figures: StepFigures, job: Job) -> Route | None:
    """The quickest route within the habits that keeps the wish; None when there is none."""
    chosen = chosen_route(figures, replace(job, aim="time"))
    return None if chosen.wish_note else chosen.route


def _trial(figures: StepFigures, tool: str, depth: float, patch: float) -> float:
    """Seconds to work a patch until marks of this depth are gone, and to look."""
    on_face = figures.tools[figures.surfaces.ids.index(tool)]
    stock = on_face.tool.carrier.stock
    layer = float(figures.surfaces.clearance[0]) * max(depth, 0.0)
    life = on_face.life_on(depth) if depth > 0 else on_face.life
    work = cutting(fresh=layer * patch / on_face.rate, life=life, change_after=on_face.change_after(life))
    return stock.setup + float(work.seconds) + constant("work.check").si
