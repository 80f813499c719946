"""What a rule of setting depths is: asked of shoes above one bottom, may each stand there while the hole below it is
drilled to the bottom?
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.findings import Words
from knollstack.core.ground.well import Well

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Tried:
    """Shoes tried above one bottom."""

    tops_md_ft: Floats
    tops_tvd_ft: Floats
    bottom_md_ft: float
    bottom_tvd_ft: float


def tried(well: Well, tops_md_ft: Floats, bottom_md_ft: float) -> Tried:
    return Tried(tops_md_ft, well.path.tvd_at(tops_md_ft), bottom_md_ft, well.path.tvd(bottom_md_ft))


@dataclass(frozen=True, eq=False)
class Rule(ABC):
    """One rule of a well. `name` is how it is spoken of."""

    well: Well
    name: str

    @abstractmethod
    def holds(self, at: Tried) -> Bools:
        """Whether each shoe keeps the rule; what is unknown does not."""

    @abstractmethod
    def why(self, top_md_ft: float, bottom_md_ft: float, where: str) -> Words:
        """Why a shoe at a depth does not keep it; `where` is Shallower or Deeper, of the shoe that does."""

    def keeps(self, top_md_ft: float, bottom_md_ft: float) -> bool:
        return bool(self.holds(tried(self.well, np.array([top_md_ft]), bottom_md_ft))[0])
