"""What the core says of a few cases is what was read and kept."""

import json

import pytest

from kelbrast.core.process import clearance, heat
from kelbrast.core.rules.book import usable
from written import FILE, PARTS

KEPT = json.loads(FILE.read_text(encoding="utf-8"))


@pytest.mark.parametrize("part", KEPT)
def test_it_says_what_was_kept(part: str) -> None:
    for cached in (usable, clearance.area_factor, clearance.clearance, heat.longest_stay):
        cached.cache_clear()  # what another test has asked for already would hide what is run here
    assert json.loads(json.dumps(PARTS[part]())) == KEPT[part], "read the difference; `make types` writes it anew"


def test_nothing_is_left_out() -> None:
    assert set(PARTS) == set(KEPT)
