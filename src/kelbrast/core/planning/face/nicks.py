"""Nicks: a dish blended around each, or the whole face lowered to their floor; both are planned and the quicker is used."""

import math
from collections.abc import Sequence
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
    if face.found.kind != "nick" or face.found.after is not None or face.stock:
        return None
    slope = constant("blend.show_slope" if face.want.deformed >= constant("deformed.mirror").value else "blend.working_slope")
    radius = dish_radius(depth=depth, slope=slope.value)
    area = math.pi * radius**2
    return None if face.found.count * area >= face.area else Dishes(face.found.count, radius, area)


@dataclass(frozen=True, slots=True)
class Ways:
    """The ways of taking the damage out of a face: as it is, and for nicks that could be blended also with the face lowered.

    Attributes:
        dishes: around the nicks; None when there is only one way.
    """

    as_it_is: Face
    dishes: Dishes | None

    @property
    def faces(self) -> tuple[Face, ...]:
        """The face of every way: blended, then lowered."""
        return (self.as_it_is,) if self.dishes is None else (self.as_it_is, _lowered(self.as_it_is))

    def chosen(self, seconds: Sequence[float]) -> int:
        """Which of `faces` it is to be: as the person chose, or else the quickest (infinite where there is no route)."""
        if len(seconds) == 1:
            return 0
        blend = self.as_it_is.found.blend
        return int(seconds[1] < seconds[0]) if blend is None else int(not blend)


def ways_of(face: Face) -> Ways:
    """How the damage of a face could be taken out."""
    return Ways(face, None if face.left_alone else dishes_of(face, face.found.likely or 0.0))


def _lowered(face: Face) -> Face:
    """The same face with its nicks taken as marks all over."""
    return replace(face, found=Found("scratches", face.found.likely, face.found.worst))
