"""The part of a face and its job that tool selection depends on: a hashable key, so that like faces are worked out once."""

import math
from dataclasses import dataclass, fields
from functools import cache

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import Tool, carriers, tools
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.process.heat import Lump
from kelbrast.core.rack.offer import Own
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.surface.face import Face


@dataclass(frozen=True, slots=True)
class ToolContext:
    """A face as its tools see it (SI): its area only as far as a tool could cover it at once.

    A figure that has the name of one of the face is that.

    Attributes:
        material: of the part.  rack: ids of the tools and machines to plan with; None for the whole starter rack.
        flat_show: a flat open face, larger than a hand evens out, whose reflection shows every hollow.
        drawn: its size or its roughness is drawn.  edge: it is an edge.  hard_flat: a flat of hard work, drawn.
        lapped: its size is wanted, or a roughness so fine that it is lapped.
        patch: the largest patch that can be rubbed at once, m2.  size: its area as far as a tool asks for it, m2.
        place: area of what is worked at a time, m2: the same, or less for a place on it.
        loose_mass: of a part that nothing clamps, kg; None for one that is clamped or was not weighed.
        coarsest: the coarsest grain that the face bears, m; infinite for any.
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
    bore_depth: float | None
    curved: bool
    stays_flat: bool
    flat_show: bool
    drawn: bool
    edge: bool
    hard_flat: bool
    lapped: bool
    patch: float
    size: float
    place: float
    coarsest: float
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
        largest = max(tool.carrier.running.patch for tool in tools().values())
        return cls(
            **{name: getattr(face, name) for name in _figures_of_a_face()},
            material=job.material,
            rack=job.rack,
            flat_show=face.reflects_flat,
            drawn=face.drawn,
            edge=face.edge is not None,
            hard_flat=face.drawn and face.is_flat and job.material.hardness >= constant("looks.hard_flat").si,
            lapped=_is_lapped(face),
            patch=min(face.area, largest),
            size=(size := _asked_at_most() if face.edge is not None else min(face.area, _asked_at_most())),
            place=size,
            coarsest=coarsest_grain(face, job.material),
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

    def too_light_for(self, machine: Machine) -> float:
        """How many times as light as suits the machine the part is; below 1 where it is heavy enough, or held."""
        return machine.least_mass / self.loose_mass if self.loose_mass else 0.0

    def too_small_for(self, tool: Tool) -> float:
        """How many times as small as suits the tool the face is; below 1 where it is large enough."""
        access = tool.carrier.access
        return max(access.least_face, access.least_curved if self.curved else 0.0) / self.size

    def too_large_for(self, tool: Tool) -> float:
        """How many times as large as suits the tool what is worked is; 0 for an edge, and where nothing larger gets in."""
        return self.place / tool.carrier.access.most_face if self.reach == "open" and not self.edge else 0.0

    def diameter(self, tool: Tool, machine: Machine) -> float | None:
        """Of the wheel, worn as it is; of the work where the work turns."""
        if machine.turns_work:
            return self.turned
        measured = next((own.diameter for own in self.own.tools if own.tool == tool.id), None) if self.own else None
        return dict(self.diameters).get(tool.id, measured or tool.carrier.running.diameter)


def coarsest_grain(face: Face, material: Material) -> float:
    """The coarsest grain that a face bears, m; infinite for any. A thick coat bears more than a thin one.

    >>> from kelbrast.core.catalogue.finishes import finish
    >>> from kelbrast.core.catalogue.materials import material
    >>> from kelbrast.core.surface.found import Found
    >>> scratched = Found("scratches", 50e-6, 70e-6)
    >>> top = Face("top", area=0.6, found=scratched, want=finish("bright"), limit=500e-6, limit_kind="coat")
    >>> round(coarsest_grain(top, material("epoxy-coat")) * 1e6)
    84
    """
    if face.limit is None or (face.limit_kind != "coat" and material.family != "coating"):
        return material.coarsest
    return max(material.coarsest, constant("coat.coarsest_share").value * face.limit)


def _is_lapped(face: Face) -> bool:
    wants_size = face.limit_kind == "size" or face.sized is not None or face.stock > 0
    return wants_size or (face.want.ra_high is not None and face.want.ra_high <= constant("looks.lapped_below").si)


@remembered()
def _asked_at_most() -> float:
    """The area that a tool asks for at most, m2: beyond it a larger face is all the same to every tool."""
    accesses = [carrier.access for carrier in carriers().values()]
    most = [constant("work.beyond").value * access.most_face for access in accesses if math.isfinite(access.most_face)]
    # Above the largest, so that a face beyond every tool is still told from one at a limit.
    return 1.01 * max([*most, *(access.least_face for access in accesses), *(access.least_curved for access in accesses)])


@cache
def _figures_of_a_face() -> frozenset[str]:
    return frozenset(field.name for field in fields(ToolContext)) & frozenset(field.name for field in fields(Face)) - {"edge"}
