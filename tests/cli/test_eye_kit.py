"""The kit of the eye: a folder of pairs with known truth, read with every fault named, judged and scored."""

import json
import math
from dataclasses import replace
from pathlib import Path

import pytest

from commanding import run
from kelbrast.core.errors import BadInput, ReadError
from kelbrast.core.vision.score import ScoredPair, eye_score
from kelbrast.documents.run.eye_pairs import read_pairs
from photographing import Face, Shot, both, messenger

FACE = Face(before="P120", own="P240", share=0.6, lay=math.radians(20))
ALONG = Shot(lamp=FACE.lay, pixels=(448, 1344), um=9.0, seed=97_001)
ROW = {"pair": "a1", "old_marks": "yes", "across_mm": "12.1", "before": "P120", "crossing_deg": "", "lay_deg": "20"}


def table(*rows: dict[str, str]) -> str:
    return "\n".join([",".join(ROW), *(",".join({**ROW, **row}.values()) for row in rows)]) + "\n"


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Old marks left, and clean; and one pair that came through a messenger."""
    found = tmp_path_factory.mktemp("kit")
    for name, share in (("a1", 0.6), ("b1", 1.0)):
        pair = both(replace(FACE, share=share), replace(ALONG, lamp=FACE.lay + math.pi / 2), ALONG)[:2]
        for lamp, photo in zip(("across", "along"), pair, strict=True):
            (found / f"{name}-{lamp}.jpg").write_bytes(photo)
    for lamp in ("across", "along"):
        (found / f"b2-{lamp}.jpeg").write_bytes(messenger((found / f"b1-{lamp}.jpg").read_bytes()))
    rows = ({}, {"pair": "b1", "old_marks": "no", "lay_deg": ""}, {"pair": "b2", "old_marks": "No"})
    (found / "pairs.csv").write_text(table(*rows))
    return found


def test_a_folder_is_judged_scored_and_told_without_names(folder: Path, tmp_path: Path) -> None:
    told = run("eye", folder, "--to", tmp_path / "answers.csv")
    assert told.returncode == 0, told.stderr
    assert "a1: old marks; seen" in told.stdout
    assert "b2: clean; refused messenger" in told.stdout
    assert "faces with old marks told: seen, or look again: 1 of 1" in told.stdout
    assert "pairs of which it said nothing: 1 of 3" in told.stdout
    answers = (tmp_path / "answers.csv").read_text()
    assert answers.count("\n") == 4
    assert '"yes","seen"' in answers
    assert "a1" not in answers
    assert str(folder) not in answers
    score = json.loads(run("eye", folder, "--format", "json").stdout)
    assert (score["told"]["right"], score["missed"]["right"], score["refused"]["of"]) == (1, 0, 3)
    assert score["passed"]["of"] == 1


def test_answers_are_not_written_over_and_nothing_is_judged_for_that(folder: Path, tmp_path: Path) -> None:
    (tmp_path / "answers.csv").write_text("mine")
    told = run("eye", folder, "--to", tmp_path / "answers.csv")
    assert (told.returncode, told.stdout, "exists already" in told.stderr) == (2, "", True)
    assert (tmp_path / "answers.csv").read_text() == "mine"


@pytest.mark.parametrize(
    ("change", "column", "said"),
    [
        ({"old_marks": "perhaps"}, "row 2, old_marks", "yes or no"),
        ({"across_mm": "0"}, "row 2, across_mm", "above 0"),
        ({"across_mm": "wide"}, "row 2, across_mm", "number"),
        ({"before": "rough"}, "row 2, before", "not a grade"),
        ({"crossing_deg": "120"}, "row 2, crossing_deg", "90 at most"),
        ({"pair": "../b"}, "row 2, pair", "a name that a file can have"),
    ],
)
def test_every_fault_of_the_table_is_named(change: dict[str, str], column: str, said: str) -> None:
    with pytest.raises(BadInput) as bad:
        read_pairs(table(change))
    assert [fault.field for fault in bad.value.faults] == [column]
    assert said in str(bad.value)


def test_a_table_that_is_none_or_has_a_pair_twice_is_refused(tmp_path: Path) -> None:
    with pytest.raises(ReadError):
        read_pairs("photo,truth\na,b\n")
    with pytest.raises(BadInput, match="a1 is there twice"):
        read_pairs(table({}, {}))
    with pytest.raises(BadInput, match="has no pairs"):
        read_pairs(table())
    (tmp_path / "pairs.csv").write_text(table({}))
    told = run("eye", tmp_path)
    assert (told.returncode, told.stderr.count("\n")) == (2, 2)
    assert "a1: the photo a1-across.jpg is not in the folder" in told.stderr


def test_a_refusal_counts_as_refused_alone() -> None:
    score = eye_score(
        [ScoredPair(True, said) for said in ("seen", "look-again", "none-seen", "refused")]
        + [ScoredPair(False, said) for said in ("seen", "look-again", "none-seen", "none-seen")]
    )
    assert (score.told.right, score.told.of, score.missed.right) == (2, 3, 1)
    assert (score.false.right, score.passed.right, score.passed.of) == (1, 2, 4)
    assert (score.refused.right, score.refused.of) == (1, 8)
