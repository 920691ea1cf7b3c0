"""Recorded notes as browsers make them, with nothing in them but the sound.

What a container says beside the sound (title, date, device, place, software) is blanked where it stands: sizes and
offsets stay as they are, so that whatever played it plays it.
"""

from collections.abc import Iterator
from contextlib import suppress

WEBM_BLANKED = {0x1254C367, 0x1941A469, 0x4D80, 0x5741, 0x7BA9, 0x4461}
"""Matroska's tags, attachments, muxing and writing application, title and date."""
WEBM_ENTERED = {0x18538067, 0x1549A966}
"""Its segment and the segment's information, which hold those."""
MP4_BLANKED = {b"udta", b"meta", b"uuid"}
MP4_ENTERED = {b"moov", b"trak"}
WAV_KEPT = {b"fmt ", b"data", b"fact"}
UNKNOWN = -1


def kind_of(content: bytes) -> str:
    """What a sound is by its first bytes; "" where it is none that browsers play."""
    if content.startswith(b"\x1a\x45\xdf\xa3"):
        return "audio/webm"
    if content.startswith(b"OggS"):
        return "audio/ogg"
    if content[4:8] == b"ftyp":
        return "audio/mp4"
    if content.startswith(b"RIFF") and content[8:12] == b"WAVE":
        return "audio/wav"
    return ""


def sound_alone(kind: str, content: bytes) -> bytes:
    """The same sound with nothing said beside it. What cannot be followed is left as it is from there on."""
    made = bytearray(content)
    with suppress(IndexError, ValueError):
        match kind:
            case "audio/webm":
                _webm(made, 0, len(made))
            case "audio/mp4":
                _mp4(made, 0, len(made))
            case "audio/wav":
                _wav(made)
            case "audio/ogg":
                _ogg(made)
    return bytes(made)


def _number(held: bytearray, at: int, marked: bool) -> tuple[int, int]:
    """A number of EBML at a place, with its length mark or without, and where it ends."""
    first = held[at]
    length = 9 - first.bit_length()
    if not 1 <= length <= 8 or at + length > len(held):
        raise ValueError
    value = int.from_bytes(held[at : at + length], "big")
    if not marked:
        value &= (1 << (7 * length)) - 1
        if value == (1 << (7 * length)) - 1:
            value = UNKNOWN
    return value, at + length


def _webm(held: bytearray, at: int, end: int) -> None:
    while at < end:
        begins = at
        name, at = _number(held, at, True)
        size, at = _number(held, at, False)
        until = end if size == UNKNOWN else at + size
        if until > end:
            return
        if name in WEBM_ENTERED:
            _webm(held, at, until)
        elif name in WEBM_BLANKED and size != UNKNOWN:
            _void(held, begins, until)
        at = until


def _void(held: bytearray, begins: int, until: int) -> None:
    """Fill a place with one element that says nothing."""
    whole = until - begins
    width = next(w for w in range(1, 9) if whole - 1 - w < (1 << (7 * w)) - 1 and whole - 1 - w >= 0)
    size = whole - 1 - width
    held[begins:until] = b"\xec" + (size | 1 << (7 * width)).to_bytes(width, "big") + bytes(size)


def _boxes(held: bytearray, at: int, end: int) -> Iterator[tuple[bytes, int, int]]:
    """The boxes of MP4 in a place: their names, where what they hold begins and ends."""
    while at + 8 <= end:
        size, name, head = int.from_bytes(held[at : at + 4], "big"), bytes(held[at + 4 : at + 8]), 8
        if size == 1:
            size, head = int.from_bytes(held[at + 8 : at + 16], "big"), 16
        until = end if size == 0 else at + size
        if until > end or until < at + head:
            return
        yield name, at + head, until
        at = until


def _mp4(held: bytearray, at: int, end: int) -> None:
    for name, begins, until in list(_boxes(held, at, end)):
        if name in MP4_ENTERED:
            _mp4(held, begins, until)
        elif name in MP4_BLANKED:
            head = held.rindex(name, 0, begins)
            held[head : head + 4] = b"free"
            held[begins:until] = bytes(until - begins)
        elif name in {b"mvhd", b"tkhd"}:  # when it was made and changed
            width = 16 if held[begins] == 1 else 8
            held[begins + 4 : begins + 4 + width] = bytes(width)


def _wav(held: bytearray) -> None:
    at = 12
    while at + 8 <= len(held):
        name, size = bytes(held[at : at + 4]), int.from_bytes(held[at + 4 : at + 8], "little")
        until = min(at + 8 + size, len(held))
        if name not in WAV_KEPT:
            held[at : at + 4] = b"JUNK"
            held[at + 8 : until] = bytes(until - at - 8)
        at += 8 + size + size % 2


def _crc(page: bytes) -> int:
    """The sum of an Ogg page: polynomial 0x04C11DB7, nothing reflected (RFC 3533)."""
    total = 0
    for byte in page:
        total ^= byte << 24
        for _ in range(8):
            total = (total << 1) ^ 0x04C11DB7 if total & 0x80000000 else total << 1
        total &= 0xFFFFFFFF
    return total


def _ogg(held: bytearray) -> None:
    """Blank the comments, which stand on the second page: how many and how long stays, what they say goes."""
    at = 0
    while bytes(held[at : at + 4]) == b"OggS":
        laces = held[at + 26]
        begins = at + 27 + laces
        until = min(begins + sum(held[at + 27 : begins]), len(held))
        for mark in (b"OpusTags", b"\x03vorbis"):
            if bytes(held[begins : begins + len(mark)]) == mark:
                _comments(held, begins + len(mark), until)
                held[at + 22 : at + 26] = bytes(4)
                held[at + 22 : at + 26] = _crc(bytes(held[at:until])).to_bytes(4, "little")
                return
        at = until


def _comments(held: bytearray, at: int, until: int) -> None:
    def blank(at: int, text: bytes) -> int:
        size = int.from_bytes(held[at : at + 4], "little")
        if at + 4 + size > until:
            raise ValueError
        held[at + 4 : at + 4 + size] = text[:size].ljust(size, b" ")
        return at + 4 + size

    at = blank(at, b"")
    count = int.from_bytes(held[at : at + 4], "little")
    at += 4
    for _ in range(min(count, 1000)):
        at = blank(at, b"X=")
