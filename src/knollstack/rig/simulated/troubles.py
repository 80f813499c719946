"""Troubles that the simulated rig can be asked for, each at a depth: `losses@7200`."""

from __future__ import annotations

import re
from typing import Literal, NamedTuple, get_args

Kind = Literal["losses", "kick", "tight hole", "stuck", "no bump", "lost returns"]
KINDS: tuple[Kind, ...] = get_args(Kind)
_WRITTEN = re.compile(r"^([a-z -]+)@([0-9]+(?:\.[0-9]+)?)$")
MOST_TROUBLES = 20


class Trouble(NamedTuple):
    """At a measured depth: of the bit while drilling, of the shoe while running; else in the job of the next string below."""

    kind: Kind
    md_ft: float


def parse_trouble(text: str) -> Trouble:
    """From its written form; raises ValueError that says what was expected."""
    match = _WRITTEN.match(text.strip().lower())
    name = match.group(1).strip().replace("-", " ") if match else ""
    kind = next((k for k in KINDS if k == name), None)
    if match is None or kind is None:
        names = ", ".join(k.replace(" ", "-") for k in KINDS)
        raise ValueError(f"{text!r}: expected NAME@DEPTH with a depth in ft and one of {names}")
    return Trouble(kind, float(match.group(2)))
