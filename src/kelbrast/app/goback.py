"""Going back from a failed light check: the use case behind the command and the endpoint."""

from typing import Final

from kelbrast.app.planning import job_of
from kelbrast.app.rack import Shelf
from kelbrast.core.catalogue.damages import feels
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.errors import BadInput, Fault
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.goback import go_back
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.units import to_si
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.goback import GoBackFile, to_goback_file

DEEPEST_MARK_UM: Final = 20_000.0  # as deep as the job file can say


def goback_file(
    file: JobFile,
    shelf: Shelf | None = None,
    *,
    face: str,
    after: int,
    depth_um: float | None = None,
    like: str | None = None,
    fingernail: bool = False,
) -> GoBackFile:
    """What to do about a mark found after this step of a face.

    Args:
        face: the id of the face, or its name.
        after: the step whose light check showed the mark, from 1.
        depth_um, like, fingernail: how deep: measured, as left by a grade, or so that a fingernail catches it. Just one.

    Raises:
        BadInput: the job, the face, the step or the depth cannot be used.
    """
    job = job_of(file, shelf)
    found = job.face(face)
    depth = mark_depth(job, depth_um=depth_um, like=like, fingernail=fingernail)
    return to_goback_file(job, go_back(job, found, after=after, depth=depth))


def mark_depth(job: Job, *, depth_um: float | None, like: str | None, fingernail: bool) -> float:
    """How deep a mark is, in m, said in just one of three ways.

    Raises:
        BadInput: it is said in no way or in several, or the grade cannot be read.
    """
    if sum((depth_um is not None, like is not None, fingernail)) != 1:
        raise BadInput.one("depth_um", "say how deep in one way: by depth, like a grade, or a fingernail catches it")
    if like is not None:
        grain = parse_grade(like, field="like").grain
        return depth_of_marks(roughness_left(grain=grain, hold=1.0, hardness=job.material.hardness))
    if fingernail:
        return feels()["catches"].likely.si
    if depth_um is None or not 0 < depth_um <= DEEPEST_MARK_UM:  # also when it is no number
        said = f"must be above 0 and at most {DEEPEST_MARK_UM:g}"
        raise BadInput([Fault("depth_um", said, code="less_than_equal", limit=DEEPEST_MARK_UM)])
    return to_si(depth_um, "um")
