"""The bands of surface speed by use and metal family."""

from functools import cache

from kelbrast.core.reference.loader import table
from kelbrast.core.reference.schemas import BANDS
from kelbrast.core.units import to_si


@cache
def speed_bands() -> dict[tuple[str, str], tuple[float, float]]:
    """(use, family) to (lowest, highest) recommended surface speed in m/s.

    >>> low, high = speed_bands()["cut", "copper-alloy"]
    >>> round(low, 2), round(high, 2)
    (30.48, 45.72)
    """
    found = {}
    for name, unit in BANDS.items():
        column = unit.replace("/", "_")
        for row in table(name):
            low, high = (to_si(float(row[f"{end}_{column}"]), unit) for end in ("low", "high"))
            found[row["use"], row["family"]] = (low, high)
    return found
