"""The run sheet on paper: as CSV, and as pages for the rig with room to sign."""

from __future__ import annotations

import csv
import io

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.runsheet.results import LineRow, RunsheetResult, SheetDetail
from knollstack.formats.defused import defused
from knollstack.formats.sheet_layout import Heading, Titled, table_pages

COLUMNS = (
    "No.",
    "Section",
    "Kind",
    "Step",
    "Caution",
    "Why here",
    "Signed by",
    "Hold-point",
    "Rig time (h)",
    "Beside",
    "Day",
    "Date",
    "Slack (h)",
    "Stopped by",
    "Order rules",
    "Note",
    "Done",
    "Key",
)
SHARE = [0.45, 5.6, 3.0, 1.5, 0.65, 1.0, 1.6]
LEAD = (
    "Each step is signed before the next begins where it is a hold-point. Nothing that closes the well in is taken off before "
    "its barriers are counted and verified. Times are planned, without lost time; days count from the spud.",
)


def words_of(line: LineRow, units: UnitSet) -> str:
    """A step as it is read, with what the person did to it."""
    text = plain(line.text, units)
    return f"NOT DONE: {text}" if line.crossed else text


def section_of(line: LineRow, units: UnitSet) -> str:
    """Of which string a step is; the end of the well has none."""
    if line.key.startswith("site/"):
        return "before the spud"
    return plain(line.section, units) or "end of the well"


def write_run_sheet_csv(detail: SheetDetail, units: UnitSet) -> str:
    """Every step in order, one a row, in a person's units."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    writer.writerows(_cells(line, units) for line in detail.lines)
    return out.getvalue()


def _number(value: float | None, decimals: int) -> str:
    return "" if value is None else f"{value:.{decimals}f}"


def _cells(line: LineRow, units: UnitSet) -> list[str]:
    return [
        str(line.number),
        defused(section_of(line, units)),
        line.kind,
        defused(words_of(line, units)),
        defused(plain(line.caution, units)),
        line.why,
        defused(line.signs),
        "hold-point" if line.hold else "",
        "unknown" if line.hours is None else _number(line.hours, 2),
        "beside the rig" if line.beside else "",
        _number(line.begins, 2),
        line.date,
        _number(line.slack_hours, 1),
        defused(plain(line.held, units)),
        " ".join(line.broken),
        defused(line.note),
        f"done{f' ({line.done_by})' if line.done_by else ''}" if line.done else "",
        defused(line.key),
    ]


def _paper(line: LineRow, units: UnitSet) -> list[str]:
    caution = plain(line.caution, units)
    held = f"STOP: {plain(line.held, units)}. " if line.held else ""
    broken = f"BREAKS: {' '.join(line.broken)} " if line.broken else ""
    note = f" Note: {line.note}" if line.note else ""
    hours = "?" if line.hours is None else f"{line.hours:.1f}" if line.hours else ""
    when = line.date or (_number(line.begins, 1))
    signs = f"{line.signs}{' · HOLD' if line.hold else ''}"
    done = f"done {line.done_by}".strip() if line.done else ""
    return [str(line.number), words_of(line, units), f"{held}{broken}{caution}{note}", signs, hours, when, done]


def _open_ends(result: RunsheetResult, stops: int) -> tuple[str, ...]:
    """What stands against working by this sheet: nothing where there is none."""
    told = (
        (stops, "stop in the design", "stops in the design"),
        (result.held, "step that may not be done", "steps that may not be done"),
        (result.broken, "step against an order rule", "steps against an order rule"),
    )
    found = [f"{count} {one if count == 1 else many}" for count, one, many in told if count]
    return (f"Not fit to work by yet: {', '.join(found)}.",) if found else ()


def write_run_sheet(
    name: str, detail: SheetDetail, result: RunsheetResult, stops: int, units: UnitSet, revision: str, saved: str
) -> bytes:
    """The pages as PDF: a table a section, each with what it is signed by; `stops` of the whole design stand first."""
    tables: list[Titled] = []
    titles: list[str] = []
    for line in detail.lines:
        title = section_of(line, units)
        if not titles or titles[-1] != title:
            titles.append(title)
            head = ["", "Step", "Caution", "Signed by", "h", "Date" if line.date else "Day", "Signature"]
            tables.append((title[:1].upper() + title[1:], [head], SHARE))
        tables[-1][1].append(_paper(line, units))
    days = result.days
    told = ""
    if days is not None:
        least = "at least " if result.unknown else ""
        told = f"{least}{days.expected:.1f} days from the spud, {days.low:.1f} to {days.high:.1f} (P10 to P90)"
    heading = Heading(name=name, basis=f"Run sheet · {result.steps} steps · {told}", revision=revision, saved=saved)
    return table_pages(heading, (*_open_ends(result, stops), *LEAD), tables, (), dense=True)
