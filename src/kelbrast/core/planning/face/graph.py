"""The graph of a face: states of its surface, and the steps that lead from one to another.

Node 0 is the face as found. Then come the states in which some kinds of spots have been worked and the rest has not: one for
every set of kinds, tool and width of the zones; then those of the whole face, one for every tool. In places and on the whole
face steps lead on from coarse to fine; a larger set is taken up with a finer tool or the same one. Over everything any tool may
follow, because it only has to cover the places that are finer already.

What a pass over everything meets does not depend on how wide the zones were. So between the zones and the whole face there is
one node for every set and tool, and the step that leads to it stands for no work (`idle`).

In order of depth alone two kinds of spots would not be worked at their best, so every set counts; of more kinds only those
that follow from the order of depth, or there would be too many.
"""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

import numpy as np

from kelbrast.core.planning.face.zones import Zones
from kelbrast.core.validity import Flags, Places

LEFT: Final = -1
_ALL_SETS: Final = 2  # kinds of spots of which every set is tried


@dataclass(frozen=True, slots=True)
class Graph:
    """Nodes and steps.

    Attributes:
        row: (n,) the surface of each node: 0 as found, k what tool k of the face leaves.
        kinds: (n,) the set of kinds of spots that are worked, a bit for each; 0 for the face as found.
        width: (n,) the number of the zones' width; LEFT where they are left as they are.
        whole: (n,) whether all of the face is worked.
        before, after: (steps,) the nodes of every step, in ascending order.
        idle: (steps,) nothing is done: the zones are left as they are, however wide they were.
    """

    row: Places
    kinds: Places
    width: Places
    whole: Flags
    before: Places
    after: Places
    idle: Flags

    def on_a_way(self, steps: Flags, ends: Flags) -> Flags:
        """(steps,) which of these steps lie on some way from the face as found to one of the ends, (n,)."""
        taken = np.flatnonzero(steps)
        before, after = self.before[taken], self.after[taken]
        from_found, to_end = np.arange(len(ends)) == 0, ends.copy()
        _spread(from_found, before, after)
        _spread(to_end, after, before)
        lies: Flags = np.zeros(len(steps), dtype=bool)
        lies[taken] = from_found[before] & to_end[after]
        return lies

    def only(self, steps: Flags) -> "Graph":
        """The same states with these of the steps."""
        return replace(self, before=self.before[steps], after=self.after[steps], idle=self.idle[steps])


def _spread(nodes: Flags, here: Places, there: Places) -> None:
    """Mark, in place, the nodes that steps lead to from those that are marked."""
    while True:
        led_to = there[nodes[here] & ~nodes[there]]
        if len(led_to) == 0:
            return
        nodes[led_to] = True


def graph_of(finer: Flags, fits_whole: Flags, fits_places: Flags, zones: Zones | None) -> Graph:
    """The graph of a face: the same for all faces with the same tools and as many kinds of spots.

    Args:
        finer: (n, n) whether a tool leaves shallower marks than another, [before, after]; in the order of the surfaces.
        fits_whole, fits_places: (n,) whether a tool works the whole face, and places on it.
        zones: of its spots; None where no place is worked by itself.
    """
    count = len(fits_whole)
    own = np.zeros(count, dtype=np.intp) if zones is None else zones.own_width.astype(np.intp)
    sets = () if zones is None else tuple(_sets(zones))
    fits = fits_whole.tobytes(), fits_places.tobytes()
    return _graph(finer.tobytes(), fits, own.tobytes(), 0 if zones is None else zones.widths, sets)


@lru_cache(maxsize=32)
def _graph(
    finer_flags: bytes, fits: tuple[bytes, bytes], own_places: bytes, width_count: int, kinds_sets: tuple[int, ...]
) -> Graph:
    fits_whole = np.frombuffer(fits[0], dtype=bool)
    count = len(fits_whole)
    finer = np.frombuffer(finer_flags, dtype=bool).reshape(count, count)
    own = np.frombuffer(own_places, dtype=np.intp)
    nothing = np.zeros(1, dtype=np.intp)
    row, kinds, width, whole = [nothing], [nothing], [nothing], [[False]]
    at = 1
    # Each set with the node of every tool and width, -1 for none, and with those where its zones are left.
    sets: list[tuple[int, Places, Places]] = []
    for members in kinds_sets:
        possible = _widths(finer, own, width_count) & np.frombuffer(fits[1], dtype=bool)[:, None]
        tool, wide = np.nonzero(possible)
        nodes = np.full(possible.shape, -1, dtype=np.intp)
        nodes[tool, wide] = np.arange(at, at + len(tool))
        left = np.arange(at + len(tool), at + len(tool) + count - 1)
        sets.append((members, nodes, left))
        row += [tool, np.arange(1, count)]
        kinds.append(np.full(len(tool) + count - 1, members))
        width += [wide, np.full(count - 1, LEFT)]
        whole.append([False] * (len(tool) + count - 1))
        at += len(tool) + count - 1
    tools = np.flatnonzero(fits_whole[1:]) + 1
    last = np.full(count, -1, dtype=np.intp)
    last[tools] = np.arange(at, at + len(tools))
    row.append(tools)
    kinds.append(np.full(len(tools), max(kinds_sets, default=0)))
    width.append(np.zeros(len(tools), dtype=np.intp))
    whole.append([True] * len(tools))
    rows, widths = np.concatenate(row), np.concatenate(width)
    pairs = [_to(nothing, last[None, tools])]
    idle: list[tuple[Places, Places]] = []
    for members, nodes, left in sets:
        here = nodes[nodes >= 0]
        pairs.append(_to(nothing, nodes[np.arange(1, count), own[1:]][None, :]))
        for larger, onward, _ in sets:
            if larger & members != members:
                continue
            wide = np.maximum(widths[here][:, None], own[None, 1:])
            there = onward[np.arange(1, count)[None, :], wide]
            on = np.eye(count, dtype=bool) if larger != members else np.zeros((count, count), dtype=bool)
            there = np.where((finer | on)[rows[here]][:, 1:], there, -1)
            pairs.append(_to(here, there))
        idle.append((here, left[rows[here] - 1]))
        worked = np.flatnonzero((nodes >= 0).any(axis=1)) - 1
        pairs.append(_to(left[worked], np.broadcast_to(last[tools], (len(worked), len(tools)))))
    pairs.append(_to(last[tools], np.where(finer[np.ix_(tools, tools)], last[tools][None, :], -1)))
    before, after = (np.concatenate(ends) for ends in zip(*pairs, *idle, strict=True))
    nothing_done = np.arange(len(before)) >= sum(len(ends[0]) for ends in pairs)
    order = np.lexsort((after, before))
    states = rows, np.concatenate(kinds), widths, np.concatenate(whole).astype(bool)
    return Graph(*states, before[order], after[order], nothing_done[order])


def _sets(zones: Zones) -> list[int]:
    """The sets of kinds of spots, small ones first, a bit for each kind.

    Of many kinds, deeper spots are never taken up after shallower ones; metal that stands proud, which is another matter, at
    any time.
    """
    count = len(zones.spots)
    if count <= _ALL_SETS:
        return sorted(range(1, 1 << count), key=lambda members: (members.bit_count(), members))
    depths = [spots.found.worst or 0.0 for spots in zones.spots]
    proud = [at for at, spots in enumerate(zones.spots) if spots.found.stands_proud]
    deepest = sorted((at for at in range(count) if at not in proud), key=lambda at: -depths[at])
    chain = [sum(1 << at for at in deepest[:size]) for size in range(len(deepest) + 1)]
    any_of_proud = [sum(1 << at for nth, at in enumerate(proud) if some >> nth & 1) for some in range(1 << len(proud))]
    sets = {down | up for down in chain for up in any_of_proud} - {0}
    return sorted(sets, key=lambda members: (members.bit_count(), members))


def _widths(finer: Flags, own_width: Places, widths: int) -> Flags:
    """(n, widths): the widths that the zones may have under each tool: its own, or that of a coarser one that worked before."""
    own = own_width[:, None] == np.arange(widths)[None, :]
    own[0] = False
    before = (finer[1:, :].T.astype(float) @ own[1:].astype(float)) > 0
    wider = np.arange(widths)[None, :] > own_width[:, None]
    there: Flags = own | (before & wider)
    there[0] = False
    return there


def _to(here: Places, there: Places) -> tuple[Places, Places]:
    """(before, after) of the steps from every node of a list to those of its row; -1 for none."""
    before = np.broadcast_to(here[:, None], there.shape)
    leads = there >= 0
    return before[leads], there[leads]
