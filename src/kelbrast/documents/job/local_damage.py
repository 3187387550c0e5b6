"""Older files said of a whole face that it had nicks or raised metal: they are read as spots, and the rest as even."""

import math
from collections.abc import Mapping
from typing import Any, Final

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.errors import KelbrastError
from kelbrast.core.process.scratch import depth_of_marks
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.shapes import shape_area
from kelbrast.core.units import from_si, to_si

_NAMES: Final = {"nick": "nicks", "raised": "raised metal"}
_OF_PLACES: Final = ("count", "share", "blend")


def with_spots(face: Mapping[str, Any]) -> dict[str, Any]:
    """The face with nicks and raised metal as spots; any other face as it is.

    >>> found = {"kind": "nick", "depth_um": 60, "count": 3}
    >>> made = with_spots({"name": "lid", "area_cm2": 40, "found": found, "want": {"ra_um": [None, 0.4]}})
    >>> made["found"], made["spots"][0]["count"], made["spots"][0]["depth_um"]
    ({'kind': 'scratches', 'depth_um': 2.4}, 3, 60)
    """
    found = face.get("found")
    if not isinstance(found, Mapping) or face.get("edge") is not None or not _OF_PLACES_OR_KIND.intersection(_said(found)):
        return dict(face)
    rest = {key: value for key, value in found.items() if key not in _OF_PLACES}
    kind = found.get("kind")
    if kind not in _NAMES:  # there it says nothing
        return {**face, "found": rest} if _harmless(found) else dict(face)
    if kind == "nick" and found.get("blend") is False:
        return {**face, "found": {**rest, "kind": "scratches"}}
    spots = {"name": _NAMES[kind], **rest, **_extent(face, found, kind)}
    if kind == "nick":
        spots["count"] = found.get("count", 1)
    return {**face, "found": _even(face.get("want")), "spots": [*face.get("spots", []), spots]}


_OF_PLACES_OR_KIND: Final = frozenset({*_OF_PLACES, *_NAMES})


def _said(found: Mapping[str, Any]) -> set[str]:
    return {key for key in _OF_PLACES if key in found} | {str(found.get("kind"))}


def _harmless(found: Mapping[str, Any]) -> bool:
    """Whether the keys of places say no more than what older files wrote of a face without any."""
    return found.get("count", 1) == 1 and found.get("share") is None and found.get("blend") is None


def _extent(face: Mapping[str, Any], found: Mapping[str, Any], kind: str) -> dict[str, float]:
    if kind == "nick":
        return {
            "length_mm": from_si(2 * constant("simulation.nick_half_length").si, "mm"),
            "width_mm": from_si(2 * constant("simulation.nick_half_width").si, "mm"),
        }
    share = found.get("share") or constant("blend.raised_share").value
    return {"area_cm2": share * _area_cm2(face)}


def _area_cm2(face: Mapping[str, Any]) -> float:
    """Of the face; 1 where its measures are at fault, which is said elsewhere."""
    try:
        if face.get("area_cm2") is not None:
            return float(face["area_cm2"])
        measures = {
            key.removesuffix("_mm"): to_si(value, "mm") for key, value in face["shape"].items() if key != "kind" and value
        }
        return from_si(shape_area(face["shape"]["kind"], measures, field="shape"), "cm2")
    except (KelbrastError, KeyError, TypeError, ValueError, AttributeError):
        return 1.0


def _even(want: Any) -> dict[str, Any]:
    """What a face looks like of which nothing worse was said: marks as deep as the finish bears."""
    asked = want if isinstance(want, Mapping) else {}
    if asked.get("no_finer_than"):
        return {"after": asked["no_finer_than"]}
    try:
        band = asked["ra_um"] if asked.get("ra_um") else [None, None]
        high = band[1] if "finish" not in asked else from_si(finish(asked["finish"]).ra_high or 0.0, "um")
        high = float(high or band[0] or 0.0)
    except (KelbrastError, KeyError, TypeError, ValueError, IndexError):
        high = 0.0
    if not (high > 0 and math.isfinite(high)):
        high = from_si(constant("looks.clear_below").si, "um")
    return {"kind": "scratches", "depth_um": round(from_si(depth_of_marks(to_si(high, "um")), "um"), 9)}
