"""Readings thinned: for each span of the rig's clock its channels as least, last and most, so that no peak is lost."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

from knollstack.core.logbook.channels import Channel
from knollstack.rig.channels import Reading

SPAN_S = 10


class Held(NamedTuple):
    low: float
    last: float
    high: float


@dataclass(frozen=True)
class Span:
    begins_s: int
    span_s: int
    values: Mapping[Channel, Held]

    def as_lists(self) -> dict[str, list[float]]:
        return {channel: [round(v, 4) for v in held] for channel, held in self.values.items()}

    @classmethod
    def of_lists(cls, begins_s: int, span_s: int, values: Mapping[Channel, list[float]]) -> Span:
        return cls(begins_s, span_s, {channel: Held(*held) for channel, held in values.items()})


def joined(first: Span, second: Span) -> Span:
    """Two spans that follow one another as one."""
    values = dict(first.values)
    for channel, late in second.values.items():
        early = values.get(channel)
        values[channel] = (
            late if early is None else Held(min(early.low, late.low), late.last, max(early.high, late.high))
        )
    end = max(first.begins_s + first.span_s, second.begins_s + second.span_s)
    return Span(first.begins_s, end - first.begins_s, values)


def thinned(spans: list[Span], keep: int) -> list[Span]:
    """No more spans than are kept: the older half joined in pairs, again and again, so that what is new stays fine."""
    while len(spans) > keep:
        half = (len(spans) + 1) // 2
        old, new = spans[:half], spans[half:]
        spans = [*(joined(*old[i : i + 2]) if len(old[i : i + 2]) == 2 else old[i] for i in range(0, half, 2)), *new]
    return spans


@dataclass
class Thinner:
    """Readings in, spans out as they end; a clock that jumps begins a new one."""

    span_s: int = SPAN_S
    _begins: int | None = None
    _values: dict[Channel, Held] = field(default_factory=dict)

    def add(self, reading: Reading) -> Iterator[Span]:
        begins = reading.at_s - reading.at_s % self.span_s
        if self._begins is not None and begins != self._begins:
            yield from self.end()
        self._begins = begins
        for channel, value in reading.values.items():
            held = self._values.get(channel)
            self._values[channel] = (
                Held(value, value, value) if held is None else Held(min(held.low, value), value, max(held.high, value))
            )

    def end(self) -> Iterator[Span]:
        """What is held of a span that has not ended."""
        if self._begins is not None and self._values:
            yield Span(self._begins, self.span_s, self._values)
        self._begins, self._values = None, {}
