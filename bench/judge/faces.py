"""Worked faces from another process than the program's simulator, with dirt on them. All lengths in mm, angles in rad.

The simulator lays straight grooves of one profile over each other. Here the lay is a random field that is stretched along it,
skewed to grooves, and bent; what was there before is a field of its own with deep grooves drawn into it that wander, chatter,
touch only in parts and curve. Nothing of the program is imported, so that it cannot be judged by its own assumptions.
"""

import math
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

Reals = NDArray[np.float64]
_SEEN = 1e-4  # mm: what lies less deep, an eighth of a wave of light, is no mark

# Median grain by ISO 6344 (FEPA P), from memory. All other figures of a face are assumed, and drawn from wide ranges.
GRAIN_MM = {
    "P80": 0.201,
    "P120": 0.125,
    "P180": 0.082,
    "P240": 0.0585,
    "P320": 0.0462,
    "P400": 0.035,
    "P600": 0.0258,
    "P800": 0.0218,
}


@dataclass(frozen=True)
class Dirt:
    """What lies on the face: places in it from 0 to 1, sizes in mm."""

    fibres: int = 0
    dust: int = 0
    prints: int = 0
    drops: int = 0
    smear: bool = False


@dataclass(frozen=True)
class Face:
    """A face after a step across what was there before; `left`: share of it on which that is still the surface (0: clean)."""

    before: str
    own: str
    lay: float
    crossing: float
    left: float
    pits: int = 0
    ripple: float = 0.0
    patina: float = 0.0
    scatter: float = math.radians(1.5)
    bow: float = 0.0
    dirt: Dirt = field(default_factory=Dirt)
    seed: int = 0


@dataclass(frozen=True)
class Surface:
    """Heights (rows run down) at a spacing, where old marks are left, and how much of each place is oxide, oil or deposit."""

    z: Reals
    spacing: float
    old: NDArray[np.bool_]
    oxide: Reals
    film: Reals
    deposit: Reals


def surface(face: Face, size: tuple[int, int], spacing: float) -> Surface:
    """The face's heights and what covers it; the old surface stays wherever it lies below the new one."""
    chance = np.random.default_rng(face.seed)
    grain, fine = GRAIN_MM[face.before], GRAIN_MM[face.own]
    rows, columns = size
    y, x = np.mgrid[0:rows, 0:columns] * spacing
    centre = (x - columns * spacing / 2, -(y - rows * spacing / 2))
    old = _grooved(centre, face.lay + face.crossing, grain * chance.uniform(0.02, 0.05), grain, chance, 0.0)
    deep = grain * chance.uniform(0.05, 0.11)
    _draw_grooves(old, spacing, face.lay + face.crossing, grain, deep, face.scatter, chance)
    # A groove is not left on every place alike: the pad pressed more here than there.
    pressed = _cloud(size, spacing, 2.5, chance) * 0.08 * deep
    new = _grooved(centre, face.lay, fine * chance.uniform(0.03, 0.06), fine, chance, face.bow)
    old -= pressed
    # So deep that the wanted share of the old surface is below it.
    lies = _level(old, new, face.left)
    z = np.minimum(old, new + lies)
    left = old < new + lies - _SEEN
    z += _ripple(centre, face.ripple, chance)
    for _ in range(face.pits):
        _pit(z, spacing, chance)
    covers = (
        np.clip(_cloud(size, spacing, chance.uniform(1.0, 4.0), chance) + face.patina * 2 - 2, 0, 0.5)
        if face.patina
        else np.zeros(size),
        np.zeros(size),
        np.zeros(size),
    )
    oxide, film, deposit = covers
    for _ in range(face.dirt.prints):
        film = np.maximum(film, _print(x, y, chance))
    if face.dirt.smear:
        film = np.maximum(film, np.clip(0.5 * _cloud(size, spacing, 3.0, chance), 0, 0.7))
    for _ in range(face.dirt.drops):
        deposit = np.maximum(deposit, _drop(x, y, chance))
    return Surface(z, spacing, left, oxide, film, deposit)


def _level(old: Reals, new: Reals, left: float) -> float:
    """How deep the new surface lies, so that the old one is clearly below it on a share of the face."""
    gap = np.sort((old - new).ravel())
    return float(gap[round(left * (len(gap) - 1))]) + (_SEEN if left > 0 else -1e-6)


def _grooved(
    centre: tuple[Reals, Reals], lay: float, deep: float, grain: float, chance: np.random.Generator, bow: float
) -> Reals:
    """A lay: a field stretched along it, skewed so that it is plateaus with grooves; it wanders, and bends by `bow` (1/mm)."""
    x, y = centre
    s = x * math.cos(lay) + y * math.sin(lay)
    n = -x * math.sin(lay) + y * math.cos(lay)
    spacing = float(abs(x[0, 1] - x[0, 0]))
    n = n + bow * s**2 / 2 + grain * 0.6 * _cloud(x.shape, spacing, 3.0, chance)
    reach = float(max(np.ptp(s), np.ptp(n))) + 1.0
    # In coordinates along and across the lay, drawn finely across and coarsely along.
    across, along = 0.16 * grain, chance.uniform(6, 20) * grain
    step_n, step_s = max(across / 2.5, spacing / 2), along / 6
    noise = chance.standard_normal((int(reach / step_s) + 8, int(reach / step_n) + 8))
    wide = ndimage.gaussian_filter(noise, (along / step_s / 2, across / step_n))
    wider = ndimage.gaussian_filter(chance.standard_normal(noise.shape), (along / step_s, 2.5 * across / step_n))
    mixed = wide / wide.std() + 0.6 * wider / wider.std()
    grooves = -np.log1p(np.exp(1.7 * mixed / mixed.std() - 0.6))
    at = [(s - s.min()) / step_s + 2, (n - n.min()) / step_n + 2]
    z = ndimage.map_coordinates(grooves, at, order=1, mode="reflect")
    chatter = 1 + 0.15 * np.sin(2 * math.pi * s / chance.uniform(0.3, 1.2) + 3 * _cloud(x.shape, spacing, 2.0, chance))
    z = z * chatter
    return np.asarray((z - np.quantile(z[::5, ::5], 0.9)) * deep / max(float(z.std()), 1e-9) / 2)


def _draw_grooves(
    z: Reals, spacing: float, way: float, grain: float, deep: float, scatter: float, chance: np.random.Generator
) -> None:
    """Deep grooves along `way`, each with a course, depth and profile of its own."""
    rows, columns = z.shape
    many = int(rows * columns * spacing**2 * chance.uniform(0.5, 1.5) / (grain * 12 * grain * 12) * 1.5) + 6
    for _ in range(min(many, 1500)):
        length = grain * float(np.exp(chance.normal(math.log(28), 0.7)))
        depth = deep * (0.25 + chance.exponential(0.35))
        width = depth / math.tan(math.radians(chance.uniform(7, 18)))
        count = max(8, int(length / spacing * 1.6))
        s = np.linspace(-length / 2, length / 2, count)
        turn = way + chance.normal(0, scatter)
        curve = chance.normal(0, 0.006) * s**2 / 2
        wander = np.cumsum(chance.standard_normal(count)) * width * 0.25 / math.sqrt(count)
        side = curve + wander
        ends = np.clip((length / 2 - np.abs(s)) / (0.15 * length), 0, 1)
        chatter = 1 + 0.35 * np.sin(2 * math.pi * s / chance.uniform(0.15, 0.9) + chance.uniform(0, 6))
        gone = ndimage.gaussian_filter1d(chance.standard_normal(count), max(2, count / 14))
        touch = np.clip(1.4 + 1.6 * gone / max(float(gone.std()), 1e-9), 0, 1)
        d = depth * ends * chatter * touch
        x0, y0 = chance.uniform(0, columns * spacing), chance.uniform(0, rows * spacing)
        reach = 1.7 * width
        offsets = np.arange(-reach, reach + spacing / 2, spacing / 1.5)
        t = np.abs(offsets) / width
        profile = np.clip(1 - t, 0, 1) ** chance.uniform(0.8, 1.6) - 0.18 * np.exp(-(((t - 1.2) / 0.25) ** 2))
        px = x0 + np.add.outer(s * math.cos(turn) - side * math.sin(turn), -offsets * math.sin(turn))
        py = y0 - np.add.outer(s * math.sin(turn) + side * math.cos(turn), offsets * math.cos(turn))
        ix, iy = np.rint(px / spacing).astype(int), np.rint(py / spacing).astype(int)
        inside = (ix >= 0) & (ix < columns) & (iy >= 0) & (iy < rows)
        cut = np.outer(d, profile)
        np.minimum.at(z, (iy[inside], ix[inside]), -cut[inside])


def _cloud(size: tuple[int, int], spacing: float, length: float, chance: np.random.Generator) -> Reals:
    """A smooth random field of one deviation, its waves about `length` mm long."""
    coarse = max(1, int(length / spacing / 8))
    small = chance.standard_normal((size[0] // coarse + 4, size[1] // coarse + 4))
    smooth = ndimage.gaussian_filter(small, length / 3 / spacing / coarse, mode="wrap")
    y, x = np.mgrid[0 : size[0], 0 : size[1]] / coarse
    found = ndimage.map_coordinates(smooth, [y + 1, x + 1], order=1)
    return np.asarray((found - found.mean()) / max(float(found.std()), 1e-9))


def _ripple(centre: tuple[Reals, Reals], high: float, chance: np.random.Generator) -> Reals:
    """What a machine left beneath: waves of a fraction of a millimetre, arcs of a large radius."""
    if not high:
        return np.zeros_like(centre[0])
    radius, wave, turn = chance.uniform(20, 200), chance.uniform(0.5, 1.6), chance.uniform(0, 2 * math.pi)
    away = np.hypot(centre[0] - radius * math.cos(turn), centre[1] - radius * math.sin(turn))
    return np.asarray(high * np.sin(2 * math.pi * away / wave))


def _pit(z: Reals, spacing: float, chance: np.random.Generator) -> None:
    """A hollow with a ragged rim, in place."""
    radius = float(np.exp(chance.normal(math.log(0.02), 0.5)))
    half = int(2 * radius / spacing) + 2
    row, column = int(chance.uniform(half, z.shape[0] - half)), int(chance.uniform(half, z.shape[1] - half))
    y, x = np.mgrid[-half : half + 1, -half : half + 1] * spacing
    rim = radius * (1 + 0.25 * np.sin(3 * np.arctan2(y, x) + chance.uniform(0, 6)))
    part = z[row - half : row + half + 1, column - half : column + half + 1]
    part -= 0.3 * radius * np.clip(1 - (np.hypot(x * chance.uniform(0.7, 1.4), y) / rim) ** 2, 0, 1)


def _print(x: Reals, y: Reals, chance: np.random.Generator) -> Reals:
    """A finger's print: ridges of oil in a whorl."""
    cx, cy = chance.uniform(0, x.max()), chance.uniform(0, y.max())
    away = np.hypot((x - cx) / 1.0, (y - cy) / 1.4)
    turn = np.arctan2(y - cy, x - cx)
    ridges = 0.5 + 0.5 * np.sin(2 * math.pi * away / 0.45 + 1.2 * np.sin(2 * turn + chance.uniform(0, 6)))
    return np.asarray(np.clip(2 * ridges - 0.8, 0, 1) * np.clip(1.3 - away / 6, 0, 1) * chance.uniform(0.3, 0.8))


def _drop(x: Reals, y: Reals, chance: np.random.Generator) -> Reals:
    """Where a drop of water dried: a ring."""
    cx, cy, radius = chance.uniform(0, x.max()), chance.uniform(0, y.max()), chance.uniform(0.3, 1.8)
    away = np.hypot(x - cx, y - cy)
    return np.asarray(chance.uniform(0.3, 0.9) * np.exp(-(((away - radius) / (0.05 + 0.06 * radius)) ** 2)))
