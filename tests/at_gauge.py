"""A face that is worked to size at the bench, with a part in the vice that nobody but the test knows."""

from dataclasses import replace
from typing import Any

from playwright.sync_api import Page, expect

from ahead import Ahead
from kelbrast.app.runs import Runs
from kelbrast.core.bench.sizing import size_at_bench
from kelbrast.core.precision.form import fit_form
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.surface.sized import Gauge, Reading
from kelbrast.documents.job.read import check_job_file, to_job

UM = 1e-6


def specimen_of(document: dict[str, Any]) -> Specimen:
    """The part that is really in the vice: as it was read, or for the one that was not an egg of its own."""
    sized = to_job(check_job_file(document)).faces[0].sized
    assert sized is not None
    hidden = Hidden(12.690e-3, 10 * UM, 1.0, widest=0.8, drift=0.1)
    if sized.readings:
        form = fit_form(sized.readings, length=sized.part.length, repeatability=sized.gauge.repeatability)
        hidden = Hidden(
            form.size.value, form.seen_oval, 1.0, form.taper.value if form.taper else 0.0, widest=form.widest or 0.0
        )
    return Specimen(sized.part, hidden, Gauge(1 * UM, 1 * UM), seed=5)


def type_reading(page: Page, reading: Reading, *, inch: bool) -> None:
    page.get_by_label("Reading", exact=True).wait_for()
    for _ in range(9):
        page.keyboard.press("Backspace")
    page.keyboard.type(f"{reading.diameter / 0.0254:.5f}" if inch else f"{reading.diameter * 1e3:.4f}")
    page.keyboard.press("Enter")


def work_to_size(
    page: Page, runs: Runs, run_id: int, part: Specimen, ahead: Ahead, *, times: float, inch: bool = False
) -> None:
    """By the program's moves until it says stop at the last step; the laps take so many times what was planned."""
    for _ in range(60):
        kept = runs.get(run_id)
        known = size_at_bench(kept.run, kept.job, kept.now)
        last = len(kept.run.ahead[1]) == 1
        if last and not known.to_read and known.advice is not None and known.advice.move.action == "stop":
            return
        stage = kept.run.current[1]
        seen = kept.run.seen
        if known.to_read:
            if page.get_by_role("dialog").count() == 0:
                page.keyboard.press("Space")
            (reading,) = part.read(known.to_read[:1])
            type_reading(page, reading, inch=inch)
        elif kept.run.clock is not None:
            ahead.by += known.advice.move.seconds
            part.hidden = replace(part.hidden, rate=times * 2 * stage.takes / stage.seconds)
            part.work(known.advice.move.seconds)
            page.keyboard.press("Space")
        else:
            expect(page.get_by_role("dialog")).to_have_count(0)
            page.keyboard.press("Space")
        expect(page.locator(f'.bench[data-seen="{seen}"]')).to_have_count(0)
    raise AssertionError("the program never said stop")
