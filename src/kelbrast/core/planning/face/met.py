"""What every step of a face meets, and what it therefore takes off: the layer, the volume, and from which places."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from kelbrast.core.planning.face.graph import Graph
from kelbrast.core.planning.face.zones import Zones
from kelbrast.core.process.removal import break_volume, radius_volume
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.edge import Edge
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.validity import Flags, Places, Reals


@dataclass(frozen=True)
class Met:
    """What every step meets.

    Attributes:
        found: the surfaces that were found: all over, then each kind of spots; `row` 0 of each is as found.
        done: the rest of the face is as wanted already, and meeting it costs nothing but to cover it.
        before, after: (steps,) the surface that the tool before left, 0 for none of it, and that of the step's tool.
        on: (steps,) the tool was on already and goes on over more of the face.  idle: as in `Graph`.
        begins: (found, steps) which of the surfaces as found it takes up.
    """

    found: tuple[Surfaces, ...]
    done: bool
    before: Places
    after: Places
    on: Flags
    idle: Flags
    begins: Flags

    @cached_property
    def meets(self) -> Flags:
        """(found, steps) which of those count as marks to be cleared."""
        counts = self.begins.copy()
        if self.done:
            counts[0] = False
        return counts

    def only(self, steps: Flags) -> "Met":
        """The same of these steps."""
        of_steps = {name: getattr(self, name)[steps] for name in ("before", "after", "on", "idle")}
        return replace(self, begins=self.begins[:, steps], **of_steps)

    def by(self, step: int) -> list[tuple[int, int]]:
        """What a step meets: which of the surfaces found (0 for all over), and the row of that one."""
        before = int(self.before[step])
        left_by_a_tool = [(0, before)] if before and not self.on[step] else []
        return left_by_a_tool + [(at, 0) for at, meets in enumerate(self.meets) if meets[step]]

    @cached_property
    def _worked(self) -> Flags:
        """(steps,) whether a step meets what the tool before left."""
        worked: Flags = (self.before > 0) & ~self.on & ~self.idle
        return worked

    @cached_property
    def _places(self) -> Places:
        """(steps,) where [before, after] stands in a flattened (n, n) array."""
        return self.before * self.found[0].count + self.after

    @cached_property
    def _begun(self) -> list[tuple[Places, Places]]:
        """For each of the surfaces found: the steps that meet it, and the surfaces that they leave."""
        return [(steps := np.flatnonzero(meets), self.after[steps]) for meets in self.meets]

    def between(self, values: Reals) -> Reals:
        """(steps,) of an (n, n) array the value from the surface before to the one after."""
        return np.asarray(values.ravel().take(self._places))

    def most(self, values: Sequence[Reals]) -> Reals:
        """(steps,) the largest of what a step meets, 0 for nothing; `values`: an (n, n) array for each surface found; of the
        spots the first row is enough."""
        most = np.where(self._worked, self.between(values[0]), 0.0)
        for value, (steps, after) in zip(values, self._begun, strict=True):
            most[steps] = np.maximum(most[steps], value[0].take(after))
        return most

    def any_of(self, masks: Sequence[Flags]) -> Flags:
        """(steps,) whether a mask holds for anything that a step meets."""
        holds: Flags = self._worked & masks[0].ravel().take(self._places)
        for mask, (steps, after) in zip(masks, self._begun, strict=True):
            holds[steps] |= mask[0].take(after)
        return holds


def met_by_steps(graph: Graph, found: tuple[Surfaces, ...], done: bool) -> Met:
    before, after = graph.row[graph.before], graph.row[graph.after]
    whole = graph.whole[graph.after] & ~graph.whole[graph.before]
    taken_up = graph.kinds[graph.after] & ~graph.kinds[graph.before]
    spots = [(taken_up >> at & 1).astype(bool) for at in range(len(found) - 1)]
    on = (before == after) & (graph.before > 0) & ~graph.idle
    if len(found) > 1 and not graph.kinds.any():  # no place is worked by itself: the first step meets all of them
        spots = [whole for _ in found[1:]]
    return Met(found, done, before, after, on, graph.idle, np.array([whole, *spots]))


def down(depth: Reals) -> Reals:
    """(n, n) the depth of the marks that are met."""
    return np.broadcast_to(depth[:, None], (len(depth), len(depth)))


def layers_of(surfaces: Surfaces, depth: Reals, ends: Flags) -> Reals:
    """(n, n) m off; what stands proud is knocked down to just above the face, by no more than the new marks are deep."""
    layer, own = surfaces.layer(depth), surfaces.depth_worst
    if surfaces.face.edge is not None:
        layer[0] = np.maximum(depth[0], own)
    if surfaces.face.above:
        layer[0, ~ends] = np.maximum(depth[0] - own, own)[~ends]
    return layer


def cuts(met: Met, graph: Graph, zones: Zones | None, area: Reals, layers: Sequence[Reals]) -> tuple[tuple[Reals, Reals], ...]:
    """What each step cuts, as slabs of (steps,) a thickness, m, and an area, m2; the volume is the sum of their products.

    Where the tool before worked; what is new around that; all of the face that is met as found; then each kind of spots. In
    zones the marks of the tool before are only where it worked, and what is new around that just gets the step's own; the
    spots that it takes up are dug out with a rim. A pass over everything clears the deepest that it meets anywhere, except for
    metal that stands proud, which is only in its places.
    """
    after, begun, worked_before = met.after, met.begins[0], met.before > 0
    own = met.found[0].depth_worst.take(after)
    worked = met.between(layers[0])
    worked[met.on] = own[met.on]
    worked[~worked_before] = 0.0
    before, now = np.where(worked_before, area.take(graph.before), 0.0), area.take(graph.after)
    zone = ~graph.whole.take(graph.after)
    slabs = [
        (worked, np.where(begun, 0.0, before)),
        (own, np.where(begun, 0.0, np.maximum(now - before, 0.0))),
        (_met_all_over(met, layers, worked, now), np.where(begun, now, 0.0)),
    ]
    for at, (spots, found) in enumerate(zip(met.found[0].face.spots, met.found[1:], strict=True)):
        steps = np.flatnonzero(met.begins[at + 1] & (zone | found.face.stands_proud))
        thickness, over = np.zeros(len(after)), np.zeros(len(after))
        thickness[steps] = np.maximum(layers[at + 1][0, after[steps]] - own[steps], 0.0)
        over[steps] = zones.dug[at, after[steps]] if zones is not None else np.minimum(spots.area, met.found[0].face.area)
        slabs.append((thickness, over))
    return tuple(slabs)


def _met_all_over(met: Met, layers: Sequence[Reals], worked: Reals, now: Reals) -> Reals:
    """(steps,) m that a step takes off all of the face where it meets it as found; 0 for a step that meets none of it."""
    thickness = np.zeros(len(met.after))
    steps = np.flatnonzero(met.begins[0])
    after = met.after[steps]
    own = met.found[0].depth_worst[after]
    deepest = np.maximum(worked[steps], own if met.done else _first_volume(met.found[0], layers[0][0])[after] / now[steps])
    for layer, begins, found in zip(layers[1:], met.begins[1:], met.found[1:], strict=True):
        if not found.face.stands_proud:
            deepest = np.where(begins[steps], np.maximum(deepest, layer[0, after]), deepest)
    thickness[steps] = deepest
    return thickness


def tail_metal(met: Met, graph: Graph, layers: Sequence[Reals], layer: Reals) -> Reals:
    """(steps,) m that each takes off where it was worked before; all of the layer where that was nowhere, or is everywhere."""
    again = met.between(layers[0])
    again[met.on] = met.found[0].depth_worst[met.after[met.on]]
    in_zones = (graph.before > 0) & ~graph.whole.take(graph.after)
    return np.where(in_zones, again, layer)


def off_places(met: Met, graph: Graph, layers: Sequence[Reals], layer: Reals) -> Reals:
    """(found, steps) m that each of the surfaces found loses by the step that takes it up; minus infinity by any other."""
    zone = ~graph.whole.take(graph.after)
    off = np.full(met.begins.shape, -np.inf)
    for at, (lost, begins) in enumerate(zip(off, met.begins, strict=True)):
        steps = np.flatnonzero(begins)
        lost[steps] = np.where(zone[steps] & (at > 0), layers[at][0, met.after[steps]], layer[steps])
    return off


def _first_volume(surfaces: Surfaces, layer: Reals) -> Reals:
    """(n,) m3 that a first step over all of the face cuts: ripple and edges do not fill the layer."""
    face = surfaces.face
    whole = layer * face.area
    if face.edge is not None:
        return _edge_volume(face.edge) + surfaces.depth_worst * face.area
    if face.stock or not face.found.has_depth or face.found.kind != "waviness":
        return whole
    return whole * constant("removal.waviness_share").value


def _edge_volume(edge: Edge) -> float:
    if edge.wanted == "break":
        return break_volume(leg=edge.size, length=edge.length)
    return radius_volume(radius=edge.size, length=edge.length)
