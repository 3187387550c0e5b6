"""Nicks: a dish around each, or the whole face lowered to their floor; both are planned and the quicker is offered first."""

import math
from dataclasses import dataclass, replace

from kelbrast.core.process.blend import dish_radius
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, Found


@dataclass(frozen=True, slots=True)
class Dishes:
    """Dishes around the nicks of a face (SI): how many, their radius, and the area of one."""

    count: int
    radius: float
    area: float


def dishes_of(face: Face, depth: float) -> Dishes | None:
    """The dishes that would take these nicks out; None when the face is not nicked or they would cover it.

    The slope is 1:100 on a face that is looked at closely, 1:50 on a working surface.
    """
    if face.found.kind != "nick" or face.found.after is not None:
        return None
    slope = constant("blend.show_slope" if face.want.deformed >= constant("deformed.mirror").value else "blend.working_slope")
    radius = dish_radius(depth=depth, slope=slope.value)
    area = math.pi * radius**2
    return None if face.found.count * area >= face.area else Dishes(face.found.count, radius, area)


def lowered(face: Face) -> Face:
    """The same face with its nicks taken as marks all over, so that the whole of it is lowered."""
    found = face.found
    return replace(face, found=Found("scratches", found.likely, found.worst))
