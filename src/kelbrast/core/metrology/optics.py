"""What roughness leaves of a reflection."""

import math

from kelbrast.core.errors import OutsideValidity


def reflected_share(*, rq: float, wavelength: float, angle: float = 0.0) -> float:
    """Share of the light that is still reflected as by a mirror: `exp(-(4 pi Rq cos(angle) / wavelength)^2)`.

    Args:
        rq: m, small against the wavelength.  wavelength: m.  angle: of the light from the normal, rad.

    Source: H. E. Bennett, J. O. Porteus, J. Opt. Soc. Am. 51 (1961) 123.

    >>> round(reflected_share(rq=10e-9, wavelength=632.8e-9), 6)
    0.961332
    """
    if rq < 0 or wavelength <= 0 or not 0 <= angle < math.pi / 2:
        raise OutsideValidity("Rq must not be below 0, the wavelength above it, and the angle below 90 degrees")
    return math.exp(-((4 * math.pi * rq * math.cos(angle) / wavelength) ** 2))
