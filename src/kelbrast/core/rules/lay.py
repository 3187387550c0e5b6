"""What happens with a brushed face, and in which direction every step is worked."""

from typing import Final, Literal

import numpy as np

from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import EndRule, Practice
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import Flags
from kelbrast.core.wording import Sentence, sentence

LayOfStep = Literal["across", "along", "none"]


def is_brushed(face: Face) -> bool:
    """A face that shall have its marks in one direction."""
    return face.want.lay == "one-way"


def _may_end(surfaces: Surfaces) -> Flags:
    wanted = surfaces.face.want.lay
    found = "one-way" if surfaces.face.found.kind == "lay" else "any"
    found = wanted if surfaces.face.found.as_wanted else found
    lays = (on_face.tool.carrier.cutting.lays for on_face in surfaces.tools)
    return np.array([wanted in ("any", found), *(wanted == "any" or wanted in lay for lay in lays)], dtype=bool)


def why_not(surfaces: Surfaces, last: int) -> Sentence:
    """Why a route that ends at this node does not leave the lay that is wanted."""
    tool = surfaces.leaving(last).tool.label if last else "The surface as found"
    wanted = {"one-way": "one direction", "none": "no direction at all"}[surfaces.face.want.lay]
    return sentence("lay.wanted", wanted=wanted, tool=tool)


def lay_of_step(on_face: ToolOnFace, face: Face, *, last: bool) -> LayOfStep:
    """How to move: "none" without direction, "along" in one direction, "across" the marks before."""
    lays = on_face.tool.carrier.cutting.lays
    if lays == ("none",):
        return "none"
    if is_brushed(face):
        return "along"
    if face.want.lay == "none" and last:
        return "none"
    return "across" if "one-way" in lays else "none"


def blends_in(surfaces: Surfaces, *, rest_is_done: bool) -> Flags:
    """(n,) the surfaces that may be left in a place by itself, because they are not told from the rest of the face."""
    face, ra = surfaces.face, surfaces.ra
    if not rest_is_done or is_brushed(face):
        return np.zeros(surfaces.count, dtype=bool)
    if face.want.deformed in (constant("deformed.hidden").value, constant("deformed.mirror").value):
        return np.ones(surfaces.count, dtype=bool)
    if face.found.after is None:
        return np.zeros(surfaces.count, dtype=bool)
    match = constant("blend.match").value
    alike: Flags = (ra <= ra[0] * match) & (ra >= ra[0] / match)
    return alike


ENDS_IN_ITS_LAY: Final = EndRule(
    id="ends-in-its-lay",
    says="A route ends with a tool that leaves the lay that is wanted: one direction for a brushed face, none for a mirror.",
    source="bench-practice",
    lifted_by="another finish",
    refusal="lay",
    may_end=_may_end,
)
DIRECTION: Final = Practice(
    id="direction-of-steps",
    says="Every step goes across the marks before it, so that they are seen to go; a brushed face keeps its one direction "
    "from the first step on.",
    source="bench-practice",
    lifted_by="another finish",
    kept_by=lay_of_step,
)
BRUSHED_LAST: Final = Practice(
    id="brushed-last",
    says="Brushed faces are worked last, with the finished ones masked, so that nothing crosses their lay.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=is_brushed,
)
BLENDS_IN: Final = Practice(
    id="blends-in",
    says="A place is only finished by itself where the rest is as wanted and it is not told from that: where the face shall "
    "reflect or lies under paint, or is as rough within a third (blend.match). Of any other face, and always of a brushed "
    "one, the last pass is over everything.",
    source="bench-practice",
    lifted_by="saying that the rest is as wanted",
    kept_by=blends_in,
)
