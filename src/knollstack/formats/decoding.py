"""The text of a file from its bytes: UTF-8, UTF-16 and the old code page of the west are told apart."""

from __future__ import annotations

import codecs

from knollstack.core.document.faults import Fault, FaultyDesign

_MARKS = ((codecs.BOM_UTF8, "utf-8"), (codecs.BOM_UTF16_LE, "utf-16-le"), (codecs.BOM_UTF16_BE, "utf-16-be"))
SEEN_BYTES = 4_000


def text_of(data: bytes) -> tuple[str, list[str]]:
    """The text, and in words how it was read where that is not UTF-8; raises FaultyDesign for what is no text."""
    for mark, name in _MARKS:
        if data.startswith(mark):
            return _decoded(data[len(mark) :], name), [] if name == "utf-8" else ["read as UTF-16"]
    wide = _wide(data[:SEEN_BYTES])
    if wide is not None:
        return _decoded(data, wide), ["read as UTF-16"]
    if b"\0" in data:
        raise _no_text("bytes that are no text")
    try:
        return data.decode("utf-8"), []
    except UnicodeDecodeError:
        # five of its bytes mean nothing: Latin-1 then, which has no such gap
        try:
            return data.decode("cp1252"), ["read as Western European text (Windows-1252)"]
        except UnicodeDecodeError:
            return data.decode("latin-1"), ["read as Western European text (Latin-1)"]


def _wide(data: bytes) -> str | None:
    """UTF-16 without a mark: nearly every second byte of plain text is zero."""
    pairs = len(data) // 2
    if pairs < 2:
        return None
    even, odd = data[: 2 * pairs : 2].count(0), data[1 : 2 * pairs : 2].count(0)
    if odd > 0.7 * pairs and even < 0.1 * pairs:
        return "utf-16-le"
    return "utf-16-be" if even > 0.7 * pairs and odd < 0.1 * pairs else None


def _decoded(data: bytes, name: str) -> str:
    try:
        return data.decode(name)
    except UnicodeDecodeError as error:
        raise _no_text(f"bytes that are not {name.upper()} from byte {error.start:,} on") from None


def _no_text(value: str) -> FaultyDesign:
    return FaultyDesign([Fault(path="", value=value, expected="a text file: CSV or LAS")])
