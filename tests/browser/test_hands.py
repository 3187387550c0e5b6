"""Keys, numbers and units under a person's hands: nothing is taken from the control in hand, nothing half typed is applied."""

import re

import pytest
from playwright.sync_api import Page, expect

from kelbrast.app.runs import Runs
from screen import answer, appears, of_the_job, open_job, put_away, saved, step_rows


def seen(workshop, page: Page) -> int:
    return Runs(workshop.jobs).seen(int(re.search(r"/bench/(\d+)", page.url)[1]))


def at_bench(page: Page, workshop, title: str = "Gallery rail collar") -> None:
    open_job(page, workshop, title)
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))


def test_space_on_a_focused_button_is_that_buttons(page: Page, workshop) -> None:
    at_bench(page, workshop)
    page.keyboard.press("Space")
    pause = page.get_by_role("button", name=re.compile("^Pause"))
    appears(pause)
    before = seen(workshop, page)
    for key, becomes in (("Space", "Go on"), ("Enter", "Pause")):
        page.get_by_role("button", name=re.compile("^(Pause|Go on)")).focus()
        page.keyboard.press(key)
        appears(page.get_by_role("button", name=re.compile(f"^{becomes}")))
    run = Runs(workshop.jobs).get(int(re.search(r"/bench/(\d+)", page.url)[1]))
    assert [event.kind for event in run.happened[before:]] == ["paused", "started"]
    # after a tap by hand no control is in hand, and Space means what the screen says
    page.get_by_role("button", name=re.compile("^Pause")).click()
    appears(page.get_by_role("button", name=re.compile("^Go on")))
    page.keyboard.press("Space")
    appears(page.get_by_text("piece 2 of 4").first)


def test_a_key_held_down_logs_one_thing(page: Page, workshop) -> None:
    at_bench(page, workshop)
    for _ in range(6):  # as a keyboard repeats it
        page.keyboard.down("Space")
    page.keyboard.up("Space")
    appears(page.get_by_role("button", name="Old marks gone"))
    assert seen(workshop, page) == 1


def test_b_with_the_focus_on_the_material_changes_nothing(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    of_the_job(page)
    material = page.get_by_label("Material", exact=True)
    before = material.input_value()
    material.focus()
    page.keyboard.press("b")
    page.keyboard.press("Escape")
    assert material.input_value() == before
    assert "/jobs/" in page.url
    page.wait_for_timeout(700)  # as long as a change takes to be kept
    assert workshop.jobs.get(job).job.material == "naval-brass"


def test_practice_leaves_enter_and_space_to_what_has_the_focus(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/light?show=practice")
    page.get_by_label("Who practises").fill("Ada")
    page.get_by_label("Who practises").press("Enter")
    option = page.get_by_role("list").get_by_role("button").nth(1)
    appears(option)
    option.focus()
    page.keyboard.press("Space")
    expect(option).to_contain_text(re.compile("right|your answer"))


def test_half_a_number_is_not_taken_for_it(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    answer(page, "What most of it looks like")
    depth = page.get_by_label("Likely depth", exact=True).first
    for typed, said in (("1,000", "two ways: write 1000, or 1"), ("1.5.2", "not a number"), ("12,345", "12345, or 12.345")):
        depth.focus()
        page.keyboard.press("Control+a")
        page.keyboard.type(typed, delay=120)
        described = depth.get_attribute("aria-describedby")
        expect(page.locator(f"#{described}")).to_contain_text(said)
        expect(page.get_by_text(said)).to_have_count(1)
        depth.blur()
        expect(depth).to_have_value(typed)  # it stays to be seen
        saved(page)
        assert workshop.jobs.get(job).job.faces[0].found.depth_um.likely == 22
    depth.fill("1 234,5")
    expect(depth).to_have_attribute("aria-invalid", "false")
    saved(page)
    assert workshop.jobs.get(job).job.faces[0].found.depth_um.likely == 1234.5


def test_one_speed_for_one_step_everywhere(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    rows = step_rows(page)
    spoken: list[str] = []
    for at in range(rows.count()):
        rows.nth(at).click()
        text = page.get_by_label("Step in hand").text_content()
        found = re.search(r"([\d\u202f]+) rev/min", text)
        spoken.append(found[1] if found else "")
    plan = workshop.jobs.plan(job)
    assert [f"{step.rpm:,.0f}".replace(",", "\u202f") for step in plan.faces[0].steps] == spoken
    page.keyboard.press("c")
    appears(page.get_by_text("Lay out:"))
    narrow = "\u202f"  # the card is written as the PDF is, without it
    card = page.locator("article").text_content().replace(narrow, "")
    assert all(one.replace(narrow, "") + " rev/min" in card for one in spoken if one)
    page.goto(f"{workshop.address}/jobs/{job}")
    appears(page.get_by_role("list", name="Steps"))
    page.keyboard.press("b")
    bench = page.get_by_label("Step in hand")
    expect(bench).to_contain_text("rev/min")
    assert re.search(r"([\d\u202f]+) rev/min", bench.text_content().replace("\n", ""))[1] in {
        f"{step.rpm:,.0f}".replace(",", "\u202f") for face in plan.faces for step in face.steps if step.rpm
    }


METRIC = re.compile(r"\d ?(µm|mm|cm²|m/s|°C|N)(?![\w²/])")
# What a paste, a disc, a lap and a machine are called; formulas and sources are quoted as they stand (data-cited).
NAMES = re.compile(
    r"\d ?µm diamond paste|5 mm orbit|\d ?µm (radial bristle disc|flat lap|closing outside lap|expanding bore lap)"
)


def metric_left(page: Page) -> list[str]:
    texts = page.evaluate(
        """() => {
          const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
          const found = [];
          for (let node = walk.nextNode(); node; node = walk.nextNode())
            if (node.parentElement.checkVisibility() && !node.parentElement.closest('select, [data-cited]')) found.push(node.textContent);
          return [...found, ...[...document.querySelectorAll('[aria-label], [alt]')].map(
            (one) => one.getAttribute('aria-label') ?? one.getAttribute('alt') ?? '')];
        }"""
    )
    return [text.strip() for text in texts if METRIC.search(NAMES.sub("", text))]


@pytest.mark.soak
@pytest.mark.long
def test_in_inch_nothing_stays_metric(page: Page, worked_workshop) -> None:
    workshop = worked_workshop
    page.goto(workshop.address)
    page.locator("[data-job]").nth(3).wait_for()
    page.keyboard.press("u")
    page.get_by_role("button", name="More").click()
    appears(page.get_by_role("menuitem", name="Show millimetres"))
    page.keyboard.press("Escape")
    left: dict[str, list[str]] = {"jobs": metric_left(page)}
    for title in ("Gallery rail collar", "Lantern door bush", "Signal lamp cover"):
        job = open_job(page, workshop, title)
        page.wait_for_load_state("networkidle")
        left[title] = metric_left(page)
        for key, sheet in (
            ("y", "Why"),
            ("s", "What if"),
            ("w", "To weigh"),
            ("g", "A mark is still there"),
            ("e", "The part"),
        ):
            page.keyboard.press(key)
            dialog = page.get_by_role("dialog")
            if dialog.count():
                expect(dialog).to_contain_text(re.compile(r"\w{4}"))
                page.wait_for_load_state("networkidle")
                left[f"{title}, {sheet}"] = metric_left(page)
                put_away(page)
        page.goto(f"{workshop.address}/jobs/{job}/card")
        appears(page.get_by_role("heading", name=title))
        left[f"{title}, card"] = metric_left(page)
    page.goto(f"{workshop.address}/tables")
    page.wait_for_load_state("networkidle")
    tables = page.get_by_role("radiogroup", name="Table").locator("label").all()
    assert len(tables) == 7
    for tab in tables:
        tab.click()
        expect(tab.locator("input")).to_be_checked()
        for row in page.locator("[data-scope=collapsible][data-part=trigger]").all()[:12]:
            row.click()
        left[f"tables, {tab.inner_text()}"] = metric_left(page)
    page.goto(f"{workshop.address}/light")
    appears(page.get_by_text("wide, marks").first)
    left["light"] = metric_left(page)
    page.goto(f"{workshop.address}/log")
    page.get_by_role("row").nth(1).get_by_role("link").click()
    page.wait_for_load_state("networkidle")
    left["run"] = metric_left(page)
    page.goto(f"{workshop.address}/rack")
    page.wait_for_load_state("networkidle")
    left["rack"] = metric_left(page)
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))
    left["bench"] = metric_left(page)
    assert not (stay := [f"{where}: {text}" for where, texts in left.items() for text in texts]), "\n".join(stay)
