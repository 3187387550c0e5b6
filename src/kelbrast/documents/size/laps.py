"""Laps of the rack on a work, in the units of the files."""

from pydantic import BaseModel

from kelbrast.core.precision.lap import LapAtHand
from kelbrast.documents.common.numbers import shop, shop_or_none
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file


class LapAtHandFile(BaseModel):
    """A lap of the rack on this work: whether it can, and how or why not. `set_out_um`: on the diameter, until it slides;
    `set_out`: so many turns of its screw, or millimetres of travel of its arbor (`by`); null where it was never calibrated."""

    item: int
    name: str
    able: bool
    said: SentenceFile
    now_mm: float | None
    set_out_um: float | None
    set_out: float | None
    by: str
    worn_um: float | None


def to_laps_file(found: tuple[LapAtHand, ...]) -> list[LapAtHandFile]:
    """In the units of the files."""
    return [_one(lap) for lap in found]


def _one(lap: LapAtHand) -> LapAtHandFile:
    travel = lap.item.by_travel
    return LapAtHandFile(
        item=lap.item.id,
        name=lap.item.name or lap.item.what,
        able=lap.able,
        said=to_sentence_file(lap.said),
        now_mm=shop_or_none(lap.now, "mm"),
        set_out_um=shop_or_none(lap.slides, "um"),
        set_out=None if lap.turns is None else shop(lap.turns, "mm" if travel else "1"),
        by="mm" if travel else "turn",
        worn_um=shop_or_none(lap.worn, "um"),
    )
