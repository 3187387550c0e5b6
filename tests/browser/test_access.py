"""Accessible: axe finds nothing on any view, in both themes, with a dialog open, and where a plan is not possible."""

import pytest
from playwright.sync_api import Page, expect

from screen import findings


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_axe_finds_nothing(page: Page, workshop, theme: str) -> None:
    page.emulate_media(color_scheme=theme)
    ids = {job.title: job.id for job in workshop.jobs.summaries()}
    for way in (
        "/",
        "/tables",
        "/tables?show=grades",
        f"/jobs/{ids['Gallery rail collar']}",
        f"/jobs/{ids['Lantern door bush']}",
        f"/jobs/{ids['Gallery rail collar']}/card",
        "/gauge",
        "/gauge/1",
        f"/jobs/{ids['Gallery rail collar']}/photo",
        "/today",
        "/rack",
        "/log",
        "/light",
        "/bench",
    ):
        page.goto(workshop.address + way)
        page.wait_for_load_state("networkidle")
        expect(page.locator("main")).not_to_be_empty()
        assert findings(page) == [], way
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    assert findings(page) == []


def test_an_empty_list_too(page: Page, empty) -> None:
    page.goto(empty.address)
    expect(page.get_by_text("No jobs yet")).to_be_visible()
    assert findings(page) == []
