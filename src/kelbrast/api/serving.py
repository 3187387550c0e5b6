"""Serving the application: to the main screen on this computer, and by a second door to the shop's network."""

import asyncio
import contextlib
import socket
from collections.abc import AsyncIterator
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import uvicorn
from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from kelbrast.api.door import OpenShop, ShopDoor
from kelbrast.app.shop_network import addresses_here, names_here, reachable_here
from kelbrast.storage.certificate import ShopCertificate
from kelbrast.storage.devices import shop_folder

_LOOK_EVERY_S: Final = 600.0  # whether the certificate still names every address


@dataclass(frozen=True, slots=True)
class OpenDoor:
    """The server of the shop's door, its socket, its certificate, and what to say about it when it opens."""

    server: uvicorn.Server
    listening: socket.socket
    certificate: ShopCertificate | None
    said: tuple[str, ...]


def open_shop(app: FastAPI, database: Path, listening: socket.socket, *, secure: bool) -> OpenDoor:
    """Make everything ready for the shop's network at this socket; nothing is answered yet.

    Raises:
        StoreTrouble: the certificate can not be kept.
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
    config = uvicorn.Config(
        ShopDoor(app, shop),
        log_config=None,
        log_level="warning",
        server_header=False,
        lifespan="off",
        ssl_certfile=certificate.shown if certificate else None,
        ssl_keyfile=certificate.key if certificate else None,
    )
    kind = "https" if secure else "http"
    said = [f"The shop's tablets find it at {', '.join(f'{kind}://{one}:{shop.port}/' for one in reachable_here())}"]
    said.append("Pair them by a code: Settings, Tablets and phones, on the main screen.")
    if not secure:
        said.append("WARNING: without a certificate whoever is in this network can read along and take a session over.")
    return OpenDoor(uvicorn.Server(config), listening, certificate, tuple(said))


def serve_both(app: FastAPI, listening: socket.socket, door: OpenDoor | None) -> None:
    """Serve until it is stopped."""
    main = uvicorn.Server(uvicorn.Config(app, log_config=None, log_level="warning", server_header=False))
    if door is None:
        main.run(sockets=[listening])
        return
    with asyncio.Runner(loop_factory=main.config.get_loop_factory()) as runner, contextlib.suppress(KeyboardInterrupt):
        runner.run(_both(main, listening, door))


async def _both(main: uvicorn.Server, listening: socket.socket, door: OpenDoor) -> None:
    """A signal reaches the door to the shop, which came last; when that is shut it is handed on to the main one."""
    async with _certificate_kept_fresh(door):
        await asyncio.gather(main.serve(sockets=[listening]), door.server.serve(sockets=[door.listening]))


@contextlib.asynccontextmanager
async def _certificate_kept_fresh(door: OpenDoor) -> AsyncIterator[None]:
    """A network that gives this computer another address needs another certificate, and so does another year."""
    watch = asyncio.create_task(_look_at_certificate(door)) if door.certificate is not None else None
    try:
        yield
    finally:
        if watch is not None:
            watch.cancel()


async def _look_at_certificate(door: OpenDoor) -> None:
    assert door.certificate is not None, "asked for a door with a certificate"
    while True:
        await asyncio.sleep(_LOOK_EVERY_S)
        made = await run_in_threadpool(door.certificate.make_sure, names_here(), addresses_here())
        if made and door.server.config.ssl is not None:
            door.server.config.ssl.load_cert_chain(door.certificate.shown, door.certificate.key)
