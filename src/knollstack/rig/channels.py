"""What of a feed is read: its channels with their units, where WITS level 0 has them, and what CSV columns call them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import UnitSet
from knollstack.core.logbook.channels import Channel
from knollstack.rig.wits import number


@dataclass(frozen=True)
class ChannelRow:
    """A channel: its title, its quantity, its WITS code, the field unit there over the core's, and its headers in CSV."""

    title: str
    quantity: Quantity
    code: str
    factor: float = 1.0
    headers: tuple[str, ...] = ()


ROWS: dict[Channel, ChannelRow] = {
    "hole_md_ft": ChannelRow("Hole depth", "depth", "0110", headers=("hole depth", "depth", "dmea", "total depth")),
    "bit_md_ft": ChannelRow("Bit depth", "depth", "0108", headers=("bit depth", "dbtm", "bit")),
    "hook_lbf": ChannelRow("Hook load", "force", "0114", 1_000.0, ("hook load", "hookload", "hkla", "hook")),
    "pump_psi": ChannelRow("Pump pressure", "pressure", "0121", headers=("pump pressure", "standpipe", "spp", "sppa")),
    "casing_psi": ChannelRow("Casing pressure", "pressure", "0122", headers=("casing pressure", "chkp", "choke")),
    "flow_in_gpm": ChannelRow("Flow in", "flow", "0130", headers=("flow in", "mfia", "pump rate")),
    "flow_out_gpm": ChannelRow("Flow out", "flow", "0129", headers=("flow out", "mfoa")),
    "flow_out_percent": ChannelRow("Flow out", "percent", "0128", headers=("flow out percent", "flow paddle", "mfop")),
    "pit_bbl": ChannelRow("Pit volume", "volume", "0126", headers=("pit volume", "active volume", "tva", "pits")),
    "mud_in_ppg": ChannelRow("Mud weight in", "emw", "0132", headers=("mud weight in", "mdia", "mud weight")),
    "activity": ChannelRow("Activity", "count", "0107", headers=("activity", "actc", "activity code")),
    "cement_psi": ChannelRow("Cement pump", "pressure", "1810", headers=("cement pressure", "cement pump")),
    "cement_in_bpm": ChannelRow("Cement rate in", "pump_rate", "1813", headers=("cement rate", "cement in")),
    "cement_out_bpm": ChannelRow("Cement rate out", "pump_rate", "1814", headers=("cement returns", "cement out")),
    "cement_bbl": ChannelRow("Cement pumped", "volume", "1826", headers=("cement volume", "cement pumped")),
    "cement_ppg": ChannelRow("Cement density", "emw", "1816", headers=("cement density", "slurry density")),
}
DATE, TIME = "0105", "0106"
TIMES = ("time", "date and time", "timestamp", "datetime", "at")
"""Headers of the rig's clock in CSV."""
METRIC = UnitSet("metric", {})
THOUSANDS = 1_000.0


@dataclass(frozen=True)
class Reading:
    """What the rig read at a second of its clock, counted from 1970 as if that clock were UTC."""

    at_s: int
    values: dict[Channel, float]


def to_core(channel: Channel, value: float, metric: bool) -> float:
    """A value of the feed in the core's unit: field units of WITS (hook load in thousands of lbf), or metric ones."""
    row = ROWS[channel]
    if not metric:
        return value * row.factor
    if channel == "hook_lbf":
        return value * THOUSANDS / 0.45359237  # tonnes
    unit = METRIC.of(row.quantity)
    return (value - unit.offset) / unit.factor


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
