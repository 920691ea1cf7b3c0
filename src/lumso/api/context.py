"""What every router asks of a request: what a service is given, the revision read, a key of the asker's own."""

from typing import Annotated

from fastapi import Depends, Header, Request

from lumso.core.errors import InvalidValue
from lumso.services.context import Context
from lumso.store.keys import Asked

IfMatch = Annotated[
    str, Header(alias="If-Match", description='The revision that was read, as "7"; "0" for what is not there yet.')
]
_KeyHeader = Annotated[
    str,
    Header(
        alias="Idempotency-Key",
        max_length=100,
        description="A key of the asker's own: the same asked again under it is not done twice; another body is 422.",
    ),
]


async def _asked_under(request: Request, key: _KeyHeader = "") -> Asked:
    return Asked.of(key, await request.body() if key else b"")


Key = Annotated[Asked, Depends(_asked_under)]


def read_revision(if_match: str) -> int:
    """The revision an If-Match header speaks of. Raises InvalidValue."""
    text = if_match.strip().removeprefix("W/").strip('"')
    if not (text.isdecimal() and len(text) < 16):
        raise InvalidValue(
            f"If-Match {if_match[:40]!r} is no revision.",
            value=if_match[:40],
            allowed='a revision such as "7"',
            field="If-Match",
        )
    return int(text)


def _context(request: Request) -> Context:
    context = request.app.state.context
    assert isinstance(context, Context)
    return context


Here = Annotated[Context, Depends(_context)]
