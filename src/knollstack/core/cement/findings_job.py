"""What is wrong with the job while it is pumped: the moment, the place, the number, and what was tried against it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import (
    Amount,
    Change,
    Finding,
    Remedy,
    Words,
    depth,
    emw,
    factor,
    find,
    force,
    pressure,
    pump_rate,
    remedy,
    volume,
)
from knollstack.core.cement.checks import Nearest, float_psi, hanging_lbf
from knollstack.core.cement.column import STAGE_NAMES
from knollstack.core.cement.conduit import Bores
from knollstack.core.cement.job import HELD, Followed
from knollstack.core.cement.mending import Mending
from knollstack.core.cement.train import Missing
from knollstack.core.document.cementing import SLURRIES
from knollstack.core.ground.well import Well
from knollstack.core.program.column import STAB_IN
from knollstack.core.program.equipped import EquippedString

_find = partial(find, "cement")
LEAST_SHORT_BBL, CLOSE_FT = 0.5, 5.0


def unknown_job(string: EquippedString, missing: Missing) -> Finding:
    text = f"The job in time is unknown without {missing.words}."
    return _find("unknown", missing.place, (*string.words, " cement job"), text)


class JobFindings:
    """Findings of one string's job. `broken` tells that the column at rest breaks the rock already: that is told once."""

    def __init__(
        self,
        well: Well,
        string: EquippedString,
        bores: Bores,
        job: tuple[Followed, ...],
        broken: bool,
        test_psi: float | None,
    ) -> None:
        self.well, self.string, self.job, self.broken, self.test_psi = well, string, job, broken, test_psi
        self.mending = Mending(well, string, bores)

    def all(self) -> Iterator[Finding]:
        for stage in self.job:
            yield from self._rock(stage)
            yield from self._pipe(stage)
            yield from self._tested(stage)
            yield from self._pump(stage)
            yield from self._plug(stage)
            yield from self._reach(stage)
            yield from self._float(stage)
            yield from self._float_out(stage)

    # --- words --------------------------------------------------------------------------------------------------

    def _subject(self, stage: Followed) -> Words:
        number = stage.worked.stage.number
        named = "" if len(self.job) == 1 else f" {STAGE_NAMES[number - 1]}-stage"
        return (*self.string.words, f"{named} cement job")

    def _after(self, stage: Followed, near: Nearest) -> Words:
        state = stage.state(near)
        if state == "bump":
            bumped = pressure(stage.closed.surface_psi("bump") or 0.0)
            return ("With the plug bumped at ", bumped, f"{self.well.rig_words}, ")
        if state is not None:
            return ("With the pressure bled back, ",)
        return ("After ", volume(float(stage.worked.course.pumped_bbl[near.moment])), " pumped, ")

    def _stop(
        self, stage: Followed, key: str, words: Words, reached: Amount, limit: Amount, remedies: tuple[Remedy, ...]
    ) -> Finding:
        none = () if remedies else (" Nothing tried here mends it.",)
        place = f"{self.string.path}/cement/{key}"
        return _find("stop", place, self._subject(stage), *words, *none, value=reached, limit=limit, remedies=remedies)

    # --- what is judged -----------------------------------------------------------------------------------------

    def _rock(self, stage: Followed) -> Iterator[Finding]:
        if stage.hole is not None and stage.pore is None:
            text = "Whether the annulus stays over pore pressure is unknown: pore pressure is not given over the whole open hole."
            yield _find("unknown", "/ground/pore", self._subject(stage), text)
        near = stage.fracture
        if near is not None and near.left < HELD and not self.broken:
            remedies = (*self.mending.slower(stage), *self.mending.ways(at_rest=False))
            yield self._against(stage, near, "steps", " reaches ", "; the rock breaks at ", remedies)
        near = stage.pore
        if near is not None and near.left < HELD:
            yield self._against(
                stage,
                near,
                "fluids",
                " falls to ",
                "; pore pressure is ",
                tuple(self.mending.heavier(stage, ("flush", "spacer"))),
            )

    def _against(
        self, stage: Followed, near: Nearest, key: str, does: str, limit: str, remedies: tuple[Remedy, ...]
    ) -> Finding:
        tvd = self.well.path.tvd(near.md_ft)
        reached, rock = (emw(p / (PSI_PER_PPG_FT * tvd)) for p in (near.value, near.limit))
        zone = self.well.ground.zone_at(tvd)
        at = f"the annulus in {zone} at " if zone else "the annulus at "
        words = (*self._after(stage, near), at, depth(near.md_ft), does, reached, limit, rock, ".")
        return self._stop(stage, key, words, reached, rock, remedies)

    def _pipe(self, stage: Followed) -> Iterator[Finding]:
        for what, near in (("collapse", stage.collapse), ("burst", stage.burst)):
            if near is None:
                text = f"Whether the casing stands the job in {what} is unknown: a rating of its pipe or connection is missing."
                yield _find("unknown", f"{self.string.path}/pipe", self._subject(stage), text)
            elif near.left < HELD:
                reached, asked = factor(near.value), factor(near.limit)
                at: Words = (f"the {what} factor at ", depth(near.md_ft), " is ", reached, "; policy asks ", asked, ".")
                key = "displacement_ppg" if what == "collapse" else "steps"
                words = (*self._after(stage, near), *at)
                if stage.state(near) == "bump":
                    key = "bump_psi"
                yield self._stop(stage, key, words, reached, asked, tuple(self._mend(stage, what, near)))

    def _mend(self, stage: Followed, what: str, near: Nearest) -> Iterator[Remedy]:
        if what == "collapse":
            return self.mending.heavier(stage, ("displacement",))
        return self.mending.softer(stage) if stage.state(near) == "bump" else self.mending.slower(stage)

    def _tested(self, stage: Followed) -> Iterator[Finding]:
        """The casing tested on the plug while the cement is green, where policy has it so."""
        near = None if self.test_psi is None else stage.tested(self.test_psi)
        if near is None or self.test_psi is None or near.left >= HELD:
            return
        reached, asked = factor(near.value), factor(near.limit)
        said = f"{self.well.rig_words} on green cement, the burst factor at "
        under: Words = ("Under the casing test of ", pressure(self.test_psi), said, depth(near.md_ft))
        text: Words = (*under, " is ", reached, "; policy asks ", asked, ".")
        change = Change(path="/policy/pipe/pressure_test", value="before landing")
        remedies = (remedy(change, "Test in set cement"),)
        place = f"{self.string.path}/test_psi"
        yield _find("stop", place, self._subject(stage), *text, value=reached, limit=asked, remedies=remedies)

    def _pump(self, stage: Followed) -> Iterator[Finding]:
        fastest = max((s.rate_bpm for s in stage.worked.stage.steps), default=0.0)
        most = self.well.policy.cement.pump_limit_bpm
        if fastest > most + 1e-9:
            text = ("The schedule asks for ", pump_rate(fastest), "; the pumps give ", pump_rate(most), ".")
            place, rates = f"{self.string.path}/cement/steps", (pump_rate(fastest), pump_rate(most))
            yield _find("stop", place, self._subject(stage), *text, value=rates[0], limit=rates[1])
        near = stage.pump
        if near.left < HELD:
            value, limit = pressure(near.value), pressure(near.limit)
            words = (*self._after(stage, near), "the pump gives ", value, "; its limit is ", limit, ".")
            yield self._stop(stage, "steps", words, value, limit, tuple(self.mending.slower(stage)))

    def _plug(self, stage: Followed) -> Iterator[Finding]:
        if stage.worked.stage.conduit.inner and self.string.own.running.shoe != STAB_IN:
            mend = remedy(self.string.change("running/shoe", STAB_IN), "Use a stab-in float shoe")
            words = "Cementing by inner string takes a stab-in float shoe."
            yield _find("caution", f"{self.string.path}/cement/form", self._subject(stage), words, remedies=(mend,))
        short, place = stage.worked.stage.short_bbl, f"{self.string.path}/cement/fluids"
        if short > LEAST_SHORT_BBL:
            text: Words = (
                "The displacement ends ",
                volume(short),
                " before the plug bumps: cement stays in the casing.",
            )
            yield _find("caution", place, self._subject(stage), *text)
        elif short < -LEAST_SHORT_BBL:
            text = ("The plug bumps ", volume(-short), " before the displacement is pumped.")
            yield _find("caution", place, self._subject(stage), *text)

    def _reach(self, stage: Followed) -> Iterator[Finding]:
        """Slurries of given volumes that end below the top of cement that is planned, or come back with the returns."""
        held, number = stage.worked, stage.worked.stage.number
        slurries = [k for k, f in enumerate(held.stage.fluids, 1) if f.kind in SLURRIES and f.volume_bbl > 0]
        planned = self.string.cement_top_md_ft
        if number != len(self.job) or planned is None:  # a stage below a collar ends there
            return
        place, subject = f"{self.string.path}/cement/fluids", self._subject(stage)
        if not slurries:
            yield _find("stop", place, subject, "No slurry is pumped: the fluids hold no lead and no tail.")
            return
        reached = float(held.annulus.md_ft[-1, slurries[0]])
        if reached > planned + CLOSE_FT:
            text: Words = (
                "The slurries reach up to ",
                depth(reached),
                "; the top of cement is planned at ",
                depth(planned),
            )
            yield _find("caution", place, subject, *text, ".", value=depth(reached), limit=depth(planned))
        over = float(held.course.moved_bbl[-1]) - held.stage.edges_bbl[slurries[0] - 1] - held.stage.conduit.whole_bbl
        if over > LEAST_SHORT_BBL and planned > held.stage.conduit.returns_md_ft + CLOSE_FT:
            text = ("The slurries overrun the annulus: ", volume(over), " come back with the returns.")
            yield _find("caution", place, subject, *text)

    def _float(self, stage: Followed) -> Iterator[Finding]:
        """What the float holds once the pressure is bled back; in a later stage the collar's sleeve does."""
        held, most = float_psi(stage.worked), self.well.policy.cement.float_psi
        if stage.worked.stage.number > 1 or held <= most + 1e-9:
            return
        reached, limit = pressure(held), pressure(most)
        text: Words = ("With the pressure bled back, the float holds ", reached, "; it is rated ", limit, ". ")
        more = "Displace with a heavier fluid, or hold pressure at the head until the cement has set."
        place = f"{self.string.path}/cement/displacement_ppg"
        remedies = tuple(self.mending.held_by_float(stage))
        yield _find("stop", place, self._subject(stage), *text, more, value=reached, limit=limit, remedies=remedies)

    def _float_out(self, stage: Followed) -> Iterator[Finding]:
        """The lift of what stands outside against the weight of the string, at the bump."""
        weight = hanging_lbf(self.well, self.string, stage.worked)
        if stage.worked.stage.number == 1 and weight < 0:  # in a later stage the first holds it
            text: Words = (
                "The string floats: what stands outside lifts ",
                force(-weight),
                " more than it weighs. Chain it down",
            )
            place = f"{self.string.path}/cement/displacement_ppg"
            remedies = tuple(self.mending.sunk(stage))
            more = " or displace with a heavier fluid." if remedies else "."
            yield _find("stop", place, self._subject(stage), *text, more, value=force(weight), remedies=remedies)
