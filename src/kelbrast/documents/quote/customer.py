"""The page of a quote that the customer gets: what comes in, what goes out, and what it costs. Nothing else is on it."""

from collections.abc import Sequence
from datetime import date, timedelta

from pydantic import BaseModel

from kelbrast.core.catalogue.damages import damages
from kelbrast.core.catalogue.finishes import band_said, finishes
from kelbrast.core.catalogue.tools import in_sentence
from kelbrast.core.price.quote import Price, total_of
from kelbrast.core.surface.edge import EDGES_WANTED
from kelbrast.core.surface.found import FOUND_KINDS, FoundKind
from kelbrast.core.surface.part import PROTECTIONS
from kelbrast.core.surface.shapes import SHAPES
from kelbrast.core.units import to_si
from kelbrast.core.wording import Measure, System, depth_of, measured, sentence, tell
from kelbrast.documents.day.format import LetterheadFile
from kelbrast.documents.job.format import DepthRange, FaceFile, FoundFile, JobFile, SpotsFile
from kelbrast.documents.plan.format import FacePlanFile, PlanFile


class ScopeLine(BaseModel):
    """A face or edge: how large it is, how it came in, and how it goes out."""

    face: str
    size: str
    received: str
    finish: str


class PriceLine(BaseModel):
    """The price of so many pieces. `ordered`: it is the number that was asked for."""

    pieces: int
    each: float
    total: float
    ordered: bool


class CustomerPage(BaseModel):
    """The page from top to bottom, in the reader's units. `number` is empty on a draft, `ready_by` where nothing is promised;
    `logo`: the shop's picture stands at its head; `logo_id`: of a saved page, which one.

    `tax` is null where the shop adds none. `net`, `tax_money` and `to_pay` are for the ordered number of pieces.
    """

    number: str = ""
    day: date
    valid_until: date
    ready_by: str = ""
    shop: LetterheadFile
    logo: bool = False
    logo_id: str = ""
    customer: str
    customer_address: str
    heading: str
    scope: list[ScopeLine]
    protection: str
    prices: list[PriceLine]
    currency: str
    net: float
    tax: float | None
    tax_money: float
    to_pay: float
    terms: list[str]


def customer_page(
    job: JobFile,
    plan: PlanFile,
    prices: Sequence[Price],
    *,
    material: str,
    shop: LetterheadFile,
    currency: str,
    day: date,
    system: System,
    logo: bool = False,
) -> CustomerPage:
    """The page of a job with a plan. `prices`: in the order in which they are told; the job's own number is among them."""
    ordered = next(price for price in prices if price.pieces == job.pieces)
    total = total_of(ordered.price, shop.tax or 0.0)
    what = job.title if job.pieces == 1 else f"{job.pieces} × {job.title}"
    return CustomerPage(
        day=day,
        valid_until=day + timedelta(days=shop.valid_days),
        ready_by="" if job.due is None else f"{job.due:%a} {job.due.day} {job.due:%B %Y}, {job.due:%H:%M}",
        shop=shop,
        logo=logo,
        customer=job.customer,
        customer_address=job.customer_address,
        heading=f"{what}, {in_sentence(material)}",
        scope=[_scope(face, system) for face in job.faces],
        protection=", ".join(one.label.lower() for one in plan.operations if one.id in PROTECTIONS),
        prices=[
            PriceLine(
                pieces=price.pieces,
                each=round(price.each, 2),
                total=round(price.price, 2),
                ordered=price.pieces == job.pieces,
            )
            for price in prices
        ],
        currency=currency,
        net=total.net,
        tax=shop.tax,
        tax_money=total.tax,
        to_pay=total.to_pay,
        terms=[*_limits(job, plan, system), *filter(None, (line.strip() for line in shop.terms.splitlines()))],
    )


def _scope(face: FaceFile, system: System) -> ScopeLine:
    if face.edge is not None:
        edge = face.edge
        finish = EDGES_WANTED[edge.wanted] + (f", {_length(edge.size_mm, system)}" if edge.size_mm is not None else "")
        return ScopeLine(face=face.name, size=f"{_length(edge.length_mm, system)} long", received="edge", finish=finish)
    if face.keep_off:
        return ScopeLine(face=face.name, size=_size(face, system), received="", finish="masked, not worked")
    return ScopeLine(face=face.name, size=_size(face, system), received=received(face, system), finish=_finish(face, system))


def received(face: FaceFile, system: System) -> str:
    """How a face came in, with what is deeper in some places: `scratches, up to 30 µm deep; 3 gouges, up to 60 µm deep`."""
    return "; ".join([_found(face.found, system), *(_spots(spots, system) for spots in face.spots)])


def _found(found: FoundFile, system: System) -> str:
    if found.as_wanted:
        return "as wanted already"
    kind = _kind(found.called, found.kind)
    return f"{kind}, as left by {found.after}" if found.after else f"{kind}, up to {_deepest(found.depth_um, system)} deep"


def _spots(spots: SpotsFile, system: System) -> str:
    many = f"{spots.count} × " if spots.count > 1 else ""
    deep = f"as left by {spots.after}" if spots.after else f"up to {_deepest(spots.depth_um, system)} deep"
    return f"{many}{spots.name.lower()}, {deep}"


def _kind(called: str | None, kind: FoundKind) -> str:
    damage = damages().get(called or "")
    label = damage.label if damage is not None else FOUND_KINDS[kind]
    return label.split(":")[0].split(",")[0].lower()


def _deepest(depth: "float | DepthRange | None", system: System) -> str:
    worst = depth.worst if isinstance(depth, DepthRange) else depth or 0.0
    return measured(depth_of(to_si(worst, "um")), system)


def _finish(face: FaceFile, system: System) -> str:
    if face.want.finish is None:
        low, high = (None if end is None else to_si(end, "um") for end in face.want.ra_um or (None, None))
        return tell(band_said(low, high), system)
    finish = finishes()[face.want.finish]
    finer = f", no finer than {face.want.no_finer_than}" if face.want.no_finer_than else ""
    purpose = tell(finish.purpose, system).rstrip(".")
    return f"{finish.label}{finer}: {in_sentence(purpose)}"


def _size(face: FaceFile, system: System) -> str:
    if face.shape is None:
        return "" if face.area_cm2 is None else measured(Measure(to_si(face.area_cm2, "cm2"), "area", 3), system)
    shape = SHAPES[face.shape.kind]
    sides = [measured(Measure(to_si(getattr(face.shape, f"{need}_mm"), "mm"), "length", 4), system) for need in shape.needs]
    unit = sides[-1].rpartition(" ")[2]
    return " × ".join(side.removesuffix(f" {unit}") for side in sides) + f" {unit}"


def _length(mm: float, system: System) -> str:
    return measured(Measure(to_si(mm, "mm"), "length", 3), system)


def _limits(job: JobFile, plan: PlanFile, system: System) -> list[str]:
    faces: dict[str, FacePlanFile] = {face.id: face for face in plan.faces}
    said = []
    for face in job.faces:
        if face.keep_off or face.edge is not None:
            continue
        if face.coat_um is not None and face.keep_um is not None:
            keep = depth_of(to_si(face.keep_um, "um"))
            said.append(sentence("quote.coat", keep=keep, face=face.name))
        elif (limit := faces[face.id].limit_um) is not None:
            said.append(sentence("quote.limit", may=depth_of(to_si(limit, "um")), face=face.name))
        said += [sentence("quote.stays", spots=left.spots, face=face.name) for left in faces[face.id].left]
    return [tell(one, system) for one in said]
