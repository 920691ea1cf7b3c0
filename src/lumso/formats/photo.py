"""Photographs as they come from a camera, made fit to be kept: upright, in sRGB, small enough, with nothing in them but
the picture."""

import warnings
from dataclasses import dataclass
from io import BytesIO

import numpy as np
from numpy.typing import NDArray
from PIL import ExifTags, Image, ImageCms, ImageOps, UnidentifiedImageError

from lumso.core.errors import InvalidValue

MOST_PIXELS = 60_000_000
LONGEST_PX = 1600
"""The longer side it is kept with: enough to judge a strip by."""
READ = ("JPEG", "PNG", "WEBP", "TIFF")
HEIC = {b"heic", b"heix", b"hevc", b"heim", b"heis", b"mif1", b"msf1", b"avif"}
ALLOWED = "a photograph as JPEG, PNG, WebP or TIFF, of at most 60 million pixels"


@dataclass(frozen=True)
class Photo:
    """A photograph fit to be kept: a JPEG, its size, and when it was taken where that is known."""

    jpeg: bytes
    width: int
    height: int
    taken: str


def _refused(says: str, allowed: str = ALLOWED) -> InvalidValue:
    return InvalidValue(says, value="", allowed=allowed, field="photograph")


def _opened(content: bytes) -> Image.Image:
    if content[4:8] == b"ftyp" and content[8:12] in HEIC:
        raise _refused(
            "This photograph is in a form that not every program can read (HEIC).",
            "JPEG: set the camera to “most compatible”, or share the picture as JPEG",
        )
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")  # its size is looked at here
            image = Image.open(BytesIO(content), formats=READ)
    except Image.DecompressionBombError:
        raise _refused("This photograph has hundreds of million pixels.") from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        raise _refused("This is no photograph that can be read.") from None
    if image.width * image.height > MOST_PIXELS:
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


def fit_to_keep(content: bytes, with_time: bool = False) -> Photo:
    """A photograph made fit to be kept; `with_time` keeps when it was taken. Raises InvalidValue in words."""
    image = _opened(content)
    try:
        image.draft("RGB", (LONGEST_PX, LONGEST_PX))
        taken = _taken(image) if with_time else ""
        upright = ImageOps.exif_transpose(image)
        upright.thumbnail((LONGEST_PX, LONGEST_PX))
        plain = _in_srgb(upright)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError, MemoryError):
        raise _refused("This photograph is damaged: it ends in the middle, or holds what no picture does.") from None
    out = BytesIO()
    Image.fromarray(np.asarray(plain)).save(out, "JPEG", quality=90)  # a fresh picture: nothing else goes along
    return Photo(out.getvalue(), plain.width, plain.height, taken)


def pixels(jpeg: bytes) -> NDArray[np.uint8]:
    """The pixels of a photograph that is kept: (height, width, 3) bytes of sRGB."""
    return np.asarray(Image.open(BytesIO(jpeg)).convert("RGB"))
