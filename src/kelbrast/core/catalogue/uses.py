"""What a face is for, and the finish that follows from it."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.catalogue.finishes import Finish, finish
from kelbrast.core.reference.loader import record
from kelbrast.core.wording import Measure, Sentence, places_of


@dataclass(frozen=True, slots=True)
class Use:
    """A use, the finish (id) that suits it, the reason in a sentence, and the grade that it may be no finer than."""

    id: str
    label: str
    finish: str
    reason: Sentence
    no_finer_than: str | None


@cache
def uses() -> dict[str, Use]:
    """Every use by its id.

    >>> uses()["grips"].no_finer_than
    'P320'
    """
    return {
        key: Use(key, row["label"], row["finish"], _reason(key, row["reason"], finish(row["finish"])), row.get("no_finer_than"))
        for key, row in record("uses").items()
    }


def _reason(key: str, words: str, wanted: Finish) -> Sentence:
    high = wanted.ra_high
    ends = (("ra_high", Measure(high, "roughness")),) if high is not None and "ra_high" in places_of(words) else ()
    return Sentence(f"uses.{key}.reason", words, ends)
