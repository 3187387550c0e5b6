"""Everything that can go wrong on purpose.

    KelbrastError
    ├── BadInput          a value cannot be used: which one, and what would mend it
    │   └── ReadError     a file or table cannot be read at all
    ├── OutsideValidity   a formula was asked for something beyond its range
    ├── NotFound          no such material, tool, job ...
    └── Conflict          it was changed elsewhere in the meantime

That no route exists is an answer, not an error: see `kelbrast.core.planning.plan.FacePlan`.
"""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong with the input: where it is (`faces[0].area_cm2`) and what would mend it."""

    field: str
    message: str

    def __str__(self) -> str:
        return f"{self.field}: {self.message}" if self.field else self.message


class KelbrastError(Exception):
    """The root of the tree above."""


class BadInput(KelbrastError):
    """A value cannot be used. Carries every fault found, not only the first."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        self.faults = tuple(faults)
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

    def __init__(self, kind: str, key: str, near: Sequence[str] = ()) -> None:
        self.kind, self.key, self.near = kind, key, tuple(near)
        hint = f"; did you mean {' or '.join(near)}" if near else ""
        super().__init__(f'there is no {kind} "{key}"{hint}')


class Conflict(KelbrastError):
    """The thing was changed elsewhere since it was read; nothing was written."""
