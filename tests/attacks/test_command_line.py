"""The command line on bad output, interrupted at any moment, and started in strange places: one line, never a traceback."""

import json
import os
import random
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from attacking import chance, many
from commanding import ROOT
from kelbrast.app.jobs import Jobs

COMMAND = [sys.executable, "-m", "kelbrast"]


def run(*arguments: str, out: int = subprocess.PIPE, **environment: str) -> subprocess.CompletedProcess[bytes]:
    told = subprocess.run(
        [*COMMAND, *arguments], stdout=out, stderr=subprocess.PIPE, cwd=ROOT, timeout=60, env={**os.environ, **environment}
    )
    assert b"Traceback" not in told.stderr, told.stderr
    return told


@pytest.mark.soak
def test_letters_that_the_terminal_does_not_have_are_escaped() -> None:
    job = str(ROOT / "examples" / "01-gallery-rail-collar.job.json")
    whole = json.loads(run("plan", job, "--format", "json", PYTHONIOENCODING="utf-8").stdout.decode())
    for encoding in ("ascii", "latin-1")[: many(1)]:
        assert run("weigh", job, PYTHONIOENCODING=encoding).returncode == 0
        told = run("plan", job, "--format", "json", PYTHONIOENCODING=encoding)
        assert json.loads(told.stdout.decode(encoding)) == whole


@pytest.mark.soak
def test_output_that_cannot_be_written_is_said_in_a_line() -> None:
    with open("/dev/full", "w") as full:
        told = run("list", "tools", out=full.fileno())
    assert told.returncode == 2
    assert told.stderr.decode().splitlines() == ["The output cannot be written: No space left on device"]
    reading, writing = os.pipe()
    os.close(reading)  # whoever read has gone
    assert run("list", "tools", out=writing).stderr == b""
    os.close(writing)


def test_ctrl_c_at_any_moment_of_the_start_ends_it_quietly(tmp_path: Path) -> None:
    luck: random.Random = chance("ctrl c")
    for at in range(many(2)):
        database = tmp_path / f"{at}.sqlite"
        started = subprocess.Popen(
            [*COMMAND, "demo", "--database", str(database), "--port", "0"],
            stdout=subprocess.PIPE,
            stderr=subprocess.PIPE,
            cwd=ROOT,
        )
        time.sleep(luck.uniform(0.3, 3.0))
        started.send_signal(signal.SIGINT)
        _, said = started.communicate(timeout=30)
        assert b"Traceback" not in said, said.decode()
        assert started.returncode is not None
        Jobs.open(database).close()  # whole, or not begun


@pytest.mark.soak
@pytest.mark.parametrize("name", ["Werkstatt für Öfen, дело"])
def test_a_folder_of_any_name(tmp_path: Path, name: str) -> None:
    folder = tmp_path / name
    folder.mkdir()
    database = folder / "shop.sqlite"
    Jobs.open(database).close()
    for arguments in (("doctor",), ("export", str(folder / "all.zip"))):
        assert run(*arguments, "--database", str(database)).returncode == 0
    assert run("restore", str(folder / "all.zip"), "--database", str(database), "--yes").returncode == 0


@pytest.mark.soak
def test_a_folder_that_cannot_be_written_to(tmp_path: Path) -> None:
    """As root everything can be written to; a folder that is a file cannot."""
    (tmp_path / "file").write_text("")
    told = run("serve", "--database", str(tmp_path / "file" / "shop.sqlite"), "--port", "0")
    assert told.returncode == 2
    assert len(told.stderr.decode().splitlines()) == 1
    folder = tmp_path / "read only"
    folder.mkdir(mode=0o500)
    needed = [] if os.geteuid() == 0 else [folder]
    codes = [run("serve", "--database", str(one / "shop.sqlite"), "--port", "0").returncode for one in needed]
    assert codes == [2] * len(needed)


@pytest.mark.soak
def test_two_servers_on_one_database(tmp_path: Path) -> None:
    database = tmp_path / "shop.sqlite"
    first = subprocess.Popen(
        [*COMMAND, "serve", "--database", str(database), "--port", "0"], stdout=subprocess.PIPE, cwd=ROOT,
        env={**os.environ, "PYTHONUNBUFFERED": "1"}, text=True,
    )  # fmt: skip
    assert first.stdout is not None
    address = first.stdout.readline().split()[3]
    told = run("serve", "--database", str(database), "--port", "0")
    assert told.returncode == 2
    assert address in told.stderr.decode()
    first.kill()  # as a computer that loses its current
    first.wait()
    again = subprocess.Popen(
        [*COMMAND, "serve", "--database", str(database), "--port", "0"], stdout=subprocess.PIPE, cwd=ROOT,
        env={**os.environ, "PYTHONUNBUFFERED": "1"}, text=True,
    )  # fmt: skip
    assert again.stdout is not None
    assert again.stdout.readline().startswith("Kelbrast is at")
    again.kill()
    again.wait()
