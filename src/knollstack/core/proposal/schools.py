"""Setting depths by both schools, and what would free a program where there is none: slower than an evaluation, so apart."""

from __future__ import annotations

import math

from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.depths.judge import listed
from knollstack.core.document.design import Design
from knollstack.core.program.laid import Proposal
from knollstack.core.proposal.effort import Effort, GoingOn
from knollstack.core.proposal.laid_out import laid_out, proposal_of
from knollstack.core.proposal.programs import SPACING_FT, Programs, programs, sought
from knollstack.core.proposal.relief import reliefs
from knollstack.core.proposal.results import FreedomResult, ProgramsResult
from knollstack.core.proposal.search import propose


def both_schools(design: Design, catalogue: Catalogue, going_on: GoingOn | None = None) -> ProgramsResult:
    """The bottom-up and the top-down program of a ground and policy, with the freedom of each shoe.

    It is cut short, and says so, where `going_on` tells that it has gone on for long enough.
    """
    laid, effort = laid_out(design, catalogue), Effort(math.inf, going_on)
    _, holes = proposal_of(laid.well, laid.catalogue)
    found = programs(laid.well, holes) if going_on is None else sought(laid.well, holes, SPACING_FT, effort)
    bottom_up = propose(laid.well, holes)
    relief = reliefs(design, catalogue, effort)
    return ProgramsResult(
        sections=found.sections,
        bottom_up=listed(bottom_up.shoes),
        top_down=listed(found.top_down),
        freedom=_freedom(found, bottom_up),
        failure=found.failure,
        reliefs=relief.remedies,
        cut=found.cut,
        reliefs_cut=relief.cut,
    )


def _freedom(found: Programs, bottom_up: Proposal) -> tuple[FreedomResult, ...]:
    """The freedom of each shoe; the bottom-up one, found to a foot between the candidates, is in it."""
    same = len(bottom_up.shoes) == found.sections + 1
    rows = []
    for i, free in enumerate(found.freedom):
        shallow = min(free.shallow_md_ft, bottom_up.shoes[i + 1].md_ft) if same else free.shallow_md_ft
        rows.append(FreedomResult(shallow_md_ft=shallow, deep_md_ft=free.deep_md_ft))
    return tuple(rows)
