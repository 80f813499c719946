"""What the run sheet reads: the program with the results of every step, and the section at hand."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from knollstack.core.base.findings import Words
from knollstack.core.cement.results import CementResult, CementRow
from knollstack.core.completion.results import CompletionResult, LeavingRow, StateRow
from knollstack.core.depths.results import DepthsResult
from knollstack.core.document.runsheet import RunSheet
from knollstack.core.document.runsheet_policy import RunSheetPolicy
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.mud.results import MudResult, MudRow
from knollstack.core.pipe.results import PipeResult
from knollstack.core.preventers.results import ElementResult, PreventersResult, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.results import RunningResult, RunningRow
from knollstack.core.sea.results import SeaResult
from knollstack.core.wellhead.results import BowlRow, HeadProof, PieceResult, WellheadResult

HOUSING = "housing"


@dataclass(frozen=True, eq=False)
class Plan:
    """A judged program."""

    equipped: Equipped
    depths: DepthsResult
    mud: MudResult
    pipe: PipeResult
    running: RunningResult
    cement: CementResult
    wellhead: WellheadResult
    preventers: PreventersResult
    sea: SeaResult
    completion: CompletionResult

    @classmethod
    def of(cls, equipped: Equipped, results: Mapping[str, Any]) -> Plan:
        """From the results of the steps by their words."""
        words = ("depths", "mud", "pipe", "running", "cement", "wellhead", "preventers", "sea", "completion")
        return cls(equipped, **{word: results[word] for word in words})

    @property
    def well(self) -> Well:
        return self.equipped.well

    @property
    def policy(self) -> RunSheetPolicy:
        return self.well.policy.runsheet

    @property
    def own(self) -> RunSheet:
        return self.equipped.design.runsheet

    @property
    def subsea(self) -> bool:
        return self.well.site.setting == "subsea"

    @cached_property
    def states(self) -> dict[str, StateRow]:
        return {row.key: row for row in self.completion.states}

    @cached_property
    def given_hours(self) -> dict[str, float]:
        """Times that the person gave, by the key of the step."""
        return {e.step: e.hours for e in self.own.edits if e.hours is not None}

    @property
    def leaving(self) -> LeavingRow | None:
        """How the well is left, where that is decided."""
        found = {"suspend": self.completion.suspension, "plug and abandon": self.completion.abandonment}
        return found.get(self.completion.decision or "")

    @property
    def standing(self) -> tuple[EquippedString, ...]:
        """Strings that are run: without the production string where the well is left without it."""
        strings = self.equipped.strings
        dry = self.leaving is not None and not self.leaving.production_run and self.equipped.producing is not None
        return strings[:-1] if dry else strings

    def piece_on(self, string: EquippedString) -> PieceResult | None:
        """The piece of wellhead that is set on a string."""
        return self._pieces.get(string.id)

    @cached_property
    def _pieces(self) -> dict[str, PieceResult]:
        return {p.string_id: p for p in reversed(self.wellhead.pieces) if p.string_id and not p.above_reference}

    def piece_holding(self, string: EquippedString) -> PieceResult | None:
        """The piece in whose bowl a string hangs."""
        row = self.hung(string)
        return None if row is None else self.wellhead.pieces[row.piece]

    def head_on(self, on: EquippedString) -> PieceResult | None:
        """The piece that stands on top once a string is hung and packed off: what a stack on it stands on."""
        return self.piece_on(on) or self.piece_holding(on)

    def hung(self, string: EquippedString) -> BowlRow | None:
        return self._hung.get(string.index)

    @cached_property
    def _hung(self) -> dict[int, BowlRow]:
        return {row.string: row for row in reversed(self.wellhead.hung)}

    def place_of(self, piece: PieceResult) -> int:
        """Of a piece in the wellhead, counted from below."""
        return next(k for k, p in enumerate(self.wellhead.pieces) if p is piece)

    def proofs(self, piece: PieceResult) -> tuple[HeadProof, ...]:
        at = self.place_of(piece)
        return tuple(p for p in self.wellhead.proofs if p.piece == at)


@dataclass(frozen=True, eq=False)
class At:
    """A section of the well, with what one line of a rule is about."""

    plan: Plan
    string: EquippedString
    item: Any = None

    def about(self, item: Any) -> At:
        return At(self.plan, self.string, item)

    @property
    def policy(self) -> RunSheetPolicy:
        return self.plan.policy

    @property
    def above(self) -> EquippedString | None:
        return self.plan.equipped.previous(self.string)

    @property
    def riserless(self) -> bool:
        return is_riserless(self.plan.well, self.string.index)

    @cached_property
    def on(self) -> EquippedString | None:
        """The string whose stack stands while this hole is drilled; None where nothing does."""
        if self.riserless or self.above is None:
            return None
        strings = self.plan.equipped.strings[: self.string.index]
        return next((s for s in reversed(strings) if s.run != "liner" or s.own.tie_back), None)

    @property
    def stack(self) -> StackRow | None:
        """The stack through which this hole is drilled, where it has elements."""
        if self.on is None:
            return None
        row = self.plan.preventers.strings[self.on.index]
        return row if row.elements else None

    @property
    def diverter(self) -> bool:
        """Nothing can be shut in: the hole is drilled on the conductor."""
        return self.on is not None and self.on.role == "conductor"

    @property
    def bops(self) -> bool:
        return self.stack is not None and not self.diverter

    @property
    def bowl(self) -> str:
        """Where wear bushing, test plug and this string's hanger land."""
        return "" if self.on is None else bowl_of(self.plan, self.on)

    @property
    def bowl_words(self) -> str:
        return "" if self.on is None else bowl_name(self.plan, self.on)

    @property
    def ram(self) -> ElementResult | None:
        """The rams that are changed to the size of this string before it is run."""
        row = self.stack
        if row is None or row.casing_ram is None or self.diverter or self.string.od_in is None:
            return None
        return row.elements[row.casing_ram]

    @property
    def run(self) -> RunningRow:
        return self.plan.running.strings[self.string.index]

    @property
    def cement(self) -> CementRow:
        return self.plan.cement.strings[self.string.index]

    @property
    def mud(self) -> MudRow:
        return self.plan.mud.strings[self.string.index]

    @property
    def casing(self) -> Words:
        kind = " liner" if self.string.run == "liner" else " casing"
        return (*self.string.words, kind if self.string.role != "conductor" else " conductor")

    @property
    def path(self) -> str:
        return self.string.path


def bowl_of(plan: Plan, on: EquippedString) -> str:
    """The bowl under the stack on a string: of the piece that it stands on, or of the housing on the sea floor."""
    if plan.subsea:
        return HOUSING
    piece = plan.head_on(on)
    return f"bowl {on.id}" if piece is None else f"bowl {plan.place_of(piece)}"


def bowl_name(plan: Plan, on: EquippedString) -> str:
    """The piece that a stack on a string stands on, by its name."""
    if plan.subsea:
        return "wellhead housing"
    piece = plan.head_on(on)
    return piece.name if piece is not None else "wellhead"
