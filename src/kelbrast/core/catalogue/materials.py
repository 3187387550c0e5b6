"""What parts are made of."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Any, Final

from kelbrast.core.catalogue.families import family
from kelbrast.core.catalogue.lookup import find
from kelbrast.core.reference.loader import Constant, record


@dataclass(frozen=True, slots=True)
class Material:
    """A material with the properties that decide scratch, removal and heat (SI: Pa, W/mK, kg/m3, J/kgK, K, 1/K).

    Attributes:
        family: its family's id: "steel", "copper-alloy", "plastic" ...
        limit: surface temperature to stay below while working.
        worked_wet: abrasives that can be wet are used wet on it: dry they clog and burn.
        look, protection, protect_within: its own where it differs from its family (see `Family`).
        cut_share: how much less comes off than its hardness says.
        smear: the deepest smeared layer under marks, in depths of them; coarsest: grain that it bears, m.
        figures: the same properties as constants, with unit and source.
    """

    id: str
    label: str
    family: str
    hardness: float
    conductivity: float
    density: float
    specific_heat: float
    limit: float
    expansion: float
    look: str
    protection: str
    protect_within: float | None
    figures: tuple[tuple[str, Constant], ...]
    worked_wet: bool = False
    cut_share: float = 1.0
    smear: float = math.inf
    coarsest: float = math.inf

    @property
    def diffusivity(self) -> float:
        """Thermal diffusivity, m2/s."""
        return self.conductivity / (self.density * self.specific_heat)


@cache
def materials() -> dict[str, Material]:
    """Every material by its id."""
    return {key: _material(key, row) for key, row in record("materials").items()}


def material(key: str) -> Material:
    """The material with this id.

    >>> material("naval-brass").family
    'copper-alloy'
    """
    return find("material", materials(), key)


_PROPERTIES: Final = ("hardness", "conductivity", "density", "specific_heat", "limit", "expansion")


def _material(key: str, row: dict[str, Any]) -> Material:
    figures = {name: row[name] for name in _PROPERTIES}
    kin = family(row["family"])
    within = row.get("protect_within")
    return Material(
        id=key,
        label=row["label"],
        family=kin.id,
        look=row.get("look", kin.look),
        protection=row.get("protection", kin.protection),
        protect_within=within.si if within else kin.protect_within,
        **{name: value.si for name, value in figures.items()},
        figures=tuple(figures.items()),
        worked_wet=row.get("worked_wet", False),
        **{name: row[name].si for name in ("cut_share", "smear", "coarsest") if name in row},
    )
