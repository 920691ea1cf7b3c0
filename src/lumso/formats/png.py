"""Pictures as PNG files."""

from io import BytesIO

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw
from PIL.PngImagePlugin import PngInfo

BAR_MM = 50
"""How long the scale bar is."""


def png(pixels: NDArray[np.uint8], mm: float = 0.0, says: str = "") -> bytes:
    """The pixels (height, width, 3) as a PNG; with `mm` they are so wide, and a bar of 50 mm is drawn in the corner."""
    image = Image.fromarray(pixels)
    about = PngInfo()
    if says:
        about.add_text("Description", says)
    dots = None
    if mm > 0:
        per_mm = image.width / mm
        dots = (per_mm * 25.4, per_mm * 25.4)
        _bar(image, per_mm)
    out = BytesIO()
    image.save(out, "PNG", compress_level=1, pnginfo=about, **({"dpi": dots} if dots else {}))
    return out.getvalue()


def _bar(image: Image.Image, per_mm: float) -> None:
    draw = ImageDraw.Draw(image)
    high = max(2, round(image.height / 80))
    left, foot = round(image.width * 0.05), image.height - round(image.height * 0.05)
    long = round(BAR_MM * per_mm)
    draw.rectangle((left - 1, foot - high - 1, left + long + 1, foot + 1), fill=(255, 255, 255))
    draw.rectangle((left, foot - high, left + long, foot), fill=(28, 32, 36))
    for k in range(1, 5, 2):
        draw.rectangle((left + round(long * k / 5), foot - high + 1, left + round(long * (k + 1) / 5), foot - 1),
                       fill=(255, 255, 255))  # fmt: skip
