"""PDF pages whose parts are tagged: headings, paragraphs, tables with their heads, figures with words for them.

What is drawn between a mark's begin and end carries a number on its page; a tree of elements in the document names each of
them in reading order, so that a reader hears the sheet as it is meant.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Any

from reportlab.pdfbase.pdfdoc import PDFArray, PDFDictionary, PDFName, PDFObjectReference, PDFPage, PDFString
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Table


@dataclass
class Element:
    """One element of the structure: its role, and what is in it: other elements, or marks as (page, number)."""

    role: str
    alt: str = ""
    kids: list[Element | tuple[int, int]] = field(default_factory=list)

    def child(self, role: str, alt: str = "") -> Element:
        made = Element(role, alt)
        self.kids.append(made)
        return made


class TaggedCanvas(Canvas):
    """A canvas that keeps a tree of what is drawn on it, in reading order."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.tree = Element("Document")
        self._marks: list[list[str]] = [[]]
        """Of each page: the names of the elements that hold its marks, by number."""
        self._inside = False

    @contextmanager
    def marked(self, element: Element) -> Iterator[None]:
        """What is drawn inside belongs to an element; inside of another mark it belongs to that."""
        if self._inside:
            yield
            return
        page, number = len(self._marks) - 1, len(self._marks[-1])
        element.kids.append((page, number))
        self._marks[-1].append("")
        self._code.append(f"/{element.role} <</MCID {number}>> BDC")
        self._inside = True
        yield
        self._inside = False
        self._code.append("EMC")

    @contextmanager
    def artifact(self) -> Iterator[None]:
        """Lines and page headings are not read."""
        self._code.append("/Artifact BMC")
        yield
        self._code.append("EMC")

    def _setAnnotations(self, page: PDFPage) -> None:  # noqa: N802
        super()._setAnnotations(page)
        page.__NoDefault__ = [*PDFPage.__NoDefault__, "StructParents"]
        page.StructParents = len(self._marks) - 1
        self._marks.append([])

    def save(self) -> None:
        if self._code:
            self.showPage()
        self._write_tree()
        super().save()

    def _write_tree(self) -> None:
        """The tree as objects of the document, and for every page which element holds each of its marks."""
        document = self._doc
        made: list[tuple[str, Element, str]] = []

        def named(element: Element, parent: str) -> str:
            name = f"Structure{len(made)}"
            made.append((name, element, parent))
            return name

        def written(element: Element, name: str, parent: str) -> None:
            kids = []
            for kid in element.kids:
                if isinstance(kid, Element):
                    child = named(kid, name)
                    written(kid, child, name)
                    kids.append(PDFObjectReference(child))
                else:
                    page, number = kid
                    self._marks[page][number] = name
                    on = PDFObjectReference(f"Page{page + 1}")
                    kids.append(PDFDictionary({"Type": PDFName("MCR"), "Pg": on, "MCID": number}))
            held: dict[str, Any] = {
                "Type": PDFName("StructElem"),
                "S": PDFName(element.role),
                "P": PDFObjectReference(parent),
                "K": PDFArray(kids),
            }
            if element.alt:
                held["Alt"] = PDFString(element.alt)
            if element.role == "TH":
                held["A"] = PDFDictionary({"O": PDFName("Table"), "Scope": PDFName("Column")})
            document.Reference(PDFDictionary(held), name)

        written(self.tree, named(self.tree, "StructureRoot"), "StructureRoot")
        numbers: list[Any] = []
        for page, names in enumerate(self._marks[:-1]):
            numbers += [page, PDFArray([PDFObjectReference(name) for name in names])]
        root = PDFDictionary(
            {
                "Type": PDFName("StructTreeRoot"),
                "K": PDFArray([PDFObjectReference("Structure0")]),
                "ParentTree": PDFDictionary({"Nums": PDFArray(numbers)}),
            }
        )
        document.Reference(root, "StructureRoot")
        document.Catalog.StructTreeRoot = root
        document.Catalog.MarkInfo = PDFDictionary({"Marked": "true"})
        document.Catalog.Lang = PDFString("en")
        document.Catalog.ViewerPreferences = PDFDictionary({"DisplayDocTitle": "true"})


class TaggedParagraph(Paragraph):
    """A paragraph, or a heading where its role says so."""

    role = "P"

    def draw(self) -> None:
        with self.canv.marked(self.canv.tree.child(self.role)):
            super().draw()


class TaggedHeading(TaggedParagraph):
    role = "H2"


class TaggedTable(Table):
    """A table row by row, its first row the heads of its columns."""

    def draw(self) -> None:
        self._element, self._drawn = self.canv.tree.child("Table"), 0
        super().draw()

    def _drawCell(self, *cell: Any) -> None:  # noqa: N802
        row, column = divmod(self._drawn, self._ncols)
        if column == 0:
            self._row = self._element.child("TR")
        self._drawn += 1
        with self.canv.marked(self._row.child("TH" if row == 0 else "TD")):
            super()._drawCell(*cell)

    def _drawBkgrnd(self) -> None:  # noqa: N802
        with self.canv.artifact():
            super()._drawBkgrnd()

    def _drawLines(self) -> None:  # noqa: N802
        with self.canv.artifact():
            super()._drawLines()
