"""Words that were retired stay away: one word for one thing, and the usual one."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
# What nobody would say, and what is said instead.
RETIRED = {
    r"\bcan not\b": "cannot",
    r"\bhumbler finish": "simpler finish",
    r"\bnothing beats\b": "best trade-offs",
    r"\bNine of ten below\b": "Allow up to",
    r"\bTo the day\b": "Put on the schedule",
    r"\bPlanned at once\b": "First plan",
    r"\bKeep this quote\b": "Save quote",
    r"\bLeast metal\b": "Least removed",
    r"\bStuck in it\b": "Fitted parts that stay in",
    r"\bWheel now\b": "Diameter now",
    r"\bName of your own\b": "Your name for it",
    r"\bBring back from a file\b": "Restore from a file",
    r"\bDue for care\b": "Maintenance due",
    r"\bJump between grades\b": "Grit steps",
    r"\bWhat people call it\b": "Pick the damage from pictures",
}
WRITTEN = ("src/kelbrast", "web/src", "docs", "README.md", "ARCHITECTURE.md", "CONTRIBUTING.md")
KINDS = (".py", ".toml", ".md", ".svelte", ".ts")


def written() -> Iterator[Path]:
    for place in WRITTEN:
        here = ROOT / place
        for path in [here] if here.is_file() else here.rglob("*"):
            # Published migrations never change, whatever they say.
            if path.suffix in KINDS and "migrations" not in path.parts and path.name != "schema.d.ts":
                yield path


@pytest.mark.text
def test_retired_words_are_not_used_again() -> None:
    found = [
        f"{path.relative_to(ROOT)}: say {instead}"
        for path in written()
        for word, instead in RETIRED.items()
        if re.search(word, path.read_text(encoding="utf-8"))
    ]
    assert found == []
