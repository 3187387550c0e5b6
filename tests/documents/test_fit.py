"""A face of a job whose size is wanted: what the file may say, and the stop sheet of its plan."""

import json
from typing import Any

import pytest

from conftest import EXAMPLES
from kelbrast.app.planning import plan_file
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.plan.format import FacePlanFile


def bush(**fit: Any) -> dict[str, Any]:
    document = json.loads((EXAMPLES / "12-tide-gauge-bush.job.json").read_text())
    document["faces"][0]["fit"] |= fit
    return document


def planned(document: dict[str, Any]) -> FacePlanFile:
    return plan_file(check_job_file(document)).faces[0]


@pytest.mark.parametrize("name", ["12-tide-gauge-bush", "09-tide-gauge-spindle"])
def test_the_stop_sheet_goes_step_by_step_to_the_size(name: str) -> None:
    face = planned(json.loads((EXAMPLES / f"{name}.job.json").read_text()))
    assert face.fit is not None
    answer = face.fit.answer
    assert answer is not None
    stops = [one.read_mm for one in answer.stop_sheet]
    assert [one.grade for one in answer.stop_sheet] == [step.label for step in face.steps]
    assert stops == sorted(stops, reverse=answer.kind == "shaft")
    assert stops[-1] == pytest.approx(answer.target_mm)
    for at, step in enumerate(face.steps[1:]):  # every later step has the layer that it needs, on both sides
        assert abs(stops[at + 1] - stops[at]) * 1000 == pytest.approx(2 * step.takes_um, rel=1e-4)
    low, high = face.fit.limits_mm
    assert low < stops[-1] < high


def test_only_what_holds_a_size_is_planned_and_an_oval_is_for_a_lap() -> None:
    face = planned(json.loads((EXAMPLES / "09-tide-gauge-spindle.job.json").read_text()))
    assert all("lap" in step.tool for step in face.steps)
    assert face.limit_kind == "size"


def test_what_stands_above_the_size_is_not_counted_against_the_limit() -> None:
    face = planned(bush())
    assert face.above_um == pytest.approx((14.009 - 13.98274) * 500, abs=0.3)
    assert face.metal_um - face.above_um < (face.limit_um or 0.0)


def test_not_read_yet_it_is_planned_and_asks_for_twelve_readings() -> None:
    face = planned(bush(readings=[]))
    assert face.fit is not None
    assert (face.fit.answer, len(face.fit.places)) == (None, 12)
    assert face.possible


def test_past_the_limit_nothing_may_come_off() -> None:
    large = [{**one, "mm": one["mm"] + 0.06} for one in bush()["faces"][0]["fit"]["readings"]]
    face = planned(bush(readings=large))
    assert (face.possible, face.binding) == (False, "metal")
    assert face.fit is not None
    assert face.fit.answer is not None
    assert face.fit.answer.next.move == "not-possible"


def test_checked_by_the_gauge_and_at_the_end_by_the_light_too() -> None:
    checks = [step.check for step in planned(bush()).steps]
    assert "gauge says so" in checks[0]
    assert "gauge says stop" in checks[-1]
    assert "lamp" in checks[-1]


def test_a_warm_part_is_taken_as_cool() -> None:
    readings = bush()["faces"][0]["fit"]["readings"]
    warm = planned(bush(readings=[{**reading, "at_c": 40.0} for reading in readings], gauge_c=20.0)).fit
    cool = planned(bush()).fit
    assert warm is not None
    assert cool is not None
    assert warm.answer is not None
    assert cool.answer is not None
    # 18e-6 a kelvin, 20 kelvins, 14 mm: 5 um, by hand
    assert 1000 * (cool.answer.now_mm - warm.answer.now_mm) == pytest.approx(5.0, abs=0.3)


@pytest.mark.parametrize(
    ("change", "field", "said"),
    [
        ({"shape": {"kind": "disc", "diameter_mm": 14}, "reach": "open"}, "faces[0]", "cylinder or a bore"),
        ({"size_left_um": 10}, "faces[0]", "and not both"),
        (
            {"fit": {"want": {"nominal_mm": 14, "class": "g6"}, "gauge": {"repeatability_um": 2}}},
            "faces[0].fit.want.class",
            "capital letter",
        ),
        ({"fit": {"want": {"nominal_mm": 14}, "gauge": {"repeatability_um": 2}}}, "faces[0].fit.want", "limits_mm"),
        (
            {
                "fit": {
                    "want": {"nominal_mm": 14, "class": "H7"},
                    "gauge": {"repeatability_um": 2},
                    "readings": [{"mm": 14.0, "z_mm": 99}],
                }
            },
            "faces[0].fit.readings[0].z_mm",
            "on the part",
        ),
        (
            {"fit": {"want": {"nominal_mm": 14, "class": "H7"}, "gauge": {"repeatability_um": 2}, "readings": [{"mm": 24.0}]}},
            "faces[0].fit.readings[0].mm",
            "read it again",
        ),
    ],
)
def test_what_does_not_fit_is_named(change: dict[str, Any], field: str, said: str) -> None:
    document = bush()
    document["faces"][0] |= change
    with pytest.raises(BadInput) as bad:
        to_job(check_job_file(document))
    assert [(fault.field, said in fault.message) for fault in bad.value.faults] == [(field, True)]
