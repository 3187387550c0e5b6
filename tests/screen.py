"""What browser tests share: opening a job, reading the stair, and asking axe."""

from pathlib import Path

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


def any_tool(page: Page) -> None:
    """Plan the job that is open from any tool, and not from the shop's own rack alone."""
    page.get_by_label("Any tool").check(force=True)
    expect(page.get_by_label("Any tool")).to_be_checked()
    appears(page.get_by_text("Kept", exact=True))


def curves(page: Page) -> list[str]:
    return page.locator("svg path.curve").evaluate_all("paths => paths.map((path) => path.getAttribute('d'))")


RULES = ["wcag2a", "wcag2aa", "wcag21aa", "best-practice"]


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
