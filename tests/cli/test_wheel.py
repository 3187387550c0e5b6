"""What others install: the wheel has everything in it, says what it needs, and a doctor looks at what is there."""

import re
import subprocess
import zipfile
from pathlib import Path

import pytest

from commanding import run

ROOT = Path(__file__).parents[2]


@pytest.fixture(scope="module")
def wheel() -> Path:
    # The screens as they are: other tests serve them, and must not see them built anew.
    subprocess.run(["make", "-s", "-o", ".stamps/app", "-o", ".stamps/web", "wheel"], cwd=ROOT, check=True, capture_output=True)
    (built,) = (ROOT / "dist").glob("kelbrast-*.whl")
    return built


def test_screens_facts_tables_and_the_demo_are_in_the_wheel(wheel: Path) -> None:
    with zipfile.ZipFile(wheel) as packed:
        names = set(packed.namelist())
        metadata = next(packed.read(name).decode() for name in names if name.endswith("METADATA"))
    assert {"kelbrast/screens/index.html", "kelbrast/screens/sw.js", "kelbrast/screens/manifest.webmanifest"} <= names
    assert {f"kelbrast/demo/examples/{path.name}" for path in (ROOT / "examples").iterdir()} <= names
    source = ROOT / "src" / "kelbrast"
    assert {f"kelbrast/{path.relative_to(source)}" for path in source.rglob("*.toml")} <= names
    assert {f"kelbrast/{path.relative_to(source)}" for path in source.rglob("*.py")} <= names
    needed = {re.split(r"[<>=\[; ]", line)[1] for line in re.findall(r"^Requires-Dist: .*$", metadata, re.MULTILINE)}
    pinned = {re.split(r"[=\[]", line)[0] for line in (ROOT / "requirements" / "app.in").read_text().split()}
    assert {one.lower() for one in needed} == {one.lower() for one in pinned} - {"setuptools"}
    assert not (ROOT / "src" / "kelbrast" / "screens").exists()


def test_the_doctor_finds_nothing_wrong_here_and_names_what_is(tmp_path: Path) -> None:
    well = run("doctor", "--database", str(tmp_path / "kept.sqlite"))
    assert (well.returncode, "WRONG" in well.stdout) == (0, False)
    assert "no database" in well.stdout
    (tmp_path / "other.sqlite").write_bytes(b"no database at all, and long enough to be looked at as one" * 20)
    ill = run("doctor", "--database", str(tmp_path / "other.sqlite"))
    assert ill.returncode == 1
    assert "WRONG  the database" in ill.stdout
    assert ill.stderr == ""
