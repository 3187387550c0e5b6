"""Accessible: axe finds nothing on any view, in both themes, with a dialog open, and where a plan is not possible."""

from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

AXE = (Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")


def findings(page: Page) -> list[str]:
    page.evaluate(AXE)
    result = page.evaluate(
        "axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'best-practice'], resultTypes: ['violations'] })"
    )
    return [f"{one['id']}: {node['target']} {node['failureSummary']}" for one in result["violations"] for node in one["nodes"]]


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
