"""The loads of one string in full: every case against depth, ratings over their factors, and the strength picture."""

from __future__ import annotations

from knollstack.core.base.findings import Result, Words
from knollstack.core.pipe.results import LoadKind


class CaseFactor(Result):
    """Where a case is nearest to a limit. `share` is safety factor over required factor: 1 just stands."""

    kind: LoadKind
    share: float
    at_md_ft: float
    section: int


class CaseCurves(Result):
    """One case along the string; `share` is the least over all kinds at each depth, 10 standing for more.

    Forces are real and effective axial force, tension positive, bending apart.
    """

    name: str
    stage: str
    kind: str
    inside_psi: tuple[float, ...]
    outside_psi: tuple[float, ...]
    axial_lbf: tuple[float, ...]
    effective_lbf: tuple[float, ...]
    collapse_load_psi: tuple[float, ...]
    collapse_rating_psi: tuple[float, ...]
    stress_psi: tuple[float, ...]
    share: tuple[float, ...]
    factors: tuple[CaseFactor, ...]


class RatingCurves(Result):
    """What the pipe stands at each depth, over the factor that policy asks."""

    burst_psi: tuple[float, ...]
    tension_lbf: tuple[float, ...]
    compression_lbf: tuple[float, ...]
    bending_lbf: tuple[float, ...]
    yield_psi: tuple[float, ...]


class Envelope(Result):
    """Axial force between which a pipe stands each difference of pressure, inside less outside."""

    differential_psi: tuple[float, ...]
    least_lbf: tuple[float, ...]
    greatest_lbf: tuple[float, ...]


class LoadsResult(Result):
    """The cases and ratings along a string. `governs` says in one line which load rules where."""

    md_ft: tuple[float, ...]
    section_of_node: tuple[int, ...]
    ratings: RatingCurves
    cases: tuple[CaseCurves, ...]
    envelopes: tuple[Envelope, ...]
    yields: tuple[Envelope, ...]
    missing: tuple[str, ...]
    governs: Words
    neutral_md_ft: float | None


class SectionOffer(Result):
    to_md_ft: float
    weight_ppf: float
    grade: str
    connection: str


class PipeOffer(Result):
    cost: float
    weight_lbf: float
    sections: tuple[SectionOffer, ...]


class PipeOffers(Result):
    """The best string of each number of sections that gains by it, and the one that is decided."""

    offers: tuple[PipeOffer, ...]
    current: PipeOffer | None
