"""The door to the shop's network. The main screen comes in by another one, which only this computer itself can reach.

Through this door the screens themselves come to anybody: they hold nothing. What is kept in the shop is only told to devices
that were paired, and what would undo the shop's safety is not to be had here at all.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from http.cookies import CookieError, SimpleCookie
from typing import Final
from urllib.parse import urlsplit

from fastapi import FastAPI, Request
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response
from starlette.types import Receive, Scope, Send

from kelbrast.api.guards import VISITOR, Headers
from kelbrast.api.problems import problem
from kelbrast.app.pairing import Pairing
from kelbrast.storage.devices import Device

PAIRING: Final = "/api/pairing"
ROOT_CERTIFICATE: Final = "/api/shop-certificate.crt"
_FOR_ANYBODY: Final = (PAIRING, ROOT_CERTIFICATE)
MAIN_SCREEN_ONLY: Final = ("/api/devices", "/api/backups", "/api/everything", "/api/demo")


@dataclass(frozen=True, slots=True)
class Visitor:
    """Who asks through the door of the shop. `secure`: in secret, by a certificate."""

    device: Device | None
    secure: bool


@dataclass(frozen=True, slots=True)
class OpenShop:
    """That the door is open: at which port, in secret or not, under which names, and the root of its certificate."""

    port: int
    secure: bool
    names: Callable[[], Sequence[str]]
    addresses: Callable[[], Sequence[str]]
    root: Callable[[], bytes] | None = None
    fingerprint: str = ""


class ShopDoor:
    """Wraps the application for those who come over the shop's network."""

    def __init__(self, app: FastAPI, shop: OpenShop) -> None:
        self._app, self._shop = app, shop
        self._pairing: Pairing = app.state.pairing
        app.state.shop = shop

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            return
        headers: dict[bytes, bytes] = dict(scope["headers"])
        device = await run_in_threadpool(self._device, headers.get(b"cookie", b""))
        refusal = self._refused(scope, headers.get(b"host", b"").decode("latin-1"), device)
        if refusal is not None:
            await Headers(refusal)(scope, receive, send)
            return
        await self._app({**scope, VISITOR: Visitor(device, self._shop.secure)}, receive, send)

    def _refused(self, scope: Scope, host: str, device: Device | None) -> Response | None:
        path: str = scope["path"]
        if not self._own(host, scope.get("server")):
            return problem(400, "Not this program", "This program does not answer to the address in the request.")
        if not path.startswith("/api/") or path in _FOR_ANYBODY:
            return None
        if device is None:
            return problem(401, "Not paired", "This device is not paired with the shop, or was taken off. Pair it again.")
        if path.startswith(MAIN_SCREEN_ONLY):
            return problem(403, "At the main screen", "This is only done at the computer that the program runs on.")
        return None

    def _own(self, host: str, server: tuple[str, int | None] | None) -> bool:
        """Whether the request names this host: by a name of it, or by the very address that it came to."""
        try:
            told = urlsplit(f"//{host}")
            name, _ = told.hostname, told.port
        except ValueError:
            return False
        if told.netloc != host or "@" in host:
            return False
        return name is not None and (name in self._shop.names() or (server is not None and name == server[0]))

    def _device(self, cookie: bytes) -> Device | None:
        try:
            told = SimpleCookie(cookie.decode("latin-1")).get(session_cookie(self._shop.secure))
        except CookieError:
            return None
        return self._pairing.who(told.value) if told is not None else None


def session_cookie(secure: bool) -> str:
    """Its name; in secret one that a browser only takes from this very host."""
    return "__Host-kelbrast" if secure else "kelbrast-device"


def visitor(request: Request) -> Visitor | None:
    """Who came through the shop's door; None at the main screen."""
    visitor: Visitor | None = request.scope.get(VISITOR)
    return visitor
