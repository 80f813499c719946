"""A section of a string: one pipe between two depths."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.catalogue.product import Pipe


@dataclass(frozen=True)
class Section:
    top_md_ft: float
    bottom_md_ft: float
    pipe: Pipe

    @property
    def length_ft(self) -> float:
        return self.bottom_md_ft - self.top_md_ft
