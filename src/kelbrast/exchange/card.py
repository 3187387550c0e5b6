"""The job card: one page to print, take to the bench and tick."""

from contextlib import suppress
from typing import Final

from fpdf import FPDF, FontFace
from fpdf.enums import TableBordersLayout, XPos, YPos

from kelbrast.core.units import to_si
from kelbrast.core.wording import Measure, System, measured, minutes_range, minutes_text
from kelbrast.exchange.plan_file import FacePlanFile, OperationFile, PlanFile, StepFile
from kelbrast.exchange.text import figures, plain_letters, reason_text, spread_text, turning_text

_SIZES: Final = (9.0, 8.0, 7.0, 6.0)  # points; the first that fits on a page is taken
_WIDTHS: Final = (7, 5, 44, 36, 10, 22, 66)
_HEADINGS: Final = ("", "", "Tool", "Speed", "Min", "Takes, leaves", "Until")


def job_card(plan: PlanFile, *, inch: bool = False) -> bytes:
    """The card as a PDF (A4). A job that is too long for one page at six points runs on to the next."""
    for size in _SIZES:
        card = _Card(size, inch=inch, pages=None if size == _SIZES[-1] else 1)
        with suppress(_TooLong):
            card.draw(plan)
            break
    return bytes(card.output())


class _TooLong(Exception):
    """It does not fit on its page: a long job is not drawn to its end at every size."""


class _Card(FPDF):
    def __init__(self, size: float, *, inch: bool, pages: int | None) -> None:
        super().__init__(format="A4")
        self._pages = pages
        self._size: float = size
        self._system: System = "inch" if inch else "metric"
        self.set_margin(10)
        self.set_auto_page_break(True, margin=10)
        self.add_page()
        self.set_font("Helvetica", size=size)

    def header(self) -> None:
        """Called by the library at the top of each page."""
        if self._pages is not None and self.page_no() > self._pages:
            raise _TooLong

    def draw(self, plan: PlanFile) -> None:
        self.set_title(plain_letters(plan.title))
        self._line(plan.title, bold=True, larger=1.7)
        pieces = "1 piece" if plan.pieces == 1 else f"{plan.pieces} pieces"
        totals = [
            f"{plan.material}, {pieces}",
            f"{minutes_text(plan.minutes)} each at the abrasives, {minutes_text(plan.minutes_all)} in all",
            f"{minutes_text(plan.around_minutes)} each around them, {minutes_text(plan.waiting_minutes)} of waiting",
        ]
        self._line(" ".join([". ".join(totals) + ".", *spread_text(plan)]))
        if plan.blocked:
            self._line(plan.blocked, bold=True)
        lay_out = ", ".join(f"{one.label} ({one.count} {one.unit}{'s' if one.count > 1 else ''})" for one in plan.gather)
        if lay_out:
            self._line(f"Lay out: {lay_out}.")
        if len(plan.order) > 1:
            self._line("Order of work: " + ", then ".join(plan.order) + ".")
        place = {name: at for at, name in enumerate(plan.order)}
        self._operations("Before", [one for one in plan.operations if one.when == "before"])
        for face in sorted(plan.faces, key=lambda one: place.get(one.name, -1)):
            self._face(face)
        self._operations("Between", [one for one in plan.operations if one.when == "between"])
        self._operations("After", [one for one in plan.operations if one.when == "after"])
        cautions = dict.fromkeys([*plan.cautions, *(c for face in plan.faces for step in face.steps for c in step.cautions)])
        self._heading("Beware")
        self._line(" ".join(cautions))
        self._line("Done by ____________________   Date ______________   Time it really took ______________", larger=1.1)

    def _face(self, face: FacePlanFile) -> None:
        limit = f" of {self._depth(face.limit_um)}" if face.limit_um is not None else ""
        off = self._depth(max(0.0, face.metal_um - face.above_um))
        told = f"{minutes_range(face.minutes, face.minutes_high)}, {off}{limit} off"
        if face.keep_off:
            told = "keep off: mask it"
        elif not face.possible:
            told = f"not possible: {reason_text(face, self._system)}"
        elif face.edge is not None and face.edge.wanted == "sharp":
            told = "stays sharp: let no wheel roll over it"
        elif not face.steps:
            told = "as wanted already"
        self._heading(f"{face.name}: {told}")
        if not face.steps:
            return
        plain = FontFace(emphasis="BOLD")
        with self.table(
            col_widths=_WIDTHS,
            line_height=self._size * 0.46,
            borders_layout=TableBordersLayout.HORIZONTAL_LINES,
            headings_style=plain,
            text_align="LEFT",
        ) as table:
            row = table.row()
            for heading in _HEADINGS:
                row.cell(heading)
            for number, step in enumerate(face.steps, start=1):
                row = table.row()
                for cell in self._cells(number, step):
                    row.cell(plain_letters(cell))

    def _cells(self, number: int, step: StepFile) -> tuple[str, ...]:
        turning = turning_text(step, self._system)
        stay = f"; at most {figures(step.longest_stay_s)} s on one spot" if step.longest_stay_s is not None else ""
        pressure = "light" if step.pressure == "light" else "light to medium"
        wet = ", wet" if step.wet else ""
        rests = f" Put it down to cool {step.rests.count} times." if step.rests is not None else ""
        return (
            "[ ]",
            str(number),
            f"{step.label}, {pressure} pressure{wet}",
            f"{step.machine_label}: {turning}",
            minutes_range(step.minutes, step.minutes_high).removesuffix(" min"),
            f"{self._depth(step.takes_um)}, {self._depth(step.leaves_um)}",
            f"{step.check}{rests} Lay: {step.lay}{stay}.",
        )

    def _operations(self, title: str, operations: list[OperationFile]) -> None:
        if not operations:
            return
        self._heading(title)
        for one in operations:
            waiting = f", then {minutes_text(one.waiting_minutes)} of waiting" if one.waiting_minutes else ""
            soon = f", within {minutes_text(one.within_minutes)}" if one.within_minutes else ""
            cautions = "".join(f" {caution}" for caution in one.cautions)
            self._line(f"[ ] {one.label} ({minutes_text(one.minutes)}{waiting}{soon}). {one.text}{cautions}")

    def _heading(self, text: str) -> None:
        self.ln(self._size * 0.12)
        self._line(text, bold=True, larger=1.1)

    def _line(self, text: str, *, bold: bool = False, larger: float = 1.0) -> None:
        self.set_font("Helvetica", style="B" if bold else "", size=self._size * larger)
        self.multi_cell(0, self._size * larger * 0.46, plain_letters(text), align="L", new_x=XPos.LMARGIN, new_y=YPos.NEXT)
        self.set_font("Helvetica", size=self._size)

    def _depth(self, um: float | None) -> str:
        return "-" if um is None else measured(Measure(to_si(um, "um"), "depth"), self._system)
