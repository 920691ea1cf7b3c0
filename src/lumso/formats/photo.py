"""Photographs as they come from a camera, made fit to be kept: upright, in sRGB, small enough, with nothing in them but
the picture."""

import warnings
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import ExifTags, Image, ImageCms, ImageOps, UnidentifiedImageError

from lumso.core.errors import InvalidValue

MOST_PIXELS = 40_000_000
"""How many points a photograph may have that must be read whole; a JPEG can be read smaller."""
MOST_REDUCIBLE = 250_000_000
Image.MAX_IMAGE_PIXELS = None  # its size is looked at here
LONGEST_PX = 1600
"""The longer side it is kept with: enough to judge a strip by."""
ORIENTATION = ExifTags.Base.Orientation
READ = ("JPEG", "PNG", "WEBP", "TIFF")
HEIC = {b"heic", b"heix", b"hevc", b"heim", b"heis", b"mif1", b"msf1", b"avif"}
ALLOWED = "a photograph as JPEG, PNG, WebP or TIFF, of at most 40 million pixels (JPEG: 250 million)"


@dataclass(frozen=True)
class Photo:
    """A photograph fit to be kept: a JPEG, its size, and when it was taken where that is known."""

    jpeg: bytes
    width: int
    height: int
    taken: str


def _refused(says: str, allowed: str = ALLOWED) -> InvalidValue:
    return InvalidValue(says, value="", allowed=allowed, field="photograph")


def _opened(content: bytes | Path) -> Image.Image:
    """The photograph in a file, or in bytes, looked at and not yet read."""
    head = content[:12] if isinstance(content, bytes) else _head(content)
    if head[4:8] == b"ftyp" and head[8:12] in HEIC:
        raise _refused(
            "This photograph is in a form that not every program can read (HEIC).",
            "JPEG: set the camera to “most compatible”, or share the picture as JPEG",
        )
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            image = Image.open(BytesIO(content) if isinstance(content, bytes) else content, formats=READ)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        raise _refused("This is no photograph that can be read.") from None
    if image.width * image.height > (MOST_REDUCIBLE if image.format == "JPEG" else MOST_PIXELS):
        raise _refused(f"This photograph has {image.width * image.height / 1e6:.0f} million pixels.")
    return image


def _taken(image: Image.Image) -> str:
    try:
        exif = image.getexif().get_ifd(ExifTags.IFD.Exif)
        return str(exif.get(ExifTags.Base.DateTimeOriginal, ""))[:19]
    except (OSError, ValueError, SyntaxError, TypeError, KeyError):
        return ""


def _in_srgb(image: Image.Image) -> Image.Image:
    """The picture in sRGB: from the profile it carries, where that can be read."""
    profile = image.info.get("icc_profile")
    flat = image.convert("RGBA") if image.mode in {"LA", "P", "PA"} or "transparency" in image.info else image
    if flat.mode == "RGBA":
        white = Image.new("RGBA", flat.size, "white")
        flat = Image.alpha_composite(white, flat).convert("RGB")
    if profile and flat.mode in {"RGB", "L", "CMYK"}:
        try:
            own = ImageCms.ImageCmsProfile(BytesIO(profile))
            changed = ImageCms.profileToProfile(flat, own, ImageCms.createProfile("sRGB"), outputMode="RGB")
            if changed is not None:
                return changed
        except (ImageCms.PyCMSError, OSError):
            pass
    return flat.convert("RGB")


def _head(path: Path) -> bytes:
    with path.open("rb") as file:
        return file.read(12)


def _reduced(image: Image.Image, by: int) -> Image.Image:
    """Each point the mean of a square of so many; in bands, as what is clear in places is read twice on the way."""
    made = Image.new(image.mode, (-(-image.width // by), -(-image.height // by)))
    band = by * 64
    for top in range(0, image.height, band):
        part = image.crop((0, top, image.width, min(top + band, image.height)))
        made.paste(part.reduce(by), (0, top // by))
    made.info = image.info
    return made


def _small(image: Image.Image) -> Image.Image:
    """The picture read, no larger than it is kept, and upright. As little as can be is held at once."""
    image.draft("RGB", (LONGEST_PX, LONGEST_PX))
    image.load()
    by = max(image.width, image.height) // LONGEST_PX
    if by > 1 and image.mode in ("L", "RGB", "RGBA", "CMYK"):
        smaller, exif = _reduced(image, by), image.getexif()
        image.close()
        image = smaller
        if ORIENTATION in exif:
            image.getexif()[ORIENTATION] = exif[ORIENTATION]
    image.thumbnail((LONGEST_PX, LONGEST_PX))
    return ImageOps.exif_transpose(image)


def fit_to_keep(content: bytes | Path, with_time: bool = False) -> Photo:
    """A photograph made fit to be kept; `with_time` keeps when it was taken. Raises InvalidValue in words."""
    image = _opened(content)
    try:
        taken = _taken(image) if with_time else ""
        plain = _in_srgb(_small(image))
    except MemoryError:
        raise _refused("This photograph takes more memory to read than Lumso gives to one.") from None
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise _refused("This photograph is damaged: it ends in the middle, or holds what no picture does.") from None
    out = BytesIO()
    Image.fromarray(np.asarray(plain)).save(out, "JPEG", quality=90)  # a fresh picture: nothing else goes along
    return Photo(out.getvalue(), plain.width, plain.height, taken)


def file_to_keep(path: str, with_time: bool) -> Photo:
    """The same for the photograph in a file, for a process of its own."""
    return fit_to_keep(Path(path), with_time)


def pixels(jpeg: bytes) -> NDArray[np.uint8]:
    """The pixels of a photograph that is kept: (height, width, 3) bytes of sRGB."""
    return np.asarray(Image.open(BytesIO(jpeg)).convert("RGB"))
