"""How every tool of a rack would work on a face of this material: its setting, rate, marks, heat, and what forbids it."""

from dataclasses import dataclass
from functools import lru_cache

from kelbrast.core.catalogue.machines import Machine, machine, machines
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.speeds import speed_bands
from kelbrast.core.catalogue.tools import Tool, tool, tools
from kelbrast.core.errors import BadInput, Fault, NotFound
from kelbrast.core.planning.rules import Rule
from kelbrast.core.process.heat import friction_flux, longest_stay
from kelbrast.core.process.removal import removal_rate
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.process.speed import Setting, choose_setting
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face


@dataclass(frozen=True, slots=True)
class Fit:
    """A tool on a face (SI).

    Attributes:
        rate: fresh removal rate, m3/s.
        ra, depth: what it leaves, m.
        stay: longest stay on one spot, s.
        light: only light pressure keeps the work cool enough.
        change_cost: what changing a dead abrasive costs, in seconds of bench time.
        forbidden: which constraints rule it out here: of "reach", "speed", "heat", "contamination".
    """

    tool: Tool
    machine: Machine
    setting: Setting
    force: float
    light: bool
    rate: float
    ra: float
    depth: float
    stay: float
    change_cost: float
    forbidden: frozenset[Rule]


def choose_rack(rack: tuple[str, ...] | None) -> tuple[tuple[Tool, ...], tuple[Machine, ...]]:
    """The tools and machines that a rack's ids name. Without any machine among them, all starter machines may be used.

    Raises:
        BadInput: an id that is neither tool nor machine, named by its place in the list.
    """
    if rack is None:
        return tuple(tools().values()), tuple(machines().values())
    named_tools: dict[str, Tool] = {}
    named_machines: dict[str, Machine] = {}
    faults = []
    for place, key in enumerate(rack):
        try:
            if key in machines():
                named_machines[key] = machine(key)
            else:
                named_tools[key] = tool(key)
        except NotFound as missing:
            faults.append(Fault(f"rack[{place}]", f"{missing}; see kelbrast list tools"))
    if faults:
        raise BadInput(faults)
    if named_machines:
        named_machines["hand"] = machine("hand")
    return tuple(named_tools.values()), tuple((named_machines or machines()).values())


@dataclass(frozen=True, slots=True)
class Place:
    """What a tool must know of a face (SI): its area only as far as a tool could cover it at once.

    Attributes:
        patch: the largest patch that can be rubbed at once, m2.
        carried: the part can be brought to a machine that stands.
    """

    thickness: float | None
    reach: str
    inside_radius: float | None
    curved: bool
    patch: float
    carried: bool

    @classmethod
    def of(cls, face: Face, *, carried: bool) -> "Place":
        largest = max(each.carrier.patch for each in tools().values())
        return cls(face.thickness, face.reach, face.inside_radius, face.curved, min(face.area, largest), carried)


@lru_cache(maxsize=256)
def fits(material: Material, place: Place, rack: tuple[str, ...] | None) -> tuple[Fit, ...]:
    """Every tool of the rack on such a face, coarsest marks first. Tools that no machine here drives are left out."""
    rack_tools, rack_machines = choose_rack(rack)
    found = [
        _fit(one, driver, material, place)
        for one in rack_tools
        if (driver := _driver(one, rack_machines, material, place)) is not None
    ]
    return tuple(sorted(found, key=lambda fit: (-fit.depth, fit.tool.id)))


def _driver(
    one: Tool, available: tuple[Machine, ...], material: Material, place: Place
) -> tuple[Machine, Setting | None] | None:
    """The machine that works this tool fastest, inside the recommended band where possible."""
    carrier = one.carrier
    band = speed_bands().get((carrier.band, material.family)) if carrier.band else None
    choices = [
        (each, choose_setting(each, diameter=carrier.diameter, band=band, marked_limit=carrier.marked_limit))
        for each in available
        if carrier.mount in each.takes
    ]

    def merit(choice: tuple[Machine, Setting | None]) -> tuple[bool, bool, bool, float]:
        each, setting = choice
        brought = place.carried or not each.stands
        return (brought, setting is not None, setting is not None and not setting.below_band, _pace(each, setting))

    return max(choices, key=merit, default=None)


def _pace(each: Machine, setting: Setting | None) -> float:
    return each.contact * setting.surface if setting else 0.0


def _fit(
    one: Tool,
    driver: tuple[Machine, Setting | None],
    material: Material,
    place: Place,
) -> Fit:
    carrier, (each, setting) = one.carrier, driver
    forbidden: set[Rule] = set()
    if not _enters(one, place) or (each.stands and not place.carried):
        forbidden.add("reach")
    if not one.keeps_clean(material.family):
        forbidden.add("contamination")
    if setting is None:
        forbidden.add("speed")
    # A tool without a safe setting is never planned; it keeps a hand's speed so that "speed" can be named as what binds.
    setting = setting or Setting(machine("hand").stroke or 1.0, None, None)
    slab = place.thickness if place.thickness is not None else constant("heat.thick").si
    shortest = constant("heat.shortest_stay").si

    def stay_at(force: float) -> float:
        flux = friction_flux(
            friction=carrier.friction, force=force, speed=setting.surface, patch=min(carrier.patch, place.patch)
        )
        return longest_stay(flux=flux, thickness=slab, material=material)

    force, light = carrier.force, False
    stay = stay_at(force)
    if stay < shortest:
        force, light = carrier.light_force, True
        stay = stay_at(force)
    if stay < shortest:
        forbidden.add("heat")
    contact = each.contact if place.reach != "inside" else min(each.contact, constant("removal.bore_contact").value)
    rate = removal_rate(wear=one.wear, contact=contact, force=force, speed=setting.surface, hardness=material.hardness)
    ra = roughness_left(grain=one.grain, hold=carrier.hold, hardness=material.hardness)
    change_cost = carrier.change + carrier.price / constant("work.bench_rate").si
    return Fit(one, each, setting, force, light, rate, ra, depth_of_marks(ra), stay, change_cost, frozenset(forbidden))


def _enters(one: Tool, place: Place) -> bool:
    carrier = one.carrier
    if place.curved and carrier.flat_only:
        return False
    if place.reach == "open":
        return carrier.open
    if place.reach == "tight":
        return carrier.tight
    needs, has = carrier.inside_radius, place.inside_radius
    return needs is not None and has is not None and needs <= has
