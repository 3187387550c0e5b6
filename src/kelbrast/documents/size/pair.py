"""Two parts beside each other: a bore and a shaft as size files with the clearance that is wanted, and the answer."""

from typing import Annotated

from pydantic import BaseModel, Field

from kelbrast.core.precision.pair import Pair, PairVerdict, Take
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.wording import tell
from kelbrast.documents.common.fields import Strict, shop
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.size.answer import SizeAnswer
from kelbrast.documents.size.format import SizeFile
from kelbrast.documents.size.wanted import Deviation


class PairFile(Strict):
    """A bore, its shaft, and the least and the largest clearance that are wanted, um on the diameter; below 0 it is pressed."""

    bore: SizeFile
    shaft: SizeFile
    clearance_um: Annotated[tuple[Deviation, Deviation], Field(strict=False)]


class TakeFile(BaseModel):
    """Which part to take, to which diameter; `off_um` is on the diameter."""

    kind: RoundKind
    to_mm: float
    off_um: float
    seconds: float
    why: str
    why_said: SentenceFile


class PairAnswer(BaseModel):
    """Both parts as they are, and the clearance where they are tightest and easiest. `warmer_um`: how much it
    grows when both are ten kelvins warmer. `takes` is empty where nothing is to be taken, or would help."""

    bore: SizeAnswer
    shaft: SizeAnswer
    least_um: float
    most_um: float
    pm_um: float
    warmer_um: float
    verdict: PairVerdict
    said: SentenceFile
    takes: list[TakeFile]
    trial: SentenceFile


def to_pair_answer(found: Pair, bore: SizeAnswer, shaft: SizeAnswer) -> PairAnswer:
    """The pair in the units of the files."""
    return PairAnswer(
        bore=bore,
        shaft=shaft,
        least_um=shop(found.least, "um"),
        most_um=shop(found.most, "um"),
        pm_um=shop(found.within, "um"),
        warmer_um=shop(found.warmer, "um"),
        verdict=found.verdict,
        said=to_sentence_file(found.said),
        takes=[_take(take) for take in found.takes],
        trial=to_sentence_file(found.trial),
    )


def _take(take: Take) -> TakeFile:
    return TakeFile(
        kind=take.kind,
        to_mm=shop(take.until, "mm"),
        off_um=shop(take.off, "um"),
        seconds=shop(take.seconds, "s"),
        why=tell(take.why),
        why_said=to_sentence_file(take.why),
    )
