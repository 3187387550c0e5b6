"""The event types of a run. Events are only appended, with the time on two clocks."""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from typing import Final, Literal

from kelbrast.core.planning.questions.goback import Extent
from kelbrast.core.planning.whole.account import Times
from kelbrast.core.rules.order import place_in_order


@dataclass(frozen=True, slots=True)
class Moment:
    """A moment on two clocks.

    Attributes:
        at: seconds since 1970, UTC, by the wall clock, which people and time servers set.
        ticks: seconds by the machine's own clock, which nobody sets and which runs on while the lid is closed.
        boot: which start of the machine the ticks count from.
    """

    at: float
    ticks: float
    boot: str

    @property
    def when(self) -> datetime:
        return datetime.fromtimestamp(self.at, UTC)

    def earlier(self, seconds: float) -> "Moment":
        """So many seconds before."""
        return self.later(-seconds)

    def later(self, seconds: float) -> "Moment":
        """So many seconds after."""
        return replace(self, at=self.at + seconds, ticks=self.ticks + seconds)


Clock = Callable[[], Moment]


def elapsed(start: Moment, end: Moment) -> float:
    """Seconds between two moments, never below 0: by the machine's own clock where it can tell, else by the wall clock.

    >>> lid = Moment(100.0, 10.0, "a"), Moment(7300.0, 40.0, "a")   # the wall clock was put forward two hours
    >>> elapsed(*lid)
    30.0
    >>> elapsed(Moment(100.0, 10.0, "a"), Moment(160.0, 2.0, "b"))  # the machine was started again
    60.0
    """
    between = end.ticks - start.ticks if start.boot == end.boot else end.at - start.at
    return max(0.0, between)


EventKind = Literal[
    "started", "paused", "gone", "more", "back", "accepted", "skipped", "picked", "order", "changed", "recharged",
    "waiting", "operated", "measured", "photo", "note", "trouble", "corrected", "finished", "stopped", "undone",
]  # fmt: skip
Order = Literal["step", "piece"]
ORDERS: Final[dict[Order, str]] = {"step": "All pieces per step", "piece": "One piece through"}


@dataclass(frozen=True, slots=True)
class StageDrive:
    """How a step is driven and held (SI); None where nothing was planned.

    Attributes:
        machine: its id.  spindle: rev/s.  diameter, marked: of the wheel as it is, its marked limit now in m/s.
        rest_after: work after which the part is put down to cool, s; rest_by_hand: because the hand holds it.
    """

    machine: str = "hand"
    spindle: float | None = None
    diameter: float | None = None
    marked: float | None = None
    rest_after: float | None = None
    rest_by_hand: bool = False


@dataclass(frozen=True, slots=True)
class Stage:
    """One step of a route at the bench (SI).

    Attributes:
        face: what the face is known by.  name: what it was called when the run began, to be read.
        route: the route that it belongs to: 0 as planned, then one more each time a piece of the run went back.
        step: its number in that route, from 1.
        turn: faces with a smaller turn are worked first.
        leaves: depth of the marks that it leaves.  coarsest: of the coarsest that it or a later step of the route leaves.
        seconds: planned, on the work.  setup: putting the tool on.  mounted: it goes on a machine.
        handling: planned beside the work on each piece.  once: what the account has here for a lot: putting a tool on, a wash.
        takes: the layer that it is planned to take off.
        worn: abrasives, bars or tubs that it is planned to wear out.
        change_after: of cutting, when a dying abrasive is changed; None for others.
        places: the spots that it works, by what they are known by, each with how far around it (m); None for all of the face.
    """

    face: str
    route: int
    step: int
    tool: str
    turn: int
    leaves: float
    takes: float
    seconds: float
    setup: float
    mounted: bool
    handling: float = 0.0
    once: Times = field(default_factory=Times)
    worn: float = 0.0
    change_after: float | None = None
    drive: StageDrive = field(default_factory=StageDrive)
    name: str = ""
    coarsest: float = 0.0
    places: tuple[tuple[str, float], ...] | None = None

    @property
    def label(self) -> str:
        """The face in words."""
        return self.name or self.face

    @property
    def key(self) -> tuple[str, int, int]:
        return self.face, self.route, self.step

    @property
    def place(self) -> tuple[int, float, str, str, int]:
        """Where it stands in the work of its piece."""
        return *place_in_order(self.turn, max(self.coarsest, self.leaves), self.tool), self.label, self.step


@dataclass(frozen=True, slots=True)
class Measured:
    """A reading (SI): a quantity of `bench.instruments.QUANTITIES`, where on the face, which way, with what.

    Attributes:
        simulated: it comes from a stand-in that ships with the program, and proves nothing.
        height, angle: of a size: m from the middle of the length, rad around; None where nobody said.
    """

    quantity: str
    value: float
    position: str = ""
    direction: str = ""
    instrument: str = ""
    simulated: bool = False
    height: float | None = None
    angle: float | None = None


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened. Only what its kind needs is set.

    Attributes:
        number: its place in the run, from 1.
        piece: from 1.  stage: (face, route, step).
        stages: "back": the new route, which takes the place of what was left on this face of the piece.
        extent, depth: "back", "accepted": over a patch or the whole face; how deep the mark is, m.
        seconds: "more": so much longer; "corrected": the time that it really took.
        order: "order".  tool: "changed", "recharged".  operation: "waiting", "operated".
        measured: "measured".  photo: id of a "photo".  fault: "trouble", an id of the fault table.
        well: "finished": whether it came out as wanted.
        undoes: "undone": the number of the event that is taken back.
        words: what the person wrote.
    """

    kind: EventKind
    number: int
    at: Moment
    piece: int | None = None
    stage: tuple[str, int, int] | None = None
    stages: tuple[Stage, ...] = ()
    extent: Extent | None = None
    depth: float | None = None
    seconds: float | None = None
    order: Order | None = None
    tool: str | None = None
    operation: str | None = None
    measured: Measured | None = None
    photo: int | None = None
    fault: str | None = None
    well: bool | None = None
    undoes: int | None = None
    words: str = ""
