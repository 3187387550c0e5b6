"""Advice: good practice for a step or a part, each in a line where it applies."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.job import Job
from kelbrast.core.rack.offer import OwnTool
from kelbrast.core.reference.loader import constant, record
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
        leaps: it goes further than doubling from grade to grade does.
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
    return tuple(str(words[one.words]) for one in AT_STEPS if one.applies(step))


def part_advice(job: Job) -> tuple[str, ...]:
    """What is good to know of the whole part."""
    words = record("advice")["advice"]
    return tuple(str(words[one.words]) for one in OF_PARTS if one.applies(job))


def _is_small_sheet(face: Face) -> bool:
    small = face.area <= constant("advice.small_sheet").si and face.is_flat and face.gauged.shape == "plate"
    return small and face.thickness is not None and face.thickness <= constant("advice.sheet").si


def _goes_in_strokes(step: AtStep) -> bool:
    many = step.face.area > constant("advice.strokes").value * step.one.tool.carrier.running.patch
    return not step.one.machine.stands and not step.one.machine.turns_work and many and step.face.edge is None


def _eats_when_new(step: AtStep) -> bool:
    return step.one.tool.carrier.kind in ("flap wheel", "non-woven") and (step.blends or (step.last and not step.first))


SHEET: Final = PartAdvice(
    id="cut-after",
    says="A small flat piece of thin sheet has more edge than face: it is polished in a larger sheet and cut out after.",
    source="bench-practice",
    lifted_by="a piece that is cut already, or a larger one",
    applies=lambda job: any(_is_small_sheet(face) for face in job.faces),
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
LONG_STEP: Final = Advice(
    id="long-step",
    says="A step that goes further than doubling bets that nothing is deeper than it takes off: a line that stays shows only "
    "at its light check, and the grade that was left out is the way back.",
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
    applies=lambda step: step.face.found.kind == "pits" and step.on_wheel,
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
    applies=lambda step: step.one.tool.carrier.id == "paper" and (step.face.curved or step.face.edge is not None),
    words="cushion",
)
BLOCK: Final = Advice(
    id="block",
    says="Hand paper has a hard block under it on what is flat.",
    source="bench-practice",
    lifted_by="a curved face",
    applies=lambda step: step.one.tool.carrier.id == "paper" and step.face.is_flat,
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
AT_STEPS: Final = (LONG_STEP, PITS, WORN_IN, CUSHION, BLOCK, STROKES, BLACK, UNKNOWN, HOT)
OF_PARTS: Final = (SHEET, UNWIELDY, STAYS, NOTHING_HARD)
