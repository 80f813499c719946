"""What follows for sizes: each string's fit, and every chain that could take its place."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result
from knollstack.core.document.policy import PairUse

Way = Literal["common", "tight", "special clearance", "under-reamed", "flush"]


class SpareSize(Result):
    """A casing that can be set above a string without taking its hole."""

    bit_in: float
    od_in: float


class SizeRow(Result):
    usual: bool
    outer_drift_in: float | None
    bit_margin_in: float | None
    coupling_od_in: float | None
    clearance_in: float | None
    pair: PairUse | None
    """What policy's chart says of the casing in its hole; None where it does not hold the pair."""
    common_in: float | None
    tight_in: float | None
    opened_from_in: float | None = None
    reamer_body_in: float | None = None
    spare: SpareSize | None = None


class SizesResult(Result):
    strings: tuple[SizeRow, ...]


class ChainLink(Result):
    """One string of a chain. Volumes are over the section as it stands; None for pipe that is driven."""

    od_in: float
    hole_in: float | None = None
    opened_from_in: float | None = None
    way: Way | None = None
    connection: str | None = None
    clearance_in: float | None = None
    gap_in: float | None = None
    hole_bbl: float | None = None
    annulus_bbl: float | None = None
    displaced_bbl: float | None = None
    spare: SpareSize | None = None


class ChainResult(Result):
    links: tuple[ChainLink, ...]
    cost: float
    current: bool
    neighbour: bool


class ChainsResult(Result):
    """The plainest chains first; `count` is how many there are in all."""

    count: int
    chains: tuple[ChainResult, ...]
