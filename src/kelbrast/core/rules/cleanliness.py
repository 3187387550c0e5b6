"""What may share a wheel, a lap or a pad, and what would spoil work or wheel."""

from typing import Final

from kelbrast.core.rack.offer import why_not
from kelbrast.core.rules.rule import Practice, ToolRule
from kelbrast.core.wording import depth_of, sentence

KEPT_FOR: Final = ToolRule(
    id="kept-for",
    says="A carrier does not touch the families that it must not; a compound goes on those that its family's bars name.",
    source="bench-practice",
    lifted_by="a wheel and a bar of the family's own",
    refusal="contamination",
    forbids=lambda on_face, place: (
        not on_face.tool.keeps_clean(place.material.family) or place.material.id in on_face.tool.carrier.not_on
    ),
    reason=lambda surfaces, _before, at: sentence("contamination.kept", tool=surfaces.leaving(at).tool.label),
)
TOO_COARSE: Final = ToolRule(
    id="coarsest",
    says="A material that bears no coarse marks (coarsest) is not touched by a coarser abrasive; a coat bears a grain of a "
    "sixth of what may come off (coat.coarsest_share).",
    source="bench-practice",
    lifted_by="a finer grade, or a thicker coat",
    refusal="contamination",
    forbids=lambda on_face, place: on_face.tool.charge is None and on_face.tool.grain > place.coarsest,
    reason=lambda surfaces, _before, at: sentence(
        "contamination.coarse", tool=surfaces.leaving(at).tool.label, coarsest=depth_of(surfaces.context.coarsest)
    ),
)
ONE_BAR: Final = Practice(
    id="one-bar",
    says="A wheel or pad of the shop's rack that has carried a compound, or a lap its grade, is kept for it and for its "
    "metal family for life; one that has carried two is refused. The rack says so for every item.",
    source="bench-practice",
    lifted_by="insisting on it, with the warning at every step; or another wheel",
    kept_by=why_not,
)
