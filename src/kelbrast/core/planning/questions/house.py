"""House ways: routes that came out well in this shop, offered beside the computed ones."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, plan_face
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.face import Face, Wish


@dataclass(frozen=True, slots=True)
class HouseWay:
    """A route that went well (SI).

    Attributes:
        kind: how the face was found, as in `surface.face.FOUND_KINDS`; depth: of its marks, at worst.
        area: of the face.  seconds: on the work, for one piece, as it really was.  metal: that came off, as planned.
        route: tool ids in order.
    """

    id: int
    name: str
    family: str
    finish: str
    kind: str
    reach: str
    depth: float
    area: float
    seconds: float
    metal: float
    route: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class HouseOffer:
    """A house way on a face: its plan there, and the seconds on the work that it would take by what it took then."""

    way: HouseWay
    plan: FacePlan
    seconds_by_log: float


def offers(face: Face, job: Job, ways: Iterable[HouseWay]) -> list[HouseOffer]:
    """The house ways for this kind of face that can be taken here, the quickest by the log first.

    A kind of face is a metal family, a finish, how it was found, how it is reached, and marks that are not much deeper.
    The time is the logged one by area.
    """
    house_offers = []
    for way in ways:
        if face.left_alone or not _fits(face, job, way):
            continue
        plan = plan_face(replace(face, wish=Wish(route=way.route)), job)
        if plan.possible and tuple(step.tool.id for step in plan.steps) == way.route:
            house_offers.append(HouseOffer(way, plan, way.seconds * face.area / way.area))
    return sorted(house_offers, key=lambda offer: (offer.seconds_by_log, offer.way.id))


def kind_of_find(face: Face) -> str:
    """How a face was found: its kind of damage, or "after" for the marks of a grade."""
    return "after" if face.found.after is not None else face.found.kind


def depth_of_find(face: Face) -> float:
    """How deep the marks of a face are, to compare: at worst, m; the grain of the grade that left them."""
    return face.found.after.grain if face.found.after is not None else face.found.worst or 0.0


def _fits(face: Face, job: Job, way: HouseWay) -> bool:
    same = (job.material.family, face.want.id, kind_of_find(face), face.reach) == (way.family, way.finish, way.kind, way.reach)
    return same and depth_of_find(face) <= constant("house.deeper").value * way.depth
