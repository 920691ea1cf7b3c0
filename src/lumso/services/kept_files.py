"""Photographs and recorded notes: kept, shown, let go; and colours taken from photographs."""

from collections.abc import AsyncIterator
from tempfile import NamedTemporaryFile

from lumso.core.errors import InvalidValue
from lumso.core.job.board import SeenColour
from lumso.core.look.card import Box, balanced
from lumso.formats.sound import kind_of, sound_alone
from lumso.store import photographs, recordings
from lumso.store.photographs import Photograph

from .beside import Beside, aside
from .context import Context

MOST_BYTES = 1_500_000
"""Two minutes of speech, and more than that as browsers record it."""


async def keep_photograph(sent: AsyncIterator[bytes], with_time: bool, here: Context, darkroom: Beside) -> Photograph:
    """Keep a photograph that is sent as its file: upright, in sRGB, without place or device; its time only if asked.

    It is read in a process beside that may take little memory. Raises UnfitDocument, Refusal.
    """
    from lumso.formats.photo import file_to_keep

    with NamedTemporaryFile(dir=here.db.path.parent, prefix=".lumso-", suffix=".photo") as file:
        async for piece in sent:
            await aside(file.write, piece)
        await aside(file.flush)
        made = await darkroom(file_to_keep, file.name, with_time)
    return await aside(photographs.keep, here.db, made.jpeg, made.width, made.height, made.taken)


def photograph(name: str, here: Context) -> bytes:
    """A photograph as it is kept, JPEG. Raises NotFound."""
    return photographs.content(here.db, name)


def let_go(name: str, here: Context) -> None:
    """Delete a photograph for good. Raises NotFound."""
    photographs.delete(here.db, name)


def colour_of(name: str, card: Box | None, spot: Box, here: Context) -> SeenColour:
    """A colour from a photograph, balanced by the white card in it; never claimed closer than ±4 ΔE₀₀."""
    from lumso.formats import photo

    return balanced(photo.pixels(photographs.content(here.db, name)), card, spot)


def keep_recording(content: bytes, here: Context) -> tuple[str, str]:
    """Keep a recorded note, sent as its file; its name, the hash of what it holds, and its kind. Raises
    InvalidValue."""
    if len(content) > MOST_BYTES:
        raise InvalidValue(
            f"The recording has {len(content) / 1e6:.1f} MB.", value=len(content), field="",
            allowed=f"at most {MOST_BYTES / 1e6:.1f} MB: about two minutes",
        )  # fmt: skip
    kind = kind_of(content)
    if not kind:
        raise InvalidValue("That is no sound that can be played back.", value="", field="",
                           allowed="WebM, Ogg, MP4 or WAV")  # fmt: skip
    return recordings.keep(here.db, kind, sound_alone(kind, content)), kind


def recording(name: str, here: Context) -> tuple[str, bytes]:
    """The kind of a recorded note, and the note as it is kept. Raises NotFound."""
    return recordings.get(here.db, name)


def delete_recording(name: str, here: Context) -> None:
    """Delete a recorded note for good. What was written beside it stays. Raises NotFound."""
    recordings.delete(here.db, name)
