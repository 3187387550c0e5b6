"""All rules by theme, and the tools, steps and ends that they forbid on a face."""

from collections.abc import Mapping
from functools import reduce
from types import MappingProxyType
from typing import Final

import numpy as np

from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.rules import (
    advice,
    cautions,
    cleanliness,
    coats,
    habits,
    heat,
    lay,
    metal,
    order,
    protection,
    reach,
    roughness,
    softness,
    speed,
)
from kelbrast.core.rules.rule import EndRule, Refusal, Rule, StepRule, ToolRule
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import Toolset, tools_on_face
from kelbrast.core.validity import Flags
from kelbrast.core.wording import Sentence

_ON_ROUTES: Final = (reach, cleanliness, speed, heat, softness, lay, roughness, metal, habits)
_THEMES: Final = (*_ON_ROUTES, order, coats, protection, cautions, advice)
BOOK: Final[Mapping[str, tuple[Rule, ...]]] = MappingProxyType(
    {
        theme.__name__.rpartition(".")[2]: tuple(value for value in vars(theme).values() if isinstance(value, Rule))
        for theme in _THEMES
    }
)
THEMES: Final[Mapping[str, str]] = MappingProxyType(
    {theme.__name__.rpartition(".")[2]: str(theme.__doc__).splitlines()[0] for theme in _THEMES}
)
_RULES: Final = tuple(rule for rules in BOOK.values() for rule in rules)
_ON_TOOLS: Final = tuple(rule for rule in _RULES if isinstance(rule, ToolRule))
_ON_STEPS: Final = tuple(rule for rule in _RULES if isinstance(rule, StepRule))
_FORBIDDING: Final[tuple[ToolRule | StepRule, ...]] = (*_ON_TOOLS, *_ON_STEPS)
_ON_ENDS: Final = tuple(rule for rule in _RULES if isinstance(rule, EndRule))


@remembered(256)
def usable(context: ToolContext) -> Toolset:
    """The tools of the rack that no rule forbids on such a face."""
    on_faces = (on_face for on_face in tools_on_face(context) if not any(rule.forbids(on_face, context) for rule in _ON_TOOLS))
    return Toolset(tuple(on_faces))


def forbidden_steps(surfaces: Surfaces) -> dict[Refusal, Flags]:
    """(n, n) per refusal, True where one of the rules on steps forbids it; no entry where none of them could."""
    masks: dict[Refusal, list[Flags]] = {}
    for rule in _ON_STEPS:
        masks.setdefault(rule.refusal, []).append(rule.mask(surfaces))
    return {refusal: reduce(np.logical_or, found) for refusal, found in masks.items()}


def forbidden_tools(tools: Toolset, context: ToolContext) -> dict[Refusal, Flags]:
    """(n,) per refusal, True where one of the rules on tools forbids the tool on such a face."""
    masks: dict[Refusal, list[Flags]] = {}
    for rule in _ON_TOOLS:
        column = np.array([False, *(rule.forbids(on_face, context) for on_face in tools)], dtype=bool)
        masks.setdefault(rule.refusal, []).append(column)
    return {refusal: reduce(np.logical_or, found) for refusal, found in masks.items()}


def possible_ends(surfaces: Surfaces) -> dict[Refusal | None, Flags]:
    """(n,) per refusal, True where its rules let a route end; under None what is never lifted."""
    found: dict[Refusal | None, Flags] = {}
    for rule in _ON_ENDS:
        found[rule.refusal] = rule.may_end(surfaces) & found.get(rule.refusal, True)
    return found


def reason(refusal: Refusal, surfaces: Surfaces, before: int, at: int) -> Sentence | None:
    """Why a step is refused under this name, by the first rule of the book that forbids it; None where none does."""
    rules = [rule for rule in _FORBIDDING if rule.refusal == refusal]
    guilty = next((rule for rule in rules if rule.mask(surfaces)[before, at]), None)
    return guilty.reason(surfaces, before, at) if guilty else None
