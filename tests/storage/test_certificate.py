"""The certificate that the program makes for itself, shaken hands with by Python's own TLS."""

import socket
import ssl
import threading
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from kelbrast.storage.certificate import ShopCertificate

NAMES, ADDRESSES = ["workshop", "workshop.local"], ["127.0.0.1", "192.168.7.5"]


def shakes_hands(certificate: ShopCertificate, root: Path, name: str) -> None:
    """A client that trusts this root and asks for this name; whatever it does not like is raised."""
    server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    server.load_cert_chain(certificate.shown, certificate.key)
    client = ssl.create_default_context(cafile=str(root))
    here, there = socket.socketpair()

    def answer() -> None:
        try:
            server.wrap_socket(there, server_side=True).close()
        except OSError:
            there.close()

    answering = threading.Thread(target=answer)
    answering.start()
    try:
        client.wrap_socket(here, server_hostname=name).close()
    finally:
        here.close()
        answering.join()


@pytest.fixture
def made(tmp_path: Path) -> ShopCertificate:
    certificate = ShopCertificate(tmp_path / "shop")
    assert certificate.make_sure(NAMES, ADDRESSES)
    return certificate


def test_whoever_trusts_the_root_can_talk_to_it_by_every_name(made: ShopCertificate) -> None:
    for name in (*NAMES, *ADDRESSES):
        shakes_hands(made, made.root, name)
    for name in ("other.local", "192.168.7.6", "example.org"):
        with pytest.raises(ssl.SSLCertVerificationError):
            shakes_hands(made, made.root, name)


def test_another_computers_root_does_not_vouch_for_it(made: ShopCertificate, tmp_path: Path) -> None:
    other = ShopCertificate(tmp_path / "other")
    other.make_sure(NAMES, ADDRESSES)
    with pytest.raises(ssl.SSLCertVerificationError):
        shakes_hands(made, other.root, "workshop.local")


def test_its_root_can_not_vouch_for_the_rest_of_the_world(made: ShopCertificate, tmp_path: Path) -> None:
    """Even with its stolen key: what is signed for a public name or address is refused by whoever trusts the root."""
    root, key = made.root.read_bytes(), (made.root.parent / "root.key").read_bytes()
    for name in ("example.org", "93.184.216.34"):
        forged = ShopCertificate(tmp_path / name)
        forged.root.parent.mkdir()
        forged.root.write_bytes(root)
        forged._root_key.write_bytes(key)
        forged._kept_root = lambda names, now, real=forged._kept_root: real(NAMES, now)  # the program itself would refuse
        address = name[0].isdigit()
        forged.make_sure(NAMES if address else [*NAMES, name], [name] if address else ADDRESSES)
        with pytest.raises(ssl.SSLCertVerificationError, match="permitted subtree"):
            shakes_hands(forged, made.root, name)


def test_it_is_made_anew_only_when_it_must_be(made: ShopCertificate) -> None:
    root, now = made.root.read_bytes(), datetime.now(UTC)
    assert not made.make_sure(NAMES, ADDRESSES)
    assert not made.make_sure(NAMES, ADDRESSES[:1], now + timedelta(days=300))
    assert made.make_sure(NAMES, [*ADDRESSES, "10.0.0.9"])  # the network gave it another address
    shakes_hands(made, made.root, "10.0.0.9")
    assert made.make_sure(NAMES, ADDRESSES, now + timedelta(days=350))  # its year is nearly over
    assert made.root.read_bytes() == root  # nobody has to trust anything anew
    assert made.make_sure(["bench", "bench.local"], ADDRESSES)  # the computer has another name: its root may not say it
    assert made.root.read_bytes() != root


def test_damaged_files_are_made_anew(made: ShopCertificate) -> None:
    for file in (made.shown, made.key, made.root):
        file.write_bytes(b"not a certificate")
        if file == made.key:
            made.shown.unlink()
        assert made.make_sure(NAMES, ADDRESSES)
        shakes_hands(made, made.root, "workshop")


def test_its_keys_are_for_nobody_else(made: ShopCertificate) -> None:
    assert [path.stat().st_mode & 0o077 for path in made.root.parent.iterdir()] == [0, 0, 0, 0]
    assert made.root.parent.stat().st_mode & 0o077 == 0
    assert len(made.fingerprint) == 95
