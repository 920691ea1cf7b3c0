"""Entering the workshop from another device, and the list of those that did."""

from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.store import devices
from lumso.store.errors import NotFound

from .context import Here
from .gate import COOKIE, KEPT_S, Entry, device_of, is_own

router = APIRouter(tags=["entering"])


class DoorOut(BaseModel):
    """Whether a code is asked of this device."""

    asks: bool
    turned_out: bool
    workshop: bool
    """Whether others can come in over the network."""
    encrypted: bool


class EnterIn(BaseModel):
    """The code, and what the device is called."""

    model_config = ConfigDict(extra="forbid")
    code: Annotated[str, Field(max_length=100)]
    name: Annotated[str, Field(min_length=1, max_length=60)]


class DeviceOut(BaseModel):
    """A device that was let in."""

    id: str
    name: str
    entered_at: str
    seen_at: str
    this: bool


class WorkshopOut(BaseModel):
    """How others come in: the address to open, the code to give, the same as a picture, and who did."""

    open: bool
    reach: str
    code: str
    picture: str
    """The address with the code as a picture to be scanned (a data: address); only on the machine Lumso runs on."""
    encrypted: bool
    fingerprint: str
    """Of the authority for devices to trust, where there is one of one's own: to be compared with the terminal's."""
    devices: list[DeviceOut]


def _entry(request: Request) -> Entry | None:
    entry: Entry | None = request.app.state.entry
    return entry


@router.get("/door")
def get_door(request: Request, here: Here) -> DoorOut:
    """Whether this device is asked for a code."""
    entry = _entry(request)
    if entry is None or is_own(request.scope):
        return DoorOut(asks=False, turned_out=False, workshop=entry is not None, encrypted=bool(entry and entry.secure))
    device = device_of(here.db, request.scope)
    out = device is not None and device.turned_out
    return DoorOut(asks=device is None or out, turned_out=out, workshop=True, encrypted=entry.secure)


@router.post("/enter", status_code=204)
def enter(given: EnterIn, request: Request, here: Here) -> Response:
    """Give the code: this device is let in, and stays so until it is turned out."""
    entry = _entry(request)
    if entry is None:
        raise NotFound("Nobody is asked for a code here.")
    entry.check(given.code, request.client.host if request.client else "")
    _, token = devices.let_in(here.db, given.name)
    response = Response(status_code=204)
    response.set_cookie(COOKIE, token, max_age=KEPT_S, httponly=True, samesite="strict", secure=entry.secure)
    return response


@router.get("/workshop-mode")
def get_workshop(request: Request, here: Here) -> WorkshopOut:
    """How others come in, and who did. The code is told only on the machine Lumso runs on."""
    entry = _entry(request)
    if entry is None:
        return WorkshopOut(open=False, reach="", code="", picture="", encrypted=False, fingerprint="", devices=[])
    own = is_own(request.scope)
    mine = device_of(here.db, request.scope)
    listed = [
        DeviceOut(
            id=d.id, name=d.name, entered_at=d.entered_at, seen_at=d.seen_at, this=mine is not None and d.id == mine.id
        )
        for d in devices.every(here.db)
    ]
    return WorkshopOut(
        open=True,
        reach=entry.reach,
        code=entry.code if own else "",
        picture=_picture(entry.address()) if own else "",
        encrypted=entry.secure,
        fingerprint=_fingerprint(entry.authority),
        devices=listed,
    )


def _fingerprint(authority: bytes | None) -> str:
    if authority is None:
        return ""
    from lumso.tls import fingerprint

    return fingerprint(authority)


def _picture(address: str) -> str:
    import segno

    return str(segno.make(address, error="m").svg_data_uri(scale=4, border=2, dark="#14191b", light="#fbfcfb"))


@router.delete("/devices/{device_id}", status_code=204)
def turn_out(device_id: str, request: Request, here: Here) -> None:
    """Let a device in no more, and change the code, which it knows. At its next visit it lets go of what it kept."""
    devices.turn_out(here.db, device_id)
    if entry := _entry(request):
        entry.renew()


@router.get("/trust/authority.pem", response_class=Response,
            responses={200: {"content": {"application/x-pem-file": {}}}})  # fmt: skip
def get_authority(request: Request) -> Response:
    """The certificate of the authority, for a device to trust."""
    entry = _entry(request)
    if entry is None or entry.authority is None:
        raise NotFound("There is no authority of its own here.")
    headers = {"Content-Disposition": 'attachment; filename="lumso-authority.pem"'}
    return Response(entry.authority, media_type="application/x-pem-file", headers=headers)
