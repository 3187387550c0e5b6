"""The documents say what the code does."""

import ast
import re
import tomllib
from pathlib import Path

ROOT = Path(__file__).parents[1]


def test_the_layers_written_down_are_the_layers_enforced() -> None:
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"]["contracts"]
    enforced = [contract["layers"] for contract in contracts if contract["type"] == "layers"]
    text = (ROOT / "ARCHITECTURE.md").read_text()
    outer, inner = text.split("Inside the core:")
    inner, rooms = inner.split("`planning` then has four rooms")
    listed = [re.findall(r"^(?:\d+\.|-) `([^`]+)`", part, re.MULTILINE) for part in (outer, inner, rooms.split("## ")[0])]
    assert listed == enforced


def test_no_count_is_written_down_that_an_addition_would_make_wrong() -> None:
    for name in ("README.md", "CHANGELOG.md", "ARCHITECTURE.md", "CONTRIBUTING.md"):
        text = (ROOT / name).read_text()
        assert re.findall(r"\b\d+ (?:materials|finishes|tools|carriers|machines|rules|sentences)\b", text) == [], name


def test_pictures_are_there() -> None:
    for name in re.findall(r"\((docs/screenshots/[^)]+)\)", (ROOT / "README.md").read_text()):
        assert (ROOT / name).is_file()
    folder = ROOT / "docs" / "screenshots"
    shown = re.findall(r"\]\(([^)]+\.png)\)", (folder / "README.md").read_text())
    assert sorted(shown) == sorted(one.name for one in folder.glob("*.png"))


def test_no_lock_names_a_host() -> None:
    assert '"resolved"' not in (ROOT / "web" / "package-lock.json").read_text()
    for path in (ROOT / "requirements").iterdir():
        assert not re.search(r"https?:|--index|--find-links", path.read_text()), path


def test_one_name_names_one_thing() -> None:
    """Classes, and the names that stand for types, are unique over the whole program."""
    found: dict[str, list[str]] = {}
    for path in (ROOT / "src").rglob("*.py"):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        names = [node.name for node in ast.walk(tree) if isinstance(node, ast.ClassDef)]
        names += [
            node.targets[0].id
            for node in tree.body
            if isinstance(node, ast.Assign) and isinstance(node.targets[0], ast.Name) and node.targets[0].id.istitle()
        ]
        for name in names:
            found.setdefault(name, []).append(path.name)
    assert {name: where for name, where in found.items() if len(where) > 1} == {}


def test_no_test_asserts_under_an_if() -> None:
    """What is only looked at when something else holds may never be looked at."""
    found = []
    for path in (ROOT / "tests").rglob("*.py"):
        for test in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(test, ast.FunctionDef) and test.name.startswith("test"):
                branches = [part for node in ast.walk(test) if isinstance(node, ast.If) for part in (*node.body, *node.orelse)]
                asserts = [node for part in branches for node in ast.walk(part) if isinstance(node, ast.Assert)]
                found += [f"{path.name}:{test.name}" for _ in asserts]
    assert found == []


def test_the_glossary_says_every_term_once_and_names_what_exists() -> None:
    rows = re.findall(
        r"^\| ([^|]+) \| [^|]+ \| [^|]*\w[^|]* \| `([\w.]+)` \|$", (ROOT / "docs" / "glossary.md").read_text(), re.MULTILINE
    )
    assert len(rows) > 50
    terms = [term.strip() for row, _ in rows for term in row.split(",")]
    assert len(terms) == len(set(terms))
    code = "\n".join(path.read_text(encoding="utf-8") for path in (ROOT / "src" / "kelbrast" / "core").rglob("*.py"))
    for name in (name for _, name in rows):
        owner, _, member = name.rpartition(".")
        assert not owner or re.search(rf"^class {owner}\b", code, re.MULTILINE), name
        assert re.search(rf"^\s*(class|def) {member}\b|^\s*{member}(:| =) ", code, re.MULTILINE), name


def test_every_point_of_security_names_a_test_that_is_there() -> None:
    text = (ROOT / "docs" / "security.md").read_text()
    named = set(re.findall(r"`(test_\w+)`", text))
    there = {
        name
        for path in (ROOT / "tests").rglob("*.py")
        for name in re.findall(r"^def (test_\w+)", path.read_text(), re.MULTILINE)
    }
    assert len(named) > 20
    assert named <= there
    rows = [line for line in text.splitlines() if re.match(r"\| \d", line)]
    assert all("`test_" in row for row in rows)


def test_the_screens_have_the_cores_list_of_taps_beside_the_work() -> None:
    from kelbrast.core.bench.taps import BESIDE

    listed = re.search(r"BESIDE[^=]*= \[(.+?)\]", (ROOT / "web" / "src" / "api" / "beside.ts").read_text(), re.DOTALL)
    assert listed is not None
    assert tuple(re.findall(r"'(\w+)'", listed[1])) == BESIDE
