"""Colours of the screen as light: sRGB, CIE L*a*b*, and a blend to draw."""

from collections.abc import Sequence

from ..book.colours import Tint


def _linear(channel: int) -> float:
    c = channel / 255
    return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)


def channels(colour: str) -> tuple[int, int, int]:
    """The three channels of #rrggbb, 0–255."""
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def bands(colour: str) -> tuple[float, float, float]:
    """What a colour gives back of the three primaries, 0–1 each."""
    r, g, b = (_linear(c) for c in channels(colour))
    return r, g, b


def lab(light: Sequence[float]) -> tuple[float, float, float]:
    """CIE L*a*b* (D65, 2°) of three linear bands, by the matrix of IEC 61966-2-1."""
    r, g, b = light
    x = (0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505
    y = 0.2126 * r + 0.7152 * g + 0.0722 * b
    z = (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089
    fx, fy, fz = (t ** (1 / 3) if t > 0.008856 else 7.787 * t + 16 / 116 for t in (x, y, z))
    return 116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)


def luminance(colour: str) -> float:
    """Y of an sRGB colour (IEC 61966-2-1), 0–1."""
    r, g, b = (_linear(c) for c in channels(colour))
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def lightness_of(y: float) -> float:
    """CIE L* of a luminance, 0–100."""
    return 116 * y ** (1 / 3) - 16 if y > 0.008856 else 903.3 * y


def lightness(colour: str) -> float:
    """CIE L* of #rrggbb, 0–100.

    >>> round(lightness("#777777"))
    50
    """
    return lightness_of(luminance(colour))


def blend(tints: Sequence[Tint]) -> str:
    """A colour to draw a blend in: the mean of the light the paints give back. Not a prediction."""
    whole = sum(t.parts for t in tints)
    channels = [
        (sum(t.parts * (int(t.hex[i : i + 2], 16) / 255) ** 2.2 for t in tints) / whole) ** (1 / 2.2) for i in (1, 3, 5)
    ]
    return "#" + "".join(f"{round(c * 255):02x}" for c in channels)
