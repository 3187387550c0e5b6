"""Why: the sum behind every number of a step, with the values put in and where each constant comes from."""

from dataclasses import dataclass

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.planning.plan import FacePlan, Step
from kelbrast.core.process.clearance import area_factor
from kelbrast.core.process.heat import friction_flux
from kelbrast.core.reference.loader import Constant, constant
from kelbrast.core.units import from_si


@dataclass(frozen=True, slots=True)
class Term:
    """One value in a sum: a constant with its source, or (without one) something worked out or measured."""

    symbol: str
    name: str
    value: float
    unit: str
    constant: Constant | None = None


@dataclass(frozen=True, slots=True)
class Sum:
    """A number of the plan: what it is, the formula, its terms, and the result."""

    what: str
    formula: str
    terms: tuple[Term, ...]
    result: float
    unit: str


def why(plan: FacePlan, number: int, material: Material) -> tuple[Sum, ...]:
    """The sums of step `number` (from 1) of a face's plan."""
    step = plan.steps[number - 1]
    before = plan.steps[number - 2] if number > 1 else None
    sums = [_marks(step, material), _layer(plan, step, before), _rate(plan, step, material)]
    if step.fit.setting.spindle is not None:
        sums.append(_speed(step))
    sums.append(_heat(plan, step, material))
    return tuple(sums)


def _marks(step: Step, material: Material) -> Sum:
    carrier = dict(step.tool.carrier.figures)
    return Sum(
        what="Depth of its own marks",
        formula="depth = r · a · (g / 1 µm)^n · c · (H₀ / H)^e",
        terms=(
            _from("r", "depth over Ra", constant("scratch.depth_per_ra")),
            _from("a", "scratch coefficient", constant("scratch.coefficient")),
            Term("g", f"grain of {step.tool.grade}", from_si(step.tool.grain, "um"), "um"),
            _from("n", "exponent of the grain", constant("scratch.exponent")),
            _from("c", "how the grain is held", carrier["hold"]),
            _from("H₀", "reference hardness", constant("scratch.reference_hardness")),
            _hardness(material),
            _from("e", "exponent of the hardness", constant("scratch.hardness_exponent")),
        ),
        result=from_si(step.depth_after, "um"),
        unit="um",
    )


def _layer(plan: FacePlan, step: Step, before: Step | None) -> Sum:
    face = plan.face
    met = Term("d", "marks that it meets, at worst", from_si(step.depth_before, "um"), "um")
    result = from_si(step.layer, "um")
    if before is None and face.found.after is None:
        found = _from("m", "clearance of a found depth", constant("clearance.found"))
        return Sum("Layer to take off", "layer = max(m · d, its own marks)", (found, met), result, "um")
    grain = before.tool.grain if before is not None else face.found.after.grain if face.found.after else 0.0
    terms = (
        Term("m_A", "largest mark on a face of this area", area_factor(area=face.area, grain=grain), "1"),
        Term("s", "smeared layer that must go too, in mark depths", face.want.deformed, "1", _deformed(face.want.deformed)),
        met,
    )
    return Sum("Layer to take off", "layer = max(m_A · (1 + s) · d, its own marks)", terms, result, "um")


def _rate(plan: FacePlan, step: Step, material: Material) -> Sum:
    fit = step.fit
    return Sum(
        what="Time on the work",
        formula="t = A · layer (as it probably is) / (η · K · F · v / H), longer as it dulls",
        terms=(
            Term("A", "area of the face", from_si(plan.face.area, "cm2"), "cm2"),
            Term("η·K·F·v/H", "fresh removal rate, mm³/s", fit.rate * 1e9, "1"),
            Term("K", "wear coefficient of this grain", fit.tool.wear, "1", _wear(step)),
            Term("F", "force", fit.force, "N", dict(fit.tool.carrier.figures)["light_force" if fit.light else "force"]),
            Term("v", "surface speed", fit.setting.surface, "m/s"),
            _hardness(material),
            *((_from("L", "its cutting rate falls to a third in", life),) if (life := _life(step)) else ()),
        ),
        result=from_si(step.cut_seconds, "min"),
        unit="min",
    )


def _speed(step: Step) -> Sum:
    setting, carrier = step.fit.setting, dict(step.tool.carrier.figures)
    terms = [
        Term("n", f"setting of the {step.fit.machine.label.lower()}", from_si(setting.spindle or 0.0, "rev/min"), "rev/min")
    ]
    if step.fit.machine.orbit is not None:
        terms.append(Term("D", "orbit", from_si(step.fit.machine.orbit, "mm"), "mm"))
    elif "diameter" in carrier:
        terms.append(_from("D", "diameter", carrier["diameter"]))
    if "marked_limit" in carrier:
        terms.append(_from("v_max", "marked limit, never passed", carrier["marked_limit"]))
    return Sum("Surface speed", "v = π · D · n", tuple(terms), setting.surface, "m/s")


def _heat(plan: FacePlan, step: Step, material: Material) -> Sum:
    carrier, fit = step.tool.carrier, step.fit
    patch = min(carrier.patch, plan.face.area)
    flux = friction_flux(friction=carrier.friction, force=fit.force, speed=fit.setting.surface, patch=patch)
    figures = dict(material.figures)
    return Sum(
        what="Longest stay on one spot",
        formula="t such that the surface of a slab under q = w · µ · F · v / patch reaches the limit",
        terms=(
            Term("q", "heat into the work, W/m²", flux, "1"),
            _from("w", "share that goes into the work", constant("heat.into_work")),
            _from("µ", "friction", dict(carrier.figures)["friction"]),
            _from("T", "temperature to stay below", figures["limit"]),
            _from("k", "conductivity", figures["conductivity"]),
        ),
        result=fit.stay,
        unit="s",
    )


def _from(symbol: str, name: str, figure: Constant) -> Term:
    return Term(symbol, name, figure.value, figure.unit, figure)


def _hardness(material: Material) -> Term:
    return _from("H", f"hardness of {material.label.lower()}", dict(material.figures)["hardness"])


def _wear(step: Step) -> Constant | None:
    law = step.tool.carrier.wear_law
    return constant(f"removal.{law}") if law in ("coated", "lap") else dict(step.tool.carrier.figures).get("wear")


def _life(step: Step) -> Constant | None:
    return dict(step.tool.carrier.figures).get("life")


def _deformed(value: float) -> Constant | None:
    kinds = (constant(f"deformed.{name}") for name in ("hidden", "satin", "mirror"))
    return next((figure for figure in kinds if figure.value == value), None)
