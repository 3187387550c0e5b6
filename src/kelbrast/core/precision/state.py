"""The state of a part worked to size: its form, and size and rate after every round."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Final

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.precision.belief import Belief, after_round, drifted
from kelbrast.core.precision.form import SURE, Form, fit_form
from kelbrast.core.precision.lap import cleaned_share, oval_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, Reading, RoundPart
from kelbrast.core.validity import require_not_below_zero


@dataclass(frozen=True, slots=True)
class SizingTool:
    """What the work is done with.

    Attributes:
        rate: published or learnt, m/s on the diameter; spread: standard deviation of its logarithm.
        most: what is left to it on the diameter at most, m; more is cut first.
        leaves: what it leaves for the tool that finishes, m; 0 where it finishes itself.  laps: with loose grain.
        least: work that is worth doing, s: shorter is not told from none.
    """

    grade: str
    rate: float
    spread: float
    most: float = field(default_factory=lambda: constant("precision.most_stock").si)
    leaves: float = 0.0
    laps: bool = False
    least: float = field(default_factory=lambda: constant("precision.least_work").si)


@dataclass(frozen=True, slots=True)
class WorkRound:
    """What was done since the round before, s, with which tool, and the readings after it."""

    seconds: float
    tool: SizingTool
    readings: tuple[Reading, ...]


@dataclass(frozen=True, slots=True)
class SizeState:
    """Form as found, and where the work stands, in its own direction (see `RoundPart`).

    Attributes:
        belief: of the size that the tool has cut to, and its rate.
        tool: in hand.  last: the place that it would come to last, as found.
        clear: the size at which a finer tool has cleared the marks of the one before; minus infinity for the first tool.
        rounds: that were worked.  looked: readings again since the last work.  stuck: no growth where there should have been.
    """

    part: RoundPart
    form: Form
    belief: Belief
    tool: SizingTool
    last: float
    clear: float
    rounds: int
    looked: int
    stuck: bool

    @property
    def oval(self) -> float:
        """As found, m; 0 where none can be told."""
        return self.form.seen_oval

    @property
    def share(self) -> float:
        """Cleaned now, of the middle section."""
        return self.share_at(self.belief.size)

    def share_at(self, size: float) -> float:
        """Cleaned when the tool has cut to this size."""
        return cleaned_share(grown=size - self.part.sign * self.form.size.value, oval=self.oval)

    def oval_at(self, size: float) -> float:
        """What is left of the oval then, m."""
        return oval_left(grown=size - self.part.sign * self.form.size.value, oval=self.oval)

    @property
    def all_round(self) -> float:
        """The size at which all of it is clean, marks and all."""
        return self.last + 2 * self.part.marks


def follow(part: RoundPart, rounds: Sequence[WorkRound], gauge: Gauge) -> SizeState:
    """Where the work stands after these rounds; the first is the measuring before any work.

    The form is fitted once, to the readings before any work: what a lap has touched is round, and a cosine through it puts the
    size too low. Later readings count where the tool has been.

    Equation: as in `form.fit_form` and `belief.after_round` (m, m/s)
    Valid: at least one round with readings, times not below 0.

    Args:
        part: what is worked.
        rounds: in order.
        gauge: with which it is read.

    Raises:
        OutsideValidity: outside that.

    Source: kalman, lapping-geometry.

    >>> from kelbrast.core.surface.sized import SizeLimits
    >>> lap = SizingTool("F400", 2.5e-6 / 60, 1.0)
    >>> bush = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
    >>> read = tuple(Reading(19.985e-3, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    >>> state = follow(bush, [WorkRound(0, lap, read)], Gauge(3e-6, 1e-6))
    >>> round(1e3 * state.belief.size, 3), state.rounds
    (19.985, 0)
    """
    readings = [reading for round_ in rounds for reading in round_.readings if not round_.seconds]
    before = _before_work(rounds)
    if not before:
        raise OutsideValidity("the first round must be readings before any work" if not readings else "no readings")
    form = fit_form(before, length=part.length, repeatability=gauge.repeatability)
    first, last = _reach(part, form)
    tool, clear = rounds[_lead(rounds) - 1].tool, -math.inf
    belief = Belief(first, math.log(tool.rate), _variance(form), 0.0, tool.spread**2)
    worked, looked, stuck = 0, _lead(rounds) - 1, False
    for each in rounds[_lead(rounds) :]:
        require_not_below_zero(seconds=each.seconds)
        if each.tool.grade != tool.grade:
            belief, clear = _with_tool(belief, tool, each.tool), _cleared(belief, tool, each.tool)
            tool, looked = each.tool, 0
        if each.seconds:
            worked, looked = worked + 1, 0
            belief = drifted(belief, drift=constant("precision.drift").value)
        elif each.readings:
            looked += 1
        expected = belief.size + belief.rate * each.seconds
        read = _touched(part, form, each.readings, expected)
        if not read:
            belief = replace(belief, size=expected)
            continue
        mean, variance = sum(read) / len(read), gauge.repeatability**2 / len(read)
        noise = SURE * math.sqrt(variance + belief.var_size)
        stuck = bool(each.seconds) and mean - belief.size < noise and expected - belief.size > 3 * noise
        belief = after_round(belief, seconds=each.seconds, read=mean, variance=variance)
    return SizeState(part, form, belief, tool, last, clear, worked, looked, stuck)


_SAME_GRAIN: Final = 0.3  # how far the rates of two grades may be off against each other, of the logarithm


def _lead(rounds: Sequence[WorkRound]) -> int:
    """How many rounds there are before any work."""
    return next((at for at, each in enumerate(rounds) if each.seconds), len(rounds))


def _before_work(rounds: Sequence[WorkRound]) -> list[Reading]:
    return [reading for each in rounds[: _lead(rounds)] for reading in each.readings]


def _reach(part: RoundPart, form: Form) -> tuple[float, float]:
    """Where the tool begins and where it comes to last, in the direction of the work."""
    half = form.seen_oval / 2
    ends = (form.size.value + form.fall - half, form.size.value + form.lift + half)
    return min(part.sign * end for end in ends), max(part.sign * end for end in ends)


def _variance(form: Form) -> float:
    parts = (1.0, form.size), (0.5, form.oval), (0.5, form.taper), (2 / 3, form.barrel)
    return sum((share * form_estimate.within / SURE) ** 2 for share, form_estimate in parts if form_estimate is not None)


def _with_tool(belief: Belief, before: SizingTool, now: SizingTool) -> Belief:
    """What was learnt of the hand and the work stays; the grades differ as published."""
    faster = math.log(now.rate / before.rate)
    return replace(belief, log_rate=belief.log_rate + faster, var_log=belief.var_log + _SAME_GRAIN**2)


def _cleared(belief: Belief, before: SizingTool, now: SizingTool) -> float:
    """Where the finer tool has taken what was left to it."""
    return belief.size + max(0.0, before.leaves - now.leaves)


def _touched(part: RoundPart, form: Form, readings: Sequence[Reading], expected: float) -> list[float]:
    """The readings at places where the tool has been, in the direction of the work; else those that it comes to first."""
    at = [
        (part.sign * form.at(reading.height / part.length, reading.direction), part.sign * reading.diameter)
        for reading in readings
    ]
    reached = [read for found, read in at if found <= expected]
    return reached or [read for _, read in sorted(at)[:1]]
