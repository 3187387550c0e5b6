"""The command line as a script sees it: exit codes, one fault per line, never a traceback."""

import json
import os
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Any

import jsonschema
import pytest

from commanding import ROOT, run, run_process
from demo_workshop import demo_workshop
from kelbrast.app.planning import plan_file
from kelbrast.documents.job.read import check_job_file
from kelbrast.documents.schema import schema


def test_a_process_of_its_own_says_the_same() -> None:
    for arguments in (("plan", ROOT / "examples" / "04-barometer-lens.job.json"), ("plan", "no-such-file.json")):
        real, here = run_process(*arguments), run(*arguments)
        assert (real.returncode, real.stdout, real.stderr) == (here.returncode, here.stdout, here.stderr)


def test_plan_as_json_is_the_plan(collar: dict[str, Any], write_job: Callable[[dict[str, Any]], Path]) -> None:
    done = run("plan", write_job(collar), "--format", "json")
    assert done.returncode == 0
    printed = json.loads(done.stdout)
    jsonschema.validate(printed, schema("plan"))
    assert printed == json.loads(plan_file(check_job_file(collar)).model_dump_json())


def test_plan_from_standard_input_as_text(collar: dict[str, Any]) -> None:
    done = run("plan", "-", text=json.dumps(collar))
    assert done.returncode == 0
    assert "1. " in done.stdout


def test_not_possible_is_an_answer() -> None:
    done = run("plan", ROOT / "examples" / "08-hinge-bush.job.json", "--format", "json")
    assert done.returncode == 0
    (face,) = json.loads(done.stdout)["faces"]
    assert (face["possible"], face["binding"], face["steps"]) == (False, "metal", [])


def test_faults_one_per_line_and_exit_2(collar: dict[str, Any], write_job: Callable[[dict[str, Any]], Path]) -> None:
    collar["faces"][0]["found"]["depth_um"] = 0
    collar["pieces"] = 0
    done = run("plan", write_job(collar))
    assert done.returncode == 2
    assert done.stdout == ""
    assert done.stderr.splitlines() == ["pieces: must be at least 1", "faces[0].found.depth_um: must be above 0"]


@pytest.mark.parametrize(
    "arguments",
    [
        ("plan", "nowhere.json"),
        ("plan", "src"),
        ("list", "wheels"),
        ("schema", "shelf"),
        ("grade", "600"),
        ("speed", "--diameter-mm", "200"),
        ("speed", "--diameter-mm", "-1", "--rpm", "100"),
        ("speed", "--diameter-mm", "nan", "--rpm", "100"),
        ("speed", "--diameter-mm", "200", "--rpm", "100", "--m-s", "3"),
        ("backup", "--database", "nowhere.sqlite"),
        ("frobnicate",),
    ],
)
def test_what_can_not_be_done_exits_2(arguments: tuple[str, ...]) -> None:
    done = run(*arguments)
    assert done.returncode == 2
    assert done.stderr.strip()


@pytest.mark.parametrize("kind", ["materials", "finishes", "tools", "machines", "grades"])
def test_lists(kind: str) -> None:
    rows = json.loads(run("list", kind, "--format", "json").stdout)
    assert rows
    table = run("list", kind).stdout.splitlines()
    assert len(table) == len(rows) + 1


def test_schemas_are_schemas() -> None:
    for kind in ("job", "plan", "rack"):
        jsonschema.Draft202012Validator.check_schema(json.loads(run("schema", kind).stdout))


def test_grade() -> None:
    assert json.loads(run("grade", "P600", "--format", "json").stdout) == {
        "grade": "P600",
        "um": 25.8,
        "nearest": {"P": "P600", "F": "F360", "CAMI": "CAMI400", "JIS": "JIS500"},
    }


def test_speed_both_ways() -> None:
    there = json.loads(run("speed", "--diameter-mm", "203.2", "--rpm", "1800", "--format", "json").stdout)
    assert there["m_s"] == pytest.approx(19.1511, abs=1e-4)
    assert there["ft_min"] == pytest.approx(3769.9, abs=0.1)
    back = json.loads(run("speed", "--diameter-mm", "203.2", "--m-s", "19.15114882", "--format", "json").stdout)
    assert back["rpm"] == pytest.approx(1800, abs=1e-3)


def test_a_port_in_use_is_said(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        done = run("demo", "--port", str(taken.getsockname()[1]), "--database", tmp_path / "demo.sqlite")
    assert done.returncode == 2
    assert "is in use" in done.stderr
    assert not (tmp_path / "demo.sqlite").exists()


def test_demo_serves_the_workshop(tmp_path: Path) -> None:
    command = [sys.executable, "-m", "kelbrast", "demo", "--port", "0", "--database", str(tmp_path / "demo.sqlite")]
    environment = {**os.environ, "PYTHONUNBUFFERED": "1"}
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True, cwd=ROOT, env=environment) as server:
        try:
            assert server.stdout is not None
            address = server.stdout.readline().split(" at ")[1].split()[0]
            assert json.load(_patiently(f"{address}api/jobs"))["count"] >= 6
            assert b'id="app"' in _patiently(address).read()
            assert b'id="app"' in _patiently(f"{address}jobs/1").read()  # a page of the front end, opened directly
            for nowhere in ("api/nothing", "assets/nothing.js"):
                with pytest.raises(urllib.error.HTTPError, match="404"):
                    _patiently(f"{address}{nowhere}")
        finally:
            server.terminate()


def _patiently(address: str) -> Any:
    for _ in range(50):
        try:
            return urllib.request.urlopen(urllib.request.Request(address, headers={"accept": "text/html"}), timeout=10)
        except ConnectionError:
            time.sleep(0.1)
    raise AssertionError(f"{address} does not answer")


def test_every_command_is_described() -> None:
    listed = run("--help").stdout
    described = (ROOT / "docs" / "commands.md").read_text(encoding="utf-8")
    for command in ("plan", "goback", "weigh", "card", "list", "schema", "grade", "speed", "serve", "demo", "backup"):
        assert command in listed
        assert f"kelbrast {command}" in described


def test_weigh_puts_everything_side_by_side() -> None:
    spindle = ROOT / "examples" / "09-tide-gauge-spindle.job.json"
    made = json.loads(run("weigh", spindle, "--format", "json").stdout)
    assert [way["aim"] for way in made["choices"]["by_aim"]] == ["time", "metal", "cost", "changes"]
    assert {face["face"] for face in made["faces"]} == {"journal", "hand-wheel grip"}
    assert all(face["front"] for face in made["faces"])
    text = run("weigh", ROOT / "examples" / "04-barometer-lens.job.json").stdout
    assert "among the best trade-offs" in text
    assert "Low speed at the bench" in text


def test_the_card_is_one_page_and_never_written_over(tmp_path: Path) -> None:
    target = tmp_path / "card.pdf"
    collar = ROOT / "examples" / "01-gallery-rail-collar.job.json"
    assert run("card", collar, "--to", target).returncode == 0
    written = target.read_bytes()
    assert written.startswith(b"%PDF")
    assert written.count(b"/Type /Page\n") == 1
    again = run("card", collar, "--to", target)
    assert again.returncode == 2
    assert "left as it is" in again.stderr
    assert target.read_bytes() == written


def test_goback_is_a_plan_from_there_on() -> None:
    collar = ROOT / "examples" / "01-gallery-rail-collar.job.json"
    done = run("goback", collar, "--face", "outer barrel", "--after", "2", "--depth-um", "4", "--format", "json")
    assert done.returncode == 0
    made = json.loads(done.stdout)
    assert made["kelbrast"] == "plan/1"
    (face,) = made["faces"]
    assert face["steps"][0]["from_um"] == 4
    assert made["goback"]["extent"] in ("patch", "whole")
    assert "Accepting it" in run("goback", collar, "--face", "outer barrel", "--after", "2", "--like", "P400").stdout


@pytest.mark.parametrize(
    ("extra", "said"),
    [
        (("--face", "lid", "--after", "1", "--fingernail"), 'face: there is no face "lid"'),
        (("--face", "outer barrel", "--after", "9", "--fingernail"), "after: "),
        (("--face", "outer barrel", "--after", "1"), "depth_um: say how deep"),
        (("--face", "outer barrel", "--after", "1", "--depth-um", "0"), "depth_um: must be above 0"),
        (("--face", "outer barrel", "--after", "1", "--like", "600"), "like: "),
    ],
)
def test_goback_names_what_is_wrong(extra: tuple[str, ...], said: str) -> None:
    done = run("goback", ROOT / "examples" / "01-gallery-rail-collar.job.json", *extra)
    assert done.returncode == 2
    assert done.stderr.startswith(said)


def test_a_job_planned_from_the_own_rack_asks_for_it_everywhere(tmp_path: Path) -> None:
    document = json.loads((ROOT / "examples" / "01-gallery-rail-collar.job.json").read_text())
    path = tmp_path / "own.job.json"
    path.write_text(json.dumps({**document, "use_rack": "own"}))
    rack = ("--rack", ROOT / "examples" / "skerry-light.rack.json")
    for command in (
        ("plan", path),
        ("weigh", path),
        ("goback", path, "--face", "outer barrel", "--after", "1", "--depth-um", "3"),
        ("card", path, "--to", tmp_path / "card.pdf"),
    ):
        refused = run(*command)
        assert refused.returncode == 2
        assert "--rack" in refused.stderr
        assert run(*command, *rack).returncode == 0


def test_the_log_is_listed_and_a_run_is_told(tmp_path: Path) -> None:
    database = tmp_path / "demo.sqlite"
    demo_workshop(database, with_past=True)
    listed = run("log", "--database", database, "--text", "north stair")
    assert listed.returncode == 0
    (line,) = listed.stdout.splitlines()
    number = line.split()[0]
    told = run("log", number, "--database", database)
    assert "Began step 1 (piece 1, lettering recess)" in told.stdout
    assert told.stdout.rstrip().endswith("Finished: as wanted.")
    as_json = json.loads(run("log", number, "--database", database, "--format", "json").stdout)
    jsonschema.validate(as_json, schema("run"))
    assert run("log", "999", "--database", database).returncode == 2
    missing = run("log", "--database", tmp_path / "none.sqlite")
    assert (missing.returncode, missing.stderr.startswith("--database:")) == (2, True)


def test_the_database_of_the_program_is_a_rack_with_what_its_log_taught(tmp_path: Path) -> None:
    database = tmp_path / "demo.sqlite"
    demo_workshop(database, with_past=True)
    job = ROOT / "examples" / "01-gallery-rail-collar.job.json"
    with_log = json.loads(run("plan", job, "--rack", database, "--format", "json").stdout)
    without = json.loads(run("plan", job, "--format", "json").stdout)
    yours = [step["yours"] for face in with_log["faces"] for step in face["steps"]]
    assert any(yours)
    assert with_log["minutes"] != without["minutes"]


def test_a_measured_profile_is_evaluated(tmp_path: Path) -> None:
    profile = ROOT / "tests" / "outside" / "profiles" / "NU206-IR-1.txt"
    asked = ("--form", "4", "--length", "5.6", "--lambda-c", "0.8", "--lambda-s", "2.5")
    found = json.loads(run("measure", profile, *asked, "--format", "json").stdout)
    assert found["Ra_um"] == pytest.approx(0.1077, rel=0.01)  # two independent programs agree on it, see tests/outside
    assert found["lambda_c_mm"] == 0.8
    text = run("measure", profile, "--form", "4", "--at-most", "0.12", "--to", tmp_path / "again.x3p").stdout
    assert "by ISO 4288" in text
    assert "16% rule: kept" in text
    again = json.loads(run("measure", tmp_path / "again.x3p", "--form", "4", "--format", "json").stdout)
    assert again["Ra_um"] == pytest.approx(0.1097, rel=0.01)
    assert run("measure", profile, "--to", tmp_path / "again.x3p").returncode == 2  # it is there already
    short = tmp_path / "short.txt"
    short.write_text("0 1\n0.1 x\n")
    refused = run("measure", short)
    assert (refused.returncode, refused.stderr) == (2, "line 2: must be two numbers, the place and the height\n")
    assert run("measure", profile, "--x-unit", "furlong").returncode == 2
    assert run("measure", tmp_path / "none.txt").returncode == 2
