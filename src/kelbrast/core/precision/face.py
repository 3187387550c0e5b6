"""A face worked to size: its stock allowance, and where its route continues by the gauge."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import Tool, tool
from kelbrast.core.precision.advice import SizingAdvice, advise
from kelbrast.core.precision.move import target_of
from kelbrast.core.precision.state import SizingTool, WorkRound, follow
from kelbrast.core.precision.stop_sheet import stops_of_layers
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.sized import Sized
from kelbrast.core.validity import require_above_zero

_UNTOUCHED: Final = SizingTool("", 1e-9, 1.0)  # the size as found asks nothing of it


@dataclass(frozen=True, slots=True)
class SizingStep:
    """A step of a route by the gauge: its tool, the layer that it is planned to take (m), and in how long (s)."""

    tool: str
    layer: float
    seconds: float


def to_size(face: Face, sized: Sized) -> Face:
    """A face with the size that is wanted of it: only what keeps a size may work it, and all of it is lowered by its stock.

    Equation: `stock = (target - S) / 2`, and beyond it no more than `(far - B - target) / 2` (m)
    Valid: any readings that a form can be fitted to; without readings the face keeps its own limits.

    Args:
        face: as it is without that size.
        sized: the size, the gauge, and what it read.

    Raises:
        OutsideValidity: the readings cannot be of one part.

    Source: geometry, size-policy.

    >>> from kelbrast.core.catalogue.finishes import finish
    >>> from kelbrast.core.surface.found import Found
    >>> from kelbrast.core.surface.sized import Gauge, Reading, RoundPart, SizeLimits
    >>> bore = Face("bore", 25e-4, Found("lay", 3e-6, 3e-6), finish("satin"))
    >>> bush = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
    >>> read = tuple(Reading(19.99e-3, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    >>> found = to_size(bore, Sized(bush, Gauge(3e-6, 1e-6), read))
    >>> round(1e6 * found.stock, 1), round(1e6 * found.limit, 1), found.limit_kind
    (10.2, 4.7, 'size')
    """
    if not sized.readings:
        return replace(face, sized=sized, limit_kind="size")
    part = sized.part
    state = follow(part, [WorkRound(0.0, _UNTOUCHED, sized.readings)], sized.gauge)
    target, _ = target_of(state, sized.gauge)
    stock = max(0.0, target - state.belief.size) / 2
    beyond = max(0.0, part.far - sized.gauge.bias - max(target, state.belief.size)) / 2
    tightest = beyond if face.limit is None else min(face.limit, beyond)
    kind = "size" if tightest == beyond else face.limit_kind
    uneven = state.last - state.belief.size > constant("precision.uneven").value * part.wanted.width
    return replace(face, sized=sized, stock=stock, out_of_round=uneven, limit=tightest, limit_kind=kind)


def sizing_tools(steps: Sequence[SizingStep], *, spread: float) -> tuple[SizingTool, ...]:
    """The tools of a route as the gauge follows them; what each leaves is what the later ones need.

    Equation: `rate = 2 h / t`, `leaves_k = 2 sum_(j > k) h_j` (m/s, m)
    Valid: layers and seconds above 0.

    Args:
        steps: of the route, in order.
        spread: standard deviation of the logarithm of a rate, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry, size-policy.

    >>> way = (SizingStep("bore-lap-f400", 6e-6, 240.0), SizingStep("bore-lap-f1200", 2e-6, 300.0))
    >>> [(round(60e6 * one.rate, 1), round(1e6 * one.leaves)) for one in sizing_tools(way, spread=1.0)]
    [(3.0, 4), (0.8, 0)]
    """
    require_above_zero(spread=spread, **{f"layer {at}": sizing_step.layer for at, sizing_step in enumerate(steps, start=1)})
    require_above_zero(**{f"seconds {at}": sizing_step.seconds for at, sizing_step in enumerate(steps, start=1)})
    sizing_tools = []
    for at, sizing_step in enumerate(steps):
        laps = _is_lap(tool(sizing_step.tool))
        later = 2 * sum(other.layer for other in steps[at + 1 :])
        limits = {} if laps else {"most": constant("precision.file_most").si, "least": constant("precision.least_strokes").si}
        sizing_tools.append(
            SizingTool(sizing_step.tool, 2 * sizing_step.layer / sizing_step.seconds, spread, leaves=later, laps=laps, **limits)
        )
    return tuple(sizing_tools)


def _is_lap(tool: Tool) -> bool:
    """Whether it works round with loose grain: it finds its own way in a bore or over a shaft."""
    return tool.carrier.kind == "lap"


def size_of_face(
    sized: Sized, steps: Sequence[SizingStep], rounds: Sequence[WorkRound], material: Material, *, warmer: float = 0.0
) -> SizingAdvice:
    """Where a face stands by the gauge and what comes next, with the diameter to read after each step of its route.

    Equation: as in `advice.advise` and `stop_sheet.stops_of_layers` (m)
    Valid: the first round is readings before any work.

    Args:
        sized: the size that is wanted, and the gauge.
        steps: of the route, in order.
        rounds: work and readings, in order.
        material: of the part.
        warmer: the part than the gauge at the newest readings, K.

    Raises:
        OutsideValidity: outside that.

    Source: size-policy.

    >>> from kelbrast.core.catalogue.materials import material
    >>> from kelbrast.core.surface.sized import Gauge, Reading, RoundPart, SizeLimits
    >>> way = (SizingStep("bore-lap-f400", 6e-6, 240.0), SizingStep("bore-lap-f1200", 2e-6, 300.0))
    >>> bush = Sized(RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3)), Gauge(3e-6, 1e-6))
    >>> read = tuple(Reading(19.996e-3, z, phi) for z in (-0.012, 0, 0.012) for phi in (0, 0.8, 1.6, 2.4))
    >>> lap, _ = sizing_tools(way, spread=1.0)
    >>> found = size_of_face(bush, way, [WorkRound(0.0, lap, read)], material("bronze"))
    >>> found.move.action, [round(1e3 * one.diameter, 4) for one in found.way]
    ('lap', [20.0065, 20.0105])
    """
    risk = constant("precision.risk").value
    now = advise(sized.part, rounds, sized.gauge, risk=risk, grades=(), material=material, warmer=warmer)
    sign = sized.part.sign
    start = advise(sized.part, rounds[:1], sized.gauge, risk=risk, grades=(), material=material) if len(rounds) > 1 else now
    layers = [(tool(step.tool).label, step.layer) for step in steps]
    stops = stops_of_layers(layers, start=sign * start.state.belief.size, target=now.target, sign=sign)
    return replace(now, way=stops)
