"""Range checks that every formula uses, and the array types of the core."""

import math
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kelbrast.core.errors import OutsideValidity

Reals = NDArray[np.float64]
Flags = NDArray[np.bool_]
Places = NDArray[np.intp]
Texts = NDArray[np.str_]
Waves = NDArray[np.complex128]
Bytes = NDArray[np.uint8]

REL_TOL: Final = 1e-9  # relative: what two ways of working out one number may differ by


def require_above_zero(**values: float | Reals) -> None:
    """Every value is a finite number above 0, or all of an array are.

    Raises:
        OutsideValidity: naming the first that is not.

    >>> require_above_zero(force=25.0, speed=float("nan"))
    Traceback (most recent call last):
    kelbrast.core.errors.OutsideValidity: speed must be above 0, and a number
    """
    for name, value in values.items():
        if not (0 < value < math.inf if type(value) is float else np.all(np.isfinite(value) & (np.asarray(value) > 0))):
            raise OutsideValidity(f"{name} must be above 0, and a number")


def require_not_below_zero(**values: float | Reals) -> None:
    """Every value is a finite number and 0 or more.

    Raises:
        OutsideValidity: naming the first that is not.
    """
    for name, value in values.items():
        if not (0 <= value < math.inf if type(value) is float else np.all(np.isfinite(value) & (np.asarray(value) >= 0))):
            raise OutsideValidity(f"{name} must not be below 0, and a number")


def require_numbers(**values: float) -> None:
    """Every value is a finite number.

    Raises:
        OutsideValidity: naming the first that is not.
    """
    for name, value in values.items():
        if not math.isfinite(value):
            raise OutsideValidity(f"{name} must be a number")


def require_within(low: float, high: float, **values: float) -> None:
    """Every value lies between these ends, which count as within.

    Raises:
        OutsideValidity: naming the first that does not.
    """
    for name, value in values.items():
        if not low <= value <= high:
            raise OutsideValidity(f"{name} must lie between {low:g} and {high:g}")


def require_heights(z: Reals, *, least: int, what: str) -> None:
    """So many heights at least, all of them numbers.

    Raises:
        OutsideValidity: there are fewer, or one is not a number.
    """
    if z.size < least:
        raise OutsideValidity(f"{what} needs at least {least} heights")
    if not np.isfinite(z).all():
        raise OutsideValidity(f"the heights of {what} must be numbers throughout")
