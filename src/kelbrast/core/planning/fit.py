"""How every tool of a rack would work on a face of this material: its setting, rate, marks, heat, and what forbids it."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

from kelbrast.core.catalogue.machines import Machine, machine
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.speeds import speed_bands
from kelbrast.core.catalogue.tools import Tool, tools
from kelbrast.core.learning.factors import Factors, Yours
from kelbrast.core.planning.at_hand import choose_rack, own_rack
from kelbrast.core.planning.job import Job
from kelbrast.core.planning.rules import Rule
from kelbrast.core.process.dulling import change_after
from kelbrast.core.process.heat import friction_flux, longest_stay
from kelbrast.core.process.removal import removal_rate
from kelbrast.core.process.rests import Lump, work_until_hot
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.process.speed import Setting, choose_setting
from kelbrast.core.rack.fitting import marked_now
from kelbrast.core.rack.offer import Own
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
        wet: worked wet, by choice or because dry is too hot.
        diameter: of the wheel as it is now, m; of the work for the lathe.
        marked: its marked limit as a surface speed of the wheel as it is, m/s.
        power: heat into the part while it works, W.
        allowed: how far the whole part may warm, K; by_hand: because a bare hand holds it.
        until_hot: seconds of work until then, infinite when it never does.
        change_cost: what changing a dead abrasive costs, in seconds of bench time.
        yours: the shop's own factors, which are in the figures above.
        forbidden: which constraints rule it out here: of "reach", "speed", "heat", "contamination".
    """

    tool: Tool
    machine: Machine
    setting: Setting
    force: float
    light: bool
    wet: bool
    diameter: float | None
    marked: float | None
    power: float
    allowed: float
    by_hand: bool
    until_hot: float
    rate: float
    ra: float
    depth: float
    stay: float
    change_cost: float
    yours: Yours
    forbidden: frozenset[Rule]

    @property
    def change_after(self) -> float:
        """Seconds of cutting after which a dying abrasive is changed; infinite for what does not die."""
        life = self.tool.carrier.life
        return math.inf if life is None else change_after(life=life, change_cost=self.change_cost)


@dataclass(frozen=True, slots=True)
class Place:
    """What a tool must know of a face (SI): its area only as far as a tool could cover it at once.

    Attributes:
        flat_show: a flat open face, larger than a hand evens out, whose reflection shows every hollow.
        patch: the largest patch that can be rubbed at once, m2.
        carried: the part can be brought to a machine that stands.
        turned: diameter of a round outside, m.
        hottest: the temperature to stay below, K.
        lump: the whole part as it warms; None where nothing is known of its weight.
        in_hand: a bare hand holds it to machines that stand.
        wet: a key of `surface.part.WET`.
        low_speed: the bench runs at half the usual speed.
        diameters: (tool id, m) of wheels that have worn down.
        own: the rack that is planned with, where it is not the catalogue.  factors: what the shop learnt.
    """

    thickness: float | None
    reach: str
    inside_radius: float | None
    curved: bool
    flat_show: bool
    patch: float
    carried: bool
    turned: float | None
    hottest: float
    lump: Lump | None
    in_hand: bool
    wet: str
    low_speed: bool
    diameters: tuple[tuple[str, float], ...]
    own: Own | None
    factors: Factors

    @classmethod
    def of(cls, face: Face, job: Job) -> "Place":
        largest = max(each.carrier.patch for each in tools().values())
        return cls(
            thickness=face.thickness,
            reach=face.reach,
            inside_radius=face.inside_radius,
            curved=face.curved,
            flat_show=face.reflects_flat,
            patch=min(face.area, largest),
            carried=job.comes_to_the_bench,
            turned=face.turned,
            hottest=job.hottest,
            lump=job.lump,
            in_hand=job.part.held == "hand" and job.comes_to_the_bench,
            wet="never" if "wet" in job.forbids else job.part.wet,
            low_speed=job.bench_speed == "low",
            diameters=job.diameters,
            own=job.own,
            factors=job.factors,
        )

    def band(self, one: Tool, machine: Machine, family: str) -> tuple[float, float] | None:
        """The band of surface speeds for a tool here; the low-speed school runs bench machines at half of it."""
        found = speed_bands().get((one.carrier.band, family)) if one.carrier.band else None
        if found is None or not (self.low_speed and machine.stands):
            return found
        slow = constant("work.slow_share").value
        return found[0] * slow, found[1] * slow

    def diameter(self, one: Tool, machine: Machine) -> float | None:
        """Of the wheel, worn as it is; of the work where the work turns."""
        if machine.turns_work:
            return self.turned
        measured = next((own.diameter for own in self.own.tools if own.tool == one.id), None) if self.own else None
        return dict(self.diameters).get(one.id, measured or one.carrier.diameter)


@lru_cache(maxsize=256)
def fits(material: Material, place: Place, rack: tuple[str, ...] | None) -> tuple[Fit, ...]:
    """Every tool of the rack on such a face, coarsest marks first. Tools that no machine here drives are left out."""
    rack_tools, rack_machines = choose_rack(rack) if place.own is None else own_rack(place.own)
    found = [
        _fit(one, driver, material, place)
        for one in rack_tools
        if (driver := _driver(one, rack_machines, material, place)) is not None
    ]
    return tuple(sorted(found, key=lambda fit: (-fit.depth, fit.tool.id)))


@lru_cache(maxsize=256)
def usable(material: Material, place: Place, rack: tuple[str, ...] | None) -> tuple[Fit, ...]:
    """Those of `fits` that nothing forbids."""
    return tuple(fit for fit in fits(material, place, rack) if not fit.forbidden)


def _driver(
    one: Tool, available: tuple[Machine, ...], material: Material, place: Place
) -> tuple[Machine, Setting | None] | None:
    """The machine that works this tool fastest, inside the recommended band where possible."""
    choices = [
        (
            each,
            choose_setting(
                each,
                diameter=(diameter := place.diameter(one, each)),
                band=place.band(one, each, material.family),
                marked_limit=_marked(one, diameter),
            ),
        )
        for each in available
        if one.carrier.mount in each.takes
    ]

    def merit(choice: tuple[Machine, Setting | None]) -> tuple[bool, bool, bool, float]:
        each, setting = choice
        brought = place.carried or not each.stands
        return (brought, setting is not None, setting is not None and not setting.below_band, _pace(each, setting))

    return max(choices, key=merit, default=None)


def _marked(one: Tool, diameter: float | None) -> float | None:
    """The marked limit as a surface speed of the wheel as it is."""
    marked, new = one.carrier.marked_limit, one.carrier.diameter
    if marked is None or new is None or diameter is None:
        return marked
    return marked_now(marked=marked, new=new, now=diameter)


def _pace(each: Machine, setting: Setting | None) -> float:
    return each.contact * setting.surface if setting else 0.0


def _fit(
    one: Tool,
    driver: tuple[Machine, Setting | None],
    material: Material,
    place: Place,
) -> Fit:
    yours = place.factors.yours(one.carrier.id, material.family)
    one = _lasting(one, yours, place)
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

    contact = each.contact if place.reach != "inside" else min(each.contact, constant("removal.bore_contact").value)

    def flux_at(force: float, *, wet: bool) -> float:
        patch = min(carrier.patch, place.patch)
        flux = friction_flux(friction=carrier.friction, force=force, speed=setting.surface, patch=patch)
        return flux * constant("heat.wet_share").value if wet else flux

    def stay_at(force: float, *, wet: bool) -> float:
        return longest_stay(flux=flux_at(force, wet=wet), thickness=slab, material=material, limit=place.hottest)

    in_hand = place.in_hand and each.stands
    allowed = (min(place.hottest, constant("heat.hand").si) if in_hand else place.hottest) - constant("heat.room").si

    def power_at(force: float, *, wet: bool) -> float:
        return flux_at(force, wet=wet) * min(carrier.patch, place.patch) * contact

    def until_hot(force: float, *, wet: bool) -> float:
        if place.lump is None:
            return math.inf
        air = constant("heat.loss_air").si
        return work_until_hot(lump=place.lump, power=power_at(force, wet=wet), loss=air, allowed=allowed)

    # The first way that is cool enough: firm before light, dry before wet (or wet from the start where that is wanted).
    as_needed = (True, False) if material.worked_wet else (False, True)
    dryness = {"always": (True,), "needed": as_needed, "never": (False,)}[place.wet] if carrier.wet else (False,)
    ways = [(force, wet) for wet in dryness for force in (carrier.force, carrier.light_force)]
    coolest = [(min(stay_at(force, wet=wet), until_hot(force, wet=wet)), force, wet) for force, wet in ways]
    cool, force, wet = next((way for way in coolest if way[0] >= shortest), coolest[-1])
    stay, light = stay_at(force, wet=wet), force < carrier.force
    if cool < shortest:
        forbidden.add("heat")
    speed, hardness = setting.surface, material.hardness
    rate = removal_rate(wear=one.wear, contact=contact, force=force, speed=speed, hardness=hardness) * yours.removal
    ra = roughness_left(grain=one.grain, hold=carrier.hold, hardness=hardness) * yours.scratch
    change_cost = carrier.change + carrier.price / constant("work.bench_rate").si
    return Fit(
        tool=one,
        machine=each,
        setting=setting,
        force=force,
        light=light,
        wet=wet,
        diameter=(diameter := place.diameter(one, each)),
        marked=_marked(one, diameter),
        power=power_at(force, wet=wet),
        allowed=allowed,
        by_hand=in_hand and constant("heat.hand").si < place.hottest,
        until_hot=until_hot(force, wet=wet),
        rate=rate,
        ra=ra,
        depth=depth_of_marks(ra),
        stay=stay,
        change_cost=change_cost,
        yours=yours,
        forbidden=frozenset(forbidden),
    )


def _lasting(one: Tool, yours: Yours, place: Place) -> Tool:
    """The tool with the life that it has in this shop; a life that was put in by hand stands."""
    put_in = place.own is not None and any(own.tool == one.id and own.life is not None for own in place.own.tools)
    if one.carrier.life is None or put_in or yours.life == 1:
        return one
    return replace(one, carrier=replace(one.carrier, life=one.carrier.life * yours.life))


def _enters(one: Tool, place: Place) -> bool:
    carrier = one.carrier
    if (place.curved and carrier.flat_only) or (carrier.turned_only and place.turned is None):
        return False
    if place.flat_show and carrier.scallops:
        return False
    if place.reach == "open":
        return carrier.open
    if place.reach == "tight":
        return carrier.tight
    needs, has = carrier.inside_radius, place.inside_radius
    return needs is not None and has is not None and needs <= has
