"""How much may come off a face."""

from typing import Final

from kelbrast.core.rules.rule import LimitRule
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.limits import LIMITS
from kelbrast.core.wording import Sentence, depth_of, sentence


def why_not(face: Face, *, least: float, first: float, steps: int) -> Sentence:
    """Why even the most sparing route takes too much.

    Args:
        least: what that route takes off in all, m; first: its first step alone.  steps: how many it has.
    """
    need, may = depth_of(least - face.above), depth_of(face.may_come_off - face.above)
    kind = "" if face.limit_kind == "metal" else f": {LIMITS[face.limit_kind]}"
    limit = sentence("metal.limit", may=may, kind=kind)
    if first > face.may_come_off:
        whole = "" if steps == 1 else sentence("metal.whole", need=need)
        return sentence("metal.first", first=depth_of(first), whole=whole, limit=limit)
    return sentence("metal.sparing", need=need, limit=limit)


WITHIN_THE_LIMIT: Final = LimitRule(
    id="within-the-limit",
    says="All steps of a route together take off no more than the strictest limit of the face: metal, wall, size, coat, "
    "plating or hardened layer. What stands above the face is not counted.",
    source="bench-practice",
    lifted_by="another limit, leaving the deepest marks in, or a simpler finish",
    refusal="metal",
)
