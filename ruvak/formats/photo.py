"""Photos as they come from a phone: checked, made smaller, and without where and by what they were taken."""

import io

from PIL import Image, ImageOps, UnidentifiedImageError

from ruvak.core.errors import Fault, FaultyDocument

LONGEST_PIXELS, QUALITY = 1600, 80
"""Of a kept photo: a label on a plug can still be read."""
MOST_PIXELS = 60_000_000
KINDS = ("JPEG", "PNG", "WEBP")


class BadPhoto(FaultyDocument):
    """A file that is no photo, or one too large to open."""

    code = "bad_photo"


def cleaned(data: bytes) -> bytes:
    """The photo as JPEG, upright, at most 1600 pixels long, without any data but the picture. Raises BadPhoto."""
    try:
        with Image.open(io.BytesIO(data), formats=KINDS) as picture:
            if picture.width * picture.height > MOST_PIXELS:
                raise _bad("This picture has more than 60 million pixels; take it anew with a smaller size.")
            upright = ImageOps.exif_transpose(picture).convert("RGB")
            upright.thumbnail((LONGEST_PIXELS, LONGEST_PIXELS))
            # A new picture: what stood beside the old one (place, time, device) is not carried over.
            bare = Image.new("RGB", upright.size)
            bare.paste(upright)
            out = io.BytesIO()
            bare.save(out, "JPEG", quality=QUALITY, optimize=True)
            return out.getvalue()
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError) as problem:
        raise _bad("This is no photo, or a damaged one; JPEG, PNG and WebP are taken.") from problem


def _bad(sentence: str) -> BadPhoto:
    return BadPhoto((Fault("bad_photo", "file", sentence),))
