"""A string's tally on paper: as CSV for the pipe rack, and as pages for the rig floor."""

from __future__ import annotations

import csv
import io

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import UnitSet, fraction
from knollstack.core.evaluation.results import StringResult
from knollstack.core.running.results import RunningRow
from knollstack.core.running.results_detail import JointRow, TallyDetail
from knollstack.formats.defused import defused
from knollstack.formats.sheet_layout import Heading, list_pages

RACK: tuple[tuple[str, Quantity | None], ...] = (
    ("No.", None),
    ("Measured length", "length"),
    ("Adds", "length"),
    ("Running total", "length"),
    ("Section", None),
    ("Kind", None),
    ("Carries", None),
    ("Centralizers", None),
    ("Bottom lands at", "depth"),
    ("Top lands at", "depth"),
    ("Maximum speed", "trip_speed"),
    ("Fill after", None),
)
FLOOR: tuple[tuple[str, Quantity | None], ...] = (
    ("Joint", None),
    ("Measured", "length"),
    ("Connection", None),
    ("Make-up torque", "torque"),
    ("Carries", None),
    ("Fill with", "volume"),
    ("Shoe then at", "depth"),
    ("No faster than", "trip_speed"),
    ("Done", None),
)
FLOOR_CAUTIONS = (
    "<b>Before the first joint</b>",
    "Drift and count every joint; two people check the tally. Float equipment by maker, size and thread; thread-lock the shoe "
    "track. Elevators, spider and tongs by size and rating. Nobody under the load or within the swing of the tongs.",
    "<b>While running</b>",
    "Fill at the joints marked, and watch the returns: they tell what the string displaces. No faster than the plan says at "
    "each depth. Keep the string moving across permeable rock. A preventer that closes on this casing, and a safety valve with "
    "its crossover, stand ready.",
)


def _head(columns: tuple[tuple[str, Quantity | None], ...], units: UnitSet) -> list[str]:
    return [f"{title} ({units.of(quantity).unit})" if quantity else title for title, quantity in columns]


def _number(value: float | None, quantity: Quantity, units: UnitSet) -> str:
    if value is None:
        return ""
    unit = units.of(quantity)
    return f"{value * unit.factor + unit.offset:.{unit.decimals}f}"


def write_rack(run: TallyDetail, units: UnitSet) -> str:
    """The tally as CSV, one row a joint in the order in which they go in."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(_head(RACK, units))
    for joint in run.joints:
        lengths = (_number(v, "length", units) for v in (joint.length_ft, joint.effective_ft, joint.total_ft))
        depths = (_number(v, "length", units) for v in (joint.bottom_md_ft, joint.top_md_ft))
        carries = defused(", ".join(joint.carries))
        fill = "yes" if joint.fill else ""
        writer.writerow(
            [
                joint.number,
                *lengths,
                joint.section,
                joint.kind,
                carries,
                joint.centralizers or "",
                *depths,
                _number(joint.speed_ft_min, "trip_speed", units),
                fill,
            ]
        )
    return text.getvalue()


def _carried(joint: JointRow) -> str:
    parts: list[str] = [] if joint.kind == "joint" else [joint.kind]
    parts += joint.carries
    if joint.centralizers:
        parts.append(f"{joint.centralizers} centralizers" if joint.centralizers > 1 else "centralizer")
    return ", ".join(parts)


def write_floor(
    name: str, string: StringResult, row: RunningRow, run: TallyDetail, units: UnitSet, revision: str, saved: str
) -> bytes:
    """The pages for the rig floor as PDF: every joint with what it carries, its torque, its fill, and a box to sign."""
    rows = [_head(FLOOR, units)]
    for joint in run.joints:
        rows.append(
            [
                str(joint.number),
                _number(joint.length_ft, "length", units),
                joint.connection,
                _number(joint.torque_ft_lbf, "torque", units),
                _carried(joint),
                _number(joint.fill_bbl, "volume", units),
                _number(joint.shoe_md_ft, "depth", units),
                _number(joint.speed_ft_min, "trip_speed", units),
                "",
            ]
        )
    size = "casing" if string.od_in is None else f"{fraction(string.od_in)} in {string.role} casing"
    heading = Heading(
        name=name,
        basis=f"Running list · {size} · {row.joints} joints, {row.spares} spare",
        revision=revision,
        saved=saved,
    )
    share = [0.5, 0.8, 0.9, 1.2, 2.6, 0.8, 1.0, 1.3, 0.6]
    return list_pages(heading, rows, share, FLOOR_CAUTIONS)
