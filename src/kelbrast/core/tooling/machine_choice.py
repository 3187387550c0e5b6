"""Which machine drives a tool on a face, and how it is set."""

from dataclasses import dataclass

from kelbrast.core.catalogue.machines import Machine, machine
from kelbrast.core.catalogue.tools import Tool, speed_bands
from kelbrast.core.process.speed import Setting, choose_setting, marked_now
from kelbrast.core.reference.loader import constant
from kelbrast.core.tooling.place import Place


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


def choose_drive(one: Tool, available: tuple[Machine, ...], place: Place) -> Drive | None:
    """The machine that works this tool fastest, inside the recommended band where possible; None where none takes it."""
    drives = [_drive(one, each, place) for each in available if one.carrier.mount in each.takes]

    def merit(drive: Drive) -> tuple[bool, bool, bool, float]:
        brought = place.carried or not drive.machine.stands
        pace = drive.machine.contact * drive.setting.surface if drive.suited else 0.0
        return brought, drive.suited, drive.suited and not drive.setting.below_band, pace

    return max(drives, key=merit, default=None)


def recommended_band(one: Tool, each: Machine, place: Place) -> tuple[float, float] | None:
    """The band of surface speeds for a tool here, m/s; the low-speed school runs bench machines at a share of it."""
    band = one.carrier.running.band
    found = speed_bands().get((band, place.material.family)) if band else None
    if found is None or place.bench_speed != "low" or not each.stands:
        return found
    slow = constant("speed.low_school").value
    return found[0] * slow, found[1] * slow


def _drive(one: Tool, each: Machine, place: Place) -> Drive:
    diameter = place.diameter(one, each)
    marked = _marked(one, diameter)
    setting = choose_setting(each, diameter=diameter, band=recommended_band(one, each, place), marked_limit=marked)
    # A tool without a safe setting is never planned; it keeps a hand's speed so that "speed" can be named as what binds.
    return Drive(each, setting or Setting(machine("hand").stroke or 1.0, None, None), setting is not None, diameter, marked)


def _marked(one: Tool, diameter: float | None) -> float | None:
    """The marked limit as a surface speed of the wheel as it is."""
    marked, new = one.carrier.running.marked_limit, one.carrier.running.diameter
    if marked is None or new is None or diameter is None:
        return marked
    return marked_now(marked=marked, new=new, now=diameter)
