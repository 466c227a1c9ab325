"""A rider's picture of a thing: checked, made small, and stripped of where it was taken."""

import io

from PIL import Image, ImageOps, UnidentifiedImageError

from omnifer.formats.problem import InputProblem

MOST_BYTES = 12 * 1024 * 1024
MOST_PIXELS, MOST_WHOLE = 250_000_000, 24_000_000
"""A JPEG is made smaller while it is read; of what is read as a whole only so much is taken."""
SIDE_PX = 480
"""The longer side as it is kept."""
QUALITY = 80
KINDS = ("JPEG", "PNG", "WEBP")


def small_picture(content: bytes) -> bytes:
    """A JPEG of at most `SIDE_PX` a side, upright, without anything that the camera wrote. Raises InputProblem in words."""
    mend = "Choose a JPEG, PNG or WebP."
    if len(content) > MOST_BYTES:
        raise InputProblem(f"The picture is larger than {MOST_BYTES // 2**20} MB", "field file", "Make it smaller first.")
    try:
        with Image.open(io.BytesIO(content), formats=KINDS) as image:
            if image.width * image.height > MOST_PIXELS:
                raise InputProblem("The picture has too many points", "field file", "Make it smaller first.")
            image.draft("RGB", (2 * SIDE_PX, 2 * SIDE_PX))
            if image.width * image.height > MOST_WHOLE:
                raise InputProblem("The picture has too many points", "field file", "Make it smaller first.")
            upright = ImageOps.exif_transpose(image).convert("RGB")
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError):
        raise InputProblem("This is no picture that can be read", "field file", mend) from None
    upright.thumbnail((SIDE_PX, SIDE_PX))
    bare = Image.new("RGB", upright.size)
    bare.paste(upright)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()
