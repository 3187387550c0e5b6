"""A quote in files: prices for numbers of pieces, what drives them, what a simpler finish would cost."""

from collections.abc import Sequence
from datetime import date
from typing import Literal

from pydantic import BaseModel

from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.price.quote import Price, Rates, SimplerPrice, drives, with_a_sample
from kelbrast.core.units import from_si
from kelbrast.documents.common.csv_text import csv_text

DriveName = Literal["work", "setting-up", "around", "abrasives", "going-back", "margin"]


class PriceFile(BaseModel):
    """The price of so many pieces. Minutes of a person, likely and as nine of ten stay below; money in the shop's currency."""

    pieces: int
    minutes: float
    minutes_high: float
    abrasives: float
    price: float
    price_each: float
    price_high: float


class DriveFile(BaseModel):
    """A part of the price of one piece, as a share of it."""

    name: DriveName
    share: float


class HumblerFile(BaseModel):
    """The price of one piece where every face that is more than this gets this finish."""

    finish: str
    label: str
    price_each: float


class OfferedFile(BaseModel):
    """A face and the finish that it gets."""

    face: str
    finish: str


class QuoteFile(BaseModel):
    """A quote. `material`, `offered` and `promised` (a date, or nothing): what the customer gets for the price.

    `sample_minutes_high`: what the high minutes of the first number of pieces would be once one piece was done.

    `looser_each`: one piece if twice as much metal might come off where that is limited; null where it is not less.
    `bias`: what the runs behind the last quotes took against those, in these minutes already.
    """

    title: str
    customer: str
    material: str = ""
    offered: list[OfferedFile] = []
    promised: str = ""
    currency: str
    hour: float
    margin: float
    bias: float
    prices: list[PriceFile]
    drives: list[DriveFile]
    humbler: list[HumblerFile]
    sample_minutes_high: float
    looser_each: float | None = None


def to_quote_file(
    plan: Plan,
    prices: Sequence[Price],
    simpler: Sequence[SimplerPrice],
    rates: Rates,
    *,
    looser: float | None = None,
    currency: str,
    customer: str,
    offered: Sequence[tuple[str, str]] = (),
    promised: date | None = None,
) -> QuoteFile:
    """The quote in the units of the files."""
    first = prices[0]
    return QuoteFile(
        title=plan.job.title,
        customer=customer,
        material=plan.job.material.label,
        offered=[OfferedFile(face=face, finish=finish) for face, finish in offered],
        promised=promised.isoformat() if promised is not None else "",
        currency=currency,
        hour=rates.hour,
        margin=rates.margin,
        bias=rates.bias,
        prices=[_price(price) for price in prices],
        drives=[
            DriveFile.model_validate({"name": name, "share": round(share, 4)}) for name, share in drives(first, rates).items()
        ],
        humbler=[
            HumblerFile(finish=simpler_price.finish.id, label=simpler_price.finish.label, price_each=_money(simpler_price.each))
            for simpler_price in simpler
        ],
        looser_each=None if looser is None else _money(looser),
        sample_minutes_high=round(from_si(with_a_sample(first, plan), "min"), 2),
    )


def _price(price: Price) -> PriceFile:
    return PriceFile(
        pieces=price.pieces,
        minutes=round(from_si(price.seconds, "min"), 2),
        minutes_high=round(from_si(price.seconds_high, "min"), 2),
        abrasives=_money(price.abrasives),
        price=_money(price.price),
        price_each=_money(price.each),
        price_high=_money(price.high),
    )


def _money(value: float) -> float:
    return round(value, 2)


def quote_text(quote: QuoteFile) -> str:
    """To be read at a terminal."""
    unit = f" {quote.currency}" if quote.currency else ""
    lines = [quote.title + (f", for {quote.customer}" if quote.customer else "")]
    for price in quote.prices:
        minutes = f"{price.minutes:.0f} to {price.minutes_high:.0f} min"
        money = f"{price.price:.2f}{unit}, {price.price_each:.2f} each, nine of ten below {price.price_high:.2f}"
        lines.append(f"{price.pieces:4d} pieces: {money} ({minutes})")
    lines.append("Made of: " + ", ".join(f"{drive.name} {100 * drive.share:.0f} %" for drive in quote.drives))
    for simpler in quote.humbler:
        lines.append(f"  as {simpler.label.lower()}: {simpler.price_each:.2f}{unit} each")
    return "\n".join(lines)


def quotes_csv(quotes: Sequence[QuoteFile]) -> str:
    """One row a number of pieces."""
    figures = ("pieces", "minutes", "minutes_high", "abrasives", "price", "price_each", "price_high")
    columns = ("title", "customer", *figures, "currency")
    rows = [
        (quote.title, quote.customer, *(getattr(price, name) for name in figures), quote.currency)
        for quote in quotes
        for price in quote.prices
    ]
    return csv_text(columns, rows)
