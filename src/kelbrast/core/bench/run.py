"""A run: one job at the bench, replayed from its events, which are the only state."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from itertools import accumulate
from typing import Final, Literal

from kelbrast.core.bench.events import Event, Moment, Order, Stage, elapsed
from kelbrast.core.planning.whole.account import Times

WorkKey = tuple[int, str, int, int]  # piece, face, route, step
Outcome = Literal["open", "gone", "back", "dropped", "skipped"]
Status = Literal["open", "finished", "stopped"]


@dataclass(frozen=True, slots=True)
class Layout:
    """What a run begins with.

    Attributes:
        pieces: how many.  stages: of each piece, in the order of work.
        operations: those before, between and after the steps of every lot (`operation_key`), with the account of each.
        lots: how many pieces are in every lot; empty for one lot of all.
    """

    pieces: int
    stages: tuple[Stage, ...]
    operations: Mapping[str, Times] = field(default_factory=dict)
    lots: tuple[int, ...] = ()

    def lot_of(self, piece: int) -> int:
        """The number of the lot that a piece is in, from 1."""
        return 1 + next((at for at, last in enumerate(accumulate(self.lots)) if piece <= last), 0)


@dataclass(frozen=True, slots=True)
class Work:
    """What was done at one stage of one piece: seconds on the work, seconds added by "keep going", how it ended and when.

    Attributes:
        corrected: the person put the time right.
    """

    seconds: float = 0.0
    more: float = 0.0
    outcome: Outcome = "open"
    ended: Moment | None = None
    corrected: bool = False


@dataclass(frozen=True, slots=True)
class Waiting:
    """An operation: since when it waits (soaks, dries), and when it was done."""

    since: Moment | None = None
    done: Moment | None = None


@dataclass(frozen=True, slots=True)
class Run:
    """The state of a run.

    Attributes:
        stages: by piece, everything that it went or has to go through, in the order of work.
        ahead: by piece, what of that is still open; pieces that are through are not in it.
        current: what is in hand: a piece and its stage; None when all is done. See `in_hand`.
        works: what was done so far.
        order: all pieces per step, or one piece through.  picked: the piece that the person took.
        clock: since when the work is on the wheel; None when nothing runs.
        begun: the stage in hand was begun.
        on_tool: by tool, seconds since its abrasive was changed; charged: since its wheel was charged.
        changes: by tool, how many abrasives were started after the first.
        worn_at: by tool, how long each abrasive that was changed had worked, s.
        status, well: how it ended.
        standing: the events that were not taken back; last: the newest of them that can be.
        seen: the number of the newest event, taken back or not.
    """

    layout: Layout
    stages: Mapping[int, tuple[Stage, ...]]
    ahead: Mapping[int, tuple[Stage, ...]]
    current: tuple[int, Stage] | None
    works: Mapping[WorkKey, Work] = field(default_factory=dict)
    order: Order = "step"
    picked: int | None = None
    clock: Moment | None = None
    begun: bool = False
    on_tool: Mapping[str, float] = field(default_factory=dict)
    charged: Mapping[str, float] = field(default_factory=dict)
    changes: Mapping[str, int] = field(default_factory=dict)
    worn_at: Mapping[str, tuple[float, ...]] = field(default_factory=dict)
    operations: Mapping[str, Waiting] = field(default_factory=dict)
    status: Status = "open"
    well: bool | None = None
    standing: tuple[Event, ...] = ()
    seen: int = 0

    @property
    def last(self) -> Event | None:
        return self.standing[-1] if self.standing else None

    def work(self, piece: int, stage: Stage) -> Work:
        return self.works.get((piece, *stage.key), _NOTHING)

    def next_stage(self, piece: int) -> Stage | None:
        """The stage that a piece waits for; None when it is through."""
        left = self.ahead.get(piece)
        return left[0] if left else None

    def seconds_in_hand(self, now: Moment) -> float:
        """Seconds on the work at the stage in hand, up to now."""
        if self.current is None:
            return 0.0
        running = elapsed(self.clock, now) if self.clock is not None else 0.0
        return self.work(*self.current).seconds + running

    def on_tool_now(self, tool: str, now: Moment, *, charge: bool = False) -> float:
        """Seconds that the abrasive (or the charge on the wheel) has worked up to now."""
        so_far = (self.charged if charge else self.on_tool).get(tool, 0.0)
        in_hand = self.current is not None and self.current[1].tool == tool and self.clock is not None
        return so_far + (elapsed(self.clock, now) if in_hand and self.clock is not None else 0.0)

    @property
    def next_route(self) -> int:
        """The number of the next way back, of whichever piece."""
        return 1 + max((stage.route for stages in self.stages.values() for stage in stages), default=0)


_NOTHING: Final = Work()


_LOT: Final = "-lot-"


def operation_key(operation: str, lot: int) -> str:
    """What an operation of a lot is known by: its id, and for all but the first lot the number of that.

    >>> operation_key("lacquer", 1), operation_key("lacquer", 2), operation_of("lacquer-lot-2")
    ('lacquer', 'lacquer-lot-2', ('lacquer', 2))
    """
    return operation if lot == 1 else f"{operation}{_LOT}{lot}"


def operation_of(key: str) -> tuple[str, int]:
    """The id of an operation and the number of its lot."""
    operation, _, lot = key.rpartition(_LOT)
    return (operation, int(lot)) if operation and lot.isdigit() else (key, 1)


def in_hand(run: Run) -> tuple[int, Stage] | None:
    """The piece that was picked, or the next by the order of work; None when all is done."""
    if run.picked is not None and run.picked in run.ahead:
        return run.picked, run.ahead[run.picked][0]
    waiting = ((piece, stages[0]) for piece, stages in run.ahead.items())
    if run.order == "piece":
        return min(waiting, key=lambda one: one[0], default=None)
    return min(waiting, key=lambda one: (run.layout.lot_of(one[0]), one[1].place, one[0]), default=None)


def begin(layout: Layout) -> Run:
    """A run before anything happened."""
    ordered = tuple(sorted(layout.stages, key=lambda stage: stage.place))
    every = dict.fromkeys(range(1, layout.pieces + 1), ordered)
    run = Run(layout, every, every if ordered else {}, None)
    return replace(run, current=in_hand(run))
