"""What the eye saw, in words and places for a screen."""

import math
from typing import Final, Literal

from pydantic import BaseModel

from kelbrast.core.catalogue.grades import coarser_or_like
from kelbrast.core.reference.loader import eye
from kelbrast.core.units import to_si
from kelbrast.core.vision.light_check import CanNotSay, EyeSaw, LayShown, camera_shows
from kelbrast.core.wording import Measure, Sentence, sentence
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file

_AS_BEFORE = math.radians(15)  # the step before crosses the lay by the stated angle, by hand


USUAL_CROSSING: Final = round(math.degrees(eye("marks.crossing")), 1)


class EyeAnswer(BaseModel):
    """What the eye saw of two photos: `verdict`, or why it can say nothing. `lines`: x0, y0, x1, y1 in widths of photo 2.

    Angles anticlockwise from the right, degrees.
    """

    verdict: Literal["seen", "look-again", "none-seen", "refused"]
    said: list[SentenceFile]
    lines: list[tuple[float, float, float, float]]
    lay_deg: float | None
    angle_deg: float | None


class LayAnswer(BaseModel):
    """How the new marks run on photo 1, anticlockwise from the right, to be confirmed; null where they do not show, and why.

    `crossing_deg`: at which old marks cross them where nobody says otherwise.
    """

    lay_deg: float | None
    crossing_deg: float = USUAL_CROSSING
    said: list[SentenceFile]


class ShowsAnswer(BaseModel):
    """What a camera shows at a width, before any photo, and whether that is enough for what is looked for.

    `black`, `white`: of 255, where a pixel has lost its tone.  `gamma`: of the grey in a file to light. The live picture is
    measured by them.
    """

    enough: bool
    said: list[SentenceFile]
    black: float
    white: float
    gamma: float


def to_eye_answer(answer: EyeSaw | CanNotSay, *, width: int, crossing: float, before: str | None) -> EyeAnswer:
    """The answer for a screen.

    Args:
        width: of photo 2 in pixels.  crossing: at which the step before crosses the lay, rad.
        before: label of the step before; None for the first.
    """
    if isinstance(answer, CanNotSay):
        told = [refusal_said(answer)]
        return EyeAnswer(verdict="refused", said=told, lines=[], lay_deg=None, angle_deg=None)
    said = [_verdict(answer)]
    if answer.crossing is not None and "one-place" not in answer.doubts:
        said.append(_whose(answer.crossing, crossing, before))
    if answer.verdict != "seen":  # marks that are seen are there, however good the photos are
        said += [sentence(f"eye.doubt-{doubt}") for doubt in answer.doubts if doubt != "one-place"]
    if answer.sampled and answer.verdict != "seen":
        said.append(sentence("eye.sampled", share=f"{answer.looked_at:.0%}"))
    said.append(sentence("eye.not-seen", marks=Measure(answer.smallest, "depth"), away=_away()))
    return EyeAnswer(
        verdict=answer.verdict,
        said=_files(said),
        lines=[(line.x0 / width, line.y0 / width, line.x1 / width, line.y1 / width) for line in answer.lines],
        lay_deg=_degrees(answer.lay.angle),
        angle_deg=_degrees(answer.angle) if answer.angle is not None else None,
    )


def to_lay_answer(shown: LayShown | CanNotSay) -> LayAnswer:
    """The lay for a screen, to be confirmed."""
    if isinstance(shown, CanNotSay):
        return LayAnswer(lay_deg=None, said=[refusal_said(shown)])
    said = [sentence("eye.lay-found")]
    if shown.soft:
        said.append(sentence("eye.doubt-soft"))
    if shown.short_of_tone:
        said.append(sentence("eye.doubt-clipped"))
    return LayAnswer(lay_deg=_degrees(shown.lay.angle), said=_files(said))


def to_shows_answer(*, across_mm: float, pixels: int | None, grain: float, before: str | None) -> ShowsAnswer:
    """What a camera shows at a width.

    Args:
        pixels: of the picture's width; None: as phones have them.
        grain: of the marks that are looked for, m.  before: what left them; None: as found.
    """
    across = to_si(across_mm, "mm")
    pixels = pixels or int(eye("camera.pixels"))
    shows = camera_shows(pixel=across / pixels, grain=grain)
    finest = coarser_or_like("P", shows.finest).name
    said = [sentence("eye.shows", wide=Measure(across, "length"), finest=finest)]
    if shows.enough:
        said.append(sentence("eye.shows-before", before=before) if before else sentence("eye.shows-found"))
    else:
        wide = Measure(shows.most * pixels, "length")
        said.append(sentence("eye.too-wide", before=before, most=wide) if before else sentence("eye.found-too-wide", most=wide))
    black, white, gamma = (eye(path) for path in ("file.black", "file.white", "field.gamma"))
    return ShowsAnswer(enough=shows.enough, said=_files(said), black=black, white=white, gamma=gamma)


def _verdict(answer: EyeSaw) -> Sentence:
    if answer.verdict == "none-seen":
        return sentence("eye.none-seen", marks=Measure(answer.smallest, "depth"))
    if answer.crossing is None:
        return sentence("eye.unsure")
    at = f"{math.degrees(answer.crossing):.0f}°"
    return sentence("eye.one-place" if "one-place" in answer.doubts else f"eye.{answer.verdict}", at=at)


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
    if refused.why == "crossing":
        return sentence("eye.crossing", away=_away())
    what = {"what": str(refused.photo)} if refused.why in _OF_A_PHOTO else {}
    return sentence(f"eye.{refused.why}", **what)


def _away() -> str:
    """How far from the new marks old ones must run to be told."""
    return f"{math.degrees(eye('marks.away')):.0f}°"


_OF_A_PHOTO = ("small", "messenger", "dark", "clipped", "blurred", "no-lay-seen")


def _degrees(angle: float) -> float:
    return round(math.degrees(angle), 1)


def _files(said: list[Sentence]) -> list[SentenceFile]:
    return [to_sentence_file(fact) for fact in said]
