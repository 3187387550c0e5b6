"""The area of a face from the shape and measures that a person can take with a rule or a caliper."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.errors import BadInput, Fault

ShapeKind = Literal["plate", "disc", "ring", "cylinder", "bore", "tube", "dome"]


@dataclass(frozen=True, slots=True)
class Shape:
    """A kind of face: what is measured on it (`needs`, in metres) and how the area follows.

    Attributes:
        curved: flat, firm tools would leave facets on it.  turns: a lathe can turn it between centres.
        round: what is measured across is a diameter, so its size changes on both sides.
    """

    label: str
    needs: tuple[str, ...]
    area: Callable[..., float]
    curved: bool = False
    turns: bool = False
    round: bool = False


SHAPES: Final[dict[str, Shape]] = {
    "plate": Shape("Flat plate, one side", ("length", "width"), lambda length, width: length * width),
    "disc": Shape("Flat disc, one side", ("diameter",), lambda diameter: math.pi / 4 * diameter**2),
    "ring": Shape(
        "Flat ring, one side",
        ("diameter", "inside_diameter"),
        lambda diameter, inside_diameter: math.pi / 4 * (diameter**2 - inside_diameter**2),
    ),
    "cylinder": Shape(
        "Outside of a cylinder",
        ("diameter", "length"),
        lambda diameter, length: math.pi * diameter * length,
        curved=True,
        turns=True,
        round=True,
    ),
    "bore": Shape("Inside of a bore", ("diameter", "length"), lambda diameter, length: math.pi * diameter * length, round=True),
    "tube": Shape(
        "Tube, outside and inside",
        ("diameter", "inside_diameter", "length"),
        lambda diameter, inside_diameter, length: math.pi * (diameter + inside_diameter) * length,
        curved=True,
        round=True,
    ),
    "dome": Shape(
        "Dome (part of a ball)",
        ("diameter", "height"),
        lambda diameter, height: math.pi * (diameter**2 / 4 + height**2),
        curved=True,
    ),
}


def is_round(kind: str | None) -> bool:
    """Whether the size of such a face is measured across."""
    return kind is not None and SHAPES[kind].round


def shape_area(kind: str, measures: Mapping[str, float], *, field: str = "shape") -> float:
    """The area in m2 of a shape with these measures in metres.

    Raises:
        BadInput: an unknown kind, a missing, superfluous or non-positive measure, or an inside as large as the outside.

    >>> round(shape_area("plate", {"length": 0.2, "width": 0.1}), 9)
    0.02
    """
    if kind not in SHAPES:
        raise BadInput.one(f"{field}.kind", f'"{kind}" is not one of {", ".join(SHAPES)}')
    needs = SHAPES[kind].needs
    faults = [Fault(f"{field}.{name}_mm", f"is needed for a {kind}") for name in needs if name not in measures]
    faults += [Fault(f"{field}.{name}_mm", f"is not a measure of a {kind}") for name in measures if name not in needs]
    faults += [Fault(f"{field}.{name}_mm", "must be above 0") for name, value in measures.items() if not value > 0]
    if not faults and "inside_diameter" in needs and measures["inside_diameter"] >= measures["diameter"]:
        faults = [Fault(f"{field}.inside_diameter_mm", "must be below the outside diameter")]
    if faults:
        raise BadInput(faults)
    return SHAPES[kind].area(**measures)


def layer_between(first: float, later: float, kind: str | None) -> float:
    """The layer that came off between two sizes of a face at one place, m. A bore grows; of a tube either side is measured.

    >>> round(layer_between(25.00e-3, 24.98e-3, "cylinder") * 1e6), round(layer_between(25.00e-3, 25.02e-3, "bore") * 1e6)
    (10, 10)
    """
    lost = first - later
    match kind:
        case "cylinder":
            return lost / 2
        case "bore":
            return -lost / 2
        case "tube":
            return abs(lost) / 2
    return lost


def size_after(size: float, layer: float, kind: str | None) -> float:
    """The size of a face when a layer has come off, m; of a tube the outside.

    >>> round(size_after(25.00e-3, 10e-6, "bore") * 1e3, 2)
    25.02
    """
    match kind:
        case "cylinder" | "tube":
            return size - 2 * layer
        case "bore":
            return size + 2 * layer
    return size - layer
