"""Photos of a worked face as a phone takes them, made by the planner's laws: marks, lamp, lens, sensor, and what a messenger does.

They are to try the eye on and to train it. They are no photos: what they leave out (rust, prints of fingers, a lens in use) is
not tried here.
"""

import io
import math
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from scipy import ndimage

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.simulation.marks import Marks
from kelbrast.core.simulation.patch import FoundPatch, Patch, Working, found_patch, old_marks, worked

OVERSAMPLED = 2


@dataclass(frozen=True)
class Face:
    """A face after a step across what was there: `share` of its time; 1 and more for a clean one. Angles: rad, anticlockwise."""

    before: str = "P240"
    own: str = "P600"
    share: float = 1.0
    crossing: float = math.radians(70)
    lay: float = math.radians(20)
    hardness: float = 130.0
    one_way: bool = True


@dataclass(frozen=True)
class Shot:
    """How it is photographed. The lamp: from where (rad, anticlockwise) and how high; `um`: micrometres to a pixel."""

    lamp: float = 0.0
    height: float = math.radians(11)
    um: float = 10.0
    pixels: tuple[int, int] = (896, 896)
    body: float = 0.25
    blur: float = 0.7
    noise: float = 0.012
    dirt: int = 4
    exposure: float = 0.5
    tilt: float = 0.0
    falloff: float = 0.25
    quality: int = 95
    second_lamp: float | None = None
    turned: float = 0.0
    seed: int = field(default=0)


@dataclass(frozen=True)
class Surface:
    """The heights of a face at the photo's sampling, and the share of it where old marks are left."""

    patch: Patch
    old: float


def depth_of(grade: str, hardness: float) -> tuple[float, float]:
    grain = parse_grade(grade).grain
    return depth_of_marks(roughness_left(grain=grain, hold=1.0, hardness=hardness)), grain


def surface(face: Face, shot: Shot) -> Surface:
    """The face itself, which stays as it is however it is photographed."""
    return _surface(face, shot.um, shot.pixels, shot.seed)


@lru_cache(maxsize=4)
def _surface(face: Face, um: float, pixels: tuple[int, int], seed: int) -> Surface:
    spacing = um * 1e-6 / OVERSAMPLED
    size = (pixels[0] * OVERSAMPLED, pixels[1] * OVERSAMPLED)
    deep, coarse = depth_of(face.before, face.hardness)
    own_deep, fine = depth_of(face.own, face.hardness)
    lay = "one-way" if face.one_way else "none"
    # The patch counts its angles the way its rows run, downwards.
    found = FoundPatch("lay", deep, coarse, -(face.lay + face.crossing))
    before = found_patch(found, size, spacing, seed=seed)
    # What a plan has such a step take off in its time: the deepest marks and a tenth over them.
    layer = 1.1 * deep
    step = Working(layer, Marks(own_deep, fine, lay, -face.lay), share=face.share, seed=seed + 1)
    after = worked(before, step)
    return Surface(after, float(old_marks(before, after).mean()))


def light(heights: NDArray[np.float64], spacing: float, lamp: float, height: float, body: float) -> NDArray[np.float64]:
    """What comes back to a camera above: a broad lobe and a narrow one about the mirror direction, and the body's own light."""
    dy, dx = np.gradient(heights, spacing)
    dy = -dy  # rows run down
    up = 1 / np.sqrt(1 + dx**2 + dy**2)
    to = np.array([math.cos(height) * math.cos(lamp), math.cos(height) * math.sin(lamp), math.sin(height)])
    half = to + np.array([0.0, 0.0, 1.0])
    half /= np.linalg.norm(half)
    facing = np.clip((-dx * to[0] - dy * to[1] + to[2]) * up, 0, None)
    mirrored = np.clip((-dx * half[0] - dy * half[1] + half[2]) * up, 0, 1)
    broad = np.square(np.square(mirrored) * mirrored)  # **6; numpy is slow at powers of many numbers
    broad *= broad
    narrow = np.square(np.square(broad)) * broad  # **60
    return np.asarray(body * facing + (1 - body) * (0.6 * broad + 0.4 * narrow) + 0.02)


def photographed(face: Face, shot: Shot) -> tuple[bytes, float]:
    """The photo as a JPEG file, and the share of the field where old marks are left."""
    return _shot(face, shot), surface(face, shot).old


def both(face: Face, first: Shot, second: Shot) -> tuple[bytes, bytes, float]:
    """Two photos of the same face under two lamps."""
    other = replace(second, um=first.um, pixels=first.pixels, seed=first.seed)
    return _shot(face, first), _shot(face, other), surface(face, first).old


@lru_cache(maxsize=16)
def _shot(face: Face, shot: Shot) -> bytes:
    patch = surface(face, shot).patch
    chance = np.random.default_rng([shot.seed, round(1000 * (shot.lamp % math.tau))])
    bright = light(patch.z, patch.spacing, shot.lamp, shot.height, shot.body)
    if shot.second_lamp is not None:
        bright = bright + light(patch.z, patch.spacing, shot.second_lamp, shot.height, shot.body)
    if shot.turned:
        bright = ndimage.rotate(bright, math.degrees(shot.turned), reshape=False, order=1, mode="reflect")
    rows, columns = bright.shape
    y, x = np.mgrid[0:rows, 0:columns]
    towards = (x / columns - 0.5) * math.cos(shot.lamp) - (y / rows - 0.5) * math.sin(shot.lamp)
    bright = bright * (1 + shot.falloff * 2 * towards) * (1 - 0.25 * ((x / columns - 0.5) ** 2 + (y / rows - 0.5) ** 2))
    bright = _dirty(bright, shot, np.random.default_rng([shot.seed, 7]))  # it lies there under every lamp
    if shot.tilt:
        scale = 1 + shot.tilt * (y / rows - 0.5)
        at_x = (x - columns / 2) * scale + columns / 2
        bright = ndimage.map_coordinates(bright, [y, at_x], order=1, mode="reflect")
    bright = ndimage.gaussian_filter(bright, shot.blur * OVERSAMPLED)
    bright = bright.reshape(rows // OVERSAMPLED, OVERSAMPLED, columns // OVERSAMPLED, OVERSAMPLED).mean(axis=(1, 3))
    bright *= shot.exposure**2.2 / bright.mean()
    bright += chance.standard_normal(bright.shape) * shot.noise * np.sqrt(np.clip(bright, 0.002, 1) * 0.2)
    grey = np.clip(255 * np.clip(bright, 0, 1) ** (1 / 2.2), 0, 255).astype(np.uint8)
    out = io.BytesIO()
    Image.fromarray(grey).convert("RGB").save(out, "JPEG", quality=shot.quality)
    return out.getvalue()


def _dirty(bright: NDArray[np.float64], shot: Shot, chance: np.random.Generator) -> NDArray[np.float64]:
    """Dust and lint: specks and short bent threads, lighter or darker."""
    rows, columns = bright.shape
    veil = np.ones_like(bright)
    for _ in range(shot.dirt):
        at, turn = chance.uniform(0, 1, 2) * (rows, columns), chance.uniform(0, 2 * math.pi)
        for _ in range(int(chance.integers(1, 120))):
            turn += chance.normal(0, 0.15)
            at = at + 1.5 * np.array([math.sin(turn), math.cos(turn)])
            r, c = int(at[0]) % rows, int(at[1]) % columns
            veil[max(0, r - 1) : r + 2, max(0, c - 1) : c + 2] = 1.6 if turn % 2 < 1 else 0.6
    return bright * veil


def messenger(photo: bytes) -> bytes:
    """What comes out of a messenger: smaller and compressed hard."""
    with Image.open(io.BytesIO(photo)) as picture:
        out = io.BytesIO()
        picture.save(out, "JPEG", quality=35)
    return out.getvalue()
