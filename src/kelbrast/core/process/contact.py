"""How much of its contact a tool keeps on a face smaller than itself, or with a part that is unwieldy at a machine."""

from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_not_below_zero


def contact_kept(times: float) -> float:
    """The share of its contact with the work that a tool keeps.

    A pad that is larger than the face touches with less of itself, and a part that is hard to hold to a wheel leaves it more
    often. Below the size that suits it nothing is lost; far beyond it the time does not fall with the area any more.

    Equation: `(1 + x^n)^(-1/n)` (dimensionless)
    Valid: not below 0.

    Args:
        times: x, how many times the tool is larger than suits the face, or the part more unwieldy than suits the machine,
            dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> [round(contact_kept(one), 2) for one in (0.0, 0.5, 1.0, 3.0)]
    [1.0, 1.0, 0.89, 0.33]
    """
    require_not_below_zero(times=times)
    power = constant("work.contact_fades").value
    kept: float = (1 + times**power) ** (-1 / power)
    return kept
