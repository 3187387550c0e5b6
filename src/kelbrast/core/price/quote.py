"""A quote: the price per number of pieces, its drivers, and what a simpler finish would save."""

import math
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.finishes import Finish, ladder
from kelbrast.core.job import Job
from kelbrast.core.planning.whole.account import LINES, Times
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.planning.whole.spread import allowance, seconds_again, spread_of_plan
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.validity import require_above_zero, require_not_below_zero


@dataclass(frozen=True, slots=True)
class Rates:
    """What a shop charges: money for an hour of a person, and the margin on everything (share)."""

    hour: float
    margin: float

    def __post_init__(self) -> None:
        require_above_zero(hour=self.hour)
        require_not_below_zero(margin=self.margin)


@dataclass(frozen=True, slots=True)
class Total:
    """What a customer pays, in the shop's currency, each rounded to its hundredth."""

    net: float
    tax: float
    to_pay: float


def total_of(net: float, tax: float) -> Total:
    """The total with a tax as a share of the net price. The parts add up to the hundredth, as on paper.

    Raises:
        OutsideValidity: a price or tax below zero.

    >>> total_of(337.01, 0.2)
    Total(net=337.01, tax=67.4, to_pay=404.41)
    """
    require_not_below_zero(net=net, tax=tax)
    net = round(net, 2)
    added = round(net * tax, 2)
    return Total(net, added, round(net + added, 2))


@dataclass(frozen=True, slots=True)
class Price:
    """The price of so many pieces, and what it is made of; times in s, money in the shop's currency.

    Attributes:
        times: the account of so many pieces.  high: the hands-on time that nine of ten such jobs stay below.
        labour: money for the hands-on time.  abrasives: worn out.  going_back: money for light checks that will fail.
        each, each_high: the price of one piece, with margin, in hundredths as it is told; `each_high` from `high`.
    """

    pieces: int
    times: Times
    high: float
    labour: float
    abrasives: float
    going_back: float
    margin: float
    each: float
    each_high: float

    @property
    def price(self) -> float:
        """The price of all: so many times that of one, as a customer works it out."""
        return self.pieces * self.each

    @property
    def price_high(self) -> float:
        """The same where the time is as high as nine of ten such jobs stay below."""
        return self.pieces * self.each_high


def price_of(plan: Plan, rates: Rates, *, pieces: int) -> Price:
    """The price of so many pieces of a job.

    Equation: `P = n round((1 + m) (w t(n) / n + c + w r))`, t(n) the hands-on time of n pieces, r what light checks send back
    (money)
    Valid: at least one piece; a plan that is possible.

    Args:
        plan: of the job.
        rates: of the shop: w an hour, m margin.
        pieces: n.

    Raises:
        OutsideValidity: no piece.

    Source: geometry, our-choice.

    >>> from kelbrast.core.catalogue.finishes import finish
    >>> from kelbrast.core.catalogue.materials import material
    >>> from kelbrast.core.surface.found import Found
    >>> plate = Face("plate", 0.01, Found("scratches", 2e-5, 3e-5), finish("satin"), thickness=3e-3)
    >>> plan = plan_job(Job("Plate", material("brass"), (plate,)))
    >>> one, ten = (price_of(plan, Rates(48.0, 0.15), pieces=n) for n in (1, 10))
    >>> once = plan.account.once.hands_on * 48 / 3600
    >>> ten.each < one.each, abs(ten.price - 10 * one.price + 1.15 * 9 * once) < 0.1
    (True, True)
    """
    require_above_zero(pieces=pieces)
    second = rates.hour / 3600
    times, high = plan.account_of(pieces).all, allowance(plan, pieces).hands_on
    labour = second * times.hands_on
    going_back = second * pieces * _done_again(plan)
    abrasives = pieces * sum(face.cost for face in plan.faces)
    cost = labour + abrasives + going_back
    each = round((1 + rates.margin) * cost / pieces, 2)
    return Price(
        pieces=pieces,
        times=times,
        high=high,
        labour=labour,
        abrasives=abrasives,
        going_back=going_back,
        margin=pieces * each - cost,
        each=each,
        each_high=round((1 + rates.margin) * max(cost, second * high + abrasives) / pieces, 2),
    )


def _done_again(plan: Plan) -> float:
    """Seconds of work that light checks send back, for one piece, as can be expected."""
    return sum(step.fails * seconds_again(step).hands_on for face in plan.faces for step in face.steps)


def drives(price: Price, rates: Rates) -> dict[str, float]:
    """What a price is made of, in shares of it, the largest first."""
    second = rates.hour / 3600
    parts: dict[str, float] = {line: second * getattr(price.times, line) for line in LINES if line != "waiting"}
    parts |= {"abrasives": price.abrasives, "going-back": price.going_back, "margin": price.margin}
    return dict(sorted(((name, part / price.price) for name, part in parts.items()), key=lambda one: -one[1]))


@dataclass(frozen=True, slots=True)
class SimplerPrice:
    """The price of one piece where every face that is more than this gets this finish instead."""

    finish: Finish
    each: float


def simpler_prices(job: Job, plan: Plan, rates: Rates, *, pieces: int) -> tuple[SimplerPrice, ...]:
    """What a less demanding finish would cost, planned anew, where that saves enough to be offered; the dearest first."""
    most = price_of(plan, rates, pieces=pieces).each * (1 - constant("price.worth_offering").value)
    simpler_prices = []
    for at, simpler in enumerate(ladder()):
        faces = tuple(_simplified(face, at) for face in job.faces)
        if faces == job.faces:
            continue
        other = plan_job(replace(job, faces=faces))
        if other.possible and (each := price_of(other, rates, pieces=pieces).each) <= most:
            simpler_prices.append(SimplerPrice(simpler, each))
    return tuple(sorted(simpler_prices, key=lambda simpler_price: -simpler_price.each))


def with_looser_limits(job: Job, plan: Plan, rates: Rates, *, pieces: int) -> float | None:
    """The price of one piece if twice as much metal might come off where it is limited; None where that is not less."""
    faces = tuple(
        replace(face, limit=2 * face.limit) if face.limit and face.limit_kind == "metal" and not face.left_alone else face
        for face in job.faces
    )
    if faces == job.faces:
        return None
    other = plan_job(replace(job, faces=faces))
    each = price_of(other, rates, pieces=pieces).each if other.possible else math.inf
    return each if each < price_of(plan, rates, pieces=pieces).each else None


def _simplified(face: Face, at: int) -> Face:
    steps = ladder()
    own = steps.index(face.want) if face.want in steps else len(steps)
    if own >= at or face.left_alone or face.edge is not None or face.sized is not None:
        return face
    return replace(face, want=steps[at], no_finer_than=None)


def with_a_sample(price: Price, plan: Plan) -> float:
    """What the high price would come down to if one piece had been done: the depth of the marks is then known, in s."""
    causes = dict(spread_of_plan(plan).causes)
    likely = price.times.hands_on
    return likely + (price.high - likely) * math.sqrt(max(0.0, 1 - causes.get("depth", 0.0)))
