"""A quote: the price per number of pieces, its drivers, and what a simpler finish would save."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from kelbrast.core.catalogue.finishes import Finish, ladder
from kelbrast.core.job import Job
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.planning.whole.spread import spread_of_plan
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face
from kelbrast.core.validity import require_above_zero, require_not_below_zero

# Finishes from the most to the least work: a face is offered those that stand after its own.


@dataclass(frozen=True, slots=True)
class Rates:
    """What a shop charges: money for an hour of a person, the margin on everything (share), and the bias of its last quotes.

    Attributes:
        bias: minutes that runs really took against those that were quoted; 1 where nothing is known.
    """

    hour: float
    margin: float
    bias: float = 1.0

    def __post_init__(self) -> None:
        require_above_zero(hour=self.hour, bias=self.bias)
        require_not_below_zero(margin=self.margin)


@dataclass(frozen=True, slots=True)
class Price:
    """The price of so many pieces, and what it is made of; times in s, money in the shop's currency.

    Attributes:
        seconds, seconds_high: of a person, likely and as nine of ten stay below.
        setting_up: of them, putting tools on; once for all pieces.  around: of them, around the abrasives.
        going_back: money for light checks that will fail.  abrasives: worn out.
        price, high: with margin; `high` from `seconds_high`.
    """

    pieces: int
    seconds: float
    seconds_high: float
    setting_up: float
    around: float
    labour: float
    abrasives: float
    going_back: float
    margin: float
    price: float
    high: float

    @property
    def each(self) -> float:
        """The price of one of them."""
        return self.price / self.pieces


def price_of(plan: Plan, rates: Rates, *, pieces: int) -> Price:
    """The price of so many pieces of a job.

    Equation: `P = (1 + m) (w t(n) + n c + n r)`, `t(n) = s + n (t1 - s) + n a`, r = w p q sum of the steps' work (money)
    Valid: at least one piece; a plan that is possible.

    Args:
        plan: of the job.
        rates: of the shop.
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
    >>> ten.each < one.each, abs(ten.price - 10 * one.price + 1.15 * 9 * one.setting_up * 48 / 3600) < 1e-6
    (True, True)
    """
    require_above_zero(pieces=pieces)
    setting_up = sum(set_up.tool.carrier.stock.setup for set_up in plan.set_ups)
    seconds = rates.bias * (setting_up + pieces * (plan.seconds_each - setting_up + plan.around))
    # What varies most, depth and rate, is the same for all pieces: the whole batch varies as one piece does.
    more = rates.bias * pieces * (spread_of_plan(plan).high - plan.seconds_each)
    going_back = rates.hour / 3600 * rates.bias * pieces * _done_again(plan)
    abrasives = pieces * sum(face.cost for face in plan.faces)
    labour = rates.hour / 3600 * seconds
    cost = labour + abrasives + going_back
    return Price(
        pieces=pieces,
        seconds=seconds,
        seconds_high=seconds + more,
        setting_up=rates.bias * setting_up,
        around=rates.bias * pieces * plan.around,
        labour=labour,
        abrasives=abrasives,
        going_back=going_back,
        margin=rates.margin * cost,
        price=(1 + rates.margin) * cost,
        high=(1 + rates.margin) * (cost + rates.hour / 3600 * more),
    )


def _done_again(plan: Plan) -> float:
    """Seconds of work that light checks send back, for one piece, as can be expected."""
    fails, again = constant("spread.check_fails").value, constant("spread.again").value
    return sum(fails * again * step.time.cut for face in plan.faces for step in face.steps)


def drives(price: Price, rates: Rates) -> dict[str, float]:
    """What a price is made of, in shares of it, the largest first."""
    at_work = price.labour - rates.hour / 3600 * (price.setting_up + price.around)
    parts = {
        "work": at_work,
        "setting-up": rates.hour / 3600 * price.setting_up,
        "around": rates.hour / 3600 * price.around,
        "abrasives": price.abrasives,
        "going-back": price.going_back,
        "margin": price.margin,
    }
    return dict(sorted(((name, part / price.price) for name, part in parts.items()), key=lambda one: -one[1]))


@dataclass(frozen=True, slots=True)
class SimplerPrice:
    """The price of one piece where every face that is more than this gets this finish instead."""

    finish: Finish
    each: float


def simpler_prices(job: Job, plan: Plan, rates: Rates, *, pieces: int) -> tuple[SimplerPrice, ...]:
    """What a less demanding finish would cost, planned anew, where that is less; the dearest first."""
    now = price_of(plan, rates, pieces=pieces).each
    simpler_prices = []
    for at, simpler in enumerate(ladder()):
        faces = tuple(_simplified(face, at) for face in job.faces)
        if faces == job.faces:
            continue
        other = plan_job(replace(job, faces=faces))
        if other.possible and (each := price_of(other, rates, pieces=pieces).each) < now:
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
    return price.seconds + (price.seconds_high - price.seconds) * math.sqrt(max(0.0, 1 - causes.get("depth", 0.0)))


def learnt_bias(ratios: Sequence[float]) -> float | None:
    """What runs took against what was quoted, from the middle one of at least three; None for fewer.

    Equation: `b = median(actual / quoted)` (1)
    Valid: ratios above 0.

    Args:
        ratios: of runs that were quoted before they were done, dimensionless.

    Raises:
        OutsideValidity: a ratio that is not above 0.

    Source: our-choice.

    >>> learnt_bias([1.0, 1.3]), learnt_bias([1.0, 1.3, 1.2])
    (None, 1.2)
    """
    require_above_zero(**{f"ratio {at}": one for at, one in enumerate(ratios, start=1)})
    if len(ratios) < 3:
        return None
    ordered = sorted(ratios)
    middle = len(ordered) // 2
    return ordered[middle] if len(ordered) % 2 else (ordered[middle - 1] + ordered[middle]) / 2
