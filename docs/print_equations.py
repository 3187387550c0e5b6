"""Writes the table of equations into `docs/model.md`, from what the models say: `python docs/print_equations.py`."""

import ast
import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
MODEL = ROOT / "docs" / "model.md"
CORE = ROOT / "src" / "kelbrast" / "core"
BEGIN, END = "<!-- equations: printed from the code -->", "<!-- end of the equations -->"


def rows() -> list[str]:
    found = []
    for package in ("process", "metrology", "simulation", "vision", "learning", "precision"):
        for path in sorted((CORE / package).glob("*.py")):
            for node in ast.parse(path.read_text(encoding="utf-8")).body:
                said = ast.get_docstring(node) or "" if isinstance(node, ast.FunctionDef) else ""
                if isinstance(node, ast.FunctionDef) and not node.name.startswith("_") and "Equation:" in said:
                    found.append(_row(f"{package}.{path.stem}.{node.name}", said))
    return found


def _row(name: str, said: str) -> str:
    def of(head: str) -> str:
        return re.search(rf"^{head}: (.+?)(?:\n[A-Z]|\n\n|\Z)", said, re.MULTILINE | re.DOTALL)[1].strip()  # type: ignore[index]

    cells = [f"`{name}`", of("Equation"), of("Valid").rstrip("."), of("Source").rstrip(".")]
    return "| " + " | ".join(re.sub(r"\s+", " ", cell).replace("|", "\\|") for cell in cells) + " |"


def written(text: str) -> str:
    """The document with its table as the code is now."""
    before, _, rest = text.partition(BEGIN)
    _, _, after = rest.partition(END)
    head = ["| function | equation (unit) | valid for | source |", "| --- | --- | --- | --- |"]
    return before + "\n".join([BEGIN, *head, *rows(), END]) + after


if __name__ == "__main__":
    MODEL.write_text(written(MODEL.read_text(encoding="utf-8")), encoding="utf-8")
