"""What the shop has of its own: tools, compounds, materials, machines and finishes that no catalogue lists."""

from datetime import date, datetime
from typing import Annotated, Final, Literal

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel, Field

from kelbrast.api.problems import CHANGED_ELSEWHERE, NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllJobs, Revision, ShopsOwn
from kelbrast.app.own import KeptOwn, OwnChange
from kelbrast.app.own_pack import as_if, pack, take_in_pack
from kelbrast.core.catalogue.hardness import SCALES
from kelbrast.core.catalogue.own import OwnKind, known
from kelbrast.core.reference.raw import reference_written
from kelbrast.documents.common.fields import shop_or_none
from kelbrast.documents.own.format import OwnEntryFile, read_own_file

router = APIRouter(prefix="/api/own", responses=RESPONSES)
_LARGEST_TEXT: Final = 2_000_000
OwnKey = Annotated[str, Path(pattern=r"^own-[a-z0-9]{1,40}$", description="id of the entry")]


class OwnIn(BaseModel):
    """An entry of the shop's own."""

    entry: OwnEntryFile


class OwnOut(BaseModel):
    """An entry as it is kept; `revision` goes into If-Match when it is changed."""

    revision: int
    updated_at: datetime
    entry: OwnEntryFile


class OwnText(BaseModel):
    """A file of own entries as text."""

    text: Annotated[str, Field(max_length=_LARGEST_TEXT)]


class OwnImport(OwnText):
    """The same, to be taken in."""

    factors: bool = False


class AsIfOut(BaseModel):
    """An open job with the hands-on minutes that it takes now, and would take; null where there is no plan."""

    title: str
    now_minutes: float | None
    then_minutes: float | None


class OwnChangeOut(BaseModel):
    """What an import does with one entry of the file."""

    kind: OwnKind
    name: str
    change: Literal["new", "changed", "same"]
    keys: list[str]


class PackOut(BaseModel):
    """What an import does: to entries, with how many learnt factors, and to the open jobs."""

    changes: list[OwnChangeOut]
    factors: int
    jobs: list[AsIfOut]


class Like(BaseModel):
    """Something known that an own one can be like; of a tool, whether it is charged with bars, wears out, or is a wheel."""

    id: str
    label: str
    charged: bool = False
    dies: bool = False
    has_diameter: bool = False


class LikesOut(BaseModel):
    """What there is to be like, by kind, and the scales of hardness that are understood."""

    tool: list[Like]
    compound: list[Like]
    material: list[Like]
    machine: list[Like]
    finish: list[Like]
    hardness: list[str]


@router.get("")
def list_own(own: ShopsOwn) -> list[OwnOut]:
    """Everything that the shop has of its own, retired things too."""
    return [_out(kept) for kept in own.entries()]


@router.get("/likes")
def list_likes() -> LikesOut:
    """What an own entry can be like."""
    return LikesOut(
        tool=[_carrier(key) for key in known("tool")],
        compound=[Like(id=key, label=_capital(reference_written("compounds")[key]["label"])) for key in known("compound")],
        material=_likes("material", "materials"),
        machine=[like for like in _likes("machine", "machines") if like.id != "hand"],
        finish=_likes("finish", "finishes"),
        hardness=list(SCALES),
    )


@router.post("", status_code=201)
def add_own(given: OwnIn, own: ShopsOwn) -> OwnOut:
    """Describe something that no catalogue lists: like a known one, but for what differs."""
    return _out(own.add(given.entry, today=date.today()))


@router.put("/{key}", responses={**NOT_FOUND, **CHANGED_ELSEWHERE})
def change_own(key: OwnKey, revision: Revision, given: OwnIn, own: ShopsOwn) -> OwnOut:
    """Say something else of one. Jobs that are open are planned anew; what is finished stays as it was."""
    return _out(own.change(key, given.entry, revision=revision))


@router.delete("/{key}", status_code=204, responses=NOT_FOUND)
def delete_own(key: OwnKey, own: ShopsOwn) -> None:
    """Forget one that was put in by mistake and that nothing uses."""
    own.remove(key)


@router.get("/file.json", responses={200: {"content": {"application/json": {}}}})
def own_as_file(jobs: AllJobs) -> Response:
    """All of it as an own/1 file, with what the shop learnt about its tools and nothing of its customers."""
    text = pack(jobs).model_dump_json(indent=2, exclude_none=True) + "\n"
    headers = {"content-disposition": "attachment; filename=own.json"}
    return Response(text, media_type="application/json", headers=headers)


@router.post("/preview")
def preview_own(given: OwnText, jobs: AllJobs) -> PackOut:
    """What importing an own/1 file would do, and what the open jobs would take with it; nothing is changed."""
    changes, factors = jobs.own.preview(given.text), read_own_file(given.text).factors
    return PackOut(
        changes=[_change(change) for change in changes],
        factors=len(factors),
        jobs=[
            AsIfOut(title=one.title, now_minutes=shop_or_none(one.now, "min"), then_minutes=shop_or_none(one.then, "min"))
            for one in as_if(jobs, given.text)
        ],
    )


@router.post("/import")
def import_own(given: OwnImport, jobs: AllJobs) -> PackOut:
    """Import an own/1 file, all of it or nothing; with `factors` also what its shop learnt about its tools."""
    changes, factors = take_in_pack(jobs, given.text, factors=given.factors, today=date.today())
    return PackOut(changes=[_change(change) for change in changes], factors=factors, jobs=[])


def _out(kept: KeptOwn) -> OwnOut:
    return OwnOut(revision=kept.revision, updated_at=kept.updated_at, entry=kept.file)


def _change(change: OwnChange) -> OwnChangeOut:
    return OwnChangeOut(kind=change.file.kind, name=change.file.name, change=change.change, keys=list(change.keys))


def _likes(kind: OwnKind, name: str) -> list[Like]:
    return [Like(id=key, label=reference_written(name)[key]["label"]) for key in known(kind)]


def _carrier(key: str) -> Like:
    row = reference_written("carriers")[key]
    charged = "compounds" in row
    return Like(
        id=key, label=row["label"], charged=charged, dies="life" in row or "lasts" in row, has_diameter="diameter" in row
    )


def _capital(text: str) -> str:
    return text[0].upper() + text[1:]
