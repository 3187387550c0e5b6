"""Numbers as people write them; the screens read the same table (`units.test.ts`)."""

import json
from pathlib import Path

import pytest

from kelbrast.core.wording import minutes_range, minutes_text
from kelbrast.documents.common.fields import read_number

TABLE = json.loads((Path(__file__).parents[1] / "numbers.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("text", TABLE["read"])
def test_a_number_is_read(text: str) -> None:
    assert read_number(text) == TABLE["read"][text]


@pytest.mark.parametrize("text", TABLE["two ways"])
def test_what_can_be_read_in_two_ways_is_refused_with_both(text: str) -> None:
    with pytest.raises(ValueError, match=rf"two ways: write {text.strip().replace(',', '')}, or "):
        read_number(text)


@pytest.mark.parametrize("text", TABLE["not a number"])
def test_what_is_not_a_number_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match="is not a number"):
        read_number(text)


@pytest.mark.parametrize(("minutes", "said"), TABLE["minutes"])
def test_one_form_of_times(minutes: float, said: str) -> None:
    assert minutes_text(minutes) == said


@pytest.mark.parametrize(("likely", "high", "said"), TABLE["range"])
def test_ranges_of_minutes_are_said_alike(likely: float, high: float | None, said: str) -> None:
    assert minutes_range(likely, high) == said
