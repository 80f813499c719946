"""The strings in force with what they are made of: the program that every step judges."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any

from knollstack.core.base.findings import Assumption, Finding
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.design import Design
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import InOrder, Laid, LaidString
from knollstack.core.program.section import Section


@dataclass(frozen=True)
class EquippedString(LaidString):
    """A string with its sections, top to bottom; none where no pipe is known."""

    sections: tuple[Section, ...] = ()
    laid: LaidString = field(kw_only=True, repr=False, compare=False)
    """The same string before its pipe: what does not hang on the pipe is kept under it."""

    __hash__ = LaidString.__hash__

    @property
    def pipe(self) -> Pipe | None:
        """The pipe with the narrowest bore of the string; None where none is chosen."""
        return min((s.pipe for s in self.sections), key=lambda p: p.drift_in, default=None)

    def bores(self, top_md_ft: float, bottom_md_ft: float) -> list[tuple[float, float]]:
        """Lengths [ft] and inside diameters [in] between two depths."""
        spans = [(min(s.bottom_md_ft, bottom_md_ft) - max(s.top_md_ft, top_md_ft), s.pipe.id_in) for s in self.sections]
        return [(length, bore) for length, bore in spans if length > 0]


def with_sections(string: LaidString, sections: tuple[Section, ...]) -> EquippedString:
    held: dict[str, Any] = {f.name: getattr(string, f.name) for f in fields(LaidString)}
    return EquippedString(**held, sections=sections, laid=string)


@dataclass(frozen=True, eq=False)
class Equipped(InOrder[EquippedString]):
    """A program laid out and equipped, and what was said while its pipe was chosen."""

    laid: Laid
    strings: tuple[EquippedString, ...]
    findings: tuple[Finding, ...]
    assumptions: tuple[Assumption, ...]

    @property
    def design(self) -> Design:
        return self.laid.design

    @property
    def catalogue(self) -> Catalogue:
        return self.laid.catalogue

    @property
    def well(self) -> Well:
        return self.laid.well

    @property
    def producing(self) -> EquippedString | None:
        """The last string, where it is one that a well is produced through."""
        last = self.strings[-1] if self.strings else None
        return last if last is not None and last.role != "conductor" and last.index > 0 else None

    @property
    def carrier(self) -> EquippedString | None:
        """On the sea floor the string that is run with the high-pressure housing; None elsewhere."""
        if self.well.site.setting != "subsea":
            return None
        return next((s for s in self.strings[1:] if s.run == "cased"), None)

    @property
    def housing_lbf(self) -> float:
        """Weight of the high-pressure housing in water."""
        given = self.design.sea.conductor.high_housing_lbf
        return self.well.policy.sea.high_housing_lbf if given is None else given

    def cased_bores(self, string: LaidString) -> list[tuple[float, float]] | None:
        """Lengths [ft] and bores [in] of the casing that a hole is drilled from, ground to shoe; None where unknown."""
        bottom, spans = string.previous_shoe_md_ft, []
        for outer in reversed(self.strings[: string.index]):
            top = max(self.well.ground_md_ft, outer.top_md_ft)
            if top < bottom:
                if not outer.sections:
                    return None
                spans += outer.bores(top, bottom)[::-1]
                bottom = top
        return spans[::-1]
