"""How a string is cemented: its slurries and tops, what is pumped in which order and how fast; and the policy of it.

None is not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.fields import (
    Depth,
    Emw,
    Excess,
    Id,
    MixWater,
    Name,
    Of,
    Part,
    Pressure,
    Size,
    Volume,
    listed,
    number,
    told,
)

FluidKind = Literal["flush", "spacer", "lead", "tail", "displacement"]
SLURRIES: tuple[FluidKind, ...] = ("lead", "tail")
Rate = Annotated[float, number(0.1, 60), Of("pump_rate")]
Dial = Annotated[float, number(0.1, 1_200), Of("dial")]
Minutes = Annotated[float, number(0, 600), Of("minutes")]
FreeFluid = Annotated[float, number(0, 100), Of("percent")]
FluidLoss = Annotated[float, number(0, 2_000), Of("fluid_loss")]
StageNumber = Annotated[int, Field(strict=True, ge=1, le=3), Of("count")]
RPM = (3, 6, 100, 200, 300, 600)


class JobFluid(Part):
    """One fluid of the job, in the order pumped: what is not given follows from the slurries, their tops and policy."""

    id: Id = told("Id")
    kind: FluidKind = told("Fluid")
    name: Name = told("Name", "")
    stage: StageNumber = told("Stage", 1)
    density_ppg: Emw | None = told("Density", None, help="empty: of a slurry by its recipe, of displacement as decided")
    volume_bbl: Volume | None = told(
        "Volume", None, help="empty: of a slurry by its top, of displacement what is left to the plug's seat"
    )
    annulus_ft: Depth | None = told("Length in the annulus", None, help="over the slurry behind it; gives the volume")
    contact_minutes: Minutes | None = told("Contact time", None, help="times its rate gives the volume")
    rate_bpm: Rate | None = told("Rate", None, help="at which it is pumped; empty follows policy")
    reading_3: Dial | None = told("Rheometer at 3 rpm", None)
    reading_6: Dial | None = told("Rheometer at 6 rpm", None)
    reading_100: Dial | None = told("Rheometer at 100 rpm", None)
    reading_200: Dial | None = told("Rheometer at 200 rpm", None)
    reading_300: Dial | None = told("Rheometer at 300 rpm", None)
    reading_600: Dial | None = told("Rheometer at 600 rpm", None)

    @property
    def readings(self) -> tuple[tuple[int, float], ...]:
        """Rheometer readings that are given: speed [rpm] and dial."""
        found = ((rpm, getattr(self, f"reading_{rpm}")) for rpm in RPM)
        return tuple((rpm, dial) for rpm, dial in found if dial is not None)


class JobStep(Part):
    """One step of the pumping schedule: so many barrels at a rate, then a stop."""

    stage: StageNumber = told("Stage", 1)
    volume_bbl: Volume | None = told("Pump", None, help="volume of this step; empty is all that is left")
    rate_bpm: Rate = told("Rate")
    stop_minutes: Minutes = told("Then stop for", 0.0, help="pumps off, to drop a plug or change lines")


SlurryKind = Literal["tail", "lead"]
Dosage = Literal["% of cement", "% of water", "lb/sk", "gal/sk"]


class Additive(Part):
    """What else goes into a slurry, besides cement, water and the solids that have a field of their own."""

    slurry: SlurryKind = told("Slurry", "tail")
    name: Annotated[str, Field(min_length=1, max_length=60)] = told("Additive")
    amount: Annotated[float, number(0, 200), Of("factor")] = told("Amount")
    per: Dosage = told(
        "Per", "% of cement", help="by weight of cement or of mix water, or per sack; gal/sk is a liquid"
    )
    sg: Annotated[float, number(0.2, 8), Of("factor")] = told("Specific gravity", 1.3)


class StrengthPoint(Part):
    """Compressive strength by the laboratory, so many hours after mixing."""

    after_hours: Annotated[float, number(0, 500), Of("hours")] = told("After", help="mixing")
    strength_psi: Pressure = told("Strength", help="compressive, at the temperature of the shoe")


class CaliperPoint(Part):
    """The hole's diameter as it is measured."""

    md_ft: Depth = told("Depth", help="MD")
    diameter_in: Size = told("Caliper", help="diameter of the hole; the mean of several arms")


class ExcessRow(Part):
    """Excess over one interval of the open hole, in place of that of the whole."""

    top_md_ft: Depth = told("From", help="MD")
    base_md_ft: Depth = told("To", help="MD")
    excess: Excess = told("Open-hole excess", help="fraction of the open-hole annulus")


class Cement(Part):
    """Decisions on one string's cement; None is not decided."""

    top_md_ft: Depth | None = told("Top of cement", None)
    slurry_water_gal_sk: MixWater | None = told("Mix water", None)
    bentonite_percent: Annotated[float, number(0, 25), Of("percent")] | None = told(
        "Bentonite", None, help="by weight of cement"
    )
    silica_flour_percent: Annotated[float, number(0, 100), Of("percent")] | None = told(
        "Silica flour", None, help="by weight of cement"
    )
    barite_percent: Annotated[float, number(0, 150), Of("percent")] | None = told(
        "Barite", None, help="by weight of cement"
    )
    haematite_percent: Annotated[float, number(0, 150), Of("percent")] | None = told(
        "Haematite", None, help="by weight of cement"
    )
    salt_percent: Annotated[float, number(0, 37), Of("percent")] | None = told(
        "Salt", None, help="by weight of mix water"
    )
    tail_top_md_ft: Depth | None = told(
        "Top of tail",
        None,
        help="with it the recipe above is the tail's, and the lead stands over it; empty is one slurry",
    )
    lead_water_gal_sk: MixWater | None = told("Lead mix water", None)
    lead_bentonite_percent: Annotated[float, number(0, 25), Of("percent")] | None = told(
        "Lead bentonite", None, help="by weight of cement"
    )
    stage_collar_md_ft: Depth | None = told(
        "Stage collar", None, help="the cement below it has set before the second stage is pumped; empty is one stage"
    )
    upper_collar_md_ft: Depth | None = told(
        "Upper stage collar", None, help="of three stages: the third is pumped through it; empty is two stages, or one"
    )
    over_hanger_ft: Depth | None = told(
        "Cement over the liner top", None, help="around the landing string; reversed out when the liner is released"
    )
    form: Literal["two plugs", "inner string"] | None = told(
        "Form of the job", None, help="by plugs down the casing, or by drill pipe inside it; empty follows the shoe"
    )
    excess: Excess | None = told("Open-hole excess", None, help="fraction of the open-hole annulus")
    excesses: tuple[ExcessRow, ...] = listed("Excess by interval", 20)
    caliper: tuple[CaliperPoint, ...] = listed(
        "Caliper", 5_000, help="of the open hole; where it is given it holds in place of the excess"
    )
    displacement_ppg: Emw | None = told(
        "Displacement fluid", None, help="empty is the mud of the hole, as an assumption"
    )
    bump_psi: Pressure | None = told(
        "Bump the plug with", None, help="over the final pump pressure; empty follows policy"
    )
    water: Literal["fresh water", "sea water"] = told("Mix water from", "fresh water")
    additives: tuple[Additive, ...] = listed(
        "Additives", 40, help="of either slurry; with bentonite and the other solids above they are the recipe"
    )
    top_up_md_ft: Depth | None = told(
        "Cement fallen back to", None, help="as measured after the job; what is filled up to the ground by small pipe"
    )
    thickening_minutes: Annotated[float, number(1, 6_000), Of("minutes")] | None = told(
        "Thickening time", None, help="of the slurry around the shoe, by the laboratory at its temperature and pressure"
    )
    lead_thickening_minutes: Annotated[float, number(1, 6_000), Of("minutes")] | None = told(
        "Lead thickening time", None, help="by the laboratory"
    )
    free_fluid_percent: FreeFluid | None = told(
        "Free fluid", None, help="of the slurry around the shoe, by the laboratory"
    )
    lead_free_fluid_percent: FreeFluid | None = told("Lead free fluid", None, help="by the laboratory")
    fluid_loss_cm3: FluidLoss | None = told("Fluid loss", None, help="of the slurry around the shoe, by the laboratory")
    lead_fluid_loss_cm3: FluidLoss | None = told("Lead fluid loss", None, help="by the laboratory")
    strength: tuple[StrengthPoint, ...] = listed(
        "Compressive strength", 50, help="of the slurry around the shoe against time; empty waits by policy's hours"
    )
    fluids: tuple[JobFluid, ...] = listed(
        "Fluids", 20, help="in the order pumped; empty is a spacer, the slurries and the displacement by policy"
    )
    steps: tuple[JobStep, ...] = listed(
        "Pumping schedule", 40, help="empty is each fluid at its rate, with a stop for the top plug"
    )


def stage_collars_md_ft(cement: Cement) -> tuple[float, ...]:
    """The stage collars of a string, lowest first."""
    given = {cement.stage_collar_md_ft, cement.upper_collar_md_ft} - {None}
    return tuple(sorted((md for md in given if md is not None), reverse=True))


def additives_of(cement: Cement, slurry: SlurryKind) -> tuple[Additive, ...]:
    return tuple(row for row in cement.additives if row.slurry == slurry)


PLACING, PUMPING, ASSUMED = "Placing", "Pumping", "Rheology where none is measured"
RULES, WAITING = "Rules of placement", "Waiting on cement"


class CementPolicy(Part):
    excess: Excess = told("Open-hole excess", 0.5, group=PLACING, help="fraction of the open-hole annulus")
    caliper_excess: Excess = told(
        "Excess over a caliper", 0.1, group=PLACING, help="fraction of the annulus that the caliper gives"
    )
    overlap_ft: Depth = told("Cement above the previous shoe", 300.0, group=PLACING)
    tail_ft: Depth = told("Tail slurry above the shoe", 500.0, group=PLACING, help="where a lead stands over it")
    shoe_track_ft: Annotated[float, number(0, 500), Of("depth")] = told("Shoe track", 80.0, group=PLACING)
    rathole_ft: Annotated[float, number(0, 500), Of("depth")] = told("Rathole", 10.0, group=PLACING)
    water_gal_sk: MixWater = told("Mix water, neat slurry", 4.97, group=PLACING)
    spacer_minutes: Minutes = told(
        "Spacer contact time", 12.0, group=PUMPING, help="with the rate of displacement gives the volume proposed"
    )
    spacer_rate_bpm: Rate = told("Rate of flushes and spacers", 5.0, group=PUMPING)
    slurry_rate_bpm: Rate = told("Rate of slurries", 5.0, group=PUMPING)
    displacement_rate_bpm: Rate = told("Rate of displacement", 8.0, group=PUMPING)
    slow_rate_bpm: Rate = told("Rate before the plug bumps", 2.0, group=PUMPING)
    slow_bbl: Volume = told("Slow for the last", 20.0, group=PUMPING, help="of the displacement")
    compressibility_1_psi: Annotated[float, number(0, 1e-4), Of("compressibility")] = told(
        "Compressibility of the displacement fluid", 3e-6, group=PUMPING, help="water-based mud; oil-based about twice"
    )
    mix_tank_bbl: Volume = told(
        "Mix water tank", 10.0, group=PUMPING, help="in which liquid additives are measured out"
    )
    overdisplace_share: Annotated[float, number(0, 1), Of("fraction")] = told(
        "Over-displace no more than", 0.5, group=PUMPING, help="of the shoe track, where the plug does not bump"
    )
    plug_minutes: Minutes = told("Stop to drop the top plug", 5.0, group=PUMPING)
    rupture_psi: Pressure = told(
        "Bottom plug ruptures at", 300.0, group=PUMPING, help="differential across it once it has landed"
    )
    float_psi: Pressure = told(
        "Float equipment holds", 3_000.0, group=PUMPING, help="differential from outside, as its maker rates it"
    )
    release_psi: Pressure = told(
        "Dart releases a plug at", 1_200.0, group=PUMPING, help="of plugs that wait under a landing string"
    )
    pump_limit_psi: Pressure = told("Pressure limit of the cement pump", 5_000.0, group=PUMPING)
    pump_limit_bpm: Rate = told("Rate limit of the cement pumps", 14.0, group=PUMPING)
    heavier_percent: Annotated[float, number(0, 100), Of("percent")] = told(
        "Each fluid heavier than the one ahead by", 10.0, group=RULES
    )
    contact_minutes: Minutes = told(
        "Contact time of flushes and spacers", 10.0, group=RULES, help="past the top of each zone to be sealed"
    )
    free_fluid_percent: FreeFluid = told("Free fluid, no more than", 2.0, group=RULES)
    free_fluid_inclined_percent: FreeFluid = told(
        "Free fluid in an inclined hole, no more than", 0.0, group=RULES, help="where it is over 30° along the cement"
    )
    fluid_loss_cm3: FluidLoss = told("Fluid loss, no more than", 200.0, group=RULES)
    fluid_loss_tight_cm3: FluidLoss = told(
        "Fluid loss of liners and over gas, no more than",
        50.0,
        group=RULES,
        help="in a narrow annulus, or past a gas zone",
    )
    thickening_margin_minutes: Minutes = told("Thickening time over the job", 60.0, group=WAITING)
    drill_out_psi: Pressure = told("Strength for nippling down, testing and drilling out", 500.0, group=WAITING)
    wait_hours: Annotated[float, number(0, 500), Of("hours")] = told(
        "Wait where no strength is measured", 24.0, group=WAITING
    )
    slurry_reading_300: Dial = told("Tail slurry at 300 rpm", 52.0, group=ASSUMED)
    slurry_reading_600: Dial = told("Tail slurry at 600 rpm", 96.0, group=ASSUMED)
    lead_reading_300: Dial = told("Lead slurry at 300 rpm", 30.0, group=ASSUMED)
    lead_reading_600: Dial = told("Lead slurry at 600 rpm", 48.0, group=ASSUMED)
    spacer_reading_300: Dial = told("Spacer at 300 rpm", 26.0, group=ASSUMED)
    spacer_reading_600: Dial = told("Spacer at 600 rpm", 40.0, group=ASSUMED)
