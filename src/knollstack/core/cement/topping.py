"""The top-up job: slurry by small pipe from where the cement has fallen back to, up to the ground."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Finding, Words, depth, find
from knollstack.core.base.formulas import annular_capacity, interval_volume, sacks
from knollstack.core.base.working import headline
from knollstack.core.cement.conduit import Bores, conduit_of
from knollstack.core.cement.formulas import mix_water, slurry, slurry_volume
from knollstack.core.cement.results import TopUpRow
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import EquippedString

_find = partial(find, "cement")


def top_up_of(well: Well, string: EquippedString, bores: Bores) -> TopUpRow | None:
    """None where nothing has fallen back, or a size is unknown; the slurry is that around the shoe."""
    start, ground = string.own.cement.top_up_md_ft, well.ground_md_ft
    if start is None or string.slurry is None or not ground < start < string.shoe_md_ft:
        return None
    way = conduit_of(well, string, bores, string.shoe_md_ft, string.shoe_md_ft)
    if way is None:
        return None
    with headline(f"cement/{string.index}/top_up"):
        opened = cased = 0.0
        for s in way.annulus:
            length = min(s.base_md_ft, start) - max(s.top_md_ft, ground)
            if length > 0:
                part = interval_volume(annular_capacity(s.outer_in, s.inner_in), length, s.excess)
                cased, opened = (
                    (cased, opened + part) if s.base_md_ft > string.previous_shoe_md_ft else (cased + part, opened)
                )
        volume = slurry_volume(float(cased), float(opened), 0.0, 0.0)
        count = float(sacks(volume, slurry(**string.slurry.mix)["yield_ft3_sk"]))
        water = mix_water(count, string.slurry.water_gal_sk)
    return TopUpRow(from_md_ft=start, to_md_ft=ground, volume_bbl=volume, sacks=count, water_bbl=water)


def top_up_findings(well: Well, string: EquippedString) -> Iterator[Finding]:
    start = string.own.cement.top_up_md_ft
    if start is None:
        return
    place, subject = f"{string.path}/cement/top_up_md_ft", (*string.words, " top-up job")
    if not well.ground_md_ft < start < string.shoe_md_ft:
        text: Words = (
            "The cement cannot have fallen back to ",
            depth(start),
            ": that is not between the ground and the shoe.",
        )
        yield _find("caution", place, subject, *text, value=depth(start), limit=depth(string.shoe_md_ft))
    elif start > string.previous_shoe_md_ft > well.ground_md_ft:
        text = (
            "The cement has fallen back to ",
            depth(start),
            ", below the shoe above at ",
            depth(string.previous_shoe_md_ft),
        )
        more = ": no bond into it until it is filled up."
        yield _find("caution", place, subject, *text, more, value=depth(start), limit=depth(string.previous_shoe_md_ft))
