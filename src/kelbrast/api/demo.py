"""The demo workshop, looked at from inside another shop: a database of its own beside it, which is gone with the server."""

import shutil
import threading
from collections.abc import Callable
from datetime import date
from http.cookies import CookieError, SimpleCookie
from pathlib import Path
from typing import Final

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from kelbrast.api.problems import RESPONSES
from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo
from kelbrast.storage.copies import back_up
from kelbrast.storage.database import leave_database
from kelbrast.storage.scratch import Scratch, scratch

router = APIRouter(prefix="/api", responses=RESPONSES)
LOOK: Final = "kelbrast-look"
# The demo has no devices of its own: who is let in is the shop's to say.
_OUTSIDE: Final = ("/api/demo", "/api/pairing", "/api/devices", "/api/shop-certificate")


class PreparedDemo:
    """The demo workshop as a file, filled once a day and copied from then on: its promises and its past are told from today."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._scratch: Scratch | None = None
        self._day: date | None = None

    def copy_to(self, target: Path) -> None:
        """Put a copy of it there; filled now, if it is not yet."""
        with self._lock:
            if self._scratch is None or self._day != date.today():
                self._fill()
            assert self._scratch is not None, "just filled"
            shutil.copyfile(self._scratch.folder / "demo.sqlite", target)

    def _fill(self) -> None:
        self._forget()
        made, day = Scratch(), date.today()
        jobs = Jobs.open(made.folder / "filling.sqlite")
        load_demo(jobs)
        back_up(made.folder / "filling.sqlite", made.folder / "demo.sqlite")
        leave_database(jobs.engine)
        self._scratch, self._day = made, day

    def forget(self) -> None:
        """Remove the file."""
        with self._lock:
            self._forget()

    def _forget(self) -> None:
        if self._scratch is not None:
            self._scratch.remove()
            self._scratch = None


class _Shown:
    """The demo workshop as it is looked at: held by the look itself and by every question on its way, and gone when the last of
    them lets go. Whoever leaves waits for nobody, and nobody's question loses what it is asked of."""

    def __init__(self, make: Callable[[Jobs], ASGIApp], prepared: PreparedDemo) -> None:
        self._scratch = Scratch()
        database = self._scratch.folder / "demo.sqlite"
        prepared.copy_to(database)
        self._jobs = Jobs.open(database)
        self.app = make(self._jobs)
        self._lock, self._holders = threading.Lock(), 1

    def hold(self) -> None:
        with self._lock:
            self._holders += 1

    def let_go(self) -> None:
        with self._lock:
            self._holders -= 1
            last = self._holders == 0
        if last:
            leave_database(self._jobs.engine)
            self._scratch.remove()


class DemoBeside:
    """The demo workshop with its own jobs, rack, runs and settings. It is filled when somebody first looks."""

    def __init__(self, make: Callable[[Jobs], ASGIApp]) -> None:
        self._make, self._lock = make, threading.Lock()
        self._shown: _Shown | None = None
        self.prepared = PreparedDemo()

    def prepare(self) -> None:
        """Fill it before anybody looks: whoever does then waits for a copy alone."""
        with scratch() as folder:
            self.prepared.copy_to(folder / "demo.sqlite")

    def held(self) -> _Shown:
        """The demo for one question, which lets go of it at its end; what was done in it stays until `close`."""
        with self._lock:
            if self._shown is None:
                self._shown = _Shown(self._make, self.prepared)
            self._shown.hold()
            return self._shown

    def close(self) -> None:
        """Forget everything that was done in it."""
        with self._lock:
            shown, self._shown = self._shown, None
        if shown is not None:
            shown.let_go()


class WhoLooksAtTheDemo:
    """Sends what a browser that looks at the demo asks of the API to the demo; everything else passes."""

    def __init__(self, app: ASGIApp, demo: DemoBeside) -> None:
        self._app, self._demo = app, demo

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        path: str = scope.get("path", "")
        inside = scope["type"] == "http" and path.startswith("/api/") and not path.startswith(_OUTSIDE)
        if not (inside and _looks(scope)):
            await self._app(scope, receive, send)
            return
        shown = await run_in_threadpool(self._demo.held)
        try:
            await shown.app(scope, receive, send)
        finally:
            shown.let_go()


def _looks(scope: Scope) -> bool:
    for name, value in scope["headers"]:
        if name == b"cookie":
            try:
                cookie = SimpleCookie(value.decode("latin-1")).get(LOOK)
            except CookieError:
                continue
            if cookie is not None and cookie.value == "demo":
                return True
    return False


def _demo(request: Request) -> DemoBeside:
    demo: DemoBeside = request.app.state.demo
    return demo


@router.put("/demo", status_code=204)
def look_at_the_demo(request: Request, response: Response) -> None:
    """From now on this browser sees the demo workshop, as it was when it was new; the shop's own data are untouched."""
    demo = _demo(request)
    demo.close()
    demo.held().let_go()
    response.set_cookie(LOOK, "demo", samesite="strict")


@router.delete("/demo", status_code=204)
def leave_the_demo(request: Request, response: Response) -> None:
    """Back to the shop's own data; what was done in the demo is forgotten."""
    _demo(request).close()
    response.delete_cookie(LOOK, samesite="strict")
