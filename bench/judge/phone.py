"""What a phone makes of the light that reaches it: lens, colour mosaic, noise, and the processing that turns it into a JPEG."""

import io
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from scipy import ndimage

Reals = NDArray[np.float64]


@dataclass(frozen=True)
class Phone:
    """A phone and how it was held: blur in pixels, shake, stray light over the picture, noise, and its processing."""

    blur: float = 0.7
    shake: tuple[float, float] = (0.0, 0.0)
    veil: float = 0.0
    noise: float = 0.01
    exposure: float = 0.42
    smoothing: float = 0.5
    sharpening: float = 0.5
    curve: float = 0.3
    vignette: float = 0.25
    bent: float = 0.0
    quality: int = 94
    seed: int = 0


_MOSAIC = ((0, 0, 0), (0, 1, 1), (1, 0, 1), (1, 1, 2))  # row, column, colour


def photo(light: Reals, phone: Phone) -> bytes:
    """The picture as the phone's own JPEG file.

    Args:
        light: rows, columns and three colours, linear, of any scale.
    """
    chance = np.random.default_rng(phone.seed)
    rows, columns, _ = light.shape
    y, x = np.mgrid[-1 : 1 : rows * 1j, -1 : 1 : columns * 1j]
    seen = light / max(float(np.median(light.mean(axis=2))), 1e-9)
    seen = seen + phone.veil * float(seen.mean())
    if phone.bent:
        k = 1 + phone.bent * (x**2 + y**2)
        at = [(y * k + 1) / 2 * (rows - 1), (x * k + 1) / 2 * (columns - 1)]
        seen = np.stack([ndimage.map_coordinates(seen[..., c], at, order=1, mode="nearest") for c in range(3)], axis=-1)
    seen = seen * (1 - phone.vignette * (x**2 + y**2) / 2)[..., None]
    seen = np.stack([_blurred(seen[..., c], phone, 1 + 0.06 * (c - 1)) for c in range(3)], axis=-1)
    raw = seen * phone.exposure**2.2
    raw = np.clip(raw + chance.standard_normal(raw.shape) * phone.noise * np.sqrt(np.clip(raw, 0, 1) * 0.25 + 0.0004), 0, 1)
    colours = _demosaiced(raw)
    colours = _smoothed(colours, phone.smoothing)
    shown = np.clip(colours, 0, 1) ** (1 / 2.2)
    shown = (1 - phone.curve) * shown + phone.curve * shown**2 * (3 - 2 * shown)
    if phone.sharpening:
        grey = shown.mean(axis=2)
        shown = shown + (phone.sharpening * (grey - ndimage.gaussian_filter(grey, 1.2)))[..., None]
    out = io.BytesIO()
    Image.fromarray((np.clip(shown, 0, 1) * 255).round().astype(np.uint8)).save(out, "JPEG", quality=phone.quality)
    return out.getvalue()


def _blurred(channel: Reals, phone: Phone, wider: float) -> Reals:
    soft = ndimage.gaussian_filter(channel, phone.blur * wider)
    if any(phone.shake):
        steps = np.linspace(-0.5, 0.5, 5)
        soft = np.mean(
            [ndimage.shift(soft, (s * phone.shake[1], s * phone.shake[0]), order=1, mode="nearest") for s in steps], axis=0
        )
    return np.asarray(soft)


def _demosaiced(raw: Reals) -> Reals:
    """Each pixel has one colour; the others are means of its neighbours."""
    kernel = np.array([[0.25, 0.5, 0.25], [0.5, 1.0, 0.5], [0.25, 0.5, 0.25]])
    found = np.zeros_like(raw)
    for colour in range(3):
        mask = np.zeros(raw.shape[:2])
        for row, column, which in _MOSAIC:
            if which == colour:
                mask[row::2, column::2] = 1
        weight = ndimage.convolve(mask, kernel, mode="mirror")
        found[..., colour] = ndimage.convolve(raw[..., colour] * mask, kernel, mode="mirror") / weight
    return found


def _smoothed(colours: Reals, amount: float) -> Reals:
    """What a phone does against noise: colours wide, grey only where little happens."""
    grey = colours.mean(axis=2)
    tint = np.stack([ndimage.gaussian_filter(colours[..., c] - grey, 2.5) for c in range(3)], axis=-1)
    soft = ndimage.gaussian_filter(grey, 1.0)
    busy = np.abs(grey - soft)
    keep = busy / (busy + amount * float(np.median(busy)) + 1e-9)
    return np.asarray((soft + keep * (grey - soft))[..., None] + tint)
