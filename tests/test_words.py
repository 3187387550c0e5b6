"""The words of the program: what people read on screens, in sentences and in the manual has no word that was retired."""

import re
import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any, Final

from conftest import ROOT

WEB: Final = ROOT / "web" / "src"
RECORDS: Final = ROOT / "src" / "kelbrast" / "core" / "reference" / "records"
# What it is called now stands behind it.
RETIRED: Final = {
    r"can not\b": "cannot",
    r"nine of ten\b": "nine in ten; allow up to",
    r"\bhumbler\b": "simpler",
    r"\broutes?\b": "plan, steps, way",
    r"\bhand-?over\b": "hand over (to a customer), or nothing",
    r"\bas at first\b": "reset",
    r"\bto weigh\b": "compare ways",
    r"\btake (it |them |this |the last tap )?back\b": "undo",
    r"\btake(s|n)? (it |them |this |that )?away\b": "remove",
    r"\bput away\b": "dismiss",
    r"\bkeep off\b": "mask",
    r"\bmend(ed|ing)?\b": "fix",
    r"\bworked out\b": "computed",
    r"\bpartial routes\b": "",
    r"\bwheel now\b": "diameter now",
    r"\bstuck in it\b": "fitted parts that stay in",
    r"\bdue for care\b": "maintenance due",
    r"\bfirst come, first served\b": "in order of arrival",
    r"\bshort on the rack\b": "missing",
    r"\bkeep this quote\b": "save quote",
    r"\bjump between grades\b": "grit steps",
    r"\bto the bench$": "start",
    r"\bto the day$": "put on the schedule",
}
# Names in braces, and a lap or a wheel that is kept for one thing, are not meant.
EXCUSED: Final = re.compile(r"\{\w+\}|Go to the bench")


def strings(code: str) -> Iterator[str]:
    """What stands in quotation marks and is more than one word."""
    code = re.sub(r"/\*.*?\*/", "", code, flags=re.DOTALL)
    code = re.sub(r"(^|\s)//.*", "", code)
    for found in re.finditer(r"'((?:[^'\\\n]|\\.)*)'|\"((?:[^\"\\\n]|\\.)*)\"|`((?:[^`\\]|\\.)*)`", code):
        text = next(group for group in (*found.groups(), "") if group is not None)
        if " " in text:
            yield re.sub(r"\$\{[^{}]*\}", "…", text)


def markup(text: str) -> Iterator[str]:
    """What a component shows: its text, its strings, and the attributes that are read."""
    text = re.sub(r"<!--.*?-->|<style.*?</style>", "", text, flags=re.DOTALL)
    for script in re.findall(r"<script[^>]*>(.*?)</script>", text, flags=re.DOTALL):
        yield from strings(script)
    shown = re.sub(r"<script[^>]*>.*?</script>", "", text, flags=re.DOTALL)
    yield from re.findall(r'\b(?:label|title|aria-label|placeholder|question)="([^"{}]*)"', shown)
    for expression in re.findall(r"\{([^{}]*)\}", shown):
        yield from strings(expression)
    while "{" in shown and (less := re.sub(r"\{[^{}]*\}", " … ", shown)) != shown:
        shown = less
    yield from (" ".join(part.split()) for part in re.split(r"<[^<>]*>", shown) if part.strip())


def values(record: Any) -> Iterator[str]:
    if isinstance(record, str):
        yield record
    for key, value in record.items() if isinstance(record, dict) else ():
        if key not in ("source", "why"):
            yield from values(value)
    for value in record if isinstance(record, list) else ():
        yield from values(value)


def read() -> Iterator[tuple[Path, str]]:
    """Everything that people read, with where it stands."""
    for file in WEB.rglob("*.svelte"):
        yield from ((file, text) for text in markup(file.read_text()))
    for file in WEB.rglob("*.ts"):
        if not file.name.endswith((".test.ts", ".d.ts")):
            yield from ((file, text) for text in strings(file.read_text()))
    for file in (ROOT / "docs" / "manual").glob("*.md"):
        yield from ((file, text) for text in file.read_text().split("\n\n"))
    for name in ("sentences", "operations", "faults", "damages"):
        file = RECORDS / f"{name}.toml"
        yield from ((file, text) for text in values(tomllib.loads(file.read_text())))


def test_no_retired_word_is_read_anywhere() -> None:
    found = [
        f"{file.relative_to(ROOT)}: “{text[:90]}” has {word}: {instead}"
        for file, text in read()
        for word, instead in RETIRED.items()
        if re.search(word, EXCUSED.sub("", text), re.IGNORECASE)
    ]
    assert not found, "\n".join(found)


def test_enough_is_read() -> None:
    texts = [text for _, text in read()]
    assert len(texts) > 2500
    for known in ("What most of it looks like", "Every promise is met.", "Clean and inspect", "Undo"):
        assert any(known in text for text in texts), known


def test_a_retired_word_would_be_found() -> None:
    component = '<script>const a = { b: "Take it back now" };</script><!-- route --><p class="x">No route here {x}</p>'
    assert list(markup(component)) == ["Take it back now", "No route here …"]
