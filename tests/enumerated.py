"""Every route of a small graph, one by one: what an exact search must agree with."""

from collections.abc import Iterator

import numpy as np

from kelbrast.core.planning.kernel.step_table import METAL, StepTable
from kelbrast.core.validity import Flags, Reals


def square_table(values: Reals, steps: Flags, ends: Flags, **more: Reals) -> StepTable:
    """A table from squares: values (criteria, n, n) and steps (n, n), indexed [from, to]."""
    before, after = (places.astype(np.intp) for places in np.nonzero(np.ones_like(steps)))
    return StepTable(before, after, values[:, before, after], steps[before, after], ends, **more)


def every_route(table: StepTable) -> Iterator[tuple[int, ...]]:
    """The steps of every route of the table that keeps all limits of the places that it takes up."""
    room = np.full(len(table.before), np.inf) if table.room is None else table.room
    onward = {node: np.flatnonzero(table.steps & (table.before == node)).tolist() for node in range(len(table.ends))}

    def from_node(node: int, way: tuple[int, ...]) -> Iterator[tuple[int, ...]]:
        if table.ends[node]:
            metal = [float(table.values[METAL, step]) for step in way]
            slack = [room[step] + 1e-9 * abs(room[step] + metal[at]) for at, step in enumerate(way)]
            if all(sum(metal[at + 1 :]) <= may for at, may in enumerate(slack)):
                yield way
        for step in onward[node]:
            yield from from_node(int(table.after[step]), (*way, step))

    yield from from_node(0, ())
