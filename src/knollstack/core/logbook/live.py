"""What of a rig live departs from the plan, in words: each watch is an object with its name, when it looks, and what it looks at.

A watch whose channels do not come says so: what is not watched is not well.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import median
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from knollstack.core.base.fields import Of, number
from knollstack.core.base.findings import Result, Words
from knollstack.core.logbook.channels import Channel, Doing

Figure = Annotated[float, Field(allow_inf_nan=False)]
Row = Annotated[list[Figure], Field(max_length=20_000)]
MOST_SPANS = 2_000
RECENT = 3


class LiveSpan(BaseModel):
    """A span of the rig's clock: each channel as least, last and most."""

    begins_s: Annotated[int, Field(ge=0, le=10**11)]
    span_s: Annotated[int, Field(ge=1, le=10**8)]
    values: dict[Channel, tuple[Figure, Figure, Figure]]


class Limits(BaseModel):
    """Beyond these a departure is told."""

    pit_gain_bbl: Annotated[float, number(0.1, 1_000), Of("volume")] = 5.0
    pit_loss_bbl: Annotated[float, number(0.1, 1_000), Of("volume")] = 10.0
    flow_percent: Annotated[float, number(0.5, 100), Of("percent")] = 10.0
    window_minutes: Annotated[float, number(1, 240), Of("minutes")] = 15.0
    hook_percent: Annotated[float, number(1, 100), Of("percent")] = 15.0
    pump_percent: Annotated[float, number(1, 200), Of("percent")] = 20.0
    pump_psi: Annotated[float, number(10, 5_000), Of("pressure")] = 250.0
    past_plug_bbl: Annotated[float, number(0.1, 200), Of("volume")] = 2.0
    returns_percent: Annotated[float, number(1, 100), Of("percent")] = 70.0
    behind_days: Annotated[float, number(0.05, 100), Of("days")] = 0.5


class PlannedHook(BaseModel):
    """Hook load by depth of the shoe, running in and picked up."""

    shoe_md_ft: Row
    in_lbf: Row
    up_lbf: Row
    block_lbf: Figure = 0.0


class PlannedJob(BaseModel):
    """Pump pressure by the volume pumped; the last volume is what bumps the plug."""

    pumped_bbl: Row
    pump_psi: Row
    out_bpm: Row = []
    """What comes back meanwhile; empty is what is pumped."""


class PlannedNow(BaseModel):
    """What the plan has for what the rig is doing; empty is not known."""

    doing: Doing
    begins_s: Annotated[int, Field(ge=0, le=10**11)] | None = None
    """The spud on the rig's clock."""
    day: Row = []
    md_ft: Row = []
    hook: PlannedHook | None = None
    job: PlannedJob | None = None


class Departure(Result):
    severity: Literal["stop", "caution", "unknown", "note"]
    watch: str
    words: Words


@dataclass(frozen=True)
class Now:
    """The spans of the window, newest last, with the plan and the limits."""

    spans: Sequence[LiveSpan]
    planned: PlannedNow
    limits: Limits

    def column(self, channel: Channel) -> list[tuple[float, float, float]]:
        return [s.values[channel] for s in self.spans if channel in s.values]

    def last(self, channel: Channel) -> float | None:
        rows = self.column(channel)
        return rows[-1][1] if rows else None

    def recent(self, channel: Channel, count: int = RECENT) -> float | None:
        """Middle of the last few, so that one odd reading tells nothing."""
        rows = self.column(channel)[-count:]
        return median(row[1] for row in rows) if rows else None


@dataclass(frozen=True)
class Watch:
    """What is looked at while the rig does one of some things, and the channels it takes."""

    name: str
    doing: tuple[Doing, ...]
    needs: tuple[Channel, ...]
    look: Callable[[Now], Iterator[Departure]]
    reason: str


def departures(
    spans: Sequence[LiveSpan], planned: PlannedNow, limits: Limits, watches: Sequence[Watch]
) -> tuple[Departure, ...]:
    """Everything that departs, the worst first; nothing where no span came."""
    if not spans:
        return ()
    end = spans[-1].begins_s + spans[-1].span_s
    window = [s for s in spans if s.begins_s >= end - limits.window_minutes * 60.0]
    now = Now(window, planned, limits)
    found = [d for watch in watches if planned.doing in watch.doing for d in _looked(watch, now)]
    order = ("stop", "caution", "unknown", "note")
    return tuple(sorted(found, key=lambda d: order.index(d.severity)))


def _looked(watch: Watch, now: Now) -> Iterator[Departure]:
    missing = [channel for channel in watch.needs if not now.column(channel)]
    if missing:
        names = " and ".join(TITLES[channel] for channel in missing)
        yield Departure(
            severity="unknown", watch=watch.name, words=(f"The feed brings no {names}: {watch.name} is not watched.",)
        )
        return
    yield from watch.look(now)


TITLES: Mapping[Channel, str] = {
    "hole_md_ft": "hole depth",
    "bit_md_ft": "bit depth",
    "hook_lbf": "hook load",
    "pump_psi": "pump pressure",
    "casing_psi": "casing pressure",
    "flow_in_gpm": "flow in",
    "flow_out_gpm": "flow out",
    "flow_out_percent": "flow out",
    "pit_bbl": "pit volume",
    "mud_in_ppg": "mud weight",
    "activity": "activity",
    "cement_psi": "cement pump pressure",
    "cement_in_bpm": "cement rate",
    "cement_out_bpm": "cement returns",
    "cement_bbl": "volume of cement pumped",
    "cement_ppg": "cement density",
}


def interpolated(xs: Sequence[float], ys: Sequence[float], x: float) -> float | None:
    """A planned value between two of its points; None beyond them."""
    for (x0, y0), (x1, y1) in pairwise(zip(xs, ys, strict=False)):
        if min(x0, x1) <= x <= max(x0, x1):
            return y0 if x1 == x0 else y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return None
