"""The rack as CSV, for a spreadsheet: one row an item; what it is bound to instead of its whole history."""

import csv
import io
import json
from typing import Final

from pydantic import ValidationError

from kelbrast.core.errors import BadInput, Fault, ReadError
from kelbrast.core.rack.item import Bound, Item, bound_by
from kelbrast.core.units import from_si
from kelbrast.exchange.rack_file import EventFile, ItemFile, RackFile, check_items, item_faults, to_item
from kelbrast.exchange.read import faults_of

COLUMNS: Final = (
    "what",
    "name",
    "count",
    "low",
    "diameter_mm",
    "marked_m_s",
    "price",
    "life_min",
    "made",
    "note",
    "bound_charge",
    "bound_family",
)
_NUMBERS: Final = ("count", "low", "diameter_mm", "marked_m_s", "price", "life_min")


def rack_to_csv(files: list[ItemFile]) -> str:
    """Rows of items that are not retired; the count is what is there now."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    for number, file in enumerate(files):
        item = to_item(file, number)
        if item.retired:
            continue
        bound = bound_by(item.history)
        row = {key: getattr(file, key, None) for key in COLUMNS}
        row |= {
            "count": item.have,
            "diameter_mm": _millimetres(item),
            "bound_charge": bound.charge,
            "bound_family": bound.family,
        }
        writer.writerow({key: cell(value) for key, value in row.items()})
    return out.getvalue()


def low_stock_csv(files: list[ItemFile]) -> str:
    """What to buy more of: items at or below their low mark, with how many are there."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["what", "name", "have", "low"])
    for number, file in enumerate(files):
        item = to_item(file, number)
        if not item.retired and item.low is not None and item.have <= item.low:
            writer.writerow([cell(value) for value in (item.what, item.name, item.have, item.low)])
    return out.getvalue()


def is_csv(text: str) -> bool:
    """Whether this is the rack as it stands now, without its history, rather than a rack/1 file."""
    return not text.lstrip().startswith("{")


def continued(kept: ItemFile, row: ItemFile) -> tuple[ItemFile, tuple[str, ...]]:
    """A kept item with what a row says of it now, and the columns that differ.

    A row knows the stock and the size as they are and nothing of how they came about, so a difference goes on in the
    history; and what a row does not carry stays as it is.
    """
    item, events, keys = to_item(kept, 0), list[EventFile](), list[str]()
    if cell(row.count) != cell(item.have):
        events.append(EventFile(kind="stock", amount=row.count - item.have, why="as imported"))
        keys.append("count")
    if row.diameter_mm is not None and cell(row.diameter_mm) != cell(_millimetres(item)):
        events.append(EventFile(kind="measured", size_mm=row.diameter_mm, why="as imported"))
        keys.append("diameter_mm")
    if row.history and bound_by(item.history) == Bound():
        events += row.history
        keys.append("bound_charge")
    plain = {key: getattr(row, key) for key in ("low", "marked_m_s", "price", "life_min", "made", "note")}
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
    if "kelbrast" not in data:
        raise BadInput.one("kelbrast", 'is missing; a rack file says "kelbrast": "rack/1"')
    try:
        files = RackFile.model_validate_json(json.dumps(data)).items
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None
    check_items(files)
    return files


def _from_csv(text: str) -> list[ItemFile]:
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff"), newline=""))
    try:
        names, rows = reader.fieldnames or [], list(reader)
    except csv.Error as problem:
        raise ReadError.one("", f"this is not CSV: {problem}") from None
    if "what" not in names:
        raise ReadError.one(
            "", f'this is no rack: the first row must name the columns, "what" among them ({", ".join(COLUMNS)})'
        )
    faults = [Fault(f"column {name}", "is not a column of this file") for name in names if name not in COLUMNS]
    files = []
    for number, row in enumerate(rows, start=2):
        try:
            files.append(_from_row(row, number))
        except BadInput as bad:
            faults += bad.faults
    if faults:
        raise BadInput(faults)
    return files


def _from_row(row: dict[str, str | None], number: int) -> ItemFile:
    faults: list[Fault] = []
    values: dict[str, object] = {}
    for key in COLUMNS:
        text = _as_it_was(row.get(key) or "")
        if key.startswith("bound_") or not text:
            continue
        if key in _NUMBERS:
            try:
                values[key] = float(text.replace(",", "."))
            except ValueError:
                faults.append(Fault(f"row {number}, {key}", f'"{text}" is not a number'))
        else:
            values[key] = text
    charge, family = (_as_it_was(row.get(f"bound_{key}") or "") or None for key in ("charge", "family"))
    if charge or family:
        values["history"] = [EventFile(kind="used", charge=charge, family=family, why="as imported").model_dump()]
    try:
        file = ItemFile.model_validate_json(json.dumps(values))
    except ValidationError as problem:
        faults += [Fault(f"row {number}, {fault.field}", fault.message) for fault in faults_of(problem)]
        raise BadInput(faults) from None
    faults += [Fault(f"row {number}, {fault.field}", fault.message) for fault in item_faults(file, "")]
    if faults:
        raise BadInput(faults)
    return file


def cell(value: object) -> str:
    """As text. A sign that a spreadsheet would take for a formula is put behind an apostrophe."""
    if value is None:
        return ""
    text = f"{value:g}" if isinstance(value, float) else str(value)
    return f"'{text}" if text[:1] in ("=", "+", "-", "@") and not isinstance(value, float) else text


def _as_it_was(text: str) -> str:
    text = text.strip()
    return text[1:] if text[:1] == "'" and text[1:2] in ("=", "+", "-", "@") else text
