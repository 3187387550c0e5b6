"""How far one computer and one file go: a shop of many years, thirty tablets, and what is asked of it meanwhile.

`PYTHONPATH=src .venv/bin/python bench/scale.py [--jobs 10000 --runs 100000 --items 5000 --faces 200 --tablets 30 --seconds 30]`
prints the tables of docs/scale.md. The database is made by copying rows of the demo workshop.
"""

import argparse
import asyncio
import json
import os
import socket
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
import uuid
from pathlib import Path
from typing import Any

import httpx

from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo
from kelbrast.demo.workshop import demo_jobs

LIST_TIMES = 3


def fill(path: Path, asked: argparse.Namespace) -> int:
    """A database with so much in it; the id of a job with so many faces."""
    jobs = Jobs.open(path)
    load_demo(jobs, with_past=True)
    collar = next(one for one in demo_jobs() if one.title == "Gallery rail collar")
    face = collar.faces[0]
    many = [face.model_copy(update={"name": f"face {number}"}) for number in range(asked.faces)]
    large = jobs.add(collar.model_copy(update={"title": "Two hundred faces", "faces": many})).id
    jobs.close()
    with sqlite3.connect(path) as raw:
        raw.execute("PRAGMA synchronous=OFF")
        for number in range(asked.jobs):
            raw.execute(
                "insert into jobs (revision, created_at, updated_at, title, material, customer, due, state, document)"
                " select 1, created_at, datetime(updated_at, ? || ' minutes'), title || ' ' || ?, material,"
                " 'Customer ' || ?, due, 'delivered', document from jobs where id = 1 + ? % 11",
                (-number, number, number % 700, number),
            )
        runs = [key for (key,) in raw.execute("select id from runs where status = 'finished' order by id")]
        copied = [name for _, name, *_ in raw.execute("PRAGMA table_info(runs)") if name not in ("id", "began_at", "title")]
        first = raw.execute("select max(id) from runs").fetchone()[0] + 1
        names = ", ".join(copied)
        for number in range(asked.runs):
            raw.execute(
                f"insert into runs (id, title, began_at, {names}) select ?, title || ' ' || ?,"
                f" datetime(began_at, ? || ' minutes'), {names} from runs where id = ?",
                (first + number, number, -number * 20, runs[number % len(runs)]),
            )
        raw.execute("create temp table source (old integer, new integer)")
        raw.executemany("insert into source values (?, ?)", ((runs[n % len(runs)], first + n) for n in range(asked.runs)))
        for table, columns in {
            "run_events": "number, tap, form, document",
            "run_steps": "tool, item, seconds, ended_at",
            "observations": "carrier, family, quantity, ratio",
        }.items():
            raw.execute(
                f"insert into {table} (run_id, {columns}) select new, {columns} from source join {table} on run_id = old"
            )
        items = [name for _, name, *_ in raw.execute("PRAGMA table_info(rack_items)") if name != "id"]
        there = [key for (key,) in raw.execute("select id from rack_items")]
        copy = f"insert into rack_items ({', '.join(items)}) select {', '.join(items)} from rack_items where id = ?"
        raw.executemany(copy, ((there[number % len(there)],) for number in range(asked.items)))
    return large


def serve(path: Path) -> tuple[subprocess.Popen[bytes], str, float]:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    began = time.perf_counter()
    server = subprocess.Popen(
        [sys.executable, "-m", "kelbrast", "serve", "--database", str(path), "--port", str(port)], stdout=subprocess.DEVNULL
    )
    address = f"http://127.0.0.1:{port}"
    while True:
        try:
            httpx.get(f"{address}/api/health", timeout=60)
            return server, address, time.perf_counter() - began
        except httpx.HTTPError:
            time.sleep(0.05)


def memory_mb(pid: int) -> float:
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith("VmRSS")) / 1024


def looked(address: str, large: int) -> None:
    """What a person waits for, the first time and then."""
    asked = {
        "the first page of the jobs": "/api/jobs",
        "jobs by two words": "/api/jobs?words=gauge%20customer",
        "the hundredth page": "/api/jobs?offset=9900",
        "the first page of the log": "/api/log",
        "the log by a word": "/api/log?text=bush",
        "the log by a tool": "/api/log?tool=paper-p240",
        "the rack": "/api/rack",
        "what was learnt": "/api/learning",
        "what is due": "/api/upkeep",
        "the day": "/api/day",
        "the plan of the large job": f"/api/jobs/{large}/plan",
    }
    print("| asked | first, ms | then, ms | kB |\n|---|---|---|---|")
    with httpx.Client(base_url=address, timeout=120) as client:
        for name, way in asked.items():
            taken = []
            for _ in range(LIST_TIMES):
                began = time.perf_counter()
                answer = client.get(way)
                taken.append(1000 * (time.perf_counter() - began))
                assert answer.status_code == 200, (way, answer.text[:200])
            print(f"| {name} | {taken[0]:.0f} | {statistics.median(taken[1:]):.0f} | {len(answer.content) / 1000:.0f} |")


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
    async with httpx.AsyncClient(base_url=address, timeout=60) as client:
        jobs = (await client.get("/api/jobs", params={"limit": tablets, "words": "customer"})).json()["jobs"]
        runs = [(await client.post(f"/api/jobs/{one['id']}/runs")).json() for one in jobs if one["state"] == "ready"]
        await asyncio.gather(*(tablet(client, run, seconds, taps, polls) for run in runs))
    print(f"\n{len(runs)} tablets, {len(taps)} taps in {seconds:.0f} s\n")
    print("| | median, ms | 95 %, ms | longest, ms |\n|---|---|---|---|")
    for name, times in (("a tap, kept on the disk and answered", taps), ("is there a newer event?", polls)):
        cut = statistics.quantiles(times, n=20)
        print(f"| {name} | {statistics.median(times):.0f} | {cut[-1]:.0f} | {max(times):.0f} |")


def main() -> None:
    reader = argparse.ArgumentParser()
    for name, usual in {"jobs": 10_000, "runs": 100_000, "items": 5000, "faces": 200, "tablets": 30, "seconds": 30}.items():
        reader.add_argument(f"--{name}", type=int, default=usual)
    asked = reader.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "shop.sqlite"
        began = time.perf_counter()
        large = fill(path, asked)
        print(
            json.dumps(vars(asked)),
            f"made in {time.perf_counter() - began:.0f} s, {path.stat().st_size / 1e6:.0f} MB, {os.cpu_count()} cores",
        )
        server, address, started = serve(path)
        try:
            print(f"answers {started:.1f} s after the start, {memory_mb(server.pid):.0f} MB\n")
            looked(address, large)
            print(f"\n{memory_mb(server.pid):.0f} MB after that")
            asyncio.run(benches(address, asked.tablets, asked.seconds))
            print(f"\n{memory_mb(server.pid):.0f} MB at the end")
            began = time.perf_counter()
            made = httpx.post(f"{address}/api/backups", timeout=600)
            print(f"a backup: {time.perf_counter() - began:.1f} s ({made.status_code})")
        finally:
            server.terminate()
            server.wait()


if __name__ == "__main__":
    main()
