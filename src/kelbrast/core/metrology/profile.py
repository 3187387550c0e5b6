"""A measured profile: heights along a line, and what is done to it before it is evaluated."""

from dataclasses import dataclass, replace

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.gaussian import low_pass


@dataclass(frozen=True, slots=True)
class Profile:
    """Heights z (m) at equal spacing (m) along a line."""

    z: Reals
    spacing: float

    @property
    def length(self) -> float:
        return len(self.z) * self.spacing


def resampled(x: Reals, z: Reals) -> Profile:
    """A profile from points, put on equal spacing where they are not.

    Raises:
        OutsideValidity: fewer than 8 points, places that do not rise, or figures that are not numbers.
    """
    if len(x) < 8 or len(x) != len(z):
        raise OutsideValidity("a profile needs at least 8 points, each with a place and a height")
    if not (np.isfinite(x).all() and np.isfinite(z).all()):
        raise OutsideValidity("a profile must be numbers throughout")
    steps = np.diff(x)
    if (steps <= 0).any():
        raise OutsideValidity("the places of a profile must rise from point to point")
    spacing = float(steps.mean())
    even = x[0] + spacing * np.arange(len(x))
    return Profile(z.astype(float) if np.allclose(even, x, atol=0.01 * spacing) else np.interp(even, x, z), spacing)


def central(profile: Profile, length: float) -> Profile:
    """The central part of this length, m.

    Raises:
        OutsideValidity: it is longer than the profile.
    """
    count = round(length / profile.spacing)
    if not 8 <= count <= len(profile.z):
        said = f"a profile of {profile.length * 1e3:.4g} mm has no central part of {length * 1e3:.4g} mm"
        raise OutsideValidity(said)
    start = (len(profile.z) - count) // 2
    return replace(profile, z=profile.z[start : start + count])


def without_form(profile: Profile, degree: int) -> Profile:
    """The profile less the polynomial of this degree that fits it best; 0 takes the mean off, 1 a slope.

    Raises:
        OutsideValidity: a degree that is not between 0 and 12.
    """
    if not 0 <= degree <= 12:
        raise OutsideValidity("the degree of the form must lie between 0 and 12")
    # On a scale of -1 to 1 the powers stay well apart from each other.
    scale = np.linspace(-1.0, 1.0, len(profile.z))
    fitted = np.polynomial.Legendre.fit(scale, profile.z, degree, domain=[-1, 1])
    return replace(profile, z=profile.z - fitted(scale))


def roughness_profile(profile: Profile, *, cut_off: float, noise: float | None = None) -> Profile:
    """What is finer than the cut-off (lambda-c) and, where it is given, coarser than the noise (lambda-s), m.

    Raises:
        OutsideValidity: the profile is shorter than one cut-off, or the noise is not finer than it.
    """
    if profile.length < cut_off:
        raise OutsideValidity(f"a profile of {profile.length * 1e3:.4g} mm is shorter than one cut-off of {cut_off * 1e3:g} mm")
    if noise is not None and not 0 < noise < cut_off:
        raise OutsideValidity("lambda-s must be finer than lambda-c")
    primary = low_pass(profile.z, profile.spacing, noise) if noise is not None else profile.z
    return replace(profile, z=primary - low_pass(primary, profile.spacing, cut_off))
