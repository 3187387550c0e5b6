"""The demo workshop's day, from morning to evening at two benches: one step is late, one piece goes a way back, one bush is lapped."""

import json
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from ahead import Ahead
from at_gauge import specimen_of, work_to_size
from kelbrast.app.runs import Runs
from kelbrast.core.job import JOB_STATES
from screen import appears, called

BENCHES = (
    ("Gallery rail collar", "Fog gauge window"),
    ("Lamp clock housing", "Tide gauge bush"),
)
LATE = 50 * 60  # a step planned for a few minutes


def operations(page: Page, when: str) -> None:
    """Everything around the work that is due now, by its sheet."""
    page.keyboard.press("t")
    sheet = page.get_by_role("dialog")
    rows = sheet.get_by_role("listitem").filter(has_text=when)
    for at in range(rows.count()):
        for name in ("Done", "Passed"):
            button = rows.nth(at).get_by_role("button", name=name, exact=True)
            if button.count():
                button.click()
                expect(button).to_have_count(0)
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)


def press(page: Page, key: str) -> None:
    before = page.locator(".bench").get_attribute("data-seen")
    page.keyboard.press(key)
    expect(page.locator(f'.bench[data-seen="{before}"]')).to_have_count(0)


class DayAtTheBench:
    """What the two people do, tap by tap."""

    def __init__(self, served, ahead: Ahead) -> None:
        self.served, self.ahead, self.runs = served, ahead, Runs(served.jobs)
        self.late = self.back = False

    def take(self, page: Page, title: str) -> Iterator[None]:
        """A job from its page to its end; after every step it is the other one's turn."""
        job = called(self.served, title)
        page.goto(f"{self.served.address}/jobs/{job}")
        page.get_by_role("button", name="Start").click()
        appears(page.locator(".bench"))
        run = int(page.url.rsplit("/", 1)[1])
        operations(page, "Before")
        if title == "Tide gauge bush":
            part = specimen_of(json.loads(self.served.jobs.get(job).job.model_dump_json(exclude_none=True)))
            work_to_size(page, self.runs, run, part, self.ahead, times=2.0)
            press(page, "Space")
        else:
            yield from self.steps(page, run, title)
        operations(page, "After")
        page.get_by_role("button", name="As wanted", exact=True).click()
        appears(page.get_by_role("link", name="To the log of this run"))

    def steps(self, page: Page, run: int, title: str) -> Iterator[None]:
        while (hand := self.runs.get(run).run.current) is not None:
            stage = hand[1]
            press(page, "Space")
            self.ahead.by += stage.seconds / 2  # two people work beside each other
            if title == "Lamp clock housing" and not self.late:
                self.late = True
                self.ahead.by += LATE
                yield
            if title == "Gallery rail collar" and stage.step > 0 and not self.back:
                self.back = True
                page.keyboard.press("g")
                before = page.locator(".bench").get_attribute("data-seen")
                page.get_by_role("dialog").get_by_role("button", name="Go back").last.click()
                expect(page.locator(f'.bench[data-seen="{before}"]')).to_have_count(0)
            else:
                press(page, "Space")
            yield


@pytest.mark.soak
@pytest.mark.long
def test_the_day_of_the_demo_workshop(page: Page, browser: Browser, workshop, morning: Ahead) -> None:
    for kept in workshop.jobs.plannable(tuple(JOB_STATES))[0]:  # a further plate, a further job are only more taps
        few = kept.job.model_copy(update={"pieces": 2 if kept.job.title == "Fog gauge window" else 1})
        workshop.jobs.change(kept.id, few, revision=kept.revision)
        if kept.job.title not in {*BENCHES[0], *BENCHES[1]}:
            workshop.jobs.set_state(kept.id, "quoted", after=kept.state_number)
    day = DayAtTheBench(workshop, morning)
    at_home, at_bench = (
        browser.new_context(viewport={"width": width, "height": height}) for width, height in ((1280, 800), (1024, 768))
    )
    board = at_home.new_page()
    board.goto(f"{workshop.address}/schedule")
    expect(board.get_by_role("region", name="Now and next")).to_contain_text("Lamp clock housing")
    ends, blocks = board.get_by_test_id("ends"), board.locator(".board .block").count()
    planned = ends.inner_text()
    other = at_bench.new_page()
    people = [_all(day, page, BENCHES[0]), _all(day, other, BENCHES[1])]
    while people:
        for person in list(people):
            if next(person, "home") == "home":
                people.remove(person)
        if day.late and planned:
            expect(ends).not_to_have_text(planned)  # the board followed
            planned = ""
    assert day.late
    assert day.back
    assert day.runs.open() == []
    done = {one.title for one in workshop.jobs.search()[1] if one.kept_state == "done"}
    assert done == {*BENCHES[0], *BENCHES[1]}
    expect(board.locator(".board .block")).not_to_have_count(blocks)
    board.reload()
    expect(board.get_by_role("alert")).to_contain_text("o job is ordered")
    for one in (at_home, at_bench):  # else their pages go on asking
        one.close()


def _all(day: DayAtTheBench, page: Page, titles: tuple[str, ...]) -> Iterator[None]:
    for title in titles:
        yield from day.take(page, title)
