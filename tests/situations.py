"""The situations that the planner must handle well, told with parts of the Skerry Light. Job files without their head."""

from typing import Any


def _face(name: str, **keys: Any) -> dict[str, Any]:
    return {"name": name, **keys}


def _depth(kind: str, likely: float, worst: float | None = None, **more: Any) -> dict[str, Any]:
    return {"kind": kind, "depth_um": {"likely": likely, "worst": worst or likely}, **more}


PLAIN_BUFFER = [
    "bench-buffer", "sisal-tripoli", "sewn-tripoli", "loose-white", "loose-rouge", "flannel-rouge", "felt-tripoli",
]  # fmt: skip
BY_HAND = [
    "hand", "file-smooth", "stone-f120", "stone-f220", "stone-f320", "stone-f400", "stone-f600", "lap-15um", "lap-9um", "lap-3um",
    "lap-1um", *(f"paper-p{grade}" for grade in (80, 120, 180, 240, 320, 400, 600, 800, 1000, 1200, 1500, 2000, 2500)),
    "cloth-polishing", "cloth-finishing",
]  # fmt: skip
SMALL = [
    "rotary-tool", "flexible-shaft", *(f"flap-small-p{grade}" for grade in (120, 180, 240, 320)),
    *(f"rubber-{size}" for size in ("coarse", "medium", "fine", "extrafine")), "bristle-p400", "bristle-6um", "bristle-1um",
    "felt-bob-tripoli", "felt-bob-white", "cotton-bob-rouge", "cotton-bob-white",
]  # fmt: skip

SITUATIONS: dict[str, dict[str, Any]] = {
    "hand-sanded strip on a plain buffer": {
        "material": "brass", "rack": PLAIN_BUFFER, "carried": True,
        "faces": [_face("strip", shape={"kind": "plate", "length_mm": 900, "width_mm": 12}, thickness_mm=1.5,
                        found={"after": "P2000"}, want={"finish": "bright"})],
    },
    "mooring block with deep dents that must grip": {
        "material": "tool-steel-hardened",
        "faces": [_face("jaw", shape={"kind": "plate", "length_mm": 120, "width_mm": 80}, thickness_mm=60,
                        found=_depth("nick", 1200, 1500, count=6), want={"finish": "grip", "no_finer_than": "P320"})],
    },
    "lacquered lamp dome with orange peel": {
        "material": "clear-coat-2k",
        "faces": [_face("dome", shape={"kind": "dome", "diameter_mm": 320, "height_mm": 90},
                        found=_depth("waviness", 6, 9), want={"finish": "bright"}, coat_um=60, keep_um=35)],
    },
    "small collar, inside and outside, on the rotary tool": {
        "material": "silver", "rack": SMALL, "mass_g": 9,
        "faces": [
            _face("inside", shape={"kind": "bore", "diameter_mm": 18, "length_mm": 6}, reach="inside", inside_radius_mm=9,
                  thickness_mm=2, found=_depth("scratches", 12, 20), want={"ra_um": [None, 0.1]}),
            _face("outside", shape={"kind": "cylinder", "diameter_mm": 22, "length_mm": 6}, thickness_mm=2,
                  found=_depth("scratches", 15, 25), want={"finish": "bright"}),
        ],
    },
    "wire guard with tool bites beside glass beads": {
        "material": "copper", "inserts": ["stone"], "mass_g": 60,
        "faces": [_face("wires", area_cm2=40, reach="tight", curved=True, found=_depth("scratches", 30, 45),
                        want={"finish": "satin"})],
    },
    "cast window bore with a band to leave and a thin wall": {
        "material": "aluminium-cast",
        "faces": [
            _face("bore", shape={"kind": "bore", "diameter_mm": 46, "length_mm": 60}, reach="inside", inside_radius_mm=23,
                  thickness_mm=2.2, keep_wall_mm=2.05, found=_depth("scratches", 25, 40), want={"finish": "N6"}),
            _face("sealing band", area_cm2=8, found=_depth("lay", 4), want={"finish": "N5"}, keep_off=True),
        ],
    },
    "two gutter sheets soldered flush": {
        "material": "copper",
        "faces": [_face("seam", area_cm2=80, thickness_mm=0.8, limit_um=60,
                        found=_depth("raised", 500, 700, share=0.2), want={"finish": "brushed-fine"})],
    },
    "hardened dome with one scratch": {
        "material": "tool-steel-hardened",
        "faces": [_face("dome", shape={"kind": "dome", "diameter_mm": 60, "height_mm": 12}, found=_depth("nick", 40, 60),
                        want={"finish": "mirror"})],
    },
    "cast clock housing, brushed, dents blended": {
        "material": "aluminium-cast",
        "faces": [_face("front", area_cm2=320, thickness_mm=5, found=_depth("nick", 300, 450, count=2),
                        want={"finish": "brushed-fine"})],
    },
    "half-metre sheet to a plate mirror": {
        "material": "copper", "carried": False,
        "faces": [_face("sheet", shape={"kind": "plate", "length_mm": 500, "width_mm": 500}, thickness_mm=2,
                        found=_depth("scratches", 8, 12), want={"finish": "mirror"})],
    },
    "gouged hardened scraper to a mirror by hand": {
        "material": "tool-steel-hardened", "rack": BY_HAND,
        "faces": [_face("flat", shape={"kind": "plate", "length_mm": 90, "width_mm": 25}, thickness_mm=6,
                        found=_depth("scratches", 60, 90), want={"finish": "mirror"})],
    },
    "oval bush bore with windows": {
        "material": "bronze",
        "faces": [_face("bore", shape={"kind": "bore", "diameter_mm": 20, "length_mm": 40}, reach="inside", inside_radius_mm=10,
                        thickness_mm=5, size_left_um=60, found=_depth("waviness", 12, 16), want={"finish": "N4"})],
    },
    "ground spindle within two microns": {
        "material": "tool-steel-hardened",
        "faces": [_face("journal", shape={"kind": "cylinder", "diameter_mm": 14, "length_mm": 30}, size_left_um=4,
                        found=_depth("lay", 0.5, 0.7), want={"finish": "N2"})],
    },
    "anodised cover, half brushed, half bright": {
        "material": "aluminium-wrought", "covering": "anodised",
        "faces": [
            _face("rim", area_cm2=60, thickness_mm=4, found=_depth("scratches", 15, 25), want={"finish": "bright"}),
            _face("field", area_cm2=180, thickness_mm=4, found=_depth("scratches", 15, 25), want={"finish": "brushed-fine"}),
        ],
    },
    "turned shaft to size with file and cloth": {
        "material": "mild-steel",
        "rack": ["lathe", "lathe-file-smooth", *(f"lathe-cloth-p{grade}" for grade in (120, 180, 240, 320, 400, 600))],
        "faces": [_face("shaft", shape={"kind": "cylinder", "diameter_mm": 25, "length_mm": 120}, size_left_um=80,
                        found=_depth("lay", 16, 20), want={"finish": "N5"})],
    },
    "blended weld on a gallery rail, to be painted": {
        "material": "mild-steel",
        "faces": [_face("weld", area_cm2=30, thickness_mm=6, limit_um=100, found=_depth("raised", 1500, 2000, share=0.3),
                        want={"finish": "paint-ready"})],
    },
    "large lacquered panel": {
        "material": "clear-coat-2k",
        "faces": [_face("panel", shape={"kind": "plate", "length_mm": 1200, "width_mm": 900}, found=_depth("waviness", 5, 8),
                        want={"finish": "bright"}, coat_um=45, keep_um=30)],
    },
}  # fmt: skip
