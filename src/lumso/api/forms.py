"""Pieces by their everyday words: what there is to begin with, and what one of them looks like with its sizes."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lumso.services import forms
from lumso.services.forms import FormOut

from .context import Here

router = APIRouter(prefix="/forms", tags=["forms"])


class SizesIn(BaseModel):
    """Sizes as they are said, in the order the piece asks for them."""

    model_config = ConfigDict(extra="forbid")
    typed: Annotated[str, Field(max_length=200)] = ""


@router.get("")
def get_forms(here: Here) -> list[FormOut]:
    """Every piece there is a word for, drawn with its usual sizes."""
    return forms.every_form(here)


@router.post("/{slug}")
def look_at_form(slug: str, sizes: SizesIn, here: Here) -> FormOut:
    """A piece with these sizes. 422 with what is allowed for what it cannot have."""
    return forms.form_with(slug, sizes.typed, here)
