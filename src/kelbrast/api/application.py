"""The web application: the API under /api, the built screens everywhere else."""

import asyncio
import json
import logging
from collections.abc import AsyncIterator, Sequence
from contextlib import asynccontextmanager
from datetime import datetime
from functools import cache, partial
from pathlib import Path
from typing import Final

from anyio import to_thread
from fastapi import FastAPI
from sqlalchemy import create_engine
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.routing import BaseRoute
from starlette.staticfiles import StaticFiles

from kelbrast import __version__
from kelbrast.api import (
    backups,
    bench,
    day,
    demo,
    eye,
    health,
    jobs,
    light,
    log,
    own,
    pairing,
    photos,
    planning,
    practice,
    quotes,
    rack,
    reference,
    shop,
    sizing,
    trials,
)
from kelbrast.api.demo import DemoBeside, WhoLooksAtTheDemo
from kelbrast.api.guards import THREADS, Headers, OwnHosts, OwnPagesOnly, ReadersFirst, SmallRequests, WithOwnThings, compressed
from kelbrast.api.problems import add_problem_handlers
from kelbrast.app.board import Boards
from kelbrast.app.buying import Buying
from kelbrast.app.eye import Eye
from kelbrast.app.health import Health, Watch
from kelbrast.app.jobs import Jobs
from kelbrast.app.light import Light
from kelbrast.app.pairing import Pairing
from kelbrast.app.photos import PartPhotos
from kelbrast.core.errors import StoreTrouble
from kelbrast.storage.backups import Backups
from kelbrast.storage.devices import devices_file

# In a wheel the screens lie in the package; in a checkout they are where they are built.
_PACKED: Final = Path(__file__).parents[1] / "screens"
WEB: Final = _PACKED if _PACKED.is_dir() else Path(__file__).parents[3] / "web" / "dist"
_LOOK_EVERY_S: Final = 3600.0
_AFTER_START_S: Final = 20.0  # the first screens come first
_REST_EVERY_S: Final = 5.0
ROUTERS: Final = (
    jobs.router,
    planning.router,
    rack.router,
    own.router,
    trials.router,
    reference.router,
    bench.router,
    photos.router,
    log.router,
    light.router,
    practice.router,
    shop.router,
    sizing.router,
    day.router,
    quotes.router,
    demo.router,
    backups.router,
    backups.everything,
    pairing.router,
    eye.router,
    health.router,
)
logger = logging.getLogger(__name__)
LOCAL_HOSTS: Final = ("127.0.0.1", "localhost", "[::1]")


def create_app(
    kept: Jobs,
    *,
    web: Path | None = WEB,
    hosts: Sequence[str] = LOCAL_HOSTS,
    with_demo: bool = True,
    looked_after: bool = False,
    improving: bool = False,
) -> FastAPI:
    """Build the application over these jobs.

    Args:
        web: the built front end; None for the API alone.
        hosts: host names that requests may name; others are refused.
        with_demo: the demo workshop can be looked at from inside.
        looked_after: the database is backed up every day and looked through, for as long as the server runs.
        improving: the schedule is improved in the background, without being asked.
    """
    app = FastAPI(
        title="Kelbrast",
        version=__version__,
        summary="From a scratched part to the finish it needs.",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
        lifespan=partial(_until_stopped, kept, looked_after),
    )
    app.state.jobs = kept
    app.state.buying = Buying()
    app.state.boards = Boards(kept, improving=improving)
    app.state.light = Light()
    app.state.eye = Eye()
    database = Path(kept.engine.url.database or "memory.sqlite")
    app.state.backups = Backups(database)
    app.state.health = Health(kept)
    app.state.web = web
    app.state.pairing = Pairing(devices_file(database))
    app.state.shop = None  # no door to the shop's network, until one is opened
    app.state.demo = DemoBeside(partial(create_app, web=None, hosts=hosts, with_demo=False))
    app.router.routes.extend(_resources())
    app.add_api_route("/api/{rest:path}", _no_such_address, include_in_schema=False)
    add_problem_handlers(app)
    if web is not None:
        # Built files are there or not; only addresses of pages fall back to the page.
        app.mount("/assets", StaticFiles(directory=web / "assets", check_dir=False))
        app.frontend("/", directory=web, fallback="index.html")
    app.add_middleware(WithOwnThings, own=kept.own)
    app.add_middleware(compressed)
    app.add_middleware(ReadersFirst)
    app.add_middleware(OwnPagesOnly)
    app.add_middleware(OwnHosts, allowed_hosts=list(hosts))
    # Inside the one that puts refusals into problems; the framework's own limit stands outside of everything.
    app.add_middleware(SmallRequests)
    app.add_middleware(Headers)
    if with_demo:
        app.add_middleware(WhoLooksAtTheDemo, demo=app.state.demo)
    return app


@asynccontextmanager
async def _until_stopped(kept: Jobs, looked_after: bool, app: FastAPI) -> AsyncIterator[None]:
    """When the server stops, everything is put into the one file of the database: a plain copy of it is whole then."""
    to_thread.current_default_thread_limiter().total_tokens = THREADS
    try:
        await run_in_threadpool(PartPhotos(kept.engine).forget_left)
    except StoreTrouble as trouble:  # another program holds it: that is tidied up at the next start
        logger.warning("photos of deleted parts are still there: %s", trouble)
    watch = Watch(kept, app.state.backups, app.state.health)
    looking = asyncio.create_task(_look_after(watch, app.state.demo)) if looked_after else None
    yield
    if looking is not None:
        looking.cancel()
    app.state.boards.stop()
    app.state.demo.close()
    app.state.demo.prepared.forget()
    try:
        kept.close()
    except StoreTrouble as trouble:  # the disk is full, say: the newest work stays in the file beside it
        logger.error("not everything is in the one file of the database: %s", trouble)


async def _look_after(watch: Watch, demo: DemoBeside) -> None:
    """For as long as the program runs; in threads, so that nobody waits for it."""
    async with asyncio.TaskGroup() as group:
        group.create_task(_put_away(watch))
        await asyncio.sleep(_AFTER_START_S / 4)
        await run_in_threadpool(watch.begin, datetime.now())
        await asyncio.sleep(_AFTER_START_S)
        await run_in_threadpool(demo.prepare)
        while True:
            await run_in_threadpool(watch.look, datetime.now())
            await asyncio.sleep(_LOOK_EVERY_S)


async def _put_away(watch: Watch) -> None:
    while True:
        await asyncio.sleep(_REST_EVERY_S)
        await run_in_threadpool(watch.rest)


@cache
def _resources() -> tuple[BaseRoute, ...]:
    """The addresses of every resource. They know no application, and making them takes longer than all the rest of one."""
    routers = FastAPI(openapi_url=None)
    for router in ROUTERS:
        routers.include_router(router)
    return tuple(routers.router.routes)


def _no_such_address(rest: str) -> None:
    raise HTTPException(404, f"There is nothing at /api/{rest}")


def description() -> str:
    """The API's description (OpenAPI) as JSON text, from which the front end's types are made. No database is opened for it."""
    app = create_app(Jobs(create_engine("sqlite://")), web=None)
    return json.dumps(app.openapi(), indent=2, ensure_ascii=False) + "\n"
