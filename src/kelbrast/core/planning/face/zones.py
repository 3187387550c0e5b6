"""The zones around the spots of a face: how far each tool works out from them, and what is dug there."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.process.blend import dug_area, overlap, rim_width, zone_area
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Spots
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.validity import REL_TOL, Places, Reals

_WIDTHS: Final = ("least", "small", "hand", "wide")


@dataclass(frozen=True, slots=True)
class Zones:
    """Zones of the spots of a face, of each kind by itself (SI). Tools are those of the nodes of a `Surfaces`, from 1.

    A zone is as wide as the widest contact that has worked in it: every later tool must cover that.

    Attributes:
        spots: the kinds of spots, in the order of the face.
        own_width: (n,) the number of the width of each tool's contact.
        margins: (spots, n, widths) how far around the spots of a kind a tool works, where the widest so far is so wide, m.
        areas: (spots, n, widths) area that a tool then works around all spots of the kind, m2.
        dug: (spots, n) area that times the depth stands for what a tool digs there, m2.
        bands: (n,) area of bands along the whole lay, as wide as the zones of each tool, m2.
    """

    spots: tuple[Spots, ...]
    own_width: Places
    margins: Reals
    areas: Reals
    dug: Reals
    bands: Reals

    @property
    def widths(self) -> int:
        return int(self.areas.shape[2])


def steepest_rim(face: Face) -> float:
    """The slope of a rim that does not show: by whether people look through the face, look at it, or work on it."""
    if face.looked_through:
        return constant("blend.window_slope").value
    shown = face.want.deformed >= constant("blend.deformed_show").value
    return constant("blend.show_slope" if shown else "blend.working_slope").value


def may_be_zoned(surfaces: Surfaces) -> bool:
    """Whether places of a face may be worked by themselves: never where a hollow would spoil its size or its flatness."""
    face = surfaces.face
    to_size = face.limit_kind == "size" or face.sized is not None or face.stock > 0
    return not (face.edge is not None or to_size or face.stays_flat or surfaces.context.hard_flat)


def zones_of(face: Face, kinds: Sequence[Spots], surfaces: Surfaces, depths: Sequence[float]) -> Zones:
    """The zones of these kinds of spots for every tool; `depths`: how deep each kind probably is, m."""
    contact = np.sqrt(surfaces.toolset.patch / np.pi)
    bounds = [np.sqrt(constant(f"blend.width_{name}").si / np.pi) for name in _WIDTHS]
    group = np.searchsorted(bounds, contact * (1 - REL_TOL))
    used, own = np.unique(group[1:], return_inverse=True)
    widest = np.array([contact[1:][own == at].max() for at in range(len(used))])
    own_width = np.concatenate([[0], own])
    count = len(surfaces.ra)
    margins, dug = np.zeros((len(kinds), count, len(used))), np.zeros((len(kinds), count))
    areas, bands = np.zeros_like(margins), np.zeros(count)
    along = face.longest or float(np.sqrt(face.area))
    for at, (spots, depth) in enumerate(zip(kinds, depths, strict=True)):
        raised = spots.found.stands_proud  # there is nothing dug beside it, so nothing rises to a rim
        rim = 0.0 if raised else rim_width(depth=depth, slope=steepest_rim(face))
        past = overlap(depth=depth, marks=surfaces.depth_worst, raised=raised)
        margins[at] = margin = np.maximum(rim, widest)[None, :] + past[:, None]
        each, length, width = spots.count, spots.length, spots.width
        bands += each * (width + 2 * margin[np.arange(count), own_width]) * along
        areas[at] = np.minimum(zone_area(count=each, length=length, width=width, margin=margin), face.area)
        ground = np.zeros(count) if raised else np.maximum(rim, contact)
        hollow = dug_area(count=each, length=length, width=width, rim=ground)
        dug[at] = np.minimum(hollow, areas[at][np.arange(count), own_width])
    return Zones(tuple(kinds), own_width, margins, areas, dug, bands)
