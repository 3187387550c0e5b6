"""All steps that could be taken on a face, as arrays: node 0 is the surface as found, node k what tool k leaves.

Every quantity is an (n, n) array indexed [from, to]; every rule is a mask that can be lifted on its own, so that
"what stands in the way" can be asked of the same numbers.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.arrays import Flags, Reals
from kelbrast.core.catalogue.tools import Carrier
from kelbrast.core.planning.fit import Fit
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.nicks import dishes_of
from kelbrast.core.planning.rules import Rule
from kelbrast.core.planning.schools import handover_mask
from kelbrast.core.planning.warming import Warming, warming
from kelbrast.core.process.clearance import area_factor, clearance
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face

CRITERIA: Final = ("time", "metal", "cost", "changes")
TIME, METAL, COST, CHANGES = range(4)
_NODE_RULES: Final[tuple[Rule, ...]] = ("reach", "heat", "speed", "contamination")


@dataclass(frozen=True, slots=True)
class Graph:
    """Steps of one face.

    Attributes:
        fits: the tools, coarsest marks first; tool k of the arrays is `fits[k - 1]`.
        depth_worst, depth_likely: (n,) depth of the marks at each node, m; deepest: of the deepest one on the whole face.
        clearance: (n,) m of the step that leaves each node.
        layer, likely_layer: (n, n) what each step takes off at worst and probably, m.
        values: (4, n, n) time (s), metal (m), cost, changes of each step.
        cut, fresh: (n, n) seconds of cutting, and what they would be if nothing dulled.
        used, worn: (n, n) abrasives to have at hand, and how many of them or of bars and tubs are worn out.
        warm, rests: how the part warms, and (n, n) how often it is put down to cool.
        passable: (n, n) where a step goes at all, all liftable rules aside; rules: masks of the rules that forbid.
        ends: (n,) per rule "lay" and "not-fine-enough", where a route may end.
        ratio: (n, n) jump in grain size between two backed abrasives, 0 where the habit does not count it.
        own: by tool, the items of the shop's rack.
        handover: (n, n) per school of where the wheel starts, True where it forbids the step.
    """

    face: Face
    fits: tuple[Fit, ...]
    ra: Reals
    depth_worst: Reals
    depth_likely: Reals
    deepest: Reals
    clearance: Reals
    layer: Reals
    likely_layer: Reals
    hardness: float
    values: Reals
    cut: Reals
    fresh: Reals
    used: Reals
    worn: Reals
    warm: Warming
    rests: Reals
    passable: Flags
    rules: dict[Rule, Flags]
    ends: dict[Rule, Flags]
    ratio: Reals
    handover: dict[str, Flags]
    own: dict[str, OwnTool]

    @property
    def tools(self) -> tuple[str, ...]:
        """The id of every tool, in the order of the nodes from 1."""
        return tuple(fit.tool.id for fit in self.fits)


def build_graph(face: Face, job: Job, fits: tuple[Fit, ...]) -> Graph:
    """Work out every step between any two of these tools on the face."""
    hardness = job.material.hardness
    start_ra, likely, worst = _as_found(face, hardness)
    ra = np.array([start_ra, *(fit.ra for fit in fits)])
    depth_worst = np.array([worst, *(fit.depth for fit in fits)])
    depth_likely = np.array([likely, *depth_worst[1:]])
    deepest = depth_worst * np.array(
        [_start_factor(face), *(area_factor(area=face.area, grain=fit.tool.grain) for fit in fits)]
    )
    m = np.array([_start_clearance(face), *(_clearance_after(face, fit.tool.grain) for fit in fits)])

    # A surface finer than the new marks must still be worked until they cover it: then the layer is their own depth.
    layer = np.maximum((m * depth_worst)[:, None], depth_worst[None, :])
    likely_layer = np.maximum((m * depth_likely)[:, None], depth_likely[None, :])
    ends = _ends(face, fits, ra, hardness)
    if face.stands_proud:  # knocked down to just above the face, by no more than the new marks are deep, and then refined
        goes_on = ~np.logical_and.reduce(list(ends.values()))
        for part, height in ((layer, worst), (likely_layer, likely)):
            part[0, goes_on] = np.maximum(height - depth_worst, depth_worst)[goes_on]
    volume = likely_layer * face.area
    volume[0] = _first_volume(face, fits, likely_layer[0], likely, depth_worst)
    rate = np.array([np.inf, *(fit.rate for fit in fits)])
    fresh = volume / rate[None, :]
    cut, used, worn = _with_dulling(fresh, fits)
    warm = warming(job, fits)
    rests = np.pad(warm.rests(cut[:, 1:]), ((0, 0), (1, 0)))

    passable = depth_worst[:, None] > depth_worst[None, :]  # between tools always downwards ...
    passable[0, :] = True  # ... but from the found surface anything goes: a face can be too fine
    passable[:, 0] = False
    return Graph(
        face=face,
        fits=fits,
        ra=ra,
        depth_worst=depth_worst,
        depth_likely=depth_likely,
        deepest=deepest,
        clearance=m,
        layer=layer,
        likely_layer=likely_layer,
        hardness=hardness,
        values=_values(cut, used, worn, layer, fits, rests * warm.rest),
        cut=cut,
        fresh=fresh,
        used=used,
        worn=worn,
        warm=warm,
        rests=rests,
        passable=passable,
        rules=_rules(face, fits, deepest, hardness),
        ends=ends,
        ratio=_ratios(face, fits),
        handover=handover_mask(fits, depth_likely, hardness),
        own={one.tool: one for one in job.own.tools} if job.own else {},
    )


def _as_found(face: Face, hardness: float) -> tuple[float, float, float]:
    """Ra (infinite for damage, which is never a finish), likely and worst depth of the found surface."""
    if face.found.after is not None:
        ra = roughness_left(grain=face.found.after.grain, hold=1.0, hardness=hardness)
        return ra, depth_of_marks(ra), depth_of_marks(ra)
    assert face.found.likely is not None, "a found state has a depth or a grade"
    return np.inf, face.found.likely, face.found.worst or face.found.likely


def _first_volume(face: Face, fits: tuple[Fit, ...], layer: Reals, depth: float, own: Reals) -> Reals:
    """(n,) m3 that the first step cuts: ripple and raised metal do not fill the layer, and nicks are only dished.

    A dish is no smaller than the tool, and the rest of the face must be covered with the tool's own marks.
    """
    whole = layer * face.area
    if face.found.after is not None:
        return whole
    if face.found.kind == "waviness":
        return whole * constant("removal.waviness_share").value
    if face.found.kind == "raised":
        return whole * (face.found.share or constant("blend.raised_share").value)
    dishes = dishes_of(face, depth)
    if dishes is None:
        return whole
    patches = np.array([0.0, *(fit.tool.carrier.patch for fit in fits)])
    share = np.minimum(1.0, dishes.count * np.maximum(dishes.area, patches) / 2 / face.area)
    volume: Reals = np.minimum(whole, whole * share + own * face.area)
    return volume


def _start_clearance(face: Face) -> float:
    if face.found.after is not None:
        return _clearance_after(face, face.found.after.grain)
    return constant("clearance.found").value


def _start_factor(face: Face) -> float:
    """A found depth is the deepest already."""
    return area_factor(area=face.area, grain=face.found.after.grain) if face.found.after is not None else 1.0


def _clearance_after(face: Face, grain: float) -> float:
    return clearance(area=face.area, grain=grain, deformed=face.want.deformed)


def _with_dulling(fresh: Reals, fits: tuple[Fit, ...]) -> tuple[Reals, Reals, Reals]:
    """`process.dulling.cutting` for all steps at once, and the abrasives or bars worn out (1.5: one and a half)."""
    life = _column(fits, lambda fit: fit.tool.carrier.life or np.inf)
    lasts = _column(fits, lambda fit: fit.tool.carrier.lasts or np.inf)
    stay = _column(fits, lambda fit: fit.change_after)
    dies = np.isfinite(life)
    span = np.where(dies, life, 1.0)
    each = span * -np.expm1(-np.where(dies, stay, 1.0) / span)
    full = np.where(dies, np.maximum(0, np.ceil(fresh / each - 1e-9) - 1), 0.0)
    rest = np.where(dies, np.minimum(fresh - full * each, each), 0.0)
    cut = np.where(dies, full * np.where(dies, stay, 0.0) - span * np.log1p(-rest / span), fresh)
    worn = np.where(dies, cut / stay, fresh / lasts)
    return cut, full + 1, worn


def _column(fits: tuple[Fit, ...], of: Callable[[Fit], float]) -> Reals:
    """A value per tool as an array over nodes; the found surface, to which no step leads, gets infinity."""
    return np.array([np.inf, *(of(fit) for fit in fits)], dtype=np.float64)


def _values(cut: Reals, used: Reals, worn: Reals, layer: Reals, fits: tuple[Fit, ...], resting: Reals) -> Reals:
    n = len(cut)
    values = np.zeros((len(CRITERIA), n, n))
    carriers = [fit.tool.carrier for fit in fits]
    check, wash = constant("work.check").si, constant("work.wash").si
    setup = np.array([0.0, *(carrier.setup for carrier in carriers)])
    change = np.array([0.0, *(carrier.change for carrier in carriers)])
    price = np.array([0.0, *(carrier.price for carrier in carriers)])
    mounted = np.array([0.0, *(carrier.mount != "hand" for carrier in carriers)])
    wiping = np.array([0.0, *(constant("work.wet_wipe").si if fit.wet else 0.0 for fit in fits)])
    values[TIME] = cut + setup + (used - 1) * change + check + wiping + resting
    values[TIME, 1:] += wash
    values[METAL] = layer
    values[COST] = price * worn
    values[CHANGES, 1:] = mounted
    return values


def _rules(face: Face, fits: tuple[Fit, ...], deepest: Reals, hardness: float) -> dict[Rule, Flags]:
    """Per rule, True where it forbids the step."""
    n = len(deepest)
    rules: dict[Rule, Flags] = {rule: np.zeros((n, n), dtype=bool) for rule in _NODE_RULES}
    for column, fit in enumerate(fits, start=1):
        for rule in fit.forbidden:
            rules[rule][:, column] = True
    reaches = np.array([np.inf, *(fit.tool.reaches_depth or np.inf for fit in fits)])
    too_soft = deepest[:, None] > reaches[None, :]
    if face.must_be_levelled:
        too_soft[0, 1:] |= ~np.array([fit.tool.carrier.levels for fit in fits], dtype=bool)
    too_soft[:, 1:] |= np.array([(fit.tool.carrier.hardest or np.inf) < hardness for fit in fits], dtype=bool)
    if face.limit_kind == "size":
        too_soft[:, 1:] |= ~np.array([holds_size(fit.tool.carrier, face) for fit in fits], dtype=bool)
    rules["too-soft"] = too_soft
    return rules


def holds_size(carrier: Carrier, face: Face) -> bool:
    """Whether it keeps a size to a few microns here: on a round outside only what works it round does."""
    return carrier.keeps_size and (face.turned is None or carrier.turned_only)


def _ends(face: Face, fits: tuple[Fit, ...], ra: Reals, hardness: float) -> dict[Rule, Flags]:
    """Per rule, True where a route may end."""
    low, high = wanted_band(face, hardness)
    fine = (ra >= low * (1 - 1e-9)) & (ra <= high * (1 + 1e-9))
    if face.no_finer_than is not None:
        grains = np.array([np.inf, *(fit.tool.grain for fit in fits)])
        fine &= grains >= face.no_finer_than.grain * (1 - 1e-9)
    lay = np.array([face.want.lay in ("any", _lay_found(face)), *(_leaves(fit, face.want.lay) for fit in fits)])
    return {"not-fine-enough": fine, "lay": lay}


def wanted_band(face: Face, hardness: float) -> tuple[float, float]:
    """The band of Ra in metres. "No finer than" a grade means between its paper's Ra and that of twice the grain."""
    if face.no_finer_than is not None:
        low = roughness_left(grain=face.no_finer_than.grain, hold=1.0, hardness=hardness)
        coarse = face.no_finer_than.grain * constant("habit.double-up").value
        return low, roughness_left(grain=coarse, hold=1.0, hardness=hardness)
    return face.want.ra_low or 0.0, face.want.ra_high if face.want.ra_high is not None else np.inf


def _lay_found(face: Face) -> str:
    return "one-way" if face.found.kind == "lay" else "any"


def _leaves(fit: Fit, lay: str) -> bool:
    return lay == "any" or lay in fit.tool.carrier.lays


def _ratios(face: Face, fits: tuple[Fit, ...]) -> Reals:
    start = face.found.after.grain if face.found.after is not None else np.nan
    grains = np.array([start, *(fit.tool.grain if fit.tool.carrier.backed else np.nan for fit in fits)])
    return np.asarray(np.nan_to_num(grains[:, None] / grains[None, :], nan=0.0))
