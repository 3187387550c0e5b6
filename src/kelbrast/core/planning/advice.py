"""What to look for under the lamp, and what to beware of, for a step. The sentences are data (`records/advice.toml`)."""

from typing import Literal

from kelbrast.core.catalogue.families import family
from kelbrast.core.catalogue.inserts import insert
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.planning.fit import Fit
from kelbrast.core.planning.job import Job
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.surface.face import Face

LayOfStep = Literal["across", "along", "none"]


def lay_of_step(fit: Fit, face: Face, *, last: bool) -> LayOfStep:
    """How to move: "none" without direction, "along" in one direction, "across" the marks before.

    A brushed face keeps its one direction from the first step on.
    """
    lays = fit.tool.carrier.lays
    if lays == ("none",):
        return "none"
    if face.want.lay == "one-way":
        return "along"
    if face.want.lay == "none" and last:
        return "none"
    return "across" if "one-way" in lays else "none"


def light_check(fit: Fit, face: Face, *, first: bool, last: bool) -> str:
    """What must be seen before moving on."""
    checks = record("advice")["checks"]
    if last:
        return str(checks[_last_check(fit, face)])
    if first and face.must_be_levelled:
        return str(checks["level" if face.found.kind == "waviness" else "raised"])
    if fit.tool.carrier.wear_law == "compound":
        return str(checks["polish"])
    return str(checks[{"none": "none", "along": "along", "across": "cross"}[lay_of_step(fit, face, last=last)]])


def _last_check(fit: Fit, face: Face) -> str:
    if (face.want.ra_low is not None and face.want.deformed == 0) or face.no_finer_than is not None:
        return "last-tooth"
    if fit.ra < constant("looks.mirror_below").si:
        return "last-mirror"
    return "along" if face.want.lay == "one-way" else "last-satin"


def step_cautions(fit: Fit, material: Material, *, warning: str | None = None) -> tuple[str, ...]:
    """Short sentences for this tool on this material; `warning`: what insisting on it will do."""
    advice = record("advice")
    found = [advice["cautions"][key] for key in fit.tool.carrier.cautions]
    if fit.light:
        found.append(advice["general"]["light"])
    if fit.setting.below_band:
        found.append(advice["general"]["slow"])
    if fit.wet:
        found.append(advice["general"]["wet"])
    beside = () if family(material.family).sparks else (advice["cautions"]["sparks"],)
    if fit.wet:
        beside += (advice["cautions"]["wet-option"], advice["cautions"]["dust"])
    return tuple(str(text) for text in (warning, *found) if text and text not in beside)


def part_cautions(job: Job) -> tuple[str, ...]:
    """Sentences for the whole part."""
    advice = record("advice")
    found = [
        family(job.material.family).caution,
        advice["general"]["keep_off"] if any(face.keep_off for face in job.faces) else None,
        *(insert(key).word for key in job.part.inserts),
        advice["general"]["defer"],
    ]
    return tuple(str(text) for text in found if text)
