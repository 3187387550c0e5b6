"""The graph of a face: states of its surface, and the steps that lead from one to another.

Node 0 is the face as found. Then come the states in which some kinds of spots have been worked and the rest has not: one for
every set of kinds, tool and width of the zones; then those of the whole face, one for every tool. Steps lead on within a set
from coarse to fine, from a set to any larger one and to the whole face with any tool, and there again from coarse to fine.

In order of depth alone the kinds of spots would not be worked at their best, so every set counts; of many kinds only those
that follow from the order of depth, or there would be too many.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.planning.face.zones import Zones
from kelbrast.core.validity import Flags, Places

_ALL_SETS: Final = 3  # kinds of spots of which every set is tried


@dataclass(frozen=True, slots=True)
class Graph:
    """Nodes and steps.

    Attributes:
        row: (n,) the surface of each node: 0 as found, k what tool k of the face leaves.
        kinds: (n,) the set of kinds of spots that are worked, a bit for each; 0 for the face as found.
        width: (n,) the number of the zones' width.  whole: (n,) whether all of the face is worked.
        before, after: (steps,) the nodes of every step, in ascending order.
    """

    row: Places
    kinds: Places
    width: Places
    whole: Flags
    before: Places
    after: Places


def graph_of(finer: Flags, fits_whole: Flags, zones: Zones | None) -> Graph:
    """The graph of a face.

    Args:
        finer: (n, n) whether a tool leaves shallower marks than another, [before, after]; in the order of the surfaces.
        fits_whole: (n,) whether a tool works the whole face; all of them work zones.
        zones: of its spots; None where no place is worked by itself.
    """
    count = len(fits_whole)
    nothing = np.zeros(1, dtype=np.intp)
    row, kinds, width, whole = [nothing], [nothing], [nothing], [[False]]
    at = 1
    sets: list[tuple[int, Places]] = []  # each set with the node of every tool and width, -1 for none
    for members in _sets(zones):
        assert zones is not None, "there are sets of what is there"
        possible = _widths(finer, zones, alone=members & (members - 1) == 0)
        tool, wide = np.nonzero(possible)
        nodes = np.full(possible.shape, -1, dtype=np.intp)
        nodes[tool, wide] = np.arange(at, at + len(tool))
        sets.append((members, nodes))
        row.append(tool)
        kinds.append(np.full(len(tool), members))
        width.append(wide)
        whole.append([False] * len(tool))
        at += len(tool)
    tools = np.flatnonzero(fits_whole[1:]) + 1
    last = np.full(count, -1, dtype=np.intp)
    last[tools] = np.arange(at, at + len(tools))
    row.append(tools)
    kinds.append(np.full(len(tools), sum(1 << n for n in range(len(zones.spots))) if zones else 0))
    width.append(np.zeros(len(tools), dtype=np.intp))
    whole.append([True] * len(tools))
    rows, widths = np.concatenate(row), np.concatenate(width)
    pairs = [_to(nothing, last[None, tools])]
    for members, nodes in sets:
        assert zones is not None, "there are sets of what is there"
        here = nodes[nodes >= 0]
        own = zones.own_width
        pairs.append(_to(nothing, nodes[np.arange(1, count), own[1:]][None, :]))
        for larger, onward in sets:
            if larger & members != members:
                continue
            wide = np.maximum(widths[here][:, None], own[None, 1:])
            there = onward[np.arange(1, count)[None, :], wide]
            if larger == members:
                there = np.where(finer[rows[here]][:, 1:], there, -1)
            pairs.append(_to(here, there))
        pairs.append(_to(here, np.broadcast_to(last[tools], (len(here), len(tools)))))
    pairs.append(_to(last[tools], np.where(finer[np.ix_(tools, tools)], last[tools][None, :], -1)))
    before, after = (np.concatenate(ends) for ends in zip(*pairs, strict=True))
    order = np.lexsort((after, before))
    return Graph(rows, np.concatenate(kinds), widths, np.concatenate(whole).astype(bool), before[order], after[order])


def _sets(zones: Zones | None) -> list[int]:
    """The sets of kinds of spots, small ones first, a bit for each kind."""
    if zones is None:
        return []
    count = len(zones.spots)
    if count <= _ALL_SETS:
        return sorted(range(1, 1 << count), key=lambda members: (members.bit_count(), members))
    deepest = sorted(range(count), key=lambda at: -(zones.spots[at].found.worst or 0.0))
    return [sum(1 << at for at in deepest[: size + 1]) for size in range(count)]


def _widths(finer: Flags, zones: Zones, *, alone: bool) -> Flags:
    """(n, widths): the widths that the zones of a set may have under each tool: its own, or that of one that worked before.

    In a set of one kind only a coarser one can have; in a larger one a finer one can too, when the set was smaller.
    """
    count, widths = len(zones.own_width), zones.widths
    own = zones.own_width[:, None] == np.arange(widths)[None, :]
    own[0] = False
    before = (finer[1:, :].T.astype(float) @ own[1:].astype(float)) > 0 if alone else np.ones((count, widths), dtype=bool)
    wider = np.arange(widths)[None, :] > zones.own_width[:, None]
    there: Flags = own | (before & wider)
    there[0] = False
    return there


def _to(here: Places, there: Places) -> tuple[Places, Places]:
    """(before, after) of the steps from every node of a list to those of its row; -1 for none."""
    before = np.broadcast_to(here[:, None], there.shape)
    leads = there >= 0
    return before[leads], there[leads]
