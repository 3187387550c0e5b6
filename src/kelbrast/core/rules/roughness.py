"""Which roughness a face must end with."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from kelbrast.core.process.rework import chance_outside
from kelbrast.core.process.scratch import roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import EndRule
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import REL_TOL, Flags, Reals
from kelbrast.core.wording import Measure, Sentence, sentence


def wanted_band(face: Face, hardness: float) -> tuple[float, float]:
    """The band of Ra in metres. "No finer than" a grade means between its paper's Ra and that of twice the grain."""
    if face.no_finer_than is not None:
        low = roughness_left(grain=face.no_finer_than.grain, hold=1.0, hardness=hardness)
        coarse = face.no_finer_than.grain * constant("looks.grip_range").value
        return low, roughness_left(grain=coarse, hold=1.0, hardness=hardness)
    return face.want.ra_low or 0.0, face.want.ra_high if face.want.ra_high is not None else np.inf


def _may_end(surfaces: Surfaces) -> Flags:
    face = surfaces.face
    low, high = wanted_band(face, surfaces.material.hardness)
    fine: Flags = (surfaces.ra >= low * (1 - REL_TOL)) & (surfaces.ra <= high * (1 + REL_TOL))
    if face.no_finer_than is not None:
        grains = np.array([np.inf, *(on_face.tool.grain for on_face in surfaces.tools)])
        fine &= grains >= face.no_finer_than.grain * (1 - REL_TOL)
    return fine


def chance_outside_band(surfaces: Surfaces) -> Reals:
    """(n,) the chance that the surface of each node lies outside the wanted band; 0 for the one that was found."""
    low, high = wanted_band(surfaces.face, surfaces.material.hardness)
    outside = np.zeros(surfaces.count)
    if surfaces.count > 1:
        outside[1:] = chance_outside(surfaces.ra[1:], low=low, high=high)
    return outside


def why_not(surfaces: Surfaces, ends: Sequence[int]) -> Sentence:
    """Why none of these nodes, which can be reached, is rough or fine enough."""
    low, high = wanted_band(surfaces.face, surfaces.material.hardness)
    if not ends:
        return sentence("roughness.none")
    finest = min(ends, key=lambda node: float(surfaces.ra[node]))
    if surfaces.ra[finest] > high:
        ra, wanted = _told_apart(float(surfaces.ra[finest]), high)
        return sentence("roughness.finest", ra=ra, tool=surfaces.leaving(finest).tool.label, wanted=wanted)
    coarsest = max(ends, key=lambda node: float(surfaces.ra[node]))
    if surfaces.ra[coarsest] < low:
        ra, wanted = _told_apart(float(surfaces.ra[coarsest]), low)
        return sentence("roughness.coarsest", ra=ra, tool=surfaces.leaving(coarsest).tool.label, wanted=wanted)
    return sentence("roughness.between", low=Measure(low, "roughness"), high=Measure(high, "roughness"))


def _told_apart(one: float, other: float) -> tuple[Measure, Measure]:
    """Both with as many figures as it takes to see which is larger."""
    for digits in range(2, 8):
        if f"{one:.{digits}g}" != f"{other:.{digits}g}":
            return Measure(one, "roughness", digits), Measure(other, "roughness", digits)
    return Measure(one, "roughness"), Measure(other, "roughness")


def reflects_clearly(face: Face) -> bool:
    """Whether it shall show a clear reflection: a mirror finish, or a band of Ra below the bright one's."""
    return (
        face.want.deformed >= constant("deformed.mirror").value
        and (face.want.ra_high or np.inf) <= constant("looks.clear_below").si
    )


def _ends_loose(surfaces: Surfaces) -> Flags:
    if not reflects_clearly(surfaces.face):
        return np.ones(surfaces.count, dtype=bool)
    return np.array([True, *(_leaves_no_lines(tool) for tool in surfaces.tools)])


def _leaves_no_lines(on_face: ToolOnFace) -> bool:
    law = on_face.tool.carrier.cutting.wear_law
    cuts = law == "compound" and on_face.tool.grain > constant("handover.colour_below").si * (1 + REL_TOL)
    return law in ("compound", "lap") and not on_face.tool.swirls and not cuts


LOOSE_GRAIN_LAST: Final = EndRule(
    id="loose-grain-last",
    says="What shall reflect clearly (looks.clear_below) ends with loose grain: a bar on a wheel, a paste on a pad or "
    "cloth, a lap. Paper and film of any fineness leave lines that show, as a cutting bar does (above "
    "handover.colour_below); wool or a rubbing compound leaves swirls.",
    source="bench-practice",
    lifted_by="a simpler finish",
    refusal="not-fine-enough",
    may_end=_ends_loose,
)
WITHIN_THE_BAND: Final = EndRule(
    id="within-the-band",
    says="A route ends within the band of Ra that the finish asks for; a face that must grip ends no finer than its grade. "
    "Close to the edge of the band an end costs what the chance to miss it risks (process.rework.chance_outside).",
    source="bench-practice",
    lifted_by="another finish, or another band",
    refusal="not-fine-enough",
    may_end=_may_end,
)
NO_DAMAGE: Final = EndRule(
    id="damage-is-no-finish",
    says="A face that was found damaged is worked, however fine the damage is.",
    source="bench-practice",
    lifted_by="nothing",
    refusal=None,
    may_end=lambda surfaces: np.array([bool(np.isfinite(surfaces.ra[0])), *(True for _ in surfaces.tools)]),
)
