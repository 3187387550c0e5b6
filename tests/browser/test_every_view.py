"""Every view: axe finds nothing in both themes; targets are large enough for a finger at three sizes, and nothing is cut,
whatever it is called."""

import json
from typing import Final

import pytest
from playwright.sync_api import Page, expect

from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.documents.job.read import check_job_file
from screen import MEASURE, appears, called, findings, findings_in_both_themes

LONG: Final = (
    "Balustrade of the upper gallery with its forty-two turned brass spindles and the counterweights of the lantern door"
)

SIZES: Final = ((1280, 800), (1024, 768), (390, 844))


def wrong_with(page: Page, view: str, least: int) -> list[str]:
    """What is wrong with the view that is shown, in every theme and at every size."""
    page.wait_for_load_state("networkidle")
    expect(page.locator("main")).not_to_be_empty()
    found = [f"{view}, {theme}" for theme in findings_in_both_themes(page)]
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        page.wait_for_timeout(150)  # what is measured by scripts is laid out anew
        if (width, height) != SIZES[0]:
            found += [f"{view} at {width}x{height}: {one}" for one in findings(page)]
        found += [f"{view} at {width}x{height}: {one}" for one in page.evaluate(MEASURE, least)]
    page.set_viewport_size({"width": SIZES[0][0], "height": SIZES[0][1]})
    return found


@pytest.fixture
def long_job(worked_workshop) -> int:
    """A job with a title and a customer of 117 letters."""
    document = json.loads((EXAMPLES / "01-gallery-rail-collar.job.json").read_text())
    named = {**document, "title": LONG, "customer": LONG, "state": "ordered"}
    return worked_workshop.jobs.add(check_job_file(named)).id


# Two halves of about the same length, for two workers.
@pytest.mark.long
@pytest.mark.parametrize(
    "views",
    [
        (
            "/",
            "/tables",
            "/tables?show=grades",
            "/jobs/{long}",
            "/jobs/{bush}",
            "/jobs/{long}/card",
            "/jobs/{long}/photo",
            "/jobs/{long}/quote",
        ),
        ("/schedule", "/gauge", "/gauge/1", "/rack", "/light", "/log", "/settings", "/manual/figures"),
    ],
    ids=["jobs", "shop"],
)
def test_every_view_at_the_desk(page: Page, worked_workshop, long_job: int, views: tuple[str, ...]) -> None:
    bush = called(worked_workshop, "Lantern door bush")  # not possible
    wrong: list[str] = []
    for view in views:
        page.goto(worked_workshop.address + view.format(long=long_job, bush=bush))
        wrong += wrong_with(page, view, 24)
    assert not wrong, f"{len(wrong)} things:\n" + "\n".join(wrong)


@pytest.mark.long
def test_every_view_at_the_bench(page: Page, worked_workshop, long_job: int) -> None:
    address = worked_workshop.address
    page.goto(f"{address}/bench")
    wrong = wrong_with(page, "the empty bench", 44)
    runs = Runs(worked_workshop.jobs)
    runs.begin(called(worked_workshop, "Barometer lens"))
    run = runs.begin(long_job).id
    page.goto(f"{address}/bench")
    appears(page.get_by_role("region", name="Runs at the bench"))
    wrong += wrong_with(page, "two runs at the bench", 44)
    page.goto(f"{address}/bench/{run}")
    appears(page.locator(".bench"))
    wrong += wrong_with(page, "the run", 44)
    assert not wrong, f"{len(wrong)} things:\n" + "\n".join(wrong)
