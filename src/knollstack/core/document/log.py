"""The log of a well: what happened, entry by entry, never changed; a correction is a new entry that names the old.

Times are those of the rig's clock. An entry has the fields of its kind (`KINDS`) and no others.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.fields import (
    Depth,
    Emw,
    LinearWeight,
    Moment,
    Name,
    Of,
    Part,
    Pressure,
    Size,
    Volume,
    listed,
    told,
)
from knollstack.core.base.fields import number as within
from knollstack.core.document.running import TallyJoint

MOST_ENTRIES = 5_000
MOST_POINTS = 500
EntryKind = Literal[
    "spud",
    "depth",
    "shoe landed",
    "leak-off test",
    "survey",
    "mud",
    "kick",
    "losses",
    "tally",
    "cement",
    "returns",
    "test",
    "equipment",
    "signed",
    "note",
    "withdrawn",
]
Returns = Literal["full", "partial", "lost"]
EntryNumber = Annotated[int, Field(strict=True, ge=1, le=1_000_000), Of("count")]
TestPressure = Annotated[float, within(0, 20_000), Of("pressure")]


class PumpedPoint(Part):
    """One reading of a leak-off or integrity test: mud pumped so far, and the pressure at the pump."""

    volume_bbl: Annotated[float, within(0, 200), Of("volume")] = told("Volume pumped")
    pressure_psi: TestPressure = told("Pump pressure", help="at the pump, once so much is pumped")


class NewEntry(Part):
    """What happened at a moment, before it is written. What a field is empty of was not recorded."""

    at: Moment = told("Time", help="of the rig's clock: YYYY-MM-DD HH:MM")
    kind: EntryKind = told("Entry", help="what kind of thing happened")
    author: Name = told("Author", "", help="who wrote it")
    corrects: EntryNumber | None = told("Corrects", None, help="number of the entry that this one stands for")
    step: Annotated[str, Field(max_length=120)] = told(
        "Step", "", help="key of the run-sheet step that is signed with it"
    )
    string: Annotated[str, Field(max_length=40)] = told("String", "", help="id of the string that it is about")
    md_ft: Depth | None = told("Depth", None, help="MD; of a shoe where it stands, else how deep the hole is")
    hours: Annotated[float, within(0, 5_000), Of("hours")] | None = told("Time spent", None, help="of the rig")
    bit_in: Size | None = told("Hole size", None, help="as drilled")
    od_in: Size | None = told("Casing size", None, help="as run")
    hanger_md_ft: Depth | None = told("Liner top", None, help="where a liner hangs")
    weight_ppf: LinearWeight | None = told("Weight", None, help="of the pipe as run, with grade and connection")
    grade: Name = told("Grade", "", help="of the pipe as run")
    connection: Name = told("Connection", "", help="of the pipe as run")
    mud_ppg: Emw | None = told("Mud weight", None, help="in the hole")
    emw_ppg: Emw | None = told("EMW", None, help="of a test where it is known; of losses at which they began")
    test: Literal["leak-off", "integrity"] | None = told(
        "Test", None, help="empty follows the points: a leak-off where they break from the line"
    )
    leak_off_psi: TestPressure | None = told(
        "Pressure at the break", None, help="at the pump; empty is found from the points"
    )
    points: tuple[PumpedPoint, ...] = listed("Points", MOST_POINTS, help="volume pumped and pressure")
    inclination_deg: Annotated[float, within(0, 180), Of("angle")] | None = told("Inclination", None)
    azimuth_deg: Annotated[float, within(0, 360), Of("angle")] | None = told("Azimuth", None)
    volume_bbl: Volume | None = told("Volume", None, help="gained in a kick, lost in losses")
    drill_pipe_psi: Pressure | None = told(
        "Shut-in drill pipe pressure", None, help="SIDPP: with the mud in the pipe it weighs the formation"
    )
    casing_psi: Pressure | None = told("Shut-in casing pressure", None, help="SICP: with the kick in the annulus")
    joints: tuple[TallyJoint, ...] = listed("Tally as run", 1_500, help="from the shoe up")
    spacer_bbl: Volume | None = told("Spacer pumped", None, help="ahead of the slurry")
    lead_bbl: Volume | None = told("Lead pumped", None, help="slurry of the lead, as pumped")
    lead_ppg: Emw | None = told("Lead density", None, help="as mixed")
    tail_bbl: Volume | None = told("Tail pumped", None, help="slurry of the tail, as pumped")
    tail_ppg: Emw | None = told("Tail density", None, help="as mixed")
    displacement_bbl: Volume | None = told("Displacement pumped", None, help="behind the top plug")
    top_md_ft: Depth | None = told("Top of cement", None, help="as found by a log, or seen at surface")
    bumped: StrictBool | None = told("Plug bumped", None, help="pressure rose when the top plug landed")
    returns: Returns | None = told("Returns", None, help="of what was pumped")
    pressure_psi: Pressure | None = told(
        "Test pressure", None, help="at the wellhead; on the sea floor where that stands there"
    )
    minutes: Annotated[float, within(0, 1_440), Of("minutes")] | None = told(
        "Held for", None, help="time under pressure"
    )
    passed: StrictBool | None = told("Held", None, help="the test was good")
    element: Annotated[str, Field(max_length=80)] = told(
        "Barrier element", "", help="key of the barrier element that was tested, as the list of barriers has it"
    )
    text: Annotated[str, Field(max_length=2_000)] = told("Remarks", "", help="as it is to be remembered")


class LogEntry(NewEntry):
    """An entry as it stands in the log."""

    number: EntryNumber = told("Number", help="given when it is written")
    logged_at: Name = told("Written at", "", help="UTC, when it was written")


COMMON = frozenset({"number", "at", "kind", "author", "logged_at", "corrects", "step", "hours", "text"})
"""What an entry of any kind may have."""


@dataclass(frozen=True)
class KindOfEntry:
    """What an entry of a kind says: `needs` must be there, `may` can be."""

    title: str
    needs: tuple[str, ...] = ()
    may: tuple[str, ...] = ()

    @property
    def keys(self) -> tuple[str, ...]:
        return (*self.needs, *self.may)


_PIPE = ("weight_ppf", "grade", "connection")
_PUMPED = ("spacer_bbl", "lead_bbl", "lead_ppg", "tail_bbl", "tail_ppg", "displacement_bbl")
KINDS: dict[EntryKind, KindOfEntry] = {
    "spud": KindOfEntry("Spud"),
    "depth": KindOfEntry("Depth and hours", ("md_ft",), ("mud_ppg", "returns")),
    "shoe landed": KindOfEntry("Shoe landed", ("string", "md_ft"), ("bit_in", "od_in", "hanger_md_ft", *_PIPE)),
    "leak-off test": KindOfEntry(
        "Leak-off or integrity test", ("string", "mud_ppg"), ("md_ft", "test", "leak_off_psi", "emw_ppg", "points")
    ),
    "survey": KindOfEntry("Survey", ("md_ft", "inclination_deg", "azimuth_deg")),
    "mud": KindOfEntry("Mud weight", ("md_ft", "mud_ppg")),
    "kick": KindOfEntry("Kick", ("md_ft", "mud_ppg"), ("volume_bbl", "drill_pipe_psi", "casing_psi")),
    "losses": KindOfEntry("Losses", ("md_ft",), ("emw_ppg", "mud_ppg", "volume_bbl", "returns")),
    "tally": KindOfEntry("Tally as run", ("string", "joints")),
    "cement": KindOfEntry("Cement pumped", ("string",), (*_PUMPED, "top_md_ft", "bumped", "returns")),
    "returns": KindOfEntry("Returns", ("returns",), ("string", "md_ft")),
    "test": KindOfEntry("Pressure test", ("pressure_psi", "passed"), ("string", "minutes", "element")),
    "equipment": KindOfEntry("Equipment", ("text",), ("string",)),
    "signed": KindOfEntry("Step signed", ("step",)),
    "note": KindOfEntry("Note", ("text",)),
    "withdrawn": KindOfEntry("Entry withdrawn", ("corrects",)),
}
EMPTY: tuple[object, ...] = (None, "", ())


def in_force(log: tuple[LogEntry, ...]) -> tuple[LogEntry, ...]:
    """The entries that count, in order of time: none that another corrects, and no withdrawal."""
    corrected = {e.corrects for e in log} - {None}
    held = (e for e in log if e.number not in corrected and e.kind != "withdrawn")
    return tuple(sorted(held, key=lambda e: (e.at, e.number)))
