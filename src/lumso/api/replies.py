"""Answers that are files, and where a phone of the house finds what is printed on them."""

from typing import Any

from fastapi import Request, Response

from .gate import Entry

PDF: dict[int | str, dict[str, Any]] = {200: {"content": {"application/pdf": {}}}}
"""What the description says of an answer that is a PDF."""


def file_reply(content: bytes | str, media: str, name: str) -> Response:
    """A file to be saved under a name."""
    return Response(content, media_type=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


def plain_name(name: str) -> str:
    """A name as any file system takes it."""
    return "".join(c if c.isalnum() and c.isascii() else "-" for c in name)


def pdf_reply(content: bytes, name: str) -> Response:
    """A PDF to be saved under a name."""
    return file_reply(content, "application/pdf", f"{plain_name(name)}.pdf")


def reached(request: Request) -> str:
    """Where a phone of the house reaches this Lumso, where one can."""
    entry: Entry | None = request.app.state.entry
    return entry.reach if entry else str(request.base_url).rstrip("/")
