"""Limits on what comes in, and headers that keep the page to itself. Plain ASGI, for speed."""

from typing import Final

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kelbrast.api.problems import problem

LARGEST_FILE: Final = 2 * 1024 * 1024
LARGEST_REQUEST: Final = 4 * LARGEST_FILE  # whatever it is for; the framework stops reading there
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


class OwnPagesOnly:
    """Refuses changes that another site's page asks for: a browser says where a request comes from."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        headers = dict(scope.get("headers", ()))
        foreign = headers.get(b"sec-fetch-site", b"none") not in (b"same-origin", b"none")
        if scope["type"] == "http" and scope["method"] not in ("GET", "HEAD", "OPTIONS") and foreign:
            refusal = problem(403, "Not from here", "Changes are only taken from the program's own pages.")
            await refusal(scope, receive, send)
            return
        await self._app(scope, receive, send)


class Headers:
    """Wraps the application and adds the headers to every answer."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        async def send_with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *HEADERS, *_caching(scope["path"])]
            await send(message)

        await self._app(scope, receive, send_with_headers)


def _caching(path: str) -> tuple[tuple[bytes, bytes], ...]:
    """Built files carry their content in their name and never change; everything else is asked for again."""
    if path.startswith("/assets/"):
        return ((b"cache-control", b"public, max-age=31536000, immutable"),)
    return ((b"cache-control", b"no-cache"),)
