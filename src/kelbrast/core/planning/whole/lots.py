"""Lots: how many pieces are worked together, so that every one is protected in time and has room to soak and dry."""

import math
from collections.abc import Sequence

from kelbrast.core.job import Job
from kelbrast.core.planning.whole.account import StepShare
from kelbrast.core.planning.whole.operations import Operation
from kelbrast.core.planning.whole.set_ups import SetUp
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import REL_TOL
from kelbrast.core.wording import sentence, tell


def lot_sizes(pieces: int, most: int) -> tuple[int, ...]:
    """The pieces of every lot: as few lots as may be, as equal as may be, the larger ones first.

    >>> lot_sizes(10, 100), lot_sizes(10, 6), lot_sizes(11, 4)
    ((10,), (5, 5), (4, 4, 3))
    """
    count = math.ceil(pieces / most)
    size, more = divmod(pieces, count)
    return (size + 1,) * more + (size,) * (count - more)


def most_in_a_lot(
    job: Job, set_ups: Sequence[SetUp], shares: Sequence[StepShare], operations: Sequence[Operation]
) -> int | None:
    """How many pieces a lot may have; None for as many as there are. What the person set holds, whatever follows from it."""
    if job.lot is not None:
        return job.lot
    bounds = [bound for bound in (_by_window(set_ups, shares, operations), _by_room(job, operations)) if bound is not None]
    return min(bounds, default=None)


def lot_cautions(
    job: Job, set_ups: Sequence[SetUp], shares: Sequence[StepShare], operations: Sequence[Operation]
) -> tuple[str, ...]:
    """Said where the person set a lot that is too large to be protected in time, or to soak and dry together."""
    if job.lot is None:
        return ()
    lot = min(job.lot, job.pieces)
    bounds = (("lots.late", _by_window(set_ups, shares, operations)), ("lots.room", _by_room(job, operations)))
    return tuple(tell(sentence(key, lot=f"{lot}", most=f"{most}")) for key, most in bounds if most is not None and most < lot)


def seconds_in_the_last_set_up(set_ups: Sequence[SetUp], shares: Sequence[StepShare]) -> float:
    """What a piece takes with the last tool: so long the others of its lot keep it waiting, each."""
    if not set_ups:
        return 0.0
    last = shares[-len(set_ups[-1].faces) :]
    return sum(share.each.hands_on for share in last)


def _by_window(set_ups: Sequence[SetUp], shares: Sequence[StepShare], operations: Sequence[Operation]) -> int | None:
    """The first piece of a lot waits until all have been through the last tool and what comes before the protection, and its
    protection until all of them have theirs: `(n - 1) t + sum(n a + l + w) <= r W`."""
    after = [operation for operation in operations if operation.when == "after"]
    ends = next((at for at, operation in enumerate(after) if operation.within is not None), None)
    if ends is None or (within := after[ends].within) is None:
        return None
    chain = after[: ends + 1]
    each = seconds_in_the_last_set_up(set_ups, shares)
    once = sum(operation.lot for operation in chain) + sum(operation.passive for operation in chain[:-1])
    grows = each + sum(operation.active for operation in chain)
    room = constant("lots.reserve").value * within + each - once
    return max(1, math.floor(room / grows + REL_TOL))


def _by_room(job: Job, operations: Sequence[Operation]) -> int | None:
    """What soaks or dries at once must have room in a bath or on a rack."""
    if not any(operation.passive for operation in operations):
        return None
    area = sum(face.area for face in job.faces if face.edge is None)
    return max(1, math.floor(constant("lots.rack").si / area)) if area > 0 else None
