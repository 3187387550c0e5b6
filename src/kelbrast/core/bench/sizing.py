"""A run by the gauge: a face worked to size, from its readings and the working time between them."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kelbrast.core.bench.events import Event, Measured, Moment, Stage
from kelbrast.core.bench.run import Run, begin
from kelbrast.core.bench.taps import happen
from kelbrast.core.job import Job
from kelbrast.core.precision.advice import SizingAdvice, where_tightest
from kelbrast.core.precision.face import SizingStep, size_of_face, sizing_tools
from kelbrast.core.precision.move import readings_needed
from kelbrast.core.precision.readings import everywhere
from kelbrast.core.precision.state import SizingTool, WorkRound
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Reading, Sized

_WORKED = 0.5  # seconds: less on the clock is a slip of the finger


@dataclass(frozen=True, slots=True)
class SizeAtBench:
    """What the gauge says of the face in hand.

    Attributes:
        advice: None before the first reading.
        to_read: the places that are to be read before the next move is shown, m and rad; empty when it can be.
        read: how many of this lot are read.
        rounds: the readings, round by round.
    """

    sized: Sized
    advice: SizingAdvice | None
    to_read: tuple[tuple[float, float], ...]
    read: int
    rounds: tuple[WorkRound, ...]

    def expected(self, place: tuple[float, float]) -> float | None:
        """The diameter that is to be expected at a place, m; None before the first reading."""
        if self.advice is None:
            return None
        state, sign = self.advice.state, self.sized.part.sign
        found = sign * state.form.at(place[0] / self.sized.part.length, place[1])
        return sign * max(found, state.belief.size)


def size_at_bench(run: Run, job: Job, now: Moment) -> SizeAtBench | None:
    """The face in hand by the gauge; None where nothing is in hand, or no size is wanted of it."""
    if run.current is None:
        return None
    piece, stage = run.current
    sized = job.face(stage.face).sized
    if sized is None:
        return None
    stages = [one for one in run.stages[piece] if one.face == stage.face and run.work(piece, one).outcome != "dropped"]
    steps = [SizingStep(stage.tool, stage.takes, stage.seconds) for stage in stages]
    tools = dict(
        zip((stage.key for stage in stages), sizing_tools(steps, spread=constant("precision.prior").value), strict=True)
    )
    story = _Story(sized, tools, stage, sized.readings if piece == 1 else ())
    state = begin(run.layout)
    for event in run.standing:
        state = happen(state, event)
        if (read := _reading(event, piece, stage.face)) is not None:
            story.worked(_on_face(state, piece, stages, event.at))
            story.read(read)
    story.worked(_on_face(run, piece, stages, now))
    story.in_hand()
    rounds = story.rounds
    if not rounds or not rounds[0].readings:
        places = everywhere(length=sized.part.length)
        return SizeAtBench(sized, None, places, 0, ())
    advice = size_of_face(sized, steps, rounds, job.material)
    left, read_so_far = story.to_read(advice, running=run.clock is not None)
    return SizeAtBench(sized, advice, left, read_so_far, tuple(rounds))


class _Story:
    """Rounds as they come about: work by stage, then readings; a lot of readings that is full begins the next."""

    def __init__(
        self, sized: Sized, tools: dict[tuple[str, int, int], SizingTool], stage: Stage, found: Sequence[Reading]
    ) -> None:
        self._tools, self._stage = tools, stage
        self._part = sized.part
        self._more = readings_needed(
            tolerance=max(sized.part.wanted.width, 2.001 * sized.gauge.bias),
            repeatability=sized.gauge.repeatability,
            bias=sized.gauge.bias,
        )
        self._done: dict[tuple[str, int, int], float] = {}
        self._lot = len(everywhere(length=sized.part.length))
        self.rounds: list[WorkRound] = []
        if found:
            self.rounds.append(WorkRound(0.0, tools[stage.key], tuple(found)))
            self._lot = len(found)

    def worked(self, by_stage: dict[tuple[str, int, int], float]) -> None:
        """So many seconds in all by stage."""
        for key, seconds in by_stage.items():
            gone = seconds - self._done.get(key, 0.0)
            if gone > _WORKED and self.rounds:
                self.rounds.append(WorkRound(gone, self._tools[key], ()))
                self._lot = self._more
            self._done[key] = seconds

    def in_hand(self) -> None:
        """A tool that was not worked with yet."""
        if self.rounds and self.rounds[-1].tool.grade != self._tools[self._stage.key].grade:
            self.rounds.append(WorkRound(0.0, self._tools[self._stage.key], ()))
            self._lot = 0

    def read(self, reading: Reading) -> None:
        if not self.rounds or (len(self.rounds[-1].readings) >= self._lot):
            if self.rounds:
                self._lot = 2 * self._more
            self.rounds.append(WorkRound(0.0, self._tools[self._stage.key], ()))
        self.rounds[-1] = replace(self.rounds[-1], readings=(*self.rounds[-1].readings, reading))

    def to_read(self, advice: SizingAdvice, *, running: bool) -> tuple[tuple[tuple[float, float], ...], int]:
        """What is still to be read of this lot, and how much is; nothing while it is worked."""
        have = len(self.rounds[-1].readings)
        if running:
            return (), 0
        if have < self._lot:
            places = everywhere(length=self._part.length) if len(self.rounds) == 1 else where_tightest(advice.state, self._lot)
            return places[have:], have
        return (advice.places, 0) if advice.move.action == "measure" else ((), 0)


def _on_face(state: Run, piece: int, stages: Sequence[Stage], at: Moment) -> dict[tuple[str, int, int], float]:
    """Seconds on the work so far, by stage of the face."""
    found = {stage.key: state.work(piece, stage).seconds for stage in stages}
    if state.clock is not None and state.current is not None and state.current[0] == piece and state.current[1].key in found:
        found[state.current[1].key] = state.seconds_in_hand(at)
    return found


def _reading(event: Event, piece: int, face: str) -> Reading | None:
    measured: Measured | None = event.measured
    if measured is None or measured.quantity != "size" or event.piece != piece or event.stage is None or event.stage[0] != face:
        return None
    if measured.height is None:
        return None
    return Reading(measured.value, measured.height, measured.angle or 0.0)
