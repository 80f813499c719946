"""The program sheet of a design and its evaluation, as PDF: what stands on it. `sheet_layout.py` sets it on pages."""

from __future__ import annotations

from dataclasses import dataclass
from xml.sax.saxutils import escape

from knollstack.core.base.findings import Quantity
from knollstack.core.base.units import UnitSet, plain, shown
from knollstack.core.cement.results import CementRow
from knollstack.core.document.design import Design
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.preventers.results import StackProof
from knollstack.formats.sheet_completion import completion_tables
from knollstack.formats.sheet_layout import Heading, compose
from knollstack.formats.sheet_runsheet import schedule_table
from knollstack.formats.sheet_sea import sea_tables


def at(moment: str) -> str:
    """A moment as the sheet prints it."""
    return moment.replace("T", " ").replace("+00:00", " UTC")


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

    def kicks(self) -> list[list[str]]:
        """Kick tolerance and MAASP below each shoe that preventers stand on."""
        gauge = "MAASP" if self.evaluation.wellhead.sea is None else "MAASP at the rig floor"
        rows = [["Shoe", "Kick tolerance", "Policy asks", "Kick at", "Weak point", gauge, "Full evacuation to gas"]]
        for s, row in zip(self.evaluation.strings, self.evaluation.depths.strings, strict=True):
            kick = row.kick
            if kick is None:
                continue
            unlimited = kick.limited is False
            margin = kick.full_gas_margin_psi
            rows.append(
                [
                    self.show(s.od_in, "size"),
                    "no limit" if unlimited else self.show(kick.tolerance_bbl, "volume"),
                    self.show(kick.required_bbl, "volume"),
                    "-" if unlimited else self.show(kick.at_md_ft, "depth"),
                    "-" if unlimited else "shoe" if kick.weak_is_shoe else self.show(kick.weak_md_ft, "depth"),
                    self.show(kick.maasp_psi, "pressure"),
                    self.show(margin, "pressure")
                    if margin is None
                    else f"{'deficit' if margin < 0 else 'margin'} {self.show(abs(margin), 'pressure')}",
                ]
            )
        return rows

    def running(self) -> list[list[str]]:
        heads = [
            "Running",
            "Joints",
            "Float equipment",
            "Filling",
            "Collapse",
            "Hook load up",
            "Slowest",
            "Centralizers",
        ]
        rows = [heads]
        for s, r in zip(self.evaluation.strings, self.evaluation.running.strings, strict=True):
            if r.applies:
                gear = f"{r.shoe}, {'no collar' if r.collar is None else f'{r.collar} in joint {r.collar_joint}'}"
                fill = f"every {r.fill_joints} joints" if r.fill_joints else str(r.fill)
                standoff = (
                    "" if r.least_standoff_percent is None else f", least standoff {r.least_standoff_percent:.0f} %"
                )
                rows.append(
                    [
                        self.show(s.od_in, "size"),
                        f"{r.joints} and {r.spares} spare",
                        gear,
                        fill,
                        "-" if r.collapse_factor is None else f"{r.collapse_factor:.2f}",
                        self.show(r.hook_up_lbf, "force"),
                        self.show(r.running_ft_min, "trip_speed"),
                        f"{r.centralizers}{standoff}",
                    ]
                )
        return rows

    def cement(self) -> list[list[str]]:
        rows = [
            ["Cement", "Top", "Slurry", "Volume", "Sacks", "Mix water", "Displacement", "Float differential", "Job"]
        ]
        for s, c in zip(self.evaluation.strings, self.evaluation.cement.strings, strict=True):
            if c.applies:
                rows.append(
                    [
                        self.show(s.od_in, "size"),
                        self._cement_top(c),
                        self._slurry(c),
                        self.show(c.slurry_bbl, "volume"),
                        self._sacks(c),
                        self.show(c.mix_water_bbl, "volume"),
                        self.show(c.displacement_bbl, "volume"),
                        self.show(c.float_differential_psi, "pressure"),
                        self._job(c),
                    ]
                )
        return rows

    def _job(self, row: CementRow) -> str:
        """How long it takes, and what the pump ends with: stage by stage."""
        told = [f"{s.minutes:.0f} min, ends at {self.show(s.final_pump_psi, 'pressure')}" for s in row.stages]
        return "; ".join(told) or "unknown"

    def _cement_top(self, row: CementRow) -> str:
        top = self.show(row.top_md_ft, "depth")
        collars = [self.show(md, "depth") for md in (row.stage_collar_md_ft, row.upper_collar_md_ft) if md is not None]
        return f"{top}; stage collar {' and '.join(collars)}" if collars else top

    def _slurry(self, row: CementRow) -> str:
        slurry = self.show(row.slurry_ppg, "emw")
        if row.lead_ppg is None:
            return slurry
        return f"lead {self.show(row.lead_ppg, 'emw')}, tail {slurry} from {self.show(row.tail_top_md_ft, 'depth')}"

    def _sacks(self, row: CementRow) -> str:
        tail = self.show(row.sacks, "sacks")
        return tail if row.lead_sacks is None else f"lead {self.show(row.lead_sacks, 'sacks')}, tail {tail}"

    def preventers(self) -> list[list[str]]:
        level = "Surface pressure" if self.evaluation.wellhead.sea is None else "At the sea floor"
        rows = [["BOP stack on", level, "Class", "Flange", "Top to bottom", "Test, low", "Rams", "Annular"]]
        for s, stack in zip(self.evaluation.strings, self.evaluation.preventers.strings, strict=True):
            if stack.elements:
                elements = ", ".join(
                    " ".join([e.title, plain(e.fits, self.units)]).strip() for e in reversed(stack.elements)
                )
                tests = {stack.elements[t.element].kind: t for t in stack.tests if t.element is not None}
                high = [self._test(tests.get(kind)) for kind in ("ram", "annular")]
                low = self.show(stack.tests[0].low_psi, "pressure") if high != ["-", "-"] else "-"
                class_text = self.show(stack.class_psi, "pressure") if s.role != "conductor" else "-"
                name, pressure = self.show(s.od_in, "size"), self.show(stack.pressure_psi, "pressure")
                rows.append([name, pressure, class_text, stack.flange or "-", elements, low, *high])
        return rows

    def _test(self, test: StackProof | None) -> str:
        return "-" if test is None or test.high_psi is None else self.show(test.high_psi, "pressure")

    def wellhead(self) -> list[list[str]]:
        head = self.evaluation.wellhead
        rows = [["Wellhead, bottom to top", "Top flange", "Class", "Max. surface pressure", "Height", "Studs"]]
        for piece in head.pieces:
            rows.append(
                [
                    piece.string,
                    piece.flange or "unknown",
                    self.show(piece.top_psi, "pressure"),
                    self.show(piece.needed_psi, "pressure"),
                    self.show(piece.height_in, "height"),
                    piece.studs or "unknown",
                ]
            )
        return rows

    def cuts(self) -> list[list[str]]:
        """Where each string is cut and hangs, and the test of what stands on it."""
        head = self.evaluation.wellhead
        hung = {row.string: row for row in head.hung}
        above = f"above {head.datum}"
        rows = [["Cut and hung", f"Rough cut {above}", f"Final cut {above}", "Hanger", "Hangs", "Hanger below rotary"]]
        for cut in head.cuts:
            row = hung.get(cut.string)
            rows.append(
                [
                    f"{self.show(self.evaluation.strings[cut.string].od_in, 'size')} {cut.role}",
                    self.show(cut.rough_in, "height"),
                    self.show(cut.final_in, "height"),
                    row.hanger if row else "-",
                    self.show(row.load_lbf, "force") if row else "-",
                    self.show(row.landing_md_ft, "length") if row else "-",
                ]
            )
        return rows

    def assumptions(self) -> list[str]:
        return [escape(plain(a.text, self.units)) for a in self.evaluation.assumptions]

    def findings(self) -> list[str]:
        return [
            f"<b>{f.severity.upper()}</b> {escape(plain(f.subject, self.units))}: {escape(plain(f.message, self.units))}"
            for f in self.evaluation.findings
        ]


@dataclass(frozen=True)
class Signed:
    """The sign-off as it is printed: in short on every page, and in sentences."""

    short: str = "not approved"
    lines: tuple[str, ...] = ("Not approved.",)


def write(
    design: Design, evaluation: Evaluation, units: UnitSet, revision: int, saved_at: str, signed: Signed
) -> bytes:
    """The program sheet as PDF bytes: as many pages as it needs."""
    text, basis = _Sheet(evaluation, units), evaluation.basis
    tables = []
    if evaluation.strings:
        tables = [
            (text.strings(), [1.2, 0.9, 0.9, 0.7, 0.9, 0.9, 1.7, 0.85, 0.85, 0.85, 0.85]),
            (text.kicks(), [0.8, 1.1, 1, 1, 1, 1, 1.6]),
            (text.running(), [0.7, 1, 1.8, 1.1, 0.7, 1, 0.9, 1.5]),
            (text.cement(), [0.65, 0.7, 1.4, 0.75, 1.05, 0.8, 0.95, 1.1, 1.65]),
            (text.wellhead(), [2.4, 1.5, 0.9, 1.4, 0.9, 1.3]),
            (text.cuts(), [1.5, 1.4, 1.4, 0.9, 1, 1.3]),
            (text.preventers(), [1.05, 1.3, 0.9, 1.2, 2.9, 0.75, 0.8, 0.8]),
            *sea_tables(evaluation, text.show, lambda words: plain(words, units)),
            *completion_tables(evaluation.completion, text.show, lambda words: plain(words, units)),
            schedule_table(evaluation.runsheet, text.show, lambda words: plain(words, units)),
        ]
    findings, assumptions = text.findings(), text.assumptions()
    lines = ["<b>Sign-off</b>", *(escape(line) for line in signed.lines)]
    lines += [f"<b>{'Open findings' if findings else 'No open findings'}</b>", *findings]
    if assumptions:
        lines += ["<b>Assumptions filled in by the tool</b>", *assumptions]
    depth = (
        f"total depth {shown(basis.total_md_ft, 'depth', units)} MD, {shown(basis.total_tvd_ft, 'depth', units)} TVD"
    )
    heading = Heading(
        name=design.name,
        basis=f"Casing program · {design.site.setting} · {depth}, from the rig floor",
        revision=f"Revision {revision}",
        saved=f"saved {at(saved_at)} · {signed.short}",
    )
    return compose(heading, evaluation, units, [(rows, share) for rows, share in tables if len(rows) > 1], lines)
