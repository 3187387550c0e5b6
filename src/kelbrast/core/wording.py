"""Sentences with quantities: a code and its figures, rendered as words in metric or inch only where they are read."""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from functools import cache
from typing import Any, Final, Literal, get_args

from kelbrast.core.reference.loader import record
from kelbrast.core.units import from_si

System = Literal["metric", "inch"]
Quantity = Literal[
    "depth", "roughness", "length", "area", "speed", "turns", "temperature", "mass", "force", "hardness", "time", "gloss"
]
# Unit of `core.units` and how it is written, metric and inch. The screens have the same table (`units.ts`).
UNITS: Final[dict[Quantity, dict[System, tuple[str, str]]]] = {
    "depth": {"metric": ("um", "µm"), "inch": ("thou", "thou")},
    "roughness": {"metric": ("um", "µm"), "inch": ("uin", "µin")},
    "length": {"metric": ("mm", "mm"), "inch": ("in", "in")},
    "area": {"metric": ("cm2", "cm²"), "inch": ("in2", "in²")},
    "speed": {"metric": ("m/s", "m/s"), "inch": ("ft/min", "ft/min")},
    "turns": {"metric": ("rev/min", "rev/min"), "inch": ("rev/min", "rev/min")},
    "temperature": {"metric": ("C", "°C"), "inch": ("F", "°F")},
    "mass": {"metric": ("g", "g"), "inch": ("oz", "oz")},
    "force": {"metric": ("N", "N"), "inch": ("lbf", "lbf")},
    "hardness": {"metric": ("GPa", "GPa"), "inch": ("GPa", "GPa")},
    "time": {"metric": ("s", "s"), "inch": ("s", "s")},
    "gloss": {"metric": ("1", "GU"), "inch": ("1", "GU")},
}
_LEAST_FIGURES: Final = {"speed": 3, "turns": 3}
_PLACE: Final = re.compile(r"\{(\w+)\}")


@dataclass(frozen=True, slots=True)
class Measure:
    """A figure of a sentence: the value in SI, and to how many figures it is known."""

    value: float
    quantity: Quantity
    digits: int = 2


@dataclass(frozen=True, slots=True)
class Sentence:
    """A fact to be told.

    Attributes:
        code: names the kind of fact, the same whatever its figures are.
        words: the sentence with its places in braces.
        values: what stands in them: a figure, a word that needs no unit, or a sentence of its own.
    """

    code: str
    words: str
    values: "tuple[tuple[str, Measure | str | Sentence], ...]" = ()

    def __str__(self) -> str:
        return tell(self)


def sentence(code: str, **values: "Measure | str | Sentence") -> Sentence:
    """The sentence of this code in `sentences.toml`, with these values in its places.

    >>> tell(sentence("metal.first", first=Measure(25.4e-6, "depth"), whole="", limit=plain("nothing may.")), "inch")
    'Taking the damage out removes 1 thou; nothing may.'
    """
    return Sentence(code, _words()[code], tuple(values.items()))


def depth_of(metres: float) -> Measure:
    """A depth to the figures that it is known to: three from a tenth of a millimetre on."""
    return Measure(metres, "depth", 2 if metres < 100e-6 else 3)


def plain(words: str) -> Sentence:
    """Words that need no figure."""
    return Sentence("plain", words.replace("{", "(").replace("}", ")"))


def tell(fact: Sentence, system: System = "metric") -> str:
    """The sentence in words, its figures in the units of the reader."""
    values = dict(fact.values)
    return _PLACE.sub(lambda place: _told(values[place[1]], system), fact.words)


def measured(measure: Measure, system: System = "metric") -> str:
    """A figure with its unit.

    >>> measured(Measure(0.38e-6, "roughness"), "inch"), measured(Measure(296.15, "temperature"), "inch")
    ('15 µin', '73 °F')
    """
    unit, label = UNITS[measure.quantity][system]
    value = from_si(measure.value, unit)
    if measure.quantity == "temperature":
        return f"{value:.0f} {label}"
    if measure.quantity in _LEAST_FIGURES:
        return f"{figure(rounded_down(value, max(measure.digits, _LEAST_FIGURES[measure.quantity])), 9)} {label}"
    return f"{figure(value, measure.digits)} {label}"


def figure(value: float, digits: int = 2) -> str:
    """So many significant figures, without an exponent, thousands apart.

    >>> figure(0.0337), figure(16552.0, 3), figure(99.6), figure(12.5)
    ('0.034', '16\u202f600', '100', '13')
    """
    if not math.isfinite(value):
        return "–"
    if value == 0:
        return "0"
    exact = Decimal(value)
    least = Decimal(1).scaleb(exact.adjusted() - digits + 1)
    # A half goes up, as people do it and as the screens do; Python's own formatting goes to the even figure.
    text = f"{exact.quantize(least, ROUND_HALF_UP):f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    whole, _, part = text.partition(".")
    return text if part else f"{int(whole):,}".replace(",", "\u202f")


def minutes_text(minutes: float) -> str:
    """Planned or logged minutes in the one form of times, no finer than they are known: half a minute, then more coarsely.

    >>> minutes_text(0.2), minutes_text(2.1), minutes_text(38.2), minutes_text(141), minutes_text(18_535)
    ('0.5 min', '2 min', '38 min', '2 h 20', '310 h')
    """
    if minutes <= 0:
        return "0 min"
    if minutes < 4.75:
        return f"{max(0.5, math.floor(2 * minutes + 0.5) / 2):g} min"
    if minutes < 89.5:
        return f"{math.floor(minutes + 0.5)} min"
    if minutes < 597.5:
        hours, rest = divmod(5 * math.floor(minutes / 5 + 0.5), 60)
        return f"{hours} h {rest:02}" if rest else f"{hours} h"
    return f"{figure(minutes / 60, 2)} h"


def minutes_range(likely: float, high: float | None) -> str:
    """Likely minutes, and what nine of ten stay below where that is known.

    >>> minutes_range(12.0, 17.0), minutes_range(70.0, 95.0), minutes_range(12.0, 12.1), minutes_range(12.0, None)
    ('12 to 17 min', '70 min to 1 h 35', '12 min', '12 min')
    """
    low, top = minutes_text(likely), minutes_text(likely if high is None else high)
    if low == top:
        return low
    return f"{low.removesuffix(' min') if top.endswith(' min') else low} to {top}"


def rounded_down(value: float, digits: int = 3) -> float:
    """To so many figures and never above: for speeds, which have a limit.

    >>> rounded_down(16552.7), rounded_down(2850.0), rounded_down(0.0)
    (16500.0, 2850.0, 0.0)
    """
    if value <= 0:
        return 0.0
    unit = 10.0 ** (math.floor(math.log10(value)) - digits + 1)
    return float(f"{math.floor(value / unit + 1e-9) * unit:.{digits}g}")


def places_of(words: str) -> tuple[str, ...]:
    """The names of the places of a sentence, as they come in it."""
    return tuple(dict.fromkeys(_PLACE.findall(words)))


def _told(value: Measure | str | Sentence, system: System) -> str:
    if isinstance(value, Measure):
        return measured(value, system)
    return tell(value, system) if isinstance(value, Sentence) else value


@cache
def _words() -> Mapping[str, str]:
    def flat(node: Mapping[str, Any], before: str) -> dict[str, str]:
        found: dict[str, str] = {}
        for key, value in node.items():
            found |= flat(value, f"{before}{key}.") if isinstance(value, dict) else {f"{before}{key}": str(value)}
        return found

    return flat(record("sentences"), "")


assert set(get_args(Quantity)) == set(UNITS), "a quantity without units"


def counted(count: int, thing: str) -> str:
    """Return so many of a thing, in words.

    >>> counted(1, "change"), counted(0, "wheel change")
    ('1 change', '0 wheel changes')
    """
    return f"{count} {thing}" if count == 1 else f"{count} {thing}s"
