"""Steps between numbered nodes, as arrays: all that a search needs to know, and nothing of faces or tools."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.arrays import Flags, Reals

CRITERIA: Final = ("time", "metal", "cost", "changes")
TIME, METAL, COST, CHANGES = range(4)


@dataclass(frozen=True, slots=True)
class StepTable:
    """Steps that all lead from a node to a later one; a route begins at node 0.

    Attributes:
        values: (criteria, n, n) what each step adds: time (s), metal (m), cost, changes; indexed [criterion, from, to].
        steps: (n, n) which of them may be taken.  ends: (n,) where a route may end.
    """

    values: Reals
    steps: Flags
    ends: Flags


@dataclass(frozen=True, slots=True)
class Route:
    """Nodes in order, the totals by `CRITERIA` (s, m, money, count), and how many labels were kept for it."""

    nodes: tuple[int, ...]
    totals: Reals
    kept: int = 0

    @property
    def steps(self) -> tuple[tuple[int, int], ...]:
        """(from, to) of every step."""
        return tuple(zip((0, *self.nodes), self.nodes, strict=False))
