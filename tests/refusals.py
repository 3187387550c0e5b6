"""A case for every rule that forbids."""

from typing import Any

from kelbrast.core.surface.edge import Edge
from kelbrast.core.surface.part import Part

# A case that only this rule decides: material, face, job, and what the refusal says.
DECIDED: dict[str, tuple[str, dict[str, Any], dict[str, Any], str]] = {
    "too-big-to-carry": ("brass", {"want": "bright", "depth": 3}, {"carried": False, "rack": ("bench-buffer", "loose-white")}, "too big"),
    "hollows": ("brass", {"want": "mirror", "depth": 3, "area": 0.02}, {"rack": ("rotary-tool", "flap-small-p320")}, "hollows"),
    "facets": ("brass", {"want": "satin", "depth": 20, "curved": True}, {"rack": ("orbital-p240", "lap-15um")}, "facets"),
    "lathe-only": ("brass", {"want": "satin", "depth": 20}, {"rack": ("lathe", "lathe-cloth-p240")}, "turns in the lathe"),
    "enters": ("brass", {"want": "satin", "depth": 20, "reach": "tight"}, {"rack": ("orbital", "orbital-p240")}, "tight place"),
    "kept-for": ("stainless-304", {"want": "bright", "depth": 3}, {"rack": ("bench-buffer", "sisal-tripoli")}, "not kept"),
    "safe-setting": ("brass", {"want": "bright", "depth": 3}, {"diameters": (("felt-white", 0.02),), "rack": ("bench-buffer", "felt-white")}, "No machine here"),
    "too-hot": ("acrylic", {"want": "brushed-fine", "depth": 60, "thickness": 0.002}, {"rack": ("belt-grinder", "belt-p240")}, "brings the surface"),
    "levels": ("brass", {"want": "bright", "depth": 4, "kind": "waviness"}, {"rack": ("bench-buffer", "sisal-tripoli")}, "ripple"),
    "keeps-size": ("brass", {"want": "satin", "depth": 20, "limit_um": 200, "limit_kind": "size"}, {"rack": ("orbital-p240",)}, "hold a size"),
    "cloth-takes-little": ("brass", {"want": "satin", "depth": 5, "stock": 10e-6, "turned": 0.02, "curved": True}, {"rack": ("lathe", "lathe-cloth-p240")}, "off the diameter"),
    "skates": ("tool-steel-hardened", {"want": "satin", "depth": 20}, {"rack": ("file-smooth", "file-second-cut")}, "skates"),
    "too-deep": ("brass", {"want": "satin", "depth": 60}, {"rack": ("nonwoven-pad-coarse", "nonwoven-pad-fine")}, "it reaches"),
    "takes-in-all": ("brass", {"want": "bright", "depth": 100}, {"rack": ("bench-buffer", "sisal-tripoli")}, "in one go"),
    "colour-follows-a-cut": ("brass", {"want": "bright", "after": "P600"}, {"rack": ("bench-buffer", "loose-white")}, "only colours"),
    "file-first": ("brass", {"want": "paint-ready", "after": "P60"}, {"rack": ("file-smooth", "paper-p120")}, "comes before"),
    "edges": ("brass", {"want": "satin", "depth": 200, "edge": Edge(0.3, "break", 0.3e-3)}, {"rack": ("bench-buffer", "felt-white")}, "dig in"),
    "stays-flat": ("bronze", {"want": "satin", "depth": 20, "stays_flat": True}, {"rack": ("flap-p180", "flap-p240")}, "must stay flat"),
    "too-light": ("brass", {"want": "satin", "depth": 20, "area": 0.002}, {"rack": ("orbital", "orbital-p240"), "part": Part(mass=0.03)}, "run away"),
    "too-large": ("brass", {"want": "paint-ready", "depth": 100, "area": 0.2}, {"rack": ("file-second-cut", "file-smooth")}, "far too large"),
    "too-far-in": ("bronze", {"want": "satin", "depth": 20, "reach": "inside", "inside_radius": 0.02, "bore_depth": 0.2}, {"rack": ("rotary-tool", "flap-small-p240")}, "gets 60 mm into"),
    "flattens-a-round": ("brass", {"want": "N6", "depth": 20, "turned": 0.02, "curved": True}, {"rack": ("belt-grinder", "belt-p240", "belt-p320")}, "leave flats"),
    "for-a-size": ("mild-steel", {"want": "N6", "depth": 5, "turned": 0.02, "curved": True}, {"rack": ("lathe", "ring-lap-f400")}, "is for a size"),
    "where-it-is-drawn": ("brass", {"want": "mirror", "depth": 5}, {"rack": ("stone-f400", "ring-lap-3um", "lathe", "hand")}, "what is drawn"),
    "waves": ("tool-steel-hardened", {"want": "N1", "after": "P1200", "area": 0.002}, {"rack": ("bench-buffer", "felt-white", "sisal-grey")}, "wavy"),
    "coarsest": ("clear-coat-2k", {"want": "satin", "depth": 20}, {"rack": ("paper-p240", "paper-p400")}, "too coarse"),
}  # fmt: skip

# More of what can stand in the way, by what it is said to be.
MORE: dict[str, tuple[str, dict[str, Any], dict[str, Any]]] = {
    "the finest is too coarse": ("brass", {"want": "mirror", "depth": 20}, {"rack": ("paper-p240", "paper-p400")}),
    "the coarsest is too fine": ("brass", {"want": "paint-ready", "depth": 20}, {"rack": ("paper-p1000", "paper-p1500")}),
    "none between": ("brass", {"want": "brushed-fine", "depth": 20}, {"rack": ("paper-p80", "paper-p2500")}),
    "told apart": ("brass", {"want": "N4", "depth": 20}, {"rack": ("paper-p600",)}),
    "one direction": ("brass", {"want": "brushed-fine", "depth": 1, "kind": "scratches"}, {"rack": ("point-f120",)}),
    "no direction": ("brass", {"want": "satin", "depth": 20}, {"rack": ("paper-p240", "paper-p320")}),
    "the whole route": ("brass", {"want": "mirror", "depth": 20, "limit_um": 21}, {}),
    "the first step": ("brass", {"want": "mirror", "depth": 60, "limit_um": 30}, {}),
    "the first step alone": ("mild-steel", {"want": "paint-ready", "depth": 150, "limit_um": 100}, {}),
    "more than a tenth of a millimetre": ("mild-steel", {"want": "paint-ready", "depth": 600, "limit_um": 300, "limit_kind": "wall"}, {}),
    "of a coat": ("clear-coat-2k", {"want": "bright", "depth": 15, "limit_um": 10, "limit_kind": "coat"}, {}),
    "raised, and no more": ("mild-steel", {"want": "mirror", "depth": 500, "kind": "raised", "limit_um": 2}, {}),
    "too hot to hold": ("brass", {"want": "bright", "after": "P2500", "area": 0.0005}, {"part": Part(mass=0.002), "rack": ("bench-buffer", "loose-white", "felt-white")}),
    "the part too hot": ("abs", {"want": "bright", "after": "P2500", "area": 0.0005}, {"part": Part(mass=0.001, held="clamp"), "rack": ("bench-buffer", "loose-white", "flannel-white")}),
    "the spot too hot": ("abs", {"want": "paint-ready", "depth": 20}, {"rack": ("belt-p240",)}),
    "no speed, and no mark": ("brass", {"want": "satin", "depth": 20, "turned": 0.9, "curved": True}, {"rack": ("lathe", "lathe-cloth-p240")}),
    "a bore too narrow": ("bronze", {"want": "bright", "depth": 20, "reach": "inside", "inside_radius": 0.002}, {}),
    "no bore tool": ("bronze", {"want": "satin", "depth": 20, "reach": "inside", "inside_radius": 0.02}, {"rack": ("belt-p240", "flap-small-p240")}),
    "a bore tool outside": ("bronze", {"want": "satin", "depth": 20}, {"rack": ("bore-lap-f400",)}),
    "raised, with wheels": ("brass", {"want": "bright", "depth": 300, "kind": "raised"}, {"rack": ("bench-buffer", "sisal-tripoli")}),
    "out of round, with cloth": ("brass", {"want": "satin", "depth": 3, "stock": 4e-6, "out_of_round": True, "turned": 0.02, "curved": True}, {"rack": ("lathe", "lathe-cloth-p240")}),
    "nothing turns": ("brass", {"want": "bright", "depth": 20}, {"rack": ("drill", "sisal-tripoli")}),
    "two at once": ("brass", {"want": "mirror", "depth": 50, "limit_um": 10}, {"rack": ("paper-p320",)}),
}  # fmt: skip
