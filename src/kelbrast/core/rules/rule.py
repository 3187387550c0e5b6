"""The kinds of rules: what each states, its source, how it constrains a plan, and what lifts it.

Every rule of the trade that forbids, ends, orders or warns is one object in one module of this package, by theme. `book.py`
lists them all; `docs/rules.md` is printed from there.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final, Literal, get_args

import numpy as np

from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import Flags
from kelbrast.core.wording import Sentence

# What a plan says when a rule stands in the way, by the names of the plan file. Rules that share one are lifted together.
# The order in which they are lifted to find the one that binds: the part's own limits first, the rack's last.
Refusal = Literal["metal", "reach", "heat", "speed", "contamination", "lay", "too-soft", "not-fine-enough"]
REFUSALS: Final[tuple[Refusal, ...]] = get_args(Refusal)

Reason = Callable[[Surfaces, int, int], Sentence]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """A rule of the trade.

    Attributes:
        says: the rule in a sentence.  source: a key of `sources.toml`.
        lifted_by: what a person can change so that it no longer holds.
    """

    id: str
    says: str
    source: str
    lifted_by: str

    @property
    def does(self) -> str:
        """What it does to a plan."""
        raise NotImplementedError


@dataclass(frozen=True, slots=True, kw_only=True)
class ToolRule(Rule):
    """Forbids a tool on a face whatever was there before. `reason`: why, told of the step from one node to another."""

    refusal: Refusal
    forbids: Callable[[ToolOnFace, ToolContext], bool]
    reason: Reason

    @property
    def does(self) -> str:
        return f"forbids a tool ({self.refusal})"

    def mask(self, surfaces: Surfaces) -> Flags:
        """(n, n) True where it forbids the step."""
        column = np.array([False, *(self.forbids(tool, surfaces.context) for tool in surfaces.tools)], dtype=bool)
        return np.broadcast_to(column[None, :], (surfaces.count, surfaces.count))


@dataclass(frozen=True, slots=True, kw_only=True)
class StepRule(Rule):
    """Forbids steps: `mask` gives (n, n) flags over (from, to)."""

    refusal: Refusal
    mask: Callable[[Surfaces], Flags]
    reason: Reason

    @property
    def does(self) -> str:
        return f"forbids a step ({self.refusal})"


@dataclass(frozen=True, slots=True, kw_only=True)
class PassageRule(Rule):
    """Which steps go at all: `mask` gives (n, n) flags of those that do. Never lifted."""

    mask: Callable[[Surfaces], Flags]

    @property
    def does(self) -> str:
        return "says which steps go at all"


@dataclass(frozen=True, slots=True, kw_only=True)
class EndRule(Rule):
    """Says where a route may end: `may_end` gives (n,) flags. Without a `refusal` it is never lifted."""

    refusal: Refusal | None
    may_end: Callable[[Surfaces], Flags]

    @property
    def does(self) -> str:
        return f"says where a route ends ({self.refusal})" if self.refusal else "says where a route ends"


@dataclass(frozen=True, slots=True, kw_only=True)
class LimitRule(Rule):
    """Bounds what a whole route may add up to."""

    refusal: Refusal

    @property
    def does(self) -> str:
        return f"bounds the route ({self.refusal})"


@dataclass(frozen=True, slots=True, kw_only=True)
class Caution(Rule):
    """Warns at every step that it applies to, in words of `advice.toml` (a key of [general])."""

    applies: Callable[[ToolOnFace, Face], bool]
    words: str

    @property
    def does(self) -> str:
        return "warns"


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice(Rule):
    """Says what is good to know at a step (`rules.advice.AtStep`), in words of `advice.toml` (a key of [advice])."""

    applies: Callable[[Any], bool]
    words: str

    @property
    def does(self) -> str:
        return "advises"


@dataclass(frozen=True, slots=True, kw_only=True)
class PartAdvice(Advice):
    """Says what is good to know of the whole part; `applies` looks at the job."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Practice(Rule):
    """Orders the work, sets how it is done, or says what to do: `kept_by` is the function that keeps it."""

    kept_by: Callable[..., Any]

    @property
    def does(self) -> str:
        module = self.kept_by.__module__.removeprefix("kelbrast.core.")
        return f"is kept by `{module}.{self.kept_by.__qualname__}`"
