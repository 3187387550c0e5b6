"""The documents say what the code does."""

import re
import tomllib
from pathlib import Path

ROOT = Path(__file__).parents[1]


def test_the_layers_written_down_are_the_layers_enforced() -> None:
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"]["contracts"]
    enforced = [contract["layers"] for contract in contracts if contract["type"] == "layers"]
    text = (ROOT / "ARCHITECTURE.md").read_text()
    outer, inner = text.split("Inside the core:")
    listed = [re.findall(r"^\d+\. `([^`]+)`", part, re.MULTILINE) for part in (outer, inner)]
    assert listed == enforced


def test_the_readme_counts_right() -> None:
    from kelbrast.core.catalogue.finishes import finishes
    from kelbrast.core.catalogue.machines import machines
    from kelbrast.core.catalogue.materials import materials
    from kelbrast.core.catalogue.tools import tools

    assert f"starter rack of {len(tools())} tools" in (ROOT / "README.md").read_text()
    changes = (ROOT / "CHANGELOG.md").read_text()
    carriers = len({one.carrier.id for one in tools().values()})
    for count, what in (
        (len(materials()), "materials"),
        (len(finishes()), "finishes"),
        (len(tools()), "tools"),
        (carriers, "carriers"),
        (len(machines()), "machines"),
    ):
        assert f"{count} {what}" in changes, f"{count} {what}"


def test_pictures_are_there() -> None:
    for name in re.findall(r"\((docs/screenshots/[^)]+)\)", (ROOT / "README.md").read_text()):
        assert (ROOT / name).is_file()


def test_no_lock_names_a_host() -> None:
    assert '"resolved"' not in (ROOT / "web" / "package-lock.json").read_text()
    for path in (ROOT / "requirements").iterdir():
        assert not re.search(r"https?:|--index|--find-links", path.read_text()), path
