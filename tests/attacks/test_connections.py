"""Connections to the shop's port that never finish a request: the main screen answers all the same, and they are ended."""

import contextlib
import os
import re
import socket
import ssl
import subprocess
import sys
import time
from pathlib import Path

import httpx
import pytest

from attacking import SOAK, many
from kelbrast.api import guests
from kelbrast.api.guests import Guests, most_guests
from serving import serve

LIMIT = 1024  # of file descriptors, as many systems have it
START = (
    "import resource, sys; resource.setrlimit(resource.RLIMIT_NOFILE, ({limit}, {limit}));"
    "from kelbrast.cli.main import main; main(sys.argv[1:])"
)


class ShopServer:
    """The program as people start it with `--shop`, with so many file descriptors."""

    def __init__(self, database: Path) -> None:
        command = [sys.executable, "-c", START.format(limit=LIMIT), "serve", "--database", str(database)]
        command += ["--port", "0", "--shop", "--shop-port", "0"]
        environment = {**os.environ, "PYTHONUNBUFFERED": "1"}
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=environment)
        assert self.process.stdout is not None
        self.address = self.process.stdout.readline().split()[3].rstrip("/")
        told = re.search(r"https://[^:]+:(\d+)/", self.process.stdout.readline())
        assert told is not None
        self.shop_port = int(told[1])

    def stop(self) -> None:
        self.process.kill()
        self.process.wait()


@pytest.fixture
def server(tmp_path: Path):
    started = ShopServer(tmp_path / "shop.sqlite")
    yield started
    started.stop()


def connection(port: int, secret: bool) -> socket.socket | None:
    """One that sends a little and then nothing: plain bytes, or the beginning of a secret."""
    made = socket.socket()
    made.settimeout(2)
    try:
        made.connect(("127.0.0.1", port))
        made.send(b"\x16\x03\x01\x02" if secret else b"GET / HTTP/1.1\r\nhost: 127.0.0.1\r\nx: ")
        return made
    except OSError:
        made.close()
        return None


@pytest.mark.soak
@pytest.mark.long
def test_the_main_screen_answers_while_the_shop_port_is_flooded(server: ShopServer) -> None:
    """Twelve hundred connections, half of them in the middle of a TLS handshake, held for a while (three minutes in a soak)."""
    held = [connection(server.shop_port, secret=at % 2 == 0) for at in range(1200)]
    slowest, ends = 0.0, time.monotonic() + (180 if SOAK else 4)
    asked = 0
    with httpx.Client(base_url=server.address, timeout=10) as client:
        while time.monotonic() < ends:
            for address in ("/api/jobs", "/api/health", "/", "/api/rack"):
                began = time.monotonic()
                assert client.get(address).status_code == 200
                slowest, asked = max(slowest, time.monotonic() - began), asked + 1
            if SOAK:  # those that were ended come again
                held = [
                    one if one is not None and at % 3 else connection(server.shop_port, at % 2 == 0)
                    for at, one in enumerate(held)
                ]
    print(f"{asked} answers, the slowest after {slowest:.2f} s, {many(1)} times as usual")
    for one in held:
        if one is not None:
            one.close()
    time.sleep(0.2)
    open_again = connection(server.shop_port, secret=False)
    assert open_again is not None
    open_again.close()


def test_a_request_without_an_end_is_ended_and_a_head_without_one_is_refused(tmp_path: Path, server: ShopServer) -> None:
    trusting = ssl.create_default_context()
    trusting.check_hostname, trusting.verify_mode = False, ssl.CERT_NONE
    with socket.create_connection(("127.0.0.1", server.shop_port), timeout=5) as plain, trusting.wrap_socket(plain) as made:
        made.sendall(b"GET /api/pairing HTTP/1.1\r\nhost: 127.0.0.1\r\nx: ")
        told = b""
        try:
            for _ in range(200):
                made.sendall(b"y" * 65536)
            told = made.recv(100)
        except OSError:
            told = told or b"ended"
        assert told.startswith((b"HTTP/1.1 431", b"ended"))
    with httpx.Client(base_url=f"https://127.0.0.1:{server.shop_port}", verify=False) as client:
        assert client.get("/api/pairing").json()["let_in"] is False
        assert client.get("/api/pairing", headers={"x": "y" * 30_000}).status_code == 200


def test_guests_are_counted_in_all_and_by_address() -> None:
    here = Guests(most=5, of_one=2)
    assert [here.enter("10.0.0.1") for _ in range(3)] == [True, True, False]
    assert [here.enter(f"10.0.0.{at}") for at in range(2, 7)] == [True, True, True, False, False]
    here.leave("10.0.0.1")
    assert here.enter("10.0.0.9")
    assert 32 <= most_guests() <= 400


@pytest.mark.parametrize("sent", [b"", b"GET / HTTP/1.1\r\nhost: 127.0.0.1\r\nx: y"])
def test_a_connection_that_dawdles_is_ended(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, sent: bytes) -> None:
    monkeypatch.setattr(guests, "HEAD_S", 0.3)
    served = serve(tmp_path / "shop.sqlite", demo=False, shop=True)
    try:
        with socket.create_connection(("127.0.0.1", int(served.shop.rsplit(":", 1)[1])), timeout=10) as held:
            held.sendall(sent)
            with contextlib.suppress(ConnectionResetError):
                assert held.recv(10) == b""
    finally:
        served.stop()
