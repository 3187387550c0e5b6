"""Prices: a job quoted by the shop's rates, and the quotes that were kept."""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Response
from pydantic import Field

from kelbrast.api.jobs import JobId
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllJobs, ShopBoards, ShopQuotes
from kelbrast.app.quotes import KeptQuote, quote_file
from kelbrast.core.price.quote import Rates
from kelbrast.documents.quote.format import QuoteFile, quotes_csv

router = APIRouter(prefix="/api", responses=RESPONSES)


Pieces = Annotated[
    list[Annotated[int, Field(ge=1, le=100_000)]] | None,
    Query(max_length=20, description="numbers of pieces; 1, 5, 20, 100 and the job's own"),
]


def _quoted(job_id: JobId, jobs: AllJobs, boards: ShopBoards, pieces: Pieces = None) -> QuoteFile:
    shop, kept = boards.shop(), jobs.get(job_id).job
    rates = Rates(shop.hour, shop.margin)
    return quote_file(kept, jobs.rack.shelf(), rates=rates, pieces=pieces or None, currency=shop.currency)


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


@router.get("/jobs/{job_id}/quote.pdf", responses={**NOT_FOUND, 200: {"content": {"application/pdf": {}}}})
def quote_as_pdf(
    quoted: Quoted, inner: Annotated[bool, Query(description="the shop's page, with what it is made of")] = False
) -> Response:
    """The quote as a page: for the customer, or for the shop."""
    from kelbrast.documents.quote.page import quote_pdf  # what makes PDFs is large, and only this needs it

    made = quote_pdf(quoted, inner=inner, day=date.today())
    return Response(made, media_type="application/pdf", headers={"content-disposition": 'attachment; filename="quote.pdf"'})


@router.get("/quotes.csv", responses={200: {"content": {"text/csv": {}}}})
def quotes_as_csv(quotes: ShopQuotes) -> Response:
    """Every quote that was kept."""
    text = quotes_csv([kept_quote.quote for kept_quote in quotes.all()])
    return Response(text, media_type="text/csv", headers={"content-disposition": 'attachment; filename="quotes.csv"'})
