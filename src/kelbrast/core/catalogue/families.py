"""Families of materials: what may share a wheel, and the rules that hold for all of a family."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from kelbrast.core.catalogue.lookup import find
from kelbrast.core.errors import Fault, ReadError
from kelbrast.core.reference.loader import record, table
from kelbrast.core.reference.schemas import BANDS


@dataclass(frozen=True, slots=True)
class Family:
    """Metals or plastics that are worked alike.

    Attributes:
        caution: what its dust, its fire or its care asks for, in a sentence.
        look: how it reflects, a key of `looks.toml`.
        sparks: its dust glows when it is ground.
        bath: may lie in an ultrasonic bath.
        alcohol: bears being wiped with it.
        anodises: may carry a coat of anodising.
        bars: the compounds that are usually kept for it.
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


@cache
def families() -> dict[str, Family]:
    """Every family by its id.

    Raises:
        ReadError: a family has no row in the tables of speeds for a use that it needs.
    """
    found = {key: _family(key, row) for key, row in record("families").items()}
    known = {(row["use"], row["family"]) for name in BANDS for row in table(name)}
    if missing := list(missing_bands(found, record("carriers"), known)):
        raise ReadError(missing)
    return found


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
    families: Collection[str], carriers: Mapping[str, Mapping[str, Any]], known: Collection[tuple[str, str]]
) -> Iterator[Fault]:
    """What the tables of speeds leave out: (use, family) of every carrier that is worked in a band and may touch the family.

    Without its row a carrier would be refused for the whole family, and nobody would know why.

    >>> [str(one) for one in missing_bands(["steel"], {"felt": {"band": "cut"}}, set())]
    ['families.toml:steel: has no speeds for "cut" in the tables of bands; "felt" needs them, or must name it in not_for']
    """
    needed = {
        (row["band"], one): carrier
        for carrier, row in carriers.items()
        for one in families
        if "band" in row and one not in row.get("not_for", ())
    }
    for (use, one), carrier in needed.items():
        if (use, one) not in known:
            said = f'has no speeds for "{use}" in the tables of bands; "{carrier}" needs them, or must name it in not_for'
            yield Fault(f"families.toml:{one}", said)


def _family(key: str, row: dict[str, Any]) -> Family:
    within = row.get("protect_within")
    return Family(key, **{**row, "bars": tuple(row["bars"]), "protect_within": within.si if within else None})
