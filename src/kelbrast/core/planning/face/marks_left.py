"""What a step leaves of the marks before it, when it stops at a layer or cannot reach their floor."""

from kelbrast.core.process.clearance import area_factor, marks_left
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.rules.softness import takes_in_all
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.validity import SAME


def marks_left_by(surfaces: Surfaces, before: int, at: int, layer: float) -> float:
    """Old marks that can be expected to be there still after a step took this layer (m) off.

    A tool that cannot reach so deep, or may not take so much, only takes marks down to that; one that follows the shape
    leaves all ripple.
    """
    face, tool = surfaces.face, surfaces.leaving(at).tool
    depth = float(surfaces.depth_worst[before])
    if before == 0 and face.edge is not None:
        return 0.0  # there are no marks on it: what is taken off is the edge itself
    if before == 0 and face.must_be_levelled:
        return 0.0 if tool.carrier.cutting.levels else float(face.found.count)
    reaches = tool.reaches_depth
    taken = layer if reaches is None or reaches >= surfaces.deepest[before] else min(layer, reaches)
    taken = min(taken, takes_in_all(surfaces.leaving(at), surfaces))
    if before:
        return marks_left(area=face.area, grain=surfaces.leaving(before).tool.grain, depth=depth, layer=taken)
    if face.found.after is not None:
        return marks_left(area=face.area, grain=face.found.after.grain, depth=depth, layer=taken)
    if taken >= depth:
        return 0.0
    if face.found.kind == "nick":
        return float(face.found.count)
    # The depth found is the deepest of the face already; the usual depth of its marks follows from their number.
    grain = grain_of_marks(depth=depth, hardness=surfaces.material.hardness)
    return marks_left(area=face.area, grain=grain, depth=depth / area_factor(area=face.area, grain=grain), layer=taken)


def marks_share_by(surfaces: Surfaces, before: int, at: int, layer: float) -> float:
    """The share (0 to 1) of the old marks that can be expected to be there still after a step took this layer (m) off."""
    left = marks_left_by(surfaces, before, at, layer)
    return left / marks_left_by(surfaces, before, at, 0.0) if left else 0.0


def stays_after(surfaces: Surfaces, before: int, at: int, layer: float, stood: float) -> float:
    """Depth of the old marks left by a tool that cannot reach their floor, or that follows the shape, m; 0 for none.

    Args:
        stood: depth of old marks that the steps before could not reach, m.
    """
    tool = surfaces.leaving(at).tool
    depth, reaches = float(surfaces.depth_likely[before]), tool.reaches_depth
    if before == 0 and surfaces.face.edge is not None:
        return 0.0
    most = takes_in_all(surfaces.leaving(at), surfaces)
    if layer > most * (1 + SAME):
        return max(0.0, max(depth, stood) - most)
    if before == 0 and surfaces.face.must_be_levelled and not tool.carrier.cutting.levels:
        return depth
    if reaches is None or reaches >= max(float(surfaces.deepest[before]), stood):
        return max(0.0, stood - layer)
    return max(0.0, max(depth, stood) - min(layer, reaches))
