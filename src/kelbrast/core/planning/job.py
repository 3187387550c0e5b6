"""A job: a part with its faces, and how the person wants to work."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.surface.face import Face

AIMS: Final = {"time": "Quickest", "metal": "Least metal", "cost": "Cheapest", "changes": "Fewest changes"}
HABITS: Final = {
    "every-grade": "Every grade in the box",
    "double-up": "About double the grade each time",
    "long-steps": "Long steps, more time on the finer grade",
}


@dataclass(frozen=True, slots=True)
class Job:
    """One job.

    Attributes:
        rack: ids of the tools (and, if wanted, machines) to plan with; None for the whole starter rack.
        habit: a key of `HABITS`.  aim: a key of `AIMS`.
    """

    title: str
    material: Material
    faces: tuple[Face, ...]
    pieces: int = 1
    rack: tuple[str, ...] | None = None
    habit: str = "double-up"
    aim: str = "time"
