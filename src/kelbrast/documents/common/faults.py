"""Faults: what the models of the files find wrong, and the same in the words of a person who sees no keys."""

import re
from typing import Any, Final

from pydantic import ValidationError

from kelbrast.core.errors import MOST_FAULTS, Fault
from kelbrast.core.units import to_si
from kelbrast.core.wording import UNITS, Measure, Quantity, Sentence, plain, sentence


def faults_of(problem: ValidationError) -> list[Fault]:
    """Pydantic's findings as faults, each naming its key as `faces[0].found.depth_um`."""
    faults: dict[str, Fault] = {}
    # Of several findings on one key, a broken rule of ours says more than "must be a number".
    ours = ("value_error", *RULES)
    for error in sorted(problem.errors(include_url=False), key=lambda error: error["type"] not in ours):
        if len(faults) > 2 * MOST_FAULTS:
            break
        field = written_place(error["loc"])
        context = error.get("ctx", {})
        said = _said(error["type"], context, error["msg"])
        faults.setdefault(field, Fault(field, said, code=error["type"], limit=_limit_of(context)))
    # A union tries every arm; where one arm got further into the value, the others only say that it is not theirs.
    return [fault for field, fault in faults.items() if not any(other.startswith(f"{field}.") for other in faults)]


_UNION_ARMS: Final = re.compile(r"^(own_.*|float|int|DepthRange|str|function-.*|tuple\[.*|constrained-.*)$")


def written_place(place: tuple[int | str, ...]) -> str:
    """`("faces", 0, "found", "depth_um", "float")` as `faces[0].found.depth_um`: the arms of a union are no keys."""
    written = ""
    for part in place:
        if isinstance(part, int):
            written += f"[{part}]"
        elif not _UNION_ARMS.match(part):
            written += f".{part}" if written else part
    return written


def _limit_of(context: dict[str, Any]) -> float | None:
    found = next((context[key] for key in ("gt", "ge", "lt", "le") if key in context), None)
    return float(found) if isinstance(found, int | float) else None


def _said(kind: str, context: dict[str, Any], message: str) -> str:
    """What is wrong, in the words of this program."""
    limit = next((f"{context[key]:g}" for key in ("gt", "ge", "lt", "le", "min_length", "max_length") if key in context), None)
    words = {
        "extra_forbidden": "is not a key of this file",
        "missing": "is missing",
        "greater_than": f"must be above {limit}",
        "greater_than_equal": f"must be at least {limit}",
        "less_than": f"must be below {limit}",
        "less_than_equal": f"must be at most {limit}",
        "float_type": "must be a number",
        "float_parsing": "must be a number",
        "finite_number": "must be a finite number",
        "int_type": "must be a whole number",
        "int_from_float": "must be a whole number",
        "int_parsing": "must be a whole number",
        "string_type": "must be text",
        "bool_type": "must be true or false",
        "dict_type": "must be an object with keys",
        "bool_parsing": "must be true or false",
        "list_type": "must be a list",
        "tuple_type": "must be a list of two",
        "string_too_short": "must not be empty",
        "string_too_long": f"must be at most {limit} characters long",
        "too_short": f"needs at least {limit}",
        "too_long": f"has more than the {limit} that are allowed, or than fit",
        "model_type": "must be an object with keys",
        "model_attributes_type": "must be an object with keys",
    }
    if kind == "literal_error":
        return f"must be one of {context['expected'].replace(' or ', ', ')}".replace("'", "")
    return words.get(kind, message.removeprefix("Value error, "))


# Rules of ours about several fields, with the fields that each speaks of, below the place where the fault is named.
RULES: Final[dict[str, tuple[str, ...]]] = {
    "worst_below_likely": ("worst",),
    "depth_or_grade": ("depth_um", "after"),
    "depth_as_wanted": ("depth_um",),
    "spot_sides": ("length_mm", "width_mm"),
    "spot_size": ("length_mm", "area_cm2"),
    "spot_depth": ("depth_um", "after"),
    "same_spots": ("spots",),
    "same_spots_id": ("spots",),
    "finish_or_band": ("finish", "ra_um"),
    "lay_of_band": ("lay",),
    "band_without_end": ("ra_um",),
    "band_upside_down": ("ra_um",),
    "keep_below_layer": ("keep_um",),
    "route_or_wishes": ("route",),
    "area_or_shape": ("area_cm2", "shape"),
    "coat_and_keep": ("coat_um", "keep_um"),
    "limit_or_coat": ("limit_um", "coat_um"),
    "keep_below_coat": ("keep_um",),
    "keep_below_wall": ("keep_wall_mm",),
    "inside_radius": ("inside_radius_mm",),
    "same_name": ("name",),
    "edge_alone": ("edge",),
    "edge_beside": ("next_to",),
    "fit_of_round": ("shape",),
    "fit_or_size_left": ("fit",),
    "size_wanted": ("want",),
    "size_tool": ("lap", "lathe"),
}
_LIMITS: Final = ("greater_than", "greater_than_equal", "less_than", "less_than_equal", "larger_than_new")
_KINDS: Final = {
    "missing": "missing",
    "float_type": "number",
    "float_parsing": "number",
    "finite_number": "number",
    "int_type": "whole",
    "int_from_float": "whole",
    "int_parsing": "whole",
    "string_too_short": "text_missing",
    "string_too_long": "text_long",
}
_LABELS: Final = {
    "area_cm2": "area",
    "thickness_mm": "wall behind it",
    "inside_radius_mm": "inside radius",
    "depth_um": "depth",
    "likely": "likely depth",
    "worst": "worst depth",
    "after": "grade that left it",
    "count": "how many",
    "share": "share of the face",
    "ra_um": "band of Ra",
    "no_finer_than": "grade that it may be no finer than",
    "limit_um": "metal that may come off",
    "coat_um": "coat",
    "keep_um": "what must stay",
    "thickness_um": "layer",
    "keep_wall_mm": "wall that must stay",
    "size_left_um": "what the size leaves",
    "mass_g": "weight",
    "diameters_mm": "diameter of the wheel as it is",
    "length_mm": "length",
    "width_mm": "width",
    "diameter_mm": "diameter",
    "inside_diameter_mm": "inside diameter",
    "height_mm": "height",
    "marked_m_s": "marked speed",
    "life_min": "life",
    "low": "when to buy more",
    "rpm": "speed",
    "size_mm": "diameter now",
    "made": "when it was made",
    "mm": "reading",
    "z_mm": "place along the length",
    "worked_s": "time worked",
    "repeatability_um": "what the gauge repeats within",
    "want": "what is wanted",
}
_UNITS: Final[tuple[tuple[str, Quantity, str], ...]] = (
    ("ra_um", "roughness", "um"),
    ("_um", "depth", "um"),
    ("likely", "depth", "um"),
    ("worst", "depth", "um"),
    ("_mm", "length", "mm"),
    ("_cm2", "area", "cm2"),
    ("_m_s", "speed", "m/s"),
    ("_g", "mass", "g"),
)
_PLACE: Final = re.compile(r"\[\d+\]")


def what(fault: Fault) -> Sentence:
    """What is wrong, with its limit as a figure in the quantity of the field."""
    if fault.code in _LIMITS and fault.limit is not None:
        return sentence(f"fault.{fault.code}", limit=_figure(fault))
    if fault.code in RULES or fault.code in _KINDS:
        return sentence(f"fault.{_KINDS.get(fault.code, fault.code)}")
    said = fault.message
    return plain(said[:1].upper() + said[1:])


def where(fault: Fault) -> str:
    """The field in words; empty for the whole of something.

    >>> where(Fault("faces[0].found.depth_um.likely", "")), where(Fault("faces[0]", "", code="inside_radius"))
    ('likely depth', 'inside radius')
    """
    key = _last(about(fault)[0])
    if key in ("", "faces", "items", "found", "want", "shape", "layer", "wish"):
        return ""
    return _LABELS.get(key, re.sub(r"_(um|mm|cm2|g|m_s|min)$", "", key).replace("_", " "))


def about(fault: Fault) -> tuple[str, ...]:
    """The keys that the fault speaks of: where it was named, or the fields of its rule below that.

    >>> about(Fault("faces[0]", "", code="keep_below_wall"))
    ('faces[0].keep_wall_mm',)
    """
    below = RULES.get(fault.code, ())
    start = f"{fault.field}." if fault.field else ""
    return tuple(fault.field if _last(fault.field) == key else f"{start}{key}" for key in below) or (fault.field,)


def _last(field: str) -> str:
    parts = _PLACE.sub("", field).split(".")
    return parts[-2] if len(parts) > 1 and parts[-2] == "diameters_mm" else parts[-1]


def _figure(fault: Fault) -> Measure | str:
    key, limit = _last(fault.field), fault.limit or 0.0
    for ending, quantity, unit in _UNITS:
        if limit and key.endswith(ending):
            assert UNITS[quantity]["metric"][0] == unit, "files are in metric units"
            return Measure(to_si(limit, unit), quantity, 6)
    return f"{limit:g}"
