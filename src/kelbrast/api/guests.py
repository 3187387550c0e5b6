"""Connections through the door to the shop: so many at a time in all and from each address, none that dawdles, no endless head.

Whoever is in the shop's network may connect before anything says who it is. A connection takes a file descriptor, and a program
without free ones answers nobody, the main screen neither.
"""

import asyncio
import logging
import ssl
import time
from asyncio.sslproto import SSLProtocol
from collections import Counter
from collections.abc import Callable
from functools import partial
from typing import Any, Final

from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

RESERVED: Final = 400  # file descriptors for the main screen, the database and its copies
MOST: Final = 400
LEAST: Final = 32
MOST_OF_ONE: Final = 40  # a browser opens six; several tabs and a worker open more
HEAD_S: Final = 10  # until the head of a request is there, from the start of the connection, TLS handshake included
BODY_S: Final = 120.0  # and all of it: a photo over a weak radio
LARGEST_HEAD: Final = 64 * 1024  # bytes
_SAID_EVERY_S: Final = 60.0
_TOO_LARGE: Final = b"HTTP/1.1 431 Request Header Fields Too Large\r\ncontent-length: 0\r\nconnection: close\r\n\r\n"
log = logging.getLogger(__name__)


def most_guests() -> int:
    """How many connections leave enough file descriptors for the rest of the program."""
    try:
        import resource
    except ImportError:  # not on this system, which has no such limit
        return MOST
    soft, _ = resource.getrlimit(resource.RLIMIT_NOFILE)
    return MOST if soft == resource.RLIM_INFINITY else max(LEAST, min(MOST, soft - RESERVED))


class Guests:
    """Who is connected: how many in all, and from each address."""

    def __init__(self, most: int | None = None, of_one: int = MOST_OF_ONE) -> None:
        self._most, self._of_one = most_guests() if most is None else most, of_one
        self._here: Counter[str] = Counter()
        self._refused, self._said_at = 0, -_SAID_EVERY_S

    def enter(self, address: str) -> bool:
        """Count one more from this address, if there is room for it."""
        if self._here.total() >= self._most or self._here[address] >= self._of_one:
            self._refused += 1
            self._say(f"connections refused: {self._refused}, the last from {address}")
            return False
        self._here[address] += 1
        return True

    def leave(self, address: str) -> None:
        """One less."""
        self._here[address] -= 1
        if self._here[address] <= 0:
            del self._here[address]

    def dawdled(self, address: str) -> None:
        """A connection that took too long was ended."""
        self._say(f"a connection from {address} was ended: its request took too long")

    def _say(self, what: str) -> None:
        # An attack must not fill the log either.
        if time.monotonic() - self._said_at >= _SAID_EVERY_S:
            self._said_at = time.monotonic()
            log.warning("door to the shop: %s", what)


class GuestConnection(HttpToolsProtocol):
    """HTTP with a bound on the time and the size of each request."""

    def __init__(self, guests: Guests, address: str, lost: Callable[[], None], **server: Any) -> None:
        super().__init__(**server)
        self._guests, self._address, self._lost = guests, address, lost
        self._head, self._timer = 0, asyncio.get_running_loop().call_later(HEAD_S, self._too_slow)
        self._in_head = True

    def data_received(self, data: bytes) -> None:
        if self._in_head:
            self._head += len(data)
            if self._head > LARGEST_HEAD and self._still_in_head(data):
                return
        super().data_received(data)

    def _still_in_head(self, data: bytes) -> bool:
        # What came with the end of the head may be a body already; only a head without an end is too large.
        if b"\r\n\r\n" in data[:LARGEST_HEAD]:
            return False
        self.transport.write(_TOO_LARGE)
        self.transport.close()
        return True

    def on_message_begin(self) -> None:
        super().on_message_begin()
        self._wait(HEAD_S)
        self._in_head = True

    def on_headers_complete(self) -> None:
        self._in_head, self._head = False, 0
        self._wait(BODY_S)
        super().on_headers_complete()

    def on_message_complete(self) -> None:
        self._timer.cancel()
        self._in_head = True
        super().on_message_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        self.forget()
        self._lost()
        super().connection_lost(exc)

    def forget(self) -> None:
        """Nothing is waited for any more."""
        self._timer.cancel()

    def _wait(self, seconds: float) -> None:
        self._timer.cancel()
        self._timer = asyncio.get_running_loop().call_later(seconds, self._too_slow)

    def _too_slow(self) -> None:
        self._guests.dawdled(self._address)
        if self.transport is not None:
            self.transport.abort()


class _Tls(SSLProtocol):
    """TLS of one connection, which is counted until it is lost, also when it never came to a request."""

    def __init__(self, inside: GuestConnection, tls: ssl.SSLContext, lost: Callable[[], None]) -> None:
        loop = asyncio.get_running_loop()
        # Nobody waits for the handshake. The stubs ask for a future; the standard library takes None.
        super().__init__(loop, inside, tls, None, server_side=True, ssl_handshake_timeout=HEAD_S)  # type: ignore[arg-type]
        self._inside, self._lost = inside, lost

    def connection_lost(self, exc: BaseException | None) -> None:
        self._inside.forget()
        self._lost()
        super().connection_lost(exc)


class Doorkeeper(asyncio.Protocol):
    """Accepts a connection, starts TLS where there is a certificate, and hands it to HTTP.

    A server starts TLS before its protocol sees the connection, so those that never finish the handshake would not be counted.
    The standard library's TLS protocol is therefore put between here, as its event loop does.
    """

    def __init__(self, guests: Guests, tls: ssl.SSLContext | None, **server: Any) -> None:
        self._guests, self._tls, self._server = guests, tls, server

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        assert isinstance(transport, asyncio.Transport), "a connection is a stream"
        peer = transport.get_extra_info("peername")
        address = str(peer[0]) if peer else ""
        if not self._guests.enter(address):
            transport.abort()
            return
        lost = partial(self._guests.leave, address)
        inside: asyncio.BaseProtocol
        if self._tls is None:
            inside = GuestConnection(self._guests, address, lost, **self._server)
        else:
            inside = _Tls(GuestConnection(self._guests, address, _nothing, **self._server), self._tls, lost)
        transport.set_protocol(inside)
        inside.connection_made(transport)


def _nothing() -> None:
    """A connection lost inside TLS is counted by the TLS protocol around it."""
