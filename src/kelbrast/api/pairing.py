"""Pairing of tablets and phones: the code and the devices at the main screen, a session at the device."""

from datetime import datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Path, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from kelbrast.api.door import PAIRING, ROOT_CERTIFICATE, OpenShop, session_cookie, visitor
from kelbrast.api.problems import NOT_FOUND, RESPONSES, Problem
from kelbrast.app.pairing import SESSION_LIVES, Pairing, Wrong
from kelbrast.core.errors import NotFound, NotLetIn

router = APIRouter(responses=RESPONSES)
DeviceId = Annotated[int, Path(ge=1, le=2**53, description="id of the device")]


def _pairing(request: Request) -> Pairing:
    pairing: Pairing = request.app.state.pairing
    return pairing


ShopPairing = Annotated[Pairing, Depends(_pairing)]


class DeviceOut(BaseModel):
    """A paired device, since when, until when, and when it was seen last."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    name: str
    paired_at: datetime
    until: datetime
    seen_at: datetime


class ScreenOut(BaseModel):
    """Which screen this is: the main one, or one of the shop; whether it is let in, and whether nobody can listen."""

    screen: Literal["main", "shop"]
    let_in: bool
    secure: bool
    device: DeviceOut | None


class PairIn(BaseModel):
    """The code from the main screen, and what this device is called in the shop."""

    code: Annotated[str, Field(min_length=1, max_length=40)]
    name: Annotated[str, Field(min_length=1, max_length=60)]


class PlaceOut(BaseModel):
    """Where a device finds the program, and the same with the code as a picture to point a camera at."""

    address: str
    qr: str


class CodeOut(BaseModel):
    """The code that holds now, and until when."""

    code: str
    until: datetime
    places: list[PlaceOut]


class DevicesOut(BaseModel):
    """The door to the shop (`open`; `secure`: with the certificate whose root has this `fingerprint`), and who is let in."""

    open: bool
    secure: bool
    addresses: list[str]
    fingerprint: str
    code: CodeOut | None
    wrong: Wrong | None
    devices: list[DeviceOut]


@router.get(PAIRING)
def this_screen(request: Request) -> ScreenOut:
    """Which screen asks, and whether it is let in."""
    came = visitor(request)
    if came is None:
        return ScreenOut(screen="main", let_in=True, secure=True, device=None)
    device = DeviceOut.model_validate(came.device) if came.device else None
    return ScreenOut(screen="shop", let_in=device is not None, secure=came.secure, device=device)


@router.post(
    PAIRING,
    status_code=201,
    responses={
        401: {"model": Problem, "description": "The code is wrong"},
        404: {"model": Problem, "description": "The main screen needs no pairing"},
        429: {"model": Problem, "description": "There were wrong codes: wait"},
    },
)
def pair_this_device(given: PairIn, request: Request, response: Response, pairing: ShopPairing) -> DeviceOut:
    """Give the code; from then on this device is let in, in a session of its own."""
    came = visitor(request)
    if came is None:
        raise NotFound("pairing", "of the main screen")
    address = request.client.host if request.client else ""
    device, token = pairing.pair(given.code, given.name, address, instead_of=came.device)
    response.set_cookie(
        session_cookie(came.secure),
        token,
        max_age=int(SESSION_LIVES.total_seconds()),
        path="/",
        secure=came.secure,
        httponly=True,
        samesite="strict",
    )
    return DeviceOut.model_validate(device)


@router.delete(PAIRING, status_code=204, responses={401: {"model": Problem, "description": "It is not paired"}})
def forget_this_device(request: Request, response: Response, pairing: ShopPairing) -> None:
    """This device takes itself off."""
    came = visitor(request)
    if came is None or came.device is None:
        raise NotLetIn("This screen is not a paired device")
    pairing.take_off(came.device.id)
    response.delete_cookie(session_cookie(came.secure), path="/", secure=came.secure, httponly=True, samesite="strict")


@router.get(ROOT_CERTIFICATE, responses={**NOT_FOUND, 200: {"content": {"application/x-x509-ca-cert": {}}}})
def root_certificate(request: Request) -> Response:
    """The root that a tablet is told to trust: no secret."""
    shop = _shop(request)
    if shop is None or shop.root is None:
        raise NotFound("certificate", "of the shop")
    name = 'attachment; filename="kelbrast-shop.crt"'
    return Response(shop.root(), media_type="application/x-x509-ca-cert", headers={"content-disposition": name})


@router.get("/api/devices")
def list_devices(request: Request, pairing: ShopPairing) -> DevicesOut:
    """The devices that are let in, and how one more would be."""
    shop = _shop(request)
    return DevicesOut(
        open=shop is not None,
        secure=shop is not None and shop.secure,
        addresses=_addresses(shop) if shop else [],
        fingerprint=shop.fingerprint if shop else "",
        code=_code(shop, pairing) if shop else None,
        wrong=pairing.wrong,
        devices=[DeviceOut.model_validate(device) for device in pairing.devices],
    )


@router.post("/api/devices/code", status_code=201, responses=NOT_FOUND)
def show_code(request: Request, pairing: ShopPairing) -> DevicesOut:
    """A new code; the one before holds no more."""
    if _shop(request) is None:
        raise NotFound("open door", "to the shop: start the program with --shop")
    pairing.show_code()
    return list_devices(request, pairing)


@router.delete("/api/devices/code", status_code=204)
def hide_code(pairing: ShopPairing) -> None:
    """No code holds any more."""
    pairing.hide_code()


@router.delete("/api/devices/{device_id}", status_code=204, responses=NOT_FOUND)
def take_off_device(device_id: DeviceId, pairing: ShopPairing) -> None:
    """Let a device in no more."""
    pairing.take_off(device_id)


def _shop(request: Request) -> OpenShop | None:
    shop: OpenShop | None = request.app.state.shop
    return shop


def _addresses(shop: OpenShop) -> list[str]:
    kind = "https" if shop.secure else "http"
    return [f"{kind}://{one}:{shop.port}" for one in (*shop.addresses(), *shop.names())]


def _code(shop: OpenShop, pairing: Pairing) -> CodeOut | None:
    code = pairing.code
    if code is None:
        return None
    # After the #, the code is never sent in an address; the page reads it there.
    places = [PlaceOut(address=address, qr=_picture(f"{address}/#pair={code.shown}")) for address in _addresses(shop)]
    return CodeOut(code=code.shown, until=code.until, places=places)


def _picture(address: str) -> str:
    import segno  # slow to come, and few starts need it

    return segno.make(address, error="m", micro=False).svg_data_uri(scale=4, border=2, dark="#000", light="#fff")
