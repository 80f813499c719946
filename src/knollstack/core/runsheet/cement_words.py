"""What the steps of a cement job say: fluids, displacement, bump, returns, with the job's own numbers."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, depth, emw, hours, pressure, pump_rate, volume
from knollstack.core.cement.results import FluidRow, StageRow
from knollstack.core.runsheet.plan import At

LEAST_BACK_BBL = 0.05


def stages(at: At) -> Iterator[tuple[str, StageRow]]:
    for stage in at.cement.stages:
        yield str(stage.number), stage


def is_first(at: At, stage: StageRow) -> bool:
    return stage is at.cement.stages[0]


def later_stages(at: At) -> Iterator[tuple[str, StageRow]]:
    return ((key, stage) for key, stage in stages(at) if not is_first(at, stage))


def opened_words(at: At) -> Words:
    """How a later stage gets its way out: its collar is opened above the cement of the one before."""
    own, stage = at.string.own.cement, at.item
    collar = own.stage_collar_md_ft if stage is at.cement.stages[1] else own.upper_collar_md_ft
    where: Words = (" at ", depth(collar)) if collar is not None else ()
    return ("Drop the opening plug; open the stage collar", *where, " and circulate through it until the mud is even")


def fluids(at: At) -> Iterator[tuple[str, FluidRow]]:
    stage: StageRow = at.item
    for k, fluid in enumerate(stage.fluids):
        if fluid.kind != "displacement" and fluid.volume_bbl > 0:
            yield str(k + 1), fluid


def fluid_words(at: At) -> Words:
    stage, fluid = at.item
    slurry = fluid.kind in ("lead", "tail")
    words: list[str | Amount] = []
    first = next((f for f in stage.fluids if f.kind in ("lead", "tail") and f.volume_bbl > 0), None)
    if fluid is first and is_first(at, stage) and stage.bottom_plug_bbl is not None:
        words.append("Drop the bottom plug; mix and pump " if slurry else "Pump ")
    else:
        words.append("Mix and pump " if slurry else "Pump ")
    words += [
        volume(fluid.volume_bbl),
        f" of {fluid.name if not slurry else fluid.kind + ' slurry'} at ",
        emw(fluid.density_ppg),
    ]
    words += [", ", pump_rate(fluid.rate_bpm)]
    if slurry:
        blend = next((b for b in at.cement.blends if b.slurry == fluid.kind and b.stage == stage.number), None)
        if blend is not None:
            words += ["; ", Amount(value=blend.sacks, quantity="sacks"), " with ", volume(blend.water_bbl), " of water"]
    return tuple(words)


def each_fluid(at: At) -> Iterator[tuple[str, tuple[StageRow, FluidRow]]]:
    for number, stage in stages(at):
        for k, fluid in fluids(at.about(stage)):
            yield f"{number}-{k}", (stage, fluid)


def displace_words(at: At) -> Words:
    stage: StageRow = at.item
    words: list[str | Amount] = ["Drop the top plug; displace" if not stage.inner else "Displace"]
    if stage.dart_bbl is not None:
        words = ["Drop the dart; displace"]
    if not is_first(at, stage):
        words = ["Drop the closing plug; displace"]
    words += [" with ", volume(stage.displacement_bbl)]
    if at.cement.displacement_ppg is not None:
        words += [" of ", emw(at.cement.displacement_ppg), " mud"]
    if len(stage.steps) > 1 and stage.steps[-1].rate_bpm < stage.steps[-2].rate_bpm:
        words += ["; the last ", volume(stage.steps[-1].volume_bbl), " at ", pump_rate(stage.steps[-1].rate_bpm)]
    words += ["; at the end expect ", pressure(stage.final_pump_psi)]
    return tuple(words)


def nearest_words(at: At) -> Words:
    stage: StageRow = at.item
    if stage.greatest_emw_ppg is None or stage.fracture_ppg is None or stage.greatest_md_ft is None:
        return ("What the rock stands is not known all along: watch the returns.",)
    return (
        "The annulus comes to ",
        emw(stage.greatest_emw_ppg),
        " at ",
        depth(stage.greatest_md_ft),
        "; the rock breaks at ",
        emw(stage.fracture_ppg),
        ".",
    )


def bump_words(at: At) -> Words:
    stage: StageRow = at.item
    over: Words = ("; if it does not bump stop after ", volume(stage.overdisplace_bbl), " over")
    if stage.bumped_psi is None:
        return ("Stop at ", volume(stage.displacement_bbl), "; check that the float holds")
    if not is_first(at, stage):
        return (
            "Shut the stage collar at ",
            pressure(stage.bumped_psi),
            " after ",
            volume(stage.displacement_bbl),
            "; hold, bleed off, check that it stays shut",
        )
    return (
        "Bump at ",
        pressure(stage.bumped_psi),
        " after ",
        volume(stage.displacement_bbl),
        "; hold, bleed off, check the float against ",
        pressure(stage.float_psi),
        *over,
    )


def returns_words(at: At) -> Words:
    row, back = at.cement, sum(s.cement_back_bbl for s in at.cement.stages)
    if row.top_md_ft is not None and row.top_md_ft <= at.plan.well.ground_md_ft + 1.0:
        where = "the sea floor, seen by the camera" if at.riserless else "surface"
        top: Words = () if at.riserless else ("; if none, fill up by small pipe in the annulus",)
        much: Words = (", ", volume(back), " by plan") if back >= LEAST_BACK_BBL else ()
        return (f"Look for cement at {where}", *much, "; record its colour and volume", *top)
    planned: Words = ("; top of cement planned at ", depth(row.top_md_ft)) if row.top_md_ft is not None else ()
    return ("Compare returns with what was pumped, barrel by barrel", *planned)


def top_up_words(at: At) -> Words:
    row = at.cement.top_up
    assert row is not None
    return (
        "Fill up the annulus from ",
        depth(row.from_md_ft),
        " by small pipe: ",
        volume(row.volume_bbl),
        " of slurry, ",
        Amount(value=row.sacks, quantity="sacks"),
    )


def reverse_words(at: At) -> Words:
    row = at.cement.reversing
    words: list[str | Amount] = ["Set the liner hanger, release its tool, pull clear of the liner's top"]
    if row is not None:
        words += [
            "; reverse out ",
            volume(row.volume_bbl),
            " at ",
            pump_rate(row.rate_bpm),
            ": ",
            volume(row.over_bbl),
            " of cement come back",
        ]
    else:
        words.append("; circulate it clean")
    return tuple(words)


def wait_words(at: At) -> Words:
    waits = at.cement.waits
    if not waits:
        return ("Wait on cement",)
    last = waits[-1]
    if last.hours is None:
        return ("Wait on cement until it has ", pressure(last.strength_psi), "; by the laboratory it never does")
    by = "by the laboratory" if last.measured else "by policy"
    return (
        "Wait on cement ",
        hours(last.hours),
        f" {by}, until ",
        pressure(last.strength_psi),
        "; the string is not moved",
    )
