"""Serving the application: to the main screen on this computer, and by a second door to the shop's network."""

import asyncio
import contextlib
import logging
import socket
import ssl
from collections.abc import AsyncIterator
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Final

import uvicorn
from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from kelbrast.api.door import OpenShop, ShopDoor
from kelbrast.api.guests import Doorkeeper, Guests
from kelbrast.app.health import Health
from kelbrast.app.pairing import addresses_here, names_here, reachable_here
from kelbrast.storage.certificate import ShopCertificate
from kelbrast.storage.devices import shop_folder

_LOOK_EVERY_S: Final = 10.0  # whether the certificate still names every address: it is only read for that
# The one whose parts make connections tls (`guests`).
_LOOP: Final = "asyncio"
log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class OpenDoor:
    """The server of the shop's door, its socket, its certificate, and what to say about it when it opens."""

    server: uvicorn.Server
    listening: socket.socket
    certificate: ShopCertificate | None
    tls: ssl.SSLContext | None
    said: tuple[str, ...]


def open_shop(app: FastAPI, database: Path, listening: socket.socket, *, secure: bool) -> OpenDoor:
    """Make everything ready for the shop's network at this socket; nothing is answered yet.

    Raises:
        StoreTrouble: the certificate cannot be kept.
    """
    certificate = ShopCertificate(shop_folder(database)) if secure else None
    if certificate is not None:
        certificate.make_sure(names_here(), addresses_here())
    shop = OpenShop(
        port=listening.getsockname()[1],
        secure=secure,
        names=names_here,
        addresses=reachable_here,
        root=certificate.root.read_bytes if certificate else None,
        fingerprint=certificate.fingerprint if certificate else "",
    )
    tls = None
    if certificate is not None:
        tls = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        tls.load_cert_chain(certificate.shown, certificate.key)
    config = uvicorn.Config(
        ShopDoor(app, shop),
        # A connection is counted before TLS starts, so the server does not start it.
        http=partial(Doorkeeper, Guests(), tls),  # type: ignore[arg-type]  # the stubs want a class; it is only called
        ws="none",
        loop=_LOOP,
        log_config=None,
        log_level="warning",
        server_header=False,
        lifespan="off",
    )
    kind = "https" if secure else "http"
    said = [f"The shop's tablets find it at {', '.join(f'{kind}://{one}:{shop.port}/' for one in reachable_here())}"]
    said.append("Pair them by a code: Settings, Tablets and phones, on the main screen.")
    if not secure:
        said.append("WARNING: without a certificate whoever is in this network can read along and take a session over.")
    return OpenDoor(uvicorn.Server(config), listening, certificate, tls, tuple(said))


def serve_both(app: FastAPI, listening: socket.socket, door: OpenDoor | None) -> None:
    """Serve until it is stopped."""
    loop = "auto" if door is None else _LOOP
    main = uvicorn.Server(uvicorn.Config(app, loop=loop, log_config=None, log_level="warning", server_header=False))
    if door is None:
        main.run(sockets=[listening])
        return
    with asyncio.Runner(loop_factory=main.config.get_loop_factory()) as runner, contextlib.suppress(KeyboardInterrupt):
        runner.run(_both(main, listening, door, app.state.health))


async def _both(main: uvicorn.Server, listening: socket.socket, door: OpenDoor, health: Health) -> None:
    """A signal reaches the door to the shop, which came last; when that is shut it is handed on to the main one."""
    async with _certificate_kept_fresh(door, health):
        await asyncio.gather(main.serve(sockets=[listening]), door.server.serve(sockets=[door.listening]))


@contextlib.asynccontextmanager
async def _certificate_kept_fresh(door: OpenDoor, health: Health) -> AsyncIterator[None]:
    """A network that gives this computer another address needs another certificate, and so does another year."""
    watch = asyncio.create_task(_look_at_certificate(door, health)) if door.certificate is not None else None
    try:
        yield
    finally:
        if watch is not None:
            watch.cancel()


async def _look_at_certificate(door: OpenDoor, health: Health) -> None:
    while True:
        await asyncio.sleep(_LOOK_EVERY_S)
        await run_in_threadpool(_renew, door, health)


def _renew(door: OpenDoor, health: Health) -> None:
    """Another certificate where this one does not name every address; what goes wrong is told, and tried again."""
    assert door.certificate is not None, "asked for a door with a certificate"
    assert door.tls is not None, "made with the certificate"
    try:
        if door.certificate.make_sure(names_here(), addresses_here()):
            door.tls.load_cert_chain(door.certificate.shown, door.certificate.key)
        health.well("certificate")
    except Exception as trouble:
        log.exception("the certificate could not be renewed")
        health.report("certificate", f"The certificate for the shop's tablets could not be renewed: {trouble}")
