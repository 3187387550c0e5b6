"""The account of a run: what it is planned to take as it stands, what is left of that, and what it took so far."""

from dataclasses import dataclass, replace
from typing import Final

from kelbrast.core.bench.events import Event, Moment, Stage, elapsed
from kelbrast.core.bench.run import Run
from kelbrast.core.learning.factors import ANY_FAMILY, Observation
from kelbrast.core.planning.whole.account import AccountLine, Times, total
from kelbrast.core.reference.loader import constant

_STOPS: Final = ("paused", "gone", "back", "skipped", "picked")


def planned(run: Run) -> Times:
    """For all pieces. What a way back adds counts, and what it took the place of does not."""
    stages = [one for one in _stages(run) if run.work(*one).outcome != "dropped"]
    return total(run.layout.operations.values()) + _of_stages(run, stages)


def left(run: Run, now: Moment) -> Times:
    """What is still to come if all goes as planned."""
    if run.status != "open":
        return Times()
    still = [(piece, stage) for piece, stages in run.ahead.items() for stage in stages]
    times = _of_stages(run, [one for one in still if not (one == run.current and run.begun)])
    if run.current is not None and run.begun:
        piece, stage = run.current
        due = stage.seconds + run.work(piece, stage).more
        times += Times(cutting=max(0.0, due - run.seconds_in_hand(now)), handling=stage.handling)
    done = {name for name, waiting in run.operations.items() if waiting.done is not None}
    return times + total(around for name, around in run.layout.operations.items() if name not in done)


def spent(run: Run, began: Moment | None = None) -> Times:
    """A person's time so far, by the clock of the steps and by the gaps between taps.

    A gap before an operation is done is that operation's; one before a step begins is handling and, where another tool goes on,
    set-up, shared as they are planned. A gap that is longer than a break, and twice what was planned, is nobody's work.

    Args:
        began: when the run was begun, where that is known: what lies before the first tap counts from there.
    """
    return Times(cutting=sum(work.seconds for work in run.works.values())) + total(took for took, _ in _gaps(run, began))


@dataclass(frozen=True, slots=True)
class Kept:
    """Whether a finished run stayed below what nine of ten do.

    Attributes:
        cutting: by the clock of the steps.
        hands_on: all of it; None where not every operation was said to be done, so that nobody knows.
    """

    cutting: bool
    hands_on: bool | None


def kept_to(run: Run, began: Moment | None = None, *, cutting: float, hands_on: float) -> Kept | None:
    """Whether a run kept to what was allowed for its cutting and its hands-on time, s; None for one that is not finished.

    Going back counts: that a light check fails is in what is allowed.
    """
    if run.status != "finished":
        return None
    took = spent(run, began)
    known = all((waiting := run.operations.get(name)) is not None and waiting.done for name in run.layout.operations)
    return Kept(took.cutting <= cutting, took.hands_on <= hands_on if known else None)


def paces(run: Run, run_id: int, began: Moment | None = None) -> list[Observation]:
    """How long handling, set-ups and operations took against what was planned for the same ones."""
    gaps = _gaps(run, began)
    took, asked = total(one for one, _ in gaps), total(one for _, one in gaps)
    lines: tuple[AccountLine, ...] = ("handling", "set_up", "before_after")
    return [
        Observation(run_id, line, ANY_FAMILY, "pace", getattr(took, line) / due)
        for line in lines
        if (due := getattr(asked, line)) >= constant("learning.mistap").si and getattr(took, line) > 0
    ]


def _stages(run: Run) -> list[tuple[int, Stage]]:
    return [(piece, stage) for piece, stages in run.stages.items() for stage in stages]


def _of_stages(run: Run, stages: list[tuple[int, Stage]]) -> Times:
    """Of the route as planned a tool is put on once for all pieces of a lot; on a way back for the piece that went back."""
    once = {(run.layout.lot_of(piece), stage.key): stage.once for piece, stage in stages if stage.route == 0}
    alone = [stage.once for _, stage in stages if stage.route > 0]
    each = Times(cutting=sum(stage.seconds for _, stage in stages), handling=sum(stage.handling for _, stage in stages))
    return each + total(once.values()) + total(alone)


def _gaps(run: Run, began: Moment | None) -> list[tuple[Times, Times]]:
    """What each gap between two taps was for, while no clock ran; and what was planned for the same."""
    stages = {stage.key: stage for _, stage in _stages(run)}
    longest = constant("bench.break_after").si
    gaps, running, on, since = [], False, "", began
    for event in run.standing:
        gap = elapsed(since, event.at) if since is not None and not running else 0.0
        if event.kind in ("started", "more"):
            stage = stages[event.stage] if event.stage else None
            if stage is not None:
                asked = Times(handling=stage.handling, set_up=0.0 if stage.tool == on else stage.setup)
                if asked.hands_on > 0 and 0 < gap <= max(longest, 2 * asked.hands_on):
                    gaps.append((asked * (gap / asked.hands_on), asked))
            on, running = stage.tool if stage is not None else on, True
        elif event.kind in ("waiting", "operated"):
            asked = run.layout.operations[event.operation or ""]
            if 0 < gap <= max(longest, 2 * asked.start_to_finish) and not _waited(run, event):
                waited = min(asked.waiting, max(0.0, gap - asked.before_after))  # nobody said when the waiting began
                gaps.append((Times(before_after=gap - waited), replace(asked, waiting=0.0)))
        elif event.kind in _STOPS:
            running = False
        else:
            continue  # a note or a reading is no end of what goes on
        since = event.at
    return gaps


def _waited(run: Run, event: Event) -> bool:
    """Whether the operation was waiting, soaking or drying, so that nobody worked at it."""
    return any(one.kind == "waiting" and one.operation == event.operation and one.number < event.number for one in run.standing)
