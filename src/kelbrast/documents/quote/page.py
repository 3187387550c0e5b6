"""A quote as a page: one for the customer without inner figures, one for the shop with them."""

from datetime import date

from fpdf import FPDF
from fpdf.enums import XPos, YPos

from kelbrast.core.wording import minutes_text
from kelbrast.documents.common.fields import plain_letters
from kelbrast.documents.quote.format import DRIVES, QuoteFile


def quote_pdf(quote: QuoteFile, *, inner: bool, day: date) -> bytes:
    """The page (A4). `inner`: minutes, what the price is made of, what a simpler finish would cost."""
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
