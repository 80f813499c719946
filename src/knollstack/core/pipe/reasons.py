"""In words: which case governs a string where, why each section ends where it does, and where free pipe buckles."""

from __future__ import annotations

from itertools import groupby

import numpy as np

from knollstack.core.base.findings import Amount, Words, depth
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.formulas import areas_in2
from knollstack.core.pipe.judged import KINDS, Judged, judge_sections
from knollstack.core.program.section import Section


def governing(judged: Judged) -> Words:
    """Which case and kind of load is nearest to its limit, depth by depth, in one line."""
    values = np.array([np.min(np.nan_to_num(judged.of(kind), nan=np.inf), axis=0) for kind in KINDS])
    count, cases, nodes = values.shape
    flat = values.reshape(count * cases, nodes)
    worst = np.argmin(flat, axis=0)
    runs = [(key, [i for i, _ in group]) for key, group in groupby(enumerate(worst.tolist()), key=lambda pair: pair[1])]
    words: list[str | Amount] = []
    for position, (key, run) in enumerate(runs):
        kind, case = KINDS[key // cases], judged.frame.cases[key % cases]
        end = float(
            judged.frame.md_ft[min(run[-1] + 1, nodes - 1)] if position < len(runs) - 1 else judged.frame.md_ft[-1]
        )
        words += [f"{kind} in {case.name} to ", depth(end), "; "]
    words[-1] = "."
    first = str(words[0])
    return (first[0].upper() + first[1:], *words[1:])


def ends_because(policy: PipePolicy, judged: Judged) -> list[Words]:
    """Why each section begins where it does: what its pipe would not stand a node higher, or that another costs less."""
    found: list[Words] = []
    frame, sections = judged.frame, judged.sections
    for i, section in enumerate(sections):
        if i == 0:
            found.append(())
            continue
        node = int(np.searchsorted(frame.md_ft, section.top_md_ft - 1e-6))
        higher = float(frame.md_ft[max(0, node - 1)])
        trial = tuple(
            Section(s.top_md_ft, higher, s.pipe)
            if j == i - 1
            else Section(higher, s.bottom_md_ft, s.pipe)
            if j == i
            else s
            for j, s in enumerate(sections)
        )
        trial = tuple(s for s in trial if s.bottom_md_ft > s.top_md_ft)
        found.append(_first_failure(policy, judge_sections(policy, frame, trial), section))
    return found


def _first_failure(policy: PipePolicy, trial: Judged, section: Section) -> Words:
    place = next(i for i, s in enumerate(trial.sections) if s.pipe.key == section.pipe.key)
    worst = [(trial.of(kind)[place], kind) for kind in KINDS]
    least, kind = min(worst, key=lambda pair: float(np.min(np.nan_to_num(pair[0], nan=np.inf))))
    if float(np.min(least)) >= 1 - 1e-9:
        return ("Above it a pipe that costs less withstands its loads.",)
    c, m = (int(i) for i in np.unravel_index(int(np.argmin(least)), least.shape))
    frame = trial.frame
    required = float(frame.collapse_required[c, m]) if kind == "collapse" else float(getattr(policy.factors, kind))
    factor = float(least[c, m]) * required
    return (f"Higher up it would fail in {kind} in {frame.cases[c].name}: factor ", f"{factor:.2f}.")


def neutral_md_ft(judged: Judged) -> float | None:
    """Depth below which the string is in compression when it hangs in its mud; None where it is not."""
    frame = judged.frame
    case = next((i for i, c in enumerate(frame.cases) if c.name == "stopped while running"), None)
    if case is None:
        return None
    force = judged.along(judged.shares.axial_lbf, case) - judged.along(judged.shares.axial_lbf, case)[-1]
    real = force + _end_force(judged)
    crossed = np.flatnonzero((real[:-1] > 0) & (real[1:] <= 0))
    if not len(crossed):
        return None
    k = int(crossed[0])
    return float(np.interp(0.0, [real[k + 1], real[k]], [frame.md_ft[k + 1], frame.md_ft[k]]))


def _end_force(judged: Judged) -> float:
    """Real force at the shoe of a string hung in its mud: the mud pressure on the steel of its end."""
    side = judged.side
    steel = np.asarray(areas_in2(side.od_in, side.wall_in)[2])
    return -float(judged.frame.mud_psi[-1] * steel[-1, 0, 0])
