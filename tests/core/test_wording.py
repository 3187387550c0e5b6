"""Facts in words: every sentence in both systems, and the figures by hand."""

import json
import re

import pytest

from kelbrast.core.wording import Measure, Quantity, Sentence, figure, measured, rounded_down, sentence, tell
from kelbrast.documents.common.sentences import to_sentence, to_sentence_file
from wording_samples import FILE, documents, samples

METRIC = re.compile(r"\d ?(µm|mm|cm²|m/s|°C|g|N)\b")
INCH = re.compile(r"\d ?(thou|µin|in|in²|ft/min|°F|oz|lbf)(?![\w.])")


@pytest.mark.parametrize("fact", samples(), ids=lambda fact: fact.code)
def test_every_sentence_in_both_systems(fact: Sentence) -> None:
    metric, inch = tell(fact), tell(fact, "inch")
    assert not METRIC.search(inch), inch
    assert not INCH.search(metric), metric
    assert bool(METRIC.search(metric)) <= bool(INCH.search(inch)), inch
    assert "{" not in metric.replace("{in braces}", "")
    assert to_sentence(to_sentence_file(fact)).code == fact.code
    assert tell(to_sentence(to_sentence_file(fact)), "inch") == inch


def test_what_the_screens_are_tested_with_is_current() -> None:
    assert json.loads(FILE.read_text(encoding="utf-8")) == documents(), "make types writes it anew"


@pytest.mark.parametrize(
    ("value", "quantity", "digits", "metric", "inch"),
    [  # by hand: one thou is 25.4 um, 1 in 25.4 mm, 1 in2 6.4516 cm2, 1 ft/min 0.00508 m/s, 1 lbf 4.448 N, 1 oz 28.35 g
        (25.4e-6, "depth", 2, "25 µm", "1 thou"),
        (0.4e-6, "roughness", 2, "0.4 µm", "16 µin"),
        (3e-3, "length", 3, "3 mm", "0.118 in"),
        (64.516e-4, "area", 3, "64.5 cm²", "10 in²"),
        (48.09, "speed", 2, "48 m/s", "9\u202f460 ft/min"),  # 9466.5, and 48.09: never above
        (27.99, "speed", 2, "27.9 m/s", "5\u202f500 ft/min"),  # 5509.8
        (12223.6 / 60, "turns", 2, "12\u202f200 rev/min", "12\u202f200 rev/min"),
        (348.15, "temperature", 2, "75 °C", "167 °F"),
        (0.420, "mass", 2, "420 g", "15 oz"),
        (25.0, "force", 2, "25 N", "5.6 lbf"),
        (2.5e9, "hardness", 2, "2.5 GPa", "2.5 GPa"),
    ],
)
def test_figures_by_hand(value: float, quantity: Quantity, digits: int, metric: str, inch: str) -> None:
    assert measured(Measure(value, quantity, digits)) == metric
    assert measured(Measure(value, quantity, digits), "inch") == inch


def test_a_speed_is_never_shown_above_what_it_is() -> None:
    for step in range(1, 4000):
        value = 0.7 * step
        shown = rounded_down(value)
        assert shown <= value * (1 + 1e-12)
        assert value - shown < 0.0101 * value  # three figures: one in a hundred at the worst
    assert [rounded_down(value) for value in (48.0, 2850.0, 0.3, -1.0)] == [48.0, 2850.0, 0.3, 0.0]


def test_a_value_is_never_taken_for_a_place() -> None:
    fact = sentence("speed.none", tool="{mark}", mark=" below {tool}")
    assert tell(fact) == "No machine here has a setting that suits {mark} on this material below {tool}."


def test_what_is_not_a_number_is_not_made_one() -> None:
    assert figure(float("nan")) == figure(float("inf")) == "–"
