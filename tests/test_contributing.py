"""The recipes of CONTRIBUTING.md, followed to the letter in a copy, and what each of them promises."""

import json
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
RECIPE = re.compile(
    r"^```\w+\n(?:#|//|<!--) (\S+), (at the end|new|after `(.+?)`)(?: -->)?\n(.*?)^```", re.DOTALL | re.MULTILINE
)


def recipes() -> list[tuple[str, str, str, str]]:
    return RECIPE.findall((ROOT / "CONTRIBUTING.md").read_text(encoding="utf-8"))


def follow(folder: Path, name: str, where: str, anchor: str, block: str) -> None:
    """Put a block where its first line says."""
    file = folder / name
    if where == "new":
        file.parent.mkdir(parents=True, exist_ok=True)
        assert not file.exists(), f"{name} is there already"
        file.write_text(block, encoding="utf-8")
        return
    text = file.read_text(encoding="utf-8")
    if where == "at the end":
        gap = "" if name.endswith(".csv") else "\n"
        file.write_text(f"{text.rstrip()}\n{gap}{block}", encoding="utf-8")
        return
    lines = text.splitlines(keepends=True)
    (at,) = [number for number, line in enumerate(lines) if line.strip() == anchor]
    file.write_text("".join((*lines[: at + 1], block, *lines[at + 1 :])), encoding="utf-8")


@pytest.fixture(scope="module")
def copy(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The program with every recipe followed."""
    folder = tmp_path_factory.mktemp("copy")
    ignored = shutil.ignore_patterns("*.egg-info", "node_modules", "dist", ".svelte-check")
    for part in ("src", "web", "docs"):
        shutil.copytree(ROOT / part, folder / part, ignore=ignored)
    (folder / "tests").mkdir()
    for file in (ROOT / "CHANGELOG.md", *(ROOT / "tests").glob("*.json")):  # what the front end reads beside its own
        shutil.copy(file, folder / file.parent.relative_to(ROOT))
    os.symlink(ROOT / "web" / "node_modules", folder / "web" / "node_modules")
    assert len(recipes()) == (ROOT / "CONTRIBUTING.md").read_text(encoding="utf-8").count("\n```") / 2 - 1  # and the commands
    for name, where, anchor, block in recipes():
        follow(folder, name, where, anchor, block)
    return folder


def run(copy: Path, *arguments: str, given: str = "") -> str:
    done = subprocess.run(
        [sys.executable, *arguments],
        input=given,
        env={"PYTHONPATH": str(copy / "src"), "PATH": "/usr/bin:/bin"},
        capture_output=True,
        text=True,
        cwd=copy,
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


def test_a_family_a_material_and_a_carrier_are_listed_and_planned(copy: Path, collar: dict) -> None:
    assert "Tin casting" in run(copy, "-m", "kelbrast", "list", "materials")
    wished = {**collar["faces"][0], "wish": {"lock": ["narrow-strip-p320"]}, "want": {"finish": "satin"}}
    job = json.dumps({**collar, "material": "tin-casting", "faces": [wished]})
    plan = json.loads(run(copy, "-m", "kelbrast", "plan", "-", "--format", "json", given=job))
    assert plan["possible"]
    assert "narrow-strip-p320" in [step["tool"] for step in plan["faces"][0]["steps"]]
    assert any("keep it cool" in caution for caution in plan["cautions"])


def test_a_machine_and_an_instrument_are_known(copy: Path) -> None:
    assert "Pillar drill" in run(copy, "-m", "kelbrast", "list", "machines")
    told = run(copy, "-c", "from kelbrast.app.instruments import instruments; print([*instruments()])")
    assert "pocket-gloss-meter" in told


def test_a_rule_is_in_the_book_and_kept(copy: Path) -> None:
    told = run(
        copy,
        "-c",
        "from kelbrast.core.rules.book import BOOK, usable\n"
        "from kelbrast.core.rules.reach import CLOGS\n"
        "from kelbrast.core.catalogue.finishes import finish\n"
        "from kelbrast.core.catalogue.materials import material\n"
        "from kelbrast.core.job import Job\n"
        "from kelbrast.core.surface.face import Face\n"
        "from kelbrast.core.surface.found import Found\n"
        "from kelbrast.core.tooling.tool_context import ToolContext\n"
        "assert CLOGS in BOOK['reach']\n"
        "for name in ('acrylic', 'tool-steel-hardened'):\n"
        "    face = Face('window', 0.01, Found('lay', 14e-6, 20e-6), finish('N4'))\n"
        "    tools = usable(ToolContext.of(face, Job('window', material(name), (face,))))\n"
        "    print(name, any(one.tool.carrier.kind == 'stone' for one in tools.tools))\n",
    )
    assert told.splitlines() == ["acrylic False", "tool-steel-hardened True"]


def test_a_figure_of_a_face_is_read_kept_and_refused_by_its_name(copy: Path, collar: dict) -> None:
    face = {**collar["faces"][0], "lettering_mm": 0.4}
    rim = {"id": "rim", "name": "rim", "edge": {"length_mm": 200, "wanted": "break", "size_mm": 0.3}, "lettering_mm": 0.4}
    told = run(
        copy,
        "-c",
        "import json, sys\n"
        "from pathlib import Path\n"
        "from kelbrast.app.jobs import Jobs\n"
        "from kelbrast.documents.common.faults import where\n"
        "from kelbrast.documents.job.read import check_job_file, to_job\n"
        "from kelbrast.core.errors import BadInput\n"
        "job = json.load(sys.stdin)\n"
        "jobs = Jobs.open(Path('kept.sqlite'))\n"
        "kept = jobs.get(jobs.add(check_job_file(job)).id)\n"
        "made = to_job(kept.job)\n"
        "print(kept.job.faces[0].lettering_mm, *(one.lettering for one in made.faces))\n"
        "from dataclasses import replace\n"
        "from kelbrast.core.rules.book import usable\n"
        "from kelbrast.core.tooling.tool_context import ToolContext\n"
        "for face in (made.faces[0], replace(made.faces[0], lettering=None)):\n"
        "    print(any(one.tool.carrier.mount == 'bench-wheel' for one in usable(ToolContext.of(face, made)).tools))\n"
        "job['faces'][0]['lettering_mm'] = 0\n"
        "try: check_job_file(job)\n"
        "except BadInput as bad: print(where(bad.faults[0]))\n",
        given=json.dumps({**collar, "faces": [face, rim]}),
    )
    assert told.splitlines() == ["0.4 0.0004 0.0004", "False", "True", "lettering"]
    touched = [name for name, _, _, block in RECIPE.findall((ROOT / "CONTRIBUTING.md").read_text()) if "lettering" in block]
    assert len(touched) + len({"its test", "docs/files.md"}) <= 8


def test_a_file_format_is_read_and_its_faults_are_named(copy: Path) -> None:
    told = run(
        copy,
        "-c",
        "from kelbrast.core.errors import BadInput\n"
        "from kelbrast.documents.shift_file import read_shift_file\n"
        'print(read_shift_file(\'{"kelbrast": "shift/1", "people": ["Ada"], "minutes": 480}\').minutes)\n'
        'try: read_shift_file(\'{"kelbrast": "shift/1", "people": [], "minutes": 0, "hat": 1}\')\n'
        "except BadInput as bad: print(*sorted(str(one) for one in bad.faults), sep='\\n')\n",
    )
    assert told.splitlines()[0] == "480"
    assert {line.split(":")[0] for line in told.splitlines()[1:]} == {"people", "minutes", "hat"}


@pytest.mark.soak
@pytest.mark.long
def test_a_view_and_a_field_fit_the_types_of_the_front_end(copy: Path) -> None:
    (copy / "docs" / "openapi.json").write_text(
        run(copy, "-c", "from kelbrast.api.application import description; print(description(), end='')")
    )
    web = copy / "web"
    for command in ("types", "check"):
        done = subprocess.run(["npm", "run", "-s", command], cwd=web, capture_output=True, text=True)
        assert done.returncode == 0, done.stdout + done.stderr
    app = web / "src" / "app"
    views = re.findall(r"import\('(.+?)'\)", (app / "router.ts").read_text(encoding="utf-8"))
    assert "../features/people/PeopleView.svelte" in views
    assert [view for view in views if not (app / view).is_file()] == []
    schema = (copy / "web" / "src" / "api" / "schema.d.ts").read_text()
    assert "lettering_mm" in schema
