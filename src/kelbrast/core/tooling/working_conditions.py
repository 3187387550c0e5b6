"""Which machine drives a tool and how it is set; how hard the tool is pressed, and whether wet: the first way that is cool
enough."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from kelbrast.core.catalogue.machines import Machine, machine
from kelbrast.core.catalogue.tools import Running, Tool, speed_bands
from kelbrast.core.process.heat import friction_flux, longest_stay, work_until_hot
from kelbrast.core.process.removal import contact_kept
from kelbrast.core.process.speed import Setting, choose_setting, marked_now
from kelbrast.core.reference.loader import constant
from kelbrast.core.tooling.tool_context import ToolContext


@dataclass(frozen=True, slots=True)
class Drive:
    """A machine set for a tool (SI).

    Attributes:
        suited: it has a setting that is safe and fast enough.
        diameter: of the wheel as it is now, m; of the work for the lathe.
        marked: its marked limit as a surface speed of the wheel as it is, m/s.
    """

    machine: Machine
    setting: Setting
    suited: bool
    diameter: float | None
    marked: float | None


def choose_drive(tool: Tool, available: tuple[Machine, ...], context: ToolContext) -> Drive | None:
    """The machine that works this tool fastest, inside the recommended band where possible; None where none takes it."""
    drives = [_drive(tool, each, context) for each in available if tool.carrier.mount in each.takes]

    def merit(drive: Drive) -> tuple[bool, bool, bool, float]:
        brought = context.comes_to_the_bench or not drive.machine.stands
        pace = contact_of(drive.machine, context) * drive.setting.surface if drive.suited else 0.0
        return brought, drive.suited, drive.suited and not drive.setting.below_band, pace

    return max(drives, key=merit, default=None)


def contact_of(machine: Machine, context: ToolContext) -> float:
    """The share of the time in which a machine touches the work: less with a part that is unwieldy, or too light for it."""
    if machine.stands:
        return machine.contact * (contact_kept(context.unwieldy) if context.comes_to_the_bench else 1.0)
    return machine.contact * contact_kept(context.too_light_for(machine))


def recommended_band(tool: Tool, machine: Machine, context: ToolContext) -> tuple[float, float] | None:
    """The band of surface speeds for a tool here, m/s; the low-speed school runs bench machines at a share of it."""
    band = tool.carrier.running.band
    found = speed_bands().get((band, context.material.family)) if band else None
    if found is None or context.bench_speed != "low" or not machine.stands:
        return found
    slow = constant("speed.low_school").value
    return found[0] * slow, found[1] * slow


def _drive(tool: Tool, each: Machine, context: ToolContext) -> Drive:
    diameter = context.diameter(tool, each)
    marked = _marked(tool, diameter)
    setting = choose_setting(each, diameter=diameter, band=recommended_band(tool, each, context), marked_limit=marked)
    # A tool without a safe setting is never planned; it keeps a hand's speed so that "speed" can be named as what binds.
    return Drive(each, setting or Setting(machine("hand").stroke or 1.0, None, None), setting is not None, diameter, marked)


def _marked(tool: Tool, diameter: float | None) -> float | None:
    """The marked limit as a surface speed of the wheel as it is."""
    marked, new = tool.carrier.running.marked_limit, tool.carrier.running.diameter
    if marked is None or new is None or diameter is None:
        return marked
    return marked_now(marked=marked, new=new, now=diameter)


@dataclass(frozen=True, slots=True)
class WorkingConditions:
    """A way of working, and how warm the part gets by it (SI).

    Attributes:
        force: N.  light: only light pressure keeps the work cool enough.
        wet: by choice or because dry is too hot.
        power: heat into the part while it works, W.
        stay: longest stay on one spot, s.
        allowed: how far the whole part may warm, K.  by_hand: because a hand in finger guards holds it.
        until_hot: seconds of work until then, infinite when it never does.
        until_bare: seconds until a bare hand has to put it down, infinite where none holds it.
    """

    force: float
    light: bool
    wet: bool
    power: float
    stay: float
    allowed: float
    by_hand: bool
    until_hot: float
    until_bare: float

    @property
    def cool_for(self) -> float:
        """Seconds until either the spot or the whole part is too hot."""
        return min(self.stay, self.until_hot)

    @property
    def too_hot(self) -> bool:
        return self.cool_for < constant("heat.shortest_stay").si


def choose_conditions(running: Running, drive: Drive, contact: float, context: ToolContext) -> WorkingConditions:
    """Firm before light, dry before wet (or wet from the start where that is wanted); the last way where none is cool."""
    ways = [_manner(running, drive, contact, context, *way) for way in _ways(running, context)]
    return next((way for way in ways if not way.too_hot), ways[-1])


def _ways(running: Running, context: ToolContext) -> Iterator[tuple[float, bool, bool]]:
    as_needed = (True, False) if context.material.worked_wet else (False, True)
    wet_or_dry = {"always": (True,), "needed": as_needed, "never": (False,)}[context.wet] if running.wet else (False,)
    firm, light = running.force, running.light_force
    if running.pressure is not None:
        firm, light = (one * running.pressure * min(running.patch, context.size) for one in (1.0, light / firm))
    return ((force, gentle, wet) for wet in wet_or_dry for force, gentle in ((firm, False), (light, True)))


def _manner(
    running: Running, drive: Drive, contact: float, context: ToolContext, force: float, light: bool, wet: bool
) -> WorkingConditions:
    patch = min(running.patch, context.patch)
    flux = friction_flux(friction=running.friction, force=force, speed=drive.setting.surface, patch=patch)
    if wet:
        flux *= constant("heat.wet_share").value
    power = flux * patch * contact
    in_hand = context.in_hand and drive.machine.stands
    room, guarded = constant("heat.room").si, constant("heat.guarded").si
    allowed = (min(context.hottest, guarded) if in_hand else context.hottest) - room
    bare = min(allowed, constant("heat.hand").si - room)
    slab = context.thickness if context.thickness is not None else constant("heat.thick").si
    return WorkingConditions(
        force=force,
        light=light,
        wet=wet,
        power=power,
        stay=longest_stay(flux=flux, thickness=slab, material=context.material, limit=context.hottest),
        allowed=allowed,
        by_hand=in_hand and guarded < context.hottest,
        until_hot=_until_hot(context, power, allowed),
        until_bare=_until_hot(context, power, bare) if in_hand else math.inf,
    )


def _until_hot(context: ToolContext, power: float, allowed: float) -> float:
    if context.lump is None:
        return math.inf
    return work_until_hot(lump=context.lump, power=power, loss=constant("heat.loss_air").si, allowed=allowed)
