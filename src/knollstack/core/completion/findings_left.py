"""What is said of a well that is suspended or abandoned, once that is decided."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Words, depth, find, remedy
from knollstack.core.cement.plugs import Placed, rock_findings
from knollstack.core.completion.leaving import Left, needs_isolation
from knollstack.core.completion.plugs import Judged, covered
from knollstack.core.completion.proposing import proposal_of
from knollstack.core.program.equipped import Equipped

_find = partial(find, "completion")


def proposed_change(equipped: Equipped, left: Left) -> Change:
    rows = [p.model_dump(mode="json") for p in proposal_of(equipped, left.way).plugs]
    return Change(path=left.path, value=rows)


def left_findings(equipped: Equipped, left: Left, plugs: tuple[Judged, ...]) -> Iterator[Finding]:
    yield from _need_findings(equipped, left)
    yield from _zone_findings(left)
    for plug in plugs:
        place, name = f"{left.path}/{plug.index}", (plug.own.name or f"Plug {plug.index + 1}",)
        if not isinstance(plug.at, Placed):
            key, words = plug.at
            yield _find("unknown", f"{place}/{key}", name, f"Its volumes are unknown: {words}.")
        elif plug.row is not None:
            for found in rock_findings(equipped, plug.at, plug.row, "completion"):
                settled = found.severity == "note" and plug.own.base != "none"
                if not settled:
                    yield found.model_copy(update={"remedies": ()}) if left.proposed else found
    yield from _annulus_notes(left)


def _need_findings(equipped: Equipped, left: Left) -> Iterator[Finding]:
    """A plug that is wanting, or does not fill what is asked for."""
    for need in left.needs:
        if covered(left, need):
            continue
        text: Words = (
            "Cement is asked from ",
            depth(need.top_md_ft),
            " to ",
            depth(need.bottom_md_ft),
            "; the plugs do not fill it.",
        )
        mend = remedy(proposed_change(equipped, left), "Take the proposed plugs")
        proposal = proposal_of(equipped, left.way)
        helps = all(covered(proposal, n) for n in proposal.needs)
        yield _find("stop", left.path, need.what, *text, remedies=(mend,) if helps else ())


def _zone_findings(left: Left) -> Iterator[Finding]:
    if left.open_hole is None:
        return
    for k, zone in enumerate(left.well.ground.model.zones):
        if needs_isolation(left.well, zone) is None:
            text = "Whether it needs a plug is unknown: its pore pressure is not given."
            yield _find("unknown", f"/ground/zones/{k}", (zone.name,), text)


def _annulus_notes(left: Left) -> Iterator[Finding]:
    """Annuli that stand open where the casing is cut."""
    if left.way != "abandonment":
        return
    cut = left.well.ground_md_ft + left.cut_below_ft
    for string in left.equipped.strings[1 : left.standing]:
        top = string.cement_top_md_ft
        if string.run == "cased" and top is not None and top > cut + 0.5:
            span: Words = (depth(cut), " to ", depth(top))
            text: Words = ("Its annulus is open from ", *span, ": perforate and circulate cement, or cut and pull it.")
            yield _find("note", f"{string.path}/cement/top_md_ft", string.words, *text)
