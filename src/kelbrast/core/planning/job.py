"""A job: a part with its faces, and how the person wants to work."""

from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face

Aim = Literal["time", "metal", "cost", "changes"]
AIMS: Final[dict[Aim, str]] = {"time": "Quickest", "metal": "Least metal", "cost": "Cheapest", "changes": "Fewest changes"}
HABITS: Final = {
    "every-grade": "Every grade in the box",
    "double-up": "About double each time",
    "long-steps": "Long steps",
}


@dataclass(frozen=True, slots=True)
class Job:
    """One job.

    Attributes:
        rack: ids of the tools (and, if wanted, machines) to plan with; None for the whole starter rack.
        carried: whether the part can be brought to a bench machine; None to judge by its largest face.
        habit: a key of `HABITS`.  aim: a key of `AIMS`.
    """

    title: str
    material: Material
    faces: tuple[Face, ...]
    pieces: int = 1
    rack: tuple[str, ...] | None = None
    habit: str = "double-up"
    aim: Aim = "time"
    carried: bool | None = None

    @property
    def comes_to_the_bench(self) -> bool:
        """Whether the part can be brought to a machine that stands: as said, or else by its largest face."""
        if self.carried is not None:
            return self.carried
        return max((face.area for face in self.faces), default=0.0) <= constant("work.carried").si
