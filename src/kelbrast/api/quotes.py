"""Prices: a job quoted by the shop's rates, and the quotes that were kept."""

from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Path, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import Field

from kelbrast.api.jobs import JobId
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import PICTURE_IN_BODY, AllJobs, ShopBoards, ShopQuotes, named
from kelbrast.app.clock import wall_clock
from kelbrast.app.quotes import KeptQuote, Letterhead, quote_file
from kelbrast.core.errors import NotFound
from kelbrast.core.price.quote import Rates
from kelbrast.documents.quote.format import QuoteFile, quotes_csv

router = APIRouter(prefix="/api", responses=RESPONSES)


Pieces = Annotated[
    list[Annotated[int, Field(ge=1, le=100_000)]] | None,
    Query(max_length=20, description="numbers of pieces; 1, 5, 20, 100 and the job's own"),
]


Inner = Annotated[bool, Query(description="the shop's page, with what it is made of")]
Inch = Annotated[bool, Query(description="sizes and depths in inches")]
_PDF: Final[dict[int | str, dict[str, Any]]] = {**NOT_FOUND, 200: {"content": {"application/pdf": {}}}}


def _quoted(
    job_id: JobId, jobs: AllJobs, boards: ShopBoards, quotes: ShopQuotes, pieces: Pieces = None, inch: Inch = False
) -> QuoteFile:
    shop, kept = boards.shop(), jobs.get(job_id).job
    return quote_file(
        kept,
        jobs.rack.shelf(),
        rates=Rates(shop.hour, shop.margin),
        pieces=pieces or None,
        currency=shop.currency,
        letterhead=Letterhead(
            shop.letterhead, wall_clock().date(), "inch" if inch else "metric", logo=quotes.logo() is not None
        ),
    )


Quoted = Annotated[QuoteFile, Depends(_quoted)]


@router.get("/jobs/{job_id}/quote", responses=NOT_FOUND)
def quote_job(quoted: Quoted) -> QuoteFile:
    """The price of a kept job, by the shop's rates."""
    return quoted


@router.get("/jobs/{job_id}/quotes", responses=NOT_FOUND)
def quotes_of_job(job_id: JobId, quotes: ShopQuotes) -> list[KeptQuote]:
    """Every quote that was kept with a job, the newest first."""
    return quotes.of(job_id)


@router.post("/jobs/{job_id}/quotes", status_code=201, responses=NOT_FOUND)
def keep_quote(job_id: JobId, quotes: ShopQuotes, quoted: Quoted) -> KeptQuote:
    """Keep the quote as it is now."""
    return quotes.keep(job_id, quoted)


@router.get("/jobs/{job_id}/quote.pdf", responses=_PDF)
def draft_as_pdf(
    quoted: Quoted,
    quotes: ShopQuotes,
    inner: Inner = False,
) -> Response:
    """The quote as it would be now, as a page: for the customer, or for the shop."""
    return _pdf(quoted, quotes, inner=inner)


@router.get("/quotes/{quote_id}.pdf", responses=_PDF)
def quote_as_pdf(
    quote_id: Annotated[int, Path(ge=1, le=2**53)],
    quotes: ShopQuotes,
    inner: Inner = False,
) -> Response:
    """A quote as it was saved."""
    return _pdf(quotes.get(quote_id).quote, quotes, inner=inner)


def _pdf(quote: QuoteFile, quotes: ShopQuotes, *, inner: bool) -> Response:
    # What makes PDFs is large, and only this needs it.
    from kelbrast.documents.quote.page import customer_pdf, inner_pdf

    if inner or quote.page is None:
        made = inner_pdf(quote, inner=inner, day=wall_clock().date())
    else:
        made = customer_pdf(quote.page, logo=quotes.logo(quote.page.logo_id) if quote.page.logo else None)
    number = quote.page.number if quote.page is not None else ""
    return Response(made, media_type="application/pdf", headers=named(number or "quote", "pdf", shown=True))


@router.get("/shop/logo", responses={**NOT_FOUND, 200: {"content": {"image/jpeg": {}}}})
def logo(quotes: ShopQuotes) -> Response:
    """The picture at the head of a page for a customer."""
    picture = quotes.logo()
    if picture is None:
        raise NotFound("picture", "logo")
    return Response(picture, media_type="image/jpeg", headers={"cache-control": "no-cache"})


@router.put("/shop/logo", status_code=204, openapi_extra=PICTURE_IN_BODY)
async def change_logo(request: Request, quotes: ShopQuotes) -> None:
    """Keep the picture at the head of a page for a customer."""
    data = await request.body()
    await run_in_threadpool(quotes.change_logo, data)


@router.delete("/shop/logo", status_code=204)
def remove_logo(quotes: ShopQuotes) -> None:
    """Take the picture away."""
    quotes.change_logo(None)


@router.get("/quotes.csv", responses={200: {"content": {"text/csv": {}}}})
def quotes_as_csv(quotes: ShopQuotes) -> Response:
    """Every quote that was kept."""
    text = quotes_csv([kept_quote.quote for kept_quote in quotes.all()])
    return Response(text, media_type="text/csv", headers={"content-disposition": 'attachment; filename="quotes.csv"'})
