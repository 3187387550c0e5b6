"""The real interface in Debian's Chromium, against a real server on a free port with a database of its own."""

import socket
import threading
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from playwright.sync_api import Page, expect

from kelbrast.api.application import WEB, create_app
from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo

# Background services of the browser look for hosts that a closed network does not have.
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]

expect.set_options(timeout=15_000)  # a busy machine is slow, not wrong


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


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


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[Served]:
    served = serve(tmp_path / "empty.sqlite", demo=False)
    yield served
    served.stop()


@pytest.fixture
def workshop(tmp_path: Path) -> Iterator[Served]:
    served = serve(tmp_path / "demo.sqlite", demo=True)
    yield served
    served.stop()


@pytest.fixture
def worked_workshop(tmp_path: Path) -> Iterator[Served]:
    """The demo workshop with the runs that it is said to have done."""
    served = serve(tmp_path / "worked.sqlite", demo=True, with_past=True)
    yield served
    served.stop()


@pytest.fixture(autouse=True)
def quiet(page: Page) -> Iterator[None]:
    """No page may complain: no script error, no refused source, nothing asked of another host."""
    complaints: list[str] = []
    page.on("pageerror", lambda error: complaints.append(str(error)))
    page.on("console", lambda message: complaints.append(message.text) if "Content Security Policy" in message.text else None)
    page.on(
        "request",
        lambda request: (
            complaints.append(request.url)
            if "127.0.0.1" not in request.url and not request.url.startswith(("data:", "blob:"))
            else None
        ),
    )
    yield
    assert complaints == []
