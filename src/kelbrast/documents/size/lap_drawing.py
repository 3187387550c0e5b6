"""A lap to make as a small drawing with its dimensions: SVG to look at, PDF to take to the lathe. Not to scale."""

from dataclasses import dataclass
from typing import Final
from xml.sax.saxutils import escape

from kelbrast.core.precision.lap import LapToMake
from kelbrast.core.wording import Measure, System, measured
from kelbrast.documents.common.fields import plain_letters

# The sheet, and the body of the lap on it, in mm.
WIDTH: Final = 180.0
HEIGHT: Final = 105.0
_LEFT: Final = 30.0
_LONG: Final = 80.0
_MIDDLE: Final = 42.0
_HIGH: Final = 30.0
_WAVE: Final = 24  # points of a helix
_END: Final = 145.0  # middle of the view on its end
_SPLITS: Final = {
    "single": "sawn through once, along",
    "double": "sawn in from both ends, on opposite sides",
    "helical": "sawn through along a helix of half a turn",
}


@dataclass(frozen=True, slots=True)
class DrawnLine:
    """A line from point to point; `thin`: of a dimension or an axis."""

    points: tuple[tuple[float, float], ...]
    thin: bool = False


@dataclass(frozen=True, slots=True)
class DrawnCircle:
    """A circle."""

    x: float
    y: float
    radius: float


@dataclass(frozen=True, slots=True)
class DrawnText:
    """A line of text; `middle`: x is its middle."""

    x: float
    y: float
    text: str
    size: float = 3.4
    middle: bool = False
    bold: bool = False


DrawnPart = DrawnLine | DrawnCircle | DrawnText


def drawing_of(lap: LapToMake, title: str, system: System = "metric") -> tuple[DrawnPart, ...]:
    """Side, end, dimensions and notes; sizes in the units of whoever makes it."""
    return (*_side(lap, system), *_end(lap), *_notes(lap, title, system))


def _side(lap: LapToMake, system: System) -> list[DrawnPart]:
    top, bottom, right = _MIDDLE - _HIGH / 2, _MIDDLE + _HIGH / 2, _LEFT + _LONG
    body = DrawnLine(((_LEFT, top), (right, top), (right, bottom), (_LEFT, bottom), (_LEFT, top)))
    inner = _HIGH * (0.25 if lap.kind == "bore" else 0.3)
    lines = [DrawnLine(((_LEFT - 10, _MIDDLE + one), (right + 10, _MIDDLE + one))) for one in (-inner, inner)]
    axis = DrawnLine(((_LEFT - 14, _MIDDLE), (right + 14, _MIDDLE)), thin=True)
    across = inner if lap.kind == "shaft" else _HIGH / 2
    length, size = measured(Measure(lap.length, "length", 4), system), measured(Measure(lap.diameter, "length", 6), system)
    return [
        body,
        *lines,
        axis,
        *_slit(lap, top, bottom),
        *_dimension((_LEFT, bottom + 9), (right, bottom + 9)),
        DrawnText((_LEFT + right) / 2, bottom + 14, length, middle=True),
        *_dimension((_LEFT - 18, _MIDDLE - across), (_LEFT - 18, _MIDDLE + across)),
        DrawnText(_LEFT - 26, top - 4, f"{'outside' if lap.kind == 'bore' else 'bore'} {size}", bold=True),
    ]


def _slit(lap: LapToMake, top: float, bottom: float) -> list[DrawnPart]:
    """The saw cut: a helix is drawn as the wave that it looks like."""
    if lap.split == "helical":
        half = (bottom - top) / 2
        along = [at / _WAVE for at in range(_WAVE + 1)]
        return [DrawnLine(tuple((_LEFT + _LONG * u, _MIDDLE + half * (1 - 2 * u**2 * (3 - 2 * u))) for u in along))]
    through = 1.0 if lap.split == "single" else 0.8
    first = DrawnLine(((_LEFT, _MIDDLE - _HIGH / 4), (_LEFT + _LONG * through, _MIDDLE - _HIGH / 4)))
    second = DrawnLine(((_LEFT + _LONG * 0.2, _MIDDLE + _HIGH / 4), (_LEFT + _LONG, _MIDDLE + _HIGH / 4)))
    return [first] if lap.split == "single" else [first, second]


def _end(lap: LapToMake) -> list[DrawnPart]:
    outer, inner = _HIGH / 2, _HIGH * (0.25 if lap.kind == "bore" else 0.3)
    return [
        DrawnCircle(_END, _MIDDLE, outer),
        DrawnCircle(_END, _MIDDLE, inner),
        DrawnLine(((_END, _MIDDLE - outer), (_END, _MIDDLE - inner))),
        DrawnLine(((_END - outer - 4, _MIDDLE), (_END + outer + 4, _MIDDLE)), thin=True),
    ]


def _dimension(one: tuple[float, float], other: tuple[float, float]) -> list[DrawnPart]:
    (x, y), (u, v) = one, other
    flat = y == v
    along, up = (0.0, 1.5) if flat else (1.5, 0.0)
    ticks = [DrawnLine(((a - along, b - up), (a + along, b + up)), thin=True) for a, b in (one, other)]
    return [DrawnLine(((x, y), (u, v)), thin=True), *ticks]


def _notes(lap: LapToMake, title: str, system: System) -> list[DrawnPart]:
    def say(value: float, digits: int = 3) -> str:
        return measured(Measure(value, "length", digits), system)

    slowest, fastest = (measured(Measure(one, "turns"), system) for one in lap.spindle)
    holder = "on its mandrel" if lap.kind == "bore" else "in its holder"
    slack = f"{say(lap.slack[0])} to {say(lap.slack[1])}"
    fits = "goes in as" if lap.kind == "bore" else "goes over it as"
    lines = (
        f"{lap.material.label}: {lap.material.note}. {lap.split.capitalize()} split: {_SPLITS[lap.split]}.",
        f"It {fits} a sliding fit, with no taper of its own, and floats: {slack} of slack {holder}.",
        f"Stroke {say(lap.stroke)}: the work runs out over each end by {say(lap.overhang)}. {slowest} to {fastest}.",
        "Mark its grade on it and on its holder: one grade for life. Turn it by hand before the power is on.",
    )
    head = DrawnText(
        8, 8, f"{'Expanding bore lap' if lap.kind == 'bore' else 'Closing outside lap'} for {title}", 4.6, bold=True
    )
    return [head, DrawnText(_END, 62, "end", middle=True), *(DrawnText(8, 80 + 5.6 * at, one) for at, one in enumerate(lines))]


def lap_svg(parts: tuple[DrawnPart, ...]) -> str:
    """The drawing as SVG, in mm."""
    drawn = "".join(_svg(part) for part in parts)
    frame = f'<rect width="{WIDTH:g}" height="{HEIGHT:g}" fill="#fff"/>'
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{WIDTH:g}mm" height="{HEIGHT:g}mm" viewBox="0 0 {WIDTH:g} {HEIGHT:g}" '
        f'font-family="sans-serif" fill="none" stroke="#191b1e">{frame}{drawn}</svg>'
    )


def _svg(text: DrawnPart) -> str:
    if isinstance(text, DrawnLine):
        points = " ".join(f"{x:.2f},{y:.2f}" for x, y in text.points)
        return f'<polyline points="{points}" stroke-width="{0.18 if text.thin else 0.5}"/>'
    if isinstance(text, DrawnCircle):
        return f'<circle cx="{text.x:.2f}" cy="{text.y:.2f}" r="{text.radius:.2f}" stroke-width=".5"/>'
    anchor, weight = ("middle" if text.middle else "start"), (700 if text.bold else 400)
    return (
        f'<text x="{text.x:.2f}" y="{text.y:.2f}" font-size="{text.size:g}" font-weight="{weight}" text-anchor="{anchor}" '
        f'fill="#191b1e" stroke="none">{escape(text.text)}</text>'
    )


def lap_pdf(parts: tuple[DrawnPart, ...]) -> bytes:
    """The drawing as a page of its own size."""
    from fpdf import FPDF  # large, and only this needs it

    pdf = FPDF(unit="mm", format=(WIDTH, HEIGHT))
    pdf.set_auto_page_break(False)
    pdf.add_page()
    for part in parts:
        if isinstance(part, DrawnLine):
            pdf.set_line_width(0.18 if part.thin else 0.5)
            pdf.polyline(list(part.points))
        elif isinstance(part, DrawnCircle):
            pdf.set_line_width(0.5)
            pdf.circle(part.x, part.y, part.radius)
        else:
            pdf.set_font("Helvetica", "B" if part.bold else "", part.size * 72 / 25.4 * 0.95)
            text = plain_letters(part.text)
            pdf.text(part.x - (pdf.get_string_width(text) / 2 if part.middle else 0), part.y, text)
    return bytes(pdf.output())
