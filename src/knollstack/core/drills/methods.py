"""The two ways of circulating a kick out, each in its stages: which pressure is held for how many strokes."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.working import headline
from knollstack.core.drills.formulas import pump_minutes, starting_casing_pressure
from knollstack.core.drills.results import KillMethod, KillSheet, KillStage, KillSum

TO_BIT, TO_CHOKE = "Kill mud to the bit", "Kill mud to the choke"


def methods(sheet: KillSheet) -> tuple[KillMethod, ...]:
    """Driller's method, and wait and weight; none where the circulating pressures are unknown."""
    if sheet.read is None or sheet.icp_psi is None or sheet.fcp_psi is None or sheet.kill_ppg is None:
        return ()
    first, last = ("icp", sheet.icp_psi), ("fcp", sheet.fcp_psi)
    down, _, up, _ = sheet.sums
    rest = ("second", _mud_alone_psi(sheet, sheet.read.sidpp_psi))
    finish = _stage(sheet, TO_CHOKE, sheet.kill_ppg, "drill pipe", last, last, up)
    driller = (
        _stage(sheet, "Influx out", sheet.mud_ppg, "drill pipe", first, first, up),
        _stage(sheet, TO_BIT, sheet.kill_ppg, "casing", rest, rest, down),
        finish,
    )
    weight = (_stage(sheet, TO_BIT, sheet.kill_ppg, "drill pipe", first, last, down), finish)
    return (_method("Driller's method", driller, sheet, "driller"), _method("Wait and weight", weight, sheet, "weight"))


def _mud_alone_psi(sheet: KillSheet, sidpp_psi: float) -> float | None:
    """With mud alone in the annulus the casing shows what the drill pipe showed; it stays while that annulus is as it was."""
    if sheet.choke_line_psi is None:
        return None
    with headline(f"{sheet.working}/second"):
        return float(starting_casing_pressure(sidpp_psi, sheet.choke_line_psi))


def _stage(
    sheet: KillSheet,
    title: str,
    mud_ppg: float,
    held: Literal["drill pipe", "casing"],
    start: tuple[str, float | None],
    end: tuple[str, float | None],
    pumped: KillSum,
) -> KillStage:
    """Each pressure comes with the name of its working."""
    return KillStage(
        title=title,
        mud_ppg=mud_ppg,
        held=held,
        from_psi=start[1],
        to_psi=end[1],
        strokes=pumped.strokes,
        minutes=pumped.minutes,
        from_working=f"{sheet.working}/{start[0]}",
        to_working=f"{sheet.working}/{end[0]}",
        strokes_working=pumped.working,
    )


def _method(title: str, stages: tuple[KillStage, ...], sheet: KillSheet, name: str) -> KillMethod:
    strokes, key = sum(stage.strokes for stage in stages), f"{sheet.working}/{name}"
    with headline(key):
        minutes = float(pump_minutes(strokes, sheet.slow_spm))
    return KillMethod(title=title, stages=stages, strokes=strokes, minutes=minutes, working=key)
