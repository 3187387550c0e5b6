"""Accessible: axe finds nothing in any dialog, in both themes, nor in an empty list; the views are in test_every_view."""

import pytest
from playwright.sync_api import Page

from kelbrast.app.runs import Runs
from screen import MEASURE, answer, appears, called, findings_in_both_themes, put_away, step_card

DIALOGS = {
    "/jobs/{job}": ("g", "y", "s", "w", "e", "o", "/", "Pick the damage from pictures", "Identify the grit"),
    "/schedule": ("s", "?"),
    "/rack": ("n", "s"),
    "/bench/{run}": ("g", "m", "f", "n", "t", "h"),
}


def small(page: Page, least: int) -> list[str]:
    """Targets of the open dialog that a finger would miss."""
    page.set_viewport_size({"width": 1024, "height": 768})
    found = page.evaluate(MEASURE, least)
    page.set_viewport_size({"width": 1280, "height": 800})
    return [one for one in found if " is " in one and " x " in one]


@pytest.mark.long
def test_axe_finds_nothing_in_any_dialog(page: Page, workshop) -> None:
    """Opened by its key, or by its button where it has none."""
    job = called(workshop, "Gallery rail collar")
    run = Runs(workshop.jobs).begin(job).id
    wrong = {}
    for view, openers in DIALOGS.items():
        page.goto(workshop.address + view.format(job=job, run=run))
        page.wait_for_load_state("networkidle")
        if view.startswith("/bench"):
            page.keyboard.press("Space")
            appears(page.get_by_role("button", name="Old marks gone"))
        for opener in openers:
            if opener.startswith(("Pick", "Identify")):
                answer(page, "What most of it looks like")
            if view.startswith("/jobs") and opener in "gys":
                step_card(page)
            if len(opener) == 1:
                page.keyboard.press(opener)
            else:
                page.get_by_role("button", name=opener).click()
            appears(page.get_by_role("dialog"))
            page.wait_for_load_state("networkidle")
            if found := findings_in_both_themes(page, "[role=dialog]") + small(page, 44 if view.startswith("/bench") else 24):
                wrong[f"{view} {opener}"] = found
            put_away(page)
    assert wrong == {}


def test_an_empty_list_too(page: Page, empty) -> None:
    page.goto(empty.address)
    appears(page.get_by_text("No jobs yet"))
    assert findings_in_both_themes(page) == []
