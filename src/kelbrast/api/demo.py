"""The demo workshop, looked at from inside another shop: a database of its own beside it, which is gone with the server."""

import tempfile
import threading
from collections.abc import Callable
from http.cookies import CookieError, SimpleCookie
from pathlib import Path
from typing import Final

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from kelbrast.api.problems import RESPONSES
from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo

router = APIRouter(prefix="/api", responses=RESPONSES)
LOOK: Final = "kelbrast-look"
# The demo has no devices of its own: who is let in is the shop's to say.
_OUTSIDE: Final = ("/api/demo", "/api/pairing", "/api/devices", "/api/shop-certificate")


class _Shown:
    """The demo workshop as it is looked at: held by the look itself and by every question on its way, and gone when the last of
    them lets go. Whoever leaves waits for nobody, and nobody's question loses what it is asked of."""

    def __init__(self, make: Callable[[Jobs], ASGIApp]) -> None:
        # Work in the background may still put a file where the others were just removed.
        self._folder = tempfile.TemporaryDirectory(prefix="kelbrast-demo-", ignore_cleanup_errors=True)
        self._jobs = Jobs.open(Path(self._folder.name) / "demo.sqlite")
        load_demo(self._jobs)
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
            self._jobs.engine.dispose()
            self._folder.cleanup()


class DemoBeside:
    """The demo workshop with its own jobs, rack, runs and settings. It is filled when somebody first looks."""

    def __init__(self, make: Callable[[Jobs], ASGIApp]) -> None:
        self._make, self._lock = make, threading.Lock()
        self._shown: _Shown | None = None

    def held(self) -> _Shown:
        """The demo for one question, which lets go of it at its end; what was done in it stays until `close`."""
        with self._lock:
            if self._shown is None:
                self._shown = _Shown(self._make)
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
