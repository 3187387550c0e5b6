"""A real server on a free port in this process, over a database of its own."""

import socket
import threading
from dataclasses import dataclass
from pathlib import Path

import uvicorn

from kelbrast.api.application import WEB, create_app
from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo


@dataclass
class Served:
    """A running server: where it is, and the jobs behind it."""

    address: str
    jobs: Jobs
    server: uvicorn.Server
    thread: threading.Thread

    def stop(self) -> None:
        self.server.should_exit = True
        self.thread.join(10)


def serve(database: Path, *, demo: bool, with_past: bool = False) -> Served:
    assert (WEB / "index.html").is_file(), "the screens are not built: run make test"
    jobs = Jobs.open(database)
    if demo:
        load_demo(jobs, with_past=with_past)
    listening = socket.socket()
    listening.bind(("127.0.0.1", 0))
    listening.listen(64)
    server = uvicorn.Server(uvicorn.Config(create_app(jobs), log_level="error"))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]}, daemon=True)
    thread.start()
    return Served(f"http://127.0.0.1:{listening.getsockname()[1]}", jobs, server, thread)
