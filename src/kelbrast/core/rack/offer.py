"""Which tools of the catalogue a rack can offer to a job, and why it refuses the others."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

from kelbrast.core.catalogue.materials import said_family
from kelbrast.core.catalogue.tools import Tool, tools
from kelbrast.core.rack.item import Item, carrier_of, keeps_to_one_family
from kelbrast.core.reference.loader import record
from kelbrast.core.reference.own_rows import remembered


@dataclass(frozen=True, slots=True)
class OwnTool:
    """A tool as it stands on the rack (SI): None where it is as in the catalogue.

    Attributes:
        diameter: as it is now; new: as its mark was given for.
        item: id of the item that would be used.  have: how many sheets, discs or bars are there; no plan depends on it.
        commits: using it binds the item for life.
        warning: what will happen when a person insists on a refused one.
    """

    tool: str
    item: int
    have: float = field(compare=False)
    diameter: float | None = None
    new: float | None = None
    marked: float | None = None
    price: float | None = None
    life: float | None = None
    commits: bool = False
    warning: str | None = None


@dataclass(frozen=True, slots=True)
class OwnMachine:
    """A machine as it stands there; its settings in rev/s where they differ from the catalogue's."""

    machine: str
    speeds: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Own:
    """What a job may be planned with: the rack's own tools and machines, and extras by id of the catalogue."""

    tools: tuple[OwnTool, ...]
    machines: tuple[OwnMachine, ...]
    extras: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Refused:
    """A tool that stands there and may not be used on this metal, and why."""

    tool: str
    item: int
    reason: str


@dataclass(frozen=True, slots=True)
class Offer:
    """What a rack offers to a job of one metal family."""

    tools: tuple[OwnTool, ...]
    machines: tuple[OwnMachine, ...]
    refused: tuple[Refused, ...]


def offer(items: Sequence[Item], family: str, *, insist: bool = False) -> Offer:
    """The tools that these items make up for a metal family.

    A wheel with a compound needs both: the wheel free or kept for just that, and some of the compound. Of several items
    that would do, one that is bound already is taken before one that would be committed, and the fuller before the emptier.

    Args:
        insist: take refused ones too, with a warning of what will happen.
    """
    there = [item for item in items if not item.retired and item.have > 0]
    compounds = {item.what: item for item in sorted(there, key=lambda item: item.have) if item.kind == "compound"}
    own_tools: dict[str, OwnTool] = {}
    refused: dict[str, Refused] = {}
    for item in there:
        for tool, charge in _makes(item):
            bar = compounds.get(charge) if item.kind == "wheel" and charge else None
            if item.kind == "wheel" and bar is None:
                continue
            reason = why_not(item, tool, charge, family)
            if reason is not None and not insist:
                refused.setdefault(tool.id, Refused(tool.id, item.id, reason))
                continue
            own = _owned(item, bar, tool, family, reason)
            if tool.id not in own_tools or _merit(own) > _merit(own_tools[tool.id]):
                own_tools[tool.id] = own
    machines = tuple(OwnMachine(item.what, item.speeds) for item in there if item.kind == "machine")
    left = tuple(tool for key, tool in refused.items() if key not in own_tools)
    return Offer(tuple(own_tools.values()), machines, left)


def why_not(item: Item, tool: Tool, charge: str | None, family: str) -> str | None:
    """Why an item may not be used with this charge on this family, in a sentence; None when it may."""
    bound = item.bound
    name = item.name or tool.label
    if bound.mixed:
        return f"{name} has carried more than one compound or metal: downgrade or retire it."
    if bound.charge is not None and charge is not None and bound.charge != charge:
        return f"{name} has carried {_said(bound.charge)} and is kept for it; {_said(charge)} would be mixed with it."
    if bound.family is not None and bound.family != family and keeps_to_one_family(tool.carrier):
        return f"{name} has worked {said_family(bound.family)}: what it holds would score or stain {said_family(family)}."
    return None


def _owned(item: Item, bar: Item | None, tool: Tool, family: str, warning: str | None) -> OwnTool:
    bound = item.bound
    stock = bar or item
    return OwnTool(
        tool=tool.id,
        item=item.id,
        have=stock.have,
        diameter=item.size,
        new=item.size_when_new,
        marked=item.marked,
        price=stock.price,
        life=stock.life,
        commits=keeps_to_one_family(tool.carrier) and bound.family != family,
        warning=warning,
    )


def _merit(own: OwnTool) -> tuple[bool, bool, float]:
    return own.warning is None, not own.commits, own.have


def _makes(item: Item) -> list[tuple[Tool, str | None]]:
    """The tools that an item can be part of, with the charge it would carry: a compound on a wheel, a grade on a lap."""
    if item.kind == "abrasive":
        return [(tools()[item.what], None)]
    if item.kind in ("wheel", "lap"):
        carrier = carrier_of(item.what)
        assert carrier is not None, "wheels and laps have a carrier"
        return [(tool, tool.charge) for tool in _on_carrier()[carrier.id]]
    return []


@remembered()
def _on_carrier() -> dict[str, list[Tool]]:
    """The tools of the catalogue by their carrier: a rack may have hundreds of one kind of wheel."""
    found = defaultdict(list)
    for tool in tools().values():
        found[tool.carrier.id].append(tool)
    return found


def _said(charge: str) -> str:
    compound = record("compounds").get(charge)
    return str(compound["label"]) if compound else charge
