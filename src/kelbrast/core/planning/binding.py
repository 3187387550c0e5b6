"""When no route exists: which rule stands in the way, and the number that is missing."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.planning.fit import Fit
from kelbrast.core.planning.graph import METAL, Graph, holds_size, wanted_band
from kelbrast.core.planning.rules import RULES, Rule
from kelbrast.core.planning.search import Search, best_route, reachable
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.limits import LIMITS
from kelbrast.core.wording import Measure, Sentence, sentence


@dataclass(frozen=True, slots=True)
class Binding:
    """The rule that binds (one of `RULES`) and a sentence with the missing number."""

    rule: Rule
    reason: Sentence


def binding(graph: Graph, material: Material, search: Search) -> Binding:
    """Why there is no route: the first rule that alone would open one; failing that, one of a smallest set that would."""
    alone = next((rule for rule in RULES if best_route(graph, replace(search, lifted=frozenset([rule]))) is not None), None)
    needed = frozenset([alone]) if alone else _smallest_set(graph, search)
    if not needed:
        return Binding("reach", sentence("reach.none"))
    rule, *others = (rule for rule in RULES if rule in needed)
    reason = _reason(rule, graph, material, replace(search, lifted=needed))
    if others:
        stand = f"{' and '.join(_NAMES[other] for other in others).capitalize()} {'stand' if len(others) > 1 else 'stands'}"
        reason = sentence("also.others", reason=reason, others=stand)
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


def _reason(rule: Rule, graph: Graph, material: Material, search: Search) -> Sentence:
    """A sentence on the rule, with numbers from the route that is open once the rules of `search.lifted` are lifted."""
    opened = best_route(graph, search)
    assert opened is not None, "the lifted rules open a route"
    if rule == "metal":
        return _metal(graph, search)
    if rule == "lay":
        last = graph.fits[opened.nodes[-1] - 1].tool.label if opened.nodes else "The surface as found"
        wanted = {"one-way": "one direction", "none": "no direction at all"}[graph.face.want.lay]
        return sentence("lay.wanted", wanted=wanted, tool=last)
    if rule == "not-fine-enough":
        return _roughness(graph, material, replace(search, lifted=search.lifted - {rule}))
    steps = list(zip((0, *opened.nodes), opened.nodes, strict=False))
    before, at = next((step for step in steps if graph.rules[rule][step]), steps[0])
    return _tool_reason(rule, graph, material, before, at)


def _metal(graph: Graph, search: Search) -> Sentence:
    least = best_route(graph, replace(search, aim="metal"))
    assert least is not None, "the lifted rules open a route"
    face = graph.face
    need, may = _depth(float(least.totals[METAL]) - face.above), _depth(search.limit - face.above)
    kind = "" if face.limit_kind == "metal" else f": {LIMITS[face.limit_kind]}"
    limit = sentence("metal.limit", may=may, kind=kind)
    first = float(graph.layer[0, least.nodes[0]])
    if first > search.limit:
        whole = "" if len(least.nodes) == 1 else sentence("metal.whole", need=need)
        return sentence("metal.first", first=_depth(first), whole=whole, limit=limit)
    return sentence("metal.sparing", need=need, limit=limit)


def _roughness(graph: Graph, material: Material, search: Search) -> Sentence:
    low, high = wanted_band(graph.face, material.hardness)
    found = np.flatnonzero(reachable(graph, search))
    ends = [node for node in found if node and (graph.ends["lay"][node] or "lay" in search.lifted)]
    if not ends:
        return sentence("roughness.none")
    finest = min(ends, key=lambda node: float(graph.ra[node]))
    if graph.ra[finest] > high:
        ra, wanted = _told_apart(float(graph.ra[finest]), high)
        return sentence("roughness.finest", ra=ra, tool=graph.fits[finest - 1].tool.label, wanted=wanted)
    coarsest = max(ends, key=lambda node: float(graph.ra[node]))
    if graph.ra[coarsest] < low:
        ra, wanted = _told_apart(float(graph.ra[coarsest]), low)
        return sentence("roughness.coarsest", ra=ra, tool=graph.fits[coarsest - 1].tool.label, wanted=wanted)
    return sentence("roughness.between", low=Measure(low, "roughness"), high=Measure(high, "roughness"))


def _tool_reason(rule: Rule, graph: Graph, material: Material, before: int, at: int) -> Sentence:
    fit = graph.fits[at - 1]
    carrier, label = fit.tool.carrier, fit.tool.label
    if rule == "reach":
        return _reach(graph, fit)
    if rule == "heat":
        return _heat(fit, material)
    if rule == "speed":
        mark = sentence("speed.mark", mark=Measure(carrier.marked_limit, "speed")) if carrier.marked_limit else ""
        return sentence("speed.none", tool=label, mark=mark)
    if rule == "contamination":
        return sentence("contamination.kept", tool=label)
    if before == 0 and graph.face.must_be_levelled and not carrier.levels:
        what = "ripple" if graph.face.found.kind == "waviness" else "raised metal"
        return sentence("soft.levels", what=what, tool=label)
    if graph.face.limit_kind == "size" and not holds_size(carrier, graph.face):
        return sentence("soft.size", tool=label)
    if carrier.hardest is not None and carrier.hardest < material.hardness:
        return sentence(
            "soft.skates", tool=label, material=material.label.lower(), hardest=Measure(carrier.hardest, "hardness")
        )
    marks = _depth(float(graph.deepest[before]))
    return sentence("soft.deep", tool=label, marks=marks, reaches=_depth(fit.tool.reaches_depth or 0.0))


def _reach(graph: Graph, fit: Fit) -> Sentence:
    carrier, label, face = fit.tool.carrier, fit.tool.label, graph.face
    if fit.machine.stands and carrier.open and face.reach == "open":
        return sentence("reach.too_big", tool=label)
    if carrier.scallops and face.reflects_flat:
        return sentence("reach.hollows", tool=label)
    if carrier.flat_only and face.curved:
        return sentence("reach.facets", tool=label)
    if face.reach == "open":
        return sentence("reach.bores", tool=label)
    if face.reach != "inside":
        return sentence("reach.place", reach=face.reach, tool=label)
    have = Measure(face.inside_radius or 0.0, "length", 3)
    entering = [f.tool.carrier.inside_radius for f in graph.fits if f.tool.carrier.inside_radius]
    if entering and min(entering) > (face.inside_radius or 0):
        return sentence("reach.radius", have=have, least=Measure(min(entering), "length", 3))
    return sentence("reach.entering", have=have, tool=label)


def _heat(fit: Fit, material: Material) -> Sentence:
    hottest = material.limit if fit.by_hand else fit.allowed + constant("heat.room").si
    limit, wanted = Measure(hottest, "temperature"), Measure(constant("heat.shortest_stay").si, "time")
    if fit.until_hot < fit.stay:
        stay = Measure(fit.until_hot, "time")
        if fit.by_hand:
            return sentence("heat.hold", tool=fit.tool.label, stay=stay, wanted=wanted)
        return sentence("heat.part", tool=fit.tool.label, limit=limit, stay=stay, wanted=wanted)
    return sentence("heat.spot", tool=fit.tool.label, limit=limit, stay=Measure(fit.stay, "time"), wanted=wanted)


def _told_apart(one: float, other: float) -> tuple[Measure, Measure]:
    """Both with as many figures as it takes to see which is larger."""
    for digits in range(2, 8):
        if f"{one:.{digits}g}" != f"{other:.{digits}g}":
            return Measure(one, "roughness", digits), Measure(other, "roughness", digits)
    return Measure(one, "roughness"), Measure(other, "roughness")


def _depth(metres: float) -> Measure:
    return Measure(metres, "depth", 2 if metres < 100e-6 else 3)
