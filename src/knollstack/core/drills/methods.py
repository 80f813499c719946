"""The two ways of circulating a kick out, each in its stages: which pressure is held for how many strokes."""

from __future__ import annotations

from knollstack.core.base.working import headline
from knollstack.core.drills.formulas import pump_minutes, starting_casing_pressure
from knollstack.core.drills.results import KillMethod, KillSheet, KillStage


def methods(sheet: KillSheet) -> tuple[KillMethod, ...]:
    """Driller's method, and wait and weight; none where the circulating pressures are unknown."""
    if sheet.read is None or sheet.icp_psi is None or sheet.fcp_psi is None or sheet.kill_ppg is None:
        return ()
    return (
        _method("Driller's method", (_influx_out(sheet), _down_held(sheet), _up(sheet)), sheet, "driller"),
        _method("Wait and weight", (_down_by_schedule(sheet), _up(sheet)), sheet, "weight"),
    )


def _method(title: str, stages: tuple[KillStage, ...], sheet: KillSheet, name: str) -> KillMethod:
    strokes, key = sum(stage.strokes for stage in stages), f"{sheet.working}/{name}"
    with headline(key):
        minutes = float(pump_minutes(strokes, sheet.slow_spm))
    return KillMethod(title=title, stages=stages, strokes=strokes, minutes=minutes, working=key)


def _influx_out(sheet: KillSheet) -> KillStage:
    return KillStage(
        title="Influx out",
        mud_ppg=sheet.mud_ppg,
        held="drill pipe",
        from_psi=sheet.icp_psi,
        to_psi=sheet.icp_psi,
        strokes=sheet.bit_to_choke,
        from_working=f"{sheet.working}/icp",
        to_working=f"{sheet.working}/icp",
        strokes_working=f"{sheet.working}/bit_to_choke",
    )


def _down_held(sheet: KillSheet) -> KillStage:
    """With mud alone in the annulus the casing shows what the drill pipe showed; it stays while that annulus is as it was."""
    assert sheet.read is not None
    psi, key = None, f"{sheet.working}/second"
    if sheet.choke_line_psi is not None:
        with headline(key):
            psi = float(starting_casing_pressure(sheet.read.sidpp_psi, sheet.choke_line_psi))
    return KillStage(
        title="Kill mud to the bit",
        mud_ppg=sheet.kill_ppg,
        held="casing",
        from_psi=psi,
        to_psi=psi,
        strokes=sheet.to_bit,
        from_working=key,
        to_working=key,
        strokes_working=f"{sheet.working}/to_bit",
    )


def _down_by_schedule(sheet: KillSheet) -> KillStage:
    return KillStage(
        title="Kill mud to the bit",
        mud_ppg=sheet.kill_ppg,
        held="drill pipe",
        from_psi=sheet.icp_psi,
        to_psi=sheet.fcp_psi,
        strokes=sheet.to_bit,
        from_working=f"{sheet.working}/icp",
        to_working=f"{sheet.working}/fcp",
        strokes_working=f"{sheet.working}/to_bit",
    )


def _up(sheet: KillSheet) -> KillStage:
    return KillStage(
        title="Kill mud to the choke",
        mud_ppg=sheet.kill_ppg,
        held="drill pipe",
        from_psi=sheet.fcp_psi,
        to_psi=sheet.fcp_psi,
        strokes=sheet.bit_to_choke,
        from_working=f"{sheet.working}/fcp",
        to_working=f"{sheet.working}/fcp",
        strokes_working=f"{sheet.working}/bit_to_choke",
    )
