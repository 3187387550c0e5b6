"""The manual: every page of docs/manual is in the program, reached from where one is, and printed from the same files."""

import re

from playwright.sync_api import Page, expect

from conftest import ROOT
from screen import appears

PAGES = sorted((ROOT / "docs" / "manual").glob("*.md"))


def test_the_page_of_where_one_is_is_two_keys_away(page: Page, workshop) -> None:
    for view, title in {
        "/rack": "The rack",
        "/jobs": "Jobs",
        "/log": "The log",
        "/light": "Light",
        "/settings": "Settings",
        "/bench": "At the bench",
        "/schedule": "The schedule",
        "/gauge": "Work to size",
    }.items():
        page.goto(workshop.address + view)
        expect(page.locator("main")).not_to_be_empty()
        page.keyboard.press("?")
        page.get_by_role("link", name="More in the manual").click()
        expect(page.get_by_role("heading", level=1)).to_have_text(title)


def test_every_page_has_its_drawings_and_all_are_printed(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/manual")
    links = page.get_by_role("navigation", name="Pages of the manual").get_by_role("link")
    expect(links).to_have_count(len(PAGES))
    titles = []
    for at in range(len(PAGES)):
        links.nth(at).click()
        expect(links.nth(at)).to_have_attribute("aria-current", "page")
        title = page.get_by_role("heading", level=1).text_content()
        titles.append(title)
        text = next(file.read_text() for file in PAGES if file.read_text().startswith(f"# {title}\n"))
        expect(page.locator("article svg")).to_have_count(text.count(".svg)"))
    assert sorted(titles) == sorted(re.search(r"^# (.+)$", file.read_text(), re.MULTILINE)[1] for file in PAGES)
    page.evaluate("window.print = () => { window.printed = document.querySelectorAll('article').length }")
    page.get_by_role("button", name="Print the manual").click()
    page.wait_for_function("window.printed !== undefined")
    assert page.evaluate("window.printed") == len(PAGES)
    expect(page.locator("article")).to_have_count(1)


def test_what_is_searched_for_is_found_on_its_page(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/manual")
    page.get_by_label("Search the manual").fill("someone ill promise")
    found = page.get_by_role("region", name="Found in the manual").get_by_role("link")
    expect(found).to_have_count(1)
    found.click()
    expect(page.get_by_role("heading", level=1)).to_have_text("The schedule")
    page.get_by_label("Search the manual").fill("zebra")
    appears(page.get_by_text("Nothing in the manual has all of these words."))


def test_every_address_that_a_page_names_is_there() -> None:
    views = (ROOT / "web" / "src" / "app" / "views.ts").read_text()
    assert set(re.findall(r"page: '(.+?)'", views)) <= {file.stem for file in PAGES}
    for file in PAGES:
        for drawing in re.findall(r"\]\((.+?\.svg)\)", file.read_text()):
            assert (file.parent / drawing).is_file()
