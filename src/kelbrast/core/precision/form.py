"""The form of a round part estimated from a few diameters, with its uncertainty."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.surface.sized import Reading
from kelbrast.core.validity import Reals, require_above_zero, require_numbers, require_within

Blind = Literal["taper", "barrel", "oval", "oval-between", "lobes", "scatter"]
SURE: Final = 1.96  # standard deviations of a 95 % interval of a Gaussian
_ALONG: Final[tuple[Blind, ...]] = ("taper", "barrel")
_SCATTERS: Final = 3.09  # one in a thousand scatters more than the gauge should by chance
_RANK: Final = 1e-6  # smallest singular value of columns that are told apart, against the largest


@dataclass(frozen=True, slots=True)
class FormEstimate:
    """A value with the half-width of its 95 % interval, m."""

    value: float
    within: float


@dataclass(frozen=True, slots=True)
class Form:
    """A round part as `D(z, phi) = D0 + taper z / L + barrel (1/3 - (2 z / L)^2) + (oval / 2) cos 2 (phi - phi0)`.

    Attributes:
        size: D0, the mean.  taper: end to end, above 0 where it widens to positive z.
        barrel: above 0 for a belly, below for a waist (in a bore that is bell-mouthed).
        oval: largest less smallest across one section.  None, as for the others: not to be told.
        widest: phi0, rad; where the oval is widest, or the wider of two directions.
        across: at least so much oval, where two directions alone were read, m.
        blind: what these readings cannot tell.  deviation: standard deviation that one reading is taken to have, m.
    """

    size: FormEstimate
    taper: FormEstimate | None
    barrel: FormEstimate | None
    oval: FormEstimate | None
    widest: float | None
    across: float | None
    blind: tuple[Blind, ...]
    deviation: float

    def at(self, place: float, direction: float) -> float:
        """The diameter there, m; `place` as in `along`."""
        taper, barrel = (
            form_estimate.value if form_estimate is not None else 0.0 for form_estimate in (self.taper, self.barrel)
        )
        round_the_axis = math.cos(2 * (direction - (self.widest or 0.0)))
        return self.size.value + along(place, taper=taper, barrel=barrel) + self.seen_oval / 2 * round_the_axis

    @property
    def seen_oval(self) -> float:
        """The oval, or what is known of it at least, m."""
        return self.oval.value if self.oval is not None else self.across or 0.0

    @property
    def lift(self) -> float:
        """How far the form along the length can lift a section above the mean, m; below 0 is deeper."""
        taper, barrel = (
            form_estimate.value if form_estimate is not None else 0.0 for form_estimate in (self.taper, self.barrel)
        )
        return max(along(u, taper=taper, barrel=barrel) for u in _extremes(taper, barrel))

    @property
    def fall(self) -> float:
        """How far it can lower one below the mean, m (not above 0)."""
        taper, barrel = (
            form_estimate.value if form_estimate is not None else 0.0 for form_estimate in (self.taper, self.barrel)
        )
        return min(along(u, taper=taper, barrel=barrel) for u in _extremes(taper, barrel))


def along(place: float, *, taper: float, barrel: float) -> float:
    """How much larger than the mean a section is, by where it lies along the length.

    Equation: `d = taper u + barrel (1/3 - (2 u)^2)`, u = z / L from -1/2 to 1/2 (m)
    Valid: u between -1/2 and 1/2.

    Args:
        place: u, dimensionless.
        taper: end to end, m.
        barrel: belly or waist, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(along(0.5, taper=6.0, barrel=3.0), 9), round(along(0.0, taper=6.0, barrel=3.0), 9)  # at an end, in the middle
    (1.0, 1.0)
    """
    require_within(-0.5, 0.5, place=place)
    require_numbers(taper=taper, barrel=barrel)
    return taper * place + barrel * (1 / 3 - (2 * place) ** 2)


def _extremes(taper: float, barrel: float) -> tuple[float, ...]:
    """The ends, and where a belly or a waist with a taper is widest or narrowest."""
    turning = taper / (8 * barrel) if barrel else 0.0
    return (-0.5, 0.5, turning) if abs(turning) < 0.5 else (-0.5, 0.5)


def fit_form(readings: Sequence[Reading], *, length: float, repeatability: float) -> Form:
    """The form that fits the readings best, each part of it only where they can tell it.

    Equation: `min sum (D_i - D(z_i, phi_i))^2`, D as in `Form`; oval = sqrt(max(4 (a^2 + b^2) - 4 (var a + var b), 0)) (m)
    Valid: at least one reading, all of them numbers and on the length; length and repeatability above 0.

    Args:
        readings: diameters with their places, m and rad.
        length: L, m.
        repeatability: standard deviation of one reading, m.

    Raises:
        OutsideValidity: outside that.

    Source: gauss-squares, our-choice.

    >>> crosswise = [Reading(20.010e-3, direction=0.0), Reading(20.000e-3, direction=math.pi / 2)]
    >>> found = fit_form(crosswise, length=40e-3, repeatability=2e-6)
    >>> round(found.size.value * 1e3, 4), found.oval, round(found.across * 1e6)
    (20.005, None, 10)
    """
    require_above_zero(length=length, repeatability=repeatability)
    read = _checked(readings, length)
    u, phi, diameters = read[:, 1] / length, read[:, 2], read[:, 0]
    parts = {
        "oval": np.column_stack([np.cos(2 * phi), np.sin(2 * phi)]),
        "across": np.cos(2 * (phi - phi[0]))[:, None],
        "taper": u[:, None],
        "barrel": (1 / 3 - (2 * u) ** 2)[:, None],
    }
    columns, at = np.ones((len(u), 1)), {}
    for name, more in parts.items():
        wider = np.hstack([columns, more])
        if not (name == "across" and "oval" in at) and _told_apart(wider):
            at[name], columns = columns.shape[1], wider
    middle = float(diameters.mean())
    found = np.asarray(np.linalg.lstsq(columns, diameters - middle, rcond=None)[0], dtype=np.float64)
    deviation, scatters = _deviation(diameters - middle - columns @ found, columns.shape[1], repeatability)
    spread = deviation**2 * np.asarray(np.linalg.inv(columns.T @ columns), dtype=np.float64)

    def told(name: str) -> FormEstimate | None:
        return None if name not in at else FormEstimate(float(found[at[name]]), SURE * math.sqrt(spread[at[name], at[name]]))

    oval = across = widest = None
    if "oval" in at:
        pair = slice(at["oval"], at["oval"] + 2)
        oval, widest = _oval(found[pair], spread[pair, pair])
    elif "across" in at:
        between = float(np.ptp(parts["across"]))
        across = abs(float(found[at["across"]])) * between
        widest = float(phi[0]) if found[at["across"]] >= 0 else float(phi[parts["across"][:, 0].argmin()])
    blind: list[Blind] = [name for name in _ALONG if name not in at]
    if oval is None:
        blind.append("oval" if across is None else "oval-between")
    return Form(
        size=FormEstimate(middle + float(found[0]), SURE * math.sqrt(spread[0, 0])),
        taper=told("taper"),
        barrel=told("barrel"),
        oval=oval,
        widest=widest,
        across=across,
        blind=(*blind, "lobes", "scatter") if scatters else (*blind, "lobes"),
        deviation=deviation,
    )


def _checked(readings: Sequence[Reading], length: float) -> Reals:
    read = np.array([(reading.diameter, reading.height, reading.direction) for reading in readings], dtype=float).reshape(-1, 3)
    if not len(read):
        raise OutsideValidity("a form needs at least one reading")
    if not np.isfinite(read).all() or (read[:, 0] <= 0).any():
        raise OutsideValidity("every reading must be a diameter above 0 at a place that is a number")
    if (np.abs(read[:, 1]) > length / 2 * (1 + 1e-9)).any():
        raise OutsideValidity("every reading must lie on the length, at most half of it from the middle")
    return read


def _told_apart(columns: Reals) -> bool:
    if columns.shape[0] < columns.shape[1]:
        return False
    sizes = np.linalg.svd(columns, compute_uv=False)
    return bool(sizes[-1] > _RANK * sizes[0] and sizes[-1] > 1e-3)


def _deviation(rest: Reals, columns: int, repeatability: float) -> tuple[float, bool]:
    """The gauge's own, or what the readings scatter where that is more than chance would have (Wilson and Hilferty)."""
    free = len(rest) - columns
    if free < 1:
        return repeatability, False
    ratio = float(rest @ rest) / repeatability**2 / free
    most = (1 - 2 / (9 * free) + _SCATTERS * math.sqrt(2 / (9 * free))) ** 3
    return (repeatability * math.sqrt(ratio), True) if ratio > most else (repeatability, False)


def _oval(pair: Reals, spread: Reals) -> tuple[FormEstimate, float]:
    """Its size without what chance adds to it, and where it is widest."""
    a, b = float(pair[0]), float(pair[1])
    chance = 4 * float(np.trace(spread))
    within = SURE * math.sqrt(chance / 2)
    return FormEstimate(math.sqrt(max(4 * (a * a + b * b) - chance, 0.0)), within), (math.atan2(b, a) / 2) % math.pi
