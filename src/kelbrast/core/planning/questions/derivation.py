"""Derivations: the formula behind every number of a step, with its inputs and the source of each constant."""

import math
from dataclasses import dataclass

from kelbrast.core.catalogue.materials import Material, insert
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.planning.face.step import Step
from kelbrast.core.process.clearance import area_factor, count_of_marks
from kelbrast.core.process.heat import friction_flux
from kelbrast.core.reference.loader import Constant, constant
from kelbrast.core.units import from_si
from kelbrast.core.validity import REL_TOL


@dataclass(frozen=True, slots=True)
class Given:
    """One value in a sum: a constant with its source, or (without one) something worked out or measured."""

    symbol: str
    name: str
    value: float
    unit: str
    constant: Constant | None = None


@dataclass(frozen=True, slots=True)
class Derivation:
    """A number of the plan: what it is, the formula, its terms, and the result."""

    what: str
    formula: str
    terms: tuple[Given, ...]
    result: float
    unit: str


def derivations(plan: FacePlan, number: int, job: Job) -> tuple[Derivation, ...]:
    """The sums of step `number` (from 1) of a face's plan."""
    step, material = plan.steps[number - 1], job.material
    sums = [_marks(step, material), _layer(plan, step, material)]
    if plan.face.spots:
        sums.append(_cut(step))
    if step.tool.carrier.cutting.wear_law == "coated":
        sums.append(_coefficient(step))
    sums += [_rate(plan, step, material), _minutes(step)]
    if step.on_face.setting.spindle is not None:
        sums.append(_speed(step))
    sums.append(_heat(plan, step, job))
    if step.time.rests is not None:
        sums.append(_resting(step, job))
    sums += [_price(step), _left(step)]
    return tuple(sums)


def _marks(step: Step, material: Material) -> Derivation:
    carrier = dict(step.tool.carrier.figures)
    return Derivation(
        what="Depth of its own marks",
        formula="depth = r · √((a · (g / 1 µm)^n · c)² + f²) · (H₀ / H)^e",
        terms=(
            _from("r", "depth over Ra", constant("scratch.depth_per_ra")),
            _from("a", "scratch coefficient", constant("scratch.coefficient")),
            Given("g", _grain_of(step), from_si(step.tool.grain, "um"), "um"),
            _from("n", "exponent of the grain", constant("scratch.exponent")),
            _from("c", "how the grain is held", carrier["hold"]),
            *((_from("f", "lines of the cloth itself", carrier["floor"]),) if "floor" in carrier else ()),
            _from("H₀", "reference hardness", constant("scratch.reference_hardness")),
            _hardness(material),
            _from("e", "exponent of the hardness", constant("scratch.hardness_exponent")),
            *_yours("scratch left", step.on_face.yours.scratch),
        ),
        result=from_si(step.marks.after, "um"),
        unit="um",
    )


def _layer(plan: FacePlan, step: Step, material: Material) -> Derivation:
    """The layer is what the one of all that it meets asks for that asks for most."""
    face, what = plan.face, "Layer to take off"
    result = from_si(step.marks.layer, "um")
    own = Given("own", "its own marks", from_si(step.marks.after, "um"), "um")
    if not step.marks.met:
        return Derivation(what, "layer = own: it only covers what it goes on over", (own,), result, "um")
    most = step.marks.met[0]
    met = Given("d", "marks that it meets, at worst", from_si(most.depth, "um"), "um")
    if face.edge is not None and most.found is not None:
        return Derivation(what, "layer = max(d, own)", (met, own), result, "um")
    if most.grain is not None:
        smear = min(face.want.deformed, material.smear)
        terms = (
            Given("m_A", "largest mark on a face of this area", area_factor(area=face.area, grain=most.grain), "1"),
            Given("s", "smeared layer that must go too, in mark depths", smear, "1", _deformed(smear)),
            met,
            own,
        )
        return Derivation(what, "layer = max(m_A · (1 + s) · d, own)", terms, result, "um")
    given = _from("m", "clearance of a found depth", constant("clearance.found"))
    knocked = max(most.depth - step.marks.after, step.marks.after)
    if most.found is not None and (most.found.above or face.stock) and math.isclose(step.marks.layer, knocked):
        formula = "layer = max(d - own, own): what stands proud is knocked down to just above the face"
        return Derivation(what, formula, (met, own), result, "um")
    return Derivation(what, "layer = max(m · d, own)", (given, met, own), result, "um")


def _cut(step: Step) -> Derivation:
    """What a step cuts on a face with spots."""
    terms = [
        given
        for at, (where, thickness, area) in enumerate(step.slabs, start=1)
        for given in (
            Given(f"t{at}", f"thickness {where}", from_si(thickness, "um"), "um"),
            Given(f"A{at}", f"area {where}", from_si(area, "cm2"), "cm2"),
        )
    ]
    formula = "V = " + " + ".join(f"t{at} · A{at}" for at in range(1, len(step.slabs) + 1))
    return Derivation("Metal that is cut, cm³", formula, tuple(terms), step.volume * 1e6, "1")


def _rate(plan: FacePlan, step: Step, material: Material) -> Derivation:
    on_face = step.on_face
    by_area = Given("A", "area of the face", from_si(plan.face.area, "cm2"), "cm2")
    by_volume = Given("V", "what is cut, cm³", step.volume * 1e6, "1")
    cut = "V" if plan.face.spots else "A · layer (as it probably is)"
    return Derivation(
        what="Time on the work",
        formula=f"t = {cut} / (η · K · F · v / H), longer as it dulls",
        terms=(
            by_volume if plan.face.spots else by_area,
            Given("η·K·F·v/H", "fresh removal rate, mm³/s", on_face.rate * 1e9, "1"),
            Given("K", "wear coefficient of this grain", on_face.tool.wear, "1", _wear(step)),
            Given(
                "F",
                "force",
                on_face.working.force,
                "N",
                _force(step),
            ),
            Given("v", "surface speed", on_face.setting.surface, "m/s"),
            _hardness(material),
            *_life(step),
            *_yours("removal rate", on_face.yours.removal),
            *_yours("life", on_face.yours.life),
        ),
        result=from_si(step.time.cut, "min"),
        unit="min",
    )


def _speed(step: Step) -> Derivation:
    setting, carrier = step.on_face.setting, dict(step.tool.carrier.figures)
    terms = [
        Given(
            "n", f"setting of the {step.on_face.machine.label.lower()}", from_si(setting.spindle or 0.0, "rev/min"), "rev/min"
        )
    ]
    if step.on_face.machine.orbit is not None:
        terms.append(Given("D", "orbit", from_si(step.on_face.machine.orbit, "mm"), "mm"))
    elif "diameter" in carrier:
        new = carrier["diameter"]
        worn = step.on_face.drive.diameter is not None and step.on_face.drive.diameter < new.si * (1 - REL_TOL)
        mm = from_si(step.on_face.drive.diameter or new.si, "mm")
        terms.append(Given("D", f"diameter, worn from {new.value:g} mm", mm, "mm") if worn else _from("D", "diameter", new))
    elif step.on_face.drive.diameter is not None:
        terms.append(Given("D", "diameter of the work", from_si(step.on_face.drive.diameter, "mm"), "mm"))
    if "marked_limit" in carrier:
        terms.append(_from("v_max", "marked limit, never passed", carrier["marked_limit"]))
    terms += [
        Given(symbol, f"{end} end of the band", v, "m/s")
        for (symbol, end), v in zip((("v_low", "slow"), ("v_high", "fast")), setting.band or (), strict=False)
    ]
    formula = "v = π · D · n; a wheel worn to 4/5 of its diameter runs at 4/5 of the speed"
    return Derivation("Surface speed", formula, tuple(terms), setting.surface, "m/s")


def _heat(plan: FacePlan, step: Step, job: Job) -> Derivation:
    carrier, on_face = step.tool.carrier, step.on_face
    patch = min(carrier.running.patch, plan.face.area)
    flux = friction_flux(
        friction=carrier.running.friction, force=on_face.working.force, speed=on_face.setting.surface, patch=patch
    )
    figures, share = dict(job.material.figures), constant("heat.into_work")
    coolest = min((insert(key).limit for key in job.part.inserts), key=lambda limit: limit.si, default=figures["limit"])
    limit = min(coolest, figures["limit"], key=lambda figure: figure.si)
    return Derivation(
        what="Longest stay on one spot",
        formula="t such that the surface of a slab under q = w · µ · F · v / patch reaches the limit",
        terms=(
            Given("q", "heat into the work, W/m²", flux, "1"),
            _from("w", "share that goes into the work", share),
            *((_from("wet", "share of that in wet work", constant("heat.wet_share")),) if on_face.working.wet else ()),
            _from("µ", "friction", dict(carrier.figures)["friction"]),
            _from("T", "temperature to stay below", limit),
            _from("k", "conductivity", figures["conductivity"]),
        ),
        result=on_face.working.stay,
        unit="s",
    )


def _coefficient(step: Step) -> Derivation:
    finer = step.tool.grain < constant("removal.reference_grain").si
    quick = dict(step.tool.carrier.figures).get("cut_rate")
    return Derivation(
        what="Wear coefficient",
        formula="K = K₀ · (g / g₀)^p" if quick is None else "K = q · K₀ · (g / g₀)^p",
        terms=(
            *((_from("q", "how many times as quick it cuts", quick),) if quick is not None else ()),
            _from("K₀", "of a coated abrasive of the reference grain", constant("removal.coated")),
            Given("g", _grain_of(step), from_si(step.tool.grain, "um"), "um"),
            _from("g₀", "reference grain", constant("removal.reference_grain")),
            _from(
                "p",
                f"exponent {'below' if finer else 'above'} it",
                constant(f"removal.{'fine' if finer else 'coarse'}_exponent"),
            ),
        ),
        result=step.tool.wear,
        unit="1",
    )


def _minutes(step: Step) -> Derivation:
    figures = dict(step.tool.carrier.figures)
    terms = [
        *(() if step.goes_on else (_from("set-up", "of the tool", figures["setup"]),)),
        Given("work", "time on the work", from_si(step.time.cut, "min"), "min"),
        _from("check", "wipe, dry, look", constant("work.check")),
    ]
    if step.time.wash:
        terms.append(_from("wash", "off the grade before", constant("work.wash")))
    if step.use.at_hand > 1:
        terms.append(_from("change", f"of a dead one, {round(step.use.at_hand) - 1} times", figures["change"]))
    if step.on_face.working.wet:
        terms.append(_from("wipe", "slurry off", constant("work.wet_wipe")))
    if step.time.rests is not None:
        terms.append(
            Given(
                "rests",
                f"{step.time.rests.count} of them",
                from_si(step.time.rests.count * step.time.rests.seconds, "min"),
                "min",
            )
        )
    return Derivation("Minutes of the step", "all of it added up", tuple(terms), from_si(step.time.all, "min"), "min")


def _resting(step: Step, job: Job) -> Derivation:
    assert step.time.rests is not None, "asked for a step with rests"
    lump, cooling = job.lump, "loss_air" if "wet" in job.forbids else "loss_water"
    limit = _from("T", "a hand in finger guards bears", constant("heat.guarded")) if step.time.rests.by_hand else None
    return Derivation(
        what="Work between two rests",
        formula="t = -(m·c / h·A) · ln(1 - ΔT · h·A / P); at rest it cools as exp(-t · h·A / m·c)",
        terms=(
            Given("P", "heat into the part, W", step.on_face.working.power, "1"),
            Given("m·c", "heat capacity of the part, J/K", lump.capacity if lump else 0.0, "1"),
            Given("A", "surface that gives heat off", from_si(lump.surface if lump else 0.0, "cm2"), "cm2"),
            limit or Given("T", "temperature to stay below", from_si(job.hottest, "C"), "C"),
            _from("h", "loss while working", constant("heat.loss_air")),
            _from("h_rest", "loss at rest", constant(f"heat.{cooling}")),
            _from("left", "share of the rise left after a rest", constant("heat.rest_to")),
            Given("rest", "each time", step.time.rests.seconds, "s"),
        ),
        result=step.time.rests.after,
        unit="s",
    )


def _price(step: Step) -> Derivation:
    carrier = step.tool.carrier
    price = _from("price", f"of one {carrier.stock.unit}", dict(carrier.figures)["price"])
    worn = Given("worn", f"of a {carrier.stock.unit} by this step", step.use.worn, "1")
    return Derivation("Cost of what is used up", "cost = worn · price", (worn, price), step.use.cost, "money")


def _left(step: Step) -> Derivation:
    graded = [met for met in step.marks.met if met.grain is not None and not met.in_places]
    terms = [Given("layer", "taken off", from_si(step.marks.layer, "um"), "um")]
    for at, met in enumerate(graded, start=1):
        number = "" if len(graded) == 1 else str(at)
        count = count_of_marks(area=met.area, grain=met.grain or 0.0)
        where = "as found" if met.found is not None else "of the grade before"
        terms += [
            Given(f"N{number}", f"marks {where}", count, "1"),
            Given(f"d{number}", f"depth of the marks {where}", from_si(met.depth, "um"), "um"),
        ]
    if not graded:
        terms.append(Given("d", "marks that it meets", from_si(step.marks.before, "um"), "um"))
    terms += [
        _from("6.5", "standard deviations in a depth", constant("clearance.largest_scale")),
        _from("3", "of them above the middle", constant("clearance.largest_offset")),
    ]
    formula = "N · Q(6.5 · layer / d - 3), with Q the tail of a Gaussian; a found depth is the deepest already"
    if len(graded) > 1:
        formula = f"Σ {formula}"
    return Derivation("Old marks still there at the end", formula, tuple(terms), step.marks.left, "1")


def _grain_of(step: Step) -> str:
    """Grades that are named by their size need not say it twice."""
    return "its grain" if step.tool.grade.endswith("um") else f"grain of {step.tool.grade}"


def _from(symbol: str, name: str, figure: Constant) -> Given:
    return Given(symbol, name, figure.value, figure.unit, figure)


def _yours(what: str, factor: float) -> tuple[Given, ...]:
    """A factor that the shop learnt from its own runs, where it has one."""
    return () if factor == 1 else (Given("yours", f"your own factor of the {what}, from your log", factor, "1"),)


def _hardness(material: Material) -> Given:
    return _from("H", f"hardness of {material.label.lower()}", dict(material.figures)["hardness"])


def _wear(step: Step) -> Constant | None:
    law = step.tool.carrier.cutting.wear_law
    figures = dict(step.tool.carrier.figures)
    own = figures.get("cut_rate")
    return own or (constant(f"removal.{law}") if law in ("coated", "lap") else figures.get("wear"))


def _life(step: Step) -> tuple[Given, ...]:
    figure = dict(step.tool.carrier.figures).get("life")
    if figure is None:
        return ()
    return (Given("L", "its cutting rate falls to a third in", from_si(step.use.life, figure.unit), figure.unit, figure),)


def _force(step: Step) -> Constant:
    figures = dict(step.tool.carrier.figures)
    return figures.get("pressure") or figures["light_force" if step.on_face.working.light else "force"]


def _deformed(value: float) -> Constant | None:
    kinds = (constant(f"deformed.{name}") for name in ("hidden", "satin", "mirror"))
    return next((figure for figure in kinds if figure.value == value), None)
