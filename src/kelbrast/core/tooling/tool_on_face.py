"""Every tool of a rack as it would work on a face: machine and setting, conditions, removal rate, marks left."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.learning.factors import Yours
from kelbrast.core.process.removal import change_after, contact_kept, pullout_life_factor, removal_rate
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.process.speed import Setting
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.tooling.at_hand import choose_rack, own_rack
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.working_conditions import Drive, WorkingConditions, choose_conditions, choose_drive, contact_of
from kelbrast.core.validity import Flags, Places, Reals


@dataclass(frozen=True, slots=True)
class ToolOnFace:
    """A tool on a face (SI).

    Attributes:
        drive: its machine, and how that is set.  working: how hard, how wet, how warm.
        rate: fresh removal rate, m3/s.
        ra, depth: what it leaves, m.
        change_cost: what changing a dead abrasive costs, in seconds of bench time.
        yours: the shop's own factors, which are in the figures above.
    """

    tool: Tool
    drive: Drive
    working: WorkingConditions
    rate: float
    ra: float
    depth: float
    change_cost: float
    yours: Yours

    @property
    def machine(self) -> Machine:
        return self.drive.machine

    @property
    def setting(self) -> Setting:
        return self.drive.setting

    @property
    def life(self) -> float:
        """e-folding time of its cutting rate, s; infinite for what does not die."""
        return self.tool.carrier.stock.life or math.inf

    def life_on(self, depth: float) -> float:
        """The same on marks of this depth (m), which tear a coated abrasive."""
        if math.isinf(self.life) or not self.tool.is_torn:
            return self.life
        return self.life * float(pullout_life_factor(grain=self.tool.grain, depth=depth))

    def change_after(self, life: float) -> float:
        """Seconds of cutting after which an abrasive that lives so long is changed; infinite for what does not die."""
        return float(change_after(life=life, change_cost=self.change_cost)) if math.isfinite(life) else math.inf


@dataclass(frozen=True, eq=False)
class Toolset:
    """Tools on a face, coarsest marks first, with their figures as columns over the nodes: node 0 is the surface as found."""

    tools: tuple[ToolOnFace, ...]

    def __iter__(self) -> Iterator[ToolOnFace]:
        return iter(self.tools)

    def __len__(self) -> int:
        return len(self.tools)

    def column(self, of: Callable[[ToolOnFace], float], *, found: float = np.inf) -> Reals:
        """(n,) a value of every tool; `found`: what stands for the surface as found, to which no step leads."""
        return np.array([found, *map(of, self.tools)], dtype=np.float64)

    @cached_property
    def rate(self) -> Reals:
        return self.column(lambda on_face: on_face.rate)

    @cached_property
    def life(self) -> Reals:
        return self.column(lambda on_face: on_face.life)

    @cached_property
    def lasts(self) -> Reals:
        return self.column(lambda on_face: on_face.tool.carrier.stock.lasts or np.inf)

    @cached_property
    def torn(self) -> Flags:
        """Whether deep marks tear it."""
        return self.column(lambda on_face: float(on_face.tool.is_torn), found=0.0) > 0

    @cached_property
    def grain(self) -> Reals:
        return self.column(lambda on_face: on_face.tool.grain, found=1.0)

    @cached_property
    def change_cost(self) -> Reals:
        return self.column(lambda on_face: on_face.change_cost, found=1.0)

    def lives(self, nodes: Places, depth: Reals) -> tuple[Reals, Reals]:
        """Of the tools of these nodes on marks of such depths (m): how long each lives, and when it is changed; infinite for
        what does not die."""
        life, after = self.life.take(nodes), self._changed_after.take(nodes)
        torn = np.flatnonzero(self.torn.take(nodes) & np.isfinite(life))
        if len(torn):
            of = nodes[torn]
            share = pullout_life_factor(grain=self.grain.take(of), depth=depth.take(torn))
            life[torn] = share * self.life.take(of)
            less = share < 1
            torn, of = torn[less], of[less]
            after[torn] = change_after(life=life.take(torn), change_cost=self.change_cost.take(of))
        return life, after

    @cached_property
    def _changed_after(self) -> Reals:
        """When each is changed on marks that do not tear it, s; infinite for what does not die."""
        after, dies = np.full(len(self.life), np.inf), np.isfinite(self.life)
        after[dies] = change_after(life=self.life[dies], change_cost=self.change_cost[dies])
        return after

    @cached_property
    def setup(self) -> Reals:
        """s, with the wiping that wet work asks for."""
        wiping = constant("work.wet_wipe").si
        return self.column(
            lambda on_face: on_face.tool.carrier.stock.setup + (wiping if on_face.working.wet else 0.0), found=0.0
        )

    @cached_property
    def change(self) -> Reals:
        return self.column(lambda on_face: on_face.tool.carrier.stock.change, found=0.0)

    @cached_property
    def price(self) -> Reals:
        return self.column(lambda on_face: on_face.tool.carrier.stock.price, found=0.0)

    @cached_property
    def mounted(self) -> Reals:
        """1 for what goes on a machine, 0 for what is held by hand."""
        return self.column(lambda on_face: float(on_face.tool.carrier.mount != "hand"), found=0.0)

    @cached_property
    def patch(self) -> Reals:
        return self.column(lambda on_face: on_face.tool.carrier.running.patch, found=0.0)

    @cached_property
    def reaches(self) -> Reals:
        """Deepest mark that each can take out, m; infinite for no limit."""
        return self.column(lambda on_face: on_face.tool.reaches_depth or np.inf)


@remembered(256)
def tools_on_face(context: ToolContext) -> Toolset:
    """Every tool of the rack on such a face, coarsest marks first. Tools that no machine here drives are left out."""
    tools, machines = choose_rack(context.rack) if context.own is None else own_rack(context.own)
    drives = ((tool, choose_drive(tool, machines, context)) for tool in tools)
    on_faces = [_on_face(tool, drive, context) for tool, drive in drives if drive is not None]
    return Toolset(tuple(sorted(on_faces, key=lambda on_face: (-on_face.depth, on_face.tool.id))))


def _on_face(tool: Tool, drive: Drive, context: ToolContext) -> ToolOnFace:
    yours = context.factors.yours(tool.carrier.id, context.material.family)
    tool = _lasting(tool, yours, context)
    cutting, stock, hardness = tool.carrier.cutting, tool.carrier.stock, context.material.hardness
    contact = contact_of(drive.machine, context) * contact_kept(max(context.too_small_for(tool), context.too_large_for(tool)))
    if context.reach == "inside":
        contact = min(contact, constant("removal.bore_contact").value)
    working = choose_conditions(tool.carrier.running, drive, contact, context)
    speed = drive.setting.surface
    wear = tool.wear * context.material.cut_share
    rate = removal_rate(wear=wear, contact=contact, force=working.force, speed=speed, hardness=hardness) * yours.removal
    ra = roughness_left(grain=tool.grain, hold=cutting.hold, hardness=hardness, floor=cutting.floor) * yours.scratch
    change_cost = stock.change + stock.price / constant("work.bench_rate").si
    return ToolOnFace(tool, drive, working, rate, ra, depth_of_marks(ra), change_cost, yours)


def _lasting(tool: Tool, yours: Yours, context: ToolContext) -> Tool:
    """The tool with the life that it has in this shop; a life that was put in by hand stands."""
    stock = tool.carrier.stock
    put_in = context.own is not None and any(own.tool == tool.id and own.life is not None for own in context.own.tools)
    if stock.life is None or put_in or yours.life == 1:
        return tool
    return replace(tool, carrier=replace(tool.carrier, stock=replace(stock, life=stock.life * yours.life)))
