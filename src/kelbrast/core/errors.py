"""The exceptions of the core, one tree: everything that can go wrong on purpose.

    KelbrastError
    ├── BadInput          a value cannot be used: which one, and what would mend it
    │   └── ReadError     a file or table cannot be read at all
    ├── OutsideValidity   a formula was asked for something beyond its range
    ├── NotFound          no such material, tool, job ...
    ├── Conflict          it was changed elsewhere in the meantime
    ├── NotLetIn          this device is not paired, or may not do that
    ├── TooSoon           there were wrong codes: wait, then try again
    └── StoreTrouble      what is kept cannot be read or written: why, what is safe, what to do

That no route exists is an answer, not an error: see `kelbrast.core.planning.whole.plan.FacePlan`.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

MOST_FAULTS: Final = 50  # more are not read by anybody, and mending the first often mends the rest


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong with the input: where it is (`faces[0].area_cm2`) and what would mend it.

    Attributes:
        code: names the rule that was broken, for words in a reader's own language and units; empty when there is none.
        limit: the number that the rule speaks of, in the unit of the field.
        hint: where else to look, at the command line.
    """

    field: str
    message: str
    code: str = ""
    limit: float | None = None
    hint: str = ""

    def __str__(self) -> str:
        said = f"{self.message}; {self.hint}" if self.hint else self.message
        return f"{self.field}: {said}" if self.field else said


class KelbrastError(Exception):
    """The root of the tree above."""


class BadInput(KelbrastError):
    """A value cannot be used. Carries every fault found, up to `MOST_FAULTS`, not only the first."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        shown = tuple(faults[:MOST_FAULTS])
        more = len(faults) - len(shown)
        self.faults = (*shown, Fault("", f"and {more} more like these; mend these first")) if more else shown
        super().__init__("; ".join(str(fault) for fault in self.faults))

    @classmethod
    def one(cls, field: str, message: str) -> "BadInput":
        return cls([Fault(field, message)])


class ReadError(BadInput):
    """A file or a table cannot be read."""


class OutsideValidity(KelbrastError):
    """A formula was asked for something beyond the range it holds for."""


class NotFound(KelbrastError):
    """No such thing. `near` holds the ids that look most like what was asked for."""

    def __init__(self, kind: str, key: str, near: Sequence[str] = (), *, hint: str = "") -> None:
        self.kind, self.key, self.near = kind, key, tuple(near)
        hint = hint or (f"did you mean {' or '.join(near)}" if near else "")
        super().__init__(f'there is no {kind} "{key}"{"; " if hint else ""}{hint}')


class Conflict(KelbrastError):
    """The thing was changed elsewhere since it was read; nothing was written."""


class NotLetIn(KelbrastError):
    """This device is not paired, or gave the wrong code."""


class TooSoon(KelbrastError):
    """There were wrong codes; `wait_s` says after how many seconds the next is looked at."""

    def __init__(self, wait_s: float) -> None:
        self.wait_s = wait_s
        super().__init__(f"There were wrong codes: wait {wait_s:.0f} s, then look at the main screen and try again")


Cause = Literal[
    "full", "locked", "read-only", "damaged", "unreachable", "foreign", "newer", "half-made", "other-tables", "replaced"
]


class StoreTrouble(KelbrastError):
    """What is kept cannot be read or written. `safe` says what is not touched, `mend` what a person can do."""

    def __init__(self, cause: Cause, title: str, *, safe: str, mend: str) -> None:
        self.cause, self.title, self.safe, self.mend = cause, title, safe, mend
        super().__init__(f"{title}. {safe} {mend}")
