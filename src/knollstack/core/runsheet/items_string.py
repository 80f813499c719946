"""What each string takes: pipe, float equipment, centralizers, cement with its additives, mud and bits."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from knollstack.core.base.constants import GAL_PER_BBL
from knollstack.core.base.findings import Amount, Words, emw, size
from knollstack.core.runsheet.items import LB_SACK, Item, whole
from knollstack.core.runsheet.plan import At, Plan
from knollstack.core.runsheet.rule import Line
from knollstack.core.runsheet.string import first_mud_ppg


def of_string(at: At) -> Iterator[Item]:
    """Of a string that is run."""
    yield from _pipe(at)
    yield from _float(at)
    yield from _centralizers(at)
    yield from _plugs(at)
    yield from _cement(at)


def _site(at: At) -> tuple[str, ...]:
    """The conductor is set before the rig comes, or in the sea floor."""
    return ("site/conductor", "site/conductor-hole", f"{at.string.id}/conductor") if at.string.index == 0 else ()


def _pipe(at: At) -> Iterator[Item]:
    run, string = at.run, at.string
    rows, head = at.plan.pipe.strings[string.index].sections, string.id
    used = (f"{head}/tally", f"{head}/pipe", f"{head}/gear", *_site(at))
    whole_ft = sum(r.bottom_md_ft - r.top_md_ft for r in rows)
    for k, (row, section) in enumerate(zip(rows, string.sections, strict=False)):
        ft = row.bottom_md_ft - row.top_md_ft
        weight = Amount(value=row.weight_ppf, quantity="linear_weight")
        what: Words = (*string.words, " ", weight, f" {row.grade} {row.connection}")
        price = section.pipe.price_per_ft
        if run.joints is None or run.mean_joint_ft is None:
            yield Item(f"{head}/pipe/{k + 1}", "casing", what, "ft", ft, 0.0, used, string.index, row.weight_ppf, price)
            continue
        share, joint = ft / whole_ft, run.mean_joint_ft
        spare = whole((run.spares or 0) * share)
        yield Item(
            f"{head}/pipe/{k + 1}",
            "casing",
            what,
            "joints",
            float(round(run.joints * share)),
            spare,
            used,
            string.index,
            row.weight_ppf * joint,
            None if price is None else price * joint,
        )
    if run.pups:
        yield Item(
            f"{head}/pups", "casing", (*string.words, " pup joints"), "each", float(run.pups), 0.0, used, string.index
        )


def _float(at: At) -> Iterator[Item]:
    run, string, spare = at.run, at.string, float(at.policy.spare_gear)
    used = (f"{string.id}/shoe",)
    if run.shoe is not None:
        yield Item(
            f"{string.id}/shoe",
            "float equipment",
            (*string.words, f" {run.shoe}"),
            "each",
            1.0,
            spare,
            used,
            string.index,
        )
    if run.collar is not None and run.collar != "none":
        yield Item(
            f"{string.id}/collar",
            "float equipment",
            (*string.words, f" {run.collar}"),
            "each",
            1.0,
            spare,
            used,
            string.index,
        )
    if run.stages_md_ft:
        count = float(len(run.stages_md_ft))
        yield Item(
            f"{string.id}/stage",
            "float equipment",
            (*string.words, " stage collar"),
            "each",
            count,
            0.0,
            used,
            string.index,
        )
    if string.run == "liner":
        what = (*string.words, " liner hanger with its running tool")
        yield Item(f"{string.id}/liner-hanger", "hangers and seals", what, "each", 1.0, 0.0, used, string.index)


def _centralizers(at: At) -> Iterator[Item]:
    run, string, used = at.run, at.string, (f"{at.string.id}/pipe", f"{at.string.id}/shoe")
    share = at.policy.spare_centralizers
    counts: dict[str, int] = {}
    for row in run.intervals:
        counts[row.type] = counts.get(row.type, 0) + row.count
    for name, count in counts.items():
        if count:
            what: Words = (*string.words, f" {name} centralizers")
            yield Item(
                f"{string.id}/centralizers/{name}",
                "centralizers",
                what,
                "each",
                float(count),
                whole(share * count),
                used,
                string.index,
            )
    for word, several in (("stop collars", run.stop_collars), ("scratchers", run.scratchers)):
        if several:
            spare = whole(share * several)
            yield Item(
                f"{string.id}/{word}",
                "centralizers",
                (*string.words, f" {word}"),
                "each",
                float(several),
                spare,
                used,
                string.index,
            )


def _plugs(at: At) -> Iterator[Item]:
    used = (f"{at.string.id}/plugs", f"{at.string.id}/circulate")
    for stage in at.cement.stages:
        if stage.inner:
            continue
        set_of = "top and bottom plug" if stage.bottom_plug_bbl is not None else "top plug"
        darts = ", with darts" if stage.dart_bbl is not None else ""
        what: Words = (*at.string.words, f" cementing plugs, stage {stage.number}: {set_of}{darts}")
        key = f"{at.string.id}/cementing-plugs/{stage.number}"
        yield Item(key, "float equipment", what, "set", 1.0, 0.0, used, at.string.index)


def _cement(at: At) -> Iterator[Item]:
    string, spare = at.string, at.policy.spare_cement
    used = (f"{string.id}/pump", f"{string.id}/unfollowed", *_site(at))
    sacks = sum(b.sacks for b in at.cement.blends) or (at.cement.sacks or 0.0) + (at.cement.lead_sacks or 0.0)
    if sacks:
        what: Words = ("Cement for ", *at.casing)
        yield Item(f"{string.id}/cement", "cement", what, "sk", sacks, spare * sacks, used, string.index, LB_SACK)
    yield from _additives(at, used)
    for stage in at.cement.stages:
        for k, fluid in enumerate(stage.fluids):
            if fluid.kind in ("lead", "tail", "displacement") or fluid.volume_bbl <= 0:
                continue
            key = f"{string.id}/fluid/{stage.number}-{k + 1}"
            told: Words = (f"{fluid.name}, ", emw(fluid.density_ppg), ", for ", *at.casing)
            yield Item(key, "spacers and washes", told, "bbl", fluid.volume_bbl, 0.0, used, string.index)


def _additives(at: At, used: tuple[str, ...]) -> Iterator[Item]:
    """By name over all slurries of a string; mix water by the barrel."""
    string, spare = at.string, at.policy.spare_cement
    totals: dict[tuple[str, str], float] = {}
    for blend in at.cement.blends:
        for part in blend.items:
            if part.name != "cement":
                totals[(part.name, part.unit)] = totals.get((part.name, part.unit), 0.0) + part.total
    for (name, unit), total in totals.items():
        if total <= 0:
            continue
        if name == at.cement.mix_water:
            what: Words = (f"Mix water, {name}, for ", *at.casing)
            water = total / GAL_PER_BBL
            yield Item(f"{string.id}/mix-water", "cement", what, "bbl", water, spare * water, used, string.index)
            continue
        key, weight = f"{string.id}/additive/{name}", 1.0 if unit == "lb" else None
        told: Words = (f"{name[:1].upper()}{name[1:]} for ", *at.casing)
        yield Item(key, "cement additives", told, unit, total, spare * total, used, string.index, weight)


def of_hole(at: At, lines: Sequence[Line]) -> Iterator[Item]:
    """Of a hole that is drilled: its mud and its bits."""
    yield from _mud(at)
    string = at.string
    if string.bit_in is not None:
        changes = [
            x
            for x in lines
            if x.key.startswith(f"{string.id}/trip/")
            or (x.key.startswith(f"{string.id}/due") and x.key.endswith("/out"))
        ]
        what: Words = (size(string.bit_in), " bit")
        yield Item(
            f"{string.id}/bits",
            "bits",
            what,
            "each",
            1.0 + len(changes),
            float(at.policy.spare_bits),
            (f"{string.id}/bha",),
            string.index,
        )


def _mud(at: At) -> Iterator[Item]:
    string, mud, row = at.string, at.mud, at.mud.weight_up
    used = (f"{string.id}/mix", f"{string.id}/mud", f"{string.id}/bha")
    total = mud.volumes.total_bbl if mud.volumes is not None else None
    ppg = first_mud_ppg(at)
    if total is not None and ppg is not None:
        lost = at.policy.lost_mud * total
        if row is None:
            yield Item(f"{string.id}/mud", "mud", (emw(ppg), " mud mixed"), "bbl", total, lost, used, string.index)
        else:
            yield Item(
                f"{string.id}/mud", "mud", (emw(ppg), " mud, for what is lost"), "bbl", 0.0, lost, used, string.index
            )
    if row is not None and row.solid_lb:
        what: Words = ("Weighting material, ", emw(row.from_ppg), " up to ", emw(ppg or row.from_ppg))
        yield Item(
            f"{string.id}/weighting",
            "mud",
            what,
            "lb",
            row.solid_lb,
            at.policy.lost_mud * row.solid_lb,
            used,
            string.index,
            1.0,
        )
    elif row is not None and row.base_bbl:
        yield Item(
            f"{string.id}/base", "mud", ("Base fluid to thin the mud",), "bbl", row.base_bbl, 0.0, used, string.index
        )


def of_sea_holes(plan: Plan) -> Iterator[Item]:
    """Pad mud of the holes that are drilled before the riser is on."""
    for row in plan.sea.riserless:
        string = plan.equipped.strings[row.string]
        if row.pad_bbl is not None and row.pad_ppg is not None:
            what: Words = (emw(row.pad_ppg), " pad mud")
            yield Item(f"{string.id}/pad", "mud", what, "bbl", row.pad_bbl, 0.0, (f"{string.id}/pad",), string.index)
