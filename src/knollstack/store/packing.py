"""Documents packed small: whole, or as what differs from an earlier one (Zstandard with that one as its dictionary)."""

from __future__ import annotations

import hashlib

import zstandard

LEVEL = 9
MOST_BYTES = 64 * 1024 * 1024
"""A packed document never unpacks to more: bound of what a damaged file could ask for."""


class DamagedError(Exception):
    """What is stored does not unpack to what was saved."""


def hash_of(text: str) -> str:
    """SHA-256 of a document's text."""
    return hashlib.sha256(text.encode()).hexdigest()


def _parameters(size: int) -> zstandard.ZstdCompressionParameters:
    """A window that reaches over the dictionary and the text, so that an equal part is found wherever it stands."""
    window = max(10, min(27, (2 * size).bit_length()))
    return zstandard.ZstdCompressionParameters.from_level(
        LEVEL, window_log=window, enable_ldm=True, write_checksum=True, write_content_size=True
    )


def _dictionary(base: str | None) -> zstandard.ZstdCompressionDict | None:
    if base is None:
        return None
    return zstandard.ZstdCompressionDict(base.encode(), dict_type=zstandard.DICT_TYPE_RAWCONTENT)


def packed(text: str, base: str | None = None) -> bytes:
    """A text packed, against an earlier one where that is given."""
    data = text.encode()
    size = len(data) + (len(base.encode()) if base else 0)
    return zstandard.ZstdCompressor(dict_data=_dictionary(base), compression_params=_parameters(size)).compress(data)


def unpacked(content: bytes, hash: str, base: str | None = None) -> str:
    """The text again; raises DamagedError where it is not the one whose hash was kept."""
    try:
        unpacker = zstandard.ZstdDecompressor(dict_data=_dictionary(base), max_window_size=1 << 27)
        text = unpacker.decompress(content, max_output_size=MOST_BYTES).decode()
    except (zstandard.ZstdError, UnicodeDecodeError, MemoryError) as error:
        raise DamagedError(str(error)) from error
    if hash_of(text) != hash:
        raise DamagedError("its hash is another")
    return text
