"""What work does to the rack: wheels and laps are bound for life, bars and abrasives are counted down."""

from collections.abc import Iterable, Mapping, Set
from dataclasses import dataclass, field

from kelbrast.core.catalogue.tools import Tool, tool
from kelbrast.core.rack.item import ItemEvent, keeps_to_one_family

Effects = list[tuple[int, ItemEvent]]


@dataclass(frozen=True, slots=True)
class Taken:
    """What the rack was told of a run so far: by tool how much is worn out, and which tools bound their items."""

    worn: Mapping[str, float] = field(default_factory=dict)
    bound: tuple[str, ...] = ()


def effects(one: Tool, item: int, used: float, family: str, bars: Mapping[str, int]) -> Effects:
    """What so much use of a tool does: a wheel is bound and its bar counted down; a lap is bound; the rest is counted down.

    Args:
        item: id of the item that it was done with.  used: how many of it, or of its bar, were worn out.
        family: that was worked.  bars: by compound, the item that is counted down when it is used.
    """
    found: Effects = []
    if keeps_to_one_family(one.carrier):
        found.append((item, ItemEvent("used", charge=one.charge, family=family)))
    law = one.carrier.cutting.wear_law
    stock = bars.get(one.charge or "") if law == "compound" else None if law == "lap" else item
    if stock is not None and used:
        found.append((stock, ItemEvent("stock", amount=-round(used, 4))))
    return found


def effects_of(worn: Iterable[tuple[str, int, float]], family: str, bars: Mapping[str, int]) -> Effects:
    """The same of several tools: (tool id, item, how much of it was used)."""
    return [effect for name, item, used in worn for effect in effects(tool(name), item, used, family, bars)]


def taken_since(
    before: Taken,
    worn: Mapping[str, float],
    *,
    touched: Set[str],
    items: Mapping[str, int],
    family: str,
    bars: Mapping[str, int],
) -> tuple[Taken, Effects]:
    """What a run has used of the rack so far, and what to tell the rack that is new since `before`.

    A tap that is taken back gives the stock back; what a wheel was bound to stays, because it has touched the metal.

    Args:
        worn: by tool, how much the run has worn out.  touched: tools that were on the work.  items: by tool, of the rack.
    """
    now = {name: round(used, 4) for name, used in worn.items() if name in items}
    binds = [name for name in now if name in touched and name not in before.bound]
    told: Effects = []
    for name, used in now.items():
        more = used - before.worn.get(name, 0.0)
        told += [one for one in effects(tool(name), items[name], more, family, bars) if one[1].kind != "used" or name in binds]
    for name, used in before.worn.items():
        if name not in now and name in items:
            told += [one for one in effects(tool(name), items[name], -used, family, bars) if one[1].kind != "used"]
    return Taken(now, (*before.bound, *binds)), told
