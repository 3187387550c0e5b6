"""What parts are made of, in families that share wheels and rules; and what may be stuck in a part and would be hurt."""

import math
from collections.abc import Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, Final

from kelbrast.core.errors import Fault, ReadError
from kelbrast.core.reference.loader import Constant, find, record, table
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.reference.schemas import BANDS


@dataclass(frozen=True, slots=True)
class Material:
    """A material with the properties that decide scratch, removal and heat (SI: Pa, W/mK, kg/m3, J/kgK, K, 1/K).

    Attributes:
        family: its family's id: "steel", "copper-alloy", "plastic" ...
        limit: surface temperature to stay below while working.
        worked_wet: abrasives that can be wet are used wet on it: dry they clog and burn.
        look, protection, protect_within: its own where it differs from its family (see `Family`).
        cut_share: how much less comes off than its hardness says.
        passivates: stainless, and passivated where it was welded, tinted or scaled.
        caution: what it asks for beside its family's caution; None for nothing.
        tips: keys of [advice] in `advice.toml` that hold for it, each where its own rule applies.
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
    passivates: bool = False
    caution: str | None = None
    tips: tuple[str, ...] = ()
    cut_share: float = 1.0
    smear: float = math.inf
    coarsest: float = math.inf

    @property
    def diffusivity(self) -> float:
        """Thermal diffusivity, m2/s."""
        return self.conductivity / (self.density * self.specific_heat)


@remembered()
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
        passivates=row.get("passivates", False),
        caution=row.get("caution"),
        tips=tuple(row.get("tips", ())),
        **{name: row[name].si for name in ("cut_share", "smear", "coarsest") if name in row},
    )


@dataclass(frozen=True, slots=True)
class Family:
    """Metals or plastics that are worked alike.

    Attributes:
        caution: what its dust, its fire or its care asks for, in a sentence.
        look: how it reflects, a key of `looks.toml`.
        sparks: its dust glows when it is ground.  burns: its dust burns when sparks fall into it.
        bath: may lie in an ultrasonic bath.
        alcohol: bears being wiped with it.
        anodises: may carry a coat of anodising.
        bars: the compounds that are usually kept for it.
        worked_by: the only carriers that may touch it; None where any may that does not exclude it.
        speeds_as: the family whose surface speeds hold for it where the tables have none of its own; None for its own.
        protection: what usually protects it when it is bright, within so many seconds; None when it can wait.
    """

    id: str
    label: str
    caution: str
    look: str
    sparks: bool
    bath: bool
    alcohol: bool
    anodises: bool
    bars: tuple[str, ...]
    protection: str
    protect_within: float | None
    worked_by: tuple[str, ...] | None = None
    speeds_as: str | None = None
    burns: bool = False

    def may_be_worked_by(self, carrier: str, row: Mapping[str, Any]) -> bool:
        """Whether this carrier may touch it, with one of the family's bars where it carries a compound.

        Args:
            carrier: its id.  row: its entry in `carriers.toml`.
        """
        excluded = self.id in row.get("not_for", ()) or not (self.worked_by is None or carrier in self.worked_by)
        return not excluded and ("compounds" not in row or not {*row["compounds"]}.isdisjoint(self.bars))


@remembered()
def families() -> dict[str, Family]:
    """Every family by its id.

    Raises:
        ReadError: a family has no row in the tables of speeds for a use that it needs.
    """
    families = {key: _family(key, row) for key, row in record("families").items()}
    known = {(row["use"], row["family"]) for name in BANDS for row in table(name)}
    if missing := list(missing_bands(families.values(), record("carriers"), known)):
        raise ReadError(missing)
    return families


def family(key: str) -> Family:
    """The family with this id.

    >>> family("aluminium").anodises
    True
    """
    return find("family", families(), key)


def said_family(key: str) -> str:
    """A family inside a sentence; what is not known as one is said as it stands.

    >>> said_family("copper-alloy")
    'copper, brass, bronze'
    """
    return families()[key].label.lower() if key in families() else key


def missing_bands(
    families: Iterable[Family], carriers: Mapping[str, Mapping[str, Any]], known: Collection[tuple[str, str]]
) -> Iterator[Fault]:
    """What the tables of speeds leave out: (use, family) of every carrier that is worked in a band and may touch the family.

    Without its row a carrier would be refused for the whole family, and nobody would know why.

    >>> [str(one) for one in missing_bands([family("steel")], {"felt": {"band": "cut"}}, set())]
    ['families.toml:steel: has no speeds for "cut" in the tables of bands; "felt" needs them, or must name it in not_for']
    """
    needed = {
        (row["band"], family.speeds_as or family.id): (carrier, family.id)
        for carrier, row in carriers.items()
        for family in families
        if "band" in row and family.may_be_worked_by(carrier, row)
    }
    for (use, speeds), (carrier, one) in needed.items():
        if (use, speeds) not in known and (use, one) not in known:
            said = f'has no speeds for "{use}" in the tables of bands; "{carrier}" needs them, or must name it in not_for'
            yield Fault(f"families.toml:{one}", said)


def _family(key: str, row: dict[str, Any]) -> Family:
    within = row.get("protect_within")
    lists: dict[str, Any] = {name: tuple(row[name]) for name in ("bars", "worked_by") if name in row}
    said: dict[str, Any] = {**row, **lists, "protect_within": within.si if within else None}
    return Family(key, **said)


@dataclass(frozen=True, slots=True)
class Insert:
    """An insert: the temperature (K) to stay below, and the ways of working that it forbids."""

    id: str
    label: str
    limit: Constant
    forbids: tuple[str, ...]
    word: str


@cache
def inserts() -> dict[str, Insert]:
    """Every kind of insert by its id."""
    return {
        key: Insert(key, row["label"], row["limit"], tuple(row["forbids"]), row["word"])
        for key, row in record("inserts").items()
    }


def insert(key: str) -> Insert:
    """The kind of insert with this id.

    >>> "ultrasonic" in insert("stone").forbids
    True
    """
    return find("insert", inserts(), key)


def forbidden_by(keys: tuple[str, ...]) -> frozenset[str]:
    """All ways of working that these inserts forbid.

    >>> sorted(forbidden_by(("bearing",)))
    ['hot-water', 'soak', 'solvent', 'ultrasonic', 'wet']
    """
    return frozenset(way for key in keys for way in insert(key).forbids)
