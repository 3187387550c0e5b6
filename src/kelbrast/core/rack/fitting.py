"""Whether a wheel and the machines at hand fit each other, said at the moment when one of them is put on the rack."""

import math
from collections.abc import Sequence

from kelbrast.core.catalogue.machines import Machine, machines
from kelbrast.core.catalogue.speeds import speed_bands
from kelbrast.core.process.speed import choose_setting, marked_now, spindle_speed
from kelbrast.core.rack.item import Item, carrier_of
from kelbrast.core.wording import Measure, Sentence, sentence


def misfits(item: Item, available: Sequence[Machine]) -> list[Sentence]:
    """Sentences on what does not fit; none when some machine here turns it as it should."""
    carrier = carrier_of(item.what)
    if carrier is None or carrier.mount == "hand":
        return []
    takers = [machine for machine in available if carrier.mount in machine.takes]
    if not takers:
        wanted = " or ".join(one.label.lower() for one in machines().values() if carrier.mount in one.takes)
        return [sentence("misfit.none", wanted=wanted)]
    running = carrier.running
    diameter, new, marked = item.size or running.diameter, item.size_when_new, item.marked or running.marked_limit
    if running.band is None or diameter is None:
        return []
    if marked is not None and new is not None:
        marked = marked_now(marked=marked, new=new, now=diameter)
    bands = [band for (use, _), band in speed_bands().items() if use == running.band]
    fit = [
        machine
        for machine in takers
        if any(choose_setting(machine, diameter=diameter, band=band, marked_limit=marked) is not None for band in bands)
    ]
    if fit:
        return []
    slowest = min(takers, key=_slowest)
    turns = Measure(_slowest(slowest), "turns")
    if marked is not None and math.pi * diameter * _slowest(slowest) > marked:
        most = Measure(spindle_speed(diameter=diameter, surface=marked), "turns")
        return [sentence("misfit.too_fast", machine=slowest.label, turns=turns, mark=Measure(marked, "speed"), most=most)]
    return [sentence("misfit.unsuited", machine=slowest.label, turns=turns)]


def _slowest(machine: Machine) -> float:
    return min(machine.settings) if machine.settings else machine.low or 0.0
