"""A leak-off test read from the feed: volume pumped and pressure, by the cement unit where it pumps, else by the rig's pumps."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from knollstack.rig.spans import Span

GALLONS_BBL = 42.0
MOST_POINTS = 200
LEAST_BBL = 0.01


def points_of(spans: Sequence[Span]) -> list[tuple[float, float]]:
    """Volume [bbl] and pressure [psi], each point with more pumped than the one before."""
    unit = [s.values for s in spans if {"cement_bbl", "cement_psi"} <= s.values.keys()]
    found = [(v["cement_bbl"].last - unit[0]["cement_bbl"].last, v["cement_psi"].last) for v in unit]
    return _rising(found or list(_by_flow(spans)))


def _by_flow(spans: Sequence[Span]) -> Iterator[tuple[float, float]]:
    pumped = 0.0
    for span in spans:
        flow, gauge = span.values.get("flow_in_gpm"), span.values.get("pump_psi")
        if flow is not None and gauge is not None:
            pumped += flow.last / GALLONS_BBL * span.span_s / 60.0
            yield pumped, gauge.last


def _rising(found: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """No more points than a test takes, none twice at one volume."""
    kept: list[tuple[float, float]] = []
    for volume, psi in found:
        if not kept or volume > kept[-1][0] + LEAST_BBL:
            kept.append((round(volume, 3), round(psi, 1)))
    step = -(-len(kept) // MOST_POINTS) or 1
    return kept[::step]
