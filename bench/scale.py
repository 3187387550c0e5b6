"""How one computer and one file feel after years: what a person waits for, in the demo workshop and in one of eight people and
five years.

`PYTHONPATH=src .venv/bin/python bench/scale.py` prints the tables of docs/scale.md; `--keep FILE` keeps the database that is
made, or uses it again.
"""

import argparse
import asyncio
import os
import shutil
import socket
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
import uuid
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import fields
from pathlib import Path
from typing import Any

import httpx
from shop_of_years import Size, fill

from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo

TIMES = 3


@contextmanager
def served(path: Path) -> Iterator[tuple[str, int, float]]:
    """Address and process of a server over this database, and seconds from its start to its first answer."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    began = time.perf_counter()
    command = [sys.executable, "-m", "kelbrast", "serve", "--database", str(path), "--port", str(port)]
    server = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    try:
        address = f"http://127.0.0.1:{port}"
        while True:
            try:
                httpx.get(f"{address}/api/health", timeout=600)
                break
            except httpx.HTTPError:
                time.sleep(0.02)
        yield address, server.pid, time.perf_counter() - began
    finally:
        server.terminate()
        server.wait()


def memory_mb(pid: int, what: str = "VmRSS") -> float:
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith(what)) / 1024


def questions(path: Path, large: int) -> dict[str, str]:
    """What a person looks at, by the address that answers it."""
    with closing(sqlite3.connect(path)) as raw:
        (run,) = raw.execute("select id from runs where status = 'finished' order by id desc limit 1").fetchone()
        (job,) = raw.execute("select job_id from quotes order by id desc limit 1").fetchone() or (1,)
    return {
        "the jobs": "/api/jobs?limit=50&within_ms=150",
        "the jobs by their promises": "/api/jobs?by=due&limit=50&within_ms=150",
        "jobs by two words": "/api/jobs?words=collar%20customer&limit=50&within_ms=150",
        "jobs by a word that is in none": "/api/jobs?words=quince&limit=50&within_ms=150",
        "a page far down": "/api/jobs?offset=9900&limit=50&within_ms=150",
        "a job's quotes": f"/api/jobs/{job}/quotes",
        "the log": "/api/log",
        "the log by a word": "/api/log?text=bush",
        "the log by a tool": "/api/log?tool=paper-p240",
        "a run's page": f"/api/runs/{run}/page",
        "the parts at the gauge": "/api/sizes",
        "the rack": "/api/rack",
        "what was learnt": "/api/learning",
        "what is due": "/api/upkeep",
        "the schedule": "/api/day",
        "who was right": "/api/log/eye",
        "practice": "/api/practice/people",
        "prices told": "/api/quotes.csv",
        "backups": "/api/backups",
        f"the plan of job {large}": f"/api/jobs/{large}/plan",
    }


def asked(address: str, ways: dict[str, str]) -> dict[str, tuple[float, float, float]]:
    """Of each question: milliseconds of the first answer, and of the next ones, and its kilobytes."""
    found = {}
    with httpx.Client(base_url=address, timeout=600) as client:
        for name, way in ways.items():
            print(f"{name} ...", end="\r", file=sys.stderr, flush=True)
            taken = []
            for _ in range(TIMES):
                began = time.perf_counter()
                answer = client.get(way)
                taken.append(1000 * (time.perf_counter() - began))
                assert answer.status_code == 200, (way, answer.text[:200])
            found[name] = taken[0], statistics.median(taken[1:]), len(answer.content) / 1000
    return found


async def tablet(client: httpx.AsyncClient, run: dict[str, Any], seconds: float, taps: list[float], polls: list[float]) -> None:
    """Taps once a second and asks once a second whether somebody else did, as the screen at the bench does."""
    until, seen, working = time.perf_counter() + seconds, run["seen"], False
    while (now := time.perf_counter()) < until:
        hand = run["hand"]
        at = {"piece": hand["piece"], "face": hand["face"], "route": hand["route"], "step": hand["step"]}
        tap = {"kind": "more", "seconds": 10, **at} if working else {"kind": "started", **at}
        body = {"name": uuid.uuid4().hex, "after": seen, "tap": tap}
        began = time.perf_counter()
        answer = await client.post(f"/api/runs/{run['id']}/taps", json=body)
        taps.append(1000 * (time.perf_counter() - began))
        assert answer.status_code == 200, answer.text
        run, working = answer.json(), True
        seen = run["seen"]
        began = time.perf_counter()
        await client.get(f"/api/runs/{run['id']}", params={"after": seen})
        polls.append(1000 * (time.perf_counter() - began))
        await asyncio.sleep(max(0.0, 1 - (time.perf_counter() - now)))


async def benches(address: str, tablets: int, seconds: float) -> None:
    taps: list[float] = []
    polls: list[float] = []
    async with httpx.AsyncClient(base_url=address, timeout=600) as client:
        page = {"limit": 3 * tablets, "state": ["asked", "quoted", "ordered"]}
        jobs = (await client.get("/api/jobs", params=page)).json()["jobs"]
        ready = [job for job in jobs if job["state"] == "ready"][:tablets]
        runs = [(await client.post(f"/api/jobs/{job['id']}/runs")).json() for job in ready]
        await asyncio.gather(*(tablet(client, run, seconds, taps, polls) for run in runs))
    print(f"\n{len(runs)} tablets, {len(taps)} taps in {seconds:.0f} s\n")
    print("| | median, ms | 95 %, ms | longest, ms |\n|---|---|---|---|")
    for name, times in (("a tap, kept on the disk and answered", taps), ("is there a newer event?", polls)):
        cut = statistics.quantiles(times, n=20)
        print(f"| {name} | {statistics.median(times):.0f} | {cut[-1]:.0f} | {max(times):.0f} |")


def out_and_back(path: Path, folder: Path) -> None:
    """The archive of everything, by the command line: seconds and the most memory of each way."""
    archive, back = folder / "everything.zip", folder / "back.sqlite"
    for said, arguments in (
        ("the archive of everything is written", ["export", str(archive), "--database", str(path)]),
        ("and read back", ["restore", str(archive), "--yes", "--database", str(back)]),
    ):
        began, most = time.perf_counter(), 0.0
        work = subprocess.Popen([sys.executable, "-m", "kelbrast", *arguments], stdout=subprocess.DEVNULL)
        while work.poll() is None:
            try:
                most = max(most, memory_mb(work.pid, "VmHWM"))
            except (OSError, StopIteration):
                break
            time.sleep(0.05)
        print(f"{said}: {time.perf_counter() - began:.0f} s, {most:.0f} MB of memory ({work.wait()})")


def main() -> None:
    reader = argparse.ArgumentParser()
    reader.add_argument("--keep", type=Path)
    reader.add_argument("--tablets", type=int, default=27)
    reader.add_argument("--seconds", type=float, default=30)
    reader.add_argument("--part", choices=("all", "screens", "taps", "archive"), default="all")
    for field in fields(Size):
        reader.add_argument(f"--{field.name}", type=int, default=field.default)
    said = reader.parse_args()
    with tempfile.TemporaryDirectory() as place:
        folder = Path(place)
        path = said.keep or folder / "shop.sqlite"
        began = time.perf_counter()
        if not path.exists():
            fill(path, Size(**{field.name: getattr(said, field.name) for field in fields(Size)}))
        with closing(sqlite3.connect(path)) as raw:
            (large,) = raw.execute("select id from jobs where title = 'Two hundred faces'").fetchone()
        print(f"{path.stat().st_size / 1e9:.1f} GB, {os.cpu_count()} cores, made in {time.perf_counter() - began:.0f} s")
        empty = Jobs.open(folder / "empty.sqlite")
        load_demo(empty, with_past=True)
        empty.close()
        if said.part in ("all", "screens"):
            screens(path, folder / "empty.sqlite", large)
        if said.part in ("all", "taps"):
            with served(path) as (address, pid, _):
                asyncio.run(benches(address, said.tablets, said.seconds))
                print(f"\n{memory_mb(pid):.0f} MB at the end")
        if said.part in ("all", "archive"):
            out_and_back(path, folder)
            with served(path) as (address, _, _):
                for _ in range(2):
                    began, free = time.perf_counter(), shutil.disk_usage(folder).free
                    made = httpx.post(f"{address}/api/backups", timeout=600)
                    took = time.perf_counter() - began
                    print(
                        f"a backup: {took:.1f} s, {(free - shutil.disk_usage(folder).free) / 1e9:.2f} GB ({made.status_code})"
                    )


def screens(path: Path, empty: Path, large: int) -> None:
    """Every screen, in both shops."""
    with served(empty) as (address, pid, few_s):
        few = asked(address, {name: way for name, way in questions(empty, 1).items() if not name.startswith("the plan")})
        few_mb = memory_mb(pid)
    with served(path) as (address, pid, started):
        begun_mb = memory_mb(pid)
        many = asked(address, questions(path, large))
        print(f"answers {started:.1f} s after the start ({few_s:.1f} s with the demo alone); {begun_mb:.0f} MB then,")
        print(f"{memory_mb(pid):.0f} MB after the questions ({few_mb:.0f} MB)\n")
    print("| asked | first, ms | then, ms | with the demo alone | kB |\n|---|---|---|---|---|")
    for name, (first, then, size) in many.items():
        alone = f"{few[name][1]:.0f}" if name in few else ""
        print(f"| {name} | {first:.0f} | {then:.0f} | {alone} | {size:.0f} |")


if __name__ == "__main__":
    main()
