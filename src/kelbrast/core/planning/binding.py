"""When no route exists: which rule stands in the way, and the number that is missing."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.planning.graph import METAL, Graph, holds_size, wanted_band
from kelbrast.core.planning.rules import RULES, Rule
from kelbrast.core.planning.search import Search, best_route, reachable
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.limits import LIMITS
from kelbrast.core.units import from_si


@dataclass(frozen=True, slots=True)
class Binding:
    """The rule that binds (one of `RULES`) and a sentence with the missing number."""

    rule: Rule
    reason: str


def binding(graph: Graph, material: Material, search: Search) -> Binding:
    """Why there is no route: the first rule that alone would open one; failing that, one of a smallest set that would."""
    alone = next((rule for rule in RULES if best_route(graph, replace(search, lifted=frozenset([rule]))) is not None), None)
    needed = frozenset([alone]) if alone else _smallest_set(graph, search)
    if not needed:
        return Binding("reach", "There is no tool on this rack that a machine here can drive.")
    rule, *others = (rule for rule in RULES if rule in needed)
    reason = _reason(rule, graph, material, replace(search, lifted=needed))
    if others:
        reason += f" {' and '.join(_NAMES[other] for other in others).capitalize()} stands in the way as well."
    return Binding(rule, reason)


_NAMES: Final[dict[Rule, str]] = {
    "metal": "the metal that may come off",
    "reach": "the reach of the tools",
    "heat": "heat",
    "speed": "the speed of the machines",
    "contamination": "what the wheels are kept for",
    "lay": "the lay",
    "too-soft": "the softness of the tools",
    "not-fine-enough": "the roughness band",
}


def _smallest_set(graph: Graph, search: Search) -> frozenset[Rule]:
    """Rules that together open a route, none of which could stay (deletion filter from all of them lifted)."""
    lifted: frozenset[Rule] = frozenset(RULES)
    if best_route(graph, replace(search, lifted=lifted)) is None:
        return frozenset()
    for rule in reversed(RULES):
        fewer = lifted - {rule}
        if best_route(graph, replace(search, lifted=fewer)) is not None:
            lifted = fewer
    return lifted


def _reason(rule: Rule, graph: Graph, material: Material, search: Search) -> str:
    """A sentence on the rule, with numbers from the route that is open once the rules of `search.lifted` are lifted."""
    opened = best_route(graph, search)
    assert opened is not None, "the lifted rules open a route"
    if rule == "metal":
        return _metal(graph, search)
    if rule == "lay":
        last = graph.fits[opened.nodes[-1] - 1].tool.label if opened.nodes else "The surface as found"
        wanted = {"one-way": "one direction", "none": "no direction at all"}[graph.face.want.lay]
        return f"Nothing here that fits and is fine enough leaves {wanted}; {last} does not."
    if rule == "not-fine-enough":
        return _roughness(graph, material, replace(search, lifted=search.lifted - {rule}))
    steps = list(zip((0, *opened.nodes), opened.nodes, strict=False))
    before, at = next((step for step in steps if graph.rules[rule][step]), steps[0])
    return _tool_reason(rule, graph, material, before, at)


def _metal(graph: Graph, search: Search) -> str:
    least = best_route(graph, replace(search, aim="metal"))
    assert least is not None, "the lifted rules open a route"
    face = graph.face
    need, may = _um(float(least.totals[METAL]) - face.above), _um(search.limit - face.above)
    may_not = f"only {may} µm may come off{'' if face.limit_kind == 'metal' else f': {LIMITS[face.limit_kind]}'}."
    first = float(graph.layer[0, least.nodes[0]])
    if first > search.limit:
        whole = "" if len(least.nodes) == 1 else f" and the whole route {need} µm"
        return f"Taking the damage out removes {_um(first)} µm{whole}; {may_not}"
    return f"Even the most sparing route takes {need} µm off; {may_not}"


def _roughness(graph: Graph, material: Material, search: Search) -> str:
    low, high = wanted_band(graph.face, material.hardness)
    found = np.flatnonzero(reachable(graph, search))
    ends = [node for node in found if node and (graph.ends["lay"][node] or "lay" in search.lifted)]
    if not ends:
        return "No tool here leaves the wanted roughness."
    finest = min(ends, key=lambda node: float(graph.ra[node]))
    label = graph.fits[finest - 1].tool.label
    if graph.ra[finest] > high:
        ra, wanted = _told_apart(float(graph.ra[finest]), high)
        return f"The finest that can be reached here is Ra {ra} µm with {label}; {wanted} µm or less is wanted."
    coarsest = max(ends, key=lambda node: float(graph.ra[node]))
    if graph.ra[coarsest] < low:
        label = graph.fits[coarsest - 1].tool.label
        ra, wanted = _told_apart(float(graph.ra[coarsest]), low)
        return f"Nothing here leaves it coarse enough: {label} leaves Ra {ra} µm, and at least {wanted} µm is wanted."
    return f"Nothing that can be reached here ends between Ra {_um(low)} and {_um(high)} µm."


def _tool_reason(rule: Rule, graph: Graph, material: Material, before: int, at: int) -> str:
    fit = graph.fits[at - 1]
    carrier, label = fit.tool.carrier, fit.tool.label
    if rule == "reach":
        if fit.machine.stands and carrier.open and graph.face.reach == "open":
            return f"This part is too big to bring to a bench machine, and {label} needs one."
        if carrier.scallops and graph.face.reflects_flat:
            return f"{label} would leave hollows that show on a flat face, and nothing else here does its step."
        if carrier.flat_only and graph.face.curved:
            return f"{label} would leave facets on a curved face, and nothing else here does its step."
        if graph.face.reach == "open":
            return f"{label} is made for bores, and nothing else here does its step."
        if graph.face.reach != "inside":
            return f"Nothing on this rack that would do it gets into a {graph.face.reach} place; {label} does not."
        have = f"{from_si(graph.face.inside_radius or 0, 'mm'):g} mm"
        entering = [f.tool.carrier.inside_radius for f in graph.fits if f.tool.carrier.inside_radius]
        if entering and min(entering) > (graph.face.inside_radius or 0):
            return f"No tool here enters an inside radius of {have}; the smallest needs {from_si(min(entering), 'mm'):g} mm."
        return f"None of the tools that enter an inside radius of {have} can do this step; {label} could, but does not go in."
    if rule == "heat":
        hottest = material.limit if fit.by_hand else fit.allowed + constant("heat.room").si
        limit = f"{from_si(hottest, 'C'):.0f} °C"
        wanted = constant("heat.shortest_stay").value
        if fit.until_hot < fit.stay:
            what = "too hot to hold" if fit.by_hand else f"hotter than {limit}"
            return f"{label} makes this small part {what} in {fit.until_hot:.2g} s; {wanted:g} s are wanted."
        return f"{label} brings the surface to {limit} in {fit.stay:.2g} s even with light pressure; {wanted:g} s are wanted."
    if rule == "speed":
        mark = f" below its mark of {carrier.marked_limit:g} m/s" if carrier.marked_limit else ""
        return f"No machine here has a setting that suits {label} on this material{mark}."
    if rule == "contamination":
        return f"{label} is not kept for this material: it would spoil the work or the wheel."
    if before == 0 and graph.face.must_be_levelled and not carrier.levels:
        what = "ripple" if graph.face.found.kind == "waviness" else "raised metal"
        return f"Only firmly backed abrasives take down {what}; {label} follows the shape instead."
    if graph.face.limit_kind == "size" and not holds_size(carrier, graph.face):
        return f"{label} does not hold a size; a lap, a stone or cloth in the lathe would, and none here does its step."
    if carrier.hardest is not None and carrier.hardest < material.hardness:
        return f"{label} skates on {material.label.lower()}: it cuts no harder than {from_si(carrier.hardest, 'GPa'):.2g} GPa."
    reaches = _um(fit.tool.reaches_depth or 0.0)
    return f"{label} would have to take out marks of {_um(float(graph.deepest[before]))} µm; it reaches {reaches} µm."


def _told_apart(one: float, other: float) -> tuple[str, str]:
    """Both in um, with as many figures as it takes to see which is larger."""
    pairs = ((f"{from_si(one, 'um'):.{figures}g}", f"{from_si(other, 'um'):.{figures}g}") for figures in range(2, 8))
    return next((pair for pair in pairs if pair[0] != pair[1]), (_um(one), _um(other)))


def _um(metres: float) -> str:
    return f"{from_si(metres, 'um'):.2g}" if metres < 100e-6 else f"{from_si(metres, 'um'):.0f}"
