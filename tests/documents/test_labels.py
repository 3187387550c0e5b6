"""What a label on a wheel says."""

from kelbrast.core.rack.item import Item, ItemEvent
from kelbrast.documents.rack.labels import label_of


def test_a_label_says_what_the_wheel_is_kept_for_in_words() -> None:
    wheel = Item(3, "loose", name="no. 3", history=(ItemEvent("used", charge="white", family="copper-alloy"),))
    assert label_of(wheel, "Loose cotton wheel", "x").lines[:3] == (
        "no. 3",
        "Loose cotton wheel",
        "Only white bar on copper, brass, bronze",
    )


def test_a_family_that_is_not_known_is_said_as_it_stands() -> None:
    wheel = Item(3, "loose", history=(ItemEvent("used", charge="white", family="pewter"),))
    assert "Only white bar on pewter" in label_of(wheel, "Loose cotton wheel", "x").lines
