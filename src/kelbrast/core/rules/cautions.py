"""What to look for under the lamp, and what to beware of. The sentences are data (`records/advice.toml`)."""

from collections.abc import Iterable
from typing import Final

from kelbrast.core.catalogue.machines import Machine
from kelbrast.core.catalogue.materials import Material, family, insert
from kelbrast.core.job import Job
from kelbrast.core.process.vibration import exposure_of, vibration_points
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.rules.lay import is_brushed, lay_of_step
from kelbrast.core.rules.rule import Caution, Practice
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.wording import minutes_text, sentence, tell

LIGHT: Final = Caution(
    id="light-pressure",
    says="Where only light pressure keeps the work cool enough, the step says so.",
    source="heat-fit",
    lifted_by="wet work, or a slower tool",
    applies=lambda on_face, _face: on_face.working.light,
    words="light",
)
SLOW: Final = Caution(
    id="below-the-band",
    says="A wheel that runs below its band is safe and takes longer; the step says so.",
    source="buffing-handbooks",
    lifted_by="a faster machine, or a larger wheel",
    applies=lambda on_face, _face: on_face.setting.below_band,
    words="slow",
)
WET: Final = Caution(
    id="wet-work",
    says="Wet work asks for clean water and for electric tools to be kept out of it; dust and wetting are then not spoken of.",
    source="bench-practice",
    lifted_by="working dry",
    applies=lambda on_face, _face: on_face.working.wet,
    words="wet",
)
SHARP: Final = Caution(
    id="sharp-edges",
    says="On a face beside an edge that stays sharp every soft tool is warned of, and may take only a share of what it "
    "otherwise does (edges.sharp_share).",
    source="bench-practice",
    lifted_by="an edge that may be broken",
    applies=lambda on_face, face: face.sharp_edges and on_face.tool.carrier.cutting.takes_in_all is not None,
    words="sharp_edge",
)
EDGE: Final = Caution(
    id="edge-work",
    says="Whoever breaks an edge is told that it cuts.",
    source="bench-practice",
    lifted_by="nothing",
    applies=lambda _one, face: face.edge is not None,
    words="edge",
)
STEP_CAUTIONS: Final = (LIGHT, SLOW, WET, SHARP, EDGE)


def light_check(on_face: ToolOnFace, face: Face, *, levels: str | None, last: bool, at_rim: bool) -> str:
    """What must be seen before moving on.

    Args:
        levels: the kind of damage that the step takes down to the face, where it meets any.
        at_rim: it works places only, whose rim must be seen too.
    """
    check = _check_of_a_step(on_face, face, levels=levels, last=last)
    return f"{check} {record('advice')['checks']['rim']}" if at_rim else check


def _check_of_a_step(on_face: ToolOnFace, face: Face, *, levels: str | None, last: bool) -> str:
    checks = record("advice")["checks"]
    if face.sized is not None:
        return str(checks["size-last" if last else "size"])
    if last:
        return str(checks[_last_check(on_face, face)])
    if levels is not None:
        return str(checks["level" if levels == "waviness" else "raised"])
    if on_face.tool.carrier.cutting.wear_law == "compound":
        return str(checks["polish"])
    return str(checks[{"none": "none", "along": "along", "across": "cross"}[lay_of_step(on_face, face, last=last)]])


def _last_check(on_face: ToolOnFace, face: Face) -> str:
    if (face.want.ra_low is not None and face.want.deformed == 0) or face.no_finer_than is not None:
        return "last-tooth"
    if on_face.ra < constant("looks.mirror_below").si:
        return "last-mirror"
    return "along" if is_brushed(face) else "last-satin"


def step_cautions(on_face: ToolOnFace, face: Face, material: Material, *, warning: str | None = None) -> tuple[str, ...]:
    """Short sentences for this tool on this material; `warning`: what insisting on it will do."""
    advice = record("advice")
    found = [advice["cautions"][key] for key in on_face.tool.carrier.cautions]
    found += [advice["general"][caution.words] for caution in STEP_CAUTIONS if caution.applies(on_face, face)]
    beside = () if family(material.family).sparks else (advice["cautions"]["sparks"],)
    if on_face.working.wet:
        beside += (advice["cautions"]["wet-option"], advice["cautions"]["dust"])
    return tuple(str(text) for text in (warning, *found) if text and text not in beside)


def part_cautions(job: Job) -> tuple[str, ...]:
    """Sentences for the whole part."""
    advice = record("advice")
    found = [
        job.material.caution,
        family(job.material.family).caution,
        advice["general"]["keep_off"] if any(face.keep_off for face in job.faces) else None,
        *(insert(key).word for key in job.part.inserts),
        advice["general"]["defer"],
    ]
    return tuple(str(text) for text in found if text)


def vibration_cautions(held: Iterable[tuple[Machine, float]]) -> tuple[str, ...]:
    """What machines in the hand add up to, told from so much time on (advice.in_hand).

    Args:
        held: (machine, seconds on all pieces).
    """
    shaking = [(machine.vibration, seconds) for machine, seconds in held if machine.vibration]
    seconds = sum(each for _, each in shaking)
    if seconds < constant("advice.in_hand").si:
        return ()
    points = sum(vibration_points(vibration=one, seconds=each) for one, each in shaking)
    said = sentence("vibration.day", held=minutes_text(seconds / 60), points=f"{points:.0f}")
    more = (tell(sentence("vibration.share")),) if exposure_of(points) != "below" else ()
    return (" ".join((tell(said), *more)),)


VIBRATION: Final = Practice(
    id="vibration",
    says="Machines that are held for longer than advice.in_hand are told with their points of vibration; the schedule keeps "
    "each person below the action value.",
    source="hand-arm",
    lifted_by="less time, or tools that stand",
    kept_by=vibration_cautions,
)
SPARKS: Final = Practice(
    id="sparks",
    says="Sparks are warned of only on families whose dust glows when it is ground.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=step_cautions,
)
LIGHT_CHECK: Final = Practice(
    id="light-check",
    says="After every step the work is dried and looked at under a low lamp: no older line may lie across the new lay. "
    "What must be seen follows from the step: the last one is held against its finish, the first one against what was"
    " found.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=light_check,
)
