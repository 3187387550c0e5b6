"""Light on the screen: the strip, the lamp, matching a swatch, a measured profile, and ten questions by keyboard."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from screen import answer, appears, findings, open_job, saved, step_card, step_rows

PROFILE = Path(__file__).parents[1] / "outside" / "profiles" / "NU206-IR-1.txt"


def loaded(page: Page, selector: str) -> None:
    page.wait_for_function(
        "selector => { const all = [...document.querySelectorAll(selector)];"
        " return all.length > 0 && all.every(one => one.complete && one.naturalWidth > 0) }",
        arg=selector,
    )


def test_the_lamp_is_moved_by_keys_and_every_patch_has_words(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/light")
    patch = page.get_by_role("application").first
    expect(patch).to_have_attribute("aria-label", re.compile("16 degrees above it, from 118 degrees"))
    appears(page.get_by_text("µm deep").first)
    page.wait_for_timeout(500)
    before = page.evaluate("document.querySelector('canvas').toDataURL()")
    patch.focus()
    for _ in range(4):
        page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowUp")
    expect(patch).to_have_attribute("aria-label", re.compile("19 degrees above it, from 142 degrees"))
    page.wait_for_timeout(300)
    assert page.evaluate("document.querySelector('canvas').toDataURL()") != before
    page.get_by_text("Grid", exact=True).click()
    page.wait_for_timeout(300)
    assert findings(page, "main") == []


def test_without_webgl_a_still_picture_stands_in(page: Page, workshop) -> None:
    page.add_init_script(
        "const was = HTMLCanvasElement.prototype.getContext;"
        "HTMLCanvasElement.prototype.getContext = function (kind, ...more) {"
        " return kind === 'webgl2' ? null : was.call(this, kind, ...more) }"
    )
    page.goto(f"{workshop.address}/light")
    still = page.get_by_role("img", name=re.compile("This: .* µm deep"))
    appears(still)
    loaded(page, "img")
    before = still.get_attribute("src")
    page.get_by_role("application").first.focus()
    page.keyboard.press("ArrowUp")
    expect(still).not_to_have_attribute("src", before or "")


@pytest.mark.soak
def test_ten_questions_by_keyboard_each_explained(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/light?show=practice")
    page.get_by_label("Who practises").fill("Ada")
    page.keyboard.press("Enter")
    explained, barriers = 0, []
    for number in range(1, 11):
        appears(page.get_by_role("region", name=f"Question {number} of 10"))
        page.keyboard.press(str(1 + number % 2))
        told = page.locator("[role=status]").filter(has_text=re.compile("Right|Not so"))
        appears(told)
        explained += len(told.inner_text()) > 20
        barriers += findings(page) if number == 1 else []
        page.keyboard.press("Enter")
    assert barriers == []
    appears(page.get_by_text("of 10 right"))
    expect(page.get_by_role("region", name="Progress")).to_contain_text("10 answers")
    assert explained == 10


def test_each_step_has_its_picture_which_follows_the_plan_and_is_a_pair_at_the_bench(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    tiles = step_rows(page).locator("img")
    expect(tiles).to_have_count(step_rows(page).count())
    loaded(page, "[aria-label=Steps] img")
    large = step_card(page).get_by_role("img", name=re.compile("After P400.*: .* µm deep"))
    appears(large)
    before = large.get_attribute("src")
    answer(page, "What most of it looks like")
    page.get_by_role("textbox", name="Likely depth").fill("40")
    expect(step_card(page).get_by_role("img", name=re.compile("^After"))).not_to_have_attribute("src", before or "")
    page.get_by_role("textbox", name="Likely depth").blur()
    page.keyboard.press("b")
    appears(page.get_by_role("img", name=re.compile("It should look like")))
    appears(page.get_by_role("img", name=re.compile("Not yet, keep going")))
    loaded(page, "img")


def test_a_swatch_or_a_measured_profile_becomes_the_found_state(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    answer(page, "What most of it looks like")
    page.get_by_role("button", name="Identify the grit").click()
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_role("button", name="It is P240"))
    loaded(page, "[role=dialog] img")
    dialog.get_by_role("button", name="It is P240").click()
    expect(page.get_by_label("Grit", exact=True)).to_have_value("P240")
    saved(page)
    assert "P240" in [face.found.after for face in workshop.jobs.get(job).job.faces]
    page.get_by_role("button", name="From a measured profile").click()
    dialog.get_by_label("Form taken off").select_option("Degree 4")
    dialog.get_by_label("Profile file").set_input_files(PROFILE)
    appears(dialog.get_by_text("Cut-off 0.8 mm (by ISO 4288)"))
    expect(page.locator(".stale")).to_have_count(0)
    assert findings(page) == []
    dialog.get_by_role("button", name=re.compile("Use this depth")).click()
    expect(page.get_by_role("textbox", name="Likely depth")).to_have_value(re.compile(r"^0\.8"))
    page.get_by_role("button", name="From a measured profile").click()
    dialog.get_by_label("Profile file").set_input_files({"name": "x.txt", "mimeType": "text/plain", "buffer": b"0 1\n1 x\n"})
    expect(dialog.get_by_role("alert")).to_contain_text("Line 2")
