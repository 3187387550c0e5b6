"""Labels for wheels, laps and other items: name, what it is kept for, its limit, and a code that opens its page."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final
from xml.sax.saxutils import escape

from kelbrast.core.catalogue.materials import said_family
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.process.speed import spindle_speed
from kelbrast.core.rack.item import Item, carrier_of
from kelbrast.core.reference.loader import record
from kelbrast.core.wording import Measure, System, measured
from kelbrast.documents.common.fields import one_line, plain_letters

# A sheet of A4 with three columns of eight labels, in mm.
WIDTH: Final = 62.0
HEIGHT: Final = 34.0
_COLUMNS: Final = 3
_ROWS: Final = 8
_LEFT: Final = (210 - _COLUMNS * WIDTH) / 2
_TOP: Final = (297 - _ROWS * HEIGHT) / 2
_CODE: Final = 22.0
_FONT: Final = 'font-family="sans-serif" font-size="3"'
_BOX: Final = f'x="1" y="1" width="{WIDTH - 2:g}" height="{HEIGHT - 2:g}" rx="1.5"'
_FRAME: Final = f'<rect {_BOX} fill="none" stroke="#999" stroke-width=".2"/>'


@dataclass(frozen=True, slots=True)
class Label:
    """The lines of a label, the first in bold, and the address that its code opens."""

    lines: tuple[str, ...]
    address: str


def label_of(item: Item, label: str, address: str, system: System = "metric") -> Label:
    """Name, charge and metal family, grain, marked limit as speed and turns, in the units of whoever sticks it on."""
    bound, carrier = item.bound, carrier_of(item.what)
    lines = [item.name or label]
    if item.name:
        lines.append(label)
    if bound.charge or bound.family:
        compound = record("compounds").get(bound.charge or "")
        charge = str(compound["label"]) if compound else bound.charge
        lines.append("Only " + " on ".join(text for text in (charge, said_family(bound.family or "")) if text))
    elif item.kind in ("wheel", "lap"):
        lines.append("Not used yet")
    if (grain := _grain(item, bound.charge)) is not None:
        lines.append(measured(Measure(grain, "depth"), system))
    marked = item.marked or (carrier.running.marked_limit if carrier else None)
    new = item.size_when_new
    if marked is not None and new is not None:  # worn down it may turn no faster than when it was new
        turns = spindle_speed(diameter=new, surface=marked)
        lines += [f"At most {measured(Measure(marked, 'speed'), system)},", measured(Measure(turns, "turns"), system)]
    return Label(tuple(one_line(line).replace("\u202f", "") for line in lines), address)


def _grain(item: Item, charge: str | None) -> float | None:
    if item.kind == "abrasive":
        return tools()[item.what].grain
    if item.kind == "compound":
        return float(record("compounds")[item.what]["grain"].si)
    made = [tool for tool in tools().values() if tool.carrier.id == item.what and charge and tool.charge == charge]
    return made[0].grain if made else None


def labels_svg(labels: Sequence[Label]) -> str:
    """All labels below each other in columns, as one SVG in mm."""
    rows = -(-len(labels) // _COLUMNS)
    width, height = _COLUMNS * WIDTH, max(1, rows) * HEIGHT
    parts = [
        '<svg xmlns="http://www.w3.org/2000/svg"',
        f' width="{width:g}mm" height="{height:g}mm" viewBox="0 0 {width:g} {height:g}">',
        f'<rect width="{width:g}" height="{height:g}" fill="#fff"/>',
    ]
    corner = f"translate({WIDTH - _CODE - 2.5:g} {HEIGHT - _CODE - 2.5:g})"
    for at, label in enumerate(labels):
        x, y = at % _COLUMNS * WIDTH, at // _COLUMNS * HEIGHT
        parts += [f'<g transform="translate({x:g} {y:g})">', _FRAME]
        for number, text in enumerate(_lines(label)):
            weight = ' font-weight="bold"' if number == 0 else ""
            parts.append(f'<text x="3" y="{5.5 + 4.2 * number:g}" {_FONT}{weight}>{escape(text)}</text>')
        parts += [f'<path d="{_code_path(label.address)}" transform="{corner}"/>', "</g>"]
    return "".join([*parts, "</svg>"])


def labels_pdf(labels: Sequence[Label]) -> bytes:
    """Sheets of A4, three columns of eight."""
    from fpdf import FPDF  # large, and only this needs it

    pdf = FPDF(format="A4")
    pdf.set_auto_page_break(False)
    for at, label in enumerate(labels):
        place = at % (_COLUMNS * _ROWS)
        if place == 0:
            pdf.add_page()
        x, y = _LEFT + place % _COLUMNS * WIDTH, _TOP + place // _COLUMNS * HEIGHT
        pdf.set_draw_color(150)
        pdf.rect(x + 1, y + 1, WIDTH - 2, HEIGHT - 2)
        for number, text in enumerate(_lines(label)):
            pdf.set_font("Helvetica", style="B" if number == 0 else "", size=8.5)
            pdf.text(x + 3, y + 5.5 + 4.2 * number, plain_letters(text))
        for left, top, size in _modules(label.address):
            pdf.set_fill_color(0)
            pdf.rect(x + WIDTH - _CODE - 2.5 + left, y + HEIGHT - _CODE - 2.5 + top, size, size, style="F")
    return bytes(pdf.output())


def _lines(label: Label) -> list[str]:
    """Short enough to stand beside the code; the longest first line is cut."""
    found = []
    for number, text in enumerate(label.lines):
        most = 34 if number < 2 else 21  # the first two stand above the code
        while len(text) > most and " " in text[:most]:
            cut = text[:most].rindex(" ")
            found.append(text[:cut])
            text, most = text[cut + 1 :], 21
        found.append(text)
    return found[:7]


def _modules(address: str) -> list[tuple[float, float, float]]:
    """The dark squares of the code in mm: left, top, side."""
    import segno  # slow to come, and only labels need it

    rows = list(segno.make(address, error="m", micro=False).matrix_iter(border=1))
    side = _CODE / len(rows)
    return [(x * side, y * side, side * 1.01) for y, row in enumerate(rows) for x, dark in enumerate(row) if dark]


def _code_path(address: str) -> str:
    out = io.StringIO()
    for left, top, side in _modules(address):
        out.write(f"M{left:.3f} {top:.3f}h{side:.3f}v{side:.3f}h-{side:.3f}z")
    return out.getvalue()
