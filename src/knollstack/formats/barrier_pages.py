"""One page for each state of the well: both envelopes on the section, their elements with verification, and room to sign."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from reportlab.lib import colors
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import BaseDocTemplate, Flowable, NextPageTemplate, PageBreak, PageTemplate, Spacer

from knollstack.core.base.units import UnitSet, plain, shown
from knollstack.core.completion.results import ElementRow, EnvelopeRow, StateRow
from knollstack.core.evaluation.results import Evaluation
from knollstack.formats.drawing import AXIS_WIDTH, ZONE_LABEL_WIDTH, draw_section, widths
from knollstack.formats.sheet_layout import (
    FOOT,
    GAP,
    HEAD,
    MARGIN,
    PAGE,
    SECTION_WIDTH,
    Heading,
    frame_of_page,
    line_of,
    plain_frame,
    printed,
    table_of,
)

ENVELOPES = {"primary": colors.HexColor("#0B6E69"), "secondary": colors.HexColor("#8A4F9E")}
SHARE = [0.35, 2.6, 1.1, 2.4, 2.2, 1.5]
APART, ROUND = 11.0, 5.0
ALLOWED = {"allowed": "", "forbidden": ": NOT ALLOWED", "unknown": ": NOT KNOWN WHETHER ENOUGH"}
FAILS = colors.HexColor("#F4D9D4")


def as_then(evaluation: Evaluation, state: StateRow) -> Evaluation:
    """The strings that stand in a state, and its hole without its string where that is not run."""
    strings = [s for i, s in enumerate(evaluation.strings) if i <= max(state.string, state.cased - 1)]
    held = [
        s if i < state.cased else s.model_copy(update={"od_in": None, "cement_top_md_ft": None, "run": "cased"})
        for i, s in enumerate(strings)
    ]
    return evaluation.model_copy(update={"strings": tuple(held)})


def numbered(state: StateRow) -> list[tuple[int, EnvelopeRow, ElementRow]]:
    """Elements by the numbers that stand in the drawing and in the tables."""
    pairs = [(envelope, e) for envelope in state.envelopes for e in envelope.elements]
    return [(n, *pair) for n, pair in enumerate(pairs, start=1)]


def _rows(state: StateRow, name: str, units: UnitSet) -> list[list[str]]:
    rows = [["", "Element", "Stands", "Verified by", "Record", "Checked: name, date"]]
    for number, envelope, e in numbered(state):
        if envelope.name != name:
            continue
        psi = f", {shown(e.pressure_psi, 'pressure', units)}" if e.pressure_psi is not None else ""
        why = f"{e.stands}: {plain(e.why, units)}" if e.why else e.stands
        record = plain(e.said, units) if e.said else "to be verified"
        rows.append([str(number), plain(e.title, units), why, f"{e.verify}{psi}", record, ""])
    if len(rows) == 1:
        rows.append(["", "none", "", "", "", ""])
    return rows


def _lines(state: StateRow, units: UnitSet) -> list[str]:
    count = f"{state.count} of {state.needed} barriers stand by plan, {state.verified} verified so far"
    lead = f"<b>{plain(state.title, units)}</b>"
    removal = f"Entered by: {plain(state.removal, units)}. " if state.removal else ""
    lines = [lead, f"{removal}{count}{ALLOWED[state.allowed]}. {state.note}".strip()]
    if state.shared:
        lines.append(f"In both envelopes, at different depths: {', '.join(plain(t, units) for t in state.shared)}.")
    return lines


def _story(state: StateRow, width: float, units: UnitSet) -> list[Flowable]:
    story: list[Flowable] = [line_of(line) for line in _lines(state, units)]
    for envelope in state.envelopes:
        story += [Spacer(1, 5), line_of(f"<b>{envelope.name.capitalize()} envelope: {envelope.stands}</b>")]
        story.append(table_of(_rows(state, envelope.name, units), width, SHARE))
    last = "An element counts once it is verified. Name and date of who checked it stand beside it before anything is removed."
    return [*story, Spacer(1, 5), line_of(last)]


@dataclass(frozen=True)
class Box:
    """Where the section stands on the page."""

    x: float
    y: float
    width: float
    height: float
    total_md_ft: float

    def at(self, md_ft: float) -> float:
        return self.y + self.height - self.height * md_ft / self.total_md_ft


def _highlight(canvas: Canvas, evaluation: Evaluation, e: ElementRow, name: str, box: Box) -> None:
    """An element where it is: a fluid in the bore, a wall, cement around it, a plug across."""
    centre, scale = widths(evaluation, box.x, box.width)
    strings = evaluation.strings
    string = strings[min(e.string, len(strings) - 1)] if e.string is not None else strings[-1]
    pipe = (string.od_in or string.bit_in or 0.0) / 2 * scale
    hole = max((string.bit_in or 0.0) / 2 * scale, pipe + 1)
    if string.od_in is None:  # the hole is open: what stands in casing stands in the one above
        pipe = min([(s.od_in or 0.0) / 2 * scale for s in strings if s.od_in is not None] or [pipe])
    if e.string is None and e.where == "wall":  # the tubing inside of it
        pipe *= 0.5
    top, foot = box.at(e.from_md_ft), box.at(e.to_md_ft)
    canvas.setFillColor(ENVELOPES[name], 0.45)
    canvas.setStrokeColor(ENVELOPES[name])
    if e.where in ("bore", "hole"):
        half = hole if e.where == "hole" else pipe * (0.75 if name == "primary" else 0.45)
        canvas.rect(centre - half, foot, 2 * half, max(top - foot, 2.0), stroke=0, fill=1)
    for side in (-1, 1):
        if e.where == "wall":
            canvas.setLineWidth(2.4)
            canvas.line(centre + side * pipe, top, centre + side * pipe, foot)
        elif e.where == "annulus":
            canvas.rect(centre + side * pipe, foot, side * (hole - pipe), max(top - foot, 2.0), stroke=0, fill=1)
    canvas.setFillAlpha(1)


def _marks(canvas: Canvas, state: StateRow, evaluation: Evaluation, box: Box) -> None:
    """Numbers of the primary envelope left of the well, of the secondary one right of it, each led to its depth."""
    centre = widths(evaluation, box.x, box.width)[0]
    ends = box.x + AXIS_WIDTH + ROUND + 1, box.x + box.width - ZONE_LABEL_WIDTH - ROUND - 1
    for _, envelope, e in numbered(state):
        _highlight(canvas, evaluation, e, envelope.name, box)
    for name, x in zip(("primary", "secondary"), ends, strict=True):
        own = [(n, e) for n, envelope, e in numbered(state) if envelope.name == name]
        placed = sorted(((box.at((e.from_md_ft + e.to_md_ft) / 2), n, e) for n, e in own), key=lambda p: -p[0])
        y_before = float("inf")
        canvas.setStrokeColor(ENVELOPES[name])
        canvas.setLineWidth(0.7)
        for at, number, e in placed:
            y = min(at, y_before - APART)
            y_before = y
            canvas.line(x, y, centre, at)
            canvas.setFillColor(colors.white if e.stands == "stands" else FAILS)
            canvas.circle(x, y, ROUND, stroke=1, fill=1)
            canvas.setFillColor(ENVELOPES[name])
            canvas.setFont("Helvetica-Bold", 6)
            canvas.drawCentredString(x, y - 2, str(number))


def write_barriers(
    name: str, evaluation: Evaluation, states: list[StateRow], units: UnitSet, revision: str, saved: str
) -> bytes:
    """The pages as PDF."""
    height = PAGE[1] - 2 * MARGIN - HEAD - FOOT
    beside, x = PAGE[0] - 2 * MARGIN - SECTION_WIDTH - GAP, MARGIN + SECTION_WIDTH + GAP
    heading = Heading(name=name, basis="Well barriers, state by state", revision=revision, saved=saved)

    def drawn(state: StateRow) -> Any:
        def page(canvas: Any, doc: BaseDocTemplate) -> None:
            frame_of_page(canvas, heading, doc.page)
            words = f"Section of the well with the envelopes of: {plain(state.title, units)}"
            with canvas.marked(canvas.tree.child("Figure", words)):
                then = as_then(evaluation, state)
                box = Box(MARGIN, MARGIN + FOOT, SECTION_WIDTH, height - 14, evaluation.basis.total_md_ft)
                draw_section(canvas, then, units, box.x, box.y, box.width, box.height)
                _marks(canvas, state, then, box)

        return page

    templates = [
        PageTemplate(f"s{n}", [plain_frame(x, beside, height)], onPage=drawn(state)) for n, state in enumerate(states)
    ]
    story: list[Flowable] = []
    for n, state in enumerate(states):
        story += [NextPageTemplate(f"s{n}"), *([PageBreak()] if n else []), *_story(state, beside, units)]
    return printed(story, templates, f"{name}: well barriers", f"{revision}; {saved}")
