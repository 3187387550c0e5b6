"""The gauge at the bench: a face of a job worked to size by keyboard, whatever the laps really take; reload, undo, stand-in."""

import json
from dataclasses import replace
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ahead import Ahead
from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.core.bench.sizing import size_at_bench
from kelbrast.core.precision.form import fit_form
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.surface.sized import Gauge, Reading
from kelbrast.exchange.read import check_job_file, to_job

UM = 1e-6


def bush() -> dict[str, Any]:
    return json.loads((EXAMPLES / "12-tide-gauge-bush.job.json").read_text())


def spindle() -> dict[str, Any]:
    document = json.loads((EXAMPLES / "09-tide-gauge-spindle.job.json").read_text())
    return {**document, "faces": document["faces"][:1]}


def invented() -> dict[str, Any]:
    """A fog bell pivot bush, not read before it comes to the bench."""
    face = {**bush()["faces"][0], "shape": {"kind": "bore", "diameter_mm": 12.7, "length_mm": 25.4}, "inside_radius_mm": 6.35}
    fit = {"want": {"limits_mm": [12.7, 12.7203]}, "gauge": {"repeatability_um": 1.5}, "readings": []}
    return {**bush(), "title": "Fog bell pivot bush", "faces": [{**face, "fit": fit}]}


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


@pytest.mark.parametrize(
    ("document", "times", "inch"),
    [(bush(), 2.0, False), (spindle(), 0.5, False), (invented(), 1.6, True)],
    ids=["bush", "spindle", "inch"],
)
def test_a_face_is_on_size_whatever_the_laps_take(
    page: Page, empty, ahead: Ahead, document: dict[str, Any], times: float, inch: bool
) -> None:
    part = specimen_of(document)
    runs = Runs(empty.jobs)
    begun = runs.begin(empty.jobs.add(check_job_file(document)).id)
    page.goto(f"{empty.address}/bench/{begun.id}")
    move = page.get_by_test_id("move")
    expect(move).to_be_visible()
    if inch:
        page.keyboard.press("u")
    for _ in range(60):
        kept = runs.get(begun.id)
        known = size_at_bench(kept.run, kept.job, kept.now)
        last = len(kept.run.ahead[1]) == 1
        if last and not known.to_read and known.advice is not None and known.advice.move.action == "stop":
            break
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
    expect(page.get_by_role("button", name="Old marks gone")).to_be_visible()  # the light stays for the finish
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="As wanted", exact=True)).to_be_visible()
    assert part.part.near <= part.cut <= part.part.far


def test_the_stand_in_reads_undo_takes_back_and_a_reload_keeps_it(page: Page, workshop, ahead: Ahead) -> None:
    page.goto(workshop.address)
    page.get_by_role("link", name="Tide gauge bush", exact=True).click()
    page.get_by_role("button", name="To the bench").click()
    expect(page.get_by_test_id("move")).to_have_text("Lap")
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Stopped, now read")).to_be_visible()
    ahead.by += 25
    page.reload()
    expect(page.get_by_test_id("move")).to_have_text("Stop")
    page.keyboard.press("Space")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("Reading 1 of 4")).to_be_visible()
    dialog.get_by_role("button", name="Read the dial gauge").click()
    expect(dialog.get_by_text("Reading 2 of 4")).to_be_visible()
    dialog.get_by_role("button", name="Take back").click()
    expect(dialog.get_by_text("Reading 1 of 4")).to_be_visible()
    page.keyboard.press("Escape")
    page.reload()
    expect(page.get_by_test_id("move")).to_have_text("Read it: 4 places")
    page.keyboard.press("Space")
    for at in range(1, 5):
        expect(dialog.get_by_text(f"Reading {at} of 4")).to_be_visible()
        dialog.get_by_role("button", name="Read the dial gauge").click()
    expect(dialog).to_have_count(0)
    expect(page.get_by_test_id("move")).to_have_text("Lap")
    expect(page.get_by_role("img", name="16 readings along the length, between the limits")).to_be_visible()
