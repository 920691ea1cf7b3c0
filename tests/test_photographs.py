"""Photographs: looked at before they are decoded, kept without what they give away, and colours that are no better than
they can be."""

import asyncio
import os
import time
from io import BytesIO
from pathlib import Path
from typing import cast

import numpy as np
import pytest
from fastapi import Request
from fastapi.testclient import TestClient
from PIL import Image, ImageCms

from lumso.api.app import DARKROOM_MB
from lumso.api.errors import Refusal
from lumso.api.workers import Workers
from lumso.core.colour.difference import delta_e, lab_of
from lumso.core.colour.spectra import reflectance
from lumso.core.errors import InvalidValue
from lumso.core.look.card import LEAST_WITHIN, Box, balanced
from lumso.formats.photo import LONGEST_PX, MOST_PIXELS, file_to_keep, fit_to_keep
from lumso.services.context import Context
from lumso.store import archive as archives
from lumso.store import backup, jobs, photographs
from lumso.store.database import Database
from lumso.store.errors import NotFound

CARD, SPOT = Box(0.05, 0.05, 0.3, 0.3), Box(0.5, 0.5, 0.3, 0.3)


def scene(colour: tuple[int, int, int] = (138, 160, 154), cast: tuple[float, float, float] = (1, 1, 1), wide: int = 400,
          card: float = 0.87) -> np.ndarray:  # fmt: skip
    """A strip with a white card, under a light of a cast, as sRGB bytes."""
    linear = np.full((300, wide, 3), 0.2)
    c = np.array(colour) / 255
    linear[130:270, wide // 2 - 20 : wide - 40] = np.where(c <= 0.04045, c / 12.92, ((c + 0.055) / 1.055) ** 2.4)
    linear[10:110, 10 : wide // 2 - 40] = card
    linear = linear * np.array(cast)
    coded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * np.clip(linear, 0, 1) ** (1 / 2.4) - 0.055)
    return np.asarray(np.rint(255 * np.clip(coded, 0, 1)).astype(np.uint8))


class Waiting:
    """Somebody who waits for an answer."""

    async def is_disconnected(self) -> bool:
        return False


def sent(pixels: np.ndarray, kind: str = "JPEG", **more: object) -> bytes:
    out = BytesIO()
    Image.fromarray(pixels).save(out, kind, **({"quality": 95} if kind == "JPEG" else {}), **more)
    return out.getvalue()


# Fit to be kept -----------------------------------------------------------------------------------------------------


def test_it_is_turned_upright_made_smaller_and_gives_nothing_away() -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # turned by a quarter
    exif[0x010F] = "Camera of somebody"
    exif.get_ifd(0x8769)[0x9003] = "2026:11:20 18:30:00"
    exif.get_ifd(0x8825)[2] = (52.0, 31.0, 0.0)
    content = sent(scene(wide=2600), exif=exif, comment=b"from home")
    made = fit_to_keep(content)
    assert (made.width, made.height) == (round(300 / 2600 * LONGEST_PX), LONGEST_PX)
    kept = Image.open(BytesIO(made.jpeg))
    assert not dict(kept.getexif())
    assert b"somebody" not in made.jpeg
    assert b"from home" not in made.jpeg
    assert made.taken == ""
    assert fit_to_keep(content, with_time=True).taken == "2026:11:20 18:30:00"


def test_its_colours_are_brought_to_the_screens() -> None:
    plain = scene()
    own = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    for content in (sent(plain, "PNG", icc_profile=own), sent(plain, "PNG")):
        seen = np.asarray(Image.open(BytesIO(fit_to_keep(content).jpeg)).convert("RGB")).astype(int)
        assert np.abs(seen - plain.astype(int)).mean() < 3
    cyan = Image.new("CMYK", (64, 64), (255, 0, 0, 0))
    out = BytesIO()
    cyan.save(out, "JPEG")
    red, green, blue = np.asarray(Image.open(BytesIO(fit_to_keep(out.getvalue()).jpeg))).mean((0, 1))
    assert red < 60 < min(green, blue)
    clear = Image.fromarray(np.dstack([plain, np.zeros(plain.shape[:2], np.uint8)]))
    out = BytesIO()
    clear.save(out, "PNG")
    white = np.asarray(Image.open(BytesIO(fit_to_keep(out.getvalue()).jpeg)))
    assert white.mean() > 250, "what is clear is white, not black"


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "no photograph"),
        (b"%PDF-1.4 not a picture", "no photograph"),
        (b"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic", "HEIC"),
        (sent(scene())[:3000], "damaged"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no photograph"),
    ],
)
def test_what_is_no_photograph_is_refused_in_words(content: bytes, says: str) -> None:
    with pytest.raises(InvalidValue, match=says) as caught:
        fit_to_keep(content)
    assert caught.value.allowed
    assert caught.value.field == "photograph"


def flat(kind: str, mode: str, wide: int, high: int) -> bytes:
    out = BytesIO()
    Image.new(mode, (wide, high)).save(out, kind, **({"compress_level": 1} if kind == "PNG" else {}))
    return out.getvalue()


@pytest.mark.parametrize(("kind", "mode"), [("PNG", "RGBA"), ("PNG", "P"), ("TIFF", "CMYK"), ("JPEG", "RGB")])
def test_the_largest_of_each_kind_is_read_in_a_process_of_little_memory(tmp_path: Path, kind: str, mode: str) -> None:
    """40 million points that must be read whole, 60 that a JPEG reads smaller: below 350 MB, beside the server."""
    high = 9500 if kind == "JPEG" else 6300
    sent_ = tmp_path / "sent"
    sent_.write_bytes(flat(kind, mode, 6320, high))
    darkroom = Workers(most=1, spare_mb=DARKROOM_MB)
    try:
        made = asyncio.run(darkroom.run(cast(Request, Waiting()), file_to_keep, str(sent_), False))
        assert max(made.width, made.height) == LONGEST_PX
        worker = darkroom._free.get_nowait()
        held = Path(f"/proc/{worker.process.pid}/status").read_text(encoding="ascii")
        worker.end()
        assert int(held.partition("VmHWM:")[2].split()[0]) < 350_000
    finally:
        darkroom.close()


def test_what_takes_more_memory_than_there_is_for_one_is_refused_in_words(tmp_path: Path) -> None:
    sent_ = tmp_path / "sent"
    sent_.write_bytes(flat("PNG", "RGBA", 6320, 6300))
    darkroom = Workers(most=1, spare_mb=60)
    try:
        with pytest.raises(Refusal) as caught:
            asyncio.run(darkroom.run(cast(Request, Waiting()), file_to_keep, str(sent_), False))
        assert "more memory" in caught.value.problem.detail
    finally:
        darkroom.close()


def test_its_size_is_looked_at_before_it_is_decoded() -> None:
    import struct
    import zlib

    side = 60_000  # a few hundred bytes that say they are 3.6 thousand million pixels
    head = struct.pack(">IIBBBBB", side, side, 8, 2, 0, 0, 0)
    chunk = b"IHDR" + head
    bomb = b"\x89PNG\r\n\x1a\n" + struct.pack(">I", 13) + chunk + struct.pack(">I", zlib.crc32(chunk))
    data = b"IDAT" + zlib.compress(b"\0" * 100)
    bomb += struct.pack(">I", len(data) - 4) + data + struct.pack(">I", zlib.crc32(data))
    begun = time.monotonic()
    with pytest.raises(InvalidValue, match="million pixels"):
        fit_to_keep(bomb)
    assert side * side > MOST_PIXELS
    assert time.monotonic() - begun < 5


# Colours ------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("cast", [(1, 1, 1), (1.0, 0.85, 0.6), (0.7, 0.85, 1.0), (0.5, 0.5, 0.5)])
def test_a_white_card_takes_the_cast_of_the_light_away(cast: tuple[float, float, float]) -> None:
    seen = balanced(scene(cast=cast, card=0.87), CARD, SPOT)
    off = float(delta_e(lab_of(reflectance(seen.hex)), lab_of(reflectance("#8aa09a"))))
    assert off < 1.5
    assert seen.within >= LEAST_WITHIN
    assert seen.how == "photograph"


def test_no_photograph_is_claimed_closer_than_it_can_be_and_a_blotchy_spot_less() -> None:
    even = balanced(scene(), CARD, SPOT)
    picture = scene()
    picture[130:270:2, 180:360] = 90
    assert balanced(picture, CARD, SPOT).within > even.within + 1
    assert even.within == LEAST_WITHIN


def _tilted(picture: np.ndarray) -> np.ndarray:
    picture = picture.astype(float)
    picture[:, :, :] *= np.linspace(0.6, 1, picture.shape[1])[None, :, None] ** 2
    return picture.astype(np.uint8)


@pytest.mark.parametrize(
    ("picture", "card", "says"),
    [
        (scene(), None, "No white card"),
        (scene(cast=(1.6, 1.6, 1.6)), CARD, "overexposed"),
        (scene(card=0.05), CARD, "too dark"),
        (scene(cast=(1.0, 0.5, 0.2)), CARD, "coloured"),
        (_tilted(scene(wide=900)), Box(0.0, 0.05, 0.5, 0.3), "unevenly"),
        (scene(), Box(0.1, 0.1, 0.001, 0.001), "hardly any"),
    ],
)
def test_a_card_that_tells_nothing_is_refused(picture: np.ndarray, card: Box | None, says: str) -> None:
    with pytest.raises(InvalidValue, match=says) as caught:
        balanced(picture, card, SPOT)
    assert caught.value.field == "card"


# Kept ---------------------------------------------------------------------------------------------------------------


@pytest.fixture
def db(tmp_path: Path) -> Database:
    return Database(tmp_path / "w.sqlite3")


def test_it_is_named_by_what_it_holds_and_the_same_is_kept_once(db: Database) -> None:
    one, other = (photographs.keep(db, b"picture", 4, 3) for _ in range(2))
    assert one == other
    assert [p.name for p in photographs.folder_of(db.path).iterdir()] == [f"{one.name}.jpg"]
    assert photographs.content(db, one.name) == b"picture"


def test_its_file_is_there_before_its_row(db: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", broken)
    from lumso.store.errors import Unwritable

    with pytest.raises(Unwritable, match="No space"):
        photographs.keep(db, b"picture", 4, 3)
    assert list(photographs.folder_of(db.path).iterdir()) == []
    with db.read() as connection:
        assert connection.execute("SELECT count(*) FROM photograph").fetchone()[0] == 0


def test_orphans_are_swept_once_they_are_old_and_what_is_not_ours_stays(db: Database) -> None:
    kept = photographs.keep(db, b"kept", 4, 3)
    folder = photographs.folder_of(db.path)
    old, young, foreign = folder / f"{'a' * 64}.jpg", folder / f"{'b' * 64}.jpg", folder / "holiday.jpg"
    for path in (old, young, foreign):
        path.write_bytes(b"x")
    for path in (old, foreign, folder / f"{kept.name}.jpg"):
        os.utime(path, (0, 0))
    assert photographs.sweep(db) == 1
    assert {p.name for p in folder.iterdir()} == {young.name, foreign.name, f"{kept.name}.jpg"}


def test_a_photograph_that_no_job_speaks_of_is_let_go_in_time_and_none_that_a_job_ever_had(db: Database) -> None:
    asked, undone, unasked, young, again = (photographs.keep(db, c, 4, 3).name for c in (b"a", b"b", b"c", b"d", b"e"))
    job = jobs.create(db, "Board", f'{{"photo": "{undone}"}}')
    jobs.save(db, job.id, job.revision, "Board", f'{{"photo": "{asked}"}}')
    with db.write() as connection:
        connection.execute("UPDATE photograph SET added_at = '2026-01-02T03:04:05.000Z' WHERE name <> ?", (young,))
    photographs.keep(db, b"e", 4, 3)
    for path in photographs.folder_of(db.path).iterdir():
        os.utime(path, (0, 0))
    assert photographs.sweep(db) == 1
    assert {p.stem for p in photographs.folder_of(db.path).iterdir()} == {asked, undone, young, again}
    with pytest.raises(NotFound):
        photographs.get(db, unasked)
    assert photographs.content(db, undone) == b"b"


@pytest.mark.parametrize("name", ["../w.sqlite3", "A" * 64, "a" * 63, "", f"{'a' * 64}/../x"])
def test_no_name_leads_elsewhere(db: Database, name: str) -> None:
    with pytest.raises(NotFound):
        photographs.content(db, name)
    with pytest.raises(NotFound):
        photographs.file_of(db.path, name)


def test_backups_hold_photographs_and_bring_them_back(db: Database, tmp_path: Path) -> None:
    kept = photographs.keep(db, b"picture", 4, 3)
    archive = tmp_path / "b.lumso.zip"
    archives.write(db.path, archive)
    photographs.delete(db, kept.name)
    assert not photographs.file_of(db.path, kept.name).exists()
    backup.restore(archive, tmp_path / "elsewhere" / "w.sqlite3")
    again = Database(tmp_path / "elsewhere" / "w.sqlite3")
    assert photographs.content(again, kept.name) == b"picture"


def test_over_the_api(app: object, db: Database, catalogue: object) -> None:
    from fastapi import FastAPI

    assert isinstance(app, FastAPI)
    app.state.context = Context(db, catalogue)  # type: ignore[arg-type]
    with TestClient(app, "http://127.0.0.1", raise_server_exceptions=False) as client:
        kept = client.post("/api/photographs", content=sent(scene()))
        assert kept.status_code == 201, kept.text
        name = kept.json()["name"]
        shown = client.get(f"/api/photographs/{name}")
        assert shown.headers["content-type"] == "image/jpeg"
        box = {"x": 0.05, "y": 0.05, "w": 0.3, "h": 0.3}
        spot = {"x": 0.5, "y": 0.5, "w": 0.3, "h": 0.3}
        seen = client.post(f"/api/photographs/{name}/colour", json={"card": box, "spot": spot})
        assert seen.json()["within"] >= 4
        none = client.post(f"/api/photographs/{name}/colour", json={"spot": spot})
        assert none.status_code == 422
        assert "white card" in none.json()["detail"]
        bad = client.post("/api/photographs", content=b"no picture")
        assert bad.status_code == 422
        assert "Traceback" not in bad.text
        gone = client.delete(f"/api/photographs/{name}")
        assert "Backups" in gone.json()["says"]
        assert client.get(f"/api/photographs/{name}").status_code == 404
