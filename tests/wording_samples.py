"""Every sentence with figures, with something in each of its places, and what it says in both systems.

The screens put the same sentences into words; `python tests/wording_samples.py` writes them down for their test.
"""

import json
from pathlib import Path
from typing import Any, Final

from kelbrast.core import wording
from kelbrast.core.catalogue.finishes import finishes
from kelbrast.core.catalogue.tools import uses
from kelbrast.core.wording import Measure, Sentence, places_of, plain, sentence, tell
from kelbrast.documents.common.sentences import to_sentence_file

FILE: Final = Path(__file__).with_name("sentences.json")
UM: Final = 1e-6
WORDS: Final = (
    "whole",
    "kind",
    "tool",
    "wanted",
    "reach",
    "mark",
    "material",
    "what",
    "others",
    "why",
    "where",
    "piece",
    "step",
)
WORDS_TOO: Final = (
    "share", "apart", "at", "over", "route", "note", "machine", "face", "label", "worked", "given", "photo", "number", "used",
    "held", "points", "operation", "order", "fault", "count", "school", "habit", "times",
    "lot", "spots", "away",
)  # fmt: skip
FIGURES: Final[dict[str, Measure]] = {
    **{name: Measure(0.137 * UM, "roughness", 3) for name in ("ra", "low", "sa")},
    **{
        name: Measure(14.2 * UM, "depth", 3)
        for name in ("off", "first", "need", "may", "gone", "left", "keep", "depth", "marks", "layer", "coarsest", "stock")
    },
    "high": Measure(0.4 * UM, "roughness", 3),
    "reaches": Measure(3 * UM, "depth"),
    "have": Measure(3e-3, "length", 3),
    "far": Measure(0.3, "length", 3),
    "gets": Measure(0.06, "length", 3),
    "least": Measure(5e-3, "length", 3),
    "wide": Measure(3.072e-3, "length"),
    "stay": Measure(4.2, "time"),
    "hardest": Measure(2.5e9, "hardness"),
    "surface": Measure(48.09, "speed", 4),
    "marked": Measure(48.0, "speed", 4),
    "planned": Measure(1500 / 60, "turns"),
    "turns": Measure(2850 / 60, "turns"),
    "most": Measure(12223.6 / 60, "turns"),
}
# Places whose kind of figure depends on the sentence.
OWN: Final[dict[str, dict[str, Measure | str]]] = {
    **{f"lots.{one}": {"most": "5"} for one in ("late", "room")},
    "roughness.finest": {"wanted": Measure(0.1 * UM, "roughness")},
    "roughness.coarsest": {"wanted": Measure(0.2 * UM, "roughness")},
    "verdict.ra_coarse": {"wanted": Measure(0.1 * UM, "roughness", 3)},
    "verdict.ra_fine": {"wanted": Measure(0.2 * UM, "roughness", 3)},
    **{
        f"heat.{one}": {"wanted": Measure(3.0, "time"), "limit": Measure(348.15, "temperature")}
        for one in ("hold", "part", "spot")
    },
    **{f"verdict.heat_{one}": {"limit": Measure(318.15, "temperature")} for one in ("near", "fine")},
    "verdict.heat_over": {"limit": Measure(318.15, "temperature"), "value": Measure(322.0, "temperature")},
    "verdict.coat_over": {"value": Measure(39 * UM, "depth", 3)},
    "speed.mark": {"mark": Measure(48.0, "speed")},
    "misfit.too_fast": {"mark": Measure(12.0, "speed")},
    **{
        f"fault.{one}": {"limit": Measure(20e-3, "depth", 6)}
        for one in ("greater_than", "greater_than_equal", "less_than", "less_than_equal", "larger_than_new")
    },
    **{
        f"size.{one}": {
            **{name: Measure(20.0105e-3, "length", 6) for name in ("size", "until")},
            **{name: Measure(12.5 * UM, "depth") for name in ("over", "left", "taper", "rate", "bias", "tolerance", "unsure")},
        }
        for one in (
            "gauge-too-coarse",
            "past",
            "past-found",
            "stop",
            "cut-again",
            "cool",
            "finer",
            "not-told",
            "short-strokes",
            "lap-risk",
            "lap-target",
        )
    },
    **{f"practice.bore-{one}": {"size": Measure(20.0105e-3, "length", 6)} for one in ("on-size", "past", "short")},
    "eye.shows": {"wide": Measure(35e-3, "length"), "finest": "P360"},
    "eye.shows-before": {"before": "P240"},
    "eye.too-wide": {"before": "P600", "most": Measure(21e-3, "length")},
    "eye.found-too-wide": {"most": Measure(21e-3, "length")},
    "event.started": {"planned": "6:40"},
    "event.quick": {"worked": "0:01", "planned": "43:00"},
    "reading.said": {"value": Measure(24.991e-3, "length", 6)},
}
INNER: Final = {
    "end": "size.end-low",
    "limit": "metal.limit",
    "reason": "metal.sparing",
    "reading": "reading.said",
    "before": "event.measured",
    "mend": "end.finer",
}


def sample(code: str) -> Sentence:
    """The sentence of this code with something in every place."""
    own = OWN.get(code, {})
    return sentence(code, **{name: own.get(name) or _value(name) for name in places_of(wording._words()[code])})


def _value(name: str) -> Measure | str | Sentence:
    if name in INNER:
        return sample(INNER[name])
    if name in FIGURES:
        return FIGURES[name]
    assert name in (*WORDS, *WORDS_TOO), f"{name} is a place that the samples do not know"
    return {"piece": "3", "whole": "", "note": " A note {in braces}."}.get(name, f"the {name}")


def samples() -> list[Sentence]:
    """Every sentence that the program can say with a figure in it."""
    found = [sample(code) for code in wording._words()]
    found += [finish.purpose for finish in finishes().values()] + [use.reason for use in uses().values()]
    found += [Sentence("sample", "{it}", (("it", Measure(1.0, quantity)),)) for quantity in wording.UNITS]
    return [*found, plain("Nothing {to} fill")]


def documents() -> list[dict[str, Any]]:
    return [
        {"said": to_sentence_file(sample).model_dump(), "metric": tell(sample), "inch": tell(sample, "inch")}
        for sample in samples()
    ]


if __name__ == "__main__":
    FILE.write_text(json.dumps(documents(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
