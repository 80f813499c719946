"""All loads of one string against depth, its strength picture, and what other runs of sections would cost."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.choose import best_sections, is_judged
from knollstack.core.pipe.formulas import areas_in2
from knollstack.core.pipe.frame import build_frame
from knollstack.core.pipe.judge import exposed_of, frame_of
from knollstack.core.pipe.judged import KINDS, Judged, judge_sections
from knollstack.core.pipe.order import decided_sections
from knollstack.core.pipe.reasons import governing, neutral_md_ft
from knollstack.core.pipe.results_loads import (
    CaseCurves,
    CaseFactor,
    Envelope,
    LoadsResult,
    PipeOffer,
    PipeOffers,
    RatingCurves,
    SectionOffer,
)
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.section import Section

Floats = NDArray[np.float64]
ENVELOPE_POINTS = 33
MOST_OFFERED = 3
MOST_SHARE = 10.0


def _floats(values: Floats) -> tuple[float, ...]:
    return tuple(float(v) for v in np.round(values, 3))


def _factors(judged: Judged, case: int) -> tuple[CaseFactor, ...]:
    """The least factor of each kind in one case, where there is such a load."""
    found = []
    for kind in KINDS:
        values = judged.of(kind)[:, case]
        if np.any(np.isnan(values)) or not np.any(np.isfinite(values)):
            continue
        section, node = (int(i) for i in np.unravel_index(int(np.argmin(values)), values.shape))
        found.append(
            CaseFactor(
                kind=kind, share=float(values[section, node]), at_md_ft=float(judged.frame.md_ft[node]), section=section
            )
        )
    return tuple(found)


def _cases(judged: Judged) -> tuple[CaseCurves, ...]:
    frame, shares = judged.frame, judged.shares
    effective = judged.effective_lbf()
    # at a break both sections count
    least = np.min([np.min(np.nan_to_num(judged.of(kind), nan=0.0), axis=0) for kind in KINDS], axis=0).clip(
        max=MOST_SHARE
    )
    return tuple(
        CaseCurves(
            name=case.name,
            stage=case.stage,
            kind=case.kind,
            inside_psi=_floats(frame.inside_psi[c]),
            outside_psi=_floats(frame.outside_psi[c]),
            axial_lbf=_floats(judged.along(shares.axial_lbf, c)),
            effective_lbf=_floats(judged.along(effective, c)),
            collapse_rating_psi=_floats(np.nan_to_num(judged.along(shares.collapse_rating_psi, c))),
            collapse_load_psi=_floats(judged.along(shares.collapse_psi, c)),
            stress_psi=_floats(judged.along(shares.stress_psi, c)),
            share=_floats(least[c]),
            factors=_factors(judged, c),
        )
        for c, case in enumerate(frame.cases)
    )


def _ratings(policy: PipePolicy, judged: Judged) -> RatingCurves:
    """What the pipe stands along the string, over the factors of policy."""
    side, frame, factors = judged.side, judged.frame, policy.factors
    share = frame.yield_share

    def along(values: Floats) -> tuple[float, ...]:
        return _floats(np.nan_to_num(judged.along(np.broadcast_to(values, judged.shares.axial_lbf.shape), 0)))

    return RatingCurves(
        burst_psi=along(side.internal_psi * share / factors.burst),
        tension_lbf=along(side.pull_lbf * share / factors.tension),
        compression_lbf=along(-side.push_lbf * share / factors.compression),
        bending_lbf=along(np.asarray(judged.shares.bending_lbf)),
        yield_psi=along(side.yield_psi * share / factors.triaxial),
    )


def envelope(policy: PipePolicy, section: Section, factor: float) -> Envelope:
    """The von Mises ellipse of new, cold pipe: axial force between which it stands a difference of pressure.

    Above the axis the pressure is inside and nothing outside, below it the other way round. Where the pipe stands no
    axial force at all the picture ends.
    """
    pipe = section.pipe
    side_wall = pipe.wall_in * (0.875 if policy.triaxial_wall == "minimum" else 1.0)
    outer, inner = pipe.od_in / 2, pipe.od_in / 2 - side_wall
    area = float(areas_in2(pipe.od_in, side_wall)[2])
    allowed = pipe.grade.yield_psi / factor
    squares = outer**2 - inner**2
    # the hoop swing at the inner wall that takes all the yield: 3·swing² = allowed²
    most = allowed / np.sqrt(3) * squares / outer**2
    pressure = np.linspace(-most, most, ENVELOPE_POINTS)
    mean = np.where(pressure >= 0, pressure * inner**2, pressure * outer**2) / squares
    swing = pressure * outer**2 / squares
    reach = np.sqrt(np.maximum(allowed**2 - 3 * swing**2, 0.0))
    return Envelope(
        differential_psi=_floats(pressure),
        least_lbf=_floats((mean - reach) * area),
        greatest_lbf=_floats((mean + reach) * area),
    )


def loads_of(equipped: Equipped, index: int) -> LoadsResult | None:
    """Every case of one string along it; None where there is nothing to judge."""
    if index >= len(equipped.strings):
        return None
    well, string = equipped.well, equipped.strings[index]
    frame = frame_of(well, string, exposed_of(equipped, string))
    if frame is None or not is_judged(string) or not string.sections:
        return None
    policy = well.policy.pipe
    judged = judge_sections(policy, frame, string.sections)
    return LoadsResult(
        md_ft=_floats(frame.md_ft),
        ratings=_ratings(policy, judged),
        cases=_cases(judged),
        envelopes=tuple(envelope(policy, s, policy.factors.triaxial) for s in string.sections),
        yields=tuple(envelope(policy, s, 1.0) for s in string.sections),
        section_of_node=tuple(judged.section_of_node.tolist()),
        missing=frame.missing,
        governs=governing(judged),
        neutral_md_ft=neutral_md_ft(judged),
    )


def _offer(sections: tuple[Section, ...]) -> PipeOffer:
    return PipeOffer(
        cost=sum(s.pipe.cost_per_ft * (s.bottom_md_ft - s.top_md_ft) for s in sections),
        weight_lbf=sum(s.pipe.weight_ppf * (s.bottom_md_ft - s.top_md_ft) for s in sections),
        sections=tuple(
            SectionOffer(
                to_md_ft=s.bottom_md_ft,
                weight_ppf=s.pipe.weight_ppf,
                grade=s.pipe.grade.grade,
                connection=s.pipe.connection,
            )
            for s in sections
        ),
    )


def offers_of(equipped: Equipped, index: int) -> PipeOffers:
    """The best string of one, two and three sections, beside the one in force: what a section more or less costs."""
    nothing = PipeOffers(offers=(), current=None)
    if index >= len(equipped.strings):
        return nothing
    well, catalogue, string = equipped.well, equipped.catalogue, equipped.strings[index]
    exposed = exposed_of(equipped, string)
    frame = build_frame(well, string.laid, exposed, ())  # without the breaks of what is decided
    if frame is None or not is_judged(string) or frame.unchosen:
        return nothing
    counts = range(1, MOST_OFFERED + 1)
    found = [best_sections(well, catalogue, string, exposed, frame, most).sections for most in counts]
    distinct = [s for i, s in enumerate(found) if s and (i == 0 or len(s) > len(found[i - 1]))]
    held = decided_sections(catalogue, string)
    return PipeOffers(offers=tuple(_offer(s) for s in distinct), current=_offer(held) if held else None)
