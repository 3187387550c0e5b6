"""How fast metal comes off: Archard's law."""

from kelbrast.core.errors import OutsideValidity


def removal_rate(*, wear: float, contact: float, force: float, speed: float, hardness: float) -> float:
    """Volume per second: `Q = contact K F v / H`.

    Args:
        wear: Archard coefficient K of the abrasive, dimensionless.
        contact: share of the time in real contact, 0 to 1.
        force: normal force, N.
        speed: surface speed, m/s.
        hardness: of the work, Pa.

    Returns:
        m3/s.

    Raises:
        OutsideValidity: a value is not above zero, or contact above 1.

    Source: Archard 1953; the same form as Preston 1927 for polishing.

    >>> round(removal_rate(wear=0.045, contact=0.8, force=25, speed=0.6, hardness=1.9e9) * 1e9, 3)  # mm3/s
    0.284
    """
    if min(wear, contact, force, speed, hardness) <= 0 or contact > 1:
        raise OutsideValidity("wear, contact, force, speed and hardness must be above 0, contact at most 1")
    return contact * wear * force * speed / hardness
