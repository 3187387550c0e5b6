"""Edges in the job file and the plan file."""

from typing import Any

import pytest

from kelbrast.app.planning import plan_file
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.plan.text import plan_text

FRONT = {"name": "front", "area_cm2": 60, "found": {"depth_um": 15}, "want": {"finish": "mirror"}}


def asked(*edges: dict[str, Any]) -> dict[str, Any]:
    return {"kelbrast": "job/2", "title": "Sconce plate", "material": "brass", "faces": [FRONT, *edges]}


def edge(name: str = "rim", **more: Any) -> dict[str, Any]:
    return {"name": name, "edge": {"length_mm": 400, "wanted": "break", "size_mm": 0.3, **more}}


def test_an_edge_says_only_its_length_and_what_becomes_of_it() -> None:
    file = check_job_file(asked(edge(), edge("seat", wanted="sharp", size_mm=None, next_to=["front"])))
    front, rim, seat = to_job(file).faces
    assert rim.edge is not None
    assert (rim.edge.length, rim.edge.size) == (0.4, 0.3e-3)
    assert rim.want.ra_high == 3.2e-6
    assert seat.left_alone
    assert front.sharp_edges
    assert check_job_file(file.model_dump(mode="json")) == file, "kept and read again it is the same"


def test_a_finish_of_its_own() -> None:
    file = check_job_file(asked({**edge(wanted="radius", size_mm=1), "want": {"finish": "bright"}}))
    assert to_job(file).faces[1].want.id == "bright"


def test_the_plan_says_what_becomes_of_it() -> None:
    made = plan_file(check_job_file(asked(edge(), edge("seat", wanted="sharp", size_mm=None))))
    rim, seat = made.faces[1:]
    assert rim.edge is not None
    assert (rim.edge.length_mm, rim.edge.wanted, rim.edge.size_mm) == (400, "break", 0.3)
    assert rim.steps
    assert seat.steps == []
    assert "seat: stays sharp" in plan_text(made)


@pytest.mark.parametrize(
    ("face", "field"),
    [
        ({**edge(), "area_cm2": 3}, "faces[1]"),
        ({**edge(), "keep_off": True}, "faces[1]"),
        (edge(next_to=["nowhere"]), ""),
        (edge(size_mm=0.9), "faces[1].edge.size_mm"),
        (edge(size_mm=None), "faces[1].edge.size_mm"),
        (edge(length_mm=0), "faces[1].edge.length_mm"),
        (edge(wanted="blunt"), "faces[1].edge.wanted"),
    ],
)
def test_what_can_not_be_is_named(face: dict[str, Any], field: str) -> None:
    with pytest.raises(BadInput) as bad:
        to_job(check_job_file(asked(face)))
    assert field in {fault.field for fault in bad.value.faults}
