"""A patch under a low lamp, as a picture."""

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import gaussian_filter

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.areal import finer_than
from kelbrast.core.metrology.optics import reflected_share
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.simulation.patch import Patch
from kelbrast.core.validity import Flags, Reals, require_above_zero, require_within

Picture = NDArray[np.uint8]


@dataclass(frozen=True, slots=True)
class Look:
    """How a material looks: the colour of its reflection (0 to 1 each), and the share of light that its body gives back."""

    colour: tuple[float, float, float]
    body: float


@dataclass(frozen=True, slots=True)
class Lamp:
    """A lamp at the side: how high above the surface, and from where (rad, anticlockwise from the right)."""

    height: float = field(default_factory=lambda: constant("light.height").si)
    direction: float = field(default_factory=lambda: constant("light.direction").si)


def look_of(material: Material) -> Look:
    """How a material looks.

    Equation: the row of `looks.toml` of the material or its family (dimensionless)
    Valid: every material.

    Args:
        material: whose look it is.

    Raises:
        ReadError: the looks cannot be read.

    Source: looks.

    >>> from kelbrast.core.catalogue.materials import material
    >>> look_of(material("brass")).colour[2] < look_of(material("mild-steel")).colour[2]
    True
    """
    row = record("looks")[material.look]
    red, green, blue = (share.value for share in row["reflects"])
    return Look((red, green, blue), row["body"].value)


def lit(patch: Patch, look: Look, lamp: Lamp, *, gain: float = 1.0) -> Picture:
    """The patch from above, lit by the lamp: rows, columns and three colours of 0 to 255.

    Each point reflects the lamp by the slope it has there; a smooth surface sends a low lamp's light away from the eye and
    stays dark and even, a mark across the light flares.

    Equation: `I = room + body max(0, n l) + mirror max(0, n h)^40`, n normal, h halfway from lamp l to eye (dimensionless)
    Valid: gain above 0; the lamp above the surface.

    Args:
        patch: heights, m.
        look: of the material, shares of light, dimensionless.
        lamp: height and direction, rad.
        gain: makes slopes steeper for the eye, as a loupe and a dark room do, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: looks.

    >>> flat = Patch(np.zeros((20, 30)), 8e-6)
    >>> lit(flat, Look((0.9, 0.8, 0.5), 0.1), Lamp()).shape
    (20, 30, 3)
    """
    require_above_zero(gain=gain)
    require_within(0, math.pi, height=lamp.height)
    dy, dx = np.gradient(patch.z, patch.spacing)
    dx, dy = dx * gain, -dy * gain  # the picture's rows run down
    up = 1 / np.sqrt(1 + dx**2 + dy**2)
    normal = np.stack([-dx * up, -dy * up, up])
    low = math.cos(lamp.height)
    to_lamp = np.array([low * math.cos(lamp.direction), low * math.sin(lamp.direction), math.sin(lamp.height)])
    halfway = to_lamp + np.array([0.0, 0.0, 1.0])
    halfway /= np.linalg.norm(halfway)
    facing = np.clip(np.tensordot(to_lamp, normal, axes=1), 0, 1)
    mirrored = np.clip(np.tensordot(halfway, normal, axes=1), 0, 1) ** _of("sharpness")
    room = _of("room") + _of("above") * normal[1] + _falling_off(patch)
    shiny = 1 - look.body
    light = _of("lamp") * facing * (look.body + _of("dull") * shiny) + _of("glint") * shiny * mirrored + room
    light += _reflection(patch, dx / gain)
    white = _of("white") * mirrored[..., None]
    bright = light[..., None] * (np.array(look.colour) * (1 - white) + white)
    return np.asarray(np.clip(255 * np.clip(bright, 0, 1) ** (1 / _of("gamma")), 0, 255).astype(np.uint8))


def outlined(picture: Picture, marks: Flags) -> Picture:
    """The picture with these marks drawn over in a strong dark red, and the rest paler: not the colour alone tells.

    Equation: `c' = 128 + 0.55 (c - 128) + 30` beside the marks (dimensionless)
    Valid: marks of the picture's size.

    Args:
        picture: colours of 0 to 255, dimensionless.
        marks: where they are, flags.

    Raises:
        OutsideValidity: outside that.

    Source: looks.

    >>> outlined(np.zeros((1, 2, 3), dtype=np.uint8), np.array([[True, False]])).tolist()
    [[[176, 32, 24], [87, 87, 87]]]
    """
    if marks.shape != picture.shape[:2]:
        raise OutsideValidity("the marks must be of the size of the picture")
    pale = 128 + 0.55 * (picture.astype(float) - 128) + 30
    shown = np.where(marks[..., None], np.array([176.0, 32.0, 24.0]), pale)
    return np.asarray(np.clip(shown, 0, 255).astype(np.uint8))


def reflected(patch: Patch) -> float:
    """The share of light that a patch throws back as a mirror does, by what is finer than its ripple.

    Equation: `exp(-(4 pi Rq cos a / lambda)^2)`, Rq of what is shorter than 0.25 mm (dimensionless)
    Valid: every patch.

    Args:
        patch: heights, m.

    Raises:
        OutsideValidity: its angle or wavelength could not be.

    Source: bennett-porteus, our-choice.

    >>> reflected(Patch(np.zeros((20, 30)), 8e-6))
    1.0
    """
    fine = finer_than(patch.z, (patch.spacing, patch.spacing), constant("gloss.ripple").si)
    wavelength, angle = constant("gloss.wavelength").si, constant("light.tube_angle").si
    return reflected_share(rq=float(np.std(fine)), wavelength=wavelength, angle=angle)


def _reflection(patch: Patch, slope: Any) -> Reals:
    """A lamp tube that is seen in the surface: as sharp as the roughness lets it be, and bent by the slopes that are left."""
    share, lean = reflected(patch), _of("tube_lean")
    across = np.linspace(0.0, 1.0, patch.z.shape[1])[None, :] + np.linspace(-lean, lean, patch.z.shape[0])[:, None]
    width = _of("tube_width") + _of("tube_blur") * (1 - share)
    return np.asarray(_of("tube") * share * np.exp(-(((across - _of("tube_at") + _of("tube_bend") * slope) / width) ** 2)))


def _falling_off(patch: Patch) -> Reals:
    """A little brighter towards the lamp's side, as a bench lamp is."""
    near = _of("near")
    return np.broadcast_to(np.linspace(near, near - _of("fall"), patch.z.shape[1]), patch.z.shape)


def _of(figure: str) -> float:
    return constant(f"light.{figure}").si


def told_apart(one: Picture, other: Picture) -> float:
    """How far two pictures of one patch differ, against the contrast of the first's own texture (both seen without the finest
    grain, as an eye at arm's length does).

    Equation: `C = rms(G * (a - b)) / max(sd(G * a), 2)` (dimensionless), a and b grey values 0 to 255, G a blur of 1.2 points
    Valid: pictures of one size.

    Args:
        one: picture, three colours of 0 to 255, dimensionless.
        other: the same, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> flat = np.full((20, 30, 3), 80, dtype=np.uint8)
    >>> told_apart(flat, flat), told_apart(flat, flat + np.uint8(4))
    (0.0, 2.0)
    """
    if one.shape != other.shape:
        raise OutsideValidity("the pictures must have one size")
    first, second = (gaussian_filter(picture.astype(float).mean(axis=2), _of("seen_blur")) for picture in (one, other))
    return round(float(np.sqrt(np.mean((first - second) ** 2)) / max(float(first.std()), _of("seen_noise"))), 6)
