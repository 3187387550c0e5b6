"""The square of a trial piece: a tool on marks of a known grade, as the tables expect it."""

import math
from dataclasses import dataclass, replace
from typing import Final

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.grades import Grade, scale
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.learning.trial import TrialSquare
from kelbrast.core.process.clearance import area_factor
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace, tools_on_face
from kelbrast.core.validity import REL_TOL

_ROUNDS: Final = (10.0, 15.0, 20.0, 30.0, 60.0)  # seconds that a clock is easily read in


@dataclass(frozen=True, slots=True)
class OnTrial:
    """A tool on the square of a trial, the marks that it is put on, and what the tables expect (SI)."""

    on_face: ToolOnFace
    grade: Grade
    square: TrialSquare
    side: float
    face: Face

    @property
    def round(self) -> float:
        """Seconds between two looks: about four of them until the marks are gone."""
        each = self.square.seconds / constant("trial.looks").value
        return max((some for some in _ROUNDS if some <= each), default=_ROUNDS[0])


def on_trial(tool: str, job: Job, grade: Grade, *, side: float) -> OnTrial:
    """A tool on a square of these marks, run as the plans of this job run it, by the published figures alone.

    Raises:
        BadInput: no machine at hand drives the tool, or it cannot take such marks out.
    """
    on_face = _driven(tool, job, grade, side)
    if _too_deep(on_face, grade, job):
        raise BadInput.one("grade", f"marks of {grade.name} are deeper than it can take out; begin with finer ones")
    return _on_square(on_face, grade, job, side)


def suited(tool: str, job: Job) -> OnTrial:
    """The smallest square, and the marks on it, that the tool takes out in a few minutes: long enough to time, short enough to
    keep at.

    Raises:
        BadInput: no machine at hand drives the tool, or there are no marks that suit it.
    """
    least, best, most = (constant(f"trial.{end}").si for end in ("shortest", "best", "longest"))
    polishes = tools()[tool].carrier.cutting.wear_law == "compound" if tool in tools() else False
    coarsest = constant("handover.early_wheel").si if polishes else constant("trial.coarsest").si
    side = constant("trial.side").si
    while side <= constant("trial.largest_side").si * (1 + REL_TOL):
        found = [
            one
            for number, grain in scale("P")
            if grain <= coarsest
            and (one := _tried(tool, job, Grade(f"P{number}", grain), side))
            and least <= one.square.seconds <= most
        ]
        if found:
            return min(found, key=lambda one: abs(math.log(one.square.seconds / best)))
        side *= 2
    raise BadInput.one("tool", "there are no marks that it takes out in a few minutes: its runs will teach about it")


def _tried(tool: str, job: Job, grade: Grade, side: float) -> OnTrial | None:
    on_face = _driven(tool, job, grade, side)
    if grade.grain <= on_face.tool.grain or _too_deep(on_face, grade, job):
        return None
    return _on_square(on_face, grade, job, side)


def _face(grade: Grade, side: float) -> Face:
    return Face("square", area=side**2, found=Found("scratches", after=grade), want=finish("satin"))


def _driven(tool: str, job: Job, grade: Grade, side: float) -> ToolOnFace:
    face = _face(grade, side)
    plain = replace(job, faces=(face,), factors=ShopFactors(), pieces=1)
    known = tools().get(tool)
    if known is None or known.carrier.cutting.wear_law == "lap" or known.carrier.access.turned_only:
        raise BadInput.one("tool", "is for round work: its rounds at the gauge and its runs teach about it")
    on_face = next((one for one in tools_on_face(ToolContext.of(face, plain)) if one.tool.id == tool), None)
    if on_face is None:
        raise BadInput.one("tool", f"no machine at hand drives {known.label}: put the machine on the rack")
    return on_face


def _depth(grade: Grade, job: Job) -> float:
    return depth_of_marks(roughness_left(grain=grade.grain, hold=1.0, hardness=job.material.hardness))


def _too_deep(on_face: ToolOnFace, grade: Grade, job: Job) -> bool:
    reaches = on_face.tool.reaches_depth
    return reaches is not None and _depth(grade, job) > reaches


def _on_square(on_face: ToolOnFace, grade: Grade, job: Job, side: float) -> OnTrial:
    depth, area = _depth(grade, job), side**2
    usual = constant("clearance.largest_offset").value / constant("clearance.largest_scale").value
    square = TrialSquare(
        rate=on_face.rate / area,
        life=on_face.life_on(depth),
        clears=area_factor(area=area, grain=grade.grain) * depth,
        halves=usual * depth,
        ra=on_face.ra,
    )
    return OnTrial(on_face, grade, square, side, _face(grade, side))
