"""Pairing: a code on the main screen, typed once on a tablet or phone, lets that device in until it is taken off; and under
which names the network knows this computer."""

import hashlib
import re
import secrets
import socket
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address
from pathlib import Path
from typing import Final

import psutil

from kelbrast.core.errors import BadInput, NotFound, NotLetIn, TooSoon
from kelbrast.storage.devices import Device, read_devices, write_devices

# OWASP ASVS 4.0.3: a code lives ten minutes at most (2.7.2) and is used once (2.7.3); a session ends after thirty days (3.3.2).
CODE_LIVES: Final = timedelta(minutes=10)
SESSION_LIVES: Final = timedelta(days=30)
LETTERS: Final = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"  # none that is taken for another
CODE_LENGTH: Final = 8  # 40 bits
TOKEN_BYTES: Final = 32
WRONG_TRIES: Final = 5  # then the code is void
LONGEST_WAIT: Final = timedelta(minutes=1)
MOST_DEVICES: Final = 100
_SEEN_EVERY: Final = timedelta(minutes=1)  # a file is not written for every request


@dataclass(frozen=True, slots=True)
class Code:
    """A code as it is shown, until when it holds by the clock on the wall, and when it ends by the one that only goes on."""

    letters: str
    until: datetime
    ends: float

    @property
    def shown(self) -> str:
        return f"{self.letters[:4]}-{self.letters[4:]}"


@dataclass(frozen=True, slots=True)
class Wrong:
    """The last wrong code: from which address, and how many since the code was shown."""

    address: str
    times: int


def _utc() -> datetime:
    return datetime.now(UTC)


class Pairing:
    """The devices of one shop, and the code that is shown now. Codes live in memory only and end with the program.

    What lasts minutes is counted by a clock that nobody sets; only the month of a session is by the date, and a session that is
    over by it is refused but not forgotten: the date may be wrong.
    """

    def __init__(self, path: Path, clock: Callable[[], datetime] = _utc, ticks: Callable[[], float] = time.monotonic) -> None:
        self._path, self._clock, self._ticks, self._lock = path, clock, ticks, threading.Lock()
        self._code: Code | None = None
        self._wrong: Wrong | None = None
        self._not_before = ticks()
        self._ever, devices = read_devices(path)
        self._devices = {device.id: device for device in devices}

    def show_code(self) -> Code:
        """A new code; the one before holds no more."""
        letters = "".join(secrets.choice(LETTERS) for _ in range(CODE_LENGTH))
        with self._lock:
            ends = self._ticks() + CODE_LIVES.total_seconds()
            self._code, self._wrong = Code(letters, self._clock() + CODE_LIVES, ends), None
            return self._code

    def hide_code(self) -> None:
        """No code holds any more."""
        with self._lock:
            self._code = None

    @property
    def code(self) -> Code | None:
        """The code that holds now."""
        with self._lock:
            return self._live_code()

    @property
    def wrong(self) -> Wrong | None:
        """Wrong codes since the last one was shown."""
        return self._wrong

    def pair(self, given: str, name: str, address: str, instead_of: Device | None = None) -> tuple[Device, str]:
        """Let a device in that gives the code. Returns it with its token, which is told this once.

        Args:
            address: where it asks from.
            instead_of: the device that this one was until now; it has a new session then, and the old one ends.

        Raises:
            TooSoon: there were wrong codes, and the next is not looked at yet.
            NotLetIn: the code is wrong, or none holds.  BadInput: it has no name.
        """
        name = " ".join(name.split())
        if not name:
            raise BadInput.one("name", "say which device this is, as you would call it in the shop")
        with self._lock:
            now, ticks = self._clock(), self._ticks()
            if ticks < self._not_before:
                raise TooSoon(self._not_before - ticks)
            code = self._live_code()
            if not secrets.compare_digest(_plain(given).encode(), (code.letters if code else "none").encode()):
                self._was_wrong(address, ticks)
                raise NotLetIn("That is not the code on the main screen now. Look there again; it may have been replaced")
            if sum(now < device.until for device in self._devices.values()) >= MOST_DEVICES and instead_of is None:
                raise BadInput.one("name", f"{MOST_DEVICES} devices are paired; take one off first")
            token = secrets.token_urlsafe(TOKEN_BYTES)
            device = Device(self._ever + 1, name, _hash(token), now, now + SESSION_LIVES, now)
            gone = {instead_of.id} if instead_of is not None else set()
            # On the disk first: where there is no room, nobody is let in and the code still holds.
            self._keep(
                {key: device for key, device in self._devices.items() if key not in gone} | {device.id: device}, device.id
            )
            self._code = self._wrong = None
            return device, token

    def who(self, token: str) -> Device | None:
        """The device that this token was given to, if it is still let in."""
        key = _hash(token)
        with self._lock:
            now = self._clock()
            found = next((device for device in self._devices.values() if secrets.compare_digest(device.key, key)), None)
            if found is None or now >= found.until:
                return None
            if abs(now - found.seen_at) >= _SEEN_EVERY:
                found = replace(found, seen_at=now)
                self._keep({**self._devices, found.id: found}, self._ever)
            return found

    @property
    def devices(self) -> list[Device]:
        """Every device that is let in, the newest first."""
        with self._lock:
            now = self._clock()
            return sorted((device for device in self._devices.values() if now < device.until), key=lambda device: -device.id)

    def take_off(self, device_id: int) -> None:
        """Let a device in no more; what it asks next is refused.

        Raises:
            NotFound: no such device.
        """
        with self._lock:
            if self._devices.pop(device_id, None) is None:
                raise NotFound("device", str(device_id))
            self._keep(self._devices, self._ever)  # refused from now on, also where it cannot be written down

    def _was_wrong(self, address: str, ticks: float) -> None:
        """Each wrong code doubles the wait for the next; after a few the code itself is void."""
        times = self._wrong.times + 1 if self._wrong else 1
        self._wrong = Wrong(address, times)
        self._not_before = ticks + min(2.0 ** min(times, 10), LONGEST_WAIT.total_seconds())
        if times >= WRONG_TRIES:
            self._code = None

    def _live_code(self) -> Code | None:
        if self._code is not None and self._ticks() >= self._code.ends:
            self._code = None
        return self._code

    def _keep(self, devices: dict[int, Device], ever: int) -> None:
        """Write them down, and then know them; of those whose month is over only the newest are remembered."""
        now = self._clock()
        over = sorted((key for key, device in devices.items() if now >= device.until), reverse=True)
        kept = {key: device for key, device in devices.items() if key not in over[MOST_DEVICES:]}
        write_devices(self._path, ever, list(kept.values()))
        self._devices, self._ever = kept, ever


def _plain(given: str) -> str:
    """A code as somebody types it: in small letters, with a dash or without."""
    return "".join(given.upper().split()).replace("-", "")


def _hash(token: str) -> str:
    # The token has 256 random bits, so that a plain hash is as good as a slow one.
    return hashlib.sha256(token.encode()).hexdigest()


_NAME: Final = re.compile(r"[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*")


def names_here() -> list[str]:
    """The host's name, and the same as the network's own name service says it."""
    name = socket.gethostname().lower()
    plain = name.split(".")[0]
    return [known for known in dict.fromkeys((name, f"{plain}.local")) if _NAME.fullmatch(known)] or ["kelbrast.local"]


def addresses_here() -> list[str]:
    """The addresses (IPv4) of this computer in every network that it is in now; those of cables and radio before its own."""
    found = [one.address for addr in psutil.net_if_addrs().values() for one in addr if one.family == socket.AF_INET]
    return sorted(
        dict.fromkeys(found), key=lambda address: (ip_address(address).is_loopback, ip_address(address).is_link_local)
    )


def reachable_here() -> list[str]:
    """The addresses that another device can use; without a network only this computer's own."""
    every = addresses_here()
    return [one for one in every if not ip_address(one).is_loopback] or every
