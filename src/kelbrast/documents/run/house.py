"""House ways as they are kept and as they are offered."""

from pydantic import BaseModel

from kelbrast.core.planning.questions.house import HouseOffer, HouseWay
from kelbrast.core.surface.face import Face
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.fields import shop
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file


class HouseWayFile(BaseModel):
    """A route that went well. `minutes`: on the work, for one piece, as it really was; `depth_um` a grain for "after"."""

    family: str
    finish: str
    kind: str
    reach: str
    depth_um: float
    area_cm2: float
    minutes: float
    metal_um: float
    route: list[str]


class HouseOfferFile(BaseModel):
    """A house way on a face. `minutes` by the model, everything; `cut_minutes` on the work by the model, and by your log."""

    id: int
    name: str
    face: str
    face_id: str
    route: list[str]
    tools: list[str]
    minutes: float
    cut_minutes: float
    log_minutes: float
    metal_um: float
    marks_left: float
    marks_said: SentenceFile


def to_way(id: int, name: str, file: HouseWayFile) -> HouseWay:
    """A house way of the core, in SI."""
    return HouseWay(
        id=id,
        name=name,
        family=file.family,
        finish=file.finish,
        kind=file.kind,
        reach=file.reach,
        depth=to_si(file.depth_um, "um"),
        area=to_si(file.area_cm2, "cm2"),
        seconds=to_si(file.minutes, "min"),
        metal=to_si(file.metal_um, "um"),
        route=tuple(file.route),
    )


def to_way_file(way: HouseWay) -> HouseWayFile:
    """A house way in the units of the files."""
    return HouseWayFile(
        family=way.family,
        finish=way.finish,
        kind=way.kind,
        reach=way.reach,
        depth_um=from_si(way.depth, "um"),
        area_cm2=from_si(way.area, "cm2"),
        minutes=from_si(way.seconds, "min"),
        metal_um=shop(way.metal, "um"),
        route=list(way.route),
    )


def to_offer_file(face: Face, offer: HouseOffer) -> HouseOfferFile:
    """An offer in the units of the files."""
    return HouseOfferFile(
        id=offer.way.id,
        name=offer.way.name,
        face=face.name,
        face_id=face.key,
        route=list(offer.way.route),
        tools=[step.tool.label for step in offer.plan.steps],
        minutes=shop(offer.plan.seconds, "min"),
        cut_minutes=shop(sum(step.time.cut for step in offer.plan.steps), "min"),
        log_minutes=shop(offer.seconds_by_log, "min"),
        metal_um=shop(offer.plan.metal, "um"),
        marks_left=0.0 if offer.plan.marks_left < 1e-3 else shop(offer.plan.marks_left, "1"),
        marks_said=to_sentence_file(offer.plan.marks_said),
    )
