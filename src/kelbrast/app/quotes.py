"""Quotes: worked out, kept with the job, and held against what runs then took."""

from base64 import b64decode, b64encode
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from hashlib import sha256
from typing import Final

from sqlalchemy.orm import Session

from kelbrast.app.job_list import finish_label
from kelbrast.app.jobs import Jobs
from kelbrast.app.photos import encoded_anew
from kelbrast.app.planning import job_of
from kelbrast.app.rack import Shelf
from kelbrast.app.readable import Unreadable, readable
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.price.quote import Rates, price_of, simpler_prices, with_looser_limits
from kelbrast.core.wording import System, tell
from kelbrast.documents.day.format import LetterheadFile
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.plan.write import to_plan_file
from kelbrast.documents.quote.customer import customer_page
from kelbrast.documents.quote.format import QuoteFile, to_quote_file
from kelbrast.storage import quotes as store
from kelbrast.storage.sessions import reading, writing
from kelbrast.storage.shop import get_setting, put_setting

USUAL_PIECES = (1, 5, 20, 100)
_NUMBER: Final = "quotes"
_LOGO: Final = "logo"
_LOGO_PIXELS: Final = 600


@dataclass(frozen=True, slots=True)
class Letterhead:
    """What a page for a customer is made with: the shop's own lines, the day, and the units of the reader."""

    lines: LetterheadFile
    day: date
    system: System = "metric"
    logo: bool = False


def quote_file(
    file: JobFile,
    shelf: Shelf | None = None,
    *,
    rates: Rates,
    pieces: Sequence[int] | None = None,
    currency: str = "",
    letterhead: Letterhead | None = None,
) -> QuoteFile:
    """The price of a job for these numbers of pieces; of the usual ones and the job's own where none are named. With a
    letterhead the customer's page is made too, and the job's own number is always on it.

    Raises:
        BadInput: the job has no plan that could be followed, or a number of pieces is none.
    """
    pieces = sorted({*USUAL_PIECES, file.pieces}) if pieces is None else pieces
    if not pieces or any(not 1 <= piece <= 100_000 for piece in pieces):
        raise BadInput.one("pieces", "must be one or more numbers from 1 to 100000")
    job = job_of(file, shelf)
    plan = plan_job(job)
    if not plan.possible:
        raise BadInput.one("job", "this job has no plan that could be followed, and so no price")
    try:
        prices = [price_of(plan, rates, pieces=count) for count in dict.fromkeys(pieces)]
    except OutsideValidity as problem:
        raise BadInput.one("rates", str(problem)) from None
    page = None
    if letterhead is not None:
        ordered = {price.pieces: price for price in (price_of(plan, rates, pieces=file.pieces), *prices)}
        page = customer_page(
            file,
            to_plan_file(plan),
            [price for _, price in sorted(ordered.items())],
            material=plan.job.material.label,
            shop=letterhead.lines,
            currency=currency,
            day=letterhead.day,
            system=letterhead.system,
            logo=letterhead.logo,
        )
    basis = next((price for price in prices if price.pieces == file.pieces), prices[0])
    simpler = simpler_prices(job, plan, rates, pieces=basis.pieces)
    looser = with_looser_limits(job, plan, rates, pieces=basis.pieces)
    promised = file.due.date() if file.due is not None else None
    return to_quote_file(
        plan,
        prices,
        simpler,
        rates,
        basis=basis,
        looser=looser,
        currency=currency,
        customer=file.customer,
        offered=[(face.name, tell(finish_label(face))) for face in file.faces if not face.keep_off and not face.edge],
        promised=promised,
        page=page,
    )


@dataclass(frozen=True, slots=True)
class KeptQuote:
    """A quote as it was told, and what the first run after it took against it; None before there is one."""

    id: int
    job_id: int
    at: datetime
    quote: QuoteFile
    actual: float | None


class Quotes:
    """The quotes of one database. Every method is one transaction."""

    def __init__(self, jobs: Jobs) -> None:
        self._jobs = jobs
        self._engine = jobs.engine

    def all(self) -> list[KeptQuote]:
        """Every quote that was kept, the newest first."""
        return self._read()[0]

    def unreadable(self) -> list[Unreadable]:
        """Quotes that this version cannot read."""
        return self._read()[1]

    def of(self, job_id: int) -> list[KeptQuote]:
        """Every quote of a job, the newest first.

        Raises:
            NotFound: no such job.
        """
        self._jobs.get(job_id)
        return self._read(job_id)[0]

    def _read(self, job_id: int | None = None) -> tuple[list[KeptQuote], list[Unreadable]]:
        with reading(self._engine) as session:
            return readable(store.all_quotes(session, job_id), _kept, lambda stored_quote: (stored_quote.id, ""))

    def get(self, quote_id: int) -> KeptQuote:
        """One quote.

        Raises:
            NotFound: no such quote.
        """
        with reading(self._engine) as session:
            return _kept(store.get_quote(session, quote_id))

    def keep(self, job_id: int, quote: QuoteFile) -> KeptQuote:
        """Keep a quote with its job. Its page gets the next number, which no other quote had or will have.

        Raises:
            NotFound: no such job.
        """
        self._jobs.get(job_id)
        with writing(self._engine) as session:
            if quote.page is not None:
                number = int(get_setting(session, _NUMBER).get("last", 0)) + 1
                put_setting(session, _NUMBER, {"last": number})
                logo = _logo_id(session) if quote.page.logo else ""
                named = {"number": f"{quote.page.shop.prefix}{number:04d}", "logo_id": logo}
                page = quote.page.model_copy(update=named)
                quote = quote.model_copy(update={"page": page})
            return _kept(store.add_quote(session, job_id, quote.model_dump(mode="json")))

    def logo(self, logo_id: str = "") -> bytes | None:
        """The picture at the head of a page, a JPEG: the present one, or that of a saved quote; None where there is none."""
        with reading(self._engine) as session:
            kept = get_setting(session, f"{_LOGO}.{logo_id or _logo_id(session)}").get("jpeg")
        return b64decode(kept) if kept else None

    def change_logo(self, data: bytes | None) -> None:
        """Keep the picture at the head of a page, no wider than a page needs; None takes it away.

        Raises:
            BadInput: it is not a picture that can be read, or too large.
        """
        clean = None if data is None else encoded_anew(data, largest=_LOGO_PIXELS)[0]
        with writing(self._engine) as session:
            if clean is None:
                put_setting(session, _LOGO, {})  # the picture itself stays for quotes that were sent with it
                return
            logo_id = sha256(clean).hexdigest()[:16]
            put_setting(session, f"{_LOGO}.{logo_id}", {"jpeg": b64encode(clean).decode()})
            put_setting(session, _LOGO, {"id": logo_id})


def _logo_id(session: Session) -> str:
    """What the present picture is known by; empty for none."""
    return str(get_setting(session, _LOGO).get("id", ""))


def _kept(stored_quote: store.StoredQuote) -> KeptQuote:
    return KeptQuote(
        stored_quote.id,
        stored_quote.job_id,
        stored_quote.at,
        QuoteFile.model_validate(dict(stored_quote.document)),
        _ratio(stored_quote),
    )


def _ratio(stored_quote: store.StoredQuote) -> float | None:
    """Hands-on time as it was against as it was planned, of the run that came after the quote."""
    return stored_quote.worked / stored_quote.planned if stored_quote.worked and stored_quote.planned else None
