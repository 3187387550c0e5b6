"""What roughness leaves of a reflection."""

import math

from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within


def reflected_share(*, rq: float, wavelength: float, angle: float = 0.0) -> float:
    """Share of the light that is still reflected as by a mirror.

    Equation: `R = exp(-(4 pi Rq cos(theta) / lambda)^2)` (dimensionless)
    Valid: Rq not below 0 and small against the wavelength, that above 0, the angle from 0 to below a right one.

    Args:
        rq: Rq, m.
        wavelength: lambda, m.
        angle: theta, of the light from the normal, rad.

    Raises:
        OutsideValidity: outside that.

    Source: bennett-porteus.

    >>> round(reflected_share(rq=10e-9, wavelength=632.8e-9), 6)
    0.961332
    """
    require_not_below_zero(rq=rq)
    require_above_zero(wavelength=wavelength)
    require_within(0, math.nextafter(math.pi / 2, 0), angle=angle)
    return math.exp(-((4 * math.pi * rq * math.cos(angle) / wavelength) ** 2))
