"""The workshop: what was chosen for it, its kits, and the catalogue it works from."""

from typing import Annotated

from fastapi import APIRouter, Header, Response

from lumso.core.book.kit import Kit
from lumso.services import workshop
from lumso.services.catalogue import CatalogueOut, catalogue_text
from lumso.services.context import Settings, Unread

from .context import Here, IfMatch, Key, read_revision

router = APIRouter(tags=["workshop"])


@router.get("/catalogue", response_model=CatalogueOut)
def get_catalogue(here: Here, if_none_match: Annotated[str, Header()] = "") -> Response:
    """Everything there is to choose from. Answered anew only where something of it has changed."""
    text, tag = catalogue_text(here)
    headers = {"ETag": tag, "Cache-Control": "no-cache"}
    if tag in if_none_match:
        return Response(status_code=304, headers=headers)
    return Response(text, media_type="application/json", headers=headers)


@router.get("/workshop")
def get_settings(here: Here, response: Response) -> Settings:
    """What was chosen for the workshop; in place of a kit that cannot be read, the one everybody starts with."""
    response.headers["ETag"] = f'"{here.settings_revision()}"'
    return here.settings().model_copy(update={"kit": here.workshop().kit})


@router.put("/workshop")
def put_settings(chosen: Settings, here: Here, response: Response, if_match: IfMatch, key: Key) -> Settings:
    """Choose measures and kit."""
    response.headers["ETag"] = f'"{here.choose(chosen, read_revision(if_match), key)}"'
    return chosen


@router.get("/unread")
def get_unread(here: Here) -> list[Unread]:
    """What is kept in the workshop and cannot be read. All else goes on without it."""
    return list(here.unread())


@router.delete("/unread/{kind}/{slug:path}", status_code=204)
def delete_unread(kind: str, slug: str, here: Here) -> None:
    """Take out for good what cannot be read."""
    workshop.take_out_unread(kind, slug, here)


@router.put("/kits/{slug:path}")
def put_kit(slug: str, kit: Kit, here: Here, response: Response, if_match: IfMatch, key: Key) -> Kit:
    """Add a kit of one's own, or change one. A kit that ships can be changed too: put back by deleting it."""
    response.headers["ETag"] = f'"{workshop.keep_kit(slug, kit, read_revision(if_match), key, here)}"'
    return kit


@router.delete("/kits/{slug:path}", status_code=204)
def delete_kit(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a kit out, or put a shipped one back as it was. Without the one in use, the first there is is used."""
    workshop.take_out("kit", slug, read_revision(if_match), key, here)
