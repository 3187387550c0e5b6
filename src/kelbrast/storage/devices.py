"""The devices that were paired, in a file of their own beside the database.

They are no part of it on purpose: a copy of the database gives nobody a way in, putting an old backup back brings no device
back that was taken off, and a new computer asks every device again.
"""

import json
import os
from collections.abc import Sequence
from dataclasses import asdict, dataclass, fields
from datetime import datetime
from pathlib import Path
from typing import Any, Final

from kelbrast.storage.trouble import told

_OWNER_ONLY: Final = 0o600


@dataclass(frozen=True, slots=True)
class Device:
    """A paired tablet or phone. `key`: hash of its session's token, which itself is kept nowhere but in the device."""

    id: int
    name: str
    key: str
    paired_at: datetime
    until: datetime
    seen_at: datetime


def devices_file(database: Path) -> Path:
    """Where the devices of this database's shop stand."""
    return shop_folder(database) / "devices.json"


def shop_folder(database: Path) -> Path:
    """What belongs to this computer's door to the shop, and not to the shop's data."""
    return database.with_name(f"{database.stem}-shop")


def read_devices(path: Path) -> tuple[int, list[Device]]:
    """How many were ever paired, and those that are. A file that cannot be read lets nobody in.

    Raises:
        StoreTrouble: there is no right to read it.
    """
    with told(path):
        if not path.is_file():
            return 0, []
        text = path.read_text(encoding="utf-8")
    try:
        kept = json.loads(text)
        return int(kept["ever"]), [_device(one) for one in kept["devices"]]
    except (ValueError, KeyError, TypeError, AttributeError):
        return 0, []


def write_devices(path: Path, ever: int, devices: Sequence[Device]) -> None:
    """Keep them: the file is whole or as it was, and only its owner can read it.

    Raises:
        StoreTrouble: there is no room, or no right to write there.
    """
    document = {"ever": ever, "devices": [asdict(device) for device in devices]}
    write_private(path, json.dumps(document, default=datetime.isoformat, indent=1).encode())


def write_private(path: Path, data: bytes) -> None:
    """Write a file that only its owner can read; it is whole or as it was.

    Raises:
        StoreTrouble: there is no room, or no right to write there.
    """
    part = path.with_name(path.name + ".part")
    with told(path):
        path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        part.unlink(missing_ok=True)
        with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, _OWNER_ONLY), "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        part.replace(path)


def _device(kept: dict[str, Any]) -> Device:
    times = {name: datetime.fromisoformat(kept[name]) for name in ("paired_at", "until", "seen_at")}
    return Device(**{field.name: times.get(field.name, kept[field.name]) for field in fields(Device)})
