"""The bench on every size: what must be minded, when the step is done and the answers are whole, on the screen, and under nothing.

The wordiest steps of the demo workshop, at five sizes from a phone held sideways up.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.runs import Runs
from screen import appears
from serving import Served, serve
from tapping import leave_out

SIZES = ((844, 390), (768, 1024), (1024, 768), (1280, 800), (1920, 1080))

# What is whole on the screen: inside the window, not cut by a box around it that does not scroll, and under nothing else.
MEASURE = """
() => {
  const whole = (element) => {
    const box = element.getBoundingClientRect();
    if (box.width < 1 || box.height < 1) return 'has no size';
    if (box.top < -1 || box.left < -1 || box.bottom > innerHeight + 1 || box.right > innerWidth + 1) return 'is off the screen';
    if (element.scrollWidth > element.clientWidth + 1 && getComputedStyle(element).display !== 'inline') return 'is cut inside';
    for (let at = element.parentElement; at; at = at.parentElement) {
      const around = at.getBoundingClientRect();
      if (getComputedStyle(at).overflow !== 'visible' && (box.bottom > around.bottom + 1 || box.top < around.top - 1))
        return `is cut by ${at.className} ${Math.round(around.bottom - box.bottom)}`;
    }
    for (const [x, y] of [[0.02, 0.1], [0.5, 0.5], [0.98, 0.9]]) {
      const over = document.elementFromPoint(box.left + x * box.width, box.top + y * box.height);
      if (over && !element.contains(over) && !over.contains(element)) return `is under ${over.outerHTML.slice(0, 80)}`;
    }
    return null;
  };
  const found = [];
  const look = (name, selector, least) => {
    const all = [...document.querySelectorAll(selector)];
    if (all.length < least) found.push(`${name}: is not there`);
    for (const one of all) {
      const wrong = whole(one);
      if (wrong) found.push(`${name} ${wrong}: ${one.textContent.trim().slice(0, 60)}`);
    }
  };
  look('title', '[aria-label="Step in hand"] h1', 1);
  look('figures', '[aria-label="Step in hand"] dd', 2);
  look('done when', '[aria-label="Step in hand"] .done', 1);
  look('caution', '[aria-label="Step in hand"] .cautions li', 1);
  look('all of it', '[aria-label="Step in hand"] .all', 1);
  look('answer', '[aria-label="Answers"] button, [aria-label="Next move"] button', 1);
  look('tool', '[aria-label="Beside the work"] button', 2);
  look('order', '[aria-label="Pieces"] .wide', 0);
  const shown = document.querySelectorAll('[aria-label="Step in hand"] .cautions li').length;
  return { found, shown, level: document.querySelector('.bench').dataset.level };
}
"""


@pytest.fixture(scope="module")
def shop(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[Served, list[int]]]:
    """The demo workshop with every job at the bench that can be worked."""
    served = serve(Path(tmp_path_factory.mktemp("sizes")) / "demo.sqlite", demo=True)
    runs, ids = Runs(served.jobs), []
    for job in served.jobs.search()[1]:
        if job.state == "ready":
            kept = served.jobs.get(job.id)
            few = kept.job.model_copy(update={"pieces": min(2, kept.job.pieces)})  # every further one only takes time
            served.jobs.change(job.id, few, revision=kept.revision)
            ids.append(runs.begin(job.id).id)
    yield served, ids
    served.stop()


def wordiest(kept: KeptRun) -> tuple[int, tuple[str, int, int]]:
    """The step of a run with the most to say, and how many letters that are."""
    plans = {key: step for key, step in kept.steps.items() if key in {stage.key for stage in kept.run.layout.stages}}
    return max((len(step.label) + len(step.check) + sum(map(len, step.cautions)), key) for key, step in plans.items())


def settled(page: Page) -> dict[str, Any]:
    """What is wrong once everything around the step has taken its room: timers come and wrap as they run."""
    measured = page.evaluate(MEASURE)
    for _ in range(10):
        if not measured["found"]:
            break
        page.wait_for_timeout(100)
        measured = page.evaluate(MEASURE)
    return measured


def to_step(runs: Runs, run: int, key: tuple[str, int, int]) -> KeptRun:
    """Everything before this step is left out."""
    kept = runs.get(run)
    while kept.run.current is not None and kept.run.current[1].key != key:
        kept = leave_out(runs, kept)
    return kept


@pytest.mark.soak
@pytest.mark.long
def test_the_wordiest_steps_of_the_demo_jobs_at_five_sizes(page: Page, shop) -> None:
    """The six jobs with the most to say, at the step that says it: where that has room, all others have it too."""
    served, ids = shop
    runs = Runs(served.jobs)
    most = sorted(((*wordiest(runs.get(run)), run) for run in ids), reverse=True)[:6]
    wrong: list[str] = []
    for _, key, run in most:
        kept = to_step(runs, run, key)
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(f"{served.address}/bench/{run}")
        appears(page.locator(f".bench[data-seen='{kept.run.seen}']"))
        for begun in (False, True):
            if begun:
                page.keyboard.press("Space")
                answer = page.get_by_role("button", name="Old marks gone")
                by_gauge = page.get_by_role("button", name="Stopped, now read")
                appears(answer.or_(by_gauge))
            for width, height in SIZES if begun else SIZES[:1]:  # before it is begun there is only less on the screen
                page.set_viewport_size({"width": width, "height": height})
                appears(page.locator(f".bench[data-laid='{width}x{height}']"))
                measured = settled(page)
                where = f"{kept.file.title}, {key[0]} step {key[2]} at {width}x{height}"
                wrong += [f"{where} (level {measured['level']}): {one}" for one in measured["found"]]
        # the rest of the cautions is one tap away, whole or scrolling
        page.set_viewport_size({"width": 844, "height": 390})
        page.locator(".all").click()
        appears(page.get_by_role("dialog"))
        for caution in kept.steps[key].cautions:
            appears(page.get_by_role("dialog").get_by_text(caution, exact=True))
    assert not wrong, f"{len(wrong)} things:\n" + "\n".join(wrong)
