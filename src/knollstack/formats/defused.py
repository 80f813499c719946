"""Text that a spreadsheet would take for a formula, made harmless on its way out and itself again on its way in."""

from __future__ import annotations

_STARTS = ("=", "+", "-", "@", "\t", "\r")
_MARK = "'"


def defused(text: str) -> str:
    """A text cell that no spreadsheet runs: with a mark before a leading = + - @."""
    return _MARK + text if text.startswith((*_STARTS, _MARK)) else text


def undefused(text: str) -> str:
    """The cell as it was before the mark."""
    return text[1:] if len(text) > 1 and text[0] == _MARK and text[1:].startswith((*_STARTS, _MARK)) else text
