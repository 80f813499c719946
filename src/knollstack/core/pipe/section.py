"""A section of a string: one pipe between two depths."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.pipe.product import Pipe


@dataclass(frozen=True)
class Section:
    top_md_ft: float
    bottom_md_ft: float
    pipe: Pipe
