"""The starter rack: uses and their speeds, carriers, and one tool for each grade, size or compound of a carrier; and kits to
begin with."""

import math
from dataclasses import dataclass, fields, replace
from typing import Any

from kelbrast.core.catalogue.finishes import Finish, finish
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import families
from kelbrast.core.errors import ReadError
from kelbrast.core.reference.loader import Constant, constant, find, record, table
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.reference.schemas import BANDS
from kelbrast.core.units import to_si
from kelbrast.core.wording import Measure, Sentence, places_of

_SIZE_NAMES = {"second-cut": "second cut", "veryfine": "very fine", "extrafine": "extra fine"}


@dataclass(frozen=True, slots=True)
class Cutting:
    """What it does to a surface (SI).

    Attributes:
        hold: c_hold of the scratch law; floor: Ra of the lines of the cloth itself on the reference hardness, m.
        cut_rate: how many times as quick it cuts as its law says.
        wear_law: "coated", "graded", "lap", "constant" or "compound".
        wear: Archard coefficient for "constant", and for "graded" at `wear_grain`, m.
        takes_in_all: the layer that it may take in one step before it rounds edges and leaves waves, m; None for any.
        takes_by_hardness: that layer goes with the softness of the work.
        swirls: leaves swirls that show in a reflection.  waves: a cloth wheel, which rounds and waves a hard flat.
        first_only: comes before every abrasive, as a file does.
        drawn_only: at home where a size or a roughness is drawn.
        lays: in which ways its marks can lie; arcs are neither straight nor without direction.
        levels: backed firmly enough to take down ripple and raised metal.
        backed: a grain on a backing.
        reaches_depth: deepest mark that it can take out, whatever its grain; None for no limit.
        reach_in_grains: the same in sizes of its grain; None for no limit.
        hardest: hardness of the hardest work that it cuts, Pa; None for no limit.
        keeps_size: holds a size to a few microns: a lap, a stone, cloth in the lathe.
    """

    hold: float
    wear_law: str
    lays: tuple[str, ...]
    levels: bool
    backed: bool
    floor: float = 0.0
    cut_rate: float = 1.0
    wear: float | None = None
    wear_grain: float | None = None
    takes_in_all: float | None = None
    takes_by_hardness: bool = False
    drawn_only: bool = False
    swirls: bool = False
    waves: bool = False
    first_only: bool = False
    reaches_depth: float | None = None
    reach_in_grains: float | None = None
    hardest: float | None = None
    keeps_size: bool = False


@dataclass(frozen=True, slots=True)
class Access:
    """Which faces it can be brought to.

    Attributes:
        inside_radius: smallest inside radius that it enters, m; None when it does not go inside.
        flat_only: would leave facets on a curved face.
        scallops: a small or round tool that leaves hollows on a larger flat face.
        turned_only: for a round outside turning in the lathe.
        edges: breaks or rounds an edge under control.
        reach_in: how far into a bore it gets from an open end, m; None when it does not go inside.
        least_face, least_curved: the smallest face that it touches with all of itself, and the smallest curved one, m2.
        most_face: the largest open face that suits it, m2; infinite for any.
    """

    open: bool
    tight: bool
    inside_radius: float | None = None
    flat_only: bool = False
    scallops: bool = False
    turned_only: bool = False
    edges: bool = False
    reach_in: float | None = None
    least_face: float = 0.0
    least_curved: float = 0.0
    most_face: float = math.inf

    @property
    def largest(self) -> float | None:
        """The largest open face that suits it, m2; None for any."""
        return self.most_face if math.isfinite(self.most_face) else None


@dataclass(frozen=True, slots=True)
class Running:
    """How it is run (SI).

    Attributes:
        force, light_force: N.  patch: what it rubs at once, m2.
        band: which band of surface speeds it is worked in; None when the machine alone decides.
        pressure: over the whole patch, Pa, instead of the force; None for what is pressed in one place.
        marked_limit: surface speed of a new wheel that is never passed, m/s.
        wet: may be used wet.
    """

    force: float
    light_force: float
    patch: float
    friction: float
    band: str | None = None
    diameter: float | None = None
    marked_limit: float | None = None
    pressure: float | None = None
    wet: bool = False


@dataclass(frozen=True, slots=True)
class Stock:
    """What it costs in time and money, and how long it lasts (SI).

    Attributes:
        setup: to put it to work; change: of a dead one, s.
        life: e-folding time of its cutting rate; None when it does not die.  life_by_grain: that of P80, finer ones die sooner.
        lasts: bench time from one bar, tub or bottle; None for what dies.
        wears_down: its diameter shrinks with use.  packet: how many are sold together.
    """

    setup: float
    change: float
    price: float
    unit: str
    life: float | None = None
    life_by_grain: bool = False
    lasts: float | None = None
    wears_down: bool = False
    packet: int = 1


@dataclass(frozen=True, slots=True)
class Carrier:
    """What holds the grain, and so decides how deep, how fast and where.

    Attributes:
        not_for: material families that it must not touch; not_on: materials.
        retired: of a shop's own that no new plan is made with.
        like: of a shop's own, the carrier of the reference that it is like.
        figures: its numbers as constants, with unit and source.
    """

    id: str
    label: str
    kind: str
    mount: str
    cutting: Cutting
    access: Access
    running: Running
    stock: Stock
    cautions: tuple[str, ...]
    not_for: tuple[str, ...] = ()
    not_on: tuple[str, ...] = ()
    figures: tuple[tuple[str, Constant], ...] = ()
    like: str = ""
    retired: bool = False

    @property
    def kin(self) -> str:
        """Id of the carrier of the reference that it is, or that a shop's own is like."""
        return self.like or self.id


@dataclass(frozen=True, slots=True)
class Tool:
    """One thing on the rack: a carrier with a grain.

    Attributes:
        variant: what tells it from others on the same carrier: "P240", "Medium", "White bar".
        grain: median grain size in metres.
        wear: Archard coefficient.
        charge: the compound on a wheel, or the grade on a lap; None for what carries its own grain.
        swirls: leaves swirls that show in a reflection.
        suits: families its compound is kept for; None when it suits all that the carrier may touch.
    """

    id: str
    variant: str
    carrier: Carrier
    grade: str
    grain: float
    wear: float
    charge: str | None = None
    swirls: bool = False
    suits: tuple[str, ...] | None = None

    @property
    def label(self) -> str:
        """What it is called: what tells it apart comes first.

        >>> tool("sewn-tripoli").label, tool("nonwoven-wheel-medium").label
        ('Tripoli bar, sewn cotton wheel', 'Medium non-woven wheel')
        """
        joint = ", " if self.carrier.cutting.wear_law == "compound" else " "
        return f"{self.variant}{joint}{in_sentence(self.carrier.label)}"

    @property
    def is_firm(self) -> bool:
        """Whether its grain is held firmly or charged into a lap, so that a habit counts the jump from grade to grade."""
        return self.carrier.cutting.backed or self.carrier.cutting.wear_law == "lap"

    @property
    def is_torn(self) -> bool:
        """Whether deep marks tear its grains out: a coated abrasive, not a bonded one."""
        return self.carrier.cutting.wear_law == "coated" and self.carrier.kind != "stone"

    @property
    def reaches_depth(self) -> float | None:
        """The deepest mark that it can take out, m; None for no limit."""
        carrier = self.carrier
        in_grains = None if carrier.cutting.reach_in_grains is None else carrier.cutting.reach_in_grains * self.grain
        return min((limit for limit in (carrier.cutting.reaches_depth, in_grains) if limit is not None), default=None)

    def keeps_clean(self, family: str) -> bool:
        """Whether this family may be worked with it without spoiling work or wheel."""
        return family not in self.carrier.not_for and (self.suits is None or family in self.suits)


@remembered()
def carriers() -> dict[str, Carrier]:
    """Every carrier by its id."""
    return {key: _carrier(key, row) for key, row in record("carriers").items()}


@remembered()
def tools() -> dict[str, Tool]:
    """The whole starter rack by id."""
    tools: dict[str, Tool] = {}
    for key, row in record("carriers").items():
        carrier = carriers()[key]
        for tool in (*_graded(carrier, row), *_sized(carrier, row), *_charged(carrier, row)):
            tools[tool.id] = tool
    return tools


def tool(key: str) -> Tool:
    """The tool with this id.

    >>> tool("flap-p180").label
    'P180 flap wheel'
    """
    return find("tool", tools(), key)


def lap_wear(grain: float) -> float:
    """Archard coefficient of loose or charged grain of this size (m) under a lap."""
    ratio = grain / constant("removal.lap_grain").si
    return constant("removal.lap").si * float(ratio ** constant("removal.lap_exponent").si)


def wear_coefficient(carrier: Carrier, grain: float) -> float:
    """Archard coefficient of a grain on this carrier (not for compounds, which carry their own), as quick as it cuts."""
    return carrier.cutting.cut_rate * _by_law(carrier, grain)


def _by_law(carrier: Carrier, grain: float) -> float:
    """The Archard coefficient by the law of the carrier.

    Coated and bonded abrasives rise with the grain, more slowly above the reference; so do non-woven, rubber and bristle
    (graded) and laps; the rest are constant.
    """
    if carrier.cutting.wear_law == "coated":
        ratio = grain / constant("removal.reference_grain").si
        exponent = constant("removal.fine_exponent" if ratio < 1 else "removal.coarse_exponent").value
        return constant("removal.coated").value * float(ratio**exponent)
    if carrier.cutting.wear_law == "lap":
        return lap_wear(grain)
    if carrier.cutting.wear is None:
        raise ReadError.one(f"carriers.toml:{carrier.id}.wear", f'is missing; the law "{carrier.cutting.wear_law}" needs it')
    if carrier.cutting.wear_law == "graded" and carrier.cutting.wear_grain is not None:
        return carrier.cutting.wear * float((grain / carrier.cutting.wear_grain) ** constant("removal.fine_exponent").value)
    return carrier.cutting.wear


def _carrier(key: str, row: dict[str, Any]) -> Carrier:
    figures = {name: value for name, value in row.items() if isinstance(value, Constant)}
    values: dict[str, Any] = {
        name: value.si if isinstance(value, Constant) else tuple(value) if isinstance(value, list) else value
        for name, value in row.items()
    }

    def part(group: type[Any]) -> dict[str, Any]:
        return {field.name: values[field.name] for field in fields(group) if field.name in values}

    groups = {"cutting": Cutting, "access": Access, "running": Running, "stock": Stock}
    themes = {name: group(**part(group)) for name, group in groups.items()}
    not_for = tuple(family.id for family in families().values() if not family.may_be_worked_by(key, row))
    return Carrier(**{**part(Carrier), "id": key, **themes, "not_for": not_for, "figures": tuple(figures.items())})


def in_sentence(label: str) -> str:
    """A label after another word: what tells two tools apart, the grade or the bar, stands before what they have in common.

    >>> in_sentence("Slack belt")
    'slack belt'
    """
    return label[0].lower() + label[1:]


def _graded(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    grades = [parse_grade(text, field=f"carriers.toml:{carrier.id}.grades") for text in row.get("grades", [])]
    return [
        Tool(
            id=f"{carrier.id}-{grade.name.lower()}",
            variant=grade.name.replace("um", " µm"),
            carrier=_dying(carrier, grade.grain),
            grade=grade.name,
            grain=grade.grain,
            wear=wear_coefficient(carrier, grade.grain),
            charge=grade.name if carrier.cutting.wear_law == "lap" else None,
        )
        for grade in grades
    ]


def _dying(carrier: Carrier, grain: float) -> Carrier:
    """The carrier with the life of this grain: finer ones die sooner."""
    stock = carrier.stock
    if not stock.life_by_grain or stock.life is None:
        return carrier
    share = (grain / constant("removal.reference_grain").si) ** constant("removal.life_exponent").value
    return replace(carrier, stock=replace(stock, life=stock.life * float(share)))


def _sized(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    sizes: dict[str, Constant] = row.get("sizes", {})
    return [
        Tool(
            id=f"{carrier.id}-{name}",
            variant=_SIZE_NAMES.get(name, name).capitalize(),
            carrier=carrier,
            grade=f"{size.value:g}um",
            grain=size.si,
            wear=wear_coefficient(carrier, size.si),
        )
        for name, size in sizes.items()
    ]


def _charged(carrier: Carrier, row: dict[str, Any]) -> list[Tool]:
    compounds = record("compounds")
    tools = []
    for name in row.get("compounds", []):
        compound = compounds[name]
        grain: Constant = compound["grain"]
        tools.append(
            Tool(
                id=f"{carrier.id}-{name}",
                variant=f"{compound['label'][0].upper()}{compound['label'][1:]}",
                carrier=carrier,
                grade=f"{grain.value:g}um",
                grain=grain.si,
                wear=carrier.cutting.cut_rate * compound["wear"].si,
                charge=name,
                swirls=carrier.cutting.swirls or compound.get("swirls", False),
                suits=tuple(family.id for family in families().values() if name in family.bars),
            )
        )
    return tools


@dataclass(frozen=True, slots=True)
class Use:
    """A use, the finish (id) that suits it, the reason in a sentence, and the grade that it may be no finer than."""

    id: str
    label: str
    finish: str
    reason: Sentence
    no_finer_than: str | None


@remembered()
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


@remembered()
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
    lent = {
        (use, family.id): speeds
        for family in families().values()
        for (use, lender), speeds in found.items()
        if lender == family.speeds_as
    }
    return lent | found


@dataclass(frozen=True, slots=True)
class Kit:
    """A starting kit: ids of what stands on the rack, with how many of each that there are to begin with."""

    id: str
    label: str
    about: str
    items: dict[str, int]


@remembered()
def kits() -> dict[str, Kit]:
    """Every kit by its id."""
    return {
        key: Kit(key, row["label"], row["about"], {what: _packet(what) for what in row["items"]})
        for key, row in record("kits").items()
    }


def _packet(what: str) -> int:
    """Of paper, discs and belts a packet; of everything else one."""
    return tools()[what].carrier.stock.packet if what in tools() else 1
