"""An item on the rack: its history, what it is bound to because of that, and what on the rack does not fit together; and what
work does to it."""

import math
import re
from collections.abc import Iterable, Mapping, Sequence, Set
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Final, Literal

from kelbrast.core.catalogue.machines import Machine, machines
from kelbrast.core.catalogue.materials import families
from kelbrast.core.catalogue.tools import Carrier, Tool, carriers, speed_bands, tool, tools
from kelbrast.core.errors import NotFound
from kelbrast.core.process.speed import choose_setting, marked_now, spindle_speed
from kelbrast.core.reference.loader import record
from kelbrast.core.wording import Measure, Sentence, sentence

ItemKind = Literal["machine", "abrasive", "wheel", "lap", "compound"]
ItemEventKind = Literal["used", "downgraded", "retired", "stock", "measured"]
SINGLE: Final = ("machine", "wheel", "lap")  # one stands there; the rest is used up
_BY_WORK: Final = "bench: "
CHARGED: Final = ("wheel", "lap")  # works with what is put on it
KINDS: Final[dict[ItemKind, str]] = {
    "machine": "Machines",
    "abrasive": "Discs, belts, papers, abrasive wheels",
    "wheel": "Wheels and pads for compounds",
    "lap": "Laps",
    "compound": "Bars, pastes and polishes",
}


@dataclass(frozen=True, slots=True)
class ItemEvent:
    """Something that happened to an item, in order of time. Only what its kind needs is set.

    Attributes:
        charge: "used", "downgraded": the compound on a wheel or the grade on a lap.
        family: "used", "downgraded": the metal family that was worked.
        amount: "stock": so many more or fewer.  size: "measured": the diameter now, m.  why: in the person's words.
    """

    kind: ItemEventKind
    charge: str | None = None
    family: str | None = None
    amount: float = 0.0
    size: float | None = None
    why: str = ""


@dataclass(frozen=True)
class Item:
    """One thing on the rack (SI). What is None is as in the catalogue. What follows from its history is worked out once.

    Attributes:
        what: id of a tool, a carrier (wheels and laps), a compound or a machine of the catalogue.
        count: how many when it was put on the rack; `low`: at how many to buy more.
        length: of a lap, m.  per_turn: by how much its diameter grows in a turn of its screw, or a metre of travel of its arbor
            where `by_travel`, m.
        speeds: the settings of a machine, rev/s, where they differ from the catalogue's.
        history: what happened since, the oldest first.
    """

    id: int
    what: str
    name: str = ""
    count: float = 1.0
    low: float | None = None
    diameter: float | None = None
    marked: float | None = None
    price: float | None = None
    life: float | None = None
    length: float | None = None
    per_turn: float | None = None
    by_travel: bool = False
    speeds: tuple[float, ...] = ()
    history: tuple[ItemEvent, ...] = ()

    @cached_property
    def kind(self) -> ItemKind:
        return kind_of(self.what)

    @cached_property
    def bound(self) -> "Bound":
        """What it is kept for now."""
        return bound_by(self.history)

    @cached_property
    def label(self) -> str:
        """What it is, and what it is called here."""
        return f"{label_of(self.what)}, {self.name}" if self.name else label_of(self.what)

    @cached_property
    def grain(self) -> float | None:
        """Grain of what works with it, m: its own, or that of the compound which it is kept for; None for a machine."""
        charged = [tool for tool in made_up(self.what) if tool.charge == self.bound.charge] if self.bound.charge else []
        if charged:
            return charged[0].grain
        if self.kind == "compound":
            return float(record("compounds")[self.what]["grain"].si)
        return tools()[self.what].grain if self.kind == "abrasive" else None

    @cached_property
    def suits(self) -> tuple[str, ...]:
        """The families of materials that it may be used on, as it is bound now."""
        return families_for(self.what, self.history)

    @cached_property
    def have(self) -> float:
        """How many are there now; never below 0."""
        return max(0.0, self.count + sum(event.amount for event in self.history if event.kind == "stock"))

    @cached_property
    def size(self) -> float | None:
        """The diameter as last measured, m."""
        measured = [event.size for event in self.history if event.kind == "measured" and event.size is not None]
        return measured[-1] if measured else self.diameter

    @cached_property
    def size_when_new(self) -> float | None:
        """The diameter that its mark was given for, m: the catalogue's, or its own where that is larger."""
        carrier = carrier_of(self.what)
        known = [size for size in (self.diameter, carrier.running.diameter if carrier else None) if size is not None]
        return max(known, default=None)

    @cached_property
    def retired(self) -> bool:
        return any(event.kind == "retired" for event in self.history)


@dataclass(frozen=True, slots=True)
class Bound:
    """What an item is kept for: a charge (compound or grade) and a metal family, None where it is still free.

    Attributes:
        mixed: it was used with something else as well, and so is spoiled for both until it is downgraded.
    """

    charge: str | None = None
    family: str | None = None
    mixed: bool = False


def bound_by(history: Sequence[ItemEvent]) -> Bound:
    """A wheel takes one compound and one metal family for life once used, a lap one grade: replayed from the history.

    >>> bound_by([ItemEvent("used", charge="white", family="copper-alloy")])
    Bound(charge='white', family='copper-alloy', mixed=False)
    >>> bound_by([ItemEvent("used", charge="white", family="steel"), ItemEvent("used", charge="white", family="silver")]).mixed
    True
    """
    now = Bound()
    for event in history:
        if event.kind == "downgraded":
            now = Bound(event.charge, event.family)
        elif event.kind == "used":
            other = any(
                old is not None and new is not None and old != new
                for old, new in ((now.charge, event.charge), (now.family, event.family))
            )
            now = Bound(now.charge or event.charge, now.family or event.family, now.mixed or other)
    return now


def of_work(title: str) -> str:
    """The reason of what a job used, by its title."""
    return f"{_BY_WORK}{title}"


def joined(last: ItemEvent, more: ItemEvent) -> ItemEvent | None:
    """What work used twice in a row as one entry; None for anything else, which stays apart.

    Years of work would make a history too long to be read. Nothing is decided by when in a day stock went.

    >>> joined(ItemEvent("stock", amount=-0.5, why=of_work("Rail")), ItemEvent("stock", amount=-0.25, why=of_work("Bell")))
    ItemEvent(kind='stock', charge=None, family=None, amount=-0.75, size=None, why='bench: several jobs')
    >>> joined(ItemEvent("stock", amount=10.0, why="bought"), ItemEvent("stock", amount=-0.25, why=of_work("Bell")))
    """
    if not all(event.kind == "stock" and event.why.startswith(_BY_WORK) for event in (last, more)):
        return None
    why = more.why if more.why == last.why else of_work("several jobs")
    return replace(more, amount=round(last.amount + more.amount, 4), why=why)


def kind_of(what: str) -> ItemKind:
    """The kind of an id of the catalogue.

    Raises:
        NotFound: nothing on a rack has this id.

    >>> kind_of("paper-p240"), kind_of("loose"), kind_of("lap"), kind_of("white"), kind_of("drill")
    ('abrasive', 'wheel', 'lap', 'compound', 'machine')
    """
    if what in machines():
        return "machine"
    if what in record("compounds"):
        return "compound"
    if what in carriers():
        law = carriers()[what].cutting.wear_law
        if law in ("compound", "lap"):
            return "wheel" if law == "compound" else "lap"
    elif what in tools() and tools()[what].carrier.cutting.wear_law not in ("compound", "lap"):
        return "abrasive"
    raise NotFound("rack item", what, near_to(what))


def near_to(what: str) -> list[str]:
    """Ids that look like this one."""
    from difflib import get_close_matches

    return get_close_matches(what, stockable(), n=2)


def stockable() -> list[str]:
    """Every id that can stand on a rack."""
    held = [carrier.id for carrier in carriers().values() if carrier.cutting.wear_law in ("compound", "lap")]
    loose = [tool.id for tool in tools().values() if tool.carrier.cutting.wear_law not in ("compound", "lap")]
    return [*machines(), *loose, *held, *record("compounds")]


def label_of(what: str) -> str:
    """What an id of the catalogue is called on a rack.

    >>> label_of("white"), label_of("drill")
    ('White bar', 'Hand drill')
    """
    if what in machines():
        return machines()[what].label
    if what in record("compounds"):
        return str(record("compounds")[what]["label"]).capitalize()
    return tools()[what].label if what in tools() else carriers()[what].label


def in_place(item: Item) -> tuple[int, float, list[tuple[int, str]], int]:
    """Where an item stands on the rack: by its kind, coarse to fine, then by what it is called, drawer 2 before drawer 10."""
    said = re.split(r"(\d+)", item.label.lower())
    called = [(int(part), "") if part.isdecimal() else (0, part) for part in said]
    return list(KINDS).index(item.kind), -(item.grain or 0.0), called, item.id


def carrier_of(what: str) -> Carrier | None:
    """The carrier of a wheel, lap or abrasive; None for machines and compounds."""
    if what in machines():  # a machine may share its id with what it turns
        return None
    if what in carriers():
        return carriers()[what]
    return tools()[what].carrier if what in tools() else None


def made_up(what: str) -> list[Tool]:
    """The tools that this makes up: itself, a wheel or lap with each of its charges, or every wheel with a compound."""
    return [tool for tool in tools().values() if what in (tool.id, tool.carrier.id, tool.charge)]


def families_for(what: str, history: Sequence[ItemEvent] = ()) -> tuple[str, ...]:
    """The families of materials that it may be used on, as it is bound now; a machine may be used on all.

    >>> families_for("loose", [ItemEvent("used", charge="white", family="copper-alloy")])
    ('copper-alloy',)
    >>> families_for("green")
    ('steel', 'stainless', 'titanium', 'plating')
    """
    bound = bound_by(history)
    if bound.family is not None:
        return (bound.family,)
    if what in machines():
        return tuple(families())
    made = [tool for tool in made_up(what) if bound.charge in (None, tool.charge, tool.grade)]
    return tuple(family for family in families() if any(tool.keeps_clean(family) for tool in made))


def keeps_to_one_family(carrier: Carrier) -> bool:
    """Whether one metal spoils it for another: what lasts long enough to carry one over, as wheels, points and laps do."""
    return carrier.stock.wears_down or carrier.cutting.wear_law in ("compound", "lap")


def misfits(item: Item, available: Sequence[Machine]) -> list[Sentence]:
    """Sentences on what does not fit; none when some machine here turns it as it should."""
    carrier = carrier_of(item.what)
    if carrier is None or carrier.mount == "hand":
        return []
    takers = [machine for machine in available if carrier.mount in machine.takes]
    if not takers:
        wanted = " or ".join(machine.label.lower() for machine in machines().values() if carrier.mount in machine.takes)
        return [sentence("misfit.none", wanted=wanted)]
    running = carrier.running
    diameter, new, marked = item.size or running.diameter, item.size_when_new, item.marked or running.marked_limit
    if running.band is None or diameter is None:
        return []
    if marked is not None and new is not None:
        marked = marked_now(marked=marked, new=new, now=diameter)
    bands = [band for (use, _), band in speed_bands().items() if use == running.band]
    fit = [
        machine
        for machine in takers
        if any(choose_setting(machine, diameter=diameter, band=band, marked_limit=marked) is not None for band in bands)
    ]
    if fit:
        return []
    slowest = min(takers, key=_slowest)
    turns = Measure(_slowest(slowest), "turns")
    if marked is not None and math.pi * diameter * _slowest(slowest) > marked:
        most = Measure(spindle_speed(diameter=diameter, surface=marked), "turns")
        return [sentence("misfit.too_fast", machine=slowest.label, turns=turns, mark=Measure(marked, "speed"), most=most)]
    return [sentence("misfit.unsuited", machine=slowest.label, turns=turns)]


def _slowest(machine: Machine) -> float:
    return min(machine.settings) if machine.settings else machine.low or 0.0


Effects = list[tuple[int, ItemEvent]]


@dataclass(frozen=True, slots=True)
class Taken:
    """What the rack was told of a run so far: by tool how much is worn out, and which tools bound their items."""

    worn: Mapping[str, float] = field(default_factory=dict)
    bound: tuple[str, ...] = ()


def effects(tool: Tool, item: int, used: float, family: str, bars: Mapping[str, int]) -> Effects:
    """What so much use of a tool does: a wheel is bound and its bar counted down; a lap is bound; the rest is counted down.

    Args:
        item: id of the item that it was done with.  used: how many of it, or of its bar, were worn out.
        family: that was worked.  bars: by compound, the item that is counted down when it is used.
    """
    found: Effects = []
    if keeps_to_one_family(tool.carrier):
        found.append((item, ItemEvent("used", charge=tool.charge, family=family)))
    law = tool.carrier.cutting.wear_law
    stock = bars.get(tool.charge or "") if law == "compound" else None if law == "lap" else item
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
        told += [
            effect
            for effect in effects(tool(name), items[name], more, family, bars)
            if effect[1].kind != "used" or name in binds
        ]
    for name, used in before.worn.items():
        if name not in now and name in items:
            told += [effect for effect in effects(tool(name), items[name], -used, family, bars) if effect[1].kind != "used"]
    return Taken(now, (*before.bound, *binds)), told
