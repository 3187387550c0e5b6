"""The graph that the searches look at, as flat arrays: its steps, what each adds, where a route may end, what may be lost."""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final

import numpy as np

from kelbrast.core.validity import REL_TOL, Flags, Places, Reals

CRITERIA: Final = ("time", "metal", "cost", "changes")
TIME, METAL, COST, CHANGES = range(4)
ROUNDING_SLACK: Final = 1 + REL_TOL


@dataclass(frozen=True)
class StepTable:
    """Steps that all lead from a node to a later one, in ascending order of the node before; a route begins at node 0.

    Attributes:
        before, after: (steps,) the nodes of each.
        values: (criteria, steps) what each adds: time (s), metal (m), cost, changes.
        steps: (steps,) which of them may be taken.  ends: (n,) where a route may end.
        room: (steps,) the most metal (m) that may come off after the step, infinite where it takes up no place with a limit.
        stop: (criteria, n) what ending there adds, nothing in metal and changes; None for nothing anywhere.
        origin: (steps,) what each is a copy of, where the same step stands there more than once; None where none does.
    """

    before: Places
    after: Places
    values: Reals
    steps: Flags
    ends: Flags
    room: Reals | None = None
    stop: Reals | None = None
    origin: Places | None = None

    @cached_property
    def origins(self) -> Places:
        """(steps,) the step that each is a copy of, or itself."""
        return np.arange(len(self.before)) if self.origin is None else self.origin

    @cached_property
    def stopping(self) -> Reals:
        """(criteria, n) what ending at each node adds, infinite where no route may end."""
        return np.where(self.ends, 0.0 if self.stop is None else self.stop, np.full((len(self.values), len(self.ends)), np.inf))

    @cached_property
    def onward(self) -> Places:
        """The steps that a best route may take: none leads on from an end where stopping adds no more than any step."""
        taken = np.flatnonzero(self.steps)
        from_ends = taken[self.ends[self.before[taken]]]
        least = np.full((len(self.values), len(self.ends)), np.inf)
        if len(from_ends):
            begins = first_of_each(self.before[from_ends])
            least[:, self.before[from_ends[begins]]] = np.minimum.reduceat(self.values[:, from_ends], begins, axis=1)
        final: Flags = (self.stopping <= least).all(axis=0) & self.ends
        onward: Places = taken[~final[self.before[taken]]]
        return onward

    @cached_property
    def within(self) -> Reals:
        """(steps,) the room with its slack for rounding."""
        room = np.full(len(self.before), np.inf) if self.room is None else self.room
        return np.asarray(room + np.abs(self.values[METAL] + np.where(np.isfinite(room), room, 0.0)) * REL_TOL)


def only_taken(table: StepTable) -> StepTable:
    """The table without the steps that may not be taken: what is asked of it is answered sooner."""
    taken = np.flatnonzero(table.steps)
    return replace(
        table,
        before=table.before[taken],
        after=table.after[taken],
        values=table.values[:, taken],
        steps=np.ones(len(taken), dtype=bool),
        room=None if table.room is None else table.room[taken],
        origin=table.origins[taken],
    )


def through(table: StepTable, nodes: Flags) -> StepTable:
    """The table of the routes that pass at least one of these nodes: the graph before that, and a copy of it after."""
    count, passes = len(table.ends), nodes[table.after]
    copies = np.concatenate([np.arange(len(table.before))] * 2)
    stop = None if table.stop is None else np.concatenate([table.stop] * 2, axis=1)
    return StepTable(
        before=np.concatenate([table.before, table.before + count]),
        after=np.concatenate([np.where(passes, table.after + count, table.after), table.after + count]),
        values=table.values[:, copies],
        steps=table.steps[copies],
        ends=np.concatenate([np.zeros_like(table.ends), table.ends]),
        room=None if table.room is None else table.room[copies],
        stop=stop,
        origin=table.origins[copies],
    )


@dataclass(frozen=True, slots=True)
class Route:
    """Nodes and steps in order, the totals by `CRITERIA` (s, m, money, count), and how many labels were kept for it."""

    nodes: tuple[int, ...]
    steps: tuple[int, ...]
    totals: Reals
    kept: int = 0


def first_of_each(nodes: Places) -> Places:
    """Where each node first stands in an ascending list of them."""
    new: Flags = np.ones(len(nodes), dtype=bool)
    new[1:] = nodes[1:] != nodes[:-1]
    return np.flatnonzero(new)
