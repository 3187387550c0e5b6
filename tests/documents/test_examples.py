"""The demo workshop: made up, within our own scenario, each job with a reason to be there."""

import re
from pathlib import Path

import pytest

from kelbrast.app.planning import plan_file
from kelbrast.core.catalogue.materials import material
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import read_job_file


def test_each_has_its_reason() -> None:
    jobs = demo_jobs()
    plans = [plan_file(job) for job in jobs]
    assert len(jobs) >= 6
    families = {material(job.material).family for job in jobs}
    assert families >= {"copper-alloy", "plastic", "stainless", "aluminium", "coating", "steel"}
    blocked = [face for plan in plans for face in plan.faces if not face.possible]
    assert len(blocked) == 1
    assert blocked[0].reason
    shares = [face.metal_um / face.limit_um for plan in plans for face in plan.faces if face.limit_um and face.steps]
    assert max(shares) > 0.8  # one with a tight limit


@pytest.mark.parametrize(
    "path", sorted((Path(__file__).parents[2] / "examples").glob("*.job.json")), ids=lambda path: path.name
)
def test_files_are_written_as_the_program_writes_them(path: Path) -> None:
    text = path.read_text(encoding="utf-8")
    file = read_job_file(text)
    assert read_job_file(file.model_dump_json(exclude_none=True)) == file
    # Only our own scenario: nothing on wheels, nothing worn, nothing that hits.
    assert not re.search(r"\b(car|motor\w*|bike|bicycle|helmet|anvil|hammer|jewel\w*|throttle|weld)\b", text, re.IGNORECASE)


def test_the_demo_rack_is_a_rack_and_its_wheels_have_a_past() -> None:
    from kelbrast.core.rack.item import KINDS, bound_by
    from kelbrast.demo.workshop import demo_rack
    from kelbrast.documents.rack.format import to_item

    items = [to_item(file, at) for at, file in enumerate(demo_rack())]
    assert {item.kind for item in items} == set(KINDS)
    assert {bound_by(item.history).family for item in items} >= {"copper-alloy", "stainless", None}
