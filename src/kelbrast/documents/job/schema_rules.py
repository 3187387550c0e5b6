"""Rules between keys of a job as JSON Schema: what the reader refuses, the printed schema refuses too, as far as it can say it.

A null is a key that was left out. JSON Schema cannot compare two values, so an order between them (worst at least likely,
`keep_um` below `coat_um`, the ends of `ra_um`), names that must differ and ids of the catalogue are said in words alone.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

from kelbrast.core.reference.loader import Constant
from kelbrast.core.surface.edge import EdgeWanted, sizes_by_hand
from kelbrast.core.surface.shapes import SHAPES
from kelbrast.core.surface.sized import ROUND_KINDS
from kelbrast.documents.job.format import NOT_OF_EDGES

SchemaPart = dict[str, Any]
_NULL: Final = {"type": "null"}


def _given(key: str) -> SchemaPart:
    """The key is there and is not null."""
    return {"required": [key], "properties": {key: {"not": _NULL}}}


def _left_out(key: str) -> SchemaPart:
    return {"not": _given(key)}


def _one_of(*keys: str) -> SchemaPart:
    return {"oneOf": [_given(key) for key in keys]}


def _not_both(one: str, other: str) -> SchemaPart:
    return {"not": {"allOf": [_given(one), _given(other)]}}


def _together(one: str, other: str) -> SchemaPart:
    return {"oneOf": [{"allOf": [_given(one), _given(other)]}, {"allOf": [_left_out(one), _left_out(other)]}]}


def _only_with(key: str, where: SchemaPart) -> SchemaPart:
    return {"anyOf": [_left_out(key), where]}


def _is_one(key: str, *values: Any) -> SchemaPart:
    return {"required": [key], "properties": {key: {"enum": list(values)}}}


def _within(key: str, least: Constant, most: Constant) -> SchemaPart:
    return {"properties": {key: {"minimum": least.value, "maximum": most.value}}}


@dataclass(frozen=True, slots=True)
class ModelRules:
    """Rules of one model; `optional`: keys that are required by a rule alone, and not always."""

    rules: Sequence[SchemaPart]
    optional: frozenset[str] = frozenset()


_ROUND: Final[SchemaPart] = {
    "required": ["shape"],
    "properties": {
        "shape": {"type": "object", "allOf": [_is_one("kind", *ROUND_KINDS), _given("length_mm"), _given("diameter_mm")]}
    },
}
_OF_FACES: Final[SchemaPart] = {
    "required": ["found", "want"],
    "allOf": [
        _one_of("area_cm2", "shape"),
        _together("coat_um", "keep_um"),
        _not_both("limit_um", "coat_um"),
        _only_with("keep_wall_mm", _given("thickness_mm")),
        _only_with("fit", _ROUND),
        _not_both("fit", "size_left_um"),
        {"if": _is_one("reach", "inside"), "then": _given("inside_radius_mm")},
    ],
}
_OF_EDGES: Final[SchemaPart] = {
    "allOf": [_left_out(key) for key in NOT_OF_EDGES],
    "properties": {
        "reach": {"const": "open"},
        "keep_off": {"const": False},
        "stays_flat": {"const": False},
        "blind": {"const": False},
        "looked_through": {"const": False},
        "lay_runs_out": {"const": False},
        "spots": {"maxItems": 0},
    },
}
_WITH_A_SIZE: Final[tuple[EdgeWanted, ...]] = ("break", "radius")
RULES: Final[Mapping[str, ModelRules]] = {
    "ShapeFile": ModelRules(
        [
            {"if": _is_one("kind", kind), "then": {"allOf": [_given(f"{need}_mm") for need in shape.needs]}}
            for kind, shape in SHAPES.items()
        ]
    ),
    "FoundFile": ModelRules(
        [
            {"if": _is_one("as_wanted", True), "then": _left_out("depth_um"), "else": _one_of("depth_um", "after")},
        ]
    ),
    "SpotsFile": ModelRules(
        [_together("length_mm", "width_mm"), _one_of("length_mm", "area_cm2"), _one_of("depth_um", "after")]
    ),
    "WantFile": ModelRules(
        [
            _one_of("finish", "ra_um"),
            _only_with("lay", _given("ra_um")),
            {"properties": {"ra_um": {"not": {"const": [None, None]}}}},
        ]
    ),
    "WishFile": ModelRules(
        [
            {
                "anyOf": [
                    {"properties": {"route": {"maxItems": 0}}},
                    {"properties": {"start": _NULL, "lock": {"maxItems": 0}, "leave_out": {"maxItems": 0}}},
                ]
            }
        ]
    ),
    "EdgeFile": ModelRules(
        [
            {"if": _is_one("wanted", "sharp"), "then": _left_out("size_mm"), "else": _given("size_mm")},
            *({"if": _is_one("wanted", wanted), "then": _within("size_mm", *sizes_by_hand(wanted))} for wanted in _WITH_A_SIZE),
        ]
    ),
    "FaceFile": ModelRules([{"if": _given("edge"), "then": _OF_EDGES, "else": _OF_FACES}], frozenset({"found", "want"})),
}


def with_rules(schema: SchemaPart) -> SchemaPart:
    """The schema of the job file with the rules between its keys."""
    models = schema["$defs"]
    for name, of_model in RULES.items():
        model = models[name]
        model["allOf"] = [*model.get("allOf", []), *of_model.rules]
        if of_model.optional:
            model["required"] = [key for key in model["required"] if key not in of_model.optional]
    return schema
