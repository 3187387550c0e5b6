"""The recipes of CONTRIBUTING.md, followed to the letter in a copy."""

import json
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]


@pytest.fixture(scope="module")
def copy(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The program with every block of the recipes at the end of the file that it names."""
    folder = tmp_path_factory.mktemp("copy")
    shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    blocks = re.findall(r"```toml\n# (\S+)\n(.*?)```", (ROOT / "CONTRIBUTING.md").read_text(), re.DOTALL)
    assert len(blocks) == 3
    for name, block in blocks:
        with (folder / "src" / "kelbrast" / "core" / "reference" / "records" / name).open("a", encoding="utf-8") as file:
            file.write("\n" + block)
    return folder


def run(copy: Path, *arguments: str, given: str = "") -> str:
    done = subprocess.run(
        [sys.executable, "-m", "kelbrast", *arguments],
        input=given,
        env={"PYTHONPATH": str(copy / "src"), "PATH": "/usr/bin:/bin"},
        capture_output=True,
        text=True,
        cwd=copy,
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


def test_a_material_of_the_recipe_is_listed_and_planned(copy: Path, collar: dict) -> None:
    assert "Gunmetal" in run(copy, "list", "materials")
    plan = json.loads(run(copy, "plan", "-", "--format", "json", given=json.dumps({**collar, "material": "gunmetal"})))
    assert plan["possible"]
    assert plan["faces"][0]["steps"]


def test_a_machine_and_an_instrument_of_the_recipes_are_known(copy: Path) -> None:
    assert "Pillar drill" in run(copy, "list", "machines")
    told = subprocess.run(
        [sys.executable, "-c", "from kelbrast.app.instruments import instruments; print([*instruments()])"],
        env={"PYTHONPATH": str(copy / "src"), "PATH": "/usr/bin:/bin"},
        capture_output=True,
        text=True,
        check=True,
        cwd=copy,
    )
    assert "pocket-gloss-meter" in told.stdout
