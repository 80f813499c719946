"""Faults of the log: numbers that rise, times of the calendar, fields of their kind, corrections of what stands before."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from knollstack.core.base.dates import A_MOMENT, is_moment
from knollstack.core.document.described import described
from knollstack.core.document.faults import Fault, shown
from knollstack.core.document.log import COMMON, EMPTY, KINDS, LogEntry

PLACE = "/log"
LEAST_POINTS = 3


def log_faults(log: tuple[LogEntry, ...]) -> Iterable[Fault]:
    corrected: dict[int, int] = {}
    known: set[int] = set()
    for i, entry in enumerate(log):
        place = f"{PLACE}/{i}"
        if i and entry.number <= log[i - 1].number:
            expected = f"a number above that of the entry before it ({log[i - 1].number})"
            yield Fault(path=f"{place}/number", value=str(entry.number), expected=expected)
        yield from entry_faults(place, entry)
        yield from correction_faults(place, entry, known, corrected)
        known.add(entry.number)


def correction_faults(place: str, entry: LogEntry, known: set[int], corrected: dict[int, int]) -> Iterable[Fault]:
    """A correction names an entry before it that no other corrects; what it corrects is noted."""
    old = entry.corrects
    if old is None:
        return
    if old not in known:
        yield Fault(path=f"{place}/corrects", value=str(old), expected="the number of an entry before it")
    elif old in corrected:
        expected = f"an entry that counts: {old} is corrected by {corrected[old]} already"
        yield Fault(path=f"{place}/corrects", value=str(old), expected=expected)
    else:
        corrected[old] = entry.number


def entry_faults(place: str, entry: LogEntry) -> Iterable[Fault]:
    """What an entry alone says wrong."""
    kind = KINDS[entry.kind]
    if not is_moment(entry.at):
        yield Fault(path=f"{place}/at", value=entry.at, expected=A_MOMENT)
    for key in kind.needs:
        if getattr(entry, key) in EMPTY:
            yield Fault(path=f"{place}/{key}", value="nothing", expected=_needed(key, entry.kind))
    for key in LogEntry.model_fields:
        if key not in COMMON and key not in kind.keys and getattr(entry, key) not in EMPTY:
            value = shown(entry.model_dump(mode="json")[key])
            yield Fault(
                path=f"{place}/{key}", value=value, expected=f"nothing: it is no part of an entry “{entry.kind}”"
            )
    if (entry.weight_ppf is None) != (entry.grade == "") or (entry.grade == "") != (entry.connection == ""):
        yield Fault(
            path=f"{place}/weight_ppf", value="a part of a pipe", expected="weight, grade and connection together"
        )
    yield from _point_faults(place, entry)


def _needed(key: str, kind: str) -> str:
    field = described(f"{PLACE}/0/{key}")
    return f"{field.words if field else key}, of an entry “{kind}”"


def _point_faults(place: str, entry: LogEntry) -> Iterable[Fault]:
    for k, (before, point) in enumerate(pairwise(entry.points), 1):
        if point.volume_bbl <= before.volume_bbl:
            expected = f"more than at the point before it ({before.volume_bbl:g} bbl)"
            yield Fault(path=f"{place}/points/{k}/volume_bbl", value=f"{point.volume_bbl:g}", expected=expected)
    if entry.kind != "leak-off test":
        return
    if entry.emw_ppg is None and entry.leak_off_psi is None and len(entry.points) < LEAST_POINTS:
        yield Fault(
            path=f"{place}/points",
            value=f"{len(entry.points)} points" if entry.points else "nothing",
            expected=f"at least {LEAST_POINTS} points, or the pressure at the break, or the EMW of the test",
        )
    if entry.emw_ppg is not None and entry.mud_ppg is not None and entry.emw_ppg < entry.mud_ppg:
        expected = f"at least the mud weight ({entry.mud_ppg:g} ppg)"
        yield Fault(path=f"{place}/emw_ppg", value=f"{entry.emw_ppg:g}", expected=expected)
