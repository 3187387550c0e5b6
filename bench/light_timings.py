"""Timings of the simulator, the roughness evaluation and the lamp, for `make bench`."""

import time
from collections.abc import Callable
from typing import Any

import numpy as np

from kelbrast.core.metrology.evaluate import evaluate
from kelbrast.core.metrology.profile import Profile
from kelbrast.core.simulation.marks import Marks
from kelbrast.core.simulation.patch import FoundPatch, Patch, Working, found_patch, worked
from kelbrast.documents.surface.picture import FoundSpec, PatchSpec, WorkingSpec, png_of

Row = tuple[str, str, str]
FRAMES = """() => new Promise((done) => {
  const canvas = document.querySelector('canvas');
  const frame = canvas.parentElement;
  const begun = performance.now();
  let count = 0;
  const step = () => {
    frame.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true, cancelable: true }));
    count += 1;
    if (performance.now() - begun > 2000) done((1000 * count) / (performance.now() - begun));
    else requestAnimationFrame(step);
  };
  step();
})"""


def light(median_ms: Callable[..., float]) -> list[Row]:
    first, whole = _strip()
    return [
        ("light strip, first tile", f"{first:.0f} ms", "512 x 512, as found; of six stages"),
        ("light strip, all of it", f"{whole:.0f} ms", "six stages and their pictures"),
        _step(median_ms),
        _profile(median_ms),
    ]


def frames(page: Any, address: str) -> Row:
    """Pictures a second of the lamp, in software rendering."""
    page.goto(f"{address}light")
    page.locator("canvas").first.wait_for()
    page.wait_for_timeout(1500)
    return ("lamp moved, software rendering", f"{page.evaluate(FRAMES):.0f} a second", "two patches of 640 x 640 points")


def _strip() -> tuple[float, float]:
    grades = ((127.0, 7.4), (58.5, 2.9), (35.0, 1.6), (18.3, 0.7), (5.0, 0.1), (1.5, 0.02))
    base = PatchSpec(material="brass", found=FoundSpec(kind="lay", depth_um=14, grain_um=201), rows=512, columns=512, seed=77)
    steps = [
        WorkingSpec(
            layer_um=2 * deep, depth_um=deep, grain_um=grain, lay="one-way", angle=at * 1.2, levels=True, reaches_um=None
        )
        for at, (grain, deep) in enumerate(grades)
    ]
    png_of(base.model_copy(update={"rows": 16, "columns": 16}))  # the reference files are read once
    begun = time.perf_counter()
    taken = []
    for count in range(6):
        png_of(base.model_copy(update={"steps": steps[:count]}))
        taken.append((time.perf_counter() - begun) * 1000)
    return taken[0], taken[-1]


def _step(median_ms: Callable[..., float]) -> Row:
    found = found_patch(FoundPatch("lay", 13e-6, 201e-6), (1024, 1024), 5e-6, 1)
    step = Working(26e-6, Marks(4.3e-6, 82e-6))
    ours = median_ms(lambda: worked(Patch(found.z, found.spacing), step), 5)
    copy = median_ms(lambda: found.z.copy(), 20)
    return ("a step on 1024 x 1024", f"{ours:.0f} ms", f"{ours / copy:.0f} times a copy of the array ({copy:.2f} ms)")


def _profile(median_ms: Callable[..., float]) -> Row:
    """Against an independent program: the same filters and parameters by surfalize."""
    from surfalize import Profile as Theirs

    z = np.cumsum(np.random.default_rng(1).standard_normal(100_000)) * 1e-9
    ours = median_ms(lambda: evaluate(Profile(z, 1e-6), degree=1, cut_off=0.8e-3, noise=2.5e-6), 7)

    def reference() -> None:
        rough = Theirs(z * 1e6, 1.0).level().filter("lowpass", 2.5).filter("highpass", 800.0)
        for name in ("Ra", "Rq", "Rz", "Rt", "Rp", "Rv", "Rsk", "Rku", "Rk", "Rpk", "Rvk"):
            getattr(rough, name)()

    theirs = median_ms(reference, 5)
    return ("profile of 100,000 points", f"{ours:.0f} ms", f"{ours / theirs:.2f} of surfalize ({theirs:.0f} ms)")
