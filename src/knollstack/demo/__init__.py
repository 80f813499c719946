"""The demo wells as documents, all made up."""

from importlib.resources import files

NAMES = ("harrow-fen-3-empty", "harrow-fen-3", "selkie-a7", "merrow-deep-1")


def documents() -> list[str]:
    """Texts of the demo well files."""
    return [files(__package__).joinpath(f"{name}.json").read_text(encoding="utf-8") for name in NAMES]
