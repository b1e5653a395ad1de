"""Sample pictures, drawn: a painted panel with a seam, light across it, and a mark; no photograph of anything."""

from __future__ import annotations

from io import BytesIO

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

COLOURS = {"estate": (58, 84, 104), "hatch": (150, 42, 46), "fell": (92, 104, 78)}
MARKS = ("scratch", "dent", "chips", "none")


def sample_picture(
    car: str = "estate",
    mark: str = "scratch",
    *,
    seed: int = 1,
    size: tuple[int, int] = (1600, 1200),
    format: str = "JPEG",
    exif: bytes = b"",
) -> bytes:
    """A drawn picture of a painted panel as the bytes of a file.

    Parameters
    ----------
    car : a demo vehicle, for its colour
    mark : one of MARKS
    seed : the same seed draws the same picture
    size : width and height [pixels]
    format : a format that Pillow writes
    exif : data to put into the file, such as a position
    """
    chance = np.random.default_rng(seed)
    wide, high = size
    across, down = np.linspace(0, 1, wide), np.linspace(0, 1, high)[:, None]
    light = 0.75 + 0.35 * np.exp(-(((down - 0.3 - 0.06 * across) / 0.16) ** 2)) - 0.22 * down
    speck = chance.normal(0, 0.012, (high // 4 + 1, wide // 4 + 1)).repeat(4, 0).repeat(4, 1)[:high, :wide]
    body = np.array(COLOURS.get(car, COLOURS["estate"])) * (light + speck)[..., None]
    picture = Image.fromarray(np.clip(body, 0, 255).astype(np.uint8))
    draw = ImageDraw.Draw(picture)
    seam = int(wide * (0.55 + 0.25 * chance.random()))
    draw.line([(seam, 0), (seam + wide // 40, high)], fill=(14, 16, 18), width=max(3, wide // 160))
    draw.line([(0, int(high * 0.82)), (wide, int(high * 0.78))], fill=(30, 34, 38), width=max(2, wide // 260))
    _mark(draw, mark, chance, size)
    picture = picture.filter(ImageFilter.GaussianBlur(wide / 1600))
    out = BytesIO()
    picture.save(out, format, **({"exif": exif} if exif else {}))
    return out.getvalue()


def _mark(draw: ImageDraw.ImageDraw, mark: str, chance: np.random.Generator, size: tuple[int, int]) -> None:
    wide, high = size
    x, y = wide * (0.2 + 0.3 * chance.random()), high * (0.35 + 0.3 * chance.random())
    if mark == "scratch":
        ends = [(x + wide * 0.28 * t, y + high * 0.03 * np.sin(3 * t)) for t in np.linspace(0, 1, 20)]
        draw.line(ends, fill=(222, 226, 228), width=max(2, wide // 400))
    elif mark == "dent":
        for i in range(14):
            r = wide * 0.07 * (1 - i / 14)
            shade = 90 + 8 * i
            draw.arc([x - r, y - r, x + r, y + r], 200, 340, fill=(shade, shade, shade), width=max(2, wide // 500))
    elif mark == "chips":
        for _ in range(18):
            a, b = x + wide * 0.18 * chance.normal(), y + high * 0.12 * chance.normal()
            r = wide / 400 * (1 + 2 * chance.random())
            draw.ellipse([a - r, b - r, a + r, b + r], fill=(186, 190, 192))
