"""The nodes of the route graph: node 0 is the surface as found, node k the surface that tool k leaves."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.process.clearance import area_factor, clearance
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace, Toolset
from kelbrast.core.validity import Reals


@dataclass(frozen=True, slots=True)
class Surfaces:
    """What the rules look at (SI). The arrays have one value a node.

    Attributes:
        toolset: coarsest marks first; tool k of it leaves node k.
        ra: infinite for damage, which is never a finish.
        depth_worst, depth_likely: depth of the marks, m; deepest: of the deepest one on the whole face.
        clearance: how many depths of them the step from there takes off.
    """

    face: Face
    context: ToolContext
    toolset: Toolset
    ra: Reals
    depth_worst: Reals
    depth_likely: Reals
    deepest: Reals
    clearance: Reals

    @property
    def tools(self) -> tuple[ToolOnFace, ...]:
        """`tools[k - 1]` leaves node k."""
        return self.toolset.tools

    @property
    def material(self) -> Material:
        return self.context.material

    @property
    def count(self) -> int:
        return len(self.ra)

    def layer(self, depth: Reals) -> Reals:
        """(n, n) m off each step, by these depths: the marks that are met, so many times over.

        At least the new marks' own depth, because a finer surface must be worked until they cover it.
        """
        return np.maximum((self.clearance * depth)[:, None], self.depth_worst[None, :])

    @property
    def ids(self) -> tuple[str, ...]:
        """The id of every tool, in the order of the nodes from 1."""
        return tuple(on_face.tool.id for on_face in self.tools)

    def leaving(self, node: int) -> ToolOnFace:
        """The tool that leaves the surface of a node from 1."""
        return self.tools[node - 1]


def surfaces_of(face: Face, context: ToolContext, tools: Toolset) -> Surfaces:
    """The face as it was found, and after each of these tools."""
    start_ra, likely, worst = _as_found(face, context.material.hardness)
    depth_worst = np.array([worst, *(tool.depth for tool in tools)])
    largest = np.array([_found_factor(face), *(area_factor(area=face.area, grain=on_face.tool.grain) for on_face in tools)])
    return Surfaces(
        face=face,
        context=context,
        toolset=tools,
        ra=np.array([start_ra, *(tool.ra for tool in tools)]),
        depth_worst=depth_worst,
        depth_likely=np.array([likely, *depth_worst[1:]]),
        deepest=depth_worst * largest,
        clearance=np.array(
            [_found_clearance(face, context), *(_clearance_after(face, context, on_face.tool.grain) for on_face in tools)]
        ),
    )


def _as_found(face: Face, hardness: float) -> tuple[float, float, float]:
    """Ra, likely and worst depth of the found surface; what must come off for a size lies over all of it."""
    if face.found.as_wanted and face.found.after is None:
        ra = _ra_of_such_a_finish(face)
        return ra, depth_of_marks(ra), depth_of_marks(ra)
    if face.found.after is not None:
        ra = roughness_left(grain=face.found.after.grain, hold=1.0, hardness=hardness)
        depth = max(depth_of_marks(ra), face.stock)
        return ra, depth, depth
    assert face.found.likely is not None, "a found state has a depth or a grade"
    return np.inf, max(face.found.likely, face.stock), max(face.found.worst or face.found.likely, face.stock)


def _ra_of_such_a_finish(face: Face) -> float:
    """Ra in m of a face that is as wanted: the coarse end of the band, or the fine one where it has no other."""
    return face.want.ra_high or face.want.ra_low or constant("looks.clear_below").si


def described_depth(face: Face, hardness: float) -> float:
    """Depth in m of the deepest marks that a face was described to have anywhere; hardness in Pa."""
    everywhere = [face, *(replace(face, found=spots.found) for spots in face.spots)]
    return max(_as_found(each, hardness)[2] * _found_factor(each) for each in everywhere)


def _found_factor(face: Face) -> float:
    """A found depth is the deepest already."""
    return area_factor(area=face.area, grain=face.found.after.grain) if face.found.after is not None else 1.0


def _found_clearance(face: Face, context: ToolContext) -> float:
    if face.found.after is not None:
        return _clearance_after(face, context, face.found.after.grain)
    return constant("clearance.found").value


def _clearance_after(face: Face, context: ToolContext, grain: float) -> float:
    return clearance(area=face.area, grain=grain, deformed=min(face.want.deformed, context.material.smear))
