"""Timings and ratios, printed as a table (`make bench`). Nothing here is asserted: machines differ."""

import gzip
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from functools import partial
from pathlib import Path

import httpx
import networkx
import numpy as np
from day_timings import the_day
from light_timings import frames, light
from log_timings import the_log
from playwright.sync_api import sync_playwright

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import figures_of, plan_face
from kelbrast.core.planning.face.routes import RouteRequest, best_route, step_table
from kelbrast.core.planning.face.step_figures import step_figures
from kelbrast.core.planning.kernel.step_table import METAL, TIME
from kelbrast.core.planning.questions.choices import pareto_front
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.rules.book import usable
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found, Spots
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import to_job

CHROMIUM = "/usr/bin/chromium-headless-shell"
ROOT = Path(__file__).parents[1]
Row = tuple[str, str, str]


def median_ms(act: Callable[[], object], times: int = 40) -> float:
    act()
    taken = []
    for _ in range(times):
        begun = time.perf_counter()
        act()
        taken.append(time.perf_counter() - begun)
    return statistics.median(taken) * 1000


def planning() -> list[Row]:
    face = Face("barrel", 0.018, Found("lay", 14e-6, 20e-6), finish("mirror"), limit=120e-6)
    job = Job("collar", material("naval-brass"), (face,), habit="long-steps")
    context = ToolContext.of(face, job)
    graph = step_figures(face, job, usable)
    tight = 0.97 * best_route(graph, RouteRequest()).totals[METAL]  # binds, so that labels are needed
    search, limited = RouteRequest(), RouteRequest(limit=tight)
    table = step_table(graph, search)
    outside = networkx.DiGraph()
    taken = np.flatnonzero(table.steps)
    outside.add_weighted_edges_from(zip(table.before[taken], table.after[taken], table.values[TIME, taken], strict=True))
    outside.add_weighted_edges_from((int(end), "done", 0.0) for end in np.flatnonzero(table.ends))
    theirs = median_ms(lambda: networkx.dijkstra_path(outside, 0, "done"))
    ours, ours_limited = median_ms(lambda: best_route(graph, search)), median_ms(lambda: best_route(graph, limited))
    route = best_route(graph, limited)
    return [
        ("rack", f"{len(tools())} tools", f"{int(table.steps.sum())} steps in the graph"),
        (
            "fit the rack to a face",
            f"{median_ms(lambda: tools_on_face.__wrapped__(context)):.1f} ms",
            "once per kind of face",
        ),
        ("work out all steps", f"{median_ms(lambda: step_figures(face, job, usable)):.1f} ms", ""),
        ("best route, no limit", f"{ours:.1f} ms", f"{ours / theirs:.2f} of networkx Dijkstra ({theirs:.1f} ms)"),
        (
            "best route, tight limit",
            f"{ours_limited:.1f} ms",
            f"{ours_limited / theirs:.2f} of it; {route.kept if route else 0} labels kept",
        ),
        ("plan one face, in process", f"{median_ms(lambda: plan_face(face, job)):.1f} ms", "graph, route, steps, curves"),
        *_with_spots(),
    ]


def _with_spots() -> list[Row]:
    """A worktop with one kind of spots after the other, and twelve such faces together."""
    found = (
        Spots(Found("scratches", 60e-6, 80e-6), 0.08, 0.002, 3, "gouges"),
        Spots(Found("pits", 25e-6, 35e-6), 0.06, 0.06, 1, "pits"),
        Spots(Found("raised", 500e-6, 700e-6), 0.2, 0.006, 1, "bead"),
    )
    top = Face("worktop", 0.9, Found("scratches", 12e-6, 15e-6), finish("brushed-fine"))
    rows: list[Row] = []
    for count in range(1, len(found) + 1):
        face = replace(top, spots=found[:count])
        job = Job("top", material("stainless-304"), (face,))
        graph = figures_of(face, job)
        assert graph is not None
        size = f"{len(graph.graph.row)} states, {len(graph.graph.before)} steps"
        rows.append(
            (f"with {count} kinds of spots", f"{median_ms(lambda face=face, job=job: plan_face(face, job), 15):.1f} ms", size)
        )
    faces = tuple(replace(top, name=f"{n}", area=0.4 + 0.05 * n, spots=found[:2]) for n in range(12))
    job = Job("tops", material("stainless-304"), faces)
    return [*rows, ("twelve faces with two kinds each", f"{median_ms(lambda: plan_job(job), 3):.0f} ms", "")]


def weighing() -> list[Row]:
    """The front of a demanding face, and what the demo workshop saves against working every grade."""
    files = demo_jobs()
    collar = to_job(files[0])
    graph = figures_of(collar.faces[0], collar)
    assert graph is not None
    made = pareto_front(graph, collar)
    rows = [
        (
            "front of one face",
            f"{median_ms(lambda: pareto_front(graph, collar), 10):.0f} ms",
            f"{len(made.routes)} routes that nothing beats; {made.kept} labels kept, {made.pruned} pruned",
        )
    ]
    schools = {
        "best": ("long-steps", "free"),
        "every grade": ("every-grade", "free"),
        "and fine paper": ("every-grade", "fine-paper"),
    }
    minutes = {}
    for name, (habit, handover) in schools.items():
        plans = [plan_job(replace(to_job(file), habit=habit, handover=handover)) for file in files]
        minutes[name] = sum(plan.account.all.hands_on for plan in plans if plan.possible) / 60
    said = ", ".join(f"{name} {value:.0f} min" for name, value in minutes.items())
    return [*rows, ("demo workshop, all pieces", f"{minutes['every grade'] - minutes['best']:.0f} min saved", said)]


def over_http_and_in_the_browser() -> list[Row]:
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "kelbrast", "demo", "--port", "0", "--database", f"{folder}/demo.sqlite"]
        begun = time.perf_counter()
        with subprocess.Popen(
            command, stdout=subprocess.PIPE, text=True, env={**os.environ, "PYTHONUNBUFFERED": "1"}
        ) as server:
            assert server.stdout is not None
            address = server.stdout.readline().split(" at ")[1].split()[0]
            started = time.perf_counter() - begun
            try:
                return [("start with a new database", f"{started:.1f} s", ""), *_http(address), *_browser(address)]
            finally:
                server.terminate()


def _http(address: str) -> list[Row]:
    with httpx.Client(base_url=address) as client:
        job = client.get("api/jobs/9").json()["job"]
        one = {**job, "faces": job["faces"][:1]}
        depth = iter(np.linspace(10, 19, 1000))

        def plan() -> None:  # another depth each time, so that nothing comes from the cache
            one["faces"][0]["found"]["depth_um"]["likely"] = float(next(depth))
            assert client.post("api/plan", json=one).status_code == 200

        def twelve() -> None:  # all aims and all schools of twelve faces
            faces = [
                {
                    **job["faces"][0],
                    "id": f"f{k}",
                    "name": f"face {k}",
                    "found": {"kind": "lay", "depth_um": float(next(depth)) + k},
                }
                for k in range(12)
            ]
            assert client.post("api/choices", json={**job, "faces": faces}).status_code == 200

        return [
            (
                "twelve faces, all aims, HTTP",
                f"{median_ms(twelve, 15):.0f} ms",
                "four aims, three habits, three handovers, two speeds",
            ),
            ("plan one face, over HTTP", f"{median_ms(plan):.1f} ms", "new values each time"),
            (
                "list of jobs, over HTTP",
                f"{median_ms(lambda: client.get('api/jobs')):.1f} ms",
                f"{len(client.get('api/jobs').json()['jobs'])} jobs, planned before",
            ),
        ]


KEYSTROKE = """() => new Promise((done) => {
  const label = [...document.querySelectorAll('label')].find((one) => one.textContent === 'Likely depth');
  const field = document.getElementById(label.htmlFor);
  const path = () => document.querySelector('svg path.curve').getAttribute('d');
  const before = path();
  const begun = performance.now();
  const look = () => (path() === before ? requestAnimationFrame(look) : done(performance.now() - begun));
  field.focus();
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true, cancelable: true }));
  look();
})"""


def _browser(address: str) -> list[Row]:
    with sync_playwright() as kit:
        browser = kit.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}jobs/9")
        page.locator("svg path.curve").first.wait_for()
        taken = []
        for _ in range(15):
            page.wait_for_timeout(150)
            taken.append(page.evaluate(KEYSTROKE))
        shown = frames(page, address)
        browser.close()
    return [
        shown,
        (
            "keystroke to redrawn stair",
            f"{statistics.median(taken):.0f} ms",
            f"slowest of 15: {max(taken):.0f} ms; four faces planned",
        ),
    ]


def bores() -> list[Row]:
    """Ten thousand invented bores, each lapped by the program's own moves."""
    sys.path.insert(0, str(ROOT / "tests"))
    from bores import worked_out

    with ProcessPoolExecutor() as pool:
        work = partial(worked_out, kind="bore", tolerance=21)
        begun = time.perf_counter()
        done = list(pool.map(work, range(10_000), chunksize=250))
    seconds = time.perf_counter() - begun
    past, short = sum(far > 0 for *_, far, _ in done), sum(near < 0 for _, near, *_ in done)
    rounds = sorted(one[3] for one in done)[len(done) // 2]
    return [("10,000 bores lapped to 21 um", f"{past} past, {short} short", f"{rounds} rounds in the middle; {seconds:.0f} s")]


def sizes() -> list[Row]:
    page = (ROOT / "web/dist/index.html").read_text()
    assets = ROOT / "web/dist/assets"
    packed = {path.name: len(gzip.compress(path.read_bytes())) for path in assets.glob("*.js")}
    first = sum(size for name, size in packed.items() if name in page)
    return [("first JavaScript load", f"{first / 1000:.0f} kB gzipped", f"all of it: {sum(packed.values()) / 1000:.0f} kB")]


def lines(*patterns: str) -> int:
    skip = ("schema.d.ts", "/migrations/versions/")
    paths = [path for pattern in patterns for path in ROOT.glob(pattern) if not any(part in str(path) for part in skip)]
    return sum(len(path.read_text(encoding="utf-8").splitlines()) for path in paths)


def main() -> None:
    tests = lines("tests/**/*.py", "web/src/**/*.test.ts")
    code = lines("src/**/*.py", "web/src/**/*.ts", "web/src/**/*.svelte") - lines("web/src/**/*.test.ts")
    size = [("lines of code, of tests", f"{code}, {tests}", f"tests are {100 * tests / code:.0f} % of the code")]
    rows = [
        *planning(),
        *weighing(),
        *over_http_and_in_the_browser(),
        *the_log(median_ms),
        *light(median_ms),
        *bores(),
        *the_day(),
        *sizes(),
        *size,
    ]
    for what, value, note in rows:
        print(f"{what:28} {value:>18}   {note}")


if __name__ == "__main__":
    main()
