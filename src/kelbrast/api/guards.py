"""Limits on what comes in, and headers that keep the page to itself. Plain ASGI, for speed."""

import asyncio
import logging
import re
from typing import Final
from weakref import WeakKeyDictionary

from starlette.middleware.body_limit import RequestBodyLimitMiddleware
from starlette.middleware.gzip import DEFAULT_EXCLUDED_CONTENT_TYPES, GZipMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kelbrast.api.problems import problem
from kelbrast.app.own import OwnThings
from kelbrast.core.errors import KelbrastError
from kelbrast.core.reference.own_rows import NOTHING, OwnRows, using
from kelbrast.documents.job.read import LARGEST_FILE

log = logging.getLogger(__name__)
LARGEST_REQUEST: Final = 4 * LARGEST_FILE  # whatever it is for; the framework stops reading there
LARGEST_PHOTOS: Final = 64 * 1024 * 1024  # two of a good camera
OF_THE_EYE: Final = re.compile(r"/api/runs/\d+/eye|/api/eye(/lay)?")
BROUGHT: Final = "/api/backups/brought"
POLICY: Final = (
    "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; worker-src 'self' blob:; "
    "object-src 'none'; base-uri 'self'; form-action 'self'; frame-ancestors 'none'"
)
HEADERS: Final = (
    (b"content-security-policy", POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
)


VISITOR: Final = "kelbrast.visitor"  # in the scope of every request through the door to the shop
THREADS: Final = 100  # that answer requests
CHANGES_AT_ONCE: Final = 40  # of them; the others are for those who only look
_SAFE_METHODS: Final = ("GET", "HEAD", "OPTIONS")
_NOT_COMPRESSED: Final = (*DEFAULT_EXCLUDED_CONTENT_TYPES, "application/octet-stream", "application/pdf")
_SAID: Final = {
    400: (
        "Not this program",
        "This program does not answer to the address in the request; open it by its own.",
    ),
    413: ("Too large", f"A request may hold at most {LARGEST_REQUEST // 1024 // 1024} MB; make it smaller or split it."),
}


class OwnHosts(TrustedHostMiddleware):
    """Answers only to the names of the main screen's door; the door to the shop has looked already, by names of its own."""

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if VISITOR in scope:
            await self.app(scope, receive, send)
        else:
            await super().__call__(scope, receive, send)


class SmallRequests:
    """A request holds a few files at most; photos of the eye are the camera's own, and what is brought back may be large."""

    def __init__(self, app: ASGIApp) -> None:
        self._any, self._small = app, RequestBodyLimitMiddleware(app, max_body_size=LARGEST_REQUEST)
        self._photos = RequestBodyLimitMiddleware(app, max_body_size=LARGEST_PHOTOS)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        path: str = scope.get("path", "")
        limited = self._any if path == BROUGHT else self._photos if OF_THE_EYE.fullmatch(path) else self._small
        await limited(scope, receive, send)


class OwnPagesOnly:
    """Refuses changes that another site's page asks for. A browser says where a request comes from, newer ones in two ways."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and scope["method"] not in _SAFE_METHODS and _foreign(scope):
            refusal = problem(403, "Not from here", "Changes are only taken from the program's own pages.")
            await refusal(scope, receive, send)
            return
        await self._app(scope, receive, send)


def _foreign(scope: Scope) -> bool:
    headers: dict[bytes, bytes] = dict(scope["headers"])
    if headers.get(b"sec-fetch-site", b"none") not in (b"same-origin", b"none"):
        return True
    origin = headers.get(b"origin")
    if origin is None:  # a script, which needs no leave
        return False
    host = headers.get(b"host", b"").decode("latin-1")
    return origin.decode("latin-1").lower() != f"{scope.get('scheme', 'http')}://{host}".lower()


class ReadersFirst:
    """So many changes at a time wait for the database; the others wait here, where they hold no thread that a reader needs."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app
        self._turns: WeakKeyDictionary[asyncio.AbstractEventLoop, asyncio.Semaphore] = WeakKeyDictionary()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["method"] in _SAFE_METHODS:
            await self._app(scope, receive, send)
            return
        async with self._turns.setdefault(asyncio.get_running_loop(), asyncio.Semaphore(CHANGES_AT_ONCE)):
            await self._app(scope, receive, send)


class WithOwnThings:
    """What the shop has of its own is in use for as long as a request is answered."""

    def __init__(self, app: ASGIApp, *, own: OwnThings) -> None:
        self._app, self._own = app, own

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self._app(scope, receive, send)
            return
        with using(self._rows()):
            await self._app(scope, receive, send)

    def _rows(self) -> OwnRows:
        try:
            return self._own.rows()
        except KelbrastError as trouble:  # whoever needs them says it, and the rest goes on
            log.warning("what the shop has of its own cannot be used: %s", trouble)
            return NOTHING


class Headers:
    """Wraps the application, adds the headers to every answer, and puts a refusal of the framework's into a problem."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        replaced = False

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                more = (*HEADERS, *_caching(scope["path"], message["status"]))
                message["headers"] = [*message.get("headers", []), *more]
            await send(message)

        async def as_problem(message: Message) -> None:
            nonlocal replaced
            if message["type"] == "http.response.start" and _plain_refusal(message):
                replaced = True
                title, detail = _SAID.get(message["status"], ("Refused", "This cannot be answered."))
                await problem(message["status"], title, detail)(scope, receive, with_headers)
            elif not replaced:  # the plain words go nowhere
                await with_headers(message)

        await self._app(scope, receive, as_problem)


def compressed(app: ASGIApp) -> ASGIApp:
    """The application with its answers compressed, where that makes them smaller."""
    return GZipMiddleware(app, minimum_size=1000, compresslevel=6, exclude_content_types=_NOT_COMPRESSED)


def _plain_refusal(message: Message) -> bool:
    kind = dict(message.get("headers", [])).get(b"content-type", b"")
    return message["status"] >= 400 and bytes(kind).startswith(b"text/plain")


def _caching(path: str, status: int) -> tuple[tuple[bytes, bytes], ...]:
    """Built files carry their content in their name and never change; all else, also what is missing, is asked for again."""
    if path.startswith("/assets/") and status in (200, 206, 304):
        return ((b"cache-control", b"public, max-age=31536000, immutable"),)
    return ((b"cache-control", b"no-cache"),)
