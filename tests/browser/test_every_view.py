"""Every view: axe finds nothing in both themes; targets are large enough for a finger at three sizes, and nothing is cut,
whatever it is called."""

import json
from typing import Final

import pytest
from playwright.sync_api import Page, expect

from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.documents.job.read import check_job_file
from screen import appears, called, findings_in_both_themes

LONG: Final = (
    "Balustrade of the upper gallery with its forty-two turned brass spindles and the counterweights of the lantern door"
)

# A target is at least this large, or stands in a sentence (WCAG 2.5.8). A block of the board is as wide as it is long: its
# panel and its keys do the same. A control inside its label is as large as the label.
MEASURE: Final = """(least) => {
  const found = [];
  const shown = (one) => one.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && one.getClientRects().length;
  const said = (one) => (one.getAttribute('aria-label') ?? one.innerText ?? one.value ?? one.outerHTML).trim().slice(0, 40);
  const inSentence = (one) => {
    const around = one.closest('p, li, dd, figcaption, .small');
    return around && getComputedStyle(one).display === 'inline' && around.innerText.trim() !== one.innerText.trim();
  };
  for (const one of document.querySelectorAll('a, button, input, select, summary, textarea')) {
    if (!shown(one) || one.closest('.board .block, .skip') || one.closest('.sr-only') || one.classList.contains('sr-only')) continue;
    const area = (['checkbox', 'radio', 'file'].includes(one.type) && one.closest('label')) || one;
    const box = area.getBoundingClientRect();
    if ((box.width < least - 0.5 || box.height < least - 0.5) && !inSentence(one))
      found.push(`${said(one)} is ${Math.round(box.width)} x ${Math.round(box.height)}`);
  }
  for (const one of document.querySelectorAll('main *, header *')) {
    if (!shown(one) || one.closest('svg, select, input, [role=application]') || one.title || one.closest('[title]')) continue;
    const style = getComputedStyle(one);
    if (!['hidden', 'clip'].includes(style.overflowX) || one.clientWidth < 2 || one.classList.contains('sr-only')) continue;
    if (one.scrollWidth > one.clientWidth + 1) found.push(`${said(one)} is cut by ${one.scrollWidth - one.clientWidth} px`);
  }
  if (document.documentElement.scrollWidth > innerWidth) found.push('the page runs out to the side');
  if (document.querySelector('main').scrollWidth > innerWidth) found.push('the view runs out to the side');
  return found;
}"""
SIZES: Final = ((1280, 800), (1024, 768), (768, 1024))


def wrong_with(page: Page, view: str, least: int) -> list[str]:
    """What is wrong with the view that is shown, in every theme and at every size."""
    page.wait_for_load_state("networkidle")
    expect(page.locator("main")).not_to_be_empty()
    found = [f"{view}, {theme}" for theme in findings_in_both_themes(page)]
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        page.wait_for_timeout(150)  # what is measured by scripts is laid out anew
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
