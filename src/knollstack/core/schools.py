"""Setting depths by both schools, and what would free a program where there is none: slower than an evaluation, so apart."""

from __future__ import annotations

from knollstack.core.catalogue import Catalogue
from knollstack.core.depths import Proposal, propose
from knollstack.core.design import Design
from knollstack.core.program import build_program
from knollstack.core.programs import Programs, programs
from knollstack.core.relief import reliefs
from knollstack.core.results_well import FreedomResult, ProgramsResult
from knollstack.core.shoes import listed


def both_schools(design: Design, catalogue: Catalogue) -> ProgramsResult:
    """The bottom-up and the top-down program of a ground and policy, with the freedom of each shoe."""
    open_design = design.model_copy(update={"strings": ()})
    program = build_program(open_design, catalogue)
    holes = program.proposal_holes_in
    found = programs(program.well, holes)
    bottom_up = propose(program.well, holes)
    return ProgramsResult(
        sections=found.sections,
        bottom_up=listed(bottom_up.shoes),
        top_down=listed(found.top_down),
        freedom=_freedom(found, bottom_up),
        failure=found.failure,
        reliefs=tuple(reliefs(open_design, catalogue)),
    )


def _freedom(found: Programs, bottom_up: Proposal) -> tuple[FreedomResult, ...]:
    """The freedom of each shoe; the bottom-up one, found to a foot between the candidates, is in it."""
    same = len(bottom_up.shoes) == found.sections + 1
    rows = []
    for i, free in enumerate(found.freedom):
        shallow = min(free.shallow_md_ft, bottom_up.shoes[i + 1].md_ft) if same else free.shallow_md_ft
        rows.append(FreedomResult(shallow_md_ft=shallow, deep_md_ft=free.deep_md_ft))
    return tuple(rows)
