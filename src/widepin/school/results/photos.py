"""Photos of works on paper: read, turned upright, and made anew, so that only what is to be seen is kept."""

from __future__ import annotations

import warnings
from io import BytesIO

from PIL import Image, ImageOps

from ...documents.language import gettext as _
from ..refused import Refused

LONGEST_SIDE = 1600
"""Pixels of a photo as it is kept: a sheet of paper can be read with these."""

MOST_PIXELS = {"JPEG": 60_000_000, "PNG": 12_000_000}
"""What is read at all. A JPEG is read at a fraction of its size; a PNG has to be read wholly."""

PHOTO_TYPE = "image/jpeg"


def made_anew(content: bytes) -> bytes:
    """A photo as a JPEG of bound size, upright, without what a camera writes about place, time and device.

    ``content``: a JPEG or PNG file. Raises Refused for anything else, for what is damaged, and for more pixels than
    ``MOST_PIXELS``.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            return _read(content)
    except (OSError, ValueError, SyntaxError, EOFError, Image.DecompressionBombError, Warning):
        raise Refused(_("This photo cannot be read: choose a JPEG or PNG file.")) from None


def _read(content: bytes) -> bytes:
    with Image.open(BytesIO(content), formats=tuple(MOST_PIXELS)) as image:
        most = MOST_PIXELS[image.format or "PNG"]
        if image.width * image.height > most:
            raise Refused(
                _("This photo has more than %(most)s million pixels; make it smaller.", most=most // 1_000_000)
            )
        image.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
        upright = ImageOps.exif_transpose(image).convert("RGBA")
        upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
        paper = Image.new("RGB", upright.size, "white")
        paper.paste(upright, mask=upright.getchannel("A"))
        out = BytesIO()
        paper.save(out, "JPEG", quality=82)
        return out.getvalue()
