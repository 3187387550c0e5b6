"""The rack: list, add, change, history, import and export, labels, what to buy, set-ups."""

from typing import Annotated

from fastapi import APIRouter, Depends, Path, Query, Request, Response

from kelbrast.api.jobs import OneOfIds
from kelbrast.api.problems import CHANGED_ELSEWHERE, NOT_FOUND, RESPONSES
from kelbrast.api.rack_schemas import (
    ChangeOut,
    EventsIn,
    ItemOut,
    ItemsIn,
    PreparationOut,
    RackPageOut,
    RackText,
    SearchOut,
    Stockable,
    change_out,
    item_out,
    page_out,
    preparation_out,
    search_out,
    thing,
    things,
)
from kelbrast.api.requests import AllJobs, OwnRack, Revision
from kelbrast.app.buying import Buying
from kelbrast.app.from_rack import preparation
from kelbrast.app.planning import job_of
from kelbrast.app.rack import ItemsWanted
from kelbrast.core.job import OPEN_STATES
from kelbrast.core.planning.questions.buying import Gain
from kelbrast.core.wording import System
from kelbrast.documents.rack.csv import low_stock_csv, rack_to_csv
from kelbrast.documents.rack.format import MOST_ITEMS, ItemFile, RackFile
from kelbrast.documents.rack.labels import Label, label_of, labels_pdf, labels_svg

router = APIRouter(prefix="/api", responses=RESPONSES)

ItemId = Annotated[int, Path(ge=1, le=2**53, description="id of the item")]
SearchId = Annotated[int, Path(ge=1, le=2**53, description="id of the search")]
Ids = Annotated[
    list[OneOfIds] | None,
    Query(max_length=MOST_ITEMS, description="ids of the items; all that are not retired when none is named"),
]


async def _buying(request: Request) -> Buying:
    buying: Buying = request.app.state.buying
    return buying


Searches = Annotated[Buying, Depends(_buying)]


@router.get("/rack")
def list_rack(rack: OwnRack) -> list[ItemOut]:
    """Everything on the rack, retired things too."""
    return [item_out(kept) for kept in rack.items()]


@router.get("/rack/page")
def page_of_rack(
    rack: OwnRack,
    words: Annotated[str, Query(max_length=200, description="each of them is found in its name or note")] = "",
    carrier: Annotated[str, Query(max_length=80)] = "",
    family: Annotated[str, Query(max_length=80, description="only what may be used on it")] = "",
    retired: Annotated[bool, Query(description="retired things too")] = False,
    offset: Annotated[int, Query(ge=0, le=2**53)] = 0,
    limit: Annotated[int, Query(ge=1, le=500)] = 200,
) -> RackPageOut:
    """Some of the rack in the order in which it stands there: by kind, coarse to fine."""
    return page_out(rack.page(ItemsWanted(words, carrier, family, retired), offset=offset, limit=limit))


@router.get("/rack/things")
def list_things() -> list[Stockable]:
    """Everything of the catalogue that can be put on a rack."""
    return things()


@router.post("/rack", status_code=201)
def add_items(given: ItemsIn, rack: OwnRack) -> list[ItemOut]:
    """Put things on the rack, all or none."""
    return [item_out(kept) for kept in rack.add(given.items)]


@router.put("/rack/{item_id}", responses={**NOT_FOUND, **CHANGED_ELSEWHERE})
def change_item(item_id: ItemId, revision: Revision, item: ItemFile, rack: OwnRack) -> ItemOut:
    """Say something else of an item that nobody else changed in the meantime; its history stays."""
    return item_out(rack.change(item_id, item, revision=revision))


@router.post("/rack/{item_id}/history", responses=NOT_FOUND)
def add_history(item_id: ItemId, given: EventsIn, rack: OwnRack) -> ItemOut:
    """Append what happened to an item: used, downgraded, retired, measured, stock."""
    return item_out(rack.note(item_id, given.events))


@router.delete("/rack/{item_id}", status_code=204, responses=NOT_FOUND)
def delete_item(item_id: ItemId, rack: OwnRack) -> None:
    """Forget an item that was put on the rack by mistake."""
    rack.remove(item_id)


@router.get("/rack/file.json", responses={200: {"content": {"application/json": {}}}})
def rack_as_file(rack: OwnRack) -> Response:
    """The rack as a rack/1 file, with its whole history."""
    text = RackFile(items=[kept.file for kept in rack.items()]).model_dump_json(indent=2, exclude_defaults=False)
    return Response(text + "\n", media_type="application/json", headers=_named("rack.json"))


@router.get("/rack/file.csv", responses={200: {"content": {"text/csv": {}}}})
def rack_as_csv(rack: OwnRack) -> Response:
    """The rack as it stands, for a spreadsheet."""
    return Response(rack_to_csv([kept.file for kept in rack.items()]), media_type="text/csv", headers=_named("rack.csv"))


@router.get("/rack/low.csv", responses={200: {"content": {"text/csv": {}}}})
def low_stock(rack: OwnRack) -> Response:
    """What to buy more of."""
    return Response(low_stock_csv([kept.file for kept in rack.items()]), media_type="text/csv", headers=_named("low-stock.csv"))


@router.post("/rack/preview")
def preview_import(given: RackText, rack: OwnRack) -> list[ChangeOut]:
    """What importing a rack file, JSON or CSV, would do; nothing is changed."""
    return [change_out(import_change) for import_change in rack.preview(given.text)]


@router.post("/rack/import")
def import_rack(given: RackText, rack: OwnRack) -> list[ChangeOut]:
    """Import a rack file, all of it or nothing."""
    return [change_out(import_change) for import_change in rack.take_in(given.text)]


@router.get("/rack/labels.svg", responses={200: {"content": {"image/svg+xml": {}}}})
def labels_as_svg(request: Request, rack: OwnRack, item: Ids = None, inch: bool = False) -> Response:
    """Labels to print, as one SVG."""
    return Response(labels_svg(_labels(request, rack, item, inch)), media_type="image/svg+xml", headers=_named("labels.svg"))


@router.get("/rack/labels.pdf", responses={200: {"content": {"application/pdf": {}}}})
def labels_as_pdf(request: Request, rack: OwnRack, item: Ids = None, inch: bool = False) -> Response:
    """Labels to print, as sheets of A4."""
    return Response(labels_pdf(_labels(request, rack, item, inch)), media_type="application/pdf", headers=_named("labels.pdf"))


@router.get("/setups")
def set_ups(
    jobs: AllJobs, job: Annotated[list[OneOfIds] | None, Query(max_length=200, description="ids of the jobs")] = None
) -> PreparationOut:
    """What to gather for these jobs together, and which wheel goes on which spindle in which order."""
    return preparation_out(preparation(jobs, job or []))


@router.post("/buying", status_code=202)
def start_buying(jobs: AllJobs, buying: Searches, by: Gain = "minutes") -> SearchOut:
    """Begin to work out which one or two additions save most over all jobs that are not done yet, planned from the rack."""
    shelf = jobs.rack.shelf()
    files = [kept_job.job for kept_job in jobs.plannable(OPEN_STATES)[0]]
    planned = [(file.title, shelf.equip(job_of(file, shelf), extras=file.extras)) for file in files]
    return search_out(buying.start(planned, by=by))


@router.get("/buying/{search_id}", responses=NOT_FOUND)
def buying_progress(search_id: SearchId, buying: Searches) -> SearchOut:
    """How far a search is, and the best so far."""
    return search_out(buying.get(search_id))


@router.delete("/buying/{search_id}", status_code=204, responses=NOT_FOUND)
def stop_buying(search_id: SearchId, buying: Searches) -> None:
    """Stop a search; what it found stays readable."""
    buying.stop(search_id)


# After the addresses with a name in this place, which would be taken for an id that is none.
@router.get("/rack/{item_id}", responses=NOT_FOUND)
def read_item(item_id: ItemId, rack: OwnRack) -> ItemOut:
    """One item."""
    return item_out(rack.get(item_id))


def _labels(request: Request, rack: OwnRack, ids: list[int] | None, inch: bool) -> list[Label]:
    system: System = "inch" if inch else "metric"
    kept = [item for item in rack.items() if (item.id in ids if ids else not item.item.retired)]
    return [
        label_of(kept_item.item, thing(kept_item.item.what).label, str(request.base_url) + f"rack/{kept_item.id}", system)
        for kept_item in kept
    ]


def _named(name: str) -> dict[str, str]:
    return {"content-disposition": f"attachment; filename={name}"}
