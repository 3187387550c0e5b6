"""How many old marks are left, in words: nobody can count them, and the figure is not known so finely."""

from typing import Final

from kelbrast.core.validity import require_not_below_zero, require_within
from kelbrast.core.wording import Sentence, sentence

# Up to this share of them, by the keys of `sentences.toml`. Words have no source: these are ours.
_SHARES: Final = (
    (0.004, "few"),
    (0.03, "hundredth"),
    (0.2, "tenth"),
    (0.4, "third"),
    (0.6, "half"),
    (0.9, "most"),
    (1.0, "all"),
)
_NONE: Final = 0.5  # marks; fewer can be expected not to be there
_HANDFUL: Final = 10.0  # marks that one can count on the part


def marks_said(expected: float, share: float) -> Sentence:
    """So many old marks can be expected to be left, in words.

    Equation: none below half a mark, a handful below ten, else by the share (words)
    Valid: their number not below 0, the share between 0 and 1.

    Args:
        expected: their number, dimensionless.
        share: of all there were, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> str(marks_said(0.2, 1e-6)), str(marks_said(4, 1e-5)), str(marks_said(17_000, 0.09)), str(marks_said(3, 1.0))
    ('no old marks', 'a handful of old marks', 'one in ten of the old marks', 'all of the old marks')
    """
    require_not_below_zero(expected=expected)
    require_within(0, 1, share=share)
    if expected < _NONE:
        return sentence("marks.none")
    if share > 0.99:
        return sentence("marks.every")
    if expected < _HANDFUL:
        return sentence("marks.handful")
    return sentence(f"marks.{next(key for most, key in _SHARES if share <= most)}")
