"""The starter rack: carriers, and one tool for every grade, size or compound that a carrier comes with."""

from dataclasses import dataclass
from functools import cache
from typing import Any

from kelbrast.core.catalogue.families import families
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.lookup import find
from kelbrast.core.errors import ReadError
from kelbrast.core.reference.loader import Constant, constant, record

_SIZE_NAMES = {"second-cut": "second cut", "veryfine": "very fine", "extrafine": "extra fine"}


@dataclass(frozen=True, slots=True)
class Carrier:
    """What holds the grain, and so decides how deep, how fast and where (SI throughout).

    Attributes:
        hold: c_hold of the scratch law.
        levels: backed firmly enough to take down ripple and raised metal.
        backed: a grain on a backing, so that the habit counts the jump between two grades.
        reaches_depth: deepest mark that it can take out, whatever its grain; None for no limit.
        reach_in_grains: the same in sizes of its grain; None for no limit.
        hardest: hardness of the hardest work that it cuts, Pa; None for no limit.
        wear_law: "coated", "lap", "constant" or "compound".
        wear: Archard coefficient for the law "constant".
        band: which band of surface speeds it is worked in; None when the machine alone decides.
        life: e-folding time of its cutting rate; None when it does not die.
        lasts: bench time from one bar, tub or bottle; None for what dies.
        inside_radius: smallest inside radius that it enters; None when it does not go inside.
        flat_only: would leave facets on a curved face.
        scallops: a small or round tool that leaves hollows on a larger flat face.
        wears_down: its diameter shrinks with use.
        keeps_size: holds a size to a few microns: a lap, a stone, cloth in the lathe.
        turned_only: for a round outside turning in the lathe.
        wet: may be used wet.
        not_for: material families that it must not touch.
    """

    id: str
    label: str
    kind: str
    mount: str
    hold: float
    levels: bool
    backed: bool
    wear_law: str
    lays: tuple[str, ...]
    force: float
    light_force: float
    patch: float
    friction: float
    setup: float
    change: float
    price: float
    unit: str
    open: bool
    tight: bool
    cautions: tuple[str, ...]
    reaches_depth: float | None = None
    reach_in_grains: float | None = None
    wear: float | None = None
    hardest: float | None = None
    band: str | None = None
    diameter: float | None = None
    marked_limit: float | None = None
    life: float | None = None
    lasts: float | None = None
    inside_radius: float | None = None
    flat_only: bool = False
    scallops: bool = False
    wears_down: bool = False
    keeps_size: bool = False
    turned_only: bool = False
    wet: bool = False
    not_for: tuple[str, ...] = ()
    figures: tuple[tuple[str, Constant], ...] = ()


@dataclass(frozen=True, slots=True)
class Tool:
    """One thing on the rack: a carrier with a grain.

    Attributes:
        grain: median grain size in metres.
        wear: Archard coefficient.
        charge: the compound on a wheel, or the grade on a lap; None for what carries its own grain.
        suits: families its compound is kept for; None when it suits all that the carrier may touch.
    """

    id: str
    label: str
    carrier: Carrier
    grade: str
    grain: float
    wear: float
    charge: str | None = None
    suits: tuple[str, ...] | None = None

    @property
    def reaches_depth(self) -> float | None:
        """The deepest mark that it can take out, m; None for no limit."""
        carrier = self.carrier
        in_grains = None if carrier.reach_in_grains is None else carrier.reach_in_grains * self.grain
        return min((limit for limit in (carrier.reaches_depth, in_grains) if limit is not None), default=None)

    def keeps_clean(self, family: str) -> bool:
        """Whether this family may be worked with it without spoiling work or wheel."""
        return family not in self.carrier.not_for and (self.suits is None or family in self.suits)


@cache
def carriers() -> dict[str, Carrier]:
    """Every carrier by its id."""
    return {key: _carrier(key, row) for key, row in record("carriers").items()}


@cache
def tools() -> dict[str, Tool]:
    """The whole starter rack by id."""
    found: dict[str, Tool] = {}
    for key, row in record("carriers").items():
        carrier = carriers()[key]
        for tool in (*_graded(carrier, row), *_sized(carrier, row), *_charged(carrier, row)):
            found[tool.id] = tool
    return found


def tool(key: str) -> Tool:
    """The tool with this id.

    >>> tool("flap-p180").label
    'Flap wheel P180'
    """
    return find("tool", tools(), key)


def wear_coefficient(carrier: Carrier, grain: float) -> float:
    """Archard coefficient of a grain on this carrier (not for compounds, which carry their own).

    Coated and bonded abrasives fall below the critical grain size; laps rise with the grain; the rest are constant.
    """
    if carrier.wear_law == "coated":
        ratio = grain / constant("removal.critical_grain").si
        return constant("removal.coated").si * min(1.0, float(ratio ** constant("removal.size_exponent").si))
    if carrier.wear_law == "lap":
        ratio = grain / constant("removal.lap_grain").si
        return constant("removal.lap").si * float(ratio ** constant("removal.lap_exponent").si)
    if carrier.wear is None:
        raise ReadError.one(f"carriers.toml:{carrier.id}.wear", f'is missing; the law "{carrier.wear_law}" needs it')
    return carrier.wear


def _carrier(key: str, row: dict[str, Any]) -> Carrier:
    figures = {name: value for name, value in row.items() if isinstance(value, Constant)}
    plain: dict[str, Any] = {
        name: tuple(value) if isinstance(value, list) else value
        for name, value in row.items()
        if name in Carrier.__dataclass_fields__ and name not in figures
    }
    numbers: dict[str, Any] = {name: value.si for name, value in figures.items()}
    return Carrier(id=key, **plain, **numbers, figures=tuple(figures.items()))


def _graded(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    grades = [parse_grade(text, field=f"carriers.toml:{carrier.id}.grades") for text in row.get("grades", [])]
    return [
        Tool(
            id=f"{carrier.id}-{grade.name.lower()}",
            label=f"{carrier.label} {grade.name.replace('um', ' µm')}",
            carrier=carrier,
            grade=grade.name,
            grain=grade.grain,
            wear=wear_coefficient(carrier, grade.grain),
            charge=grade.name if carrier.wear_law == "lap" else None,
        )
        for grade in grades
    ]


def _sized(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    sizes: dict[str, Constant] = row.get("sizes", {})
    return [
        Tool(
            id=f"{carrier.id}-{name}",
            label=f"{carrier.label}, {_SIZE_NAMES.get(name, name)}",
            carrier=carrier,
            grade=f"{size.value:g}um",
            grain=size.si,
            wear=wear_coefficient(carrier, size.si),
        )
        for name, size in sizes.items()
    ]


def _charged(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    compounds = record("compounds")
    found = []
    for name in row.get("compounds", []):
        compound = compounds[name]
        grain: Constant = compound["grain"]
        found.append(
            Tool(
                id=f"{carrier.id}-{name}",
                label=f"{carrier.label}, {compound['label']}",
                carrier=carrier,
                grade=f"{grain.value:g}um",
                grain=grain.si,
                wear=compound["wear"].si,
                charge=name,
                suits=tuple(one.id for one in families().values() if name in one.bars),
            )
        )
    return found
