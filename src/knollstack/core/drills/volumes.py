"""Volumes of the kill sheet: the string from the rig floor to the bit, then the annulus as it comes back."""

from __future__ import annotations

from knollstack.core.base.findings import Words, size
from knollstack.core.base.formulas import annular_capacity, circle_capacity, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.drills.formulas import pump_minutes, pump_strokes
from knollstack.core.drills.geometry import Stretch
from knollstack.core.drills.hole import Slow
from knollstack.core.drills.results import KillSum, VolumeRow
from knollstack.core.drills.setup import Tube

OPEN_HOLE: Words = ("open hole",)
CHOKE_LINE_IN = 3.0
"""Usual bore of a choke line from the sea floor."""


def string_rows(slow: Slow, inside: list[tuple[Tube, float]], key: str) -> list[VolumeRow]:
    """Of parts with their lengths from the bit up."""
    rows, top = [], 0.0
    for i, (tube, length) in enumerate(reversed(inside)):
        part = Stretch(top, top + length, tube.id_in)
        rows.append(_row(slow, (size(tube.od_in), f" {tube.kind}"), part, f"{key}/string/{i}"))
        top += length
    return rows


def annulus_rows(
    slow: Slow, annulus: list[Stretch], shoe_md_ft: float, choke_line_ft: float, key: str
) -> list[VolumeRow]:
    """From the bit up; with a choke line from the sea floor last."""
    rows = []
    for i, part in enumerate(reversed(annulus)):
        words: Words = OPEN_HOLE if part.top_md_ft >= shoe_md_ft - 1e-6 else ("casing",)
        rows.append(_row(slow, words, part, f"{key}/annulus/{i}"))
    if choke_line_ft > 0:
        line = Stretch(0.0, choke_line_ft, CHOKE_LINE_IN)
        rows.append(_row(slow, ("choke line",), line, f"{key}/annulus/{len(annulus)}"))
    return rows


def sums(slow: Slow, string_bbl: float, open_bbl: float, annulus_bbl: float, key: str) -> tuple[KillSum, ...]:
    """From surface to bit, from there to the shoe and to the choke, and the whole way round."""
    named = (
        ("to_bit", "Surface to bit", string_bbl),
        ("bit_to_shoe", "Bit to shoe", open_bbl),
        ("bit_to_choke", "Bit to choke", annulus_bbl),
        ("whole", "Surface to bit to choke", string_bbl + annulus_bbl),
    )
    found = []
    for name, title, bbl in named:
        with headline(f"{key}/{name}"):
            strokes = float(pump_strokes(bbl, slow.bbl_stroke))
            minutes = float(pump_minutes(strokes, slow.spm))
        found.append(KillSum(title=title, volume_bbl=bbl, strokes=strokes, minutes=minutes, working=f"{key}/{name}"))
    return tuple(found)


def _row(slow: Slow, words: Words, part: Stretch, key: str) -> VolumeRow:
    with headline(key):
        inner = part.inner_in
        each = annular_capacity(part.outer_in, inner) if inner > 0 else circle_capacity(part.outer_in)
        bbl = float(interval_volume(each, part.length_ft))
        strokes = float(pump_strokes(bbl, slow.bbl_stroke))
        minutes = float(pump_minutes(strokes, slow.spm))
    return VolumeRow(
        part=words,
        top_md_ft=part.top_md_ft,
        bottom_md_ft=part.bottom_md_ft,
        capacity_bbl_ft=float(each),
        volume_bbl=bbl,
        strokes=strokes,
        minutes=minutes,
        working=key,
    )
