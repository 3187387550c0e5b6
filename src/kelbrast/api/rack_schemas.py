"""What the rack's part of the API takes and answers."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from kelbrast.app.buying import BuyingSearch
from kelbrast.app.rack import ImportChange, KeptItem, RackPage
from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.tools import Tool, tools
from kelbrast.core.planning.whole.mounting import Preparation
from kelbrast.core.rack.item import (
    CHARGED,
    KINDS,
    SINGLE,
    Item,
    ItemKind,
    carrier_of,
    keeps_to_one_family,
    label_of,
    made_up,
    stockable,
)
from kelbrast.core.reference.loader import record
from kelbrast.core.units import from_si
from kelbrast.documents.catalogue.format import Choice
from kelbrast.documents.common.fields import shop, shop_or_none
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.rack.format import ItemEventFile, ItemFile


class Stockable(BaseModel):
    """Something of the catalogue that can stand on a rack, with the catalogue's figures.

    `variant`: what tells it from others on the same carrier.  `single`: one stands there, the rest is used up.
    `charges`: what a wheel or lap can be charged with; empty for the rest.
    `keeps_to_one`: one metal spoils it for another.  `like`: what of the catalogue it is, or a shop's own is like.
    """

    what: str
    like: str
    label: str
    variant: str
    kind: ItemKind
    kind_label: str
    carrier: str
    carrier_label: str
    grade: str
    grain_um: float | None
    diameter_mm: float | None
    marked_m_s: float | None
    price: float | None
    life_min: float | None
    unit: str
    rpm: list[float]
    spindles: int
    wears_down: bool
    single: bool
    keeps_to_one: bool
    charges: list[Choice]


class EventOut(ItemEventFile):
    at: datetime


class ItemOut(BaseModel):
    """An item as it stands: `size_mm` and `have` now, what it is kept for, and the families that it `suits`.

    A change sends `revision` back in If-Match.
    """

    id: int
    revision: int
    item: ItemFile
    thing: Stockable
    have: float
    size_mm: float | None
    grain_um: float | None
    retired: bool
    bound_charge: str | None
    bound_charge_label: str | None
    bound_family: str | None
    suits: list[str]
    mixed: bool
    low: bool
    misfits: list[SentenceFile]
    history: list[EventOut]


class OfKind(BaseModel):
    """How many items of a kind there are of what is looked for."""

    kind: ItemKind
    label: str
    count: int


class RackPageOut(BaseModel):
    """Some of the rack. `everything`: how many items there are at all; `count`: of what is looked for; `of_kind`: these by
    kind; `carriers`: all that stand there."""

    everything: int
    count: int
    of_kind: list[OfKind]
    carriers: list[Choice]
    items: list[ItemOut]


class ChangeOut(BaseModel):
    """What an import does with one item of the file."""

    what: str
    label: str
    name: str
    change: Literal["new", "changed", "same"]
    keys: list[str]


class SavingOut(BaseModel):
    """What an addition changes for one job, all pieces. `opened`: it had no route before."""

    title: str
    minutes: float
    metal_um: float
    cost: float
    opened: bool


class AdditionOut(BaseModel):
    tools: list[str]
    labels: list[str]
    minutes: float
    metal_um: float
    cost: float
    opened: int
    savings: list[SavingOut]


class SearchOut(BaseModel):
    """A search for what to buy: so many of so many candidates tried, and the best so far."""

    id: int
    tried: int
    total: int
    done: bool
    trouble: str | None
    found: list[AdditionOut]


class MountedOut(BaseModel):
    tool: str
    label: str
    rpm: float | None
    spindle: int
    mount: bool
    faces: list[str]


class MachineSetUpsOut(BaseModel):
    machine: str
    label: str
    spindles: int
    changes: int
    mounted: list[MountedOut]
    notes: list[str]


class GatheredOut(BaseModel):
    label: str
    count: int
    unit: str


class PreparationOut(BaseModel):
    gather: list[GatheredOut]
    machines: list[MachineSetUpsOut]


class ItemsIn(BaseModel):
    """Things to put on the rack, all or none."""

    items: Annotated[list[ItemFile], Field(min_length=1, max_length=2000)]


class EventsIn(BaseModel):
    events: Annotated[list[ItemEventFile], Field(min_length=1, max_length=100)]


class RackText(BaseModel):
    """A rack file as text, JSON or CSV."""

    text: Annotated[str, Field(max_length=2_000_000)]


def things() -> list[Stockable]:
    """Everything that can be put on a rack, coarse to fine within its kind."""
    things = [thing(what) for what in stockable()]
    kinds = list(KINDS)
    return sorted(things, key=lambda stockable: (kinds.index(stockable.kind), stockable.carrier, -(stockable.grain_um or 0)))


def thing(what: str) -> Stockable:
    carrier = carrier_of(what)
    if what in machines():
        machine = machines()[what]
        speeds = machine.settings or tuple(speed for speed in (machine.low, machine.high) if speed)
        rpm = [shop(speed, "rev/min") for speed in speeds]
        return _thing(
            what,
            label_of(what),
            "machine",
            carrier=what,
            carrier_label=machine.label,
            rpm=rpm,
            spindles=machine.spindles,
            like=machine.kin,
        )
    if carrier is None:
        compound = record("compounds")[what]
        grain = shop(compound["grain"].si, "um")
        return _thing(what, label_of(what), "compound", carrier="compound", carrier_label="Compound", grain_um=grain)
    tool: Tool | None = tools().get(what)
    kind: ItemKind = Item(0, what).kind
    return _thing(
        what,
        label_of(what),
        kind,
        carrier=carrier.id,
        carrier_label=carrier.label,
        variant=tool.variant if tool else carrier.label,
        grade=tool.grade if tool else "",
        grain_um=shop(tool.grain, "um") if tool else None,
        diameter_mm=shop_or_none(carrier.running.diameter, "mm"),
        marked_m_s=carrier.running.marked_limit,
        price=carrier.stock.price if tool else None,
        life_min=shop_or_none(carrier.stock.life, "min"),
        unit=carrier.stock.unit if tool else "wheel" if kind == "wheel" else "lap",
        wears_down=carrier.stock.wears_down,
        keeps_to_one=keeps_to_one_family(carrier),
        charges=_charges(what) if kind in CHARGED else [],
        like=carrier.kin,
    )


def _thing(what: str, label: str, kind: ItemKind, **more: object) -> Stockable:
    figures: dict[str, object] = {
        "grade": "", "grain_um": None, "diameter_mm": None, "marked_m_s": None, "price": None, "life_min": None,
        "unit": {"machine": "machine", "compound": "bar"}.get(kind, ""), "rpm": [], "spindles": 1,
        "wears_down": False, "keeps_to_one": False, "charges": [], "single": kind in SINGLE, "like": what,
    }  # fmt: skip
    return Stockable.model_validate(
        {"what": what, "label": label, "variant": label, "kind": kind, "kind_label": KINDS[kind], **figures, **more}
    )


def _charges(what: str) -> list[Choice]:
    charged = {tool.charge or tool.grade: tool.variant for tool in made_up(what)}
    return [Choice(id=key, label=label) for key, label in charged.items()]


def item_out(kept: KeptItem) -> ItemOut:
    item, bound = kept.item, kept.item.bound
    compound = record("compounds").get(bound.charge or "")
    return ItemOut(
        id=kept.id,
        revision=kept.revision,
        item=kept.file.model_copy(update={"history": []}),
        thing=thing(item.what),
        have=item.have,
        size_mm=shop_or_none(item.size, "mm"),
        grain_um=shop_or_none(item.grain, "um"),
        retired=item.retired,
        bound_charge=bound.charge,
        bound_charge_label=str(compound["label"]) if compound else bound.charge,
        bound_family=bound.family,
        suits=list(item.suits),
        mixed=bound.mixed,
        low=item.low is not None and item.have <= item.low,
        misfits=[to_sentence_file(misfit) for misfit in kept.misfits],
        history=[EventOut(**event.model_dump(), at=at) for event, at in zip(kept.file.history, kept.at, strict=True)],
    )


def page_out(page: RackPage) -> RackPageOut:
    return RackPageOut(
        everything=page.everything,
        count=page.count,
        of_kind=[OfKind(kind=kind, label=KINDS[kind], count=count) for kind, count in page.of_kind],
        carriers=sorted((Choice(id=key, label=label) for key, label in page.carriers.items()), key=lambda one: one.label),
        items=[item_out(kept) for kept in page.items],
    )


def change_out(import_change: ImportChange) -> ChangeOut:
    file = import_change.file
    return ChangeOut(
        what=file.what, label=thing(file.what).label, name=file.name, change=import_change.change, keys=list(import_change.keys)
    )


def search_out(search: BuyingSearch) -> SearchOut:
    progress = search.progress
    return SearchOut(
        id=search.id,
        tried=progress.done,
        total=progress.total,
        done=search.done,
        trouble=search.trouble,
        found=[
            AdditionOut(
                tools=list(addition.tools),
                labels=[tools()[tool].label for tool in addition.tools],
                minutes=shop(addition.gain("minutes"), "min"),
                metal_um=shop(addition.gain("metal"), "um"),
                cost=addition.gain("cost"),
                opened=addition.opened,
                savings=[
                    SavingOut(
                        title=search.titles[saving.job],
                        minutes=shop(saving.seconds, "min"),
                        metal_um=shop(saving.metal, "um"),
                        cost=saving.cost,
                        opened=saving.opened,
                    )
                    for saving in addition.savings
                ],
            )
            for addition in progress.found
        ],
    )


def preparation_out(made: Preparation) -> PreparationOut:
    return PreparationOut(
        gather=[
            GatheredOut(label=gathered.tool.label, count=gathered.count, unit=gathered.tool.carrier.stock.unit)
            for gathered in made.gather
        ],
        machines=[
            MachineSetUpsOut(
                machine=machine.machine.id,
                label=machine.machine.label,
                spindles=machine.machine.spindles,
                changes=machine.changes,
                notes=list(machine.notes),
                mounted=[
                    MountedOut(
                        tool=mounted.set_up.tool.id,
                        label=mounted.set_up.tool.label,
                        rpm=None if mounted.set_up.spindle is None else from_si(mounted.set_up.spindle, "rev/min"),
                        spindle=mounted.spindle,
                        mount=mounted.mount,
                        faces=[face for face, _ in mounted.set_up.faces],
                    )
                    for mounted in machine.mounted
                ],
            )
            for machine in made.machines
        ],
    )
