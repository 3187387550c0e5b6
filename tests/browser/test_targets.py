"""Measured on every view at three sizes: targets are large enough for a finger, and nothing is cut, whatever it is called."""

import json
from typing import Final

from playwright.sync_api import Page, expect

from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.exchange.read import check_job_file

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
VIEWS: Final = (
    "/",
    "/jobs/{job}",
    "/jobs/{job}/photo",
    "/today",
    "/gauge",
    "/gauge/1",
    "/rack",
    "/light",
    "/log",
    "/tables",
    "/settings",
    "/manual",
)


SIZES: Final = ((1280, 800), (1024, 768), (768, 1024))


def wrong_at_every_size(page: Page, view: str, least: int) -> list[str]:
    found = []
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        page.wait_for_timeout(150)  # what is measured by scripts is laid out anew
        found += [f"{view} at {width}x{height}: {one}" for one in page.evaluate(MEASURE, least)]
    return found


def test_targets_are_large_and_nothing_is_cut(page: Page, worked_workshop) -> None:
    document = json.loads((EXAMPLES / "01-gallery-rail-collar.job.json").read_text())
    jobs = worked_workshop.jobs
    job = jobs.add(check_job_file({**document, "title": LONG, "customer": LONG, "state": "ordered"})).id
    wrong: list[str] = []
    for view in VIEWS:
        page.goto(worked_workshop.address + view.format(job=job))
        page.wait_for_load_state("networkidle")
        expect(page.locator("main")).not_to_be_empty()
        wrong += wrong_at_every_size(page, view, 24)
    run = Runs(jobs).begin(job).id
    for view in ("/bench", f"/bench/{run}"):
        page.goto(worked_workshop.address + view)
        page.wait_for_load_state("networkidle")
        expect(page.locator(".bench").or_(page.get_by_role("region", name="Runs at the bench"))).to_be_visible()
        wrong += wrong_at_every_size(page, view, 44)
    assert not wrong, f"{len(wrong)} things:\n" + "\n".join(wrong)
