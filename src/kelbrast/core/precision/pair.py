"""A shaft and its bore together: the clearance, and how far to take which of them."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.precision.form import SURE
from kelbrast.core.precision.state import SizeState
from kelbrast.core.surface.sized import Gauge, RoundKind
from kelbrast.core.wording import Measure, Sentence, sentence

PairVerdict = Literal["fits", "tight", "loose", "unsure"]
_TEN_KELVIN: Final = 10.0


@dataclass(frozen=True, slots=True)
class Mate:
    """One of the two: where it stands, its gauge, and by what share it grows with a kelvin (1/K)."""

    state: SizeState
    gauge: Gauge
    expansion: float

    @property
    def tightest(self) -> float:
        """The diameter where the mate meets it first, m."""
        return self.state.part.sign * self.state.belief.size

    @property
    def easiest(self) -> float:
        """The diameter where there is most room for it, m."""
        return self.state.part.sign * max(self.state.last, self.state.belief.size)

    @property
    def within(self) -> float:
        """Half-width of the 95 % interval of its size, with what the gauge may be off, m."""
        return SURE * self.state.belief.sd_size + self.gauge.bias

    @property
    def room(self) -> float:
        """What may still come off its diameter, m."""
        return self.state.part.far - self.state.belief.size - self.gauge.bias


@dataclass(frozen=True, slots=True)
class Take:
    """Which part to take, to which diameter (m), how much that is, and in about how long (s)."""

    kind: RoundKind
    until: float
    off: float
    seconds: float
    why: Sentence


@dataclass(frozen=True, slots=True)
class Pair:
    """Two parts beside each other (m).

    Attributes:
        least, most: clearance where they are tightest and where they are easiest; below 0 they bind.  within: of both.
        warmer: by how much the clearance grows when both are ten kelvins warmer.
        takes: from which of them how much, both where neither has enough; empty where none is, or would help.
        trial: what to try at the end, in words.
    """

    least: float
    most: float
    within: float
    warmer: float
    verdict: PairVerdict
    takes: tuple[Take, ...]
    said: Sentence
    trial: Sentence


def pair_up(bore: Mate, shaft: Mate, *, least: float, most: float) -> Pair:
    """The clearance that there is against the one that is wanted, and which of the two to take.

    Equation: `c_least = B_tightest - S_largest`, `c_most = B_widest - S_smallest`; wanted: the tightest place between least
        and most, and taken to their middle; of the two that which is
        out of round, or else the quicker; both, by what each has left, where neither has enough (m)
    Valid: the first a bore and the second a shaft, least below most, sizes within a tenth of each other.

    Args:
        bore: as it is.
        shaft: as it is.
        least: clearance that is wanted at least, m.
        most: and at most, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry, size-policy.

    >>> from kelbrast.core.precision.state import SizingTool, WorkRound, follow
    >>> from kelbrast.core.surface.sized import Reading, RoundPart, SizeLimits
    >>> def mate(kind, low, high, size):
    ...     read = tuple(Reading(size, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    ...     part, gauge = RoundPart(kind, 40e-3, SizeLimits(low, high)), Gauge(2e-6, 1e-6)
    ...     return Mate(follow(part, [WorkRound(0, SizingTool("F400", 4e-8, 0.7), read)], gauge), gauge, 18e-6)
    >>> bore, shaft = mate("bore", 14e-3, 14.018e-3, 14.001e-3), mate("shaft", 13.97e-3, 13.994e-3, 14e-3)
    >>> found = pair_up(bore, shaft, least=7e-6, most=20e-6)
    >>> found.verdict, round(1e6 * found.least), found.takes[0].kind, round(1e3 * found.takes[0].until, 4)
    ('tight', 1, 'bore', 14.0135)
    """
    if (bore.state.part.kind, shaft.state.part.kind) != ("bore", "shaft"):
        raise OutsideValidity("a bore and a shaft belong together")
    if not least < most:
        raise OutsideValidity("the least clearance must be below the most")
    if not 0.9 < bore.tightest / shaft.tightest < 1.1:
        raise OutsideValidity("their diameters are more than a tenth apart: they are no pair")
    tight, easy = bore.tightest - shaft.tightest, bore.easiest - shaft.easiest
    within = math.hypot(bore.within, shaft.within)
    verdict = _verdict(tight, within, least, most)
    needed = (least + most) / 2 - tight
    takes = _takes(bore, shaft, needed) if verdict in ("tight", "unsure") and needed > 0 else ()
    return Pair(
        least=tight,
        most=easy,
        within=within,
        warmer=(bore.expansion - shaft.expansion) * bore.tightest * _TEN_KELVIN,
        verdict=verdict,
        takes=takes,
        said=_said(verdict, tight, least, most, able=bool(takes)),
        trial=sentence("pair.trial-slide" if least >= 0 else "pair.trial-press"),
    )


def _verdict(tight: float, within: float, least: float, most: float) -> PairVerdict:
    if tight - within >= least and tight + within <= most:
        return "fits"
    if tight + within < least or (tight < least and within < most - least):
        return "tight"
    if tight - within > most or (tight > most and within < most - least):
        return "loose"
    return "fits" if least <= tight <= most else "unsure"


def _takes(bore: Mate, shaft: Mate, needed: float) -> tuple[Take, ...]:
    able = [mate for mate in (bore, shaft) if mate.room >= needed]
    if not able:
        rooms = [max(0.0, mate.room) for mate in (bore, shaft)]
        if sum(rooms) < needed:
            return ()
        both = sentence("pair.both")
        return tuple(
            _to(mate, needed * room / sum(rooms), both) for mate, room in zip((bore, shaft), rooms, strict=True) if room
        )
    uneven = {id(mate): mate.state.last - mate.state.belief.size > needed / 2 for mate in able}
    first = max(able, key=lambda mate: (uneven[id(mate)], mate.state.belief.rate))
    why = "pair.only" if len(able) == 1 else "pair.uneven" if uneven[id(first)] else "pair.quicker"
    kind = first.state.part.kind
    return (_to(first, needed, sentence(why, kind=kind, what="shaft" if kind == "bore" else "bore")),)


def _to(mate: Mate, off: float, why: Sentence) -> Take:
    state = mate.state
    return Take(state.part.kind, state.part.sign * (state.belief.size + off), off, off / state.belief.rate, why)


def _said(verdict: PairVerdict, tight: float, least: float, most: float, *, able: bool) -> Sentence:
    there = Measure(tight, "depth", 3)
    if verdict == "loose":
        return sentence("pair.loose", gone=there, off=Measure(tight - most, "depth"))
    if verdict == "fits":
        return sentence("pair.fits", gone=there)
    if verdict == "unsure":
        return sentence("pair.unsure", gone=there)
    lacks = Measure(least - tight, "depth")
    return sentence("pair.tight" if able else "pair.tight-no-room", gone=there, left=lacks)
