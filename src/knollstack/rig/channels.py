"""What of a feed is read: its channels with their units, where WITS level 0 has them, and what CSV columns call them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime

from knollstack.core.base.findings import Quantity
from knollstack.core.logbook.channels import Channel
from knollstack.rig.wits import number

M3_BBL, KPA_PSI, KG_M3_PPG, KDAN_LBF, LITRES_GAL = 6.28981077, 0.14503774, 1 / 119.826427, 2_248.08943, 0.26417205
FT_M = 1 / 0.3048


@dataclass(frozen=True)
class ChannelRow:
    """A channel: its title, its quantity, its WITS code, core units per unit of WITS in field and in metric, headers in CSV."""

    title: str
    quantity: Quantity
    code: str
    field: float = 1.0
    metric: float = 1.0
    metric_unit: str = ""
    headers: tuple[str, ...] = ()


def _pressure(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "pressure", code, 1.0, KPA_PSI, "kPa", headers)


def _depth(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "depth", code, 1.0, FT_M, "m", headers)


def _flow(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "flow", code, 1.0, LITRES_GAL, "L/min", headers)


def _rate(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "pump_rate", code, 1.0, M3_BBL / 1_000.0, "L/min", headers)


def _volume(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "volume", code, 1.0, M3_BBL, "m³", headers)


def _density(title: str, code: str, *headers: str) -> ChannelRow:
    return ChannelRow(title, "emw", code, 1.0, KG_M3_PPG, "kg/m³", headers)


ROWS: dict[Channel, ChannelRow] = {
    "hole_md_ft": _depth("Hole depth", "0110", "hole depth", "depth", "dmea", "total depth"),
    "bit_md_ft": _depth("Bit depth", "0108", "bit depth", "dbtm", "bit"),
    "hook_lbf": ChannelRow(
        "Hook load", "force", "0114", 1_000.0, KDAN_LBF, "kdaN", ("hook load", "hookload", "hkla", "hook")
    ),
    "pump_psi": _pressure("Pump pressure", "0121", "pump pressure", "standpipe", "spp", "sppa"),
    "casing_psi": _pressure("Casing pressure", "0122", "casing pressure", "chkp", "choke"),
    "flow_in_gpm": _flow("Flow in", "0130", "flow in", "mfia", "pump rate"),
    "flow_out_gpm": _flow("Flow out", "0129", "flow out", "mfoa"),
    "flow_out_percent": ChannelRow(
        "Flow out, paddle", "percent", "0128", 1.0, 1.0, "%", ("flow out percent", "flow paddle", "mfop")
    ),
    "pit_bbl": _volume("Pit volume", "0126", "pit volume", "active volume", "tva", "pits"),
    "mud_in_ppg": _density("Mud weight in", "0132", "mud weight in", "mdia", "mud weight"),
    "activity": ChannelRow("Activity", "count", "0107", 1.0, 1.0, "", ("activity", "actc", "activity code")),
    "cement_psi": _pressure("Cement pump", "1810", "cement pressure", "cement pump"),
    "cement_in_bpm": _rate("Cement rate in", "1813", "cement rate", "cement in"),
    "cement_out_bpm": _rate("Cement rate out", "1814", "cement returns", "cement out"),
    "cement_bbl": _volume("Cement pumped", "1826", "cement volume", "cement pumped"),
    "cement_ppg": _density("Cement density", "1816", "cement density", "slurry density"),
}
DATE, TIME = "0105", "0106"
TIMES = ("time", "date and time", "timestamp", "datetime", "at")
"""Headers of the rig's clock in CSV."""


@dataclass(frozen=True)
class Reading:
    """What the rig read at a second of its clock, counted from 1970 as if that clock were UTC."""

    at_s: int
    values: dict[Channel, float]


def to_core(channel: Channel, value: float, metric: bool) -> float:
    """A value of WITS level 0 in the core's unit, from its field or its metric units."""
    row = ROWS[channel]
    return value * (row.metric if metric else row.field)


def reading_of(
    items: Mapping[str, str], codes: Mapping[str, Channel], metric: bool, now_s: int, clock: bool = True
) -> Reading | None:
    """A record as a reading, by the codes of its channels; None where it has none of them."""
    values: dict[Channel, float] = {}
    for code, text in items.items():
        channel = codes.get(code)
        value = number(text) if channel is not None else None
        if channel is not None and value is not None:
            values[channel] = to_core(channel, value, metric)
    if not values:
        return None
    at = clock_s(items.get(DATE, ""), items.get(TIME, "")) if clock else None
    return Reading(now_s if at is None else at, values)


def clock_s(date: str, time: str) -> int | None:
    """Seconds of the rig's clock by its date (YYMMDD) and time (HHMMSS); None where they are no time."""
    try:
        at = datetime.strptime(f"{date.strip().zfill(6)} {time.strip().zfill(6)}", "%y%m%d %H%M%S")
    except ValueError:
        return None
    return int(at.replace(tzinfo=UTC).timestamp())


def seconds_of(text: str) -> int | None:
    """A second of the rig's clock from how the log writes times; None where it is none."""
    try:
        at = datetime.strptime(text, "%Y-%m-%d %H:%M")
    except ValueError:
        return None
    return int(at.replace(tzinfo=UTC).timestamp())


def moment(at_s: int) -> str:
    """A second of the rig's clock as the log writes it."""
    return datetime.fromtimestamp(at_s, UTC).strftime("%Y-%m-%d %H:%M")


STANDARD_CODES: dict[str, Channel] = {row.code: channel for channel, row in ROWS.items()}
