"""Backups: made now, listed, looked into before they are put back; everything out as a file, and in."""

from datetime import datetime
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Path, Query, Request
from fastapi.responses import FileResponse
from pydantic import BaseModel, ConfigDict
from starlette.background import BackgroundTask
from starlette.concurrency import run_in_threadpool

from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllJobs
from kelbrast.app.everything import bring, look_into, restore
from kelbrast.app.health import Health
from kelbrast.storage import database
from kelbrast.storage.backups import LARGEST_IN_ALL, Backup, Backups, TableChange
from kelbrast.storage.everything import write_everything
from kelbrast.storage.scratch import Scratch, scratch
from kelbrast.storage.trouble import told

router = APIRouter(prefix="/api/backups", responses=RESPONSES)
everything = APIRouter(prefix="/api/everything.zip", responses=RESPONSES)
_FILE: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}

BackupName = Annotated[str, Path(max_length=80, description="name of the backup")]


async def _backups(request: Request) -> Backups:
    backups: Backups = request.app.state.backups
    return backups


ShopBackups = Annotated[Backups, Depends(_backups)]


class DatabaseOut(BaseModel):
    """The database itself: its bytes with those of its log, what is free on its disk, when it was last looked through for
    damage while the program ran, and whether that goes on now."""

    size: int
    free: int
    looked_through: datetime | None
    looking_through: bool


class BackupsOut(BaseModel):
    """Where the backups are, all of them, the newest first, how many bytes those may take together that the program makes by
    itself, and the database."""

    folder: str
    backups: list[Backup]
    most: int
    database: DatabaseOut


class RestoreLookOut(BaseModel):
    """What restoring a backup would change. `unreadable`: documents in it that this version cannot read; `doubts`: why somebody
    should be asked first, empty where nothing would be lost."""

    model_config = ConfigDict(from_attributes=True)

    tables: list[TableChange]
    unreadable: list[str]
    doubts: str


@router.get("")
def list_backups(backups: ShopBackups, request: Request) -> BackupsOut:
    """Every backup, and how the database is."""
    health: Health = request.app.state.health
    size, free = backups.room()
    looked = health.looked_through
    kept = DatabaseOut(size=size, free=free, looked_through=looked.at, looking_through=looked.busy)
    return BackupsOut(folder=str(backups.folder), backups=backups.all(), most=LARGEST_IN_ALL, database=kept)


@router.post("", status_code=201)
def make_backup(backups: ShopBackups) -> Backup:
    """Back up now."""
    return backups.make("asked", datetime.now())


@router.post("/held", status_code=201, responses=NOT_FOUND)
def save_what_is_held(backups: ShopBackups, jobs: AllJobs) -> Backup:
    """Back up what the program still holds, also after its file was replaced."""
    with scratch() as folder:
        held = folder / "held.sqlite"
        database.save_what_is_held(jobs.engine, held)
        return backups.take_in(held, datetime.now())


@router.post("/brought", status_code=201, openapi_extra=_FILE)
async def bring_file(request: Request, backups: ShopBackups) -> Backup:
    """Put an archive of everything, or a backup from elsewhere, among the backups; what is kept now stays as it is."""
    with scratch() as folder:
        file = folder / "brought"
        with told(file), file.open("wb") as out:
            async for chunk in request.stream():
                out.write(chunk)
        return await run_in_threadpool(bring, backups, file, datetime.now())


@router.delete("/{name}", status_code=204, responses=NOT_FOUND)
def forget_backup(name: BackupName, backups: ShopBackups) -> None:
    """Forget a backup."""
    backups.remove(name)


@everything.get("", responses={200: {"content": {"application/zip": {}}}})
def everything_as_file(backups: ShopBackups) -> FileResponse:
    """Everything that is kept, as one archive in the open; docs/archive.md tells what is in it."""
    made = Scratch()
    try:
        archive = write_everything(backups.path, made.folder / f"kelbrast-{datetime.now():%Y%m%d-%H%M}.zip")
    except BaseException:
        made.remove()
        raise
    return FileResponse(archive, media_type="application/zip", filename=archive.name, background=BackgroundTask(made.remove))


@router.get("/{name}", responses={**NOT_FOUND, 200: {"content": {"application/octet-stream": {}}}})
def backup_as_file(name: BackupName, backups: ShopBackups) -> FileResponse:
    """The backup as a file, to keep elsewhere."""
    return FileResponse(backups.file(name), media_type="application/octet-stream", filename=name)


@router.get("/{name}/changes", responses=NOT_FOUND)
def look_into_backup(name: BackupName, backups: ShopBackups) -> RestoreLookOut:
    """What restoring it would change; nothing is changed yet."""
    return RestoreLookOut.model_validate(look_into(backups, backups.file(name)))


@router.post("/{name}/restore", responses=NOT_FOUND)
def restore_backup(
    name: BackupName,
    backups: ShopBackups,
    jobs: AllJobs,
    sure: Annotated[bool, Query(description="also where there would be fewer rows than now")] = False,
) -> Backup:
    """Put it in the place of everything. Answers with the backup of what was there before."""
    return restore(jobs, backups, backups.file(name), datetime.now(), sure=sure)
