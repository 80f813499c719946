"""The kill sheet on one page: what was read, kill mud and pressures, the schedule by steps, volumes and strokes."""

from __future__ import annotations

from itertools import zip_longest

from knollstack.core.base.findings import Quantity, Words
from knollstack.core.base.units import UnitSet, fraction
from knollstack.core.drills.results import KillSheet, KillStage, VolumeRow
from knollstack.formats.sheet import at
from knollstack.formats.sheet_layout import Heading, Titled, table_pages

METHOD = [1.6, 0.8, 2.0, 0.8, 0.8]


def _beside(left: list[list[str]], right: list[list[str]]) -> list[list[str]]:
    """Two tables as one, side by side, so that the sheet is one page."""
    wide = len(left[0]), len(right[0])
    rows = zip_longest(left, right)
    return [[*(a or [""] * wide[0]), "", *(b or [""] * wide[1])] for a, b in rows]


class _Page:
    def __init__(self, sheet: KillSheet, units: UnitSet) -> None:
        self.sheet, self.units = sheet, units

    def show(self, value: float | None, quantity: Quantity) -> str:
        if value is None:
            return "not known"
        unit = self.units.of(quantity)
        return f"{value * unit.factor + unit.offset:,.{unit.decimals}f} {unit.unit}".strip()

    def words(self, words: Words) -> str:
        return "".join(w if isinstance(w, str) else _amount(self, w.value, w.quantity) for w in words)

    def tables(self) -> list[Titled]:
        sheet, read = self.sheet, self.sheet.read
        told: list[list[str]] = [
            ["Hole and mud", "", "Read once shut in", "", "Kill", ""],
            [
                "Depth, MD and TVD",
                f"{self.show(sheet.md_ft, 'depth')}, {self.show(sheet.tvd_ft, 'depth')}",
                "Drill pipe pressure",
                self.show(read.sidpp_psi if read else None, "pressure"),
                "Kill mud",
                self.show(sheet.kill_ppg, "emw"),
            ],
            [
                self.words(sheet.shoe).capitalize() + ", MD and TVD",
                f"{self.show(sheet.shoe_md_ft, 'depth')}, {self.show(sheet.shoe_tvd_ft, 'depth')}",
                "Casing pressure",
                self.show(read.sicp_psi if read else None, "pressure"),
                "Initial circulating pressure",
                self.show(sheet.icp_psi, "pressure"),
            ],
            [
                "Mud in the hole",
                self.show(sheet.mud_ppg, "emw"),
                "Gain",
                self.show(read.gain_bbl if read else None, "volume"),
                "Final circulating pressure",
                self.show(sheet.fcp_psi, "pressure"),
            ],
            [
                "Strength at the shoe",
                self.show(sheet.fracture_ppg, "emw"),
                "Height of the influx",
                self.show(sheet.influx_ft, "depth"),
                "MAASP, mud and kill mud",
                f"{self.show(sheet.maasp_psi, 'pressure')}, {self.show(sheet.maasp_kill_psi, 'pressure')}",
            ],
            [
                "Slow pump pressure",
                f"{self.show(sheet.slow_psi, 'pressure')} at {sheet.slow_spm:.0f} spm"
                + ("" if sheet.slow_read else ", estimated"),
                "Gradient of the influx",
                self.show(sheet.influx_psi_ft, "gradient"),
                "Weighting material",
                self.show(sheet.barite_lb, "mass"),
            ],
            [
                "Choke margin over the schedule",
                self.show(sheet.choke_margin_psi, "pressure"),
                "Casing pressure at the slow rate",
                self.show(sheet.starting_psi, "pressure"),
                "Active volume, pits and hole",
                self.show(sheet.active_bbl, "volume"),
            ],
            [
                "Pump output",
                self.show(sheet.bbl_stroke, "stroke_volume"),
                "Choke-line friction",
                self.show(sheet.choke_line_psi, "pressure"),
                "",
                "",
            ],
        ]
        return [
            ("Kill sheet", told, [1.5, 1.7, 1.4, 1.1, 1.7, 1.6]),
            ("Methods", _beside(*self._methods()), [*METHOD, 0.2, *METHOD]),
            (
                "Drill pipe pressure with kill mud down the string; volumes and strokes",
                _beside(self._schedule(), self._volumes()),
                [1, 1, 1.3, 1.2, 1, 0.2, 1.6, 1.7, 1.1, 1, 0.8, 0.8],
            ),
        ]

    def _methods(self) -> tuple[list[list[str]], list[list[str]]]:
        held = "Held at the slow rate"
        first, second = (
            [[title, "Mud", held, "Strokes", "Minutes"]] for title in ("Driller's method", "Wait and weight")
        )
        for rows, method in zip((first, second), self.sheet.methods, strict=False):
            rows += [self._stage(stage) for stage in method.stages]
            rows.append(["Whole", "", "", f"{method.strokes:,.0f}", f"{method.minutes:,.1f}"])
        return first, second

    def _stage(self, stage: KillStage) -> list[str]:
        psi = self.show(stage.from_psi, "pressure")
        psi = psi if stage.to_psi == stage.from_psi else f"{psi} to {self.show(stage.to_psi, 'pressure')}"
        return [
            stage.title,
            self.show(stage.mud_ppg, "emw"),
            f"{stage.held}, {psi}",
            f"{stage.strokes:,.0f}",
            f"{stage.minutes:,.1f}",
        ]

    def _schedule(self) -> list[list[str]]:
        rows = [["Strokes", "Pumped", "Drill pipe pressure", "Kill mud at, MD", "TVD"]]
        for row in self.sheet.schedule:
            rows.append(
                [
                    f"{row.strokes:,.0f}",
                    self.show(row.pumped_bbl, "volume"),
                    self.show(row.psi, "pressure"),
                    self.show(row.front_md_ft, "depth"),
                    self.show(row.front_tvd_ft, "depth"),
                ]
            )
        return rows

    def _volumes(self) -> list[list[str]]:
        rows = [["Part", "From, to", "Capacity", "Volume", "Strokes", "Minutes"]]
        sheet = self.sheet
        for row in (*sheet.inside, *sheet.annulus):
            rows.append(self._part(row))
        for whole in sheet.sums:
            volume, minutes = self.show(whole.volume_bbl, "volume"), f"{whole.minutes:,.1f}"
            rows.append([whole.title, "", "", volume, f"{whole.strokes:,.0f}", minutes])
        return rows

    def _part(self, row: VolumeRow) -> list[str]:
        return [
            self.words(row.part),
            f"{self.show(row.top_md_ft, 'depth')}, {self.show(row.bottom_md_ft, 'depth')}",
            self.show(row.capacity_bbl_ft, "capacity"),
            self.show(row.volume_bbl, "volume"),
            f"{row.strokes:,.0f}",
            f"{row.minutes:,.1f}",
        ]


def _amount(page: _Page, value: float, quantity: Quantity) -> str:
    return f"{fraction(value)} in" if quantity == "size" else page.show(value, quantity)


BEFORE = (
    "<b>Driller's method</b>: the influx is circulated out with the mud in the hole, then kill mud is pumped. <b>Wait and "
    "weight</b>: once, with kill mud, by the schedule. The choke margin comes on top of what is held.",
)
AFTER = (
    "Bring the pumps to the slow rate with casing pressure held, at sea the pressure of the kill line. Friction is taken by "
    "measured depth, columns by vertical depth.",
    "<b>A planning aid.</b> Read the slow pump pressure anew after every change of mud, bit or string. Results need checking "
    "by a competent, where required licensed, engineer; local rules and accredited training prevail.",
)


def write_kill_sheet(name: str, sheet: KillSheet, units: UnitSet, revision: int, saved_at: str) -> bytes:
    """One page as PDF."""
    page = _Page(sheet, units)
    basis = f"Kill sheet · {page.words(sheet.hole)} at {page.show(sheet.md_ft, 'depth')}"
    heading = Heading(name=name, basis=basis, revision=f"Revision {revision}", saved=f"saved {at(saved_at)}")
    return table_pages(heading, BEFORE, page.tables(), AFTER, dense=True)
