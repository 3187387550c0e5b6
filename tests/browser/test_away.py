"""The program is away, slow or refuses: nothing that was typed is lost, what is old is shown as old, and nothing is done twice."""

import re

from playwright.sync_api import Page, Route, expect

from screen import answer, appears, called, open_job, saved


def depth(page: Page):
    answer(page, "What most of it looks like")
    return page.get_by_label("Likely depth", exact=True).first


def kept_depth(server, job: int) -> float:
    return server.jobs.get(job).job.faces[0].found.depth_um.likely


def test_an_edit_made_while_the_program_is_away_is_kept_when_it_is_back(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    workshop.stop()
    depth(page).fill("25")
    appears(page.get_by_text("it waits in this browser"))
    workshop.come_back()
    saved(page)
    assert kept_depth(workshop, job) == 25
    # and the plan was asked again by itself
    expect(page.get_by_label("Totals")).to_have_attribute("aria-busy", "false")
    assert workshop.jobs.plan(job).faces[0].steps[0].likely_um == 25


def test_leaving_warns_and_the_edit_is_delivered_from_any_page(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    workshop.stop()
    depth(page).click()
    page.keyboard.type("26")
    appears(page.get_by_text("it waits in this browser"))
    asked: list[str] = []
    page.on("dialog", lambda dialog: (asked.append(dialog.type), dialog.accept()))
    page.evaluate("location.reload()")  # the browser asks; then there is no program to load it from
    page.wait_for_timeout(500)
    assert asked == ["beforeunload"]
    workshop.come_back()
    page.goto(f"{workshop.address}/tables")
    appears(page.get_by_role("heading", name="Tables"))
    left = "Object.keys(localStorage).filter((key) => key.startsWith('kelbrast.edit'))"
    for _ in range(100):
        if kept_depth(workshop, job) == 26 and page.evaluate(left) == []:
            break
        page.wait_for_timeout(100)
    assert kept_depth(workshop, job) == 26
    assert page.evaluate(left) == []


def test_an_edit_on_an_old_revision_asks_which_of_the_two(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    workshop.stop()
    depth(page).fill("27")
    appears(page.get_by_text("it waits in this browser"))
    other = workshop.jobs.get(job)
    workshop.jobs.change(job, other.job.model_copy(update={"title": "Name plates, all of them"}), revision=other.revision)
    workshop.come_back()
    appears(page.get_by_text("Changed elsewhere"))
    page.get_by_role("button", name="Keep mine").click()
    saved(page)
    assert kept_depth(workshop, job) == 27
    assert workshop.jobs.get(job).job.title == "Keepers' name plates"


class Held:
    """Requests that are held back until they are let go."""

    def __init__(self, page: Page, pattern: str) -> None:
        self._page, self._pattern, self._held = page, pattern, list[Route]()
        page.route(pattern, lambda route: self._held.append(route))

    def let_go(self) -> None:
        for route in self._held:
            route.continue_()
        self._page.unroute(self._pattern)


def test_two_presses_of_b_on_a_slow_program_begin_one_run(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    held = Held(page, "**/api/jobs/*/runs")
    page.keyboard.press("b")
    page.keyboard.press("b")
    expect(page.get_by_role("button", name="Going …")).to_have_attribute("aria-busy", "true")
    held.let_go()
    appears(page.get_by_role("button", name="Start this step"))
    assert page.evaluate("fetch('/api/runs').then((told) => told.json()).then((runs) => runs.length)") == 1


def test_a_plan_that_takes_long_is_shown_as_old(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    steps = page.locator(".panel:has(> ol[aria-label=Steps])")
    expect(steps).to_have_attribute("aria-busy", "false")
    held = Held(page, "**/api/plan")
    depth(page).fill("31")
    appears(page.get_by_text("Planning …"))
    expect(steps).to_have_attribute("aria-busy", "true")
    assert float(steps.evaluate("list => getComputedStyle(list).opacity")) < 0.6
    expect(page.get_by_role("button", name=re.compile("^Start"))).to_be_disabled()
    held.let_go()
    expect(steps).to_have_attribute("aria-busy", "false")


def test_on_opening_it_says_that_the_plan_is_being_worked_out(page: Page, workshop) -> None:
    job = called(workshop, "Gallery rail collar")
    held = Held(page, "**/api/plan")
    page.goto(f"{workshop.address}/jobs/{job}")
    appears(page.get_by_text("Planning …").first)
    expect(page.get_by_text("Nothing to do")).to_have_count(0)
    held.let_go()
    appears(page.get_by_role("list", name="Steps"))


def test_what_the_store_can_not_do_is_said_at_the_bench(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))
    full = {"title": "The disk is full", "status": 507, "detail": "The disk is full. Make room on the disk.", "faults": []}
    page.route("**/taps", lambda route: route.fulfill(status=507, json=full, content_type="application/problem+json"))
    page.keyboard.press("Space")
    expect(page.get_by_role("alert")).to_contain_text("The disk is full.")
    expect(page.get_by_role("alert")).to_contain_text("saved in this browser")
    page.unroute("**/taps")
    appears(page.get_by_role("button", name="Old marks gone"))


MOST_KIB = {"/": 155, "/jobs/{job}": 290}


def test_what_comes_over_the_wire(browser, workshop) -> None:
    job = called(workshop, "Gallery rail collar")
    # The list is asked for again while plans are missing: how often is a matter of the machine.
    assert browser.new_context().request.get(f"{workshop.address}/api/jobs").ok
    for address, most in MOST_KIB.items():
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        page = context.new_page()
        sizes: list[float] = []
        network = context.new_cdp_session(page)
        network.send("Network.enable")
        # Small pictures of jobs are as many as there are jobs.
        small: set[str] = set()
        network.on(
            "Network.requestWillBeSent",
            lambda event, small=small: "/thumbnail" in event["request"]["url"] and small.add(event["requestId"]),
        )
        network.on(
            "Network.loadingFinished",
            lambda event, sizes=sizes, small=small: event["requestId"] in small or sizes.append(event["encodedDataLength"]),
        )
        page.goto(workshop.address + address.format(job=job))
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(800)  # the pictures of the strip are asked for a moment after the plan
        page.wait_for_load_state("networkidle")
        assert sum(sizes) / 1024 <= most, address
        again = page.evaluate("fetch('/api/catalogue').then((told) => told.headers.get('etag'))")
        assert again.startswith('W/"')
        context.close()


def test_a_missing_asset_is_not_remembered(page: Page, workshop) -> None:
    page.goto(workshop.address)
    told = page.evaluate(
        "fetch('/assets/not-there.js').then((one) => [one.status, one.headers.get('cache-control')])",
    )
    assert told == [404, "no-cache"]
