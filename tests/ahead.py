"""The machine's clocks, set on by a test: an hour passes at once."""

from typing import Any


class Ahead:
    """The machine's clocks, set on by the test."""

    def __init__(self, real: Any) -> None:
        self._real, self.by = real, 0.0

    def __getattr__(self, name: str) -> Any:
        return getattr(self._real, name)

    def time(self) -> float:
        return self._real.time() + self.by

    def clock_gettime(self, which: int) -> float:
        return self._real.clock_gettime(which) + self.by
