"""The program sheet: one landscape A4 page of a design and its evaluation, as PDF."""

from __future__ import annotations

from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Table, TableStyle

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import UnitSet, plain, shown
from knollstack.core.document.design import Design
from knollstack.core.evaluation.results import Evaluation
from knollstack.formats.drawing import draw_section

INK, MUTE, RULE = colors.HexColor("#16211E"), colors.HexColor("#5A6964"), colors.HexColor("#CDD5CF")
PAGE = landscape(A4)
MARGIN = 28.0
SECTION_WIDTH = 205.0
CAUTION = (
    "These results are a planning aid. They need checking by a competent and, where required, licensed engineer; "
    "local rules prevail. What is unknown or assumed is marked as such."
)
SMALL = ParagraphStyle("small", fontName="Helvetica", fontSize=7.4, leading=9.2, textColor=INK)
GRID = TableStyle(
    [
        ("FONT", (0, 0), (-1, -1), "Helvetica", 7.4),
        ("FONT", (0, 0), (-1, 0), "Helvetica-Bold", 7.4),
        ("TEXTCOLOR", (0, 0), (-1, 0), MUTE),
        ("TEXTCOLOR", (0, 1), (-1, -1), INK),
        ("LINEBELOW", (0, 0), (-1, -1), 0.4, RULE),
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LEFTPADDING", (0, 0), (-1, -1), 2),
        ("RIGHTPADDING", (0, 0), (-1, -1), 4),
        ("TOPPADDING", (0, 0), (-1, -1), 2),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 2.5),
    ]
)


class _Sheet:
    """Rows of text from an evaluation, in the units of a person."""

    def __init__(self, evaluation: Evaluation, units: UnitSet) -> None:
        self.evaluation, self.units = evaluation, units

    def show(self, value: float | None, quantity: Quantity) -> str:
        return "unknown" if value is None else shown(value, quantity, self.units)

    def strings(self) -> list[list[str]]:
        rows = [["String", "Hole", "Casing", "Top", "Shoe", "Mud", "Pipe", "Burst", "Collapse", "Tension", "Triaxial"]]
        for i, s in enumerate(self.evaluation.strings):
            pipe = self.evaluation.pipe.strings[i]
            factors = {load.kind: f"{load.factor:.2f}" for load in pipe.loads}
            missing = "not judged" if s.role == "conductor" else "unknown"
            names = [f"{self.show(p.weight_ppf, 'linear_weight')} {p.grade} {p.connection}" for p in pipe.sections]
            if len(names) > 1:
                names = [
                    f"{name} to {self.show(p.bottom_md_ft, 'depth')}"
                    for name, p in zip(names, pipe.sections, strict=True)
                ]
            rows.append(
                [
                    s.role + (" (proposed)" if s.proposed else ""),
                    self.show(s.bit_in, "size")
                    if s.bit_in is not None
                    else ("driven" if s.run == "driven" else "unknown"),
                    self.show(s.od_in, "size"),
                    self.show(s.top_md_ft, "depth"),
                    self.show(s.shoe_md_ft, "depth"),
                    self.show(s.mud_ppg, "emw") if s.run != "driven" else "-",
                    ", ".join(names) or "unknown",
                    *(factors.get(kind, missing) for kind in ("burst", "collapse", "tension", "triaxial")),
                ]
            )
        return rows

    def cement(self) -> list[list[str]]:
        rows = [["Cement", "Top", "Slurry", "Volume", "Sacks", "Mix water", "Displacement", "Float differential"]]
        for s, c in zip(self.evaluation.strings, self.evaluation.cement.strings, strict=True):
            if c.applies:
                rows.append(
                    [
                        self.show(s.od_in, "size"),
                        self.show(c.top_md_ft, "depth"),
                        self.show(c.slurry_ppg, "emw"),
                        self.show(c.slurry_bbl, "volume"),
                        self.show(c.sacks, "sacks"),
                        self.show(c.mix_water_bbl, "volume"),
                        self.show(c.displacement_bbl, "volume"),
                        self.show(c.float_differential_psi, "pressure"),
                    ]
                )
        return rows

    def preventers(self) -> list[list[str]]:
        rows = [["Preventers on", "Surface pressure", "Class", "Flange", "Top to bottom"]]
        for s, stack in zip(self.evaluation.strings, self.evaluation.preventers.strings, strict=True):
            if stack.elements:
                elements = ", ".join(e.title for e in stack.elements)
                class_text = self.show(stack.class_psi, "pressure") if s.role != "conductor" else "-"
                rows.append(
                    [
                        self.show(s.od_in, "size"),
                        self.show(stack.pressure_psi, "pressure"),
                        class_text,
                        stack.flange or "-",
                        elements,
                    ]
                )
        return rows

    def wellhead(self) -> list[list[str]]:
        head = self.evaluation.wellhead
        rows = [["Wellhead, bottom to top", "Top flange", "Class", "Max. surface pressure", "Height"]]
        for piece in head.pieces:
            rows.append(
                [
                    piece.string,
                    piece.flange or "unknown",
                    self.show(piece.top_psi, "pressure"),
                    self.show(piece.needed_psi, "pressure"),
                    self.show(piece.height_in, "height"),
                ]
            )
        if head.surface_cut_in is not None:
            rows.append(
                ["Cut above cellar floor: surface casing", "", "", "", self.show(head.surface_cut_in, "height")]
            )
            rows.append(["Cut above cellar floor: conductor", "", "", "", self.show(head.conductor_cut_in, "height")])
        return rows

    def assumptions(self) -> list[str]:
        return [escape(plain(a.text, self.units)) for a in self.evaluation.assumptions]

    def findings(self) -> list[str]:
        return [
            f"<b>{f.severity.upper()}</b> {escape(plain(f.subject, self.units))}: {escape(plain(f.message, self.units))}"
            for f in self.evaluation.findings
        ]


LONG = 24
"""Characters from which a cell is set as a paragraph."""


def _table(canvas: Canvas, rows: list[list[str]], x: float, top: float, width: float, share: list[float]) -> float:
    """Draw a table under `top`; returns the y below it. The last column and every long cell wrap."""
    cells: list[list[object]] = [
        [
            Paragraph(escape(cell), SMALL) if len(cell) > LONG or i == len(row) - 1 else cell
            for i, cell in enumerate(row)
        ]
        for row in rows[1:]
    ]
    table = Table([rows[0], *cells], colWidths=[width * s / sum(share) for s in share])
    table.setStyle(GRID)
    _, height = table.wrapOn(canvas, width, PAGE[1])
    table.drawOn(canvas, x, top - height)
    return top - height - 8


def _paragraphs(canvas: Canvas, texts: list[str], x: float, top: float, width: float, floor: float) -> None:
    """Draw paragraphs down to a floor; says how many did not fit."""
    y = top
    for i, text in enumerate(texts):
        paragraph = Paragraph(text, SMALL)
        _, height = paragraph.wrapOn(canvas, width, PAGE[1])
        left = len(texts) - i
        if y - height < floor + (9 if left > 1 else 0):
            canvas.setFont("Helvetica-Bold", 7.4)
            canvas.drawString(x, y - 8, f"and {left} more: see the workbench")
            return
        paragraph.drawOn(canvas, x, y - height)
        y -= height + 2


def _heading(
    canvas: Canvas, design: Design, revision: int, saved_at: str, evaluation: Evaluation, units: UnitSet
) -> None:
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 14)
    name = design.name if len(design.name) <= 80 else design.name[:79] + "…"
    canvas.drawString(MARGIN, PAGE[1] - MARGIN - 8, name)
    canvas.setFont("Helvetica", 8)
    canvas.setFillColor(MUTE)
    basis = evaluation.basis
    depth = (
        f"total depth {shown(basis.total_md_ft, 'depth', units)} MD, {shown(basis.total_tvd_ft, 'depth', units)} TVD"
    )
    canvas.drawString(
        MARGIN, PAGE[1] - MARGIN - 21, f"Casing program · {design.site.setting} · {depth}, from the rig floor"
    )
    canvas.drawRightString(PAGE[0] - MARGIN, PAGE[1] - MARGIN - 8, f"Revision {revision}")
    canvas.drawRightString(
        PAGE[0] - MARGIN, PAGE[1] - MARGIN - 21, f"saved {saved_at.replace('T', ' ').replace('+00:00', ' UTC')}"
    )


def write(design: Design, evaluation: Evaluation, units: UnitSet, revision: int, saved_at: str) -> bytes:
    """The program sheet as PDF bytes."""
    buffer = BytesIO()
    canvas = Canvas(buffer, pagesize=PAGE, invariant=1)
    canvas.setTitle(f"{design.name}: program sheet")
    _heading(canvas, design, revision, saved_at, evaluation, units)
    top = PAGE[1] - MARGIN - 34
    draw_section(canvas, evaluation, units, MARGIN, MARGIN + 14, SECTION_WIDTH, top - MARGIN - 14)
    x, width = MARGIN + SECTION_WIDTH + 16, PAGE[0] - 2 * MARGIN - SECTION_WIDTH - 16
    text = _Sheet(evaluation, units)
    y = top
    if evaluation.strings:
        y = _table(canvas, text.strings(), x, y, width, [1.3, 0.9, 0.9, 0.7, 1, 0.9, 1.8, 0.7, 0.8, 0.8, 0.8])
        y = _table(canvas, text.cement(), x, y, width, [1, 1, 1, 1, 0.8, 1, 1.1, 1])
        y = _table(canvas, text.wellhead(), x, y, width, [2.4, 1.6, 1, 1, 1])
        y = _table(canvas, text.preventers(), x, y, width, [0.8, 1, 0.8, 1.2, 3.4])
    findings = text.findings()
    lines = [f"<b>{'Open findings' if findings else 'No open findings'}</b>", *findings]
    assumptions = text.assumptions()
    if assumptions:
        lines += ["<b>Assumptions filled in by the tool</b>", *assumptions]
    _paragraphs(canvas, lines, x, y, width, MARGIN + 14)
    canvas.setFillColor(MUTE)
    canvas.setFont("Helvetica", 6.6)
    canvas.drawString(MARGIN, MARGIN - 4, CAUTION)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()
