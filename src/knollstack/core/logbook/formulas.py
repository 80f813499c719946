"""Equations of the log: what a leak-off test, losses and a shut-in kick say of the rock, and how fast days go."""

from __future__ import annotations

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import Value, formula

TESTING = "Leak-off test, textbook well control: surface pressure at the break over the mud column"
SHUT_IN = "Shut-in well, textbook well control: the drill pipe is the gauge on the formation"


@formula("ρ_t = ρ + p / ((12/231)·D)", "ppg", TESTING, ("mud_ppg > 0", "leak_off_psi >= 0", "tvd_ft > 0"))
def tested_emw(mud_ppg: Value, leak_off_psi: Value, tvd_ft: Value) -> Value:
    """Equivalent mud weight of a test at the shoe: mud in the hole and pressure at the pump."""
    return mud_ppg + leak_off_psi / (PSI_PER_PPG_FT * tvd_ft)


@formula("P = ρ + p_dp / ((12/231)·D)", "ppg", SHUT_IN, ("mud_ppg > 0", "drill_pipe_psi >= 0", "tvd_ft > 0"))
def kicking_pore_emw(mud_ppg: Value, drill_pipe_psi: Value, tvd_ft: Value) -> Value:
    """Pore pressure of the formation that kicks, as equivalent mud weight, by the shut-in drill pipe pressure."""
    return mud_ppg + drill_pipe_psi / (PSI_PER_PPG_FT * tvd_ft)
