"""Local damage: how far around it is worked, so that neither its rim nor its hollow shows."""

import numpy as np

from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import Reals, require_above_zero, require_not_below_zero


def dish_radius(*, depth: float, slope: float) -> float:
    """Radius of a dish that rises evenly from its middle.

    Equation: `r = d / s` (m)
    Valid: depth not below 0, slope above 0.

    Args:
        depth: d in its middle, m; 0 makes no dish.
        slope: s, rise over run, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(dish_radius(depth=0.3e-3, slope=0.01) * 1e3, 6)  # 1:100 around 0.3 mm
    30.0
    """
    require_not_below_zero(depth=depth)
    require_above_zero(slope=slope)
    return depth / slope


def rim_width(*, depth: float, slope: float) -> float:
    """How wide the rim around a place is that is worked down smoothly: one and a half times as wide as a straight one.

    Equation: `e = 1.5 d / s`, because a smooth rim (3 t^2 - 2 t^3) is that much steeper in its middle than on average (m)
    Valid: depth not below 0, slope above 0.

    Args:
        depth: d that the place is deep, m.
        slope: s, the steepest that does not show, rise over run, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(rim_width(depth=60e-6, slope=0.01) * 1e3, 6)
    9.0
    """
    require_not_below_zero(depth=depth)
    require_above_zero(slope=slope)
    return constant("blend.rim").value * depth / slope


def overlap(*, depth: float, marks: Reals, raised: bool = False) -> Reals:
    """How much further out a finer grade runs past the place, so that no coarser mark runs out under it.

    Equation: `u = o max(0, ln(d / (f m)) / ln q)`: o for every doubling of the grit beyond the usual first one, whose marks
    are f times less deep than the place, the middle of what a first one may be (f^2, `habit.double-up.first`, and for metal
    that stands proud `first_raised`); q is how much less deep marks get by a doubling (m)
    Valid: depth not below 0, marks above 0.

    Args:
        depth: d that the place is deep, m.
        marks: m, depth of the marks of each grade, m.
        raised: metal stands proud there.

    Raises:
        OutsideValidity: outside that.

    Source: bench-practice.

    >>> [round(float(one) * 1e3) for one in overlap(depth=60e-6, marks=np.array([20e-6, 6e-6, 2e-6]))]
    [0, 11, 22]
    """
    require_not_below_zero(depth=depth)
    require_above_zero(marks=marks)
    doubling = constant("scratch.exponent").value * np.log(constant("habit.double-up.jump").value)
    first = np.sqrt(constant(f"habit.double-up.{'first_raised' if raised else 'first'}").value)
    with np.errstate(divide="ignore"):
        doublings = np.log(depth / (first * np.asarray(marks))) / doubling
    return np.asarray(constant("blend.overlap").si * np.maximum(doublings, 0.0))


def zone_area(*, count: int, length: float, width: float, margin: Reals) -> Reals:
    """The area that is worked around places, grown on all sides by a margin.

    Equation: `A = n (l w + 2 e (l + w) + pi e^2)` (m2)
    Valid: count, length and width above 0, margin not below 0.

    Args:
        count: n places, dimensionless.
        length: l of each, m.
        width: w of each, m.
        margin: e, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(float(zone_area(count=3, length=0.08, width=0.002, margin=np.array(0.009))) * 1e4, 1)  # cm2
    56.7
    """
    require_above_zero(count=count, length=length, width=width)
    require_not_below_zero(margin=margin)
    e = np.asarray(margin)
    return np.asarray(count * (length * width + 2 * e * (length + width) + np.pi * e**2))


def dug_area(*, count: int, length: float, width: float, rim: Reals) -> Reals:
    """The area that stands for the volume of the hollows: under a smooth rim half of it is cut, in its corners 0.3.

    Equation: `D = n (l w + r (l + w) + 0.3 pi r^2)`; times the depth it is what is dug (m2)
    Valid: count, length and width above 0, rim not below 0.

    Args:
        count: n places, dimensionless.
        length: l of each, m.
        width: w of each, m.
        rim: r, how wide the rim is, no smaller than the tool, m; 0 for metal that stands proud.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(float(dug_area(count=1, length=0.02, width=0.01, rim=np.array(0.0))) * 1e4, 1)  # cm2
    2.0
    """
    require_above_zero(count=count, length=length, width=width)
    require_not_below_zero(rim=rim)
    r = np.asarray(rim)
    corner = constant("blend.corner").value * np.pi
    return np.asarray(count * (length * width + r * (length + width) + corner * r**2))
