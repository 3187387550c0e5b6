"""How fast metal comes off: Archard's law."""

from kelbrast.core.validity import require_above_zero, require_within


def removal_rate(*, wear: float, contact: float, force: float, speed: float, hardness: float) -> float:
    """Volume that an abrasive takes off in a second.

    Equation: `Q = eta K F v / H` (m3/s)
    Valid: every value above 0, eta at most 1.

    Args:
        wear: K, Archard coefficient of the abrasive, dimensionless.
        contact: eta, share of the time in real contact, dimensionless.
        force: F, normal force, N.
        speed: v, surface speed, m/s.
        hardness: H of the work, Pa.

    Raises:
        OutsideValidity: outside that.

    Source: archard, rabinowicz.

    >>> round(removal_rate(wear=0.045, contact=0.8, force=25, speed=0.6, hardness=1.9e9) * 1e9, 3)  # mm3/s
    0.284
    """
    require_above_zero(wear=wear, force=force, speed=speed, hardness=hardness, contact=contact)
    require_within(0, 1, contact=contact)
    return contact * wear * force * speed / hardness
