"""The day and the price as a script sees them."""

import json
from pathlib import Path

import pytest
from typer.testing import CliRunner

from kelbrast.cli.main import app, main

EXAMPLES = Path(__file__).parents[2] / "examples"
HOUSING, LENS = EXAMPLES / "06-clock-housing.job.json", EXAMPLES / "04-barometer-lens.job.json"


def printed(*arguments: object) -> str:
    done = CliRunner().invoke(app, [str(argument) for argument in arguments])
    assert done.exit_code == 0, done.output
    return done.output


def test_the_day_as_json_has_everything_that_the_format_names() -> None:
    told = json.loads(
        printed("day", HOUSING, LENS, "--people", 2, "--from", "07:30", "--to", "16:00", "--seconds", 1, "--format", "json")
    )
    assert set(told) >= {"blocks", "changes", "late_min", "ends_min", "bound", "gap", "first_come"}
    block = told["blocks"][0]
    assert set(block) >= {
        "job",
        "face",
        "step",
        "operation",
        "tool",
        "person",
        "machine",
        "spindle",
        "from_min",
        "to_min",
        "kind",
    }
    assert (told["begins"], block["from_min"], block["at"]) == ("07:30", 0, "07:30")
    assert {one["person"] for one in told["blocks"] if one["kind"] == "work"} == {"1", "2"}
    assert told["first_come"]["changes"] >= told["changes"]


def test_the_same_seed_gives_the_same_day_and_it_can_be_read() -> None:
    first, again = (printed("day", HOUSING, "--seconds", 0.5, "--seed", 3) for _ in range(2))
    assert first == again
    assert "First come, first served" in first
    assert "08:00" in first


def test_a_promise_that_can_not_be_kept_is_late(tmp_path: Path) -> None:
    job = {**json.loads(HOUSING.read_text()), "due": "2026-11-27T08:10:00"}
    (tmp_path / "late.job.json").write_text(json.dumps(job))
    told = json.loads(printed("day", tmp_path / "late.job.json", "--on", "2026-11-27", "--seconds", 0, "--format", "json"))
    assert told["late_min"] > 0
    assert told["late_min"] == max(one["late_min"] for one in told["blocks"])


def test_the_quote_as_json_and_as_text() -> None:
    told = json.loads(printed("quote", LENS, "--pieces", "1,10", "--rate", 60, "--margin", 0.2, "--format", "json"))
    assert [one["pieces"] for one in told["prices"]] == [1, 10]
    assert set(told["prices"][0]) == {
        "pieces", "hands_on_minutes", "hands_on_minutes_high", "minutes", "minutes_high", "abrasives", "price", "price_each",
        "price_high",
    }  # fmt: skip
    assert told["humbler"]
    assert "10 pieces" in printed("quote", LENS, "--pieces", "1,10")


@pytest.mark.parametrize(
    ("arguments", "field"),
    [
        (("day", HOUSING, "--from", "25:00"), "--from"),
        (("day", HOUSING, "--from", "17:00"), "--to"),
        (("day", HOUSING, "--on", "tomorrow"), "--on"),
        (("day", EXAMPLES / "08-hinge-bush.job.json"), "jobs[0]"),
        (("quote", LENS, "--pieces", "many"), "--pieces"),
        (("quote", LENS, "--pieces", "0"), "pieces"),
        (("quote", LENS, "--rate", "0"), "--rate"),
        (("quote", LENS, "--margin", "-1"), "--margin"),
        (("quote", EXAMPLES / "08-hinge-bush.job.json"), "job"),
    ],
)
def test_what_is_wrong_is_named_with_exit_code_2(
    arguments: tuple[object, ...], field: str, capsys: pytest.CaptureFixture[str]
) -> None:
    with pytest.raises(SystemExit) as left:
        main([str(argument) for argument in arguments])
    assert left.value.code == 2
    assert capsys.readouterr().err.startswith(field)
