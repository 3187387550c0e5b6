"""What a face is for, and the finish that follows from it."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.reference.loader import record


@dataclass(frozen=True, slots=True)
class Use:
    """A use, the finish (id) that suits it, the reason in a sentence, and the grade that it may be no finer than."""

    id: str
    label: str
    finish: str
    reason: str
    no_finer_than: str | None


@cache
def uses() -> dict[str, Use]:
    """Every use by its id.

    >>> uses()["grips"].no_finer_than
    'P320'
    """
    return {
        key: Use(key, row["label"], finish(row["finish"]).id, row["reason"], row.get("no_finer_than"))
        for key, row in record("uses").items()
    }
