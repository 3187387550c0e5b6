"""The rack as CSV, for a spreadsheet: one row an item; what it is bound to instead of its whole history."""

import json
from typing import Final

from pydantic import ValidationError

from kelbrast.core.errors import MOST_FAULTS, BadInput, Fault, ReadError
from kelbrast.core.rack.item import Bound, Item
from kelbrast.core.units import from_si
from kelbrast.documents.common.csv_text import cell, csv_rows, csv_text
from kelbrast.documents.common.faults import faults_of
from kelbrast.documents.common.fields import read_number
from kelbrast.documents.rack.format import MOST_ITEMS, ItemEventFile, ItemFile, RackFile, check_items, item_faults, to_item

COLUMNS: Final = (
    "what",
    "name",
    "count",
    "low",
    "diameter_mm",
    "marked_m_s",
    "price",
    "life_min",
    "length_mm",
    "set_out_um",
    "set_out_by",
    "made",
    "note",
    "bound_charge",
    "bound_family",
)
_OF_LAPS: Final = ("length_mm", "set_out_um", "set_out_by")
_NUMBERS: Final = ("count", "low", "diameter_mm", "marked_m_s", "price", "life_min", "length_mm", "set_out_um")


def rack_to_csv(files: list[ItemFile]) -> str:
    """Rows of items that are not retired; the count is what is there now."""
    return csv_text(COLUMNS, (_row(file) for file in files if not to_item(file, 0).retired))


def _row(file: ItemFile) -> list[object]:
    item = to_item(file, 0)
    bound = item.bound
    now = {"count": item.have, "diameter_mm": _millimetres(item), "bound_charge": bound.charge, "bound_family": bound.family}
    return [now[key] if key in now else getattr(file, key) for key in COLUMNS]


def low_stock_csv(files: list[ItemFile]) -> str:
    """What to buy more of: items at or below their low mark, with how many are there."""
    items = [to_item(file, 0) for file in files]
    low = [item for item in items if not item.retired and item.low is not None and item.have <= item.low]
    return csv_text(("what", "name", "have", "low"), ((item.what, item.name, item.have, item.low) for item in low))


def is_csv(text: str) -> bool:
    """Whether this is the rack as it stands now, without its history, rather than a rack/1 file."""
    return not text.lstrip().startswith("{")


def continued(kept: ItemFile, row: ItemFile) -> tuple[ItemFile, tuple[str, ...]]:
    """A kept item with what a row says of it now, and the columns that differ.

    A row knows the stock and the size as they are and nothing of how they came about, so a difference goes on in the
    history; and what a row does not carry stays as it is.
    """
    item, events, keys = to_item(kept, 0), list[ItemEventFile](), list[str]()
    if cell(row.count) != cell(item.have):
        events.append(ItemEventFile(kind="stock", amount=row.count - item.have, why="as imported"))
        keys.append("count")
    if row.diameter_mm is not None and cell(row.diameter_mm) != cell(_millimetres(item)):
        events.append(ItemEventFile(kind="measured", size_mm=row.diameter_mm, why="as imported"))
        keys.append("diameter_mm")
    if row.history and item.bound == Bound():
        events += row.history
        keys.append("bound_charge")
    plain = {key: getattr(row, key) for key in ("low", "marked_m_s", "price", "life_min", *_OF_LAPS, "made", "note")}
    keys += [key for key, value in plain.items() if cell(value) != cell(getattr(kept, key))]
    return kept.model_copy(update={**plain, "history": [*kept.history, *events]}), tuple(keys)


def _millimetres(item: Item) -> float | None:
    return None if item.size is None else round(from_si(item.size, "mm"), 3)


def read_rack(text: str) -> list[ItemFile]:
    """A rack from JSON (`rack/1`) or CSV, told apart by the first sign.

    Raises:
        ReadError: neither.  BadInput: every fault, by item and key or by row and column.
    """
    return _from_csv(text) if is_csv(text) else _from_json(text)


def _from_json(text: str) -> list[ItemFile]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as problem:
        raise ReadError.one("", f"this is not JSON: {problem}") from None
    if not isinstance(data, dict):
        raise ReadError.one("", "a rack file is a JSON object, with { at the start")
    if "kelbrast" not in data:
        raise BadInput.one("kelbrast", 'is missing; a rack file says "kelbrast": "rack/1"')
    try:
        files = RackFile.model_validate_json(json.dumps(data)).items
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None
    check_items(files)
    return files


def _from_csv(text: str) -> list[ItemFile]:
    faults: list[Fault] = []
    files: list[ItemFile] = []
    for number, row in csv_rows(text, COLUMNS, needs="what"):
        try:
            if isinstance(row, Fault):
                raise BadInput([row])
            files.append(_from_row(row, number))
        except BadInput as bad:
            faults += bad.faults
        if len(faults) > MOST_FAULTS:  # a file that is wrong throughout need not be read to its end
            break
        if len(files) > MOST_ITEMS:
            raise BadInput.one("rows", f"more than {MOST_ITEMS} things are no rack; split the file")
    if faults:
        raise BadInput(faults)
    return files


def _from_row(row: dict[str, str], number: int) -> ItemFile:
    faults: list[Fault] = []
    values: dict[str, object] = {}
    for key in COLUMNS:
        text = row.get(key, "")
        if key.startswith("bound_") or not text:
            continue
        if key in _NUMBERS:
            try:
                values[key] = read_number(text)
            except ValueError as problem:
                faults.append(Fault(f"row {number}, {key}", str(problem)))
        else:
            values[key] = text
    charge, family = row.get("bound_charge") or None, row.get("bound_family") or None
    if charge or family:
        values["history"] = [ItemEventFile(kind="used", charge=charge, family=family, why="as imported").model_dump()]
    try:
        file = ItemFile.model_validate_json(json.dumps(values))
    except ValidationError as problem:
        faults += [Fault(f"row {number}, {fault.field}", fault.message) for fault in faults_of(problem)]
        raise BadInput(faults) from None
    faults += [Fault(f"row {number}, {fault.field}", fault.message) for fault in item_faults(file, "")]
    if faults:
        raise BadInput(faults)
    return file
