"""Advice: good practice for a step or a part, each in a line where it applies."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.job import Job
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.rules.protection import protection_of
from kelbrast.core.rules.roughness import reflects_clearly
from kelbrast.core.rules.rule import Advice, PartAdvice
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.tool_on_face import ToolOnFace

_DRAGS: Final = ("cut", "colour")


@dataclass(frozen=True, slots=True)
class AtStep:
    """A step as advice looks at it.

    Attributes:
        own: the item of the shop's rack; None when planned from the catalogue.
        blends: only a part of the face is worked.  hot_in_hand: a bare hand could not hold it to the end.
        leaps: it goes so far beyond doubling that its light check is likelier to fail than not.
    """

    one: ToolOnFace
    face: Face
    material: Material
    first: bool
    last: bool
    own: OwnTool | None
    blends: bool
    hot_in_hand: bool
    leaps: bool

    @property
    def on_wheel(self) -> bool:
        """A bar on a cloth, sisal or felt wheel."""
        carrier = self.one.tool.carrier
        return carrier.cutting.wear_law == "compound" and carrier.running.band in _DRAGS


def step_advice(step: AtStep) -> tuple[str, ...]:
    """What is good to know at a step."""
    words = record("advice")["advice"]
    return tuple(str(words[advice.words]) for advice in AT_STEPS if advice.applies(step))


def part_advice(job: Job) -> tuple[str, ...]:
    """What is good to know of the whole part."""
    words = record("advice")["advice"]
    return tuple(str(words[part_advice.words]) for part_advice in OF_PARTS if part_advice.applies(job))


def _is_small_sheet(face: Face) -> bool:
    small = face.area <= constant("advice.small_sheet").si and face.is_flat and face.gauged.shape == "plate"
    return small and face.thickness is not None and face.thickness <= constant("advice.sheet").si


def _goes_in_strokes(step: AtStep) -> bool:
    many = step.face.area > constant("advice.strokes").value * step.one.tool.carrier.running.patch
    return not step.one.machine.stands and not step.one.machine.turns_work and many and step.face.edge is None


def _eats_when_new(step: AtStep) -> bool:
    return step.one.tool.carrier.kind in ("flap wheel", "non-woven") and (step.blends or (step.last and not step.first))


def _goes_into_a_bowl(job: Job) -> bool:
    small = all(face.area < constant("advice.bowl_face").si and face.want.lay != "one-way" for face in _worked(job))
    return job.pieces >= constant("advice.many").value and small


def _stays_in_the_chuck(job: Job) -> bool:
    return job.pieces >= constant("advice.batch").value and any(face.turned is not None for face in _worked(job))


def _worked(job: Job) -> list[Face]:
    return [face for face in job.faces if not face.left_alone and face.edge is None]


def _loads(step: AtStep) -> bool:
    carrier = step.one.tool.carrier
    coated = carrier.cutting.wear_law == "coated" and carrier.mount != "hand"
    return "loads" in step.material.tips and coated and not step.one.working.wet


SHEET: Final = PartAdvice(
    id="cut-after",
    says="A small flat piece of thin, soft sheet has more edge than face: it is polished in a larger sheet and cut out after.",
    source="bench-practice",
    lifted_by="a piece that is cut already, or a larger one",
    applies=lambda job: (
        job.material.hardness <= constant("advice.soft_sheet").si and any(_is_small_sheet(face) for face in job.faces)
    ),
    words="sheet",
)
UNWIELDY: Final = PartAdvice(
    id="unwieldy",
    says="A part that is large, long or heavy for a bench machine is worked more slowly there (process.removal).",
    source="bench-practice",
    lifted_by="saying that the part can be carried, or that it cannot",
    applies=lambda job: job.unwieldy > 1 and job.comes_to_the_bench,
    words="unwieldy",
)
STAYS: Final = PartAdvice(
    id="stays",
    says="A part that is not brought to a bench machine because of its size or weight is said to be so.",
    source="bench-practice",
    lifted_by="saying that the part can be carried, or that it cannot",
    applies=lambda job: job.carried is None and not job.comes_to_the_bench,
    words="stays",
)
NOTHING_HARD: Final = PartAdvice(
    id="nothing-hard",
    says="Against a coat or a plastic nothing hard is worn: a zip or a buckle undoes the work.",
    source="bench-practice",
    lifted_by="another material",
    applies=lambda job: job.material.family in ("coating", "plastic"),
    words="nothing-hard",
)
GRAPHITE: Final = PartAdvice(
    id="graphite",
    says="Grey iron does not become a clear mirror: graphite lets go of its surface.",
    source="bench-practice",
    lifted_by="a satin or a tool finish, or another material",
    applies=lambda job: "graphite" in job.material.tips and any(reflects_clearly(face) for face in _worked(job)),
    words="graphite",
)
THIN_PLATE: Final = PartAdvice(
    id="thin-plate",
    says="A plating is thinnest at its edges.",
    source="bench-practice",
    lifted_by="a face without a plating; platings as a material say it with their family",
    applies=lambda job: job.material.family != "plating" and any(face.limit_kind == "plated" for face in _worked(job)),
    words="plate",
)
CASTING_SKIN: Final = PartAdvice(
    id="casting-skin",
    says="A die casting is worked no deeper than its dense skin (advice.skin) where that can be.",
    source="bench-practice",
    lifted_by="shallower damage, or another material",
    applies=lambda job: (
        "skin" in job.material.tips
        and any(
            (found.worst or 0.0) >= constant("advice.skin").si and not found.stands_proud
            for face in _worked(job)
            for found in face.found_anywhere
        )
    ),
    words="skin",
)
TARNISH: Final = PartAdvice(
    id="tarnish",
    says="Bright silver tarnishes, and nothing protects it by itself.",
    source="bench-practice",
    lifted_by="a coat at the end, or another finish",
    applies=lambda job: (
        "tarnish" in job.material.tips
        and protection_of(job)[0] == "none"
        and any(reflects_clearly(face) for face in _worked(job))
    ),
    words="tarnish",
)
SWEEPINGS: Final = PartAdvice(
    id="sweepings",
    says="What comes off silver is worth keeping; gold says so with its family.",
    source="bench-practice",
    lifted_by="another material",
    applies=lambda job: "sweepings" in job.material.tips,
    words="sweepings",
)
CRAZES: Final = PartAdvice(
    id="crazes",
    says="Acrylic and polycarbonate craze under alcohol and solvents.",
    source="bench-practice",
    lifted_by="another material",
    applies=lambda job: "crazes" in job.material.tips,
    words="crazes",
)
BOWL: Final = PartAdvice(
    id="bowl",
    says="Many small parts (advice.many, advice.bowl_face) without a lay are a vibratory bowl's work.",
    source="bench-practice",
    lifted_by="fewer or larger parts, or a brushed finish",
    applies=_goes_into_a_bowl,
    words="bowl",
)
IN_THE_LATHE: Final = PartAdvice(
    id="in-the-lathe",
    says="Turned parts in numbers (advice.batch) are finished while they are still in the chuck.",
    source="bench-practice",
    lifted_by="fewer parts, or parts that were not turned",
    applies=_stays_in_the_chuck,
    words="in-the-lathe",
)
LOADS: Final = Advice(
    id="loads",
    says="Soft metal loads a dry belt, disc or wheel: a grease stick keeps it open.",
    source="bench-practice",
    lifted_by="wet work, work by hand, or a harder metal",
    applies=_loads,
    words="loads",
)
OVER_POLISHED: Final = Advice(
    id="over-polished",
    says="Hard steel (advice.hard) that is polished too long shows orange peel.",
    source="mould-finishes",
    lifted_by="a softer material, or a finish that does not reflect",
    applies=lambda step: (
        step.last
        and step.material.hardness >= constant("advice.hard").si
        and reflects_clearly(step.face)
        and not step.one.machine.turns_work
    ),
    words="over-polished",
)
LONG_STEP: Final = Advice(
    id="long-step",
    says="A step so long that its light check is likelier to fail than not (process.rework) bets that nothing is deeper than "
    "it takes off: a line that stays shows only at its light check, and the grade that was left out is the way back.",
    source="bench-practice",
    lifted_by="a grade between",
    applies=lambda step: step.leaps,
    words="long-step",
)
PITS: Final = Advice(
    id="pits-drag",
    says="A wheel drags the edges of pits into tails: they are ground out to their floor, filled, or accepted.",
    source="bench-practice",
    lifted_by="no pits",
    applies=lambda step: any(found.kind == "pits" for found in step.face.found_anywhere) and step.on_wheel,
    words="pits",
)
WORN_IN: Final = Advice(
    id="worn-in",
    says="Flap and non-woven wheels are used new for bulk, and worn in for blending and for the last pass.",
    source="bench-practice",
    lifted_by="a first, coarse step all over",
    applies=_eats_when_new,
    words="worn-in",
)
CUSHION: Final = Advice(
    id="cushion",
    says="Hand paper has a cushion under it on what is curved.",
    source="bench-practice",
    lifted_by="a flat face",
    applies=lambda step: step.one.tool.carrier.kin == "paper" and (step.face.curved or step.face.edge is not None),
    words="cushion",
)
BLOCK: Final = Advice(
    id="block",
    says="Hand paper has a hard block under it on what is flat.",
    source="bench-practice",
    lifted_by="a curved face",
    applies=lambda step: step.one.tool.carrier.kin == "paper" and step.face.is_flat,
    words="block",
)
BLACK: Final = Advice(
    id="black-cloth",
    says="What turns the cloth black is metal and spent compound: it is a sign of cutting, and no dirt of the part.",
    source="bench-practice",
    lifted_by="plastics and coats, which leave no black",
    applies=lambda step: (
        step.last
        and step.one.tool.carrier.cutting.wear_law == "compound"
        and step.material.family not in ("coating", "plastic")
    ),
    words="black",
)
STROKES: Final = Advice(
    id="strokes",
    says="What is guided over a face overlaps its strokes by half.",
    source="bench-practice",
    lifted_by="a wheel that stands, or a face as small as the tool",
    applies=_goes_in_strokes,
    words="strokes",
)
UNKNOWN: Final = Advice(
    id="try-on-scrap",
    says="A wheel that is used for the first time is tried on scrap of the same material.",
    source="bench-practice",
    lifted_by="a wheel that was used before",
    applies=lambda step: step.own is not None and step.own.commits,
    words="scrap",
)
HOT: Final = Advice(
    id="hot-in-hand",
    says="What gets too hot for a bare hand (heat.hand) is held in finger guards or a clamp, and has a block to lie on.",
    source="bench-practice",
    lifted_by="a clamp, or work that stays cool",
    applies=lambda step: step.hot_in_hand,
    words="hot",
)
AT_STEPS: Final = (LONG_STEP, PITS, WORN_IN, CUSHION, BLOCK, LOADS, STROKES, BLACK, OVER_POLISHED, UNKNOWN, HOT)
OF_PARTS: Final = (
    SHEET,
    UNWIELDY,
    STAYS,
    IN_THE_LATHE,
    BOWL,
    GRAPHITE,
    CASTING_SKIN,
    THIN_PLATE,
    CRAZES,
    NOTHING_HARD,
    TARNISH,
    SWEEPINGS,
)
