"""Work to size on the command line, in this process."""

import json
from pathlib import Path

import pytest

from kelbrast.cli.main import main

BUSH = Path(__file__).parents[2] / "examples" / "tide-gauge-bush.size.json"


def told(capsys: pytest.CaptureFixture[str], *arguments: str) -> str:
    with pytest.raises(SystemExit) as ended:
        main(arguments)
    assert ended.value.code in (0, None)
    return capsys.readouterr().out


def refused(capsys: pytest.CaptureFixture[str], *arguments: str) -> str:
    with pytest.raises(SystemExit) as ended:
        main(arguments)
    assert ended.value.code == 2
    return capsys.readouterr().err


def test_a_bush_to_read_and_to_script(capsys: pytest.CaptureFixture[str]) -> None:
    assert "NEXT: lap" in told(capsys, "size", str(BUSH))
    answer = json.loads(told(capsys, "size", str(BUSH), "--format", "json"))
    assert answer["next"]["move"] == "lap"
    assert answer["form"]["oval_um"] == pytest.approx(13.8, abs=0.1)
    assert answer["limits_mm"] == pytest.approx([14.0, 14.018])


def test_a_fit(capsys: pytest.CaptureFixture[str]) -> None:
    found = json.loads(told(capsys, "fit", "25", "H7", "g6", "--format", "json"))
    assert found == {"hole_um": [0, 21], "shaft_um": [-20, -7], "clearance_um": [7, 41]}
    assert "clearance 7 to 41" in told(capsys, "fit", "25", "H7", "g6")
    assert refused(capsys, "fit", "25", "h7", "g6").startswith("HOLE: a hole has a capital letter")
    assert refused(capsys, "fit", "25", "H7", "G6").startswith("SHAFT: ")
    assert refused(capsys, "fit", "400", "H7", "g6").startswith("NOMINAL_MM: the nominal size must be from 1 to 250 mm")


def test_the_lathe(capsys: pytest.CaptureFixture[str]) -> None:
    asked = ("lathe", "--diameter-mm", "25.4", "--cutting-ft-min", "80", "--family", "ferrous")
    found = json.loads(told(capsys, *asked, "--format", "json"))
    assert (found["rough_rpm"], found["rough_rpm_exact"], found["file_rpm"]) == (320, 306, [1280, 1600])
    assert json.loads(told(capsys, *asked, "--most-rpm", "2500", "--format", "json"))["polish_rpm"] == 2500
    assert "never by hand with a rag" in told(capsys, *asked)
    brass = ("lathe", "--diameter-mm", "25.4", "--cutting-m-min", "24.384", "--family", "copper-alloy")
    assert json.loads(told(capsys, *brass, "--format", "json"))["file_rpm"] == [640, 960]
    assert refused(capsys, *asked[:-1], "cheese").startswith('--family: "cheese" is not one of')
    assert refused(capsys, *asked[:3], "--family", "ferrous").startswith("--cutting-ft-min: give the cutting speed")
    assert refused(capsys, "lathe", "--diameter-mm", "0", *asked[3:]).startswith("--diameter-mm: must be above 0")


def test_a_file_that_is_none(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    wrong = tmp_path / "wrong.json"
    wrong.write_text(json.dumps({**json.loads(BUSH.read_text()), "kind": "hole", "colour": 1}))
    said = refused(capsys, "size", str(wrong)).splitlines()
    assert said == ["kind: must be one of bore, shaft", "colour: is not a key of this file"]
    assert "cannot be read" in refused(capsys, "size", str(tmp_path / "none.json"))
