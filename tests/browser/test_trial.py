"""A trial piece at the bench, by keys: three answers, what it says, and that plans go by it."""

from playwright.sync_api import Page, expect

from screen import MEASURE, appears, findings


def test_a_trial_is_worked_survives_a_reload_and_counts(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/rack")
    page.get_by_role("button", name="Options").click()
    page.get_by_role("menuitem", name="Try a tool on a trial piece").click()
    page.get_by_role("region", name="Worth trying").get_by_role("button").first.click()
    appears(page.get_by_role("button", name="Start the clock"))
    title = page.get_by_role("heading", level=1).inner_text()
    assert findings(page) == []
    assert page.evaluate(MEASURE, 24) == []
    expect(page.get_by_role("list", name="Beware")).to_contain_text("Safety glasses")
    for answer in ("1", "2"):
        page.keyboard.press("Space")
        expect(page.get_by_role("timer")).not_to_have_text("0:00")
        page.keyboard.press(answer)
    expect(page.get_by_label("Looks so far")).to_contain_text("half gone")
    expect(page.get_by_role("button", name="Still there")).to_be_disabled()
    page.reload()
    expect(page.get_by_label("Looks so far")).to_contain_text("half gone")
    page.keyboard.press("Space")
    page.wait_for_function("document.querySelector('[role=timer]').textContent.trim() !== '0:02'")
    page.keyboard.press("3")
    page.get_by_label("Ra of the square now").fill("0.3")
    page.get_by_role("button", name="What it says").click()
    says = page.get_by_role("region", name="How fast it cuts")
    expect(says).to_contain_text("times the tables")
    appears(page.get_by_role("region", name="How deep its own marks are"))
    assert findings(page) == []
    page.get_by_role("button", name="Use it from now on").click()
    appears(page.get_by_text(f"Plans use what the trial of {title} says from now on."))
    assert [kept.said.keys() for kept in workshop.jobs.rack.learning.trials.all()] == [{"removal", "scratch"}]
    appears(page.get_by_role("heading", name="Trial piece"))
