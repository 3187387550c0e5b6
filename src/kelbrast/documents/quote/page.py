"""A quote as a page: one that the shop sends to its customer, and one that only the shop sees."""

import io
from collections.abc import Sequence
from datetime import date
from typing import Final, Literal

from fpdf import FPDF, FontFace
from fpdf.enums import XPos, YPos

from kelbrast.core.wording import minutes_text
from kelbrast.documents.common.fields import plain_letters
from kelbrast.documents.quote.customer import CustomerPage
from kelbrast.documents.quote.format import DRIVES, QuoteFile

INK: Final = (33, 36, 41)
DIM: Final = (99, 95, 87)
_WIDE: Final = 170.0  # mm between the margins of an A4 page


class _Letter(FPDF):
    """A page with its number and the shop at the foot."""

    def __init__(self, foot: str) -> None:
        super().__init__(format="A4")
        self._foot = foot
        self.set_margin(20)
        self.set_auto_page_break(auto=True, margin=24)

    def footer(self) -> None:
        self.set_y(-16)
        self.set_font("Helvetica", "", 8)
        self.set_text_color(*DIM)
        self.cell(_WIDE / 2, 5, plain_letters(self._foot))
        self.cell(_WIDE / 2, 5, f"Page {self.page_no()} of {{nb}}", align="R")


def customer_pdf(page: CustomerPage, *, logo: bytes | None = None) -> bytes:
    """The customer's page (A4), and as many more as it needs."""
    shop = page.shop
    tax_number = f"{shop.tax_name} no. {shop.tax_number}" if shop.tax_number else ""
    pdf = _Letter(" · ".join(filter(None, (page.number or "Draft", shop.name, tax_number))))
    pdf.add_page()
    pdf.set_title(plain_letters(" ".join(filter(None, ("Quote", page.number)))))
    _head(pdf, page, logo)
    _columns(pdf, page)
    _text(pdf, page.heading, 12, bold=True)
    pdf.ln(1)
    _scope_table(pdf, page)
    pdf.ln(5)
    _price_table(pdf, page)
    if page.terms:
        pdf.ln(5)
        _text(pdf, "Terms", 10, bold=True)
        for line in page.terms:
            _text(pdf, line, 9)
    _signatures(pdf, page)
    return bytes(pdf.output())


def _head(pdf: FPDF, page: CustomerPage, logo: bytes | None) -> None:
    top, shop = pdf.get_y(), page.shop
    if logo is not None:
        pdf.image(io.BytesIO(logo), x=20, y=top, h=14, keep_aspect_ratio=True)
        pdf.set_y(top + 17)
    _text(pdf, shop.name, 14, bold=True, width=110)
    for line in (*shop.address.splitlines(), shop.contact):
        if line:
            _text(pdf, line, 9, colour=DIM, width=110)
    below = pdf.get_y()
    pdf.set_xy(130, top)
    pdf.set_font("Helvetica", "B", 20)
    pdf.set_text_color(*INK)
    pdf.cell(60, 9, "Quote" if page.number else "Quote (draft)", align="R")
    pdf.set_y(max(below, top + 12) + 8)


def _columns(pdf: FPDF, page: CustomerPage) -> None:
    """The customer on the left, what dates and numbers there are on the right."""
    top = pdf.get_y()
    _text(pdf, "For", 9, colour=DIM, width=80)
    _text(pdf, page.customer or "-", 11, bold=True, width=80)
    for line in page.customer_address.splitlines():
        _text(pdf, line, 10, width=80)
    left = pdf.get_y()
    facts = [
        ("Number", page.number or "draft"),
        ("Date", _day(page.day)),
        ("Valid until", _day(page.valid_until)),
        ("Ready by", page.ready_by),
    ]
    pdf.set_y(top)
    for label, value in facts:
        if value:
            pdf.set_x(110)
            pdf.set_font("Helvetica", "", 9)
            pdf.set_text_color(*DIM)
            pdf.cell(22, 6, label)
            pdf.set_font("Helvetica", "B", 9)
            pdf.set_text_color(*INK)
            pdf.cell(58, 6, plain_letters(value), align="R", new_x=XPos.LMARGIN, new_y=YPos.NEXT)
    pdf.set_y(max(left, pdf.get_y()) + 8)


def _scope_table(pdf: FPDF, page: CustomerPage) -> None:
    rows = [(line.face + (f"\n{line.size}" if line.size else ""), line.received, line.finish) for line in page.scope]
    if page.protection:
        rows.append(("Protection", "", page.protection))
    _table(pdf, ("Face", "As received", "Finish"), rows, (46, 48, 76), align=("LEFT", "LEFT", "LEFT"))


def _price_table(pdf: FPDF, page: CustomerPage) -> None:
    rows = [
        (
            ("1 piece" if price.pieces == 1 else f"{price.pieces} pieces") + (" (as ordered)" if price.ordered else ""),
            _money(price.each, page),
            _money(price.total, page),
        )
        for price in page.prices
    ]
    _table(pdf, ("Price", "Each", "Total"), rows, (80, 45, 45), align=("LEFT", "RIGHT", "RIGHT"))
    pdf.ln(2)
    ordered = next(price.pieces for price in page.prices if price.ordered)
    sums = [(f"{ordered} piece{'s' if ordered != 1 else ''}", page.net)]
    if page.tax is not None:
        sums += [(f"{page.shop.tax_name} {100 * page.tax:g} %", page.tax_money)]
    for label, value in sums:
        _sum(pdf, label, _money(value, page))
    _sum(pdf, "To pay", _money(page.to_pay, page), bold=True)


def _table(
    pdf: FPDF,
    heads: tuple[str, ...],
    rows: Sequence[tuple[str, ...]],
    widths: tuple[int, ...],
    *,
    align: tuple[Literal["LEFT", "RIGHT"], ...],
) -> None:
    pdf.set_font("Helvetica", "", 10)
    pdf.set_text_color(*INK)
    pdf.set_draw_color(217, 212, 202)
    with pdf.table(
        borders_layout="HORIZONTAL_LINES",
        col_widths=widths,
        text_align=align,
        headings_style=FontFace(emphasis=None, color=DIM, size_pt=9),
        line_height=5.2,
        padding=(1.2, 1),
    ) as table:
        for row in (heads, *rows):
            line = table.row()
            for text in row:
                line.cell(plain_letters(text))


def _sum(pdf: FPDF, label: str, value: str, *, bold: bool = False) -> None:
    pdf.set_x(100)
    pdf.set_font("Helvetica", "B" if bold else "", 11 if bold else 10)
    pdf.set_text_color(*INK)
    pdf.cell(45, 6.5, plain_letters(label), border="T" if bold else 0)
    pdf.cell(45, 6.5, plain_letters(value), border="T" if bold else 0, align="R", new_x=XPos.LMARGIN, new_y=YPos.NEXT)


def _signatures(pdf: FPDF, page: CustomerPage) -> None:
    if pdf.get_y() > 250:
        pdf.add_page()
    pdf.set_y(max(pdf.get_y() + 16, 250))
    pdf.set_font("Helvetica", "", 9)
    pdf.set_text_color(*DIM)
    pdf.cell(80, 6, plain_letters(", ".join(filter(None, ("Date and signature", page.shop.name)))), border="T")
    pdf.cell(10, 6, "")
    pdf.cell(80, 6, "Accepted: date and signature", border="T")


def _money(value: float, page: CustomerPage) -> str:
    return f"{value:,.2f} {page.currency}".strip().replace(",", " ")


def _day(day: date) -> str:
    return f"{day.day} {day:%B %Y}"


def _text(
    pdf: FPDF,
    text: str,
    size: float,
    *,
    bold: bool = False,
    colour: tuple[int, int, int] = INK,
    width: float = 0,
) -> None:
    pdf.set_font("Helvetica", "B" if bold else "", size)
    pdf.set_text_color(*colour)
    pdf.multi_cell(width, size * 0.52, plain_letters(text), new_x=XPos.LMARGIN, new_y=YPos.NEXT)


def inner_pdf(quote: QuoteFile, *, inner: bool, day: date) -> bytes:
    """The shop's page (A4). `inner`: minutes, what the price is made of, what a simpler finish would cost.

    Without it: what can be told a customer of a quote of an older version, which has no page for them.
    """
    pdf = FPDF(format="A4")
    pdf.set_margin(20)
    pdf.add_page()
    pdf.set_title(plain_letters(f"Quote, {quote.title}"))
    _line(pdf, "Quote" + (", for the shop alone" if inner else ""), 20, bold=True)
    _line(pdf, quote.title, 14, bold=True)
    if quote.customer:
        _line(pdf, f"For {quote.customer}", 12)
    _line(pdf, day.isoformat(), 11)
    pdf.ln(4)
    _line(pdf, quote.material, 11)
    for face in quote.offered:
        _row(pdf, [face.face, face.finish], (70, 70), left=2)
    pdf.ln(4)
    if quote.promised:
        _line(pdf, f"Promised for {quote.promised}", 11)
        pdf.ln(4)
    heads = ["Pieces", "Price", "Each"] + (["Price up to", "Hands-on", "Allow up to"] if inner else [])
    widths = (25, 35, 35) + ((40, 22, 22) if inner else ())
    _row(pdf, heads, widths, bold=True)
    for price in quote.prices:
        money = [f"{value:.2f} {quote.currency}".strip() for value in (price.price, price.price_each)]
        more = (
            [f"{price.price_high:.2f}", minutes_text(price.hands_on_minutes), minutes_text(price.hands_on_minutes_high)]
            if inner
            else []
        )
        _row(pdf, [str(price.pieces), *money, *more], widths)
    if inner:
        pdf.ln(6)
        _line(pdf, f"{quote.hour:.2f} {quote.currency} an hour, {100 * quote.margin:.0f} % margin", 11)
        for drive in quote.drives:
            _row(pdf, [DRIVES[drive.name], f"{100 * drive.share:.0f} %"], (70, 25))
        if quote.humbler:
            pdf.ln(4)
            _line(pdf, "Each, with a simpler finish", 11, bold=True)
        for simpler in quote.humbler:
            _row(pdf, [simpler.label, f"{simpler.price_each:.2f} {quote.currency}".strip()], (70, 35))
    return bytes(pdf.output())


def _line(pdf: FPDF, text: str, size: float, *, bold: bool = False) -> None:
    pdf.set_font("Helvetica", "B" if bold else "", size)
    pdf.multi_cell(0, size * 0.55, plain_letters(text), new_x=XPos.LMARGIN, new_y=YPos.NEXT)


def _row(pdf: FPDF, cells: list[str], widths: tuple[int, ...], *, bold: bool = False, left: int = 1) -> None:
    """Words stand left, figures right."""
    pdf.set_font("Helvetica", "B" if bold else "", 11)
    for at, (text, width) in enumerate(zip(cells, widths, strict=True)):
        pdf.cell(width, 8, plain_letters(text), border="B", align="L" if at < left else "R")
    pdf.ln(8)
