"""The gauge at the bench: a face of a job worked to size by keyboard, whatever the laps really take; reload, undo, stand-in."""

import json
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ahead import Ahead
from at_gauge import specimen_of, work_to_size
from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.documents.job.read import check_job_file
from screen import appears


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


@pytest.mark.parametrize(
    ("document", "times", "inch"),
    [
        pytest.param(spindle(), 0.5, False, marks=pytest.mark.soak),
        pytest.param(invented(), 1.6, True, marks=pytest.mark.soak),
    ],  # the bush is worked in the demo workshop's day
    ids=["spindle", "inch"],
)
def test_a_face_is_on_size_whatever_the_laps_take(
    page: Page, empty, ahead: Ahead, document: dict[str, Any], times: float, inch: bool
) -> None:
    part = specimen_of(document)
    runs = Runs(empty.jobs)
    begun = runs.begin(empty.jobs.add(check_job_file(document)).id)
    page.goto(f"{empty.address}/bench/{begun.id}")
    move = page.get_by_test_id("move")
    appears(move)
    if inch:
        page.keyboard.press("u")
    work_to_size(page, runs, begun.id, part, ahead, times=times, inch=inch)
    appears(page.get_by_role("button", name="Old marks gone"))  # the light stays for the finish
    page.keyboard.press("Space")
    appears(page.get_by_role("button", name="As wanted", exact=True))
    assert part.part.near <= part.cut <= part.part.far


def test_the_stand_in_reads_undo_takes_back_and_a_reload_keeps_it(page: Page, workshop, ahead: Ahead) -> None:
    page.goto(workshop.address)
    page.get_by_role("link", name="Tide gauge bush", exact=True).click()
    appears(page.get_by_label("Title of the job"))
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_test_id("move")).to_have_text("Lap")
    page.keyboard.press("Space")
    appears(page.get_by_role("button", name="Stopped, now read"))
    ahead.by += 25
    page.reload()
    expect(page.get_by_test_id("move")).to_have_text("Stop")
    page.keyboard.press("Space")
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_text("Reading 1 of 4"))
    dialog.get_by_role("button", name="Read the dial gauge").click()
    appears(dialog.get_by_text("Reading 2 of 4"))
    dialog.get_by_role("button", name="Undo").click()
    appears(dialog.get_by_text("Reading 1 of 4"))
    page.keyboard.press("Escape")
    page.reload()
    expect(page.get_by_test_id("move")).to_have_text("Read it: 4 places")
    page.keyboard.press("Space")
    for at in range(1, 5):
        appears(dialog.get_by_text(f"Reading {at} of 4"))
        dialog.get_by_role("button", name="Read the dial gauge").click()
    expect(dialog).to_have_count(0)
    expect(page.get_by_test_id("move")).to_have_text("Lap")
    appears(page.get_by_role("img", name="16 readings along the length, between the limits"))
