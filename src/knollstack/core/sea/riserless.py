"""Holes drilled before the riser is on: what fills them before casing is run, and whether the rock bears it."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, depth, emw, find
from knollstack.core.base.formulas import circle_capacity, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.ground.riserless import column_emw, is_riserless, worst_depths
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.results import RiserlessRow

PLACE = "/sea/pad_mud_ppg"


def riserless_strings(equipped: Equipped) -> list[EquippedString]:
    return [s for s in equipped.strings if s.drilled and is_riserless(equipped.well, s.index) and s.bit_in is not None]


def riserless_rows(equipped: Equipped) -> tuple[RiserlessRow, ...]:
    """Pad mud of each such hole: its volume with policy's share over the hole."""
    rows, pad = [], equipped.design.sea.pad_mud_ppg
    for string in riserless_strings(equipped):
        open_ft = string.shoe_md_ft - max(string.previous_shoe_md_ft, equipped.well.ground_md_ft)
        key, volume = f"sea/pad/{string.index}", None
        hole = float(interval_volume(circle_capacity(string.bit_in), open_ft))
        if pad is not None:
            with headline(key):
                capacity = float(circle_capacity(string.bit_in))
                volume = float(interval_volume(capacity, open_ft, equipped.well.policy.sea.pad_share))
        rows.append(
            RiserlessRow(
                string=string.index, what=string.hole_words, hole_bbl=hole, pad_ppg=pad, pad_bbl=volume, working=key
            )
        )
    return tuple(rows)


def riserless_findings(equipped: Equipped) -> Iterator[Finding]:
    """The pad mud against pore and fracture pressure over the whole hole, sea water on top of it."""
    pad = equipped.design.sea.pad_mud_ppg
    for string in riserless_strings(equipped):
        subject = (*string.hole_words, " pad mud")
        if pad is None:
            text = "No pad mud is planned: the hole stands on what it was drilled with while casing is run."
            yield find("sea", "note", PLACE, subject, text)
            continue
        well = equipped.well
        under, over = worst_depths(well, pad, *well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft))
        if under is None or over is None:
            text = (
                "Pore or fracture is not given over the whole riserless hole: whether it bears the pad mud is unknown."
            )
            yield find("sea", "unknown", PLACE, subject, text)
            continue
        pore, fracture = float(well.ground.pore.at(under)), float(well.ground.fracture.at(over))
        light, heavy = column_emw(well, pad, under), column_emw(well, pad, over)
        for wrong, column, tvd, rock, limit in (
            (light < pore - 1e-9, light, under, "pore pressure is", pore),
            (heavy > fracture + 1e-9, heavy, over, "the rock breaks at", fracture),
        ):
            if wrong:
                yield find(
                    "sea",
                    "stop",
                    PLACE,
                    subject,
                    "Sea water and pad mud come to ",
                    emw(column),
                    " at ",
                    depth(well.path.md(tvd)),
                    f"; {rock} ",
                    emw(limit),
                    ".",
                    value=emw(column),
                    limit=emw(limit),
                )
