"""The job card as a PDF: one page to print, take to the bench and tick. What stands on it is `card_file`'s."""

from contextlib import suppress
from typing import Final

from fpdf import FPDF, FontFace
from fpdf.enums import TableBordersLayout, XPos, YPos

from kelbrast.documents.common.fields import plain_letters
from kelbrast.documents.plan.card import CardFace, CardFile, CardOperation

_SIZES: Final = (9.0, 8.0, 7.0, 6.0)  # points; the first that fits on a page is taken
_WIDTHS: Final = (7, 49, 36, 10, 22, 66)
_HEADINGS: Final = ("", "Tool", "Speed", "Min", "Takes, leaves", "Until")


def job_card(card: CardFile) -> bytes:
    """The card as a PDF (A4). A job that is too long for one page at six points runs on to the next."""
    for size in _SIZES:
        page = _Page(size, pages=None if size == _SIZES[-1] else 1)
        with suppress(_TooLong):
            page.draw(card)
            break
    return bytes(page.output())


class _TooLong(Exception):
    """It does not fit on its page: a long job is not drawn to its end at every size."""


class _Page(FPDF):
    def __init__(self, size: float, *, pages: int | None) -> None:
        super().__init__(format="A4")
        self._pages = pages
        self._size: float = size
        self.set_margin(10)
        self.set_auto_page_break(True, margin=10)
        self.add_page()
        self.set_font("Helvetica", size=size)

    def header(self) -> None:
        """Called by the library at the top of each page."""
        if self._pages is not None and self.page_no() > self._pages:
            raise _TooLong

    def draw(self, card: CardFile) -> None:
        self.set_title(plain_letters(card.title))
        self._line(card.title, bold=True, larger=1.7)
        self._line(card.summary)
        if card.blocked:
            self._line(card.blocked, bold=True)
        if card.lay_out:
            self._line(f"Lay out: {card.lay_out}.")
        if card.order:
            self._line(f"Order of work: {card.order}.")
        self._operations("Before", card.before)
        for face in card.faces:
            self._face(face)
        self._operations("Between", card.between)
        self._operations("After", card.after)
        self._heading("Beware")
        self._line(card.beware)
        self._line("Done by ____________________   Date ______________   Time it really took ______________", larger=1.1)

    def _face(self, face: CardFace) -> None:
        self._heading(face.heading)
        if not face.steps:
            return
        with self.table(
            col_widths=_WIDTHS,
            line_height=self._size * 0.46,
            borders_layout=TableBordersLayout.HORIZONTAL_LINES,
            headings_style=FontFace(emphasis="BOLD"),
            text_align="LEFT",
        ) as table:
            row = table.row()
            for heading in _HEADINGS:
                row.cell(heading)
            for step in face.steps:
                row = table.row()
                for cell in ("[ ]", step.tool, step.speed, step.minutes, f"{step.takes}, {step.leaves}", step.until):
                    row.cell(plain_letters(cell))

    def _operations(self, title: str, operations: list[CardOperation]) -> None:
        if not operations:
            return
        self._heading(title)
        for operation in operations:
            self._line(" ".join([f"[ ] {operation.label}. {operation.text}", *operation.cautions]))

    def _heading(self, text: str) -> None:
        self.ln(self._size * 0.12)
        self._line(text, bold=True, larger=1.1)

    def _line(self, text: str, *, bold: bool = False, larger: float = 1.0) -> None:
        self.set_font("Helvetica", style="B" if bold else "", size=self._size * larger)
        self.multi_cell(0, self._size * larger * 0.46, plain_letters(text), align="L", new_x=XPos.LMARGIN, new_y=YPos.NEXT)
        self.set_font("Helvetica", size=self._size)
