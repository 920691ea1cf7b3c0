"""Recorded notes with nothing in them but the sound: what stands beside it is blanked, sizes and sound as they were."""

import struct

import pytest

from lumso.formats.sound import _crc, kind_of, sound_alone

SECRET = b"Somebody's phone, at home"


def element(name: bytes, content: bytes) -> bytes:
    return name + bytes([0x80 | len(content)]) + content


def webm() -> tuple[bytes, bytes]:
    cluster = element(b"\x1f\x43\xb6\x75", b"\xe7\x81\x00" + b"opus" * 8)
    info = element(b"\x15\x49\xa9\x66", element(b"\x4d\x80", SECRET) + element(b"\x2a\xd7\xb1", b"\x0f\x42\x40")
                   + element(b"\x57\x41", b"Browser") + element(b"\x44\x61", bytes(8)))  # fmt: skip
    tags = element(b"\x12\x54\xc3\x67", element(b"\x73\x73", SECRET))
    head = element(b"\x1a\x45\xdf\xa3", element(b"\x42\x82", b"webm"))
    segment = b"\x18\x53\x80\x67" + b"\x01\xff\xff\xff\xff\xff\xff\xff" + info + cluster + tags
    return head + segment, cluster


def box(name: bytes, content: bytes) -> bytes:
    return struct.pack(">I", len(content) + 8) + name + content


def mp4() -> tuple[bytes, bytes]:
    sound = box(b"mdat", b"aac" * 20)
    made = box(b"mvhd", bytes(4) + b"\xe1\xe1\xe1\xe1" * 2 + bytes(88))
    trak = box(b"trak", box(b"tkhd", bytes(4) + b"\xe1" * 8 + bytes(72)) + box(b"udta", SECRET))
    moov = box(b"moov", made + trak + box(b"udta", box(b"meta", SECRET)))
    return box(b"ftyp", b"mp42" + bytes(4)) + moov + sound, sound


def wav() -> tuple[bytes, bytes]:
    def chunk(name: bytes, content: bytes) -> bytes:
        return name + struct.pack("<I", len(content)) + content + b"\0" * (len(content) % 2)

    sound = chunk(b"data", b"pcm" * 21)
    body = b"WAVE" + chunk(b"LIST", b"INFOIART" + SECRET) + chunk(b"fmt ", bytes(16)) + sound + chunk(b"iXML", SECRET)
    return b"RIFF" + struct.pack("<I", len(body)) + body, sound


def page(content: bytes, number: int) -> bytes:
    head = b"OggS\x00\x00" + bytes(12) + struct.pack("<I", number) + bytes(4) + bytes([1, len(content)])
    whole = head + content
    return whole[:22] + struct.pack("<I", _crc(whole)) + whole[26:]


def ogg() -> tuple[bytes, bytes]:
    def said(text: bytes) -> bytes:
        return struct.pack("<I", len(text)) + text

    tags = (
        b"OpusTags"
        + said(b"Browser 1.2 on Phone")
        + struct.pack("<I", 2)
        + said(b"ARTIST=" + SECRET)
        + said(b"DATE=2026")
    )
    sound = page(b"opus" * 12, 2)
    return page(b"OpusHead" + bytes(11), 0) + page(tags, 1) + sound, sound


@pytest.mark.parametrize(("made", "kind"), [
    (webm, "audio/webm"), (mp4, "audio/mp4"), (wav, "audio/wav"), (ogg, "audio/ogg")])  # fmt: skip
def test_what_is_said_beside_the_sound_is_gone_and_the_sound_is_not(made: object, kind: str) -> None:
    content, sound = made()  # type: ignore[operator]
    assert kind_of(content) == kind
    assert SECRET in content
    alone = sound_alone(kind, content)
    assert len(alone) == len(content), "sizes and offsets stay"
    for secret in (SECRET, b"Browser", b"2026", b"\xe1\xe1\xe1\xe1"):
        assert secret not in alone
    assert sound in alone
    assert kind_of(alone) == kind
    assert sound_alone(kind, alone) == alone
    if kind == "audio/ogg":
        at = alone.index(b"OggS", 4)
        one = alone[at : alone.index(b"OggS", at + 4)]
        assert struct.unpack("<I", one[22:26])[0] == _crc(one[:22] + bytes(4) + one[26:])


def test_the_sum_of_a_page_is_that_of_the_standard() -> None:
    assert _crc(b"123456789") == 0x89A1897F  # CRC-32, polynomial 0x04C11DB7, from 0, nothing reflected


@pytest.mark.parametrize(("made", "kind"), [
    (webm, "audio/webm"), (mp4, "audio/mp4"), (wav, "audio/wav"), (ogg, "audio/ogg")])  # fmt: skip
def test_one_that_ends_in_the_middle_is_left_as_it_is_from_there(made: object, kind: str) -> None:
    content, _ = made()  # type: ignore[operator]
    for end in range(0, len(content), 3):
        assert len(sound_alone(kind, content[:end])) == end
