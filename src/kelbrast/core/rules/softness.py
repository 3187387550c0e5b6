"""Why a soft wheel cannot take out a deep scratch: what a tool can do to marks, ripple, hard work and sizes."""

from typing import Final

import numpy as np

from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import StepRule
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import REL_TOL, Flags
from kelbrast.core.wording import Measure, Sentence, depth_of, sentence


def _column(surfaces: Surfaces, flags: list[bool]) -> Flags:
    """(n, n): for each tool the same, whatever was there before."""
    whole = np.array([False, *flags], dtype=bool)
    return np.broadcast_to(whole[None, :], (surfaces.count, surfaces.count))


def _too_deep(surfaces: Surfaces) -> Flags:
    deeper: Flags = surfaces.deepest[:, None] > surfaces.toolset.reaches[None, :]
    return _but_not_of_an_edge(surfaces, deeper)


def _but_not_of_an_edge(surfaces: Surfaces, mask: Flags) -> Flags:
    """An edge stands free: whatever abrasive is pressed on it takes it down, however soft. A wheel still only colours it."""
    if surfaces.face.edge is not None:
        mask[0, 1:] &= np.array([on_face.tool.carrier.cutting.wear_law == "compound" for on_face in surfaces.tools], dtype=bool)
    return mask


def _why_too_deep(surfaces: Surfaces, before: int, at: int) -> Sentence:
    tool = surfaces.leaving(at).tool
    marks = depth_of(float(surfaces.deepest[before]))
    return sentence("soft.deep", tool=tool.label, marks=marks, reaches=depth_of(tool.reaches_depth or 0.0))


def _follows_the_shape(surfaces: Surfaces) -> Flags:
    mask: Flags = np.zeros((surfaces.count, surfaces.count), dtype=bool)
    if surfaces.face.must_be_levelled:
        mask[0, 1:] = [not on_face.tool.carrier.cutting.levels for on_face in surfaces.tools]
    return mask


def _why_it_follows(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    what = "ripple" if surfaces.face.found.kind == "waviness" else "raised metal"
    if surfaces.face.out_of_round:
        what = "an oval or a taper"
    return sentence("soft.levels", what=what, tool=surfaces.leaving(at).tool.label)


def _skates(surfaces: Surfaces) -> Flags:
    hardness = surfaces.material.hardness
    return _column(surfaces, [(on_face.tool.carrier.cutting.hardest or np.inf) < hardness for on_face in surfaces.tools])


def _why_it_skates(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    tool, material = surfaces.leaving(at).tool, surfaces.material
    hardest = Measure(tool.carrier.cutting.hardest or 0.0, "hardness")
    return sentence("soft.skates", tool=tool.label, material=material.label.lower(), hardest=hardest)


def holds_size(on_face: ToolOnFace, face: Face) -> bool:
    """Whether it keeps a size to a few microns here: on a round outside only what works it round does."""
    carrier = on_face.tool.carrier
    return carrier.cutting.keeps_size and (face.turned is None or carrier.access.turned_only)


def _loses_size(surfaces: Surfaces) -> Flags:
    measured = surfaces.face.limit_kind == "size"
    return _column(surfaces, [measured and not holds_size(tool, surfaces.face) for tool in surfaces.tools])


def _cloth_takes_little(surfaces: Surfaces) -> Flags:
    mask: Flags = np.zeros((surfaces.count, surfaces.count), dtype=bool)
    if 2 * surfaces.face.stock > constant("precision.cloth_most").si * (1 + REL_TOL):
        mask[0, 1:] = [
            on_face.tool.carrier.access.turned_only and on_face.tool.carrier.cutting.wear_law == "coated"
            for on_face in surfaces.tools
        ]
    return mask


def _why_so_little(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    most, stock = constant("precision.cloth_most").si, 2 * surfaces.face.stock
    return sentence("soft.cloth", tool=surfaces.leaving(at).tool.label, stock=depth_of(stock), keep=depth_of(most))


def takes_in_all(on_face: ToolOnFace, surfaces: Surfaces) -> float:
    """The layer that a soft tool may take in one step, m; infinite for any. Beside an edge that stays sharp it is less."""
    cutting = on_face.tool.carrier.cutting
    if cutting.takes_in_all is None:
        return np.inf
    softness = constant("scratch.reference_hardness").si / surfaces.material.hardness if cutting.takes_by_hardness else 1.0
    beside = constant("edges.sharp_share").value if surfaces.face.sharp_edges else 1.0
    return beside * cutting.takes_in_all * float(softness ** constant("scratch.hardness_exponent").value)


def _too_much(surfaces: Surfaces) -> Flags:
    may = np.array([np.inf, *(takes_in_all(tool, surfaces) for tool in surfaces.tools)])
    more: Flags = surfaces.layer(surfaces.depth_worst) > may[None, :] * (1 + REL_TOL)
    return _but_not_of_an_edge(surfaces, more)


def _why_too_much(surfaces: Surfaces, before: int, at: int) -> Sentence:
    on_face = surfaces.leaving(at)
    layer = depth_of(float(surfaces.layer(surfaces.depth_worst)[before, at]))
    return sentence("soft.in_all", tool=on_face.tool.label, layer=layer, reaches=depth_of(takes_in_all(on_face, surfaces)))


def _file_after_abrasive(surfaces: Surfaces) -> Flags:
    first_only = np.array([False, *(on_face.tool.carrier.cutting.first_only for on_face in surfaces.tools)])
    worked = ~first_only
    worked[0] = surfaces.face.found.after is not None
    mask: Flags = worked[:, None] & first_only[None, :]
    return mask


FOLLOWS_THE_SHAPE: Final = StepRule(
    id="levels",
    says="Ripple, raised metal and what is out of round are first taken down with a firmly backed abrasive; whatever is soft "
    "follows the shape.",
    source="bench-practice",
    lifted_by="a stone, a file, a block or a firm belt",
    refusal="too-soft",
    mask=_follows_the_shape,
    reason=_why_it_follows,
)
LOSES_SIZE: Final = StepRule(
    id="keeps-size",
    says="A face whose size tolerance is the limit is worked with what holds a size: a lap, a stone, cloth in the lathe.",
    source="bench-practice",
    lifted_by="another limit than the size",
    refusal="too-soft",
    mask=_loses_size,
    reason=lambda surfaces, _before, at: sentence("soft.size", tool=surfaces.leaving(at).tool.label),
)
CLOTH_TAKES_LITTLE: Final = StepRule(
    id="cloth-takes-little",
    says="To a size, cloth in the lathe takes no more off the diameter than precision.cloth_most: more is turned, filed or "
    "lapped.",
    source="size-policy",
    lifted_by="less stock; a lap or a file before it",
    refusal="too-soft",
    mask=_cloth_takes_little,
    reason=_why_so_little,
)
SKATES: Final = StepRule(
    id="skates",
    says="An abrasive does not cut work that is harder than it is made for.",
    source="rabinowicz",
    lifted_by="a harder grain",
    refusal="too-soft",
    mask=_skates,
    reason=_why_it_skates,
)
TOO_DEEP: Final = StepRule(
    id="too-deep",
    says="A soft wheel rounds a scratch deeper than it reaches (reaches_depth, or reach_in_grains of its grain) instead of"
    " taking it out: the deepest mark on the face must be within its reach.",
    source="bench-practice",
    lifted_by="a step in between that leaves shallower marks; or setting the route yourself, which leaves the marks in",
    refusal="too-soft",
    mask=_too_deep,
    reason=_why_too_deep,
)
TOO_MUCH: Final = StepRule(
    id="takes-in-all",
    says="A soft wheel or pad takes only so much in one step (takes_in_all): more rounds edges, drags out pits and leaves "
    "waves of its own.",
    source="practice-fit",
    lifted_by="a backed abrasive before it; or setting the route yourself",
    refusal="too-soft",
    mask=_too_much,
    reason=_why_too_much,
)
FILE_FIRST: Final = StepRule(
    id="file-first",
    says="A file comes before the abrasives: grit that is left in the work dulls it, and it undoes their lay.",
    source="bench-practice",
    lifted_by="beginning with the file",
    refusal="too-soft",
    mask=_file_after_abrasive,
    reason=lambda surfaces, _before, at: sentence("soft.file", tool=surfaces.leaving(at).tool.label),
)
