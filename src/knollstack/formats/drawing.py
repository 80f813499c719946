"""The well section drawn on a PDF canvas: zones, strings, cement and shoes to a common depth scale."""

from __future__ import annotations

from collections.abc import Callable

from reportlab.lib import colors
from reportlab.pdfgen.canvas import Canvas

from knollstack.core.base.units import UnitSet, shown
from knollstack.core.evaluation.results import Evaluation, StringResult

INK, MUTE, RULE = colors.HexColor("#16211E"), colors.HexColor("#5A6964"), colors.HexColor("#CDD5CF")
ROCKS = {
    "gravel": "#E4D9C8",
    "sand": "#F2E9CC",
    "clay": "#DCE3DF",
    "shale": "#DDE1DE",
    "limestone": "#D9E4EC",
    "dolomite": "#DDDDEA",
    "salt": "#EBDDE4",
    "marl": "#E0E6D4",
    "coal": "#C9C9C4",
    "basement": "#E3D3CC",
}
CEMENT = colors.HexColor("#B9B9B0")
Scale = Callable[[float], float]
AXIS_WIDTH, ZONE_LABEL_WIDTH = 38.0, 62.0


def draw_section(
    canvas: Canvas, evaluation: Evaluation, units: UnitSet, x: float, y: float, width: float, height: float
) -> None:
    """Draw the section into a box whose lower left corner is (x, y)."""
    total = evaluation.basis.total_md_ft

    def at(md_ft: float) -> float:
        return y + height - height * md_ft / total

    left = x + AXIS_WIDTH
    right = x + width
    for zone in evaluation.ground.zones:
        canvas.setFillColor(colors.HexColor(ROCKS.get(zone.rock, "#E5E5E0")))
        canvas.rect(left, at(zone.base_md_ft), right - left, at(zone.top_md_ft) - at(zone.base_md_ft), stroke=0, fill=1)
    _labels(canvas, evaluation, at, right)
    _axis(canvas, units, total, at, left)
    centre, scale = widths(evaluation, x, width)
    for string in evaluation.strings:
        _string(canvas, string, at, centre, scale)
    for string in evaluation.strings:
        if string.od_in is not None:
            canvas.setFillColor(INK)
            canvas.setFont("Helvetica-Bold", 6)
            half = string.od_in / 2 * scale
            canvas.drawString(centre + half + 5, at(string.shoe_md_ft) + 2, shown(string.od_in, "size", units))


def widths(evaluation: Evaluation, x: float, width: float) -> tuple[float, float]:
    """Middle of the well in a box, and points of half a width for an inch of diameter."""
    room = width - AXIS_WIDTH - ZONE_LABEL_WIDTH
    widest = max((s.bit_in or s.od_in or 0 for s in evaluation.strings), default=0) or 1
    return x + AXIS_WIDTH + room / 2, room / 2 * 0.9 / widest


def _labels(canvas: Canvas, evaluation: Evaluation, at: Scale, right: float) -> None:
    canvas.setFillColor(MUTE)
    canvas.setFont("Helvetica", 5.8)
    last = float("inf")
    for zone in evaluation.ground.zones:
        middle = (at(zone.top_md_ft) + at(zone.base_md_ft)) / 2 - 2
        if last - middle < 6.5:
            continue
        name = zone.name if len(zone.name) <= 18 else zone.name[:17] + "…"
        canvas.drawRightString(right - 3, middle, name)
        last = middle


def _axis(canvas: Canvas, units: UnitSet, total: float, at: Scale, left: float) -> None:
    step = 1_000.0 if units.of("depth").unit == "ft" else 1_000.0 / 0.3048 / 4
    while total / step > 14:
        step *= 2
    canvas.setFont("Helvetica", 6)
    canvas.setStrokeColor(RULE)
    depth = 0.0
    while depth <= total:
        canvas.setFillColor(MUTE)
        canvas.drawRightString(left - 5, at(depth) - 2, shown(depth, "depth", units))
        canvas.line(left - 3, at(depth), left, at(depth))
        depth += step


def _string(canvas: Canvas, string: StringResult, at: Scale, centre: float, scale: float) -> None:
    top, shoe = at(string.top_md_ft), at(string.shoe_md_ft)
    if string.bit_in is not None:
        half = string.bit_in / 2 * scale
        canvas.setFillColor(colors.white)
        open_top = at(string.previous_shoe_md_ft)
        canvas.rect(centre - half, shoe, 2 * half, open_top - shoe, stroke=0, fill=1)
    if string.od_in is None:
        return
    half = string.od_in / 2 * scale
    if string.cement_top_md_ft is not None and string.bit_in is not None:
        canvas.setFillColor(CEMENT)
        outer = string.bit_in / 2 * scale
        cement_top = at(string.cement_top_md_ft)
        for side in (-1, 1):
            canvas.rect(centre + side * half, shoe, side * (outer - half), cement_top - shoe, stroke=0, fill=1)
    canvas.setFillColor(colors.white)
    canvas.rect(centre - half, shoe, 2 * half, top - shoe, stroke=0, fill=1)
    canvas.setStrokeColor(INK)
    canvas.setFillColor(INK)
    canvas.setLineWidth(1.1)
    for side in (-1, 1):
        canvas.line(centre + side * half, top, centre + side * half, shoe)
        shape = canvas.beginPath()
        shape.moveTo(centre + side * half, shoe + 5)
        shape.lineTo(centre + side * half, shoe)
        shape.lineTo(centre + side * (half + 4), shoe)
        shape.close()
        canvas.drawPath(shape, stroke=0, fill=1)
