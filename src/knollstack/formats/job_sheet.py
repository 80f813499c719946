"""The sheet for the cement unit: fluids and blend, schedule, pressures to expect, and what to do when it goes otherwise."""

from __future__ import annotations

from bisect import bisect_right

from knollstack.core.base.findings import Quantity, Words
from knollstack.core.base.units import UnitSet, fraction
from knollstack.core.cement.results import BlendRow, CementRow, StageRow
from knollstack.core.cement.results_job import JobDetail, StageDetail
from knollstack.core.evaluation.results import StringResult
from knollstack.formats.sheet_layout import Heading, Titled, table_pages

EVERY_BBL = 100.0
STAGES = ("", "First stage", "Second stage", "Third stage")


class JobSheet:
    """One string's job in the units of a person."""

    def __init__(self, string: StringResult, row: CementRow, job: JobDetail, units: UnitSet) -> None:
        self.string, self.row, self.job, self.units = string, row, job, units

    def show(self, value: float | None, quantity: Quantity) -> str:
        if value is None:
            return "-"
        unit = self.units.of(quantity)
        return f"{value * unit.factor + unit.offset:,.{unit.decimals}f} {unit.unit}".strip()

    def words(self, words: Words) -> str:
        return "".join(w if isinstance(w, str) else self.show(w.value, w.quantity) for w in words)

    def tables(self) -> list[Titled]:
        found: list[Titled] = []
        for told, stage in zip(self.row.stages, self.job.stages, strict=True):
            prefix = f"{STAGES[stage.number]}: " if len(self.job.stages) > 1 else ""
            found.append((f"{prefix}Fluids in the order pumped", self._fluids(told), [1.2, 1, 1, 1, 1, 1, 3]))
            found.append((f"{prefix}Pumping schedule", self._steps(told), [1, 1, 1, 1, 2]))
            found.append((f"{prefix}To expect", self._expected(stage), [1, 1, 1.2, 1, 1, 1.4, 3]))
        return found

    def _blend(self, kind: str, stage: int) -> BlendRow | None:
        return next((b for b in self.row.blends if (b.slurry, b.stage) == (kind, stage)), None)

    def _fluids(self, told: StageRow) -> list[list[str]]:
        rows = [["Fluid", "Density", "Volume", "Rate", "Sacks", "Mix water", "Goes in"]]
        for fluid in told.fluids:
            blend = self._blend(fluid.kind, told.number)
            goes = [] if blend is None else [i for i in blend.items if i.name not in ("cement", self.row.mix_water)]
            rows.append(
                [
                    fluid.name,
                    self.show(fluid.density_ppg, "emw"),
                    self.show(fluid.volume_bbl, "volume"),
                    self.show(fluid.rate_bpm, "pump_rate"),
                    "" if blend is None else self.show(blend.sacks, "sacks"),
                    "" if blend is None else self.show(blend.water_bbl, "volume"),
                    "; ".join(f"{i.name} {self._amount(i.total, i.unit)}" for i in goes),
                ]
            )
        return rows

    def _amount(self, value: float, unit: str) -> str:
        return self.show(value, "mass") if unit == "lb" else f"{value:,.1f} gal"

    def _steps(self, told: StageRow) -> list[list[str]]:
        rows, pumped = [["Step", "Pump", "Rate", "Pumped then", "Then"]], 0.0
        for k, step in enumerate(told.steps, 1):
            pumped += step.volume_bbl
            stop = "" if not step.stop_minutes else f"stop for {step.stop_minutes:g} min"
            volume, rate = self.show(step.volume_bbl, "volume"), self.show(step.rate_bpm, "pump_rate")
            rows.append([str(k), volume, rate, self.show(pumped, "volume"), stop])
        return rows

    def _expected(self, stage: StageDetail) -> list[list[str]]:
        """At each hundred barrels, straight between two moments, at every event and at the end: what the gauges should say."""
        rows = [["Pumped", "After", "Pump pressure", "Rate in", "Returns", "At the weakest", "What happens"]]
        told: dict[int, str] = {}
        for event in stage.events:
            if event.moment < stage.closing:
                words, before = self.words(event.words), told.get(event.moment)
                told[event.moment] = words if before is None else f"{before}; {words[:1].lower()}{words[1:]}"
        last = stage.closing - 1
        hundreds = [k * EVERY_BBL for k in range(int(stage.pumped_bbl[last] / EVERY_BBL) + 1)]
        found = [(*self._at(stage, bbl), "") for bbl in hundreds]
        found += [(float(m), 0.0, told.get(m, "")) for m in {*told, last}]
        for moment, share, words in sorted(found):
            rows.append([*self._gauges(stage, int(moment), share), words])
        return rows

    @staticmethod
    def _at(stage: StageDetail, pumped_bbl: float) -> tuple[float, float]:
        """The moment before so much is pumped, and the share of the way to the next."""
        m = min(max(bisect_right(stage.pumped_bbl, pumped_bbl) - 1, 0), stage.closing - 2)
        span = stage.pumped_bbl[m + 1] - stage.pumped_bbl[m]
        return float(m), min(max((pumped_bbl - stage.pumped_bbl[m]) / span, 0.0), 1.0) if span > 0 else 0.0

    def _gauges(self, stage: StageDetail, moment: int, share: float) -> list[str]:
        def of(values: tuple[float, ...]) -> float | None:
            if not values:
                return None
            after = values[min(moment + 1, len(values) - 1)]
            return values[moment] + (after - values[moment]) * share

        return [
            self.show(of(stage.pumped_bbl), "volume"),
            f"{of(stage.minutes) or 0.0:.0f} min",
            self.show(of(stage.pump_psi), "pressure"),
            self.show(of(stage.in_bpm), "pump_rate"),
            self.show(of(stage.out_bpm), "pump_rate"),
            self.show(of(stage.weakest_ppg), "emw"),
        ]

    def before(self) -> tuple[str, ...]:
        return (
            "<b>Before pumping</b>",
            f"Test the lines. {self._plugs()} Weigh every slurry. Count barrels by tank and by stroke; two people count. The "
            "returns are watched, and their volume is written down.",
        )

    def _plugs(self) -> str:
        """What is loaded, by the form of the job."""
        first = self.job.stages[0] if self.job.stages else None
        if first is not None and first.inner:
            return "See that the inner string holds pressure in its shoe."
        if first is not None and first.plugs_md_ft > 0:
            darts = "both darts" if first.bottom_plug else "the dart"
            return f"Load {darts} in front of a witness; see that the plugs under the landing string are those planned."
        pairs = "" if len(self.job.stages) < 2 else ", and those of every stage collar in their order"
        return f"Load both plugs in front of a witness, bottom plug first{pairs}."

    def after(self) -> tuple[str, ...]:
        lines = ["<b>If it goes otherwise</b>"]
        for told in self.row.stages:
            over, bump = self.show(told.overdisplace_bbl, "volume"), self.show(told.bump_bbl, "volume")
            final, bumped = self.show(told.final_pump_psi, "pressure"), self.show(told.bumped_psi, "pressure")
            name = f"{STAGES[told.number]}: the" if len(self.row.stages) > 1 else "The"
            if told.dart_bbl is not None:
                latched, psi = self.show(told.dart_bbl, "volume"), self.show(told.dart_psi, "pressure")
                lines.append(
                    f"The dart latches after {latched}: up to {psi} at the pump release the plug. Count anew from there; if "
                    "nothing is seen, pump on by the calculated volume."
                )
            if told.inner:
                lines.append(
                    f"The inner string is displaced by {bump} in all, at {final}. Pump no more: then unsting and look for flow."
                )
                continue
            lines.append(
                f"{name} plug bumps after {bump} at {final} pumping pressure; bump it with {bumped}. If it does not, pump no "
                f"more than {over} beyond that, then stop and shut in: cement around the shoe is worth more than an empty casing."
            )
        reverse = self.row.reversing
        if reverse is not None:
            volume, psi = self.show(reverse.volume_bbl, "volume"), self.show(reverse.pump_psi, "pressure")
            lines.append(
                "When the plug has bumped: release the setting tool, pick it up out of the liner and reverse out "
                f"{volume} at no more than {psi}; the {self.show(reverse.over_bbl, 'volume')} of cement over the top come last."
            )
        lines += [
            "If returns stop: slow down to the least rate of the schedule, keep pumping, write down the barrels lost; the top of "
            "cement will be lower, and is measured before anything else is done.",
            "If the float does not hold: pump back what has flowed, shut the head in with no more than the differential, and "
            "hold it until the cement has set. Never let the casing flow back.",
            "If the pump stops: have the second unit on line before the thickening time has run out; with cement still in the "
            "casing and no pump, reverse out only while it is above every tool.",
        ]
        return tuple(lines)


def write_job_sheet(
    name: str, string: StringResult, row: CementRow, job: JobDetail, units: UnitSet, revision: str, saved: str
) -> bytes:
    """The sheet as PDF."""
    size = "casing" if string.od_in is None else f"{fraction(string.od_in)} in {string.role} casing"
    heading = Heading(name=name, basis=f"Cement job · {size}", revision=revision, saved=saved)
    sheet = JobSheet(string, row, job, units)
    return table_pages(heading, sheet.before(), sheet.tables(), sheet.after(), dense=True)
