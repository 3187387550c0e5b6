"""A quote in files: prices for numbers of pieces, what drives them, what a simpler finish would cost."""

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Annotated, Final, Literal

from pydantic import AliasChoices, BaseModel, BeforeValidator, Field

from kelbrast.core.planning.whole.account import LINES
from kelbrast.core.planning.whole.plan import Plan
from kelbrast.core.price.quote import Price, Rates, SimplerPrice, drives, with_a_sample
from kelbrast.core.wording import minutes_range
from kelbrast.documents.common.csv_text import csv_text
from kelbrast.documents.common.fields import shop
from kelbrast.documents.quote.customer import CustomerPage

DriveName = Literal["cutting", "handling", "set_up", "before_after", "abrasives", "going-back", "margin"]
DRIVES: Final[Mapping[DriveName, str]] = {
    "cutting": LINES["cutting"],
    "handling": LINES["handling"],
    "set_up": LINES["set_up"],
    "before_after": LINES["before_after"],
    "abrasives": "Abrasives",
    "going-back": "Light checks that fail",
    "margin": "Margin",
}
_OLDER: Final = {"work": "cutting", "setting-up": "set_up", "around": "before_after"}  # as quotes had it before the account


class PriceFile(BaseModel):
    """The price of so many pieces. Hands-on minutes, likely and as nine of ten stay below; money in the shop's currency.

    `minutes` and `minutes_high` are the same again, as they were called before the account.
    """

    pieces: int
    hands_on_minutes: Annotated[float, Field(validation_alias=AliasChoices("hands_on_minutes", "minutes"))]
    hands_on_minutes_high: Annotated[float, Field(validation_alias=AliasChoices("hands_on_minutes_high", "minutes_high"))]
    abrasives: float
    price: float
    price_each: float
    price_high: float
    minutes: float
    minutes_high: float


class DriveFile(BaseModel):
    """A part of the price of one piece, as a share of it."""

    name: Annotated[DriveName, BeforeValidator(lambda name: _OLDER.get(name, name))]
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
    """A quote. `basis`: the number of pieces that `drives`, `humbler` and `looser_each` are for: the job's own where its price
    is among `prices`, else the first; null in older quotes, which had the first.

    `material`, `offered` and `promised` (a date, or nothing): what the customer gets for the price.

    `sample_minutes_high`: what the high minutes of the first number of pieces would be once one piece was done.

    `looser_each`: one piece if twice as much metal might come off where that is limited; null where it is not less.

    `page`: what the customer gets; null where it was not asked for, and in quotes of older versions.
    """

    title: str
    customer: str
    material: str = ""
    offered: list[OfferedFile] = []
    promised: str = ""
    currency: str
    hour: float
    margin: float
    prices: list[PriceFile]
    drives: list[DriveFile]
    humbler: list[HumblerFile]
    basis: int | None = None
    sample_minutes_high: float
    looser_each: float | None = None
    page: CustomerPage | None = None


def to_quote_file(
    plan: Plan,
    prices: Sequence[Price],
    simpler: Sequence[SimplerPrice],
    rates: Rates,
    *,
    basis: Price,
    looser: float | None = None,
    currency: str,
    customer: str,
    offered: Sequence[tuple[str, str]] = (),
    promised: date | None = None,
    page: CustomerPage | None = None,
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
        prices=[_price(price) for price in prices],
        drives=[
            DriveFile.model_validate({"name": name, "share": round(share, 4)}) for name, share in drives(basis, rates).items()
        ],
        humbler=[
            HumblerFile(finish=simpler_price.finish.id, label=simpler_price.finish.label, price_each=_money(simpler_price.each))
            for simpler_price in simpler
        ],
        basis=basis.pieces,
        looser_each=None if looser is None else _money(looser),
        sample_minutes_high=shop(with_a_sample(first, plan), "min"),
        page=page,
    )


def _price(price: Price) -> PriceFile:
    return PriceFile(
        pieces=price.pieces,
        hands_on_minutes=shop(price.times.hands_on, "min"),
        hands_on_minutes_high=shop(price.high, "min"),
        abrasives=_money(price.abrasives),
        price=_money(price.price),
        price_each=_money(price.each),
        price_high=_money(price.price_high),
        minutes=shop(price.times.hands_on, "min"),
        minutes_high=shop(price.high, "min"),
    )


def _money(value: float) -> float:
    return round(value, 2)


def quote_text(quote: QuoteFile) -> str:
    """To be read at a terminal."""
    unit = f" {quote.currency}" if quote.currency else ""
    lines = [quote.title + (f", for {quote.customer}" if quote.customer else "")]
    for price in quote.prices:
        minutes = f"hands-on {minutes_range(price.hands_on_minutes, price.hands_on_minutes_high)}"
        money = f"{price.price:.2f}{unit}, {price.price_each:.2f} each, allow up to {price.price_high:.2f}"
        lines.append(f"{price.pieces:4d} pieces: {money} ({minutes})")
    lines.append("Made of: " + ", ".join(f"{DRIVES[drive.name].lower()} {100 * drive.share:.0f} %" for drive in quote.drives))
    for simpler in quote.humbler:
        lines.append(f"  as {simpler.label.lower()}: {simpler.price_each:.2f}{unit} each")
    return "\n".join(lines)


def quotes_csv(quotes: Sequence[QuoteFile]) -> str:
    """One row a number of pieces."""
    figures = ("pieces", "hands_on_minutes", "hands_on_minutes_high", "abrasives", "price", "price_each", "price_high")
    columns = ("title", "customer", *figures, "currency")
    rows = [
        (quote.title, quote.customer, *(getattr(price, name) for name in figures), quote.currency)
        for quote in quotes
        for price in quote.prices
    ]
    return csv_text(columns, rows)
