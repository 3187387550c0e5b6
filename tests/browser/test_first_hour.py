"""Three first hours, from an empty database to a plan that is followed: by keyboard in inches, by touch, on a phone held upright."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from kelbrast.app.runs import Runs
from screen import appears, findings, option, put_away, saved, step_rows

FOCUSED = """() => {
  const at = document.activeElement;
  const named = at?.labels?.[0]?.innerText ?? at?.getAttribute('aria-label') ?? at?.innerText ?? '';
  return named.trim();
}"""


def tab_to(page: Page, name: str) -> None:
    """The keyboard alone: from control to control until this one has the focus."""
    for _ in range(120):
        if page.evaluate(FOCUSED).startswith(name):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{name} cannot be reached by the keyboard")


def followed(page: Page, served, step) -> None:
    """The plan at the bench, step by step, until the part is as wanted."""
    runs = Runs(served.jobs)
    run = int(page.url.rsplit("/", 1)[1])
    for _ in range(40):
        kept = runs.get(run)
        if kept.run.current is None:
            break
        seen = page.locator(".bench").get_attribute("data-seen")
        step("Start this step" if kept.run.clock is None else "Old marks gone")
        expect(page.locator(f'.bench[data-seen="{seen}"]')).to_have_count(0)
    step("As wanted")
    appears(page.get_by_role("link", name="To the log of this run"))
    assert served.jobs.search()[1][0].kept_state == "done"


@pytest.mark.soak
def test_in_inches_by_keyboard(page: Page, brand_new) -> None:
    page.goto(brand_new.address)
    appears(page.get_by_role("heading", name="How do you measure and charge?"))
    tab_to(page, "Millimetres")
    page.keyboard.press("ArrowRight")
    tab_to(page, "Currency of your prices")
    page.keyboard.press("Control+A")
    page.keyboard.type("USD")
    tab_to(page, "Next")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="What is in your shop?")).to_be_focused()
    assert findings(page) == []
    tab_to(page, "Bench buffer and bars")
    page.keyboard.press("Space")
    appears(page.get_by_text("19 items go on the rack: adjust"))
    tab_to(page, "Next")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="What usually comes in?")).to_be_focused()
    assert findings(page) == []
    tab_to(page, "Describe the first part")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Title of the job")).to_be_focused()
    page.keyboard.type("Signal bell")
    assert findings(page) == []
    tab_to(page, "Everything at once")
    page.keyboard.press("Enter")
    expect(step_rows(page).first).to_contain_text("in")
    saved(page)
    (job,) = brand_new.jobs.search()[1]
    kept = brand_new.jobs.get(job.id).job
    assert (kept.title, kept.use_rack, kept.material) == ("Signal bell", "own", "brass")
    tab_to(page, "Start")
    page.keyboard.press("Enter")
    appears(page.locator(".bench"))

    def step(name: str) -> None:
        appears(page.get_by_role("button", name=name, exact=name == "As wanted"))
        if name == "As wanted":
            tab_to(page, name)
            page.keyboard.press("Enter")
        else:
            page.keyboard.press("Space")

    followed(page, brand_new, step)


@pytest.fixture
def by_touch(browser: Browser, request: pytest.FixtureRequest) -> Iterator[Page]:
    width, height = request.param
    context = browser.new_context(viewport={"width": width, "height": height}, has_touch=True, reduced_motion="reduce")
    yield context.new_page()
    context.close()


@pytest.mark.parametrize(
    "by_touch", [pytest.param((1024, 768), marks=pytest.mark.soak), (390, 844)], ids=["tablet", "phone"], indirect=True
)
def test_by_touch(by_touch: Page, brand_new) -> None:
    page = by_touch

    def tap(target: Locator) -> None:
        target.scroll_into_view_if_needed()
        target.tap()

    page.goto(brand_new.address)
    tap(page.get_by_role("button", name="Skip this"))
    tap(page.get_by_text("By hand only"))
    tap(page.get_by_text("Coating and sheet"))
    tap(page.get_by_text("items go on the rack: adjust"))
    tap(page.get_by_text("Rotary polisher", exact=True))
    tap(page.get_by_role("button", name="Next"))
    page.get_by_label("Mostly of").select_option("acrylic")
    tap(page.get_by_text("Old polish haze"))
    tap(page.get_by_role("button", name="Describe the first part"))
    appears(page.get_by_label("Title of the job"))
    tap(page.get_by_role("button", name="Everything at once"))
    tap(page.get_by_role("button", name="Limits and reach: "))
    # a word that is not known is explained where it stands
    tap(page.locator('[data-term="reach"]').first)
    expect(page.get_by_role("note")).to_contain_text("How a tool can get there")
    tap(page.get_by_role("note").get_by_role("button", name="Close"))
    # and what is wrong is chosen by its name
    tap(page.get_by_role("button", name="What most of it looks like: "))
    tap(page.get_by_role("button", name="Pick the damage from pictures"))
    tap(page.get_by_role("dialog").get_by_text("Scratches"))
    tap(page.get_by_role("dialog").get_by_role("button", name="Use this"))
    page.get_by_label("Or by feel").select_option("catches")
    expect(page.get_by_label("Likely depth", exact=True).first).to_have_value("15")
    expect(step_rows(page)).not_to_have_count(0)
    saved(page)
    owned = {one.item.what for one in brand_new.jobs.rack.items()}
    assert "orbital" in owned
    assert "rotary-polisher" not in owned
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    tap(page.get_by_role("button", name="Start").last)
    appears(page.locator(".bench"))
    followed(page, brand_new, lambda name: tap(page.get_by_role("button", name=name, exact=name == "As wanted")))


def test_skipping_every_question_makes_no_job(page: Page, brand_new) -> None:
    page.goto(brand_new.address)
    for _ in range(3):
        page.get_by_role("button", name="Skip this").click()
    appears(page.get_by_text("No jobs yet"))
    assert brand_new.jobs.search()[1] == []


def test_what_was_opened_and_never_touched_is_not_kept(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="Describe the first part").click()
    expect(page.get_by_label("Title of the job")).to_have_value("New job")
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    appears(page.get_by_text("No jobs yet"))
    assert empty.jobs.search()[1] == []
    page.get_by_role("button", name="Describe the first part").click()
    page.get_by_label("Title of the job").fill("Door knob")
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    appears(page.get_by_role("link", name="Door knob", exact=True))


def test_an_empty_rack_is_nothing_to_plan_from_and_the_question_mark_explains_the_view(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="Describe the first part").click()
    page.get_by_role("button", name="Everything at once").click()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("The stair has minutes across")
    put_away(page)
    page.get_by_role("button", name="Options").click()
    expect(page.get_by_role("menuitem", name="Plan from your own rack")).to_have_attribute("aria-disabled", "true")


def test_the_demo_is_looked_at_and_left(page: Page, brand_new) -> None:
    page.goto(brand_new.address)
    page.get_by_role("button", name="Look at the demo workshop first").click()
    appears(page.get_by_role("link", name="Gallery rail collar", exact=True))
    page.get_by_role("button", name="Leave it, forget what was done here").click()
    appears(page.get_by_role("heading", name="How do you measure and charge?"))
    assert brand_new.jobs.search()[1] == []


def test_the_focus_follows_the_view_and_undo_is_at_hand(page: Page, workshop) -> None:
    page.goto(workshop.address)
    expect(page.locator("[data-job]")).not_to_have_count(0)
    page.keyboard.press("Tab")
    assert page.evaluate(FOCUSED) == "To the view"
    page.keyboard.press("Enter")
    expect(page.locator("main")).to_be_focused()
    page.get_by_role("link", name="Rack", exact=True).click()
    expect(page.locator("main")).to_be_focused()
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    page.get_by_role("button", name="More for Lens guard").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(page.get_by_role("link", name="Lens guard", exact=True)).to_have_count(0)
    expect(page.get_by_role("button", name="Undo")).to_be_focused()
    page.keyboard.press("Enter")
    appears(page.get_by_role("link", name="Lens guard", exact=True))
    # a new face has the focus in its name; Escape gives the old name back
    page.get_by_role("link", name="Barometer lens", exact=True).click()
    appears(page.get_by_label("Title of the job"))
    option(page, "Add a face")
    name = page.get_by_label("Name", exact=True)
    expect(name).to_be_focused()
    old = name.input_value()
    page.keyboard.type("rim")
    page.keyboard.press("Escape")
    expect(name).to_have_value(old)


def test_the_search_of_the_log_survives_going_back(page: Page, worked_workshop) -> None:
    page.goto(f"{worked_workshop.address}/log")
    page.get_by_label("Words").fill("plates")
    row = page.get_by_role("table", name="Runs").get_by_role("row")
    expect(row).to_have_count(4)
    row.last.get_by_role("link").first.click()
    expect(page.get_by_role("table", name="Runs")).to_have_count(0)
    page.go_back()
    expect(page.get_by_label("Words")).to_have_value("plates")
    expect(row).to_have_count(4)
