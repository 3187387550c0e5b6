"""The part of a face and its job that tool selection depends on: a hashable key, so that like faces are worked out once."""

from dataclasses import dataclass, fields
from functools import cache
from typing import Final

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import Tool, tools
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.process.heat import Lump
from kelbrast.core.rack.offer import Own
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face

_NO_TOOL_ASKS_FOR_MORE: Final = 0.1  # m2


@dataclass(frozen=True, slots=True)
class ToolContext:
    """A face as its tools see it (SI): its area only as far as a tool could cover it at once.

    A figure that has the name of one of the face is that.

    Attributes:
        material: of the part.  rack: ids of the tools and machines to plan with; None for the whole starter rack.
        flat_show: a flat open face, larger than a hand evens out, whose reflection shows every hollow.
        drawn: its size or its roughness is drawn.  edge: it is an edge.  hard_flat: a flat of hard work, drawn.
        patch: the largest patch that can be rubbed at once, m2.  size: its area as far as a tool asks for it, m2.
        loose_mass: of a part that nothing clamps, kg; None for one that is clamped or was not weighed.
        unwieldy: how many times as large or heavy as suits a machine that stands the part is.
        turned: diameter of a round outside, m.
        hottest: the temperature to stay below, K.
        lump: the whole part as it warms; None where nothing is known of its weight.
        in_hand: a hand holds it to machines that stand.
        wet: a key of `surface.part.WET`.
        bench_speed: a key of `job.BENCH_SPEEDS`.
        diameters: (tool id, m) of wheels that have worn down.
        own: the rack that is planned with, where it is not the catalogue.  factors: what the shop learnt.
    """

    material: Material
    rack: tuple[str, ...] | None
    thickness: float | None
    reach: str
    inside_radius: float | None
    curved: bool
    stays_flat: bool
    flat_show: bool
    drawn: bool
    edge: bool
    hard_flat: bool
    patch: float
    size: float
    unwieldy: float
    loose_mass: float | None
    turned: float | None
    hottest: float
    lump: Lump | None
    in_hand: bool
    wet: str
    bench_speed: str
    diameters: tuple[tuple[str, float], ...]
    own: Own | None
    factors: ShopFactors

    @classmethod
    def of(cls, face: Face, job: Job) -> "ToolContext":
        largest = max(each.carrier.running.patch for each in tools().values())
        return cls(
            **{name: getattr(face, name) for name in _figures_of_a_face()},
            material=job.material,
            rack=job.rack,
            flat_show=face.reflects_flat,
            drawn=face.drawn,
            edge=face.edge is not None,
            hard_flat=face.drawn and face.is_flat and job.material.hardness >= constant("looks.hard_flat").si,
            patch=min(face.area, largest),
            size=_NO_TOOL_ASKS_FOR_MORE if face.edge is not None else min(face.area, _NO_TOOL_ASKS_FOR_MORE),
            unwieldy=job.unwieldy,
            loose_mass=job.loose_mass,
            hottest=job.hottest,
            lump=job.lump,
            in_hand=job.held_in_hand,
            wet="never" if "wet" in job.forbids else job.part.wet,
            bench_speed=job.bench_speed,
            diameters=job.diameters,
            own=job.own,
            factors=job.factors,
        )

    @property
    def comes_to_the_bench(self) -> bool:
        """Whether the part is brought to a machine that stands at all."""
        return self.unwieldy <= constant("work.beyond").value

    def too_light_for(self, each: Machine) -> float:
        """How many times as light as suits the machine the part is; below 1 where it is heavy enough, or held."""
        return each.least_mass / self.loose_mass if self.loose_mass else 0.0

    def too_small_for(self, one: Tool) -> float:
        """How many times as small as suits the tool the face is; below 1 where it is large enough."""
        access = one.carrier.access
        return max(access.least_face, access.least_curved if self.curved else 0.0) / self.size

    def diameter(self, one: Tool, machine: Machine) -> float | None:
        """Of the wheel, worn as it is; of the work where the work turns."""
        if machine.turns_work:
            return self.turned
        measured = next((own.diameter for own in self.own.tools if own.tool == one.id), None) if self.own else None
        return dict(self.diameters).get(one.id, measured or one.carrier.running.diameter)


@cache
def _figures_of_a_face() -> frozenset[str]:
    return frozenset(one.name for one in fields(ToolContext)) & frozenset(one.name for one in fields(Face)) - {"edge"}
