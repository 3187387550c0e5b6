"""The next move: how long to work before the next reading, or to stop."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.precision.belief import Belief, chance_past, drifted, longest
from kelbrast.core.precision.state import SizeState
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within
from kelbrast.core.wording import Measure, Sentence, sentence

SizeAction = Literal["measure", "lap", "short-strokes", "expand", "finer", "cool", "stop", "cut-again", "not-possible"]
SURE: Final = 1.645  # standard deviations: nineteen of twenty
_CERTAIN: Final = 2.576  # ninety-nine of a hundred
_STRIPS: Final = 40  # of the way that the first round goes
_LOOKS: Final = 2  # how often the same is read again before it cannot be told


@dataclass(frozen=True, slots=True)
class Move:
    """What to do next.

    Attributes:
        seconds: of work; 0 where nothing is worked.  readings: to take after it, and whether in the narrow direction.
        past: the chance that it passes the limit.  until: the size to expect after it, m.
    """

    action: SizeAction
    reason: Sentence
    seconds: float = 0.0
    readings: int = 0
    past: float = 0.0
    until: float | None = None


def readings_needed(*, tolerance: float, repeatability: float, bias: float) -> int:
    """How many readings a round needs: their mean is to be told within a quarter of what the gauge leaves of the tolerance.

    Equation: `n = (4 s / (t - 2 b))^2`, from 4 to 32 (readings)
    Valid: the tolerance above 2 b, repeatability above 0.

    Args:
        tolerance: t, upper less lower limit, m.
        repeatability: s, standard deviation of one reading, m.
        bias: b, what all readings may be off, m.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy.

    >>> [readings_needed(tolerance=t, repeatability=2e-6, bias=1e-6) for t in (21e-6, 6e-6, 4e-6)]
    [4, 4, 16]
    """
    require_above_zero(repeatability=repeatability)
    require_not_below_zero(bias=bias)
    require_within(2 * bias * (1 + 1e-9), math.inf, tolerance=tolerance)
    return min(32, max(4, math.ceil((4 * repeatability / (tolerance - 2 * bias)) ** 2 - 1e-9)))


def next_move(state: SizeState, gauge: Gauge, *, risk: float) -> Move:
    """The longest work whose chance of passing the limit is bearable, as long as it does not pass the target; else to stop.

    Equation: `T = min(T(alpha), (target - S) / rate)`; stop at S - 1.645 s >= L + B, and
        clean as far as can be told (s)
    Valid: as `belief.longest`.

    Args:
        state: where the work stands.
        gauge: with which it is read.
        risk: alpha, the chance of passing the limit that is borne, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy, kalman.

    >>> from kelbrast.core.surface.sized import Reading
    >>> from kelbrast.core.precision.state import WorkRound, SizingTool, follow
    >>> from kelbrast.core.surface.sized import RoundPart, SizeLimits
    >>> lap = SizingTool("F400", 2.5e-6 / 60, 0.7)
    >>> bush = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
    >>> read = tuple(Reading(19.99e-3, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    >>> gauge = Gauge(2e-6, 1e-6)
    >>> move = next_move(follow(bush, [WorkRound(0, lap, read)], gauge), gauge, risk=0.01)
    >>> move.action, round(move.seconds)
    ('lap', 130)
    """
    part, known = state.part, state.belief
    near, far = part.near + gauge.bias, part.far - gauge.bias
    if near >= far:
        return Move(
            "not-possible", sentence("size.gauge-too-coarse", tolerance=_depth(part.wanted.width), bias=_depth(gauge.bias))
        )
    if (missing := _missing(state)) is not None:
        return missing
    if (past := _past(state, gauge)) is not None:
        return past
    more = readings_needed(tolerance=part.wanted.width, repeatability=gauge.repeatability, bias=gauge.bias)
    target, all_round = target_of(state, gauge)
    clean = known.size + known.sd_size >= min(max(state.all_round if all_round else -math.inf, state.clear), target)
    finer = Move("finer", sentence("size.finer", left=_depth(max(0.0, target - known.size))), readings=more)
    if known.at_least(SURE) >= near and clean:
        if state.tool.leaves:
            return finer
        return Move("stop", sentence("size.stop", size=_size(part.sign * known.size), share=_percent(state.share)))
    if part.near - known.size > state.tool.most:
        return Move("cut-again", sentence("size.cut-again", left=_depth(part.near - known.size)))
    if known.size >= target - state.tool.leaves and state.tool.leaves:
        return finer
    by_limit, least = longest(_known_before(state), limit=far, risk=risk), state.tool.least
    to_target = max(0.0, (target - known.size) / known.rate)
    if min(by_limit, to_target) < least:
        return _look_again(state, more)
    seconds = max(least, min(by_limit * _slowest(state, far), to_target * _slowest(state, target)))
    past_limit = chance_past(_known_before(state), seconds=seconds, limit=far)
    until = part.sign * (known.size + known.rate * seconds)
    return _working(state, seconds, past_limit, until, more, bounded=by_limit < to_target)


def target_of(state: SizeState, gauge: Gauge) -> tuple[float, bool]:
    """Where the work ends, in its own direction: the middle of the limits or where all of it is clean, and whether it is then.

    Equation: `t = max((near + far) / 2, all round + 2 um, clear)`, where that is safe within the far limit; clear: where a
        finer tool has cleared the marks of the one before it (m)
    Valid: any state.

    Args:
        state: where the work stands.
        gauge: with which it is read.

    Raises:
        OutsideValidity: never.

    Source: size-policy.

    >>> from kelbrast.core.surface.sized import Reading
    >>> from kelbrast.core.precision.state import WorkRound, SizingTool, follow
    >>> from kelbrast.core.surface.sized import RoundPart, SizeLimits
    >>> read = tuple(Reading(19.99e-3, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    >>> bush = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
    >>> state = follow(bush, [WorkRound(0, SizingTool("F400", 4e-8, 0.7), read)], Gauge(2e-6, 1e-6))
    >>> size, all_round = target_of(state, Gauge(2e-6, 1e-6))
    >>> round(1e3 * size, 4), all_round
    (20.0105, True)
    """
    part = state.part
    safe = part.far - gauge.bias - SURE * gauge.repeatability
    goal = max((part.near + part.far) / 2, min(state.clear, safe))
    clean = state.all_round + constant("precision.beyond_clean").si
    if clean <= goal:
        return goal, True
    return (clean, True) if clean <= safe else (goal, False)


def _known_before(state: SizeState) -> Belief:
    """Size and rate as they are taken into the next round; a lap that is set out anew may cut as it first did."""
    known = drifted(state.belief, drift=constant("precision.drift").value)
    return drifted(known, drift=constant("precision.prior").value) if state.stuck else known


def _missing(state: SizeState) -> Move | None:
    """Readings without which no move is known."""
    part, form, least = state.part, state.form, 4
    if "oval" in form.blind:
        return Move("measure", sentence("size.crosswise"), readings=least)
    if "taper" in form.blind and part.length > constant("precision.short").value * abs(form.size.value):
        return Move("measure", sentence("size.ends"), readings=least)
    return None


def _past(state: SizeState, gauge: Gauge) -> Move | None:
    """The limit is passed already, by the work or as it was found; what ends all work must be as good as certain."""
    part, known = state.part, state.belief
    found = state.last - _CERTAIN * known.sd_size - gauge.bias
    if known.at_least(SURE) > part.far:
        return Move("not-possible", sentence("size.past", over=_depth(known.size - part.far)))
    if not state.rounds and found > part.far:
        return Move("not-possible", sentence("size.past-found", over=_depth(state.last - part.far)))
    return None


def _slowest(state: SizeState, until: float) -> float:
    """The share of a time in which a lap that touches little of an oval would be there, were it quicker for that: nobody knows.

    Once a round has been worked its growth has told the rate.
    """
    low = state.belief.size
    if state.rounds or not state.oval or until <= low:
        return 1.0
    return sum(state.share_at(low + (until - low) * (at + 0.5) / _STRIPS) for at in range(_STRIPS)) / _STRIPS


def finishing_stock(marks: float) -> float:
    """What is left on the diameter for the finishing tool.

    Equation: `2 x 2 marks, from 3 to 5 um` (m)
    Valid: marks not below 0.

    Args:
        marks: depth of the marks that the tool before leaves, m.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy.

    >>> [round(1e6 * finishing_stock(depth), 1) for depth in (0.5e-6, 1e-6, 4e-6)]
    [3.0, 4.0, 5.0]
    """
    require_not_below_zero(marks=marks)
    return min(max(4 * marks, constant("precision.finish_least").si), constant("precision.finish_most").si)


def _look_again(state: SizeState, more: int) -> Move:
    if state.looked < _LOOKS:
        return Move("measure", sentence("size.look-again"), readings=2 * more)
    return Move("stop", sentence("size.not-told", size=_size(state.part.sign * state.belief.size)))


def _working(state: SizeState, seconds: float, past: float, until: float, more: int, *, bounded: bool) -> Move:
    """To work so long: all along, or short strokes where it is tight."""
    part, taper = state.part, state.form.taper
    if state.stuck:
        return Move("expand", sentence("size.stuck"), seconds, more, past, until)
    told = taper is not None and abs(taper.value) > max(2 * taper.within, part.wanted.width / 4)
    if told and taper is not None and not state.rounds:
        seconds = min(seconds, abs(taper.value) / 2 / state.belief.rate)
        end = "size.end-low" if (taper.value > 0) == (part.kind == "bore") else "size.end-high"
        reason = sentence("size.short-strokes", taper=_depth(abs(taper.value)), end=sentence(end))
        return Move("short-strokes", reason, seconds, more, past, part.sign * (state.belief.size + state.belief.rate * seconds))
    code = "size.lap-risk" if bounded else "size.lap-target"
    return Move("lap", sentence(code, until=_size(until), rate=_depth(60 * state.belief.rate)), seconds, more, past, until)


def _depth(value: float) -> Measure:
    return Measure(value, "depth")


def _size(value: float) -> Measure:
    return Measure(value, "length", 6)


def _percent(share: float) -> str:
    return f"{100 * share:.0f} %"
