"""What laps can be made of."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.reference.loader import record


@dataclass(frozen=True, slots=True)
class LapMaterial:
    """What a lap can be made of; hardness in Pa."""

    id: str
    label: str
    hardness: float
    note: str


@cache
def lap_materials() -> tuple[LapMaterial, ...]:
    """All of them, the softest first."""
    rows = record("laps").items()
    return tuple(LapMaterial(key, row["label"], row["hardness"].si, row["note"]) for key, row in rows)


def lap_for(hardness: float) -> LapMaterial:
    """The hardest that is still softer than the work: it holds its form longest, and the grain sits in it, not in the work."""
    softer = [one for one in lap_materials() if one.hardness < hardness]
    return max(softer, key=lambda one: one.hardness) if softer else lap_materials()[0]
