"""The real interface in Debian's Chromium, against a real server on a free port with a database of its own."""

from collections.abc import Iterator
from datetime import datetime
from functools import lru_cache
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ahead import Ahead
from kelbrast.app import clock, light
from kelbrast.app.board import Boards
from kelbrast.documents.surface import picture as light_file
from serving import Served, serve

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
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium-headless-shell", "args": ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        "service_workers": "block",  # it fetches every screen at once; where it matters it is let
    }


@pytest.fixture
def brand_new(tmp_path: Path) -> Iterator[Served]:
    """A program that nobody opened yet."""
    served = serve(tmp_path / "new.sqlite", demo=False)
    yield served
    served.stop()


@pytest.fixture
def empty(brand_new: Served) -> Served:
    """Nothing in it, but the first questions were answered."""
    boards = Boards(brand_new.jobs)
    boards.change_shop(boards.shop().model_copy(update={"welcomed": True}))
    return brand_new


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


@pytest.fixture
def ahead(monkeypatch: pytest.MonkeyPatch) -> Ahead:
    shifted = Ahead(clock.time)
    monkeypatch.setattr(clock, "time", shifted)
    return shifted


@pytest.fixture
def morning(ahead: Ahead) -> Ahead:
    """It is eight o'clock, whenever this runs: a day has an end, and near it a board is another one."""
    ahead.by = datetime.fromtimestamp(ahead.time()).replace(hour=8, minute=0, second=0).timestamp() - ahead.time()
    return ahead


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


@pytest.fixture(scope="session", autouse=True)
def pictures_once() -> Iterator[None]:
    """What one test has had drawn is there for the next: the server keeps few pictures, and there are many tests."""
    kept = [
        (home, name, getattr(home, name))
        for home, name in ((light_file, "_patch"), (light_file, "_png"), (light, "small_picture"))
    ]
    for home, name, cached in kept:
        setattr(home, name, lru_cache(maxsize=2000)(cached.__wrapped__))
    yield
    for home, name, cached in kept:
        setattr(home, name, cached)
