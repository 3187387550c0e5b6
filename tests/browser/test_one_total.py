"""One job tells one total wherever it is looked at: list, plan, quote, schedule, bench and log."""

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from ahead import Ahead
from conftest import EXAMPLES
from kelbrast.app.board import Boards
from kelbrast.core.wording import minutes_text
from kelbrast.documents.day.format import ShopFile, WorkerFile
from kelbrast.documents.job.read import check_job_file
from screen import appears, job_row


def example(name: str) -> dict[str, Any]:
    return json.loads(next(EXAMPLES.glob(f"*{name}.job.json")).read_text())


def part(title: str, material: str, face: dict[str, Any], **more: Any) -> dict[str, Any]:
    found = {"kind": "scratches", "depth_um": 15}
    return {"kelbrast": "job/2", "title": title, "material": material, "faces": [{"found": found, **face}], **more}


KNIFE = part(
    "Galley knife",
    "tool-steel-hardened",
    {
        "name": "blade",
        "shape": {"kind": "plate", "length_mm": 180, "width_mm": 32},
        "want": {"finish": "satin"},
        "thickness_mm": 2.5,
    },
)
BOWLS = part(
    "Copper bowls",
    "copper",
    {
        "name": "outside",
        "shape": {"kind": "dome", "diameter_mm": 180, "height_mm": 80},
        "want": {"finish": "mirror"},
        "thickness_mm": 1.5,
    },
    pieces=10,
)
FOLLOWED = [KNIFE, example("gallery-rail-collar")]
MORE = [example("keepers-name-plates"), BOWLS]


@pytest.mark.parametrize(
    "document", [*FOLLOWED, *(pytest.param(one, marks=pytest.mark.soak) for one in MORE)], ids=lambda one: one["title"]
)
def test_a_job_tells_one_total_everywhere(page: Page, empty, morning: Ahead, document: dict[str, Any]) -> None:
    people = [WorkerFile(name=name, begins="08:00", ends="17:00", breaks=[]) for name in ("Ada", "Ben")]
    Boards(empty.jobs).change_shop(ShopFile(people=people, welcomed=True))
    job = empty.jobs.add(check_job_file({**document, "state": "ordered"})).id
    plan = empty.jobs.plan(job)
    assert plan.hands_on_minutes_high is not None
    total, most = minutes_text(plan.hands_on_minutes), minutes_text(plan.hands_on_minutes_high)
    page.goto(empty.address)
    expect(job_row(page, document["title"])).to_contain_text(total)
    page.goto(f"{empty.address}/jobs/{job}")
    totals = page.get_by_label("Totals")
    expect(totals).to_contain_text(f"{total} hands-on, allow up to {most}")
    if plan.account is not None and plan.account.waiting:
        waiting = minutes_text(plan.account.waiting)
        expect(page.get_by_label("Where the time goes")).to_contain_text(f"Waiting {waiting}")
    if len(plan.lots) > 1:
        expect(page.get_by_role("button", name="Material and pieces")).to_contain_text(f"in {len(plan.lots)} lots of")
    page.keyboard.press("q")
    inner = page.get_by_role("region", name="Only the shop sees this")
    expect(inner).to_contain_text(f"{total} hands-on")
    expect(inner).to_contain_text(f"all that is allowed, {most}")
    page.goto(f"{empty.address}/jobs/{job}/card")
    expect(page.locator("article")).to_contain_text(f"Hands-on {total}, allow up to {most}")
    page.goto(f"{empty.address}/schedule")
    promised = page.get_by_role("list", name="Jobs of the schedule").get_by_role("listitem")
    expect(promised.get_by_role("link")).to_have_attribute("title", re.compile(f"hands-on {total}"))
    page.goto(f"{empty.address}/jobs/{job}")
    page.get_by_role("button", name="Start").click()
    appears(page.locator(".bench"))
    appears(page.get_by_text(f"hands-on {total}").or_(page.get_by_text("hands-on").filter(has_text=total)))
    page.goto(f"{empty.address}/log")
    expect(page.get_by_role("row").filter(has_text=document["title"])).to_contain_text(f"of {total}")
