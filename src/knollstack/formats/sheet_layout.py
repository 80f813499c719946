"""The program sheet on its pages: the section drawing beside the first, tables and lists flowing over as many as it takes."""

from __future__ import annotations

import re
from dataclasses import dataclass
from io import BytesIO
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    BaseDocTemplate,
    Flowable,
    Frame,
    NextPageTemplate,
    PageTemplate,
    Paragraph,
    Spacer,
    TableStyle,
)

from knollstack.core.base.units import UnitSet
from knollstack.core.evaluation.results import Evaluation
from knollstack.formats.drawing import draw_section
from knollstack.formats.tagged import TaggedCanvas, TaggedHeading, TaggedParagraph, TaggedTable

INK, MUTE, RULE = colors.HexColor("#16211E"), colors.HexColor("#5A6964"), colors.HexColor("#CDD5CF")
PAGE = landscape(A4)
MARGIN, HEAD, FOOT, GAP = 28.0, 34.0, 14.0, 16.0
SECTION_WIDTH = 205.0
LONGEST_NAME, CELL_PADDING = 80, 6
"""Characters to which a well's name is set in the heading; points left and right of a cell's text."""
CAUTION = (
    "These results are a planning aid. They need checking by a competent and, where required, licensed engineer; "
    "local rules prevail. What is unknown or assumed is marked as such."
)
HEADING = re.compile(r"<b>[^<]*</b>")
SMALL = ParagraphStyle("small", fontName="Helvetica", fontSize=7.4, leading=9.2, textColor=INK, spaceAfter=2)
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
DENSE = TableStyle([("TOPPADDING", (0, 0), (-1, -1), 0.8), ("BOTTOMPADDING", (0, 0), (-1, -1), 1.2)])
"""For a sheet that is to be one page."""


@dataclass(frozen=True)
class Heading:
    """What stands at the top of every page."""

    name: str
    basis: str
    revision: str
    saved: str


def table_of(rows: list[list[str]], width: float, share: list[float], *, dense: bool = False) -> TaggedTable:
    """A table whose last column, and cells wider than their column, wrap; its heading is repeated on the next page."""
    widths = [width * s / sum(share) for s in share]

    def set_in(cell: str, wide: float) -> object:
        fits = stringWidth(cell, SMALL.fontName, SMALL.fontSize) <= wide - CELL_PADDING
        return cell if fits else Paragraph(escape(cell), SMALL)

    cells = [
        [*(set_in(c, w) for c, w in zip(row[:-1], widths[:-1], strict=True)), Paragraph(escape(row[-1]), SMALL)]
        for row in rows[1:]
    ]
    table = TaggedTable([rows[0], *cells], colWidths=widths, repeatRows=1, hAlign="LEFT")
    table.setStyle(GRID)
    if dense:
        table.setStyle(DENSE)
    return table


def frame_of_page(canvas: TaggedCanvas, heading: Heading, page: int) -> None:
    """Heading and caution of one page; both are read once, on the first."""
    tree, name = canvas.tree, heading.name
    name = name if len(name) <= LONGEST_NAME else name[: LONGEST_NAME - 1] + "…"
    with canvas.marked(tree.child("H1")) if page == 1 else canvas.artifact():
        canvas.setFillColor(INK)
        canvas.setFont("Helvetica-Bold", 14)
        canvas.drawString(MARGIN, PAGE[1] - MARGIN - 8, name)
    with canvas.marked(tree.child("P")) if page == 1 else canvas.artifact():
        _small_print(canvas, heading, page)


def _small_print(canvas: Canvas, heading: Heading, page: int) -> None:
    canvas.setFont("Helvetica", 8)
    canvas.setFillColor(MUTE)
    canvas.drawString(MARGIN, PAGE[1] - MARGIN - 21, heading.basis)
    canvas.drawRightString(PAGE[0] - MARGIN, PAGE[1] - MARGIN - 8, f"{heading.revision} · page {page}")
    canvas.drawRightString(PAGE[0] - MARGIN, PAGE[1] - MARGIN - 21, heading.saved)
    canvas.setFont("Helvetica", 6.6)
    canvas.drawString(MARGIN, MARGIN - 4, CAUTION)


def plain_frame(x: float, width: float, height: float) -> Frame:
    return Frame(x, MARGIN + FOOT, width, height, leftPadding=0, rightPadding=0, topPadding=0, bottomPadding=0)


def printed(story: list[Flowable], templates: list[PageTemplate], title: str, subject: str) -> bytes:
    """The story on its pages as PDF bytes: tagged, and the same bytes for the same story."""
    buffer = BytesIO()
    document = BaseDocTemplate(
        buffer, pagesize=PAGE, pageTemplates=templates, title=title, subject=subject, creator="Knollstack", invariant=1
    )
    document.build(story, canvasmaker=TaggedCanvas)
    return buffer.getvalue()


def list_pages(heading: Heading, rows: list[list[str]], share: list[float], lines: tuple[str, ...]) -> bytes:
    """One long list as PDF bytes, with what is said before it; its heading is repeated on every page."""
    return table_pages(heading, lines, [(None, rows, share)], ())


Titled = tuple[str | None, list[list[str]], list[float]]
"""A table with its title, its rows, and the shares of its columns."""


def table_pages(
    heading: Heading, before: tuple[str, ...], tables: list[Titled], after: tuple[str, ...], *, dense: bool = False
) -> bytes:
    """Tables over the whole width as PDF bytes, with what is said before and after them."""
    height, whole = PAGE[1] - 2 * MARGIN - HEAD - FOOT, PAGE[0] - 2 * MARGIN

    def every(canvas: Any, doc: BaseDocTemplate) -> None:
        frame_of_page(canvas, heading, doc.page)

    templates = [PageTemplate("every", [plain_frame(MARGIN, whole, height)], onPage=every)]
    story: list[Flowable] = [line_of(line) for line in before]
    for title, rows, share in tables:
        name = [line_of(f"<b>{escape(title)}</b>")] if title else []
        story += [Spacer(1, 6), *name, table_of(rows, whole, share, dense=dense)]
    story += [Spacer(1, 6), *(line_of(line) for line in after)]
    named = f"{heading.name}: {heading.basis}"
    return printed(story, templates, named, f"{heading.revision}; {heading.saved}")


def line_of(line: str) -> Flowable:
    return (TaggedHeading if HEADING.fullmatch(line) else TaggedParagraph)(line, SMALL)


def compose(
    heading: Heading,
    evaluation: Evaluation,
    units: UnitSet,
    tables: list[tuple[list[list[str]], list[float]]],
    lines: list[str],
) -> bytes:
    """The pages as PDF bytes."""
    height = PAGE[1] - 2 * MARGIN - HEAD - FOOT
    beside = PAGE[0] - 2 * MARGIN - SECTION_WIDTH - GAP
    whole = PAGE[0] - 2 * MARGIN

    def first(canvas: Any, doc: BaseDocTemplate) -> None:
        frame_of_page(canvas, heading, doc.page)
        with canvas.marked(canvas.tree.child("Figure", f"Section of the well {heading.name}: {heading.basis}")):
            draw_section(canvas, evaluation, units, MARGIN, MARGIN + FOOT, SECTION_WIDTH, height)

    def later(canvas: Any, doc: BaseDocTemplate) -> None:
        frame_of_page(canvas, heading, doc.page)

    templates = [
        PageTemplate("first", [plain_frame(MARGIN + SECTION_WIDTH + GAP, beside, height)], onPage=first),
        PageTemplate("later", [plain_frame(MARGIN, whole, height)], onPage=later),
    ]
    story: list[Flowable] = [NextPageTemplate("later")]
    for rows, share in tables:
        story += [table_of(rows, beside, share), Spacer(1, 8)]
    story += [line_of(line) for line in lines]
    title = f"{heading.name}: casing program, {heading.revision.lower()}"
    return printed(story, templates, title, f"{heading.basis}; {heading.saved}")
