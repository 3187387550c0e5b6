"""Which tools get to a face at all, and do it no harm there by their shape."""

from typing import Final

from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import Practice, Reason, ToolRule
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.wording import Measure, Sentence, sentence


def _too_big(on_face: ToolOnFace, context: ToolContext) -> bool:
    return on_face.machine.stands and not context.comes_to_the_bench


def _too_light(on_face: ToolOnFace, context: ToolContext) -> bool:
    return context.too_light_for(on_face.machine) > constant("work.beyond").value


def _too_large(on_face: ToolOnFace, context: ToolContext) -> bool:
    return context.too_large_for(on_face.tool) > constant("work.beyond").value


def _too_far_in(on_face: ToolOnFace, context: ToolContext) -> bool:
    reach_in = on_face.tool.carrier.access.reach_in
    if context.reach != "inside" or context.bore_depth is None or reach_in is None:
        return False
    return context.bore_depth > reach_in


def _flattens_a_round(on_face: ToolOnFace, context: ToolContext) -> bool:
    carrier = on_face.tool.carrier
    flat_or_driven = carrier.mount != "hand" or carrier.cutting.levels
    return context.turned is not None and context.drawn and flat_or_driven and not carrier.access.turned_only


def _facets(on_face: ToolOnFace, context: ToolContext) -> bool:
    return on_face.tool.carrier.access.flat_only and context.curved


def _not_turned(on_face: ToolOnFace, context: ToolContext) -> bool:
    return on_face.tool.carrier.access.turned_only and context.turned is None


def _for_a_size(on_face: ToolOnFace, context: ToolContext) -> bool:
    laps_a_round = on_face.tool.carrier.cutting.wear_law == "lap" and (context.turned is not None or context.reach == "inside")
    return laps_a_round and not context.lapped


def _not_drawn(on_face: ToolOnFace, context: ToolContext) -> bool:
    return on_face.tool.carrier.cutting.drawn_only and not (context.drawn or context.stays_flat)


def _hollows(on_face: ToolOnFace, context: ToolContext) -> bool:
    return on_face.tool.carrier.access.scallops and context.flat_show


def _does_not_enter(on_face: ToolOnFace, context: ToolContext) -> bool:
    access = on_face.tool.carrier.access
    if context.reach == "open":
        return not access.open
    if context.reach == "tight":
        return not access.tight
    needs, has = access.inside_radius, context.inside_radius
    return needs is None or has is None or needs > has


def _not_for_edges(on_face: ToolOnFace, context: ToolContext) -> bool:
    return context.edge and not on_face.tool.carrier.access.edges


def works_places(on_face: ToolOnFace) -> bool:
    """Whether it can work places of a face by themselves: what works a part as it turns works all around it."""
    return not on_face.tool.carrier.access.turned_only


def _says(code: str) -> Reason:
    return lambda surfaces, _before, at: sentence(code, tool=surfaces.leaving(at).tool.label)


def _why_not_entering(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    label, context = surfaces.leaving(at).tool.label, surfaces.context
    if context.reach == "open":
        return sentence("reach.bores", tool=label)
    if context.reach != "inside":
        return sentence("reach.place", reach=context.reach, tool=label)
    have = Measure(context.inside_radius or 0.0, "length", 3)
    entering = [radius for on_face in surfaces.tools if (radius := on_face.tool.carrier.access.inside_radius)]
    if entering and min(entering) > (context.inside_radius or 0):
        return sentence("reach.radius", have=have, least=Measure(min(entering), "length", 3))
    return sentence("reach.entering", have=have, tool=label)


def _why_so_far(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    label, reach_in = surfaces.leaving(at).tool.label, surfaces.leaving(at).tool.carrier.access.reach_in
    far, gets = Measure(surfaces.context.bore_depth or 0.0, "length", 3), Measure(reach_in or 0.0, "length", 3)
    return sentence("reach.far_in", tool=label, far=far, gets=gets)


TOO_BIG: Final = ToolRule(
    id="too-big-to-carry",
    says="A part that is several times as large, long or heavy as suits a machine that stands (work.beyond) is worked "
    "with what is brought to the part.",
    source="bench-practice",
    lifted_by="saying that the part can be carried, or a hand-held machine that takes the tool",
    refusal="reach",
    forbids=_too_big,
    reason=_says("reach.too_big"),
)
TOO_LIGHT: Final = ToolRule(
    id="too-light",
    says="A light part that nothing clamps is not worked with a large machine held in the hand (least_mass, work.beyond): "
    "it runs away.",
    source="bench-practice",
    lifted_by="a clamp or fixture, or a machine that stands",
    refusal="reach",
    forbids=_too_light,
    reason=_says("reach.too_light"),
)
HOLLOWS: Final = ToolRule(
    id="hollows",
    says="Small and round tools do not work a larger flat face that shall reflect: their hollows would show.",
    source="bench-practice",
    lifted_by="a simpler finish, or a tool as wide as the face asks for",
    refusal="reach",
    forbids=_hollows,
    reason=_says("reach.hollows"),
)
EDGES: Final = ToolRule(
    id="edges",
    says="An edge is broken or rounded with a file, slack belt, flap wheel, non-woven or paper, and brought to a gloss by a "
    "loose wheel or a cloth; never with a hard wheel, which digs in or tears at the edge.",
    source="bench-practice",
    lifted_by="nothing",
    refusal="reach",
    forbids=_not_for_edges,
    reason=_says("reach.edges"),
)
FOR_A_SIZE: Final = ToolRule(
    id="for-a-size",
    says="A shaft or a bore is lapped for its size, or for a drawn roughness that is finer than cloth and flap wheels are used "
    "for (looks.lapped_below).",
    source="bench-practice",
    lifted_by="giving it a size, or a finer roughness",
    refusal="reach",
    forbids=_for_a_size,
    reason=_says("reach.for_a_size"),
)
TOO_LARGE: Final = ToolRule(
    id="too-large",
    says="An open face that is several times as large as suits a small tool (most_face, work.beyond) is not worked with it: it "
    "takes days and leaves hollows.",
    source="bench-practice",
    lifted_by="a larger tool",
    refusal="reach",
    forbids=_too_large,
    reason=_says("reach.too_large"),
)
TOO_FAR_IN: Final = ToolRule(
    id="too-far-in",
    says="A tool works a bore only as far in as it gets from an open end (reach_in): half of a bore that is open at both.",
    source="bench-practice",
    lifted_by="a longer shank, or having it honed",
    refusal="reach",
    forbids=_too_far_in,
    reason=_why_so_far,
)
FLATTENS: Final = ToolRule(
    id="flattens-a-round",
    says="A turned outside whose size or roughness is drawn is not worked with a belt, disc, drum, wheel, block or file, which "
    "leave it flat in places: what works it in the lathe, or a strip or pad by hand, keeps it round.",
    source="bench-practice",
    lifted_by="wanting it by its look, or a lathe",
    refusal="reach",
    forbids=_flattens_a_round,
    reason=_says("reach.flattens"),
)
DRAWN: Final = ToolRule(
    id="where-it-is-drawn",
    says="Laps and stones are for faces whose size or roughness is drawn, or that must stay flat; not for show.",
    source="bench-practice",
    lifted_by="wanting the face by a roughness or a size",
    refusal="reach",
    forbids=_not_drawn,
    reason=_says("reach.not_drawn"),
)
WAVES: Final = ToolRule(
    id="waves",
    says="A hard flat that is drawn is not finished on cloth wheels, which round its edges and leave it wavy: stones, laps"
    " and diamond do.",
    source="mould-finishes",
    lifted_by="wanting it by its look",
    refusal="reach",
    forbids=lambda on_face, context: on_face.tool.carrier.cutting.waves and context.hard_flat,
    reason=_says("reach.waves"),
)
FACETS: Final = ToolRule(
    id="facets",
    says="Firm flat tools do not work a curved face: they would leave facets.",
    source="bench-practice",
    lifted_by="a soft, slack or shaped tool of the same grade",
    refusal="reach",
    forbids=_facets,
    reason=_says("reach.facets"),
)
STAYS_FLAT: Final = ToolRule(
    id="stays-flat",
    says="A face that seals, seats or measures is only worked with what keeps its own form: a stone, a lap, a plate, a file, "
    "paper on a block. Wheels, pads and slack belts round it.",
    source="bench-practice",
    lifted_by="taking the face for one that need not stay flat",
    refusal="reach",
    forbids=lambda on_face, context: context.stays_flat and not on_face.tool.carrier.cutting.keeps_size,
    reason=_says("reach.stays_flat"),
)
PLACES: Final = Practice(
    id="places",
    says="What works a part round as it turns works all around it, and no places by themselves.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=works_places,
)
LATHE: Final = ToolRule(
    id="lathe-only",
    says="What works a part round as it turns is for a round outside that a lathe can turn.",
    source="bench-practice",
    lifted_by="giving the face a shape that turns, and a lathe",
    refusal="reach",
    forbids=_not_turned,
    reason=_says("reach.lathe"),
)
ENTERS: Final = ToolRule(
    id="enters",
    says="Into a bore goes what is smaller than its radius, into corners what is made for them, onto an open face what is "
    "no bore tool.",
    source="bench-practice",
    lifted_by="a smaller tool",
    refusal="reach",
    forbids=_does_not_enter,
    reason=_why_not_entering,
)
