"""Faces and jobs for tests of the core, in a line."""

from typing import Any

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, plan_face
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found, SpotKind, Spots

UM = 1e-6


def face(want: str = "bright", depth: float = 20, worst: float | None = None, **more: Any) -> Face:
    """A face with scratches of this depth (um) unless told otherwise."""
    kind, after = more.pop("kind", "scratches"), more.pop("after", None)
    found = Found(kind, after=parse_grade(after)) if after else Found(kind, depth * UM, (worst or depth) * UM)
    limit = more.pop("limit_um", None)
    return Face("face", more.pop("area", 0.01), found, finish(want), limit=limit and limit * UM, **more)


def spots(kind: SpotKind, depth: float, worst: float | None = None, *, length_mm: float, width_mm: float, **more: Any) -> Spots:
    """Damage of this depth (um) in some places."""
    found = Found(kind, depth * UM, (worst or depth) * UM)
    return Spots(found, length_mm * 1e-3, width_mm * 1e-3, **{"name": "spots", **more})


def job(stuff: str, face: Face, **more: Any) -> Job:
    return Job("test", material(stuff), (face,), **more)


def plan(stuff: str, face: Face, **more: Any) -> FacePlan:
    return plan_face(face, job(stuff, face, **more))
