"""What browser tests share: opening a job, reading the stair, and asking axe."""

import re
from pathlib import Path
from typing import Final

from playwright.sync_api import Locator, Page, expect

from kelbrast.core.job import JOB_STATES

AXE = (Path(__file__).parents[1] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")


def appears(what: Locator) -> None:
    """Waits until it can be seen. `expect(what).to_be_visible()` does too, but reads the whole page aloud at each try that comes
    too soon: a fifth of the browser's time."""
    what.wait_for()


def put_away(page: Page) -> None:
    """Escape closes a dialog from when it has the focus, a moment after it can be seen: only a test is quicker than that."""
    page.locator("[role=dialog]:focus-within").wait_for()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


def called(served, title: str) -> int:
    """The number of the job with this title; none is planned for it."""
    return next(one.id for one in served.jobs.plannable(tuple(JOB_STATES))[0] if one.job.title == title)


def open_job(page: Page, served, title: str) -> int:
    job = called(served, title)
    page.goto(f"{served.address}/jobs/{job}")
    expect(page.get_by_label("Title of the job")).to_have_value(title)
    appears(page.get_by_role("list", name="Steps").or_(page.get_by_text("Not possible:")))
    return job


def saved(page: Page) -> None:
    """Waits until the job says that every change is stored."""
    appears(page.get_by_text("Saved", exact=True))


def answer(page: Page, question: str) -> None:
    """Opens what is asked of the face in hand, where it is not open yet."""
    line = page.get_by_role("button", name=re.compile(f"^{re.escape(question)}: "))
    if line.get_attribute("aria-expanded") != "true":
        line.click()
    expect(line).to_have_attribute("aria-expanded", "true")


def of_the_job(page: Page) -> None:
    """Opens what is asked of the whole job: its material and how many pieces."""
    page.get_by_role("button", name="Material and pieces").click()
    appears(page.get_by_role("textbox", name="Pieces"))


def option(page: Page, label: str) -> None:
    """Chooses from the menu of the view."""
    page.get_by_role("main").get_by_role("button", name="Options").click()
    page.get_by_role("menuitem", name=label).click()


def step_rows(page: Page) -> Locator:
    """The steps of the face in hand; the work before and after them is not among them."""
    return page.get_by_role("list", name="Steps").locator("button:has(.disc)")


def step_card(page: Page, at: int = 0) -> Locator:
    """Opens a step of the face in hand."""
    step_rows(page).nth(at).click()
    return page.get_by_label("Step in hand")


def job_row(page: Page, title: str) -> Locator:
    """The line of a job in the list."""
    return page.locator("[data-job]").filter(has_text=title)


def any_tool(page: Page) -> None:
    """Plan the job that is open from any tool, and not from the shop's own rack alone."""
    option(page, "Plan with any tool")
    saved(page)


def curves(page: Page) -> list[str]:
    return page.locator("svg path.curve").evaluate_all("paths => paths.map((path) => path.getAttribute('d'))")


RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]


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
    if (!shown(one) || one.closest('.board .block, .skip') || one.closest('.sr-only') || one.ariaHidden === 'true') continue;
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


def findings(page: Page, within: str = "html", rules: tuple[str, ...] = ()) -> list[str]:
    """What axe finds in a part of the page; `rules`: only by these."""
    if not page.evaluate("() => !!window.axe"):  # it is large
        page.evaluate(f"() => {{ {AXE} }}")
    result = page.evaluate(
        "([within, only]) => axe.run(within, { runOnly: only, resultTypes: ['violations'] })", [within, list(rules) or RULES]
    )
    return [f"{one['id']}: {node['target']} {node['failureSummary']}" for one in result["violations"] for node in one["nodes"]]


def findings_in_both_themes(page: Page, within: str = "html") -> list[str]:
    """What axe finds on paper, and of the colours at night: nothing else differs. The page is not opened twice."""
    mode = "document.documentElement.dataset.mode"
    before = page.evaluate(mode)
    found = []
    for theme in ("light", "dark"):
        page.evaluate(f"{mode} = '{theme}'")
        only = () if theme == "light" else ("color-contrast",)
        found += [f"{theme}: {finding}" for finding in findings(page, within, only)]
    page.evaluate(f"{mode} = '{before}'")
    return found
