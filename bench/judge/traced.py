"""Two pictures of a worked face in linear light, by a path tracer: rough metal with measured spectra, shadows, glints,
light from one flank of a groove to the next, dust and fibres that lie on it, a lamp of some size, the room, the phone above.

Lengths in mm. The face lies in the plane of x and y, the camera looks down on it.
"""

import math
import tempfile
from ctypes.util import find_library
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import mitsuba as mi
import numpy as np
from numpy.typing import NDArray

from judge.faces import Face, Surface

# Compiled where LLVM 16 or newer is there (Debian's libllvm19), which takes half the time; older ones cannot do it.
mi.set_variant("llvm_ad_rgb" if any(find_library(f"LLVM-{version}") for version in range(16, 23)) else "scalar_rgb")
T = mi.ScalarTransform4f
Reals = NDArray[np.float64]


@dataclass(frozen=True)
class Lamp:
    """From where (rad, anticlockwise), how high, how far and how large (mm)."""

    turn: float
    height: float
    far: float = 250.0
    radius: float = 12.0
    watts: float = 1.0


@dataclass(frozen=True)
class Camera:
    """How it looks down: um to a pixel, pixels (rows, columns), its distance, leaning, turned and moved (mm)."""

    um: float
    pixels: tuple[int, int]
    away: float = 120.0
    lean: tuple[float, float] = (0.0, 0.0)
    turned: float = 0.0
    moved: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Room:
    """Light of the room as a share of what comes back from the face by the lamp, and a bright window by the same measure."""

    light: float = 0.0
    window: float = 0.0
    window_turn: float = 0.0


METALS = ("Cu", "Al", "Cr", "Mo", "W", "Ag", "Ir", "VC")


@dataclass(frozen=True)
class Metal:
    """Which metal, and how rough it is below what the heights show."""

    name: str = "Cu"
    rough: float = 0.14


class Scene:
    """A face that can be looked at under several lamps; its mesh is made once."""

    def __init__(self, face: Face, surface: Surface, metal: Metal) -> None:
        self._face, self._surface, self._metal = face, surface, metal
        self._folder = tempfile.TemporaryDirectory()
        self._mesh = Path(self._folder.name, "face.ply")
        _mesh(surface).write_ply(str(self._mesh))
        self._level: float | None = None  # of light from the face under the first lamp: the room is measured by it
        # What is loaded once serves both pictures.
        self._loaded = {name: mi.load_dict(shape) for name, shape in {"face": self._face_shape(), **self._dirt()}.items()}

    def seen(self, lamp: Lamp, camera: Camera, room: Room, samples: int, seed: int) -> Reals:
        """Rows and columns and three colours of the light that reaches the camera, of any scale."""
        by_lamp = {**self._loaded, "integrator": {"type": "path", "max_depth": 3}, **_lamp(lamp), **_phone(camera)}
        if self._level is None:
            self._level = _rendered({**by_lamp, "camera": _camera(camera, 16, 16, seed)}, 16, seed).mean().item()
        return _rendered({**by_lamp, **_room(room, self._level), "camera": _camera(camera, 1, samples, seed)}, samples, seed)

    def _face_shape(self) -> dict[str, Any]:
        metal = {"type": "roughconductor", "material": self._metal.name, "alpha": self._metal.rough, "distribution": "ggx"}
        oiled = {**metal, "alpha": min(0.5, self._metal.rough * 2.2)}
        bsdf: dict[str, Any] = metal
        if self._surface.film.any():
            bsdf = _blend(bsdf, oiled, self._surface.film)
        if self._surface.oxide.any():
            bsdf = _blend(
                bsdf, {"type": "diffuse", "reflectance": {"type": "rgb", "value": [0.16, 0.11, 0.07]}}, self._surface.oxide
            )
        if self._surface.deposit.any():
            bsdf = _blend(bsdf, {"type": "diffuse", "reflectance": {"type": "rgb", "value": 0.6}}, self._surface.deposit)
        return {"type": "ply", "filename": str(self._mesh), "face_normals": False, "bsdf": {"type": "twosided", "bsdf": bsdf}}

    def _dirt(self) -> dict[str, Any]:
        """Fibres and grains of dust, lying on the face."""
        chance = np.random.default_rng([self._face.seed, 7])
        rows, columns = self._surface.z.shape
        wide, tall = columns * self._surface.spacing, rows * self._surface.spacing
        found: dict[str, Any] = {}
        for at in range(self._face.dirt.fibres):
            path = Path(self._folder.name, f"fibre{at}.txt")
            thick = chance.uniform(0.005, 0.012)
            count = 8 + int(chance.uniform(0, 30))
            turn, bent = chance.uniform(0, 2 * math.pi), chance.normal(0, 0.12)
            x, y = chance.uniform(-wide / 2, wide / 2), chance.uniform(-tall / 2, tall / 2)
            lines = []
            for _ in range(count):
                turn += bent + chance.normal(0, 0.12)
                x, y = x + 0.12 * math.cos(turn), y + 0.12 * math.sin(turn)
                lines.append(f"{x} {y} {thick + abs(chance.normal(0.004, 0.01))} {thick}")
            path.write_text("\n".join(lines) + "\n")
            tint = chance.uniform(0.1, 0.8)
            found[f"fibre{at}"] = {
                "type": "bsplinecurve",
                "filename": str(path),
                "bsdf": {"type": "diffuse", "reflectance": {"type": "rgb", "value": tint}},
            }
        for at in range(self._face.dirt.dust):
            radius = float(np.exp(chance.normal(math.log(0.008), 0.5)))
            middle = [chance.uniform(-wide / 2, wide / 2), chance.uniform(-tall / 2, tall / 2), 0.7 * radius]
            found[f"dust{at}"] = {
                "type": "sphere",
                "center": middle,
                "radius": radius,
                "bsdf": {"type": "diffuse", "reflectance": {"type": "rgb", "value": chance.uniform(0.05, 0.8)}},
            }
        return found


def _blend(under: dict[str, Any], over: dict[str, Any], share: Reals) -> dict[str, Any]:
    """Two materials, the second where a picture says so."""
    small = share[::2, ::2, None].astype(np.float32)
    weight = {"type": "bitmap", "bitmap": mi.Bitmap(np.ascontiguousarray(small)), "raw": True}
    return {"type": "blendbsdf", "weight": weight, "first": under, "second": over}


def _mesh(surface: Surface) -> Any:
    rows, columns = surface.z.shape
    x = (np.arange(columns) - (columns - 1) / 2) * surface.spacing
    y = -(np.arange(rows) - (rows - 1) / 2) * surface.spacing
    places = np.empty((rows, columns, 3), dtype=np.float32)
    places[..., 0], places[..., 1], places[..., 2] = x[None, :], y[:, None], surface.z
    number = np.arange(rows * columns, dtype=np.uint32).reshape(rows, columns)
    a, b, c, d = number[:-1, :-1].ravel(), number[:-1, 1:].ravel(), number[1:, :-1].ravel(), number[1:, 1:].ravel()
    corners = np.concatenate([np.stack([a, c, b], -1), np.stack([b, c, d], -1)])
    mesh = mi.Mesh("face", rows * columns, len(corners), has_vertex_texcoords=True)
    parameters = mi.traverse(mesh)
    parameters["vertex_positions"] = places.ravel()
    parameters["faces"] = corners.ravel()
    u, v = np.meshgrid(np.linspace(0, 1, columns, dtype=np.float32), np.linspace(1, 0, rows, dtype=np.float32))
    parameters["vertex_texcoords"] = np.stack([u, v], -1).ravel()
    parameters.update()
    return mesh


def _rendered(scene: dict[str, Any], samples: int, seed: int) -> Reals:
    """Three pictures in one: a path that was found once and is far brighter than the others is chance, not a glint."""
    loaded = mi.load_dict({"type": "scene", **scene})
    each = [np.array(mi.render(loaded, spp=samples, seed=3 * seed + at))[..., :3].astype(float) for at in range(3)]
    return np.asarray(np.minimum(np.mean(each, axis=0), 2 * np.median(each, axis=0)))


def _lamp(lamp: Lamp) -> dict[str, Any]:
    bright = (lamp.far / lamp.radius) ** 2
    flat = lamp.far * math.cos(lamp.height)
    at = [flat * math.cos(lamp.turn), flat * math.sin(lamp.turn), lamp.far * math.sin(lamp.height)]
    towards = T().look_at(at, [0, 0, 0], [0, 0, 1]) @ T().scale([lamp.radius, lamp.radius, 1])
    radiance = {"type": "rgb", "value": [bright, 0.93 * bright, 0.82 * bright]}
    return {"lamp": {"type": "disk", "to_world": towards, "emitter": {"type": "area", "radiance": radiance}}}


def _place(camera: Camera) -> list[float]:
    return [camera.moved[at] + camera.lean[at] * camera.away for at in (0, 1)] + [camera.away]


def _camera(camera: Camera, coarser: int, samples: int, seed: int) -> dict[str, Any]:
    rows, columns = (length // coarser for length in camera.pixels)
    wide = camera.pixels[1] * camera.um / 1000
    up = [-math.sin(camera.turned), math.cos(camera.turned), 0.0]
    return {
        "type": "perspective",
        "fov": 2 * math.degrees(math.atan(wide / 2 / camera.away)),
        "fov_axis": "x",
        "to_world": T().look_at(_place(camera), [*camera.moved, 0.0], up),
        "film": {"type": "hdrfilm", "width": columns, "height": rows, "rfilter": {"type": "box"}, "pixel_format": "rgb"},
        "sampler": {"type": "independent", "sample_count": samples, "seed": seed},
    }


def _phone(camera: Camera) -> dict[str, Any]:
    """The phone itself: dark, and what a face that lies square under it mirrors."""
    x, y, z = _place(camera)
    place = T().translate([x, y + 40, z + 6]) @ T().rotate([1, 0, 0], 180) @ T().scale([38, 75, 1])
    black = {"type": "diffuse", "reflectance": {"type": "rgb", "value": 0.05}}
    return {"phone": {"type": "rectangle", "to_world": place, "bsdf": black}}


def _room(room: Room, level: float) -> dict[str, Any]:
    found: dict[str, Any] = {}
    if room.light:
        found["room"] = {"type": "constant", "radiance": {"type": "rgb", "value": room.light * level}}
    if room.window:
        side = [300 * math.cos(room.window_turn), 300 * math.sin(room.window_turn), 260]
        place = T().look_at(side, [0, 0, 0], [0, 0, 1]) @ T().scale([60, 90, 1])
        radiance = {"type": "rgb", "value": 4 * room.window * level}
        found["window"] = {"type": "rectangle", "to_world": place, "emitter": {"type": "area", "radiance": radiance}}
    return found
