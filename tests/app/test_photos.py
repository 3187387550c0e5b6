"""Photos of parts, what the eye opens, the addresses of this computer, and the watch over what is kept."""

import io
import socket
from datetime import datetime
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import psutil
import pytest
from PIL import Image

from kelbrast.app import health as health_module
from kelbrast.app.eye import opened
from kelbrast.app.health import Health, Watch
from kelbrast.app.jobs import Jobs
from kelbrast.app.pairing import addresses_here, reachable_here
from kelbrast.app.photos import PartPhotos
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage.backups import Backups


def picture(kind: str, size: tuple[int, int] = (900, 600)) -> bytes:
    data = io.BytesIO()
    Image.new("RGB", size, (90, 120, 60)).save(data, kind)
    return data.getvalue()


def test_a_job_shows_the_first_photo_of_its_part_in_small(jobs: Jobs, collar: dict[str, Any]) -> None:
    photos = PartPhotos(jobs.engine)
    kept = jobs.add(check_job_file(collar))
    assert photos.thumbnail(kept.id) is None
    first = photos.add(kept.id, picture("PNG"), shows="before")
    photos.add(kept.id, picture("PNG", (600, 900)), shows="after")
    data = photos.thumbnail(kept.id)
    assert data is not None
    with Image.open(io.BytesIO(data)) as small:
        assert small.format == "JPEG"
        assert small.width > small.height  # the first, and not the second
        assert small.width < first.width


def test_the_eye_opens_what_cameras_write_and_nothing_else() -> None:
    for kind in ("JPEG", "PNG"):
        assert opened(picture(kind)).grey.shape == (600, 900)
    for kind in ("WEBP", "BMP", "GIF"):
        with pytest.raises(BadInput):
            opened(picture(kind))


def test_addresses_are_of_the_fourth_version_with_the_computers_own_last(monkeypatch: pytest.MonkeyPatch) -> None:
    def told(family: int, address: str) -> SimpleNamespace:
        return SimpleNamespace(family=family, address=address)

    cards = {
        "lo": [told(socket.AF_INET, "127.0.0.1"), told(socket.AF_INET6, "::1")],
        "eth0": [told(socket.AF_INET6, "fe80::1"), told(socket.AF_INET, "169.254.3.4"), told(socket.AF_INET, "192.168.1.7")],
    }
    monkeypatch.setattr(psutil, "net_if_addrs", lambda: cards)
    assert addresses_here() == ["192.168.1.7", "169.254.3.4", "127.0.0.1"]
    assert reachable_here() == ["192.168.1.7", "169.254.3.4"]
    monkeypatch.setattr(psutil, "net_if_addrs", lambda: {"lo": cards["lo"]})
    assert reachable_here() == ["127.0.0.1"]


@pytest.mark.parametrize(("count", "more"), [(1, ""), (3, ""), (5, " and 2 more")])
def test_what_cannot_be_read_is_told_three_at_most(
    jobs: Jobs, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, count: int, more: str
) -> None:
    monkeypatch.setattr(health_module, "unreadable", lambda *_, **__: [f"job {at}" for at in range(count)])
    watched = Health(jobs)
    Watch(jobs, Backups(tmp_path / "kept.sqlite"), watched).begin(datetime(2026, 11, 30, 9, 0))
    (trouble,) = watched.troubles()
    listed = "; ".join(f"job {at}" for at in range(min(3, count)))
    assert f"{listed}{more}." in trouble.said


def test_what_fails_while_it_is_looked_after_is_told_by_its_concern_until_it_is_well(jobs: Jobs, tmp_path: Path) -> None:
    class Failing(Backups):
        failing = True

        def check(self) -> None:
            if self.failing:
                raise BadInput.one("", "page 7 is pullout_life_factor")

    backups, watched = Failing(tmp_path / "kept.sqlite"), Health(jobs)
    Watch(jobs, backups, watched).look(datetime(2026, 11, 30, 9, 0))
    assert [(trouble.concern, "page 7" in trouble.said) for trouble in watched.troubles()] == [("damaged", True)]
    backups.failing = False
    Watch(jobs, backups, watched).look(datetime(2026, 11, 30, 10, 0))
    assert watched.troubles() == []
