"""Entering the workshop from another device, and the list of those that did."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.services import devices
from lumso.store.devices import Kind, Stay
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
    kind: Kind
    """What this device may do: look, work, or keep the workshop."""
    lapsed: str
    """Since when it is no longer let in, UTC; empty where that is not why it is asked."""


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
    kind: Kind
    until: str
    """When its time is over, UTC; empty: until it is turned out."""
    lapsed: bool
    this: bool


class DeviceIn(BaseModel):
    """What a device may do from now on, and how long; null leaves how long as it is."""

    model_config = ConfigDict(extra="forbid")
    kind: Kind
    stay: Stay | None = None


class CodeIn(BaseModel):
    """What a code lets one device do, and how long it is let in."""

    model_config = ConfigDict(extra="forbid")
    kind: Literal["looks", "works"] = "works"
    stay: Stay = "always"


class CodeOut(BaseModel):
    """A code for one device, the same as a picture to be scanned, and till when it is good (UTC)."""

    code: str
    picture: str
    kind: Kind
    stay: Stay
    until: str


class TryOut(BaseModel):
    """A code that was wrong: when (UTC), and from which address."""

    at: str
    whose: str


class WorkshopOut(BaseModel):
    """How others come in: the address to open, the code to give, the same as a picture, and who did."""

    open: bool
    reach: str
    code: str
    picture: str
    """The address with the code as a picture to be scanned (a data: address)."""
    one: CodeOut | None
    """A code that was made for one device, while it is good."""
    encrypted: bool
    fingerprint: str
    """Of the authority for devices to trust, where there is one of one's own: to be compared with the terminal's."""
    devices: list[DeviceOut]
    failed: list[TryOut]
    """The last codes that were wrong since Lumso was started, the newest first."""


def _entry(request: Request) -> Entry | None:
    entry: Entry | None = request.app.state.entry
    return entry


@router.get("/door")
def get_door(request: Request, here: Here) -> DoorOut:
    """Whether this device is asked for a code."""
    entry = _entry(request)
    if entry is None or is_own(request.scope):
        secure = bool(entry and entry.secure)
        return DoorOut(asks=False, turned_out=False, workshop=entry is not None, encrypted=secure, kind="keeps",
                       lapsed="")  # fmt: skip
    device = device_of(here.db, request.scope)
    out = device is not None and device.turned_out
    lapsed = device.until if device and not out and device.lapsed(entry.clock()) else ""
    asks = device is None or not device.is_in(entry.clock())
    return DoorOut(asks=asks, turned_out=out, workshop=True, encrypted=entry.secure,
                   kind=device.kind if device else "looks", lapsed=lapsed)  # fmt: skip


@router.post("/enter", status_code=204)
def enter(given: EnterIn, request: Request, here: Here) -> Response:
    """Give the code: this device is let in, to look where it is the usual one, until it is turned out or its time is
    over."""
    entry = _entry(request)
    if entry is None:
        raise NotFound("Nobody is asked for a code here.")
    devices.seemly(given.name)
    entry.heed(devices.turned_out(here))
    kind, stay = entry.check(given.code, request.client.host if request.client else "")
    token = devices.let_in(given.name, kind, stay, entry.clock(), here)
    response = Response(status_code=204)
    response.set_cookie(COOKIE, token, max_age=KEPT_S, httponly=True, samesite="strict", secure=entry.secure)
    return response


def _code_out(entry: Entry) -> CodeOut | None:
    one = entry.one
    if one is None or entry.clock() >= one.until:
        return None
    return CodeOut(code=one.code, picture=_picture(entry.address(one.code)), kind=one.kind, stay=one.stay,
                   until=devices.when(one.until))  # fmt: skip


@router.get("/workshop-mode")
def get_workshop(request: Request, here: Here) -> WorkshopOut:
    """How others come in, and who did."""
    entry = _entry(request)
    if entry is None:
        return WorkshopOut(open=False, reach="", code="", picture="", one=None, encrypted=False, fingerprint="",
                           devices=[], failed=[])  # fmt: skip
    entry.heed(devices.turned_out(here))
    mine = device_of(here.db, request.scope)
    listed = [
        DeviceOut(id=d.id, name=d.name, entered_at=d.entered_at, seen_at=d.seen_at, kind=d.kind, until=d.until,
                  lapsed=d.lapsed(entry.clock()), this=mine is not None and d.id == mine.id)
        for d in devices.every(here)
    ]  # fmt: skip
    return WorkshopOut(
        open=True,
        reach=entry.reach,
        code=entry.code,
        picture=_picture(entry.address()),
        one=_code_out(entry),
        encrypted=entry.secure,
        fingerprint=_fingerprint(entry.authority),
        devices=listed,
        failed=[TryOut(at=devices.when(t.at), whose=t.whose) for t in tuple(entry.failed)],
    )


def _fingerprint(authority: bytes | None) -> str:
    if authority is None:
        return ""
    from lumso.tls import fingerprint

    return fingerprint(authority)


def _picture(address: str) -> str:
    import segno

    return str(segno.make(address, error="m").svg_data_uri(scale=4, border=2, dark="#14191b", light="#fbfcfb"))


@router.post("/codes", status_code=201)
def make_code(asked: CodeIn, request: Request) -> CodeOut:
    """A code that lets one device work, for an hour. The one made before is good no longer."""
    entry = _entry(request)
    if entry is None:
        raise NotFound("Nobody is asked for a code here.")
    entry.make_one(asked.kind, asked.stay)
    made = _code_out(entry)
    assert made
    return made


@router.put("/devices/{device_id}", status_code=204)
def change_device(device_id: str, asked: DeviceIn, request: Request, here: Here) -> None:
    """What a device may do from now on, and how long."""
    entry = _entry(request)
    if entry is None:
        raise NotFound("There is no such device.")
    devices.change(device_id, asked.kind, asked.stay, entry.clock(), here)


@router.delete("/devices/{device_id}", status_code=204)
def turn_out(device_id: str, request: Request, here: Here) -> None:
    """Let a device in no more, and change the code, which it knows. At its next visit it lets go of what it kept."""
    devices.turn_out(device_id, here)
    if entry := _entry(request):
        entry.heed(devices.turned_out(here))


@router.get("/trust/authority.pem", response_class=Response,
            responses={200: {"content": {"application/x-pem-file": {}}}})  # fmt: skip
def get_authority(request: Request) -> Response:
    """The certificate of the authority, for a device to trust."""
    entry = _entry(request)
    if entry is None or entry.authority is None:
        raise NotFound("There is no authority of its own here.")
    headers = {"Content-Disposition": 'attachment; filename="lumso-authority.pem"'}
    return Response(entry.authority, media_type="application/x-pem-file", headers=headers)
