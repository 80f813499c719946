"""What follows for the preventers: the stack on each string."""

from __future__ import annotations

from knollstack.core.base.findings import Result


class ElementResult(Result):
    element: str
    title: str
    height_in: float | None


class StackRow(Result):
    """The stack on this string while the next section is drilled; no elements when none is carried."""

    decided: bool
    pressure_psi: float | None
    class_psi: float | None
    bore_in: float | None
    flange: str | None
    elements: tuple[ElementResult, ...]
    height_in: float | None


class PreventersResult(Result):
    strings: tuple[StackRow, ...]
