"""What working all pieces per step, or one piece through, costs in changes."""

from dataclasses import dataclass

from kelbrast.core.bench.events import Order, Stage
from kelbrast.core.bench.run import Run


@dataclass(frozen=True, slots=True)
class OrderCost:
    """What is left of a run in one order: wheels to put on, and seconds of setting up tools."""

    order: Order
    changes: int
    seconds: float


def left_in_order(run: Run, order: Order) -> list[tuple[int, Stage]]:
    """Every stage that is still open, in the order of work."""
    open_stages = [(piece, stage) for piece, stages in run.ahead.items() for stage in stages]
    if order == "step":
        return sorted(open_stages, key=lambda one: (one[1].place, one[0]))
    first = run.current[0] if run.current else None
    return sorted(open_stages, key=lambda one: (one[0] != first, one[0]))


def cost_of_order(run: Run, order: Order) -> OrderCost:
    """The changes from here on; what is in hand now is on the machine already.

    A wheel that comes twice in a row stays on, so working all pieces per step changes least.
    """
    changes, seconds = 0, 0.0
    on = run.current[1].tool if run.current is not None and run.begun else None
    for _, stage in left_in_order(run, order):
        if stage.tool != on:
            changes += stage.mounted
            seconds += stage.setup
        on = stage.tool
    return OrderCost(order, changes, seconds)
