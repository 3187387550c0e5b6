"""A real server on a free port in this process, over a database of its own."""

import socket
import threading
from dataclasses import dataclass
from pathlib import Path

import uvicorn
from fastapi import FastAPI

from demo_workshop import demo_workshop
from kelbrast.api.application import WEB, create_app
from kelbrast.api.serving import open_shop
from kelbrast.app.jobs import Jobs


@dataclass
class Served:
    """A running server: where it is, and the jobs behind it. `shop`: the door to the shop's network, where one is open."""

    address: str
    jobs: Jobs
    servers: list[tuple[uvicorn.Server, threading.Thread]]
    shop: str = ""

    def stop(self) -> None:
        for server, _ in self.servers:
            server.should_exit = True
        for _, thread in self.servers:
            thread.join(10)

    def come_back(self) -> None:
        """After `stop`: the same program at the same address."""
        listening = _port(int(self.address.rsplit(":", 1)[1]))
        self.servers = [_running(_server(create_app(self.jobs)), listening)]


def serve(database: Path, *, demo: bool, with_past: bool = False, shop: bool = False, secure: bool = False) -> Served:
    assert (WEB / "index.html").is_file(), "the screens are not built: run make test"
    jobs = demo_workshop(database, with_past=with_past) if demo else Jobs.open(database)
    app = create_app(jobs)
    main = _port()
    servers = [_running(_server(app), main)]
    served = Served(f"http://127.0.0.1:{main.getsockname()[1]}", jobs, servers)
    if shop:
        door = open_shop(app, database, _port(), secure=secure)
        servers.append(_running(door.server, door.listening))
        served.shop = f"{'https' if secure else 'http'}://127.0.0.1:{door.listening.getsockname()[1]}"
    return served


def _server(app: FastAPI) -> uvicorn.Server:
    return uvicorn.Server(uvicorn.Config(app, log_level="error"))


def _port(number: int = 0) -> socket.socket:
    """A door at this port of ours; 0: at a free one."""
    listening = socket.socket()
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listening.bind(("127.0.0.1", number))
    listening.listen(64)
    return listening


def _running(server: uvicorn.Server, listening: socket.socket) -> tuple[uvicorn.Server, threading.Thread]:
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]}, daemon=True)
    thread.start()
    return server, thread
