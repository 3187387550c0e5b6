"""The open rack file, `rack/1`: what stands on the rack, as people keep it beside the database and send it to each other."""

from typing import Annotated, Final, Literal

from pydantic import ConfigDict, Field

from kelbrast.core.errors import BadInput, Fault, NotFound
from kelbrast.core.rack.item import Item, ItemEvent, ItemEventKind, kind_of
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.fields import ID, LONGEST_REMARK, Lines, Millimetres, OneLine, Strict, Word

MOST_ITEMS: Final = 5000
Amount = Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)]
Positive = Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False)]
ReasonWords = Annotated[str, Field(max_length=LONGEST_REMARK), Lines]


class ItemEventFile(Strict):
    """Something that happened to an item. `charge`: the compound on a wheel or the grade on a lap."""

    kind: ItemEventKind
    charge: ID | None = None
    family: ID | None = None
    amount: Annotated[float, Field(ge=-1_000_000, le=1_000_000, allow_inf_nan=False)] = 0
    size_mm: Millimetres | None = None
    why: ReasonWords = ""


class ItemFile(Strict):
    """An item: `what` is the id of a tool, a carrier (wheels and laps), a compound or a machine. Null: as in the catalogue.

    Of a lap: `length_mm`, and by how much its diameter grows (`set_out_um`) in a turn of its screw or a millimetre of travel of
    its arbor (`set_out_by`).
    """

    what: ID
    name: Word = ""
    count: Amount = 1
    low: Amount | None = None
    diameter_mm: Millimetres | None = None
    marked_m_s: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)] | None = None
    price: Amount | None = None
    life_min: Annotated[float, Field(ge=0.01, le=1_000_000, allow_inf_nan=False)] | None = None
    length_mm: Millimetres | None = None
    set_out_um: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None
    set_out_by: Literal["turn", "mm"] = "turn"
    rpm: Annotated[list[Positive], Field(default_factory=list, max_length=20)]
    made: Annotated[str, Field(max_length=40), OneLine] = ""
    note: ReasonWords = ""
    history: Annotated[list[ItemEventFile], Field(default_factory=list, max_length=10_000)]


class RackFile(Strict):
    """A whole rack."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, title="Kelbrast rack, version 1")

    kelbrast: Literal["rack/1"] = "rack/1"
    items: Annotated[list[ItemFile], Field(max_length=MOST_ITEMS)]


def to_event_file(event: ItemEvent, why: str) -> ItemEventFile:
    """Something that happened to an item, with the reason in words, as it is kept."""
    size = None if event.size is None else from_si(event.size, "mm")
    return ItemEventFile(
        kind=event.kind, charge=event.charge, family=event.family, amount=event.amount, size_mm=size, why=why[:LONGEST_REMARK]
    )


def item_faults(file: ItemFile, field: str) -> list[Fault]:
    """Everything wrong with an item that the shape of a file cannot say."""
    try:
        kind = kind_of(file.what)
    except NotFound as missing:
        return [Fault(f"{field}what", str(missing), hint="see kelbrast list tools")]
    faults = []
    if file.rpm and kind != "machine":
        faults.append(Fault(f"{field}rpm", "belongs to machines"))
    for name in ("diameter_mm", "marked_m_s"):
        if kind in ("machine", "compound") and getattr(file, name) is not None:
            faults.append(Fault(f"{field}{name}", f"does not belong to a {kind}"))
    for name in ("length_mm", "set_out_um"):
        if kind != "lap" and getattr(file, name) is not None:
            faults.append(Fault(f"{field}{name}", f"belongs to laps, not to a {kind}"))
    for at, event in enumerate(file.history):
        if event.kind == "measured" and event.size_mm is None:
            faults.append(Fault(f"{field}history[{at}].size_mm", "is needed for a measured diameter"))
    return faults


def check_items(files: list[ItemFile]) -> None:
    """Check a whole rack.

    Raises:
        BadInput: every fault, by item.
    """
    faults = [fault for at, file in enumerate(files) for fault in item_faults(file, f"items[{at}].")]
    if faults:
        raise BadInput(faults)


def to_item_event(file: ItemEventFile) -> ItemEvent:
    """The event of the core, in SI."""
    size = None if file.size_mm is None else to_si(file.size_mm, "mm")
    return ItemEvent(file.kind, file.charge, file.family, file.amount, size, file.why)


def to_item(file: ItemFile, number: int) -> Item:
    """The item of the core, in SI."""

    def si(value: float | None, unit: str) -> float | None:
        return None if value is None else to_si(value, unit)

    return Item(
        id=number,
        what=file.what,
        name=file.name,
        count=file.count,
        low=file.low,
        diameter=si(file.diameter_mm, "mm"),
        marked=file.marked_m_s,
        price=file.price,
        life=si(file.life_min, "min"),
        length=si(file.length_mm, "mm"),
        per_turn=_per_turn(file),
        by_travel=file.set_out_by == "mm",
        speeds=tuple(to_si(one, "rev/min") for one in file.rpm),
        history=tuple(to_item_event(item_event) for item_event in file.history),
    )


def _per_turn(file: ItemFile) -> float | None:
    """In m a turn, or m a metre of travel."""
    if file.set_out_um is None:
        return None
    grows = to_si(file.set_out_um, "um")
    return grows if file.set_out_by == "turn" else grows / to_si(1.0, "mm")
