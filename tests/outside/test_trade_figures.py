"""What carriers leave and take off, cell by cell, against what the trade sees (`practice/figures.toml`)."""

import sys
import tomllib
from functools import cache
from pathlib import Path

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.job import Job
from kelbrast.core.process.scratch import roughness_left
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face

TOLD = tomllib.loads((Path(__file__).parent / "practice" / "figures.toml").read_text(encoding="utf-8"))
ROOT = Path(__file__).parents[2]
ENOUGH = 0.9  # of the cells; the rest are listed with their reason


def ra(name: str, stuff: str) -> float:
    """Ra that a tool leaves, um."""
    one = tool(name)
    cutting = one.carrier.cutting
    left = roughness_left(grain=one.grain, hold=cutting.hold, hardness=material(stuff).hardness, floor=cutting.floor)
    return left * 1e6


@cache
def grams(name: str, stuff: str) -> float:
    """What a fresh tool takes off a bare face in a minute, g."""
    face = Face("face", 0.05, Found("scratches", 20e-6, 20e-6), finish("satin"))
    context = ToolContext.of(face, Job("", material(stuff), (face,), carried=True))
    on = next(one for one in tools_on_face(context) if one.tool.id == name)
    return on.rate * material(stuff).density * 1000 * 60


def cells() -> list[tuple[str, float, float, float]]:
    """What, the model's figure, the least and the most that the trade sees."""
    found = [(f"Ra {name}", ra(name, "stainless-304"), low, high) for name, (low, high) in TOLD["ra"].items()]
    found += [
        (f"Ra {name} on a clear coat", ra(name, "clear-coat-2k"), low, high)
        for name, (low, high) in TOLD["ra_on_clear_coat"].items()
    ]
    found += [(f"g/min {name} on {stuff}", grams(name, stuff), low, high) for name, (stuff, low, high) in TOLD["grams"].items()]
    return found


def test_nearly_every_cell_is_kept_and_the_others_are_named() -> None:
    missed = {what: round(ours, 4) for what, ours, low, high in cells() if not low * 0.98 <= ours <= high * 1.02}
    assert set(missed) == set(TOLD["not_kept"]), missed
    assert len(missed) <= (1 - ENOUGH) * len(cells())


@pytest.mark.text
def test_the_table_in_the_documents_is_current() -> None:
    sys.path.insert(0, str(ROOT / "docs"))
    from print_trade import written

    text = (ROOT / "docs" / "model.md").read_text(encoding="utf-8")
    assert written(text) == text, "make types prints it anew"
