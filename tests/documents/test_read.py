"""Job files: every fault is named by its key, and what is read comes out in SI."""

import copy
import json
from typing import Any

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.app.planning import plan_file
from kelbrast.core.errors import BadInput, NotFound, ReadError
from kelbrast.documents.catalogue.lists import catalogue, list_kind
from kelbrast.documents.job.read import check_job_file, read_job_file, to_job
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.plan.text import plan_text
from kelbrast.documents.schema import schema


def changed(document: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    """The document with the value at `a.0.b` replaced, or removed for `...`."""
    made = copy.deepcopy(document)
    *way, last = [int(part) if part.isdigit() else part for part in path.split(".")]
    at: Any = made
    for part in way:
        at = at[part]
    if value is ...:
        del at[last]
    else:
        at[last] = value
    return made


def faults(document: Any) -> list[str]:
    with pytest.raises(BadInput) as bad:
        to_job(read_job_file(json.dumps(document)))
    return [str(fault) for fault in bad.value.faults]


SPOTS = {"name": "gouges", "kind": "scratches", "count": 3, "length_mm": 80, "width_mm": 2, "depth_um": 60}
BAD = [
    ("title", ..., "title: is missing"),
    ("title", "", "title: must not be empty"),
    ("kelbrast", ..., "kelbrast: is missing"),
    ("kelbrast", "job/3", "kelbrast: must be one of job/1, job/2"),
    ("colour", "red", "colour: is not a key of this file"),
    ("material", "nickle", 'material: there is no material "nickle"'),
    ("pieces", 0, "pieces: must be at least 1"),
    ("pieces", 1.5, "pieces: must be a whole number"),
    ("faces", [], "faces: needs at least 1"),
    ("faces", {}, "faces: must be a list"),
    ("faces.0", 3, "faces[0]: must be an object"),
    ("faces.0.found.depth_um", 0, "faces[0].found.depth_um: must be above 0"),
    ("faces.0.found.depth_um", -3, "faces[0].found.depth_um: must be above 0"),
    ("faces.0.found.depth_um", "deep", "faces[0].found.depth_um: must be a number"),
    ("faces.0.found.depth_um", {"likely": 3}, "faces[0].found.depth_um.worst: is missing"),
    ("faces.0.found.depth_um", {"likely": 3, "worst": 2}, "faces[0].found.depth_um: worst must be at least likely"),
    ("faces.0.found.depth_um", ..., "faces[0].found: give depth_um"),
    ("faces.0.found", {"kind": "scratches", "after": "P9"}, "faces[0].found.after: P9 is outside"),
    ("faces.0.found.kind", "rust", "faces[0].found.kind: must be one of scratches"),
    ("faces.0.found.share", 0.2, "faces[0].found.share: is not a key of this file"),
    ("faces.0.found.as_wanted", True, "faces[0].found: what is as wanted has no depth"),
    ("faces.0.spots", [{key: value for key, value in SPOTS.items() if key != "length_mm"}], "faces[0].spots[0]: length_mm and width_mm go together"),
    ("faces.0.spots", [{**SPOTS, "area_cm2": 3}], "faces[0].spots[0]: give length_mm with width_mm, or area_cm2"),
    ("faces.0.spots", [{key: value for key, value in SPOTS.items() if key != "depth_um"}], "faces[0].spots[0]: give depth_um, or after"),
    ("faces.0.spots", [SPOTS, SPOTS], 'faces[0]: two kinds of spots on this face are called "gouges"'),
    ("faces.0.spots", [{**SPOTS, "kind": "lay"}], "faces[0].spots[0].kind: must be one of scratches, pits, nick, raised"),
    ("faces.0.want", {"finish": "miror"}, 'faces[0].want.finish: there is no finish "miror"; did you mean mirror'),
    ("faces.0.want", {"ra_um": [2, 1]}, "faces[0].want: ra_um must be [low, high]"),
    ("faces.0.want", {"ra_um": [None, None]}, "faces[0].want: ra_um needs at least one end"),
    ("faces.0.want", {"ra_um": [1]}, "faces[0].want.ra_um"),
    ("faces.0.want", {"finish": "bright", "lay": "none"}, "faces[0].want: lay belongs to ra_um"),
    ("faces.0.want", {"finish": "bright", "no_finer_than": "P80"}, "faces[0].want.no_finer_than: goes with the finish grip"),
    ("faces.0.reach", "inside", "faces[0]: reach inside needs inside_radius_mm"),
    ("faces.0.area_cm2", 10, "faces[0]: give area_cm2, or shape"),
    ("faces.0.shape", {"kind": "plate", "length_mm": 10}, "faces[0].shape.width_mm: is needed"),
    ("faces.0.coat_um", 30, "faces[0]: coat_um and keep_um go together"),
    ("rack", ["flap-p180", "flap-p181"], 'rack[1]: there is no tool "flap-p181"; did you mean flap-p180'),
    ("habit", "sometimes", "habit: must be one of every-grade, double-up, long-steps"),
    ("aim", "joy", "aim: must be one of time, metal, cost, changes"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "value", "said"), BAD)
def test_faults_name_their_key(collar: dict[str, Any], path: str, value: Any, said: str) -> None:
    assert any(fault.startswith(said) for fault in faults(changed(collar, path, value))), faults(changed(collar, path, value))


def test_all_faults_come_at_once(collar: dict[str, Any]) -> None:
    broken = changed(changed(collar, "pieces", 0), "faces.0.found.depth_um", -1)
    assert len(faults(broken)) == 2


def test_two_faces_of_one_name(collar: dict[str, Any]) -> None:
    assert "two faces are called" in faults({**collar, "faces": collar["faces"] * 2})[0]


@pytest.mark.parametrize("text", ["", "[1", "[]", "3", '"job"', "nan", '{"a": NaN}', "[" * 100_000])
def test_what_is_no_job_file_is_a_read_error(text: str) -> None:
    with pytest.raises((ReadError, BadInput)):
        read_job_file(text)


def test_units_come_in_as_si(collar: dict[str, Any]) -> None:
    one = to_job(check_job_file(collar)).faces[0]
    assert one.area == pytest.approx(3.14159265 * 0.072 * 0.080)
    assert one.found.worst == pytest.approx(20e-6)
    assert one.limit == pytest.approx(120e-6)
    assert one.curved


def test_a_coat_leaves_its_difference(collar: dict[str, Any]) -> None:
    coated = changed(changed(collar, "faces.0.limit_um", ...), "faces.0.coat_um", 48)
    one = to_job(check_job_file(changed(coated, "faces.0.keep_um", 30))).faces[0]
    assert one.limit == pytest.approx(18e-6)


def test_the_plan_follows_its_schema_and_its_own_rules(collar: dict[str, Any]) -> None:
    made = plan_file(check_job_file(collar))
    document = made.model_dump(mode="json")
    jsonschema.validate(document, schema("plan"))
    PlanFile.model_validate(document)
    steps = document["faces"][0]["steps"]
    assert steps[0]["from_um"] == 20
    for step, before in zip(steps, [None, *steps], strict=False):
        assert step["takes_um"] == pytest.approx(step["clearance"] * step["from_um"], rel=1e-6)
        assert before is None or step["from_um"] == before["leaves_um"]
    assert document["faces"][0]["metal_um"] == pytest.approx(sum(step["takes_um"] for step in steps))
    assert document["faces"][0]["minutes"] == pytest.approx(sum(step["minutes"] for step in steps))


def test_the_schema_takes_the_examples_and_refuses_the_faults(collar: dict[str, Any]) -> None:
    jsonschema.validate(collar, schema("job"))
    for bad in (
        changed(collar, "colour", "red"),
        changed(collar, "faces.0.found.kind", "rust"),
        changed(collar, "kelbrast", ...),
    ):
        with pytest.raises(jsonschema.ValidationError):
            jsonschema.validate(bad, schema("job"))
    with pytest.raises(NotFound):
        schema("shelf")


def test_the_text_says_what_the_file_says(collar: dict[str, Any]) -> None:
    text = plan_text(plan_file(check_job_file(collar)))
    assert "Gallery rail collar" in text
    assert "rev/min" in text
    blocked = plan_text(plan_file(check_job_file(changed(collar, "faces.0.limit_um", 1))))
    assert "not possible (metal)" in blocked


def test_lists_hold_what_files_may_name() -> None:
    assert {"materials", "finishes", "tools", "machines", "grades"} <= set(type(catalogue()).model_fields)
    tools = [row.model_dump() for row in list_kind("tools")]
    assert {"id", "label", "grain_um", "hold", "reaches_depth_um", "levels"} <= set(tools[0])
    assert all(figure["source"] and figure["kind"] for row in tools for figure in row["figures"])
    with pytest.raises(NotFound):
        list_kind("wheels")


junk = st.recursive(
    st.none() | st.booleans() | st.floats(allow_nan=False) | st.integers() | st.text(max_size=8),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["kind", "depth_um", "likely", "x"]), inner, max_size=3)
    ),
    max_leaves=6,
)


@settings(max_examples=many(100))
@given(st.sampled_from([path for path, _, _ in BAD]), junk)
def test_nothing_that_json_can_say_breaks_the_reader(path: str, value: Any) -> None:
    """Either a plan or named faults; never anything else."""
    from conftest import EXAMPLES

    document = json.loads((EXAMPLES / "01-gallery-rail-collar.job.json").read_text())
    try:
        plan_file(check_job_file(changed({**document, "colour": "red"} if path == "colour" else document, path, value)))
    except BadInput as bad:
        assert all(str(fault) for fault in bad.faults)
