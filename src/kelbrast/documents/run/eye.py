"""What the eye saw, in words and places for a screen."""

import math
from typing import Literal

from pydantic import BaseModel

from kelbrast.core.vision.light_check import CanNotSay, EyeSaw
from kelbrast.core.wording import Measure, Sentence, sentence
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file

_AS_BEFORE = math.radians(15)  # the step before crosses the lay by the stated angle, by hand


class EyeAnswer(BaseModel):
    """What the eye saw of two photos: `verdict`, or why it can say nothing. `lines`: x0, y0, x1, y1 in widths of photo 1.

    Angles anticlockwise from the right, degrees.
    """

    verdict: Literal["seen", "look-again", "none-seen", "refused"]
    said: list[SentenceFile]
    lines: list[tuple[float, float, float, float]]
    lay_deg: float | None
    angle_deg: float | None


def to_eye_answer(answer: EyeSaw | CanNotSay, *, width: int, crossing: float, before: str | None) -> EyeAnswer:
    """The answer for a screen.

    Args:
        width: of photo 1 in pixels.  crossing: at which the step before crosses the lay, rad.
        before: label of the step before; None for the first.
    """
    if isinstance(answer, CanNotSay):
        told = [refusal_said(answer)]
        return EyeAnswer(verdict="refused", said=told, lines=[], lay_deg=None, angle_deg=None)
    finest = Measure(answer.smallest, "depth")
    if answer.crossing is None:
        said = [sentence("eye.none-seen", marks=finest)]
    else:
        said = [sentence(f"eye.{answer.verdict}", at=f"{math.degrees(answer.crossing):.0f}°")]
        said.append(_whose(answer.crossing, crossing, before))
    said.append(sentence("eye.not-seen", marks=finest))
    return EyeAnswer(
        verdict=answer.verdict,
        said=_files(said),
        lines=[(line.x0 / width, line.y0 / width, line.x1 / width, line.y1 / width) for line in answer.lines],
        lay_deg=round(math.degrees(answer.lay.angle), 1),
        angle_deg=round(math.degrees(answer.angle), 1) if answer.angle is not None else None,
    )


def _whose(found: float, stated: float, before: str | None) -> Sentence:
    """Which step left marks that cross the lay like this."""
    if before is None:
        return sentence("eye.as-found")
    return sentence("eye.as-before", step=before) if abs(found - stated) <= _AS_BEFORE else sentence("eye.otherwise")


def refusal_said(refused: CanNotSay) -> SentenceFile:
    """Why nothing can be said, and what to do."""
    return to_sentence_file(refusal_sentence(refused))


def refusal_sentence(refused: CanNotSay) -> Sentence:
    """Why nothing can be said, and what to do, as a fact."""
    what = {"what": str(refused.photo)} if refused.why in _OF_A_PHOTO else {}
    return sentence(f"eye.{refused.why}", **what)


_OF_A_PHOTO = ("small", "messenger", "dark", "clipped", "blurred", "no-lay-seen")


def _files(said: list[Sentence]) -> list[SentenceFile]:
    return [to_sentence_file(fact) for fact in said]
