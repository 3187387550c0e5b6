"""Figures of the core (SI) in the units of the files."""

from kelbrast.core.units import from_si


def shop(value: float, unit: str) -> float:
    """To nine figures: more would be noise, fewer would break `takes_um = clearance * from_um`.

    >>> shop(2.5e-5, "um")
    25.0
    """
    return float(f"{from_si(value, unit):.9g}")


def shop_or_none(value: float | None, unit: str) -> float | None:
    """The same, with null for what is not there or has no end."""
    return None if value is None or value == float("inf") else shop(value, unit)
