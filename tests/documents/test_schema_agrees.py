"""The schema that is printed, what docs/files.md says and what the reader takes are the same: for each sentence, and for random jobs."""

import copy
import json
import random
import re
from pathlib import Path
from typing import Any

import jsonschema
import pytest

from attacking import chance, many
from conftest import EXAMPLES, ROOT
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.schema import schema

SCHEMA = jsonschema.Draft202012Validator(schema("job"))
DOCS = (ROOT / "docs" / "files.md").read_text()
JOBS = [json.loads(path.read_text()) for path in sorted(EXAMPLES.glob("*.job.json"))]
# What a schema cannot say: an order between two values, names that must differ, what the catalogue has, which measures a shape needs.
BEYOND = (
    "worst must be at least likely|must be below|low not above high|are called|have the id|is next to|there is no|capital letter"
    "|must lie on the part"
)
FACE = {"name": "top", "area_cm2": 40, "found": {"kind": "scratches", "depth_um": 4}, "want": {"finish": "satin"}}
EDGE = {"name": "rim", "edge": {"length_mm": 90, "wanted": "break", "size_mm": 0.3}}


def job(*faces: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"kelbrast": "job/2", "title": "Plate", "material": "brass", "faces": list(faces) or [FACE], **more}


def read(document: dict[str, Any]) -> str:
    """What the reader says against it; empty where it takes it."""
    try:
        to_job(check_job_file(copy.deepcopy(document)))
    except BadInput as bad:
        return str(bad)
    return ""


def face(**more: Any) -> dict[str, Any]:
    return {key: value for key, value in {**FACE, **more}.items() if value != "left out"}


SENTENCES = {
    "an edge may leave out found and want": (job(FACE, EDGE), True),
    "a break has a least": (job(FACE, {**EDGE, "edge": {**EDGE["edge"], "size_mm": 0.05}}), False),
    "a break has a most": (job(FACE, {**EDGE, "edge": {**EDGE["edge"], "size_mm": 0.6}}), False),
    "a radius may be larger": (job(FACE, {**EDGE, "edge": {**EDGE["edge"], "wanted": "radius", "size_mm": 0.6}}), True),
    "an edge may have a want": (job(FACE, {**EDGE, "want": {"ra_um": [None, 1.6]}}), True),
    "a face may not leave out found": (job(face(found="left out")), False),
    "a face may not leave out want": (job(face(want="left out")), False),
    "an edge has no area": (job(FACE, {**EDGE, "area_cm2": 4}), False),
    "an edge has no limit": (job(FACE, {**EDGE, "limit_um": 4}), False),
    "an edge is reached from outside": (job(FACE, {**EDGE, "reach": "tight"}), False),
    "an edge is not kept off": (job(FACE, {**EDGE, "keep_off": True}), False),
    "area or shape, not both": (job(face(shape={"kind": "disc", "diameter_mm": 40})), False),
    "area or shape, one of them": (job(face(area_cm2="left out")), False),
    "null is left out": (job(face(area_cm2=None, shape={"kind": "disc", "diameter_mm": 40})), True),
    "depth or a grade, not both": (job(face(found={"kind": "lay", "depth_um": 4, "after": "P180"})), False),
    "depth or a grade, one of them": (job(face(found={"kind": "lay"})), False),
    "a grade alone": (job(face(found={"kind": "lay", "after": "P180"})), True),
    "as wanted has no depth": (job(face(found={"as_wanted": True, "depth_um": 4})), False),
    "as wanted alone": (job(face(found={"as_wanted": True})), True),
    "as wanted, by a grade": (job(face(found={"as_wanted": True, "after": "P400"})), True),
    "spots have a length and a width": (job(face(spots=[{"name": "a", "length_mm": 4, "depth_um": 9}])), False),
    "spots have sides or an area": (job(face(spots=[{"name": "a", "depth_um": 9}])), False),
    "spots have a depth or a grade": (job(face(spots=[{"name": "a", "area_cm2": 4}])), False),
    "spots by an area": (job(face(spots=[{"name": "a", "area_cm2": 4, "depth_um": 9, "kind": "raised"}])), True),
    "spots by their sides": (job(face(spots=[{"name": "a", "length_mm": 4, "width_mm": 2, "after": "P80"}])), True),
    "an edge has no spots": (job(FACE, {**EDGE, "spots": [{"name": "a", "area_cm2": 4, "depth_um": 9}]}), False),
    "an edge is no window": (job(FACE, {**EDGE, "looked_through": True}), False),
    "finish or ra_um, not both": (job(face(want={"finish": "satin", "ra_um": [None, 1]})), False),
    "lay goes with ra_um": (job(face(want={"finish": "satin", "lay": "none"})), False),
    "a band needs an end": (job(face(want={"ra_um": [None, None]})), False),
    "a band with one end": (job(face(want={"ra_um": [0.2, None]})), True),
    "coat and keep go together": (job(face(coat_um=40)), False),
    "coat with keep": (job(face(coat_um=40, keep_um=30)), True),
    "limit or coat, not both": (job(face(coat_um=40, keep_um=30, limit_um=5)), False),
    "a wall needs its thickness": (job(face(keep_wall_mm=2)), False),
    "a wall with its thickness": (job(face(keep_wall_mm=2, thickness_mm=3)), True),
    "inside needs its radius": (job(face(reach="inside")), False),
    "inside with its radius": (job(face(reach="inside", inside_radius_mm=20)), True),
    "a route stands for itself": (job(face(wish={"route": ["paper-p240"], "start": "paper-p120"})), False),
    "a title of spaces is none": (job(title="  "), False),
    "at least one face": ({**job(), "faces": []}, False),
    "unknown keys are refused": (job(colour="red"), False),
    "state may be said": (job(state="delivered"), True),
    "another state is refused": (job(state="lost"), False),
}


@pytest.mark.parametrize("sentence", SENTENCES)
def test_a_sentence_holds_for_the_schema_and_for_the_reader(sentence: str) -> None:
    document, taken = SENTENCES[sentence]
    assert (read(document) == "") is taken, read(document)
    assert SCHEMA.is_valid(document) is taken


@pytest.mark.parametrize(
    ("document", "said"),
    [
        (job(face(found={"kind": "pits", "depth_um": {"likely": 9, "worst": 4}})), "worst must be at least likely"),
        (job(face(coat_um=40, keep_um=50)), "keep_um must be below coat_um"),
        (job(face(want={"ra_um": [2, 1]})), "low not above high"),
        (job(FACE, FACE), "two faces are called"),
        (job(FACE, {**EDGE, "edge": {**EDGE["edge"], "next_to": ["bottom"]}}), "no face is called so"),
        (job(material="unobtainium"), "unobtainium"),
    ],
)
def test_what_a_schema_cannot_say_the_docs_say_and_the_reader_refuses(document: dict[str, Any], said: str) -> None:
    assert said in read(document)
    assert SCHEMA.is_valid(document)
    assert "What a JSON Schema cannot say" in DOCS


def keys_in(schema_of: dict[str, Any]) -> set[str]:
    return set(schema_of["properties"])


@pytest.mark.parametrize(
    ("model", "section"),
    [
        (None, "## job/2"),
        ("FaceFile", "## job/2"),
        ("EdgeFile", "## job/2"),
        ("FoundFile", "## job/2"),
        ("SpotsFile", "## job/2"),
        ("WantFile", "## job/2"),
    ],
)
def test_every_key_is_described_and_no_other_is(model: str | None, section: str) -> None:
    whole = schema("job")
    described = DOCS.split(section)[1].split("\n## ")[0]
    for key in keys_in(whole["$defs"][model] if model else whole) - {"name"}:
        assert f"`{key}`" in described or f'"{key}"' in described, key


def test_the_table_of_a_face_has_no_key_that_a_face_has_not() -> None:
    table = DOCS.split("## job/2")[1].split("A face:")[1].split("A face with `edge`")[0]
    first_cells = re.findall(r"^\| (.+?) \|", table, re.MULTILINE)[2:]
    told = {key for cell in first_cells for key in re.findall(r"`(\w+)`", cell)}
    assert told
    assert told <= keys_in(schema("job")["$defs"]["FaceFile"])


def test_what_is_called_the_default_is_the_default() -> None:
    whole = schema("job")["properties"]
    described = DOCS.split("## job/2")[1].split("\n## ")[0]
    for key, said in (
        ("habit", "`double-up` (2.3, the default)"), ("aim", "`time` (default)"), ("handover", "`free` (default)"),
        ("covering", "`bare` (default)"), ("protect", "`usual` for the metal (default)"),
    ):  # fmt: skip
        assert said in described
        assert said.startswith(f"`{whole[key]['default']}`")


def changed(document: dict[str, Any], luck: random.Random) -> dict[str, Any]:
    """The job with something of it left out, null, doubled from another, or of another kind."""
    made = copy.deepcopy(document)
    at: Any = made
    for _ in range(luck.randint(0, 3)):
        inside = [one for one in (at.values() if isinstance(at, dict) else at) if isinstance(one, dict | list) and one]
        if not inside:
            break
        at = luck.choice(inside)
    if isinstance(at, dict):
        key = luck.choice(list(at))
        other = luck.choice(JOBS)["faces"][0]
        act = luck.choice(["drop", "null", "word", "number", "more"])
        if act == "drop":
            del at[key]
        elif act == "more" and "name" in at:
            extra = luck.choice(list(other))
            at[extra] = other[extra]
        else:
            at[key] = {"null": None, "word": "P180", "number": luck.choice([-1, 0, 3, 1e9])}.get(act, at[key])
    return made


def test_random_jobs_are_taken_by_both_or_refused_by_both() -> None:
    luck = chance("schema")
    differ = []
    for _ in range(many(200)):
        document = changed(changed(luck.choice(JOBS), luck), luck)
        said, valid = read(document), SCHEMA.is_valid(document)
        if said == "" and not valid:
            differ.append((document, "the schema refuses what the reader takes"))
        if said and valid and not re.search(BEYOND, said):
            differ.append((document, said))
    assert differ == []


def test_the_examples_are_taken_by_both() -> None:
    for document in JOBS:
        assert read(document) == ""
        SCHEMA.validate(document)


def test_the_files_of_the_examples_are_all_here() -> None:
    assert len(JOBS) == len(list(Path(EXAMPLES).glob("*.job.json"))) >= 12
