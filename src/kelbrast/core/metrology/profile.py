"""A measured profile: heights along a line, and what is done to it before it is evaluated: form, and the Gaussian filter of ISO
16610-21 (lines) and -61 (areas)."""

import math
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import Reals, require_above_zero, require_heights


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

    Equation: linear interpolation at `x0 + k mean(dx)` (m)
    Valid: at least 8 points with a place and a height each, numbers throughout, places that rise.

    Args:
        x: places, m.
        z: heights, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> resampled(np.arange(8) * 2e-6, np.zeros(8)).spacing
    2e-06
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
    """The central part of a profile.

    Equation: the middle `round(l / dx)` points (m)
    Valid: a length of at least 8 points and at most the profile's.

    Args:
        profile: m.
        length: l, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> central(Profile(np.arange(20.0), 1e-6), 10e-6).z.tolist()[0]
    5.0
    """
    require_above_zero(length=length)
    count = round(length / profile.spacing)
    if not 8 <= count <= len(profile.z):
        said = f"a profile of {profile.length * 1e3:.4g} mm has no central part of {length * 1e3:.4g} mm"
        raise OutsideValidity(said)
    start = (len(profile.z) - count) // 2
    return replace(profile, z=profile.z[start : start + count])


def without_form(profile: Profile, degree: int) -> Profile:
    """The profile less the polynomial that fits it best; degree 0 takes the mean off, 1 a slope.

    Equation: `z - sum c_k P_k(x)`, P_k of Legendre, by least squares (m)
    Valid: degree 0 to 12, heights that are numbers.

    Args:
        profile: m.
        degree: dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-21920.

    >>> bool(np.abs(without_form(Profile(np.arange(20.0), 1e-6), 1).z).max() < 1e-9)
    True
    """
    require_heights(profile.z, least=1, what="a profile")
    if not 0 <= degree <= 12:
        raise OutsideValidity("the degree of the form must lie between 0 and 12")
    # On a scale of -1 to 1 the powers stay well apart from each other.
    scale = np.linspace(-1.0, 1.0, len(profile.z))
    fitted = np.polynomial.Legendre.fit(scale, profile.z, degree, domain=[-1, 1])
    return replace(profile, z=profile.z - fitted(scale))


def roughness_profile(profile: Profile, *, cut_off: float, noise: float | None = None) -> Profile:
    """What is finer than the cut-off and, where it is given, coarser than the noise.

    Equation: `r = G_s z - G_c G_s z`, G the Gaussian low passes of lambda-s and lambda-c (m)
    Valid: at least one cut-off long, the noise finer than that, both above 0.

    Args:
        profile: without its form, m.
        cut_off: lambda-c, m.
        noise: lambda-s, m; None for none.

    Raises:
        OutsideValidity: outside that.

    Source: iso-16610.

    >>> bool(np.abs(roughness_profile(Profile(np.full(2000, 3.0), 1e-6), cut_off=0.8e-3).z).max() < 1e-9)
    True
    """
    require_above_zero(cut_off=cut_off)
    if profile.length < cut_off:
        raise OutsideValidity(f"a profile of {profile.length * 1e3:.4g} mm is shorter than one cut-off of {cut_off * 1e3:g} mm")
    if noise is not None and not 0 < noise < cut_off:
        raise OutsideValidity("lambda-s must be finer than lambda-c")
    primary = low_pass(profile.z, profile.spacing, noise) if noise is not None else profile.z
    return replace(profile, z=primary - low_pass(primary, profile.spacing, cut_off))


ALPHA: Final = math.sqrt(math.log(2) / math.pi)  # half of a wave at the cut-off passes
REACH: Final = 1.0  # cut-offs on each side to which the weights are taken; 0.75 would do


def low_pass(z: Reals, spacing: float, cut_off: float, axis: int = 0) -> Reals:
    """What is coarser than the cut-off, along one axis. At the ends the weights that are left are made to sum up to 1.

    Equation: `s(x) = exp(-pi (x / (alpha lambda_c))^2) / (alpha lambda_c)`, alpha = sqrt(ln 2 / pi) (1/m)
    Valid: spacing and cut-off above 0, heights that are numbers.

    Args:
        z: heights, m.
        spacing: of the points, m.
        cut_off: lambda_c, m.
        axis: along which it filters, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-16610.

    >>> wave = np.cos(2 * np.pi * np.arange(8000) / 800)  # as long as the cut-off: half of it passes
    >>> round(float(low_pass(wave, 1e-6, 0.8e-3)[4000]), 3)
    0.5
    """
    require_above_zero(spacing=spacing, cut_off=cut_off)
    require_heights(z, least=1, what="a surface")
    along = np.moveaxis(z, axis, -1)
    weights = _weights(spacing, cut_off, along.shape[-1])
    share = _convolved(np.ones(along.shape[-1]), weights)
    return np.asarray(np.moveaxis(_convolved(along, weights) / share, -1, axis))


def _convolved(z: Reals, weights: Reals) -> Reals:
    """The sum of the weights times the neighbours, along the last axis; beyond the ends there is nothing."""
    count, half = z.shape[-1], len(weights) // 2
    room = scipy.fft.next_fast_len(count + 2 * half, real=True)
    spectrum = np.fft.rfft(z, room) * np.fft.rfft(weights, room)
    return np.asarray(np.fft.irfft(spectrum, room)[..., half : half + count])


def _weights(spacing: float, cut_off: float, count: int) -> Reals:
    half = max(1, math.ceil(min(REACH * cut_off / spacing, count)))  # beyond the ends there is nothing to weigh
    at = np.arange(-half, half + 1) * spacing / (ALPHA * cut_off)
    weights = np.exp(-math.pi * at**2)
    return np.asarray(weights / weights.sum())
