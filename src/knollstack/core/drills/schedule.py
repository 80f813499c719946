"""The schedule of the kill sheet: drill pipe pressure by strokes while kill mud goes down the string."""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.base.working import headline
from knollstack.core.drills.formulas import deviated_schedule_pressure, pump_strokes
from knollstack.core.drills.results import KillRow, KillSheet
from knollstack.core.path.trajectory import Path

ROWS = 10


def schedule(sheet: KillSheet, path: Path, kill_ppg: float, final_psi: float) -> tuple[KillRow, ...]:
    """At tenths of the string's strokes, and where its size changes."""
    assert sheet.slow_psi is not None
    assert sheet.read is not None
    ends, bbl = [(0.0, 0.0)], 0.0
    for part in sheet.inside:
        bbl += part.volume_bbl
        ends.append((bbl, part.bottom_md_ft))
    wanted = sorted({sheet.string_bbl * k / ROWS for k in range(ROWS + 1)} | {b for b, _ in ends})
    kept = [b for b, after in pairwise([*wanted, float("inf")]) if after - b > 1e-6]
    rows = []
    for k, pumped in enumerate(kept):
        front, key = _front(ends, pumped), f"{sheet.working}/schedule/{k}"
        with headline(key):
            strokes = float(pump_strokes(pumped, sheet.bbl_stroke))
            psi = deviated_schedule_pressure(
                sheet.slow_psi,
                final_psi,
                sheet.read.sidpp_psi,
                sheet.mud_ppg,
                kill_ppg,
                front,
                path.tvd(front),
                sheet.md_ft,
            )
        rows.append(
            KillRow(
                strokes=strokes,
                pumped_bbl=pumped,
                psi=float(psi),
                front_md_ft=front,
                front_tvd_ft=path.tvd(front),
                working=key,
            )
        )
    return tuple(rows)


def _front(ends: list[tuple[float, float]], pumped_bbl: float) -> float:
    for (low, top), (high, bottom) in pairwise(ends):
        if pumped_bbl <= high and high > low:
            return top + (bottom - top) * (pumped_bbl - low) / (high - low)
    return ends[-1][1]
